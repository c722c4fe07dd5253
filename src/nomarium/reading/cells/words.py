"""Month and weekday names: English by heart, every other language from CLDR, looked up when met."""

import unicodedata
from collections.abc import Iterable
from functools import lru_cache
from typing import Final, NamedTuple

ENGLISH_MONTHS = (
    "january jan", "february feb", "march mar", "april apr", "may", "june jun", "july jul",
    "august aug", "september sept sep", "october oct", "november nov", "december dec",
)  # fmt: skip
_ENGLISH_WEEKDAYS = (
    "monday mon mo", "tuesday tues tue tu", "wednesday weds wed we", "thursday thurs thur thu th",
    "friday fri fr", "saturday sat sa", "sunday sun su",
)  # fmt: skip

LIKELY_LANGUAGES = (
    "fr",
    "de",
    "es",
    "nl",
    "it",
    "pt",
    "sv",
    "da",
    "nb",
    "fi",
    "pl",
    "cs",
    "tr",
    "ga",
    "cy",
)
"""Languages looked at before the rest of CLDR, only to be quick."""


class Lexicon(NamedTuple):
    """The names that a reading knows, folded by `fold`: months 1–12, weekdays 0–6 from Monday."""

    months: dict[str, int]
    weekdays: dict[str, int]
    languages: tuple[str, ...] = ("en",)

    def __hash__(self) -> int:
        """Equal ones have the same, and it is quickly told: readings are remembered by text and lexicon."""
        return hash((self.languages, len(self.months), len(self.weekdays)))

    def knows(self, word: str) -> bool:
        return word in self.months or word in self.weekdays

    def weekday(self, word: str) -> int | None:
        """The weekday that a folded word names, 0 for Monday, in the plural too, `mondays`; None for another word."""
        return self.weekdays.get(word, self.weekdays.get(word.removesuffix("s")))

    def extended(self, other: "Lexicon") -> "Lexicon":
        """Both together; where they disagree on a word, this one's meaning stays."""
        return Lexicon(
            other.months | self.months,
            other.weekdays | self.weekdays,
            self.languages + other.languages,
        )


def fold(word: str) -> str:
    """A word without case, accents and full stops: how names are compared.

    >>> fold("Févr."), fold("AOÛT")
    ('fevr', 'aout')
    """
    plain = word.casefold().replace(".", "").replace("’", "'")
    if plain.isascii():
        return plain
    parts = unicodedata.normalize("NFKD", plain)
    return "".join(mark for mark in parts if not unicodedata.combining(mark))


def _numbered(lines: Iterable[str], first: int) -> dict[str, int]:
    return {word: number for number, line in enumerate(lines, first) for word in line.split()}


ENGLISH = Lexicon(_numbered(ENGLISH_MONTHS, 1), _numbered(_ENGLISH_WEEKDAYS, 0))


_SHORTENED: Final[dict[str, tuple[dict[str, int], dict[str, int]]]] = {
    "fr": ({"juill": 7, "fev": 2, "aou": 8}, {"merc": 2}),
    "de": ({"janner": 1, "feber": 2, "mrz": 3, "maerz": 3}, {"sonnabend": 5}),
    "es": ({"set": 9, "setiembre": 9}, {"mier": 2}),
    "it": ({"genn": 1, "febb": 2, "magg": 5, "giug": 6, "lugl": 7, "sett": 9}, {"merc": 2, "giov": 3}),
    "nl": ({}, {"din": 1, "woe": 2, "vri": 4, "zat": 5, "zon": 6}),
    "sv": ({"febr": 2}, {"tor": 3}),
    "da": ({}, {"tir": 1, "tor": 3}),
    "nb": ({}, {"tirs": 1, "tors": 3}),
    "pl": ({}, {"pn": 0, "piat": 4, "sb": 5, "nd": 6, "ndz": 6}),
}
"""Months and weekdays as people shorten them, and CLDR does not."""


@lru_cache(maxsize=512)
def lexicon_of(code: str, with_short: bool = False) -> Lexicon | None:
    """A language's names from CLDR by its code ("fr", "pt-BR"), or None when CLDR has no such language, with those that people
    shorten otherwise. `with_short`: its shortest weekdays too, `je` for *jeudi*, of which many are other days elsewhere."""
    from babel import Locale, UnknownLocaleError

    if code.lower() in ("en", "eng"):
        return ENGLISH
    try:
        locale = Locale.parse(code.replace("-", "_"))
    except (UnknownLocaleError, ValueError):
        return None
    months, weekdays = map(dict[str, int], _SHORTENED.get(locale.language, ({}, {})))
    for context in ("format", "stand-alone"):
        for width in ("wide", "abbreviated"):
            for number, name in locale.months[context][width].items():
                _learn(months, name, number)
            for number, name in locale.days[context][width].items():
                _learn(weekdays, name, number)
        for number, name in locale.days[context].get("short", {}).items() if with_short else ():
            _learn(weekdays, name, number)
    return Lexicon(months, weekdays, (code,))


def _learn(names: dict[str, int], name: str, number: int) -> None:
    word = fold(name).replace(" ", "")  # a date's reading joins names of two words
    if any(character.isalpha() for character in word) and not any(map(str.isdigit, word)):
        names.setdefault(word, number)
        if word.endswith("-feira"):  # Portuguese weekdays are two words: a date's reading blanks the second
            names.setdefault(word.removesuffix("-feira"), number)


@lru_cache(maxsize=1)
def all_languages() -> tuple[str, ...]:
    """The codes of every language in CLDR, the likeliest first."""
    from babel.localedata import locale_identifiers

    codes = sorted(code for code in locale_identifiers() if "_" not in code and code not in ("en", "root"))
    return (*LIKELY_LANGUAGES, *(code for code in codes if code not in LIKELY_LANGUAGES))


def language_name(code: str) -> str:
    """A language's English name, for messages.

    >>> language_name("fr")
    'French'
    """
    from babel import Locale

    return Locale.parse(code.replace("-", "_")).get_display_name("en") or code
