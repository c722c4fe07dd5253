"""Groups, teachers or rooms and the periods or times of a weekday, which the sheet is called after, or of weekdays: in each cell the class."""

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from itertools import islice, pairwise
from typing import Final, NamedTuple

from nomarium.model.cell import Cell
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.words import fold
from nomarium.reading.layouts.codes import is_idle
from nomarium.school.codes import weekday_of
from nomarium.school.drawnlines import is_period, is_time
from nomarium.school.drawnweeks import drawn_week
from nomarium.school.planheads import field_of, plain
from nomarium.school.roomcolumns import rooms_in_rows
from nomarium.sheets.sheet import Row, Sheet, cell_text

_HEAD_ROWS: Final = 12
_HALF_DAY: Final = 12 * 3600
_WHOSE: Final = {
    "Group": frozenset("form forms group groups class classes section year grade set classe klasse gruppe groupe clase grupo".split()),
    "Teacher": frozenset("teacher teachers staff tutor lehrer professeur profesor docente instructor name".split()),
    "Room": frozenset("room rooms rm place salle raum aula sala".split()),
}  # fmt: skip


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


def groups_in_rows(sheet: Sheet, labels: frozenset[str] = frozenset()) -> Sheet | None:
    """The sheet with a row for each class of its weekday, or of the weekdays over its columns, `Mon 9:00`; None where neither says
    one, or no periods stand across or down. `labels` of a cycle, in their compared form, are days like weekdays."""
    called = sheet.name.strip()
    day = called if weekday_of(called) is not None or (called and plain(called) in labels) else ""
    heads = (_head(number, row, day) for number, row in islice(sheet.rows(), _HEAD_ROWS))
    head = next(filter(None, heads), None)
    if head is not None and (day or drawn_week(sheet) is None):
        return sheet._replace(read_rows=partial(_in_rows, sheet, head), merged=())
    return rooms_in_rows(sheet._replace(read_rows=partial(_with_day, sheet, day)), True) if day else None


def _head(number: int, row: Sequence[Cell], day: str) -> _Head | None:
    filled = {n: cell for n, cell in enumerate(row) if cell_text(cell)}
    at = min(filled, default=-1)
    if at < 0 or len(filled) < 3:
        return None
    word = fold(cell_text(filled.pop(at))).strip(" .:")
    kind = next((kind for kind, words in _WHOSE.items() if word in words), "")
    if not kind:
        return None
    slots = {n: (day, cell) if day else _day_and_slot(cell_text(cell)) for n, cell in filled.items()}
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


def _in_rows(sheet: Sheet, head: _Head) -> Iterator[Row]:
    spans = _spans([slot for _, slot in head.slots.values()]) if head.field == "Time" else {}
    slots = {n: (day, spans.get(cell_text(slot), slot)) for n, (day, slot) in head.slots.items()}
    for number, row in sheet.rows():
        if number == head.number:
            yield number, ["Class", "Day", head.field, head.kind]
        elif number < head.number:
            yield number, [" ".join(text for cell in row if (text := cell_text(cell)))]
        else:
            name = row[head.at] if head.at < len(row) else ""
            for n, (day, slot) in slots.items():
                text = cell_text(row[n]) if n < len(row) else ""
                if text and not is_idle(text) and plain(text):
                    yield number, [text, day, slot, name]


def _with_day(sheet: Sheet, day: str) -> Iterator[Row]:
    """The rows with a column of its weekday before them, from that of the headings on, which say periods or times; times without
    ends last until the next one."""
    at, spans = -1, dict[str, str]()
    for number, row in sheet.rows():
        fields = [field_of(cell_text(cell), "timetable") for cell in row] if at < 0 else []
        has_any = any(map(cell_text, row))
        if at >= 0:
            yield number, [day if has_any else "", *_spanned(row, at, spans)]
        elif (at := next((n for n, one in enumerate(fields) if one in ("period", "time", "start")), -1)) >= 0:
            below = [one[at] for n, one in sheet.rows() if n > number and at < len(one)]
            spans = _spans(below) if fields[at] == "time" else {}
            yield number, ["Day", *row]
        else:
            yield number, ["", *row]


def _spanned(row: Sequence[Cell], at: int, spans: Mapping[str, str]) -> list[Cell]:
    return [spans.get(cell_text(cell), cell) if n == at else cell for n, cell in enumerate(row)]


def _spans(times: Sequence[Cell]) -> dict[str, str]:
    """Times without an end, each with one: where the next begins, the last of them as long as most. None where some have ends."""
    texts = list(dict.fromkeys(text for cell in times if (text := cell_text(cell))))
    heard = [read_times(text) for text in texts]
    starts = [one.start.secs for one in heard if isinstance(one, Times) and one.start and not one.end]
    if len(starts) < len(texts) or len(texts) < 2:
        return {}
    steps = [(after - before) % _HALF_DAY for before, after in pairwise(starts)]
    last = starts[-1] + max(steps, key=steps.count)
    ends = [*texts[1:], f"{last // 3600}:{last // 60 % 60:02}"]
    return {text: f"{text} - {end}" for text, end in zip(texts, ends, strict=True)}
