"""Groups, teachers or rooms and the periods or times of weekdays, which head the columns together: in each cell the class."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import accumulate, islice, pairwise
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.times import Clock
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.slots import RUN_ON, line_ends, time_of
from nomarium.reading.rows.when import Part
from nomarium.school.cellparts import CellReader, Entry, KnownParts
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.planheads import plain
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_HALF_DAY: Final = 12 * 3600
_WHOSE: Final = {
    "Group": frozenset("form forms group groups class classes section year grade set classe klasse gruppe groupe clase grupo".split()),
    "Teacher": frozenset("teacher teachers staff tutor lehrer professeur profesor docente instructor name".split()),
    "Room": frozenset("room rooms rm place salle raum aula sala".split()),
}  # fmt: skip


_PARTS: Final = ("Room", "Teacher", "Group", "Notes")
"""What cells may say beside the class."""


class _Head(NamedTuple):
    number: int
    at: int
    """The column of names."""
    kind: str
    """What they are: `Group`, `Teacher` or `Room`."""
    slots: Mapping[int, tuple[str, Cell]]
    """The weekday and the period or time of each column."""
    field: str
    """What the columns say: `Period` or `Time`."""


def groups_in_rows(sheet: Sheet) -> Sheet | None:
    """The sheet with a row for each class of the weekdays over its columns, `Mon 9:00`; None where no such columns stand beside a
    column of groups, teachers or rooms."""
    heads = (_head(number, row) for number, row in islice(sheet.rows(), _HEAD_ROWS))
    head = next(filter(None, heads), None)
    if head is None or drawn_week(sheet) is not None:
        return None
    spans = _spans_across(sheet, head)
    below = [row for number, row in sheet.rows() if number > head.number]
    texts = [cell_text(row[n]) for row in below for n in head.slots if n < len(row) and not _is_free(row[n])]
    reader = CellReader(texts, KnownParts(), owned=frozenset((head.kind.casefold(),)))
    found = sheet._replace(read_rows=partial(_in_rows, sheet, head, spans, reader), merged=())
    return _told(found, spans, reader)


def _told(sheet: Sheet, spans: Mapping[str, str], reader: CellReader) -> Sheet:
    """The sheet with a note where times have ends that nothing says, and of what the parts of its cells are taken for."""
    told = [note("lines-run-on", RUN_ON)] if spans else []
    told += [
        one._replace(remedy="If they are others, give each part a column of its own.")
        for one in reader.told()
    ]
    return sheet._replace(notes=(*sheet.notes, *(one.at(sheet.place()) for one in told)))


def _is_free(cell: Cell) -> bool:
    """Whether a cell says that nothing is taught."""
    text = cell_text(cell)
    return not text or is_idle(text) or not plain(text)


def _head(number: int, row: Sequence[Cell]) -> _Head | None:
    filled = {n: cell for n, cell in enumerate(row) if cell_text(cell)}
    at = min(filled, default=-1)
    if at < 0 or len(filled) < 3:
        return None
    word = fold(cell_text(filled.pop(at))).strip(" .:")
    kind = next((kind for kind, words in _WHOSE.items() if word in words), "")
    if not kind:
        return None
    slots = {n: _day_and_slot(cell_text(cell)) for n, cell in filled.items()}
    if not all(one for one, _ in slots.values()):
        return None
    if all(is_time(cell) for _, cell in slots.values()):
        return _Head(number, at, kind, slots, "Time")
    return (
        _Head(number, at, kind, slots, "Period")
        if all(is_period(cell) for _, cell in slots.values())
        else None
    )


def _day_and_slot(text: str) -> tuple[str, str]:
    """The weekday of a heading and the period or time behind it, `Mon 9:00`, `Tue P2`; blank where it is no such heading."""
    first, _, rest = text.strip().partition(" ")
    return (first, rest.strip()) if weekday_of(first.strip(".,:")) is not None and rest else ("", "")


def _in_rows(sheet: Sheet, head: _Head, spans: Mapping[str, str], reader: CellReader) -> Iterator[Row]:
    others = [field for field in _PARTS if field != head.kind]
    for number, row in sheet.rows():
        if number == head.number:
            yield number, ["Class", "Day", head.field, head.kind, *others]
        elif number < head.number:
            yield number, [" ".join(text for cell in row if (text := cell_text(cell)))]
        else:
            name = row[head.at] if head.at < len(row) else ""
            for n, (day, slot) in head.slots.items():
                if n < len(row) and not _is_free(row[n]):
                    text = cell_text(row[n])
                    read = reader.read(text)
                    for entry in [Entry(text)] if isinstance(read, Refusal) else read:
                        beside = [entry.room, entry.teacher, entry.group, entry.notes]
                        kept = [
                            said for field, said in zip(_PARTS, beside, strict=True) if field != head.kind
                        ]
                        yield number, [entry.code, day, spans.get(cell_text(slot), slot), name, *kept]


def _spans_across(sheet: Sheet, head: _Head) -> dict[str, str]:
    """The times over the columns that have no end, each with one."""
    below = [row for number, row in sheet.rows() if number > head.number]
    held = {n for row in below for n in head.slots if n < len(row) and cell_text(row[n])}
    slots = [(cell_text(slot), n in held) for n, (_, slot) in head.slots.items()]
    return _spans(slots) if head.field == "Time" else {}


def _spans(slots: Sequence[tuple[str, bool]]) -> dict[str, str]:
    """Times without an end, and whether something is on then, each with its end, as `line_ends` has them; none where some say theirs."""
    held = dict[str, bool]()
    for text, is_held in slots:
        if text:
            held[text] = held.get(text, False) or is_held
    texts = list(held)
    parts = [time_of(text) for text in texts]
    starts = [part.start.secs for part in parts if part.start is not None and part.end is None]
    if len(starts) < len(texts) or len(texts) < 2:
        return {}
    steps = [(after - before) % _HALF_DAY for before, after in pairwise(starts)]
    forward = list(
        accumulate(steps, initial=starts[0])
    )  # 1:00 follows 12:00, whatever half of the day that is
    ends = line_ends(
        [Part(start=Clock(secs)) for secs in forward], [n for n, text in enumerate(texts) if not held[text]]
    )
    return {
        text: f"{text} - {_written(end.secs + starts[n] - forward[n])}"
        for n, (text, end) in enumerate(zip(texts, ends, strict=True))
        if end is not None
    }


def _written(secs: int) -> str:
    return f"{secs // 3600}:{secs // 60 % 60:02}"
