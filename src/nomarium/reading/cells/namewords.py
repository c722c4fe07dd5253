"""What stands in brackets behind the name of a class and belongs to it: for whom it is, and how hard."""

import re
from collections.abc import Callable
from typing import Final

_AGES: Final = (
    r"(?:ages?\s*)?\d{1,2}\s*(?:[-–]\s*\d{1,2}|\+|to \d{1,2})\s*(?:yrs?\.?|years?(?: olds?)?|y\.?o\.?|mths?|months?|ans|jahre)?"
    r"|(?:ages?|under|over)[- ]?\d{1,2}s?\+?"
)
_LEVELS: Final = (
    r"beg(?:inners?|\.)|improvers?|int(?:ermediates?|\.)|adv(?:anced|\.)|(?:all|mixed) (?:ages|levels|abilit(?:y|ies))|open level|"
    r"(?:level|part|pt|stage)\.? ?(?:\d{1,2}|[IVX]{1,4})|novices?|seniors?|juniors?|minis|tots|adults?|teens?|children|kids|boys|girls|ladies|men|women|mixed|"
    r"cont(?:inued|'d|\.)?|d[ée]butants?|avanc[ée]s?|adultes|enfants|anf[äa]nger|fortgeschrittene"
)
_BRACKETS: Final = re.compile(rf"(?i)\(\s*({_AGES}|{_LEVELS})\s*\)")


def in_braces(text: str, is_other: Callable[[str], bool] = lambda _: False) -> str:
    """A text whose brackets around an age or a level are braces, so that nothing parts the name there; not around what
    `is_other`.

    >>> in_braces("Ballet (3-4)"), in_braces("Tap (beginners)"), in_braces("Tap (Loft 2)")
    ('Ballet {3-4}', 'Tap {beginners}', 'Tap (Loft 2)')
    """
    if "(" not in text:
        return text
    return _BRACKETS.sub(lambda match: match[0] if is_other(match[1]) else f"{{{match[1]}}}", text)


def in_brackets(text: str) -> str:
    """What `in_braces` made, as it was."""
    return text.replace("{", "(").replace("}", ")")
