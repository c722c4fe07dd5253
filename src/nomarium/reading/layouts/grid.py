"""A grid: dates across and times down, or the other way; what happens stands in the cells."""

import datetime as dt
import re
from collections.abc import Sequence
from functools import partial

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import listed
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.times import DAY_SECS, Clock
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.columns.decisions import told as decided_told
from nomarium.reading.columns.lexicons import lexicon_for
from nomarium.reading.columns.shortyears import may_be_months
from nomarium.reading.layouts.celltimes import CellLine, lines_of_cell
from nomarium.reading.layouts.drawn import DrawnEntry, after_remarks, date_part, merged_from
from nomarium.reading.layouts.gridblocks import (
    Block,
    day_cells,
    grid_blocks,
    lines_alone,
    names_of_slots,
    numbering,
)
from nomarium.reading.layouts.headdates import decide_days
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.namedslots import is_break, slot_of
from nomarium.reading.layouts.saidlengths import said_length
from nomarium.reading.layouts.slots import (
    NEXT_MORNING,
    Line,
    after_midnight,
    forward,
    later,
    line_ends,
    time_of,
    usual_step,
)
from nomarium.reading.layouts.weekdays import dated_weekdays
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.titles import is_no_title
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Area, Row, Sheet, cell_text, is_blank

_NOON = DAY_SECS // 2
_PLACE_IN_BRACKETS = re.compile(
    r"(?i)(?P<title>.*\S)\s*\((?P<place>(?P<known>(?:room|rm|lab|hall|raum|saal|salle|aula|sala|lokaal|zaal)\b)?[^()]*)\)"
)

_CLEAR_TIME = re.compile(r"(?i)\d[:.]\d\d|\d\s?[ap]\.?m\b")


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a grid, of dates or of the weekdays of a week that is known; or say why it is none."""
    reading = read_grid(top.sheet, top.options)
    if isinstance(reading, NotRead):
        dated = dated_weekdays(top, top.of_weekdays)
        if dated is not None:
            return read_grid(dated, top.options)
        if top.seen is not None:
            return read_grid(top.sheet, top.options._replace(languages=top.seen.languages))
    return reading


def read_grid(sheet: Sheet, options: ReadingOptions) -> Reading | NotRead:
    """Read a sheet as a grid whose dates and times stand as such; or say why it is none."""
    lexicon = lexicon_for(options)
    rows = [(number, row) for number, row in sheet.rows() if not is_blank(row)]
    blocks = grid_blocks(sheet, rows, lexicon)
    if (
        not blocks
        or (not blocks[0].dates_across and _are_over_posts(rows, blocks[0].header_row))
        or may_be_months([cell for _, cell in day_cells(blocks)])
    ):
        message = f"{sheet.title} is no grid: no row or column of dates crosses one of times."
        remedy = "Put dates in the top row and times in the first column, or the other way."
        return not_read(sheet, "no-grid", "it is no grid", "grid-none", message, remedy)
    title_rows = [(number, row) for number, row in rows if number < blocks[0].header_row]
    days = decide_days(sheet, day_cells(blocks), options, above=title_rows)
    entries: list[DrawnEntry | Problem] = []
    above = " ".join([sheet.name or "", *(cell_text(cell) for _, row in title_rows for cell in row)])
    length = said_length(rows)
    length_secs = length.secs if length is not None else 0
    grids = [_Grid(sheet, block, days, lexicon, options.clock, above, length_secs) for block in blocks]
    for grid in grids:
        entries += grid.entries()
    kind = "dates across, times down" if blocks[0].dates_across else "times across, dates down"
    longest = ", but no longer than most" if all(grid.is_even for grid in grids) else ""
    lasts = f"until the next begins{longest}" if length is None else f"as long as “{length.text}” says"
    message = f"Read as a grid: {kind}; a slot without an end lasts {lasts}."
    told = note("layout-grid", message)
    notes = [
        told.at(sheet.place()),
        *decided_told(days, sheet),
        *(one for grid in grids for one in grid.told()),
    ]
    events = partial(after_remarks, sheet, entries, options, [*title_rows, *lines_alone(blocks, lexicon)])
    return Reading(sheet, "grid", events, (*sheet.notes, *notes))


def _are_over_posts(rows: Sequence[Row], header_row: int) -> bool:
    """Whether the times of a row stand over several headings each, of posts or places, and so over columns of a roster."""
    at = next((n for n, (number, _) in enumerate(rows) if number == header_row), len(rows))
    if at + 2 >= len(rows):
        return False
    over, below = rows[at][1], rows[at + 1][1]
    texts = {n: text for n, cell in enumerate(below) if n and (text := cell_text(cell))}
    times = {n for n, cell in enumerate(over) if time_of(cell) is not NOTHING}
    are_words = len(texts) > len(times) > 1 and not any(map(str.isdigit, "".join(texts.values())))
    return are_words and times <= texts.keys() and not looks_like_date(below[0])


class _Grid:
    """One block of a sheet, cell by cell."""

    def __init__(
        self, sheet: Sheet, block: Block, days: Decisions, lexicon: Lexicon, clock: str, above: str,
        length_secs: int,
    ) -> None:  # fmt: skip
        self.sheet = sheet
        self.block = block
        self.days = days
        self.lexicon = lexicon
        self.merged = merged_from(sheet)
        self.rows = dict(block.rows)
        self.numbers = numbering(block)
        """Columns beside that of the times which number them."""
        self.names = names_of_slots(block)
        self.heads_places = all(map(is_place, block.under.values()))
        """Whether what heads the columns below their dates are places, and no groups."""
        self.continued: list[int] = []
        """Rows without a label of their own."""
        self.breaks: dict[int, str] = {}
        """Rows with a break that is in no slot, and what it is called."""
        self.own_starts: list[tuple[int, int, str]] = []
        """Row number, column and text of cells that say when they begin, within their slot."""
        self.other_starts: list[tuple[int, int, str]] = []
        """The same of those whose time is not that at which they begin, or none of their slot's."""
        self.untimed: set[int] = set()
        """Those that lie across all dates, or beside a break: they are in no slot, either."""
        self.places: dict[tuple[int, int], str] = {}
        """Row number and column of an entry → its place, where a row of places stands under that of the entries."""
        across = [Line(n, cell, slot_of(cell)[1]) for n, cell in block.across]
        down = [Line(n, label, slot_of(label)[1]) for n, label in self._labels()]
        self.across, self.down = forward(across, clock, above), forward(down, clock, above)
        self.moved = later((*across, *down), (*self.across, *self.down))
        slots = [line.time for line in (self.down if block.dates_across else self.across)]
        self.ends = line_ends(slots, (), length_secs)
        usual, is_usual = usual_step(slots)
        self.is_even = is_usual or usual is None
        lines = self.down if block.dates_across else self.across
        self.nights = [line for line, is_next in zip(lines, after_midnight(slots), strict=True) if is_next]

    def _labels(self) -> list[tuple[int, Cell]]:
        """(row number, label); rows under a merged label, and rows of a blank one, have the label above."""
        column = self.block.label_column
        labels: list[tuple[int, Cell]] = []
        above: Cell = ""
        for number, row in self.block.rows:
            label = row[column] if column < len(row) else ""
            if not cell_text(label) and cell_text(above):
                if self._is_apart(number, row, labels[-1][0]):
                    continue
                self.continued += [number] if number not in self.untimed else []
                label = above
            labels.append((number, label))
            above = label
        return labels

    def _is_apart(self, number: int, row: Sequence[Cell], above: int) -> bool:
        """Whether a row without a label holds no entries: a break, or the places of those above it. One that lies across all
        dates, or beside a break, is in no slot."""
        columns = [n for n, _ in self.block.across]
        said = {n: text for n in columns if n < len(row) and (text := cell_text(row[n]))}
        over = self.rows[above]
        if said and all(is_place(text) and n < len(over) and cell_text(over[n]) for n, text in said.items()):
            self.places |= {(above, n): text for n, text in said.items()}
            return True
        if not self.block.dates_across:
            return False
        if said and all(map(is_break, said.values())):
            self.breaks[number] = next(iter(said.values()))
            return True
        area = self.merged.get((number, columns[0]))
        is_across = area is not None and area.last_column - self.sheet.first_column >= columns[-1]
        if (is_across and len(columns) > 1) or any(map(is_break, said.values())):
            self.untimed.add(number)
        return False

    def told(self) -> list[Problem]:
        """A note of the slots that are in the afternoon because others stand before them, and one of the rows without
        a label of their own."""
        column = self.block.label_column
        merged = {
            row + 1
            for (_, at), area in self.merged.items()
            if at == column
            for row in range(area.first_row + 1, area.last_row + 1)
        }
        under = [row for row in self.continued if row not in merged]
        notes = []
        if self.breaks:
            number = next(iter(self.breaks))
            message = f"A break without a time is no event: “{self.breaks[number]}”."
            notes.append(note("slots-idle", message).at(self.sheet.place(number, column)))
        if self.block.under:
            headed = listed(list(dict.fromkeys(self.block.under.values())))
            message = f"Below each date stand {headed}: {'where' if self.heads_places else 'for whom'} what stands in their columns is."
            notes.append(note("block-title", message).at(self.sheet.place(self.block.header_row + 1)))
        if self.places:
            number, at = next(iter(self.places))
            message = f"A row of places belongs to the entries above it: “{self.places[number, at]}”."
            notes.append(note("grid-continued", message).at(self.sheet.place(number, at)))
        if under:
            rows = ", ".join(map(str, under[:5])) + (" …" if len(under) > 5 else "")
            message = f"Rows without a label of their own belong to the one above: {rows}."
            notes.append(note("grid-continued", message).at(self.sheet.place(under[0], column)))
        if self.nights:
            shown = ", ".join(dict.fromkeys(cell_text(line.heading) for line in self.nights))
            message = NEXT_MORNING.format(shown)
            notes.append(note("slots-night", message).at(self.sheet.place(self.block.header_row)))
        return [*notes, *self._starts_told(), *self._forward_told()]

    def _starts_told(self) -> list[Problem]:
        notes = []
        if self.own_starts:
            row, column, text = self.own_starts[0]
            message = f"A cell that says when it begins begins then, and ends with its slot: “{text}”."
            notes.append(note("grid-start", message).at(self.sheet.place(row, column)))
        if self.other_starts:
            row, column, text = self.other_starts[0]
            message = f"A time in a cell is not used, only that of its slot: “{text}”."
            notes.append(note("grid-start", message).at(self.sheet.place(row, column)))
        return notes

    def _forward_told(self) -> list[Problem]:
        if not self.moved:
            return []
        moved = ", ".join(dict.fromkeys(self.moved))
        message = f"Times without am or pm run forward: {moved} in the afternoon."
        remedy = "If the morning is meant, write it with am."
        return [note("grid-forward", message, remedy).at(self.sheet.place(self.block.header_row))]

    def entries(self) -> list[DrawnEntry | Problem]:
        """The entries, by row and column. A cell of a merged area below or right of its first is blank."""
        found: list[DrawnEntry | Problem] = []
        for line in self.down:
            row = self.rows[line.index]
            used = {n for n, _ in self.block.across} | {self.block.label_column} | self.numbers
            for head in self.across:
                text = cell_text(row[head.index]) if head.index < len(row) else ""
                if text:
                    found += self._entries(line, head, text)
            for n, cell in enumerate(row):
                if n not in used and is_break(cell_text(cell)):
                    self.breaks.setdefault(line.index, cell_text(cell))
                elif n not in used and cell_text(cell):
                    found.append(self._stray(line.index, n, cell_text(cell)))
        return found

    def _stray(self, number: int, column: int, text: str) -> Problem:
        message = "The cell stands outside the grid: no date or no time heads its column."
        remedy = "Give its column a heading, or take the cell out."
        return Problem("grid-stray", message, remedy, self.sheet.place(number, column), text)

    def _entries(self, line: Line, head: Line, text: str) -> list[DrawnEntry | Problem]:
        area = self.merged.get((line.index, head.index))
        last_line, last_head = self._ends_of(area, line, head)
        day_lines, slot_lines = ((head, last_head), (line, last_line))
        lines = self.across
        if not self.block.dates_across:
            day_lines, slot_lines, lines = slot_lines, day_lines, self.down
        time = self._time(*slot_lines)
        place = self.sheet.place(line.index, head.index)
        if line.index in self.untimed:
            message = "The row lies between two slots, and has no time of its own."
            remedy = "Head it with its time, or take it out."
            return [Problem("grid-time", message, remedy, place, text)]
        if time is NOTHING:
            label = cell_text(slot_lines[0].heading)
            message = f"“{label}” is no time." if label else "Its slot has no time."
            remedy = "Head each slot with its time, such as 9:00–10:00, or with “all day”."
            return [Problem("grid-time", message, remedy, place, text)]
        between = [one for one in lines if day_lines[0].index <= one.index <= day_lines[1].index]
        days = [self._day(one) for one in between if cell_text(one.heading)]
        refused = next((day for day in days if isinstance(day, Refusal)), None)
        if refused or not days:
            refusal = refused or Refusal("date-missing", "Its slot has no date.", "Head it with its date.")
            return [refusal.problem(place, text)]
        later_days = dt.timedelta(slot_lines[0] in self.nights)
        dates = [*dict.fromkeys(day + later_days for day in days if isinstance(day, dt.date))]
        said = lines_of_cell(text)
        if _is_clear(text) and all(one.time.end is not None and one.title for one in said):
            times = [(one.title, one.place, _within(one.time, time)) for one in said]
        else:
            times = [(*title_and_place(text), self._started(said, time, line.index, head.index))]
        found: list[DrawnEntry | Problem] = []
        name = self.names.get(line.index, "")
        columns = [text for n, text in self.block.under.items() if head.index <= n <= last_head.index]
        headed = tuple(dict.fromkeys(columns))
        below = self.places.get((line.index, head.index), ", ".join(headed) if self.heads_places else "")
        group = () if self.heads_places else headed
        for title, beside, within in times:
            location = ", ".join(filter(None, (beside, below)))
            title = (
                title if not name or is_no_title(title) or fold(title) == fold(name) else f"{title} ({name})"
            )
            if within is None:
                message = "The times in the cell are not within those of its slot."
                remedy = "Correct one of them. If it is no time, say what it is: “(ages 3-4)”."
                found.append(Problem("grid-times", message, remedy, place, text))
                continue
            spans = [(dates[0], dates[-1])] if within.is_all_day else [(day, day) for day in dates]
            found += [
                DrawnEntry(
                    line.index, head.index, title, date_part(first, last), within, location, categories=group
                )
                for first, last in spans
            ]
        return found

    def _started(self, said: Sequence[CellLine], slot: Part, row: int, column: int) -> Part:
        """The slot of a cell, from the one time on that this says, `Sails from 10.00`, where it is within."""
        text = " ".join(one.text for one in said)
        own = said[0].time if len(said) == 1 else NOTHING
        if slot.start is None or (own is NOTHING and not _CLEAR_TIME.search(text)):
            return slot
        begins = None
        if own.start is not None and own.end is None:
            last = slot.end.secs if slot.end is not None else DAY_SECS
            halves = (own.start.secs,) if own.start.has_meridiem else (own.start.secs, own.start.secs + _NOON)
            begins = next((secs for secs in halves if slot.start.secs <= secs < last), None)
        if begins == slot.start.secs:
            return slot
        (self.other_starts if begins is None else self.own_starts).append((row, column, text))
        return slot if begins is None else slot._replace(start=Clock(begins, True))

    def _ends_of(self, area: Area | None, line: Line, head: Line) -> tuple[Line, Line]:
        if area is None:
            return line, head
        last_column = area.last_column - self.sheet.first_column
        rows = [one for one in self.down if line.index <= one.index <= area.last_row + 1]
        columns = [one for one in self.across if head.index <= one.index <= last_column]
        return rows[-1], columns[-1]

    def _day(self, line: Line) -> dt.date | Refusal:
        moment = read_moment(line.heading, "date", self.days.lexicon, self.sheet.counts_1904)
        if isinstance(moment, Refusal):
            return moment
        if moment.first is None:
            return Refusal("date-missing", f"“{cell_text(line.heading)}” is no date.")
        return resolve_day(moment.first, self.days)

    def _time(self, first: Line, last: Line) -> Part:
        if first.time is NOTHING or first.time.is_all_day:
            return first.time
        lines = self.down if self.block.dates_across else self.across
        end = self.ends[lines.index(last)]
        return first.time._replace(end=end)


def _is_clear(text: str) -> bool:
    """Whether hours in a cell can be nothing else: `PE 9-10` may be for the years 9 and 10."""
    return (
        _CLEAR_TIME.search(text) is not None or re.search(r"\(\d{1,2}\s?[-–]\s?\d{1,2}\)", text) is not None
    )


def _within(own: Part, slot: Part) -> Part | None:
    """The times in a cell as a part of its slot, in the half of the day that this is in; None where they are no part of it."""
    start, end = own.start, own.end
    if slot.start is None or start is None or end is None:
        return own
    last = slot.end.secs if slot.end is not None else DAY_SECS
    for later_secs in (0, _NOON):
        first, ends = start.secs + later_secs, end.secs + later_secs
        if ends < first and not end.has_meridiem:
            ends += _NOON  # 11-1
        if slot.start.secs <= first < ends <= last and not (later_secs and start.has_meridiem):
            return Part(start=Clock(first, True), end=Clock(ends, True))
    return None


def title_and_place(text: str) -> tuple[str, str]:
    """An entry's title, and its place after @, in brackets (`(Room 4)`) or on its second line."""
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if len(lines) > 1:
        return lines[0], ", ".join(line.removeprefix("@").strip() for line in lines[1:])
    bracketed = _PLACE_IN_BRACKETS.fullmatch(lines[0])
    if bracketed and (bracketed["known"] or is_place(bracketed["place"])):
        return bracketed["title"], bracketed["place"]
    title, at, place = lines[0].partition(" @ ")
    return (title.strip(), place.strip()) if at and title.strip() else (lines[0], "")
