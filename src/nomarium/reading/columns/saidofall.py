"""What a line above or below a list says of all its rows: the zone of their times, that they are off, or not settled yet."""

import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import chain, islice
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.reading.cells.choices import says_cancelled, says_cancelled_why
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.headingzones import MOMENTS
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.zones import zone_named, zones_called
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LONGEST: Final = 80
"""Characters of a line that says one thing of all rows."""
_TIMED: Final = frozenset(("start", "end", "time", "when"))
_NAME: Final = r"[A-Z][A-Za-z]+(?:/[A-Za-z_-]+)+"
_ZONE: Final = (
    r"\W*(?:(?i:all )?(?i:times?|clock)\b[\w ]*?(?:(?i:are|is|in|given in|shown in)\s+|[:=–-]\s*|\s)|(?i:time ?zone)\s*[:=–-]?\s*)"
    rf"(?P<zone>{_NAME}|[A-Z]{{2,4}}T|UTC|Z(?i:ulu)?)(?i: times?)?\W*"
)
"""A line that names the zone of times. `EAT` by itself may be anything, `Europe/Paris` may not."""
_ZONE_WITHIN: Final = r"(?i:\btimes?)\s+(?:(?i:are|is|in|given|shown)\s+)*(?P<zone>[A-Z]{2,4}T|UTC)\b"
"""The same within a line, `Fixtures (all times BST)`."""
_UTC: Final = frozenset(("UTC", "GMT"))
_HALF: Final = r"(?i)\W*(?:all )?(?:start(?:ing)? )?times?\s*(?:are|:|-)?\s*(?:all )?(?P<half>[ap]\.?m)\b\W*(?:unless .*)?"
_ALL_OFF: Final = (
    r"(?i)(?:all|everything|these|the (?:programme|events|sessions|classes|dates))(?: \w+){0,2}? (?:(?:is|are|has been|have been) )?"
    r"(?:cancelled|canceled|postponed|called off|suspended)\b.*|(?:postponed|suspended)(?: until further notice)?"
)
_OPEN: Final = (
    r"(?i)(?:all |these |the )?(?:dates? |times? |programme |timetable |list )*(?:(?:is|are) )?(?:still )?"
    r"(?:provisional|draft|tentative|to be confirmed|tb[ac]|unconfirmed|not (?:yet )?confirmed|subject to confirmation)"
    r"(?: (?:dates?|programme|list|version|timetable))?(?:\s*(?:\d+|[-–:(].*))?"
)
_SETTABLE: Final = frozenset(
    ("categories", "audience", "organizer", "teacher", "group", "class", "duration", "reminder", "privacy", "url", "conference")
)  # fmt: skip


def said_of_all(
    sheet: Sheet, head: TableHead, columns: Sequence[Column], options: ReadingOptions, lines: Sequence[tuple[int, str]]
) -> tuple[list[Problem], list[Problem]]:  # fmt: skip
    """The problems and the notes of `lines` that hold one text, above a list or among its first rows."""
    given = {c.field for c in columns if c.filled} | options.defaults.keys() | options.overrides.keys()
    problems, notes = list[Problem](), list[Problem]()
    for number, text in _short(lines):
        found: Problem | None = None
        if not given.isdisjoint(_TIMED):
            found = _of_zone(text, options, "timezone" in given) or _of_half(text, columns)
        if found is None and "status" not in given:
            found = _of_status(text, "--set")
        if found is None and number < head.first_row:
            found = _of_field(text, given)
        if found is not None:
            (notes if found.severity == "note" else problems).append(found.at(sheet.place(number)))
    return problems, notes


def said_of_drawing(
    sheet: Sheet, rows: Sequence[Row], options: ReadingOptions, is_text: bool = False, option: str = "--set"
) -> tuple[list[Problem], list[Problem]]:
    """The same of lines above a drawing, or among the `rows` of a text; `option` says of all events what they say."""
    given = options.defaults.keys() | options.overrides.keys()
    problems, notes = list[Problem](), list[Problem]()
    wide = (n for n, (_, row) in enumerate(rows) if sum(map(bool, map(cell_text, row))) > _TITLE_CELLS)
    above = rows if is_text else rows[: next(wide, 0)]
    if not is_text and option == "--set" and given.isdisjoint(("location", "room")):
        notes += _places_above(sheet, above)
    for number, text in _short(lone_texts(above)):
        found = _of_zone(text, options, "timezone" in given)
        found = found or (_of_status(text, option) if "status" not in given else None)
        if found is not None:
            (notes if found.severity == "note" else problems).append(found.at(sheet.place(number)))
    return problems, notes


def _places_above(sheet: Sheet, rows: Sequence[Row]) -> Iterator[Problem]:
    """A note of each place that a cell above a drawing says, `Room: Sail loft`."""
    for number, row in rows:
        for cell in row:
            label, colon, value = (part.strip() for part in cell_text(cell).partition(":"))
            match = match_exactly(label) if colon and any(map(str.isalpha, value)) else None
            if match is not None and match.field in ("location", "room"):
                message = (
                    f"Above the table stands “{label}: {value}”, and what is in it is not said to be there."
                )
                remedy = f'If all of it is: --set "location={value}".'
                yield note("place-above", message, remedy).at(sheet.place(number))


_TITLE_CELLS: Final = 2
"""Cells of a row above a drawing, at most."""


def lines_of(sheet: Sheet, head: TableHead, rows: Sequence[Row]) -> Iterator[tuple[int, str]]:
    """The rows above a table and among its first ones that hold one text, by their numbers."""
    above = (row for row in islice(sheet.rows(), head.rows_above) if row[0] in head.title_rows)
    return lone_texts(chain(above, rows))


def lone_texts(rows: Iterable[Row]) -> Iterator[tuple[int, str]]:
    """The rows that hold one text and nothing else, by their numbers."""
    for number, row in rows:
        if len(row) - list(row).count("") == 1:
            text = next((cell for cell in row if cell != ""), "")
            if isinstance(text, str) and text.strip():
                yield number, text.strip()


def _short(lines: Iterable[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    return ((number, text) for number, text in lines if len(text) <= _LONGEST)


def _of_zone(text: str, options: ReadingOptions, has_column: bool) -> Problem | None:
    match = (
        None
        if has_column
        else re.fullmatch(rf"(?P<zone>{_NAME})", text)
        or re.fullmatch(_ZONE, text)
        or re.search(_ZONE_WITHIN, text)
    )
    if match is None:
        return None
    said = "UTC" if match["zone"].startswith("Z") else match["zone"]
    is_name = ("/" in said or said in _UTC) and zone_named(said) is not None
    called = () if is_name else zones_called(said)
    if not is_name and not called:
        return None
    zone = zone_named(options.zone) if options.zone else None
    shown = {zone.tzname(moment) for moment in MOMENTS} | {options.zone} if zone is not None else set()
    if said in shown or (said in _UTC and not shown.isdisjoint(_UTC)):
        return None
    other = f"and --timezone is {options.zone}" if zone is not None else "and nothing else says so"
    message = f"“{text}” says that the times are {said}, {other}."
    likely = said if is_name else called[0]
    remedy = f"Give the zone that is meant, such as --timezone {likely}; or take the line out."
    if zone is None and said not in _UTC:  # the clock's own times, and floating as long as nobody says where
        return note("heading-zone", message, f"To tie them to it: --timezone {likely}.")
    return Problem("heading-zone", message, remedy)


def _of_half(text: str, columns: Sequence[Column]) -> Problem | None:
    match = re.fullmatch(_HALF, text)
    samples = [sample for c in columns if c.field in _TIMED for sample in c.samples]
    if match is None or not any(re.search(r"(?i)\d(?!.*[ap]\.?m)", sample) for sample in samples):
        return None
    half = match["half"].replace(".", "").lower()
    message = f"“{text}” is said of all times, and they do not say it themselves."
    return Problem(
        "clock-beside",
        message,
        f"Write it into the heading of the times, “Time ({half})”, or take the line out.",
    )


def _of_status(text: str, option: str) -> Problem | None:
    bare = text.strip(" *!.-–—()[]")
    if says_cancelled(bare) or says_cancelled_why(bare) or re.fullmatch(_ALL_OFF, bare):
        message = f"“{text}” stands by itself, and what it is about would be held."
        remedy = f"If all of it is off: {option} status=cancelled; if one event is, say it beside that; if none, take the line out."
        return Problem("status-beside", message, remedy)
    if re.fullmatch(_OPEN, bare):
        message = f"“{text}” stands by itself, and what it is about is written as settled."
        return note("status-beside", message, f"If it is not: {option} status=tentative.")
    return None


def _of_field(text: str, given: set[str]) -> Problem | None:
    label, colon, value = (part.strip() for part in text.partition(":"))
    match = match_exactly(label) if colon and any(map(str.isalpha, value)) else None
    if match is None or match.is_weak or match.field not in _SETTABLE - given:
        return None
    message = f"Above the table stands “{text}”, and its rows do not say it."
    return note("place-above", message, f'If it is that of all: --set "{match.field}={value}".')
