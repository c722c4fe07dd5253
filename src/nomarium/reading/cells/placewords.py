"""Words by which a text is the name of a place, or none."""

import re
from typing import Final

NO_PLACE: Final = (
    r"(?i)\b(?:closed|closes?|opens?|begins?|leaves?|departs?|arrives?|returns?|resumes?|finish(?:es|ing)?|starts?|ends?|only|free|after|by|before|about|around|bring|limited|full|sold out|waiting list|places?|weather|tickets?|welcome|tb[ac]|for|with|until|from|cancell?ed|years?|grades?|"
    r"booked|unavailable|in (?:use|(?:small )?groups?|pairs?|teams?|turns?|uniform|costume)|taken|needed|moved|entry|admission|details?|compulsory|optional|please|all day|no|not|non|age[sd]?|adults?|children|home|away|book|call|ring|contact|tel|phone|register|sign|wear|see|meet|k\.?o|kick-?off|uhr|unterrichtsende|schulschluss|ende|dismissal|max|min|people|per|early|advance|subject|note|rsvp|rain|shine|race|gun|heat|whistle|performance|curtain|(?:tee|throw|bully)[- ]off|(?:high|low) (?:water|tide)|sun(?:rise|set)|dusk|dawn)\b|[£$€@]|\b\d+(?:[.,]\d+)?\s?(?:h|hrs?|hours?|min\w*|k?m|miles?|kg|ft|nm)\b|^\W*(?:\d+|[HA])\W*$"
)
"""Words of what stands beside a title and is no place."""
PLACE_WORDS: Final = (
    r"(?i)\b(?:rooms?|halls?|lofts?|sheds?|slips?|gyms?|library|labs?|studios?|fields?|courts?|pitch(?:es)?|church|chapel|centre|center|park|harbou?r|yard|street|road|"
    r"lane|school|office|theatre|theater|caf[eé]|club|house|building|campus|pool|museum|beach|quay|pier|dock|boathouse|online|salle|raum|at|in|aula|sala|sal[oó]n|gimnasio|gin[aá]sio|biblioteca|patio|taller|gymnase|amphith[eé][aâ]tre|biblioth[eè]que|atelier|hangar|"
    r"cantine|mairie|parc|quai|\w*(?:saal|halle|bibliothek|mensa|werft)|zaal|lokaal|kantine|palestra|laboratorio)\b|^\W*[A-Z]{0,3}[-.]?\d{1,4}[A-Za-z]?\W*$"
)
_ENDS_AS_PLACE: Final = (
    r"(?i)(?:(?:rooms?|slip|shed|loft|hall|lab|studio|court|pitch|field|gate|floor|building|salle|raum)\s+(?:\d{1,3}[a-z]?|[a-z])|"
    r"\w*(?:rooms?|hall|loft|shed|slip|gym|library|lab|studio|field|court|pitch|church|chapel|cent(?:re|er)|park|harbou?r|yard|street|road|"
    r"lane|school|office|theat(?:re|er)|caf[eé]|building|campus|pool|museum|beach|quay|pier|dock|boathouse|clubhouse|forge|online|square|gallery|foyer|lobby|atrium|canteen|cafeteria|kitchen|garden|playground|auditorium|marquee|tent|stage|lawn|church|chapel|cathedral|marina|stadium|arena|[ée]glise|kirche|halle))$"
)
"""How the name of a place ends."""
_MOST_OF_PLACE: Final = 5
_ACTIVITIES: Final = frozenset(
    "visit visits trip trips tour tours walk outing excursion journey cruise opening closing cleaning clean tidy meeting painting "
    "concert fair race exploring visite sortie besuch fahrt visita".split()
)
"""Words with which something begins that is on, and ends with a place: `Visit to the harbour`."""


def is_place(text: str) -> bool:
    """Whether a text by itself is the name of a place, as its last word says."""
    if re.search(r"(?i)[,;:|(–—]|\s-\s|\sto\s", text.strip(" .,;:()")):
        return False
    words = text.strip(" .,;:()").split()
    if words and len(words) > 1 and words[0].casefold() in _ACTIVITIES:
        return False
    return len(words) <= _MOST_OF_PLACE and re.search(_ENDS_AS_PLACE, " ".join(words)) is not None
