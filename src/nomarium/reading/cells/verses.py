"""Chapters and verses, `John 3:16-21`, which look like times."""

import re
from typing import Final

_BOOKS: Final = (
    "genesis|gen|exodus|exod|ex|leviticus|lev|numbers|deuteronomy|deut|judges|kings|kgs|chronicles|chron|nehemiah|neh|job|psalms?|ps|pss|proverbs|prov|"
    "ecclesiastes|eccl|isa|jer|lamentations|ezekiel|ezek|hosea|amos|obadiah|jonah|nahum|habakkuk|hab|zephaniah|zeph|haggai|zechariah|zech|malachi|mal|matt|mt|mk|lk|jn|"
    "acts|romans|rom|corinthians|cor|galatians|gal|ephesians|eph|philippians|phil|colossians|col|thessalonians|thess|tim|philemon|hebrews|heb|jas|pet|revelation|rev|"
    "gen[eè]se|exode|psaumes?|matthieu|actes|romains|corinthiens|mose|markus|apostelgeschichte|apg|r[oö]mer|r[oö]m|korinther|hebr[aä]er|offenbarung|sura|surah"
)
_NAMES: Final = "joshua|ruth|samuel|sam|ezra|esther|isaiah|jeremiah|daniel|dan|joel|micah|matthew|mark|luke|john|timothy|titus|james|peter|jude|marc|luc|jean|lukas|johannes"
"""Books that are called as people are: somebody may come at `10:15`, and few at `3:16`."""
_BOOK: Final = re.compile(rf"(?i)\b(?:(?P<book>{_BOOKS})|{_NAMES})\b\.?\s*$")
_VERSE: Final = re.compile(r"(?P<chapter>\d{1,3})[:.](?P<verse>\d{1,3})(?:\s?[-–]\s?(?P<last>\d{1,3}))?")


def is_verse(before: str, time: str) -> bool:
    """Whether figures behind a text are a chapter and a verse of the book that it ends with, and no time.

    >>> is_verse("Reading: John", "3:16-21"), is_verse("John", "3:15"), is_verse("Acts", "2:30")
    (True, False, True)
    """
    verse = _VERSE.fullmatch(time.strip())
    book = _BOOK.search(before) if verse is not None else None
    if book is None or verse is None:
        return False
    runs_on = verse["last"] is not None and int(verse["last"]) > int(verse["verse"])
    return bool(book["book"]) or runs_on or int(verse["verse"]) % 5 > 0
