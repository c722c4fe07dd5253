"""Rosters with their dates across, and a row for each name, post or class."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import pairwise

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.reading.cells.offwords import is_off, is_term
from nomarium.reading.cells.weeks import is_numbered_week
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.columns.shortyears import may_be_months
from nomarium.reading.layouts.codes import Code, are_figures, is_code, is_of_key, session_of
from nomarium.reading.layouts.drawn import merged_from
from nomarium.reading.layouts.headdates import (
    Days,
    Headed,
    Numbered,
    dated_numbers,
    headed_by_weeks,
    heads_dates,
    numbered_days,
    settled_dates,
    settled_numbers,
    time_of_date,
    weekdays_beside,
)
from nomarium.reading.layouts.layout import Top
from nomarium.reading.layouts.monthheads import months_across, with_years
from nomarium.reading.layouts.onside import are_no_names, names_events_on_side
from nomarium.reading.layouts.rostercolumns import says_of_no_kind, unused_columns, unused_told
from nomarium.reading.layouts.rosteroccasions import told_over, under, words_over_heads
from nomarium.reading.layouts.rosterslots import Drawing, Slot, halves_day
from nomarium.reading.layouts.rostertimes import (
    SaidOfDays,
    are_counts,
    are_sums,
    are_times,
    is_sum,
    number_periods,
    said_of_days,
    times_over,
    unread_times,
)
from nomarium.reading.layouts.slippeddays import slipped_days
from nomarium.reading.layouts.slots import number_others, time_of
from nomarium.reading.layouts.unusedcolumns import called_off_beside
from nomarium.reading.rows.when import NOTHING, Part
from nomarium.sheets.sheet import Row, Sheet, cell_text, is_blank

_HEAD_ROWS = 30
_FEW_DATES = 2
_MIDMONTH = 20
"""Numbers of days begin again only behind later ones; others that do are counts, `3`, `4`, `1`."""
_KIND = "dates across, a row for each name or post"
_OF_DAYS = note("roster-row", "A row below the dates says when or where all else under them is.")
_PLACE_HEADS = r"\b(?:rooms?|places?|locations?|venues?|lofts?|sheds?|halls?|slips?|courts?|pitch(?:es)?|salles?|raume?|lieu|ort)\b"


def across(top: Top) -> Drawing | None:
    """A roster with its dates in a row: each block from such a row to the next."""
    rows = [(number, row) for number, row in top.sheet.rows() if not is_blank(row)]
    heads = [
        at
        for at, (_, row) in enumerate(rows)
        if (columns := _date_columns(top, row)) and not number_periods(rows, at, columns)
    ]
    if not heads or heads[0] > _HEAD_ROWS or names_events_on_side([row for _, row in rows], top.lexicon):
        return None
    slots, problems, slipped = list[Slot](), list[Problem](), list[Problem]()
    others: list[Row] = list(rows[: heads[0]])
    by_row: dict[int, Mapping[int, Days]] = {}
    heading, unused = "", list[str]()
    over = words_over_heads(top, rows, {at: _date_columns(top, rows[at][1]) for at in heads})
    settled = dict.fromkeys(told_over(top, rows, over))
    others += [rows[at - 1] for at in over if at > heads[0]]
    for at, end in pairwise([*heads, len(rows)]):
        end -= end in over
        columns = _date_columns(top, rows[at][1])
        if _begins_with_a_day(top, rows[at][1], min(columns)):
            return None  # the dates begin in the first column: no names stand left of them
        if not any(cell_text(cell) for _, row in rows[at + 1 : end] for cell in row[: min(columns)]):
            return None
        slipped += slipped_days(top.sheet, *rows[at], rows[at + 1 : end], columns)
        headed, skipped = _headed(top, rows, at, columns, heads[0])
        if headed is None:
            return None
        problems += headed.problems if by_row else (*headed.problems, *times_over(top, others, columns))
        settled |= dict.fromkeys(headed.notes)
        by_row[rows[at][0]] = headed.days
        parts = _parts_under(rows[at + 1 + skipped : end], columns)
        if parts:
            days = carried_days(headed.days, parts)
            headed, columns = headed._replace(days=days), sorted(days)
            by_row[rows[at][0]] = days
        below_head = at + 1 + skipped + bool(parts)
        said = said_of_days(top, rows[below_head:end], columns)
        settled |= dict.fromkeys(_OF_DAYS.at(top.sheet.place(number)) for number, _ in said.rows[:1])
        problems += said.problems
        entries = [row for row in rows[below_head:end] if row not in said.rows]
        body, below = _body(entries, min(columns))
        others += [*rows[at + 1 : at + 1 + skipped], *said.rows, *below]
        block = _Block(top, rows[at][1], min(columns), max(columns), parts, said, body)
        slots += under(block.slots(headed, others), over.get(at, {}))
        names, unread = block.unused()
        heading, unused = heading or block.heading, [*unused, *names]
        problems += unread
    labels = {slot.label for slot in slots}
    if all(map(str.isdecimal, labels)) and number_others(heading, [*labels]):
        slots = [slot._replace(label=f"{heading} {slot.label}") for slot in slots]  # Team 1
        labels = {slot.label for slot in slots}
    if are_figures([slot.cell for slot in slots]) or _are_dates(slots):
        return None
    if not problems and (
        len(slots) < 2 or not any(labels) or are_no_names(slots, rows[heads[0]][1], top.lexicon)
    ):
        return None
    told = [*settled, *unused_told(top, rows[heads[0]][0], unused)]
    return Drawing(slots, _KIND, heading, others, [*problems, *slipped], by_row, told)


def _are_dates(slots: Sequence[Slot]) -> bool:
    """Whether most of what stands below the first dates is dates, too: the columns of a list."""
    return sum(looks_like_date(slot.cell) for slot in slots) * 2 > len(slots)


def with_dates(top: Top, drawing: Drawing) -> Sheet:
    """The sheet with dates for the numbers of days that head its columns."""

    def rows() -> Iterator[Row]:
        for number, row in top.sheet.rows():
            days = drawing.headed.get(number, {})
            yield number, [days[n].first if n in days else cell for n, cell in enumerate(row)]

    return top.sheet._replace(read_rows=rows, dates_above=True)


def _date_columns(top: Top, row: Sequence[Cell]) -> list[int]:
    """The columns of a row that are headed by dates, or by numbers of days; none when it is no such row."""
    filled = [n for n, cell in enumerate(row) if cell_text(cell)]
    dated = [n for n in filled if n and heads_dates([row[n]], top.lexicon)]
    if may_be_months([row[n] for n in dated]):
        return []
    if len(dated) == len(filled) - 1 == 2 and (
        is_off(corner := cell_text(row[filled[0]])) or is_term(corner)
    ):
        return []  # Half term | 15 Feb | 19 Feb: a first and a last day
    written = {re.sub(r"[^\W\d_]+", "a", re.sub(r"\d+", "9", cell_text(row[n]))) for n in dated}
    is_one_way = len(dated) > _FEW_DATES or len(written) == 1  # a date and a room 4.10 end a record
    at_end = is_one_way and filled[-len(dated) :] == dated
    if len(dated) >= 2 and (len(dated) * 2 >= len(filled) or at_end):
        return dated
    if top.options.day_one is not None:
        weeks = [n for n in filled if n and is_numbered_week(cell_text(row[n]))]
        if len(weeks) >= 2:
            return weeks
    numbered = [n for n in filled if n and numbered_days([(n, 0, row[n])] * 3, top.lexicon, {})]
    days = [int(match[0]) for n in numbered if (match := re.search(r"\d+", cell_text(row[n])))]
    drops = [a for a, b in pairwise(days) if b <= a]
    are_named = len(numbered) >= 2 and all(re.search(r"[^\W\d_]", cell_text(row[n])) for n in numbered)
    runs = (are_named or len(numbered) >= 5) and len(numbered) * 2 >= len(filled)
    return numbered if runs and len(drops) * 3 <= len(days) and min(drops, default=31) > _MIDMONTH else []


def _begins_with_a_day(top: Top, row: Sequence[Cell], first: int) -> bool:
    """Whether the first cell of a row of dates is the day before the first of them, `Mon 7` before `Tue 8`, and no corner."""
    days, following = (re.findall(r"\d+", cell_text(cell)[:30]) for cell in (row[0], row[first]))
    is_before = any(int(one) + 1 == int(other) for one in days for other in following if int(one) <= 31)
    is_dated = heads_dates([row[0]], top.lexicon) or bool(
        numbered_days([(0, 0, row[0])] * 3, top.lexicon, {})
    )
    return first == 1 and is_before and is_dated


def _headed(
    top: Top, rows: Sequence[Row], at: int, columns: Sequence[int], first: int
) -> tuple[Headed | None, int]:
    """The days of a row of headings, and how many rows below it are headings too."""
    number, row = rows[at]
    cells = [(n, number, row[n]) for n in columns]
    weekdays, skipped = weekdays_beside(top.lexicon, rows, at, columns)
    if heads_dates([row[columns[0]]], top.lexicon):
        return settled_dates(top, cells, rows[:first]), skipped
    if is_numbered_week(cell_text(row[columns[0]])):
        return headed_by_weeks(top, number, row, columns, rows[:first]), skipped
    numbers = numbered_days(cells, top.lexicon, weekdays)
    if not numbers:
        return None, 0
    over = _months_over(top, rows[: at + 1])
    if len(over) > 1:
        return _dated_by_column(top, numbers, over, rows[:first]), skipped
    return settled_numbers(top, numbers, rows[: at + 1], rows[:first]), skipped


def _months_over(top: Top, rows: Sequence[Row]) -> dict[int, tuple[int | None, int]]:
    """Column → month of the row above the last of these, where it names several."""
    row = rows[-2][1] if len(rows) > 1 else ()
    return months_across(row, top.lexicon)


def _dated_by_column(
    top: Top, numbers: Sequence[Numbered], over: Mapping[int, tuple[int | None, int]], above: Sequence[Row]
) -> Headed:
    """Numbers of days, each in the month that stands above it or left of that."""
    months = with_years(top, list(over.values()), above)
    if isinstance(months, Problem):
        return Headed({}, (months,))
    by_column = dict(zip(over, months, strict=True))
    found: dict[int, Days] = {}
    problems: list[Problem] = []
    for start, end in pairwise([*by_column, max(one.key for one in numbers) + 1]):
        part = dated_numbers(top.sheet, [one for one in numbers if start <= one.key < end], by_column[start])
        found |= part.days
        problems += part.problems
    return Headed(found, tuple(problems))


def _parts_under(rows: Sequence[Row], columns: Sequence[int]) -> dict[int, str]:
    """Column → what heads it below its day, where the first row below dates holds parts of the day, or posts, that come back
    under each."""
    row = rows[0][1] if rows else ()
    parts = {n: text for n in range(columns[0], len(row)) if (text := cell_text(row[n]))}
    words = set(map(str.casefold, parts.values()))
    are_parts = len(parts) > len(columns) and len(words) * 2 <= len(parts) and not any(row[: columns[0]])
    return parts if are_parts and parts.keys() >= set(columns) else {}


def carried_days(days: Mapping[int, Days], columns: Iterable[int]) -> dict[int, Days]:
    """The days of columns, each its own or those of the nearest column on its left."""
    known = sorted(days)
    lefts = {n: [left for left in known if left <= n] for n in columns}
    return {n: days[left[-1]] for n, left in lefts.items() if left}


def _body(rows: Sequence[Row], first: int) -> tuple[list[Row], list[Row]]:
    """The rows of a block that are its own, and those below it: a key, remarks."""
    gap = next((n for n, (a, b) in enumerate(pairwise(rows), 1) if b[0] > a[0] + 1), len(rows))
    own = {cell_text(cell) for _, row in rows[:gap] for cell in row[first:] if is_code(cell)}
    while gap > 1 and is_of_key(rows[gap - 1][1], own):  # right below the last of them, and as wide
        gap -= 1
    body, below = list(rows[:gap]), list[Row]()
    for number, row in rows[gap:]:
        texts = [text for cell in row if (text := cell_text(cell))]
        is_key = (
            texts[0] in own
            or len(texts) == 1
            or re.match(r"(?i)(?:key|legend|codes?|shifts?)\b", texts[0])
            or is_of_key(row, own)
        )
        if below or is_key or not any(map(cell_text, row[first:])):
            below.append((number, row))
        else:
            body.append((number, row))
    return body, below


def _heads_places(cell: Cell) -> bool:
    match = match_exactly(cell_text(cell))
    return match is not None and match.field in ("location", "room")


class _Block:
    """The rows under one row of dates."""

    def __init__(
        self,
        top: Top,
        head: Sequence[Cell],
        first: int,
        last: int,
        parts: Mapping[int, str],
        said: SaidOfDays,
        body: Sequence[Row],
    ) -> None:
        self._top, self._head, self._parts, self._body = top, head, parts, body
        self._first, self._last = first, last
        self._merged = merged_from(top.sheet)
        headed = [n for n, cell in enumerate(head) if not first <= n <= last and _says_time(cell)]
        times = [n for n in headed if not are_sums(head[n], body, n)]
        self._times = times or self._unheaded_times()
        self._name_at = self._name_column()
        self.heading = cell_text(head[self._name_at]) if self._name_at < len(head) else ""
        self._unheard = {
            n
            for n in range(first)
            if n not in (self._name_at, *self._times) and says_of_no_kind(head[n], body, n)
        }
        self._places = {n for n, cell in enumerate(head[:first]) if _heads_places(cell)}
        self._over = {
            n: time
            for n in range(first, len(head))
            if (time := time_of_date(head[n], top.lexicon)) is not NOTHING
        } | dict(said.times)
        self._where = said.places

    def slots(self, headed: Headed, others: list[Row]) -> Iterator[Slot]:
        """The filled cells; rows that have none go to the `others`."""
        are_places = re.search(_PLACE_HEADS, fold(self.heading)) is not None
        label, teams = "", list[str]()
        for number, row in self._body:
            own = cell_text(row[self._name_at]) if self._name_at < len(row) else ""
            filled = [n for n in range(self._first, len(row)) if cell_text(row[n]) and n in headed.days]
            summed = is_sum(own, [row[n] for n in filled])
            if summed or not filled:
                others.append((number, row))
                teams = [own] if own and not summed else teams
                continue
            label = own or label
            left = [
                cell_text(row[n])
                for n in range(self._name_at)
                if n not in self._times and n not in self._unheard
            ]
            named = [text for text in left if text and not text.replace(".", "").isdigit()]
            teams = named or teams
            between = set(range(self._name_at + 1, self._first)).difference(self._times, self._unheard)
            said_at = {
                n: text
                for n in sorted(between)
                if n < len(row) and (text := cell_text(row[n])) and any(map(str.isalpha, text))
            }
            where = ", ".join(text for n, text in said_at.items() if n in self._places)
            beside = [text for n, text in said_at.items() if n not in self._places]
            said = (
                Code("") if number_others(self.heading, [label]) else session_of(label)
            )  # Early (7-3), Lock-up 17:30
            time = self._time_of(row) if self._times else said.time
            name = said.name if said.time is not NOTHING and said.name else label
            is_place = are_places and not halves_day(name)  # Hall bookings | Morning
            for n in filled:
                days = self._days(number, n, headed)
                hours = self._over.get(n, NOTHING) if time is NOTHING else time  # Sat 16 Jan 10am
                there = where or self._where.get(n, "")
                slot = Slot(
                    number, n, name, row[n], days, hours, is_place, where=there, categories=(*teams, *beside)
                )
                slot = slot._replace(is_session=halves_day(name))
                yield self._in_part(slot) if self._parts else slot

    def _in_part(self, slot: Slot) -> Slot:
        """A slot under a part of its day (`AM`, `9:00-12:00`), which stands below the date."""
        said = session_of(self._parts[slot.column])
        hours = slot.time if said.time is NOTHING else said.time
        return slot._replace(time=hours, part=said.name or "")

    def _time_of(self, row: Sequence[Cell]) -> Part:
        """The hours that a row says beside the dates, in one column or in two."""
        parts = [time_of(row[n]) for n in self._times if n < len(row)]
        starts = [part for part in parts if part.start is not None]
        if len(starts) == 2 and starts[0].end is None:
            return starts[0]._replace(end=starts[1].start)
        return starts[0] if starts else NOTHING

    def _days(self, number: int, column: int, headed: Headed) -> Days:
        days = headed.days[column]
        area = self._merged.get((number, column))
        if area is None:
            return days
        last = area.last_column - self._top.sheet.first_column
        return Days(days.first, max(one.last for n, one in headed.days.items() if column <= n <= last))

    def _unheaded_times(self) -> list[int]:
        """The columns left of the dates that hold times and nothing else, where some are left for names."""
        left = [n for n in range(self._first) if not are_counts(self._head[n], self._body, n)]
        timed = [n for n in left if are_times(self._body, n)]
        return timed if len(timed) < self._first else []

    def _name_column(self) -> int:
        """The column of labels: of those left of the dates the one with the most different texts."""

        def different(n: int) -> int:
            texts = {cell_text(row[n]) for _, row in self._body if n < len(row)}
            return len({text for text in texts if text and not text.replace(".", "").isdigit()})

        return max(
            (n for n in range(self._first) if n not in self._times),
            key=lambda n: (different(n), -n),
            default=0,
        )

    def unused(self) -> tuple[list[str], list[Problem]]:
        """Columns under which something stands that is in no event: right of the dates, and what says of no kind left of them; and a
        problem of each of them that holds times, where no other says any."""
        used = {*range(self._last + 1), *self._times} - self._unheard
        unused = unused_columns(self._top, self._head, self._body, used)
        right = {n: name for n, name in unused.items() if n > self._last}
        problems = called_off_beside(self._top.sheet, self._body, used)
        problems += [] if self._times else unread_times(self._top, self._body, right)
        return list(unused.values()), problems


def _says_time(heading: Cell) -> bool:
    """Whether a column beside the dates says when a row begins or ends."""
    match = match_exactly(cell_text(heading))
    return match is not None and match.field in ("time", "start", "end")
