"""Names of feasts and holidays before or behind a date, `Good Friday 26 March 2027`, `28 March, Easter Sunday`: the date stands without them."""

import re
from typing import Final

_LONGEST: Final = 80
_DAY: Final = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
_OF_WEEKDAY: Final = (
    r"(?:easter|palm|passion|low|advent|trinity|whit|rogation|remembrance|mothering|harvest|bible|good|holy|maundy|ash|shrove|spy|plough|"
    r"bank holiday|late may|early may|spring|summer|father'?s|mother'?s|cyber|black)"
)
"""Words before a weekday that make a name of both; the weekday is held against the date."""
_NAMED: Final = (
    r"(?:christmas|boxing|new year'?s?|st\.? \w+'?s|saint \w+'?s|all saints'?|all souls'?|ascension|remembrance|armistice|australia|canada|victoria|labou?r|"
    r"thanksgiving|family|civic|heritage|may|burns|bonfire|twelfth|candlemas|lady|midsummer|founders?'?|founder'?s|speech|prize|sports|staff|inset|training) (?:day|eve|night)"
)
_ALONE: Final = r"(?:christmas|easter|pentecost|whitsun|epiphany|ascension|candlemas|michaelmas|martinmas|halloween|hogmanay|thanksgiving|corpus christi)"
_COUNTED: Final = (
    rf"(?:\d(?:st|nd|rd|th)|first|second|third|fourth|fifth)?\s*(?:{_DAY}\s+)?(?:of|in|before|after)\s+(?:advent|lent|easter|trinity|epiphany|christmas|pentecost)|"
    r"(?:advent|lent|easter|trinity|epiphany|proper|pentecost) \d{1,2}"
)
_OF_DAYS: Final = frozenset("day eve night monday tuesday wednesday thursday friday saturday sunday".split())
_OF_NAMES: Final = frozenset(
    "easter palm passion low advent trinity whit rogation remembrance mothering harvest bible good holy maundy ash shrove spy plough holiday may "
    "spring summer father fathers mother mothers cyber black christmas boxing new st saint saints souls ascension armistice australia canada "
    "victoria labor labour thanksgiving family civic heritage burns bonfire twelfth candlemas lady midsummer founder founders speech prize sports "
    "staff inset training".split()
)
_OF_THEMSELVES: Final = frozenset(
    "christmas easter pentecost whitsun epiphany ascension candlemas michaelmas martinmas halloween hogmanay thanksgiving corpus advent lent "
    "trinity proper".split()
)
"""A name has a word of the first two, or one of the third: the patterns are made for no other text."""
_WORD: Final = r"[^\W\d_]+"
_FEAST: Final = rf"(?:{_NAMED}|{_COUNTED}|{_ALONE})"
_BEFORE: Final = rf"(?i)^(?:{_OF_WEEKDAY}\s+(?={_DAY}\b)|{_FEAST}\b[\s,:–—-]+(?=\S))"
_BEHIND: Final = rf"(?i)\s*[,;:–—-]\s*(?:{_OF_WEEKDAY}\s+{_DAY}|{_FEAST})$"


def _may_name(text: str) -> bool:
    words = frozenset(re.findall(_WORD, text.casefold()))
    return not _OF_THEMSELVES.isdisjoint(words) or not (
        _OF_DAYS.isdisjoint(words) or _OF_NAMES.isdisjoint(words)
    )


def without_feast(text: str) -> str | None:
    """A text without the name of a feast before or behind its date; None where it has none, or no date is left.

    >>> without_feast("Good Friday 26 March 2027"), without_feast("Christmas Eve, Thu 24 Dec"), without_feast("Friday 26 March")
    ('Friday 26 March 2027', 'Thu 24 Dec', None)
    >>> without_feast("28 March 2027 - Easter Sunday"), without_feast("Advent 2: 6 December 2026"), without_feast("Easter Monday")
    ('28 March 2027', '6 December 2026', None)
    """
    if len(text) > _LONGEST or not any(map(str.isdigit, text)) or not _may_name(text):
        return None
    bare = re.sub(_BEHIND, "", re.sub(_BEFORE, "", text.strip()))
    return bare if bare != text.strip() and any(map(str.isdigit, bare)) else None
