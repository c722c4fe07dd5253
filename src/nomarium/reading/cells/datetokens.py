"""The parts of a text that may be a date: figures, names of months and weekdays, signs."""

import re
from typing import NamedTuple

from nomarium.reading.cells.fourfigures import is_hour_apart
from nomarium.reading.cells.words import Lexicon, fold

_SIGN = r"\s\d!-/:-@\[-`{-~–—‒−’〜～"
WORD = rf"[^\W\d_][^{_SIGN}]*"
"""A letter and what follows it to the next sign: letters and the marks that combine with them."""
_TOKEN = rf"(\d+)|({WORD}(?:['’]{WORD})?)|(\s*[–—‒−〜～]\s*|\s+[-~]\s*|[-~]\s+)|(\S)"
"""Figures, words (of letters with the marks that combine with them), a dash between two days, another sign."""
_ORDINALS = frozenset("st nd rd th er ere re eme e o a º ª ste de".split())
_NOISE = frozenset(
    "of the le la dnia dne dia den der del dal de d del' on am el op du vom from von desde van vanaf od het week".split()
)
_LEADING = frozenset("on from vom von desde van vanaf od".split())  # a number before them is none of its days
OF_NUMBERS = frozenset(("", *"m d r г год года р року il g gada godine roku ano թ ж".split()))
"""Words that only say that the number before them is a year or a day."""
_RANGE_WORDS = frozenset("to until till til through thru bis au al a tot do hasta jusqu'au -".split())
_A_TO = r"\s[aA]\s+\d"
_TIME_WORDS = frozenset("at um om kl".split())

_HOUR_BEHIND = r"(?i)\d{1,2}\s*(?:[-–]\s*\d{1,2}(?!\s*[.]|\d)|(?:uhr|uur|h)\b)|\d(?![\d.])"


class Token(NamedTuple):
    """One part of a text, and where in it this ends."""

    kind: str
    """n = 1 or 2 figures, y = 4 figures or an apostrophe and 2, N = 8 figures, X = others, M = a month's name, W = a weekday's,
    ~ = a dash that parts two days, @ = "at", o = an ordinal's ending, p and h = what makes a figure an hour, x = any other word;
    other signs stand for themselves."""
    text: str
    end: int
    value: int = 0


def tokens_of(text: str, lexicon: Lexicon) -> list[Token]:
    """The parts of a text, by the names of a language."""
    tokens: list[Token] = []
    before = ""
    if "-feira" in text.casefold():  # segunda-feira: places in the text must stay
        text = re.sub(r"(?i)-feira\b", "      ", text)
    for match in re.finditer(_TOKEN, text):
        figures, word, dash, sign = match.groups()
        end = match.end()
        previous = tokens[-1].kind if tokens else ""
        if figures:
            apostrophe = previous in ("'", "’")
            if apostrophe:
                tokens.pop()
            kind = {1: "n", 2: "y" if apostrophe else "n", 4: "y", 8: "N"}.get(len(figures), "X")
            if kind == "y" and is_hour_apart(text, match.start(), end):
                kind = "X"
            if (
                previous == "."
                and [token.kind for token in tokens[-4:]] == ["n", ".", "n", "."]
                and _is_hour_behind_date(text, match.start())
            ):
                kind = "X"  # 10.11. 8-10 Uhr
            tokens.append(Token(kind, figures, end, int(figures)))
        elif word:
            joined = fold(before + word) if before else ""  # Meán Fómhair, Thứ Hai: names of two words
            if joined in lexicon.months or joined in lexicon.weekdays:
                if tokens and tokens[-1].text == before:
                    tokens.pop()
                word = joined
            if (
                word in ("a", "A")
                and previous in ("n", "y", "M")
                and re.match(_A_TO, text[match.start() - 1 :])
            ):
                tokens.append(Token("~", "-", end))  # 7 a 9 de dezembro: no am
                before = word
                continue
            _add_word(tokens, word, end, previous, lexicon, text[match.start() - 1 : match.start()])
        elif dash:
            tokens.append(Token("~", "-", end))
        else:
            tokens.append(Token(sign, sign, end))
        before = word or ""
    return tokens


def _is_hour_behind_date(text: str, at: int) -> bool:
    """Whether a number apart from the dot before it is an hour, and no year: it has one figure, or goes on as hours do."""
    return text[at - 1] == " " and re.match(_HOUR_BEHIND, text[at:]) is not None


def _add_word(tokens: list[Token], word: str, end: int, previous: str, lexicon: Lexicon, before: str) -> None:
    folded = fold(word)
    follows_figure = previous in ("n", "y") and before.isdigit()
    if follows_figure and (folded in _ORDINALS or word in ("º", "ª")):
        tokens.append(Token("o", word, end))
    elif folded in ("am", "pm", "a", "p", "h", "uhr", "uur", "noon", "midnight") and previous in (
        "n",
        "y",
        ":",
    ):
        tokens.append(Token("h" if folded in ("h", "uhr", "uur") else "p", word, end))
    elif folded in lexicon.months and not (folded in lexicon.weekdays and _is_weekday(tokens, before)):
        tokens.append(Token("M", word, end, lexicon.months[folded]))
    elif folded in lexicon.weekdays:
        tokens.append(Token("W", word, end, lexicon.weekdays[folded]))
    elif folded in _RANGE_WORDS and previous in ("n", "o", "y", "M", "W", ".", "N"):
        tokens.append(Token("~", "-", end))
    elif folded in _NOISE and previous not in (("@", "n", "o", "y") if folded in _LEADING else ("@",)):
        pass  # but Slip 2 on May 25
    elif folded in OF_NUMBERS and previous in ("n", "y", "."):
        pass
    elif folded in _TIME_WORDS:
        tokens.append(Token("@", word, end))
    else:
        tokens.append(Token("x", word, end))


def _is_weekday(tokens: list[Token], before: str) -> bool:
    """Whether a word that names a month and a weekday (French mar) is the weekday: it comes first."""
    return not tokens or (tokens[-1].kind not in ("n", "o") and not before.isdigit())
