"""The rows of a table to events, one by one, every row accounted for."""

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import FACETS, NO_DETAILS, Event
from nomarium.model.problem import Problem, column_letter, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import (
    REPEAT_FIELDS,
    CellMemo,
    FieldValue,
    fault_of,
    part_memo,
    repeat_memo,
    unguarded,
    value_memo,
)
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.details import details_of, lead_of
from nomarium.reading.rows.faults import blamed, note_text, one_of_weeks, too_wide, workbook_faults
from nomarium.reading.rows.plainrows import PLAIN_FIELDS, PlainReader, never, plain_reader
from nomarium.reading.rows.when import NOTES, NOTHING, Blame, Part, Said, When, settle
from nomarium.reckoning.zones import zone_named
from nomarium.sheets.sheet import cell_text, is_blank

if TYPE_CHECKING:
    from zoneinfo import ZoneInfo

    from nomarium.reading.rows.repeating import Repeated

_DAY = dt.timedelta(days=1)
_WHEN_FIELDS = ("date", "start", "end", "end-date", "time")
EXAMPLE_MARK = "EXAMPLE – "
"""How the example rows of a starter file begin; they are left out."""

_EACH_ROW = frozenset({"time-unknown", "time-skipped", "time-repeated"})
"""Notes that are told for every row, not once for all."""


def read_events(reading: TableReading, account: Account) -> Iterator[Event]:
    """The events of a table in the order of its rows. What becomes of every row goes into `account`."""
    reader = _RowReader(reading, account)
    plainly, read, ledger = reader.plain_reader(), reader.read, account.ledger
    ledger.notes += len(reading.head.title_rows)
    ledger.blank += reading.head.blank_rows
    for number in reading.head.title_rows:
        account.note_rows.append((number, "above the table"))
    count = reading.head.rows_above  # apart from what becomes of them, so that a row that is lost shows
    plain_count = 0  # kept here as long as it can be: this is done a million times
    try:
        for number, row in reading.rows():
            count += 1
            event = plainly(number, row)
            if event is not None:
                plain_count += 1
                yield event
                continue
            ledger.events += plain_count
            plain_count = 0
            event = read(number, row)
            if event is not None:
                ledger.events += 1
                yield event
    finally:
        ledger.events += plain_count
        ledger.read = count


class _RowReader:
    """Reads the rows of one table. Set up once, so that a row costs as little as it can."""

    def __init__(self, reading: TableReading, account: Account) -> None:
        self.reading = reading
        self.account = account
        options = reading.options
        self.sheet = reading.sheet
        self.fields = [c.field if c.twin_of is None else "" for c in reading.columns]
        self.width = len(self.fields)
        self.header_width = len(reading.head.headings)
        # in text a longer row is a slip; on a sheet anything may stand to the right of a table
        self.check_width = bool(reading.head.header_rows) and not self.sheet.name
        self.at = {f: n for n, f in enumerate(self.fields) if f}
        if "when" in self.at:
            self.at.setdefault("date", self.at["when"])
        self.parts = {field: self._part_memo(field) for field in _WHEN_FIELDS}
        self.weekday_at = self.at.get("day") if "date" in self.at else None
        self.by_weekday: dict[int | None, CellMemo] = {None: self.parts["date"]}
        self.zone_name = options.zone
        self.zone: ZoneInfo | None = zone_named(options.zone) if options.zone else None
        self.summary_at = self.at.get("summary", self.at.get("class", -1))
        self.summary_default = options.defaults.get("summary", "")
        self.location, self.location_at = self._value("location")
        self.description, self.description_at = self._value("description")
        self.duration, self.duration_at = self._value("duration")
        self.all_day, self.all_day_at = self._value("all-day")
        self.row_zone, self.row_zone_at = self._value("timezone")
        self.rest = self._rest_fields()
        self.extra = [
            (c.at, c.heading or f"Column {column_letter(c.at + self.sheet.first_column)}")
            for c in reading.columns
            if options.keep_extra and c.is_ignored and c.how != "asked"
        ]
        self.counts_days = "date" not in self._known() and "start" not in self.at
        self.fault_rows = frozenset(row for row, _ in self.sheet.faults)
        self.left_out = frozenset(text.casefold() for text in options.left_out)

    def plain_reader(self) -> PlainReader:
        """What reads the commonest rows; of this table none, when something about it asks for more."""
        at = {field: self.at.get(field, -1) for field in PLAIN_FIELDS}
        needed = {"time", "end-date", "duration", "all-day", "timezone", "week"} & self._known()
        options = self.reading.options
        if needed or self.rest or self.extra or options.renamed or options.left_out or self.sheet.faults:
            return never
        if min(at[field] for field in PLAIN_FIELDS[:4]) < 0 or self.weekday_at is not None:
            return never
        memos = {**self.parts, "location": self.location, "description": self.description}
        return plain_reader(at, memos, self.width, self.zone_name)

    def _known(self) -> set[str]:
        return set(self.at) | set(self.reading.options.defaults)

    def _part_memo(self, field: str, weekday: int | None = None) -> CellMemo:
        index = self.at.get(field, -1)
        default = self.reading.options.defaults.get(field, "")
        name = self.fields[index] if index >= 0 else field
        decisions = self.reading.decisions
        return part_memo(
            name, index, decisions, self.sheet.counts_1904, default, weekday, self.reading.options.zone
        )

    def _value(self, field: str) -> tuple[CellMemo, int]:
        index = self.at.get(field, -1)
        heading = self.reading.columns[index].heading if index >= 0 else ""
        default = self.reading.options.defaults.get(field, "")
        return value_memo(field, default, unit_of(heading).length_secs), index

    def _rest_fields(self) -> list[tuple[str, CellMemo, int]]:
        """The fields that few tables have."""
        names = (
            "categories", "audience", "organizer", "attendees", "optional-attendees", "url", "status",
            "privacy", "private", "busy", "reminder", "reminder-on", "color", "priority", "geo", "uid", *FACETS,
        )  # fmt: skip
        known = self._known()
        rest = [(name, *self._value(name)) for name in names if name in known]
        for name in REPEAT_FIELDS if known & set(REPEAT_FIELDS) else ():
            options = self.reading.options
            memo = repeat_memo(
                name, self.reading.decisions.lexicon, options.defaults.get(name, ""), options.cycle
            )
            rest.append((name, memo, self.at.get(name, -1)))
        return rest

    def read(self, number: int, row: Sequence[Cell]) -> Event | None:
        """A row's event, or None when it is none; the account then says what it was."""
        if len(row) < self.width:
            row = [*row, *[""] * (self.width - len(row))]
        when = self._when(row)
        summary = row[self.summary_at] if self.summary_at >= 0 else ""
        summary = summary.strip() if isinstance(summary, str) else cell_text(summary)
        if not summary:
            summary = self.summary_default
        if (
            type(when) is not When
            or not summary
            or summary[0] in "#E'"
            or (self.check_width and len(row) > self.header_width)
            or number in self.fault_rows
        ):
            if self._is_odd(number, row, when, summary):
                return None
            assert isinstance(when, When)
            if summary[0] == "'":
                summary = unguarded(summary)
        if self.left_out and self._is_left_out(row):
            self.account.ledger.left_out += 1
            return None
        if when.notes:
            self._tell(number, when)
        location = self.location[row[self.location_at] if self.location_at >= 0 else ""]
        description = self.description[row[self.description_at] if self.description_at >= 0 else ""]
        if self.extra:
            description = self._with_extra(row, description)
        if type(location) is Refusal or type(description) is Refusal or self.rest or when.is_tentative:
            return self._with_rest(number, row, when, summary, location, description)
        if self.reading.options.renamed:
            summary = self.reading.options.renamed.get(summary, summary)
        return Event(summary, when.start, when.end, when.zone, location, description, NO_DETAILS, number)

    def _when(self, row: Sequence[Cell]) -> When | Blame:
        """What the row says about when, with everything that a row may say."""
        parts = {}
        for field in _WHEN_FIELDS:
            index = self.at.get(field, -1)
            memo = self.parts[field]
            if field == "date" and self.weekday_at is not None:
                memo = self._dated_memo(row[self.weekday_at])
            part: Part = memo[row[index] if index >= 0 else ""]
            if part.refusal is not None:
                return Blame(self.fields[index] if index >= 0 else field, part.refusal)
            parts[field] = part
        if self.counts_days and parts["date"] is NOTHING:
            part_or_blame = self._counted_day(row)
            if isinstance(part_or_blame, Blame):
                return part_or_blame
            parts["date"] = part_or_blame
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
        when = settle(
            Said(
                parts["date"], parts["start"], parts["end"], parts["end-date"], parts["time"],
                values[0], values[1], zone_name, zone,
            ),
            self.reading.options.length_secs,
        )  # fmt: skip
        return one_of_weeks(when, self.weekday_at, row, self.reading.headings)

    def _dated_memo(self, cell: Cell) -> CellMemo:
        """The memo of the date column for rows that name this weekday in a column of its own."""
        weekday = self.reading.decisions.lexicon.weekdays.get(fold(cell_text(cell)).strip())
        if weekday not in self.by_weekday:
            self.by_weekday[weekday] = self._part_memo("date", weekday)
        return self.by_weekday[weekday]

    def _counted_day(self, row: Sequence[Cell]) -> Part | Blame:
        week, day = (row[self.at[f]] if f in self.at else "" for f in ("week", "day"))
        day_one = self.reading.options.day_one
        if day_one is None or not (cell_text(week) or cell_text(day)):
            return NOTHING
        if "week" in self.at and not cell_text(week):
            return Blame("week", Refusal("week-missing", "The day has no week.", "Give it one.", "missing"))
        from nomarium.reading.cells.relativedays import day_of_programme

        date = day_of_programme(day_one, cell_text(week), cell_text(day), self.reading.decisions.lexicon)
        if isinstance(date, Refusal):
            return Blame("day" if "day" in self.at else "week", date)
        return Part(first=date)

    def _is_odd(self, number: int, row: Sequence[Cell], when: When | Blame, summary: str) -> bool:
        """Whether a row that looks odd is indeed no event: then it is accounted for here."""
        account, ledger = self.account, self.account.ledger
        if isinstance(when, Blame) and is_blank(row):
            ledger.blank += 1
            return True
        if summary.startswith(EXAMPLE_MARK):
            ledger.left_out += 1
            told = note("example-left-out", "Example rows of the starter file are left out.")
            account.count(told.at(self.sheet.place(number)))
            return True
        reasons = []
        if number in self.fault_rows:
            reasons = workbook_faults(self.sheet, self.reading.columns, self.fields, number, row)
        extra = (
            [n for n in range(self.header_width, len(row)) if cell_text(row[n])] if self.check_width else []
        )
        if extra:  # everything right of the cut stands in a wrong column: nothing else can be said of it
            reasons = [too_wide(self.sheet, self.header_width, number, row, extra[0])]
        if not reasons and (isinstance(when, Blame) or not summary):
            dated = not isinstance(when, Blame) or self._has_date(row)
            text = note_text(row, self.reading.headings, self.fields, dated)
            if text is not None:
                account.note_row(number, text)
                return True
        if isinstance(when, Blame) and not reasons:
            reasons.append(self._problem(number, row, when))
        if not summary and not reasons:
            remedy = "Give it a title, or take the row out."
            refusal = Refusal("summary-missing", "The row says when and not what.", remedy)
            reasons.append(self._problem(number, row, Blame("summary", refusal)))
        elif summary and (fault := fault_of(summary)):
            reasons.append(self._problem(number, row, Blame("summary", fault)))
        if not reasons:
            return False
        account.reject(self.reading.headings, row, reasons)
        return True

    def _has_date(self, row: Sequence[Cell]) -> bool:
        for field in ("date", "start"):
            index = self.at.get(field, -1)
            if index >= 0 and self.parts[field][row[index]].first is not None:
                return True
        return False

    def _problem(self, number: int, row: Sequence[Cell], blame: Blame) -> Problem:
        at = self.at
        if self.summary_at >= 0:
            at = {"summary": self.summary_at, **at}
        events = self.account.ledger.events
        return blamed(self.sheet, self.reading.columns, at, number, row, blame, events > 0)

    def _is_left_out(self, row: Sequence[Cell]) -> bool:
        return any(cell_text(cell).casefold() in self.left_out for cell in row)

    def _tell(self, number: int, when: When) -> None:
        for code in dict.fromkeys(when.notes):
            told = note(code, NOTES[code]).at(self.sheet.place(number))
            if code in _EACH_ROW:
                self.account.notes.append(told)
            else:
                self.account.count(told)

    def _with_extra(self, row: Sequence[Cell], description: str) -> str:
        lines = [f"{heading}: {text}" for n, heading in self.extra if (text := cell_text(row[n]))]
        return "\n".join([description, *lines] if description else lines)

    def _with_rest(
        self,
        number: int,
        row: Sequence[Cell],
        when: When,
        summary: str,
        location: FieldValue,
        description: FieldValue,
    ) -> Event | None:
        """The event with the fields that few tables have, or None with every fault of them told."""
        values: dict[str, FieldValue] = {}
        blames = [
            Blame(field, value)
            for field, value in (("location", location), ("description", description))
            if isinstance(value, Refusal)
        ]
        for name, memo, index in self.rest:
            value = memo[row[index] if index >= 0 else ""]
            if isinstance(value, Refusal):
                blames.append(Blame(name, value))
            values[name] = value
        recurrence = None
        if not blames and any(values.get(name) for name in REPEAT_FIELDS):
            found = self._repeated(number, values, when)
            if isinstance(found, Blame):
                blames.append(found)
            else:
                when, recurrence = found.when, found.recurrence
        if blames:
            self.account.reject(
                self.reading.headings, row, [self._problem(number, row, blame) for blame in blames]
            )
            return None
        details = details_of(values, when, self._reminder(row, when, values), recurrence)
        summary = self.reading.options.renamed.get(summary, summary)
        place = location or values.get("room") or ""
        return Event(summary, when.start, when.end, when.zone, place, description, details, number)

    def _repeated(self, number: int, values: dict[str, FieldValue], when: When) -> "Repeated | Blame":
        from nomarium.reading.rows.repeating import Bounds, repeated

        options = self.reading.options
        bounds = Bounds(options.repeats_until, options.knows_days_off)
        found = repeated(when, values, self.reading.decisions, bounds)
        if not isinstance(found, Blame):
            for told in found.notes:
                self.account.count(told.at(self.sheet.place(number)), told.cell or told.message)
        return found

    def _reminder(self, row: Sequence[Cell], when: When, values: dict[str, FieldValue]) -> int | None:
        """The alarm's lead in seconds, from a length or from a reminder's date and time."""
        moment = []
        for field in ("reminder-date", "reminder-time"):
            if field not in self.at or not values.get("reminder-on"):
                return lead_of(values, when, NOTHING, NOTHING)
            if field not in self.parts:
                self.parts[field] = self._part_memo(field)
            moment.append(self.parts[field][row[self.at[field]]])
        return lead_of(values, when, *moment)
