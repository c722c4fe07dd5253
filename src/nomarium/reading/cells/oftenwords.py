"""Words by which something is held in some weeks only, as parts of patterns that do not mind case."""

from typing import Final

WEEKDAY: Final = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
SOME_WEEKS: Final = (
    r"(?:fortnightly|bi-?weekly|(?:every|each) (?:other|second|third|fourth|2nd|3rd|4th|two|three|four|2|3|4) weeks?|alternat(?:e|ing) weeks?|alt\.? weeks?|"
    r"(?:odd|even) weeks?|once a (?:month|fortnight)|14-?täglich|alle zwei wochen|quinzenal|une semaine sur deux|aux deux semaines)"
)
