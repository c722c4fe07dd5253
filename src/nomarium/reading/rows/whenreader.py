"""When the event of a row is: the cells that say so, each read once, put together."""

import re
from collections.abc import Sequence
from typing import TYPE_CHECKING

from nomarium.model.cell import Cell
from nomarium.model.problem import column_letter
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.halves import Half
from nomarium.reading.cells.memo import CellMemo, FieldValue, value_memo
from nomarium.reading.cells.partmemo import part_memo
from nomarium.reading.cells.times import DAY_SECS
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.cellssay import ARRIVING, LEAVING
from nomarium.reading.columns.headings import NO_UNIT, normal, unit_of
from nomarium.reading.columns.table import TableReading
from nomarium.reading.columns.whenwords import says_begin
from nomarium.reading.rows.weekdaycells import WeekdayCells
from nomarium.reading.rows.when import NOTHING, Blame, Part, Said, When, settle
from nomarium.reckoning.zones import zone_named
from nomarium.sheets.sheet import cell_text

if TYPE_CHECKING:
    import datetime as dt
    from zoneinfo import ZoneInfo

_BACK = frozenset(
    ("return", "returns", "returning", "return time", "back", "back at", "home", "retour", "zurück", "vuelta")
)
_BEGINNING = frozenset("begin begins beginning commencing starting beginn debut".split())
"""Headings of the first days of weeks, beside a column of their numbers."""
_WHEN_FIELDS = ("date", "start", "end", "end-date", "time")


_NEITHER = Refusal(
    "repeat-missing", "The row has a first and a last day, and neither its weekdays nor its times as the others have.",
    "Give it both; if it lasts all day from the first to the last, write “all day” as its time.",
)  # fmt: skip
_FORTNIGHT = 14
_MONTH = 28
_WEEK = 7


class WhenReader:
    """Reads when the rows of one table are. Set up once, so that a row costs as little as it can."""

    def __init__(self, reading: TableReading) -> None:
        self.reading = reading
        options = reading.options
        self.sheet = reading.sheet
        self.fields = [c.field if c.twin_of is None else "" for c in reading.columns]
        self.at = {f: n for n, f in enumerate(self.fields) if f}
        if "when" in self.at:
            self.at.setdefault("date", self.at["when"])
        self.known = set(self.at) | set(options.defaults)
        """Fields that some column or `--set` gives."""
        self.parts = {field: self.part_memo(field) for field in _WHEN_FIELDS}
        self.dated = self._dated()
        """The field of the column that says the day; empty when none does."""
        self.days = self._days()
        """The column of weekdays beside it."""
        self.repeat_at = [
            self.at[name] for name in ("repeat", "repeat-times", "repeat-until") if name in self.at
        ]
        self.by_weekday: dict[int | None, CellMemo] = {None: self.parts[self.dated or "date"]}
        self.by_half: dict[tuple[str, Half], CellMemo] = {}
        self.is_weekly = self._is_weekly()
        self.begins_weeks = self.is_weekly and not (
            self.dated and unit_of(reading.columns[self.at[self.dated]].heading).week
        )
        self.zone_name = options.zone
        self.zone: ZoneInfo | None = zone_named(options.zone) if options.zone else None
        self.duration, self.duration_at = self.value("duration")
        title = reading.column("summary")
        self.title_at = title.at if title is not None and self.duration_at < 0 else -1
        """The column of titles, which may say a length that no other column says."""
        self.all_day, self.all_day_at = self.value("all-day")
        self.row_zone, self.row_zone_at = self.value("timezone")
        self.counts_days = "date" not in self.known and bool(self.known & {"week", "day"})
        self.are_of_year: bool | None = None
        """Whether weeks are those of the year; None until a row has asked."""
        self.has_dates = bool(self.known & {"date", "when", "start", "week", "day"})
        """Whether there is more to say when than milestones."""
        self.spans = options.spans or self._spans()

    def of(self, row: Sequence[Cell]) -> When | Blame:
        """What the row says about when, with everything that a row may say."""
        parts = {}
        for field in _WHEN_FIELDS:
            index = self.at.get(field, -1)
            memo = self.parts[field]
            if field == self.dated and self.days is not None:
                memo = self._dated_memo(self.days.one(row))
            elif field in ("start", "time") and self.days is not None and (half := self.days.half(row)):
                memo = self._memo_of_half(field, half)
            part: Part = memo[row[index] if index >= 0 else ""]
            if part.refusal is not None:
                return Blame(self.fields[index] if index >= 0 else field, part.refusal)
            parts[field] = part
        if self.counts_days and parts["date"] is NOTHING and parts["start"].first is None:
            part_or_blame = self._counted_day(row)
            if isinstance(part_or_blame, Blame):
                return part_or_blame
            parts["date"] = part_or_blame
        weekdays = self.weekdays(row) or self._some_of_days(row, parts)
        if not weekdays and (blame := self._no_weekday(row, parts)) is not None:
            return blame
        if len(weekdays) > 1 and (blame := self._other_days(row, parts, weekdays)) is not None:
            return blame
        values: list[FieldValue] = []
        for field, memo, index in (
            ("duration", self.duration, self.duration_at),
            ("all-day", self.all_day, self.all_day_at),
            ("timezone", self.row_zone, self.row_zone_at),
        ):
            if isinstance(value := memo[row[index] if index >= 0 else ""], Refusal):
                return Blame(field, value)
            values.append(value)
        zone_name = values[2] or self.zone_name
        zone = self.zone if values[2] is None else zone_named(zone_name)
        spans = self.spans
        if spans == "repeat" and not self._repeats(row):
            if values[1] is None and self._says_neither(parts):
                return Blame(self.fields[self.repeat_at[0]], _NEITHER)
            is_timed = any(parts[field].start is not None for field in ("date", "start", "time"))
            is_told = bool(self.reading.columns[self.repeat_at[0]].filled) if self.repeat_at else False
            if is_timed and is_told and self._count_of_days(parts) > _WEEK and not self.reading.options.spans:
                return Blame(self.fields[self.repeat_at[0]], self._without_weekday(self.repeat_at[0]))
            spans = self._spans_of_days()  # a row without a repeat, in a table where others have one
        elif spans == "repeat" and weekdays:
            spans = "weeks"
        elif spans == "daily" and not self.reading.options.spans and self._names_one_weekday(row, parts):
            spans = "weekday"
        said = Said(
            parts["date"], parts["start"], parts["end"], parts["end-date"], parts["time"],
            values[0], values[1], zone_name, zone, spans, weekdays,
        )  # fmt: skip
        when = self._settled(said, row[self.title_at] if self.title_at >= 0 else "")
        if self.days is None or weekdays or not self.days.say_something_else(row) or isinstance(when, Blame):
            return when
        return when._replace(notes=(*when.notes, "day-unread"))

    def zone_of(self, row: Sequence[Cell]) -> FieldValue:
        """What a row says of its own time zone; None where it says none."""
        return self.row_zone[row[self.row_zone_at] if self.row_zone_at >= 0 else ""]

    def _settled(self, said: Said, title: Cell) -> When | Blame:
        """When a row is, which lasts as long as its title says in brackets, where nothing else says how long."""
        secs = None
        if isinstance(title, str) and title[-1:] == ")" and _is_open(said):
            from nomarium.reading.cells.lengths import length_behind

            secs = length_behind(title)
        if secs is None:
            return settle(said, self.reading.options.length_secs)
        when = settle(said._replace(duration_secs=secs), self.reading.options.length_secs)
        return when._replace(notes=(*when.notes, "length-behind")) if isinstance(when, When) else when

    def _names_one_weekday(self, row: Sequence[Cell], parts: dict[str, Part]) -> bool:
        """Whether a row's first and its last day are of one weekday, weeks after each other, and it names that or they are many: it
        may be held on that alone."""
        first, last = parts["date"].first, parts["end-date"].first or parts["date"].last
        days = (last - first).days if first is not None and last is not None else 0
        if days < _FORTNIGHT or days % 7:
            return False
        weekdays = self.reading.decisions.lexicon.weekdays
        texts = [cell_text(row[self.at[field]]) for field in ("date", "end-date") if field in self.at]
        named = [word for word in re.findall(r"[^\W\d_]+", fold(" ".join(texts))) if word in weekdays]
        return (len(named) > 1 or days >= _MONTH) and not parts["date"].is_all_day

    def _dated_memo(self, weekday: int | None) -> CellMemo:
        """The memo of the column of dates for rows that name this weekday in a column of its own."""
        if self.begins_weeks:  # whatever weekday the first day is
            weekday = None
        if weekday not in self.by_weekday:
            self.by_weekday[weekday] = self.part_memo(self.dated, weekday)
        return self.by_weekday[weekday]

    def _memo_of_half(self, field: str, half: Half) -> CellMemo:
        """The memo of a column of times for rows whose weekday names a half of the day, which settles theirs."""
        if (field, half) not in self.by_half:
            self.by_half[field, half] = self.part_memo(field, half=half)
        return self.by_half[field, half]

    def _counted_day(self, row: Sequence[Cell]) -> Part | Blame:
        week, day = (row[self.at[f]] if f in self.at else "" for f in ("week", "day"))
        day_one = self.reading.options.day_one
        if day_one is None or not (cell_text(week) or cell_text(day)):
            return NOTHING
        if "week" in self.at and not cell_text(week):
            return Blame("week", Refusal("week-missing", "The day has no week.", "Give it one.", "missing"))
        from nomarium.reading.cells.relativedays import day_of_programme

        if self.are_of_year is None:
            self.are_of_year = self._are_weeks_of_year(day_one)
        lexicon = self.reading.decisions.lexicon
        date = day_of_programme(day_one, cell_text(week), cell_text(day), lexicon, self.are_of_year)
        if isinstance(date, Refusal):
            return Blame("day" if "day" in self.at else "week", date)
        return Part(first=date)

    def _are_weeks_of_year(self, day_one: "dt.date") -> bool:
        """Whether the weeks of the column that counts them are those of the year, as it says or as its first one shows."""
        from nomarium.reading.cells.relativedays import are_calendar_weeks

        column = self.reading.columns[self.at["week"]] if "week" in self.at else None
        first = column.samples[0] if column is not None and column.samples else ""
        texts = (first, f"{column.heading} {first}") if column is not None else ()
        return any(are_calendar_weeks(day_one, text) for text in texts)

    def weekdays(self, row: Sequence[Cell]) -> tuple[int, ...]:
        """The weekdays that a column of its own says, 0 for Monday: one, or several where others say how the row repeats, or from
        which day to which."""
        if self.days is None:
            return ()
        found = self.days.all(row)
        return found if len(found) == 1 or self.is_weekly or self._repeats(row) else ()

    def _some_of_days(self, row: Sequence[Cell], parts: dict[str, Part]) -> tuple[int, ...]:
        """The weekdays that a column of its own says, where these are some of the days of a week from a first to a last one; or on
        which something at a time of day is held for weeks."""
        if self.days is None:
            return ()
        days = self._count_of_days(parts)
        is_timed = any(parts[field].start is not None for field in ("date", "start", "time"))
        named = self.days.all(row) if days > 1 and (is_timed or days <= _WEEK) else ()
        return named if len(named) < days else ()

    def _count_of_days(self, parts: dict[str, Part]) -> int:
        """How many days a row lasts, as its dates say; 0 where they do not."""
        dated = parts[self.dated or "date"]
        first, last = dated.first, parts["end-date"].first or parts["end"].first or dated.last
        return (last - first).days + 1 if first is not None and last is not None else 0

    def _other_days(
        self, row: Sequence[Cell], parts: dict[str, Part], weekdays: tuple[int, ...]
    ) -> Blame | None:
        """Why a row cannot be whose weekdays are more or fewer days than it lasts, which has no time of day and does not repeat."""
        assert self.days is not None
        days = self._count_of_days(parts)
        is_timed = any(parts[field].start is not None for field in ("date", "start", "time"))
        if not 1 < days <= _WEEK or days == len(weekdays) or is_timed or self._repeats(row):
            return None
        said = cell_text(row[self.days.at]).strip()
        message = f"“{said}” is {len(weekdays)} days, and the row lasts {days}."
        return Blame("day", Refusal("weekday-unknown", message, "Correct the weekdays or the dates."))

    def _no_weekday(self, row: Sequence[Cell], parts: dict[str, Part]) -> Blame | None:
        """Why a row's cell of weekdays cannot be passed over: it names several, or none where the row goes on for weeks."""
        if self.days is None or not self.days.name_weekdays:
            return None
        said = cell_text(row[self.days.at]).strip()
        has_letters = any(map(str.isalpha, said))
        first = parts[self.dated].first
        last = parts["end-date"].first or parts["end"].first or parts[self.dated].last or first
        days = (last - first).days if first is not None and last is not None else 0
        is_timed = any(parts[field].start is not None for field in ("date", "start", "time"))
        for_weeks = days > 6 and is_timed
        if self.is_weekly and days > 0 and not self._repeats(row) and self._says_neither(parts):
            return Blame("day", _NEITHER)
        if has_letters and (for_weeks or self._repeats(row) or self.days.are_others(said, days + 1)):
            message, remedy = f"“{said}” is not one weekday.", "Write one, or all of them under “Repeat”."
            return Blame("day", Refusal("weekday-unknown", message, remedy))
        if not has_letters and for_weeks and self.is_weekly and not self.reading.options.spans:
            return Blame("day", self._without_weekday(self.days.at))
        return None

    def _without_weekday(self, at: int) -> Refusal:
        """Why a row cannot be that goes on for weeks at a time of day, and leaves blank in the column `at` what others say there."""
        message = "The row goes on for weeks, and has no weekday as the others have."
        called = self.reading.columns[at].heading or column_letter(at + self.reading.sheet.first_column)
        remedy = (
            f'Write its weekday; or, if one written once holds for the rows below it: --fill-down "{called}".'
        )
        return Refusal("weekday-missing", message, remedy)

    def _says_neither(self, parts: dict[str, Part]) -> bool:
        """Whether a row has a first and a last day and no time, in a table whose others repeat at theirs."""
        timed = [n for n in (self.at.get(field, -1) for field in ("time", "start")) if n >= 0]
        if not any(self.reading.columns[n].filled >= self.reading.columns[n].blank for n in timed):
            return False
        first = parts[self.dated].first if self.dated else None
        last = parts["end-date"].first or parts["end"].first
        says_when = any(part.start is not None or part.is_all_day for part in parts.values())
        return first is not None and last is not None and first < last and not says_when

    def _repeats(self, row: Sequence[Cell]) -> bool:
        """Whether a cell of the row, or `--set`, says how, how often or until when it repeats."""
        return "repeat" in self.reading.options.defaults or any(cell_text(row[at]) for at in self.repeat_at)

    def has_date(self, row: Sequence[Cell]) -> bool:
        """Whether a cell of the row holds a date."""
        for field in ("date", "start"):
            index = self.at.get(field, -1)
            if index >= 0 and self.parts[field][row[index]].first is not None:
                return True
        return False

    def _days(self) -> WeekdayCells | None:
        at = self.at.get("day") if self.dated else None
        if at is None:
            return None
        return WeekdayCells(at, self.reading.columns[at].samples, self.reading.decisions.lexicon)

    def _dated(self) -> str:
        if "date" in self.at:
            return "date"
        start = self.at.get("start", -1)
        return "start" if start >= 0 and self.reading.columns[start].has_days else ""

    def _is_weekly(self) -> bool:
        """Whether the first date is where the weeks of a row's weekday begin, which goes on to a last day."""
        if self.known & {"end-date", "repeat-times", "repeat-until"}:
            return True
        if not self.dated or not says_begin(self.reading.columns[self.at[self.dated]].heading):
            return False
        end = self.reading.columns[self.at["end"]] if "end" in self.at else None
        ends_on_a_day = end is not None and end.has_days and not any(":" in text for text in end.samples)
        return ends_on_a_day or "repeat" in self.known

    def _spans(self) -> str:
        """What a first day, a last day and times are, as the columns show."""
        if self.known & {"repeat", "repeat-times", "repeat-until"}:
            return "repeat"
        return self._spans_of_days()

    def _spans_of_days(self) -> str:
        """The same for rows that say no repeat."""
        date, start, last, end = (self.at.get(field, -1) for field in ("date", "start", "end-date", "end"))
        if "time" not in self.at and start >= 0 and end >= 0 and self._is_journey(start, end):
            return "whole"
        if "time" in self.at or last < 0:
            return "daily"
        return "whole" if 0 <= date < start < last < end else ""

    def _is_journey(self, start: int, end: int) -> bool:
        """Whether it begins with leaving, or coming, and ends with the other: between them nobody goes home."""
        first, last = (normal(self.reading.columns[at].heading) for at in (start, end))
        return (first in LEAVING and last in ARRIVING | _BACK) or (first in ARRIVING and last in LEAVING)

    def part_memo(
        self, field: str, weekday: int | None = None, at: int | None = None, half: Half = ""
    ) -> CellMemo:
        index = self.at.get(field, -1) if at is None else at
        default = self.reading.options.defaults.get(field, "")
        name = self.fields[index] if index >= 0 and at is None else field
        decisions = self.reading.decisions
        unit = unit_of(self.reading.columns[index].heading) if index >= 0 else NO_UNIT
        if unit.times and (field not in ("date", "when") or self.known & {"time", "start", "end", "all-day"}):
            unit = unit._replace(times=None)
        if index >= 0 and "week" in self.at and normal(self.reading.columns[index].heading) in _BEGINNING:
            unit = unit._replace(week="begins")
        if half and not unit.meridiem:
            unit = unit._replace(meridiem=half)
        return part_memo(
            name,
            index,
            decisions,
            self.sheet.counts_1904,
            default,
            weekday,
            self.reading.options.zone,
            unit,
        )

    def value(self, field: str) -> tuple[CellMemo, int]:
        index = self.at.get(field, -1)
        heading = self.reading.columns[index].heading if index >= 0 else ""
        default = self.reading.options.defaults.get(field, "")
        unit_secs = unit_of(heading).length_secs
        if normal(heading) == "nights" and not self.known.isdisjoint(("end", "end-date")):
            unit_secs = DAY_SECS  # alone they leave open which day is the last
        return value_memo(field, default, unit_secs), index


def _is_open(said: Said) -> bool:
    """Whether a row says when it begins, and neither when it ends nor how long it lasts."""
    has_start = said.time.start or said.start.start or said.date.start
    ends = (said.time.end, said.end.start, said.end.first, said.start.end, said.date.end, said.end_date.first)
    return has_start is not None and said.duration_secs is None and all(end is None for end in ends)
