"""The rows of a table to events, one by one, every row accounted for."""

import datetime as dt
from collections.abc import Sequence
from typing import TYPE_CHECKING, Literal

from nomarium.model.account import Account
from nomarium.model.cell import Cell
from nomarium.model.event import NO_DETAILS, Event
from nomarium.model.problem import Problem, note
from nomarium.model.recurrence import Recurrence
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.bookkeeping import is_bookkeeping
from nomarium.reading.cells.memo import REPEAT_FIELDS, CancelledText, FieldValue, fault_of, unguarded
from nomarium.reading.cells.titleparts import TitleParts, followed
from nomarium.reading.columns.table import TableReading
from nomarium.reading.rows.blocks import Blocks
from nomarium.reading.rows.calledoff import CANCELLED, moved_title, without_cancellation
from nomarium.reading.rows.details import (  # fmt: skip
    details_of,
    extra_columns,
    reminder_of,
    rest_fields,
    status_of,
    with_extra,
)
from nomarium.reading.rows.faults import blamed, note_text, too_wide, untitled, without_month, workbook_faults
from nomarium.reading.rows.headeddays import denied, weekdays_headed
from nomarium.reading.rows.leftout import LeftOut
from nomarium.reading.rows.plainrows import PlainReader, ReaderOf, never, plain_table_of
from nomarium.reading.rows.titles import TitleMaker, is_no_title, may_say_days, whole_title
from nomarium.reading.rows.when import END_MISSING, NOTES, Blame, When, recurrence_of
from nomarium.reading.rows.whenreader import WhenReader
from nomarium.reading.rows.yearly import yearly_heading, yearly_rule
from nomarium.sheets.sheet import cell_text, is_blank

if TYPE_CHECKING:
    from nomarium.reading.rows.milestones import Milestones
    from nomarium.reading.rows.repeating import Repeated

_NOBODY_ASKED = note("rsvp-unused", "A row asks for an answer (RSVP) and names nobody to give it.")
EXAMPLE_MARK = "EXAMPLE – "
"""How the example rows of a starter file begin; they are left out."""
_EACH_ROW = frozenset({"time-unknown", "time-skipped", "time-repeated"})
"""Notes that are told for every row, not once for all."""


class RowReader:
    """Reads the rows of one table. Set up once, so that a row costs as little as it can."""

    def __init__(self, reading: TableReading, account: Account) -> None:
        self.reading = reading
        self.account = account
        options = reading.options
        self.sheet = reading.sheet
        self.when = WhenReader(reading)
        self.fields, self.at, self.known = self.when.fields, self.when.at, self.when.known
        self.width = len(self.fields)
        self.headings = reading.headings
        self.header_width = len(reading.head.headings)
        # in text a longer row is a slip; on a sheet anything may stand to the right of a table
        self.check_width = bool(reading.head.header_rows) and not self.sheet.name
        self.summary_at = self.at.get("summary", self.at.get("class", -1))
        self.title_at = self.summary_at if not options.title else -1
        self.summary_default = options.defaults.get("summary", "")
        self.location, self.location_at = self.when.value("location")
        self.description, self.description_at = self.when.value("description")
        self.rest = rest_fields(self.when)
        self.extra = extra_columns(reading)
        self.fault_rows = frozenset(row for row, _ in self.sheet.faults)
        self.left_out = LeftOut(options.left_out)
        self.overridden = options.overrides.keys()
        self.milestones: Milestones | None = None
        if reading.column("milestone") is not None:
            from nomarium.reading.rows import milestones

            self.milestones = milestones.Milestones(reading, self.when, account)
        self.yearly = yearly_heading(reading)
        self.weekdays = weekdays_headed(self.when)
        self.titles = (
            TitleMaker(options.title, reading.headings, self.sheet.first_column, self.at, options.sides)
            if options.title
            else None
        )
        title = reading.column("summary")  # most dates have none: then one without is an empty slot
        self.has_slots = self.sheet.dates_above or (title is not None and title.blank > title.filled)
        self.blocks = Blocks(reading)
        if self.blocks.title:
            account.notes.append(self.blocks.told().at(self.sheet.place(self.blocks.row)))
        self.lone: list[tuple[int, str]] = []  # rows among the others that hold one text alone

    def conclude(self, last_number: int) -> None:
        """Tell of rows that hold one text alone and stand before the last event."""
        if self.lone:
            from nomarium.reading.rows.linesaround import tell_lone

            tell_lone(self.lone, last_number, self.reading, self.account)
        for text in self.left_out.unmet():
            message = f"No row has “{text}”, by which the recipe leaves rows out."
            self.account.notes.append(note("recipe-unmet", message).at(self.sheet.place()))

    def plain_reader(self, reader_of: ReaderOf) -> PlainReader:
        """What reads the commonest rows; of this table none, when something about it asks for more."""
        more = (self.extra, self.yearly, self.weekdays, self.blocks.is_on, self.left_out, self.titles)
        if any(more) or self.sheet.faults:
            return never
        memos = {"location": self.location, "description": self.description}
        table = plain_table_of(self.when, memos, self.rest, self.width)
        return never if table is None else reader_of(table)

    def read(self, number: int, row: Sequence[Cell]) -> Event | list[Event] | None:
        """A row's event, or its events, or None when it is none; the account then says what it was."""
        if not any(row) and is_blank(row):
            self.account.ledger.blank += 1
            return None
        if len(row) < self.width:
            row = [*row, *[""] * (self.width - len(row))]
        summary = row[self.summary_at] if self.summary_at >= 0 else ""
        summary = whole_title(summary) if isinstance(summary, str) else cell_text(summary)
        if self.titles is not None:
            summary = self.titles.title(row, summary)
        if not summary:
            summary = self.summary_default
        elif is_no_title(summary) or is_bookkeeping(summary):
            self.account.note_row(number, " ".join(filter(None, map(cell_text, row))))
            told = note("row-empty", f"A row with “{summary[:40]}” for a title is no event.")
            self.account.count(told.at(self.sheet.place(number)), summary)
            return None
        milestones = self.milestones.of(number, row) if self.milestones is not None else []
        when = (
            self.when.of(row)
            if self.milestones is None or self.when.has_dates
            else self.milestones.first(milestones)
        )
        if (
            type(when) is not When
            or not summary
            or summary[0] in "#E'"
            or (self.check_width and len(row) > self.header_width)
            or number in self.fault_rows
        ):
            if (said := self._said_alone(number, row, when)) is not None:
                return None if said == "rejected" else said
            if summary and isinstance(when, Blame):
                found = self._said_otherwise(number, row, when, summary)
                if found is not None:
                    return found or None
            if self._is_odd(number, row, when, summary):
                return None
            assert isinstance(when, When)
            if summary[0] == "'":
                summary = unguarded(summary)
        if self.left_out and self.left_out.takes(row):
            self.account.ledger.left_out += 1
            return None
        if isinstance(milestones, Blame):
            self.reject(number, row, milestones)
            return None
        event = self._event(number, row, when, summary)
        if event is None or self.milestones is None or not milestones:
            return event
        return self.milestones.events(event, milestones)

    def _event(self, number: int, row: Sequence[Cell], when: When, summary: str) -> Event | None:
        """The event of a row about which all that is needed is known, or None with its faults told."""
        if self.yearly and when.rule is None:
            rule = yearly_rule(self.yearly, when.start, self.reading.options.last_repeat)
            if isinstance(rule, Refusal):
                self.reject(number, row, Blame("date", rule))
                return None
            when, summary = when._replace(rule=rule), followed(summary, self.yearly)
        if self.weekdays and when.start.weekday() not in self.weekdays:
            self.reject(number, row, Blame("date", denied(self.weekdays, when.start)))
            return None
        if may_say_days(summary) and self.when.has_dates and not self.when.repeat_at:
            from nomarium.reading.rows.titledays import with_days_of_title  # few titles say days

            longer = with_days_of_title(summary, when, self.reading.decisions.lexicon)
            if isinstance(longer, Refusal):
                self.reject(number, row, Blame("summary", longer))
                return None
            when = longer or when
        if when.notes:
            self._tell(number, when)
        titled = summary if isinstance(summary, TitleParts) else None
        bare = without_cancellation(titled.bare if titled is not None else summary)
        location = self.location[row[self.location_at] if self.location_at >= 0 else ""]
        description = self.description[row[self.description_at] if self.description_at >= 0 else ""]
        is_cancelled = bare is not None or CancelledText in (type(description), type(location))
        if bare is None and (moved := moved_title(summary, when.start)) is not None:
            self.reject(number, row, Blame("summary", moved))
            return None
        if is_cancelled:
            summary = (titled.called(bare) if titled is not None else bare) if bare else summary
            self.account.count(CANCELLED.at(self.sheet.place(number)))
        if self.extra:
            description = with_extra(row, self.extra, description)
        if (
            type(location) is Refusal or type(description) is Refusal or self.rest or when.is_tentative or is_cancelled
            or when.rule is not None or when.recurrence is not None or self.blocks.is_on
        ):  # fmt: skip
            return self._with_rest(number, row, when, summary, location, description, is_cancelled)
        return Event(summary, when.start, when.end, when.zone, location, description, NO_DETAILS, number)

    def _said_alone(
        self, number: int, row: Sequence[Cell], when: When | Blame
    ) -> list[Event] | Literal["rejected"] | None:
        """The events of a row that holds one text with a date in it; a date that cannot be settled rejects the row."""
        filled = filter(None, map(cell_text, row))
        text = next(filled, "")
        if isinstance(when, When) or not text or next(filled, "") or number in self.fault_rows:
            return None
        from nomarium.reading.rows.linesaround import said_within

        events = said_within(text, self.reading, number, self.account)
        if isinstance(events, Refusal):
            self.reject(number, row, Blame("date", events))
            return "rejected"
        return events

    def _said_otherwise(
        self, number: int, row: Sequence[Cell], blame: Blame, summary: str
    ) -> list[Event] | None:
        """The events of a row whose date names several days or a repeat, none when rejected; None for others."""
        from nomarium.reading.rows.eachline import rows_of_lines
        from nomarium.reading.rows.otherwise import counted_again, said_otherwise

        said = said_otherwise(row, blame.field, self.when)
        if said is None:
            return None
        counted = next(
            ((memo[row[at]], at) for name, memo, at in self.rest if name == "repeat-times" and at >= 0), None
        )
        fault = counted_again(said.whens, counted[0]) if counted is not None else None
        if said.blame is not None or fault is not None:
            self.reject(number, row, *filter(None, (said.blame, fault)))
            return []
        if counted is not None and len(said.whens) > 1:
            row = [*row[: counted[1]], "", *row[counted[1] + 1 :]]
        found = []
        lines = rows_of_lines(row, self.when.at.get(blame.field, -1), self.title_at, len(said.whens))
        for when, one in zip(said.whens, lines, strict=True):
            event = self._event(number, one, when, summary if one is row else cell_text(one[self.summary_at]))
            if event is None:
                return []
            found.append(event)
        for told in said.notes:
            self.account.count(told.at(self.sheet.place(number)), told.cell or "")
        return found

    def _is_odd(self, number: int, row: Sequence[Cell], when: When | Blame, summary: str) -> bool:
        """Whether a row that looks odd is indeed no event: then it is accounted for here."""
        account, ledger = self.account, self.account.ledger
        if summary.startswith(EXAMPLE_MARK):
            ledger.left_out += 1
            told = note("example-left-out", "Example rows of the starter file are left out.")
            account.count(told.at(self.sheet.place(number)))
            return True
        reasons = []
        if not summary and isinstance(when, Blame):
            from nomarium.reading.rows.otherwise import when_untitled

            when = when_untitled(row, when, self.when)
        if number in self.fault_rows:
            reasons = workbook_faults(self.sheet, self.reading.columns, self.fields, number, row)
        extra = (
            [n for n in range(self.header_width, len(row)) if cell_text(row[n])] if self.check_width else []
        )
        if extra:  # everything right of the cut stands in a wrong column: nothing else can be said of it
            reasons = [too_wide(self.sheet, self.header_width, number, row, extra[0])]
        if not reasons and (isinstance(when, Blame) or not summary):
            dated = not isinstance(when, Blame) or self.when.has_date(row)
            text = note_text(row, self.headings, self.fields, dated, self.has_slots)
            if text is not None:
                account.note_row(number, text)
                if self.blocks.is_on and (title_row := self.blocks.note(number, row)) is not None:
                    self.lone = [one for one in self.lone if one[0] != title_row]
                    account.notes.append(self.blocks.told().at(self.sheet.place(title_row)))
                if sum(bool(cell_text(cell)) for cell in row) == 1 and not dated:
                    self.lone.append((number, text))
                return True
        if isinstance(when, Blame) and not reasons:
            reasons.append(self._problem(number, row, when))
        if not summary and not reasons:
            reasons.append(self._problem(number, row, untitled(is_made=self.titles is not None)))
        elif summary and (fault := fault_of(summary)):
            reasons.append(self._problem(number, row, Blame("summary", fault)))
        if not reasons:
            return False
        account.reject(self.headings, row, reasons)
        return True

    def reject(self, number: int, row: Sequence[Cell], *blames: Blame) -> None:
        """Account for a row that becomes no event, for these reasons."""
        self.account.reject(self.headings, row, [self._problem(number, row, one) for one in blames])

    def _problem(self, number: int, row: Sequence[Cell], blame: Blame) -> Problem:
        at = {"summary": self.summary_at, **self.at} if self.summary_at >= 0 else self.at
        if blame.field == "milestone" and self.milestones is not None:
            at = {**at, "milestone": self.milestones.blamed_at}
        blame = without_month(blame, row, at, self.reading.parts)
        from_above = bool(self.reading.options.fill_down) or self.sheet.dates_above
        may_fill = self.account.ledger.events > 0
        return blamed(self.sheet, self.reading.columns, at, number, row, blame, may_fill, from_above)

    def _tell(self, number: int, when: When) -> None:
        for code in dict.fromkeys(when.notes):
            told = note(code, NOTES[code]).at(self.sheet.place(number))
            if code in _EACH_ROW:
                self.account.notes.append(told)
            else:
                self.account.count(told)

    def _with_rest(
        self, number: int, row: Sequence[Cell], when: When, summary: str, location: FieldValue,
        description: FieldValue, is_cancelled: bool,
    ) -> Event | None:  # fmt: skip
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
        values["weekdays"] = self.when.weekdays(row)
        values["timezone"] = self.when.zone_of(row)
        if self.blocks.is_on:
            for field, value in self.blocks.of_row().items():
                values[field] = value if field == "more-categories" else values.get(field) or value
        recurrence = recurrence_of(when.rule) if when.rule else when.recurrence
        if not blames and (recurrence or values.get("repeat")):
            blames += self._heard_beside(number, values, when, recurrence, (summary, description))
        if not blames and any(values.get(name) for name in REPEAT_FIELDS):
            found = self._repeated(number, values, when)
            if isinstance(found, Blame):
                blames.append(found)
            else:
                when, recurrence = found.when, found.recurrence
        elif "repeat-end-open" in when.notes:
            blames.append(Blame("end", END_MISSING))
        if blames and self.overridden:
            blames = self._not_overridden(number, row, blames)
            values = {name: None if type(value) is Refusal else value for name, value in values.items()}
            location, description = ("" if type(one) is Refusal else one for one in (location, description))
        if blames:
            self.reject(number, row, *blames)
            return None
        if values.get("rsvp") and not values.get("attendees") and not values.get("optional-attendees"):
            self.account.count(_NOBODY_ASKED.at(self.sheet.place(number)))
        values["status"] = status_of(values, is_cancelled)
        details = details_of(values, when, reminder_of(self.when, row, when, values), recurrence)
        place = location or values.get("room") or ""
        return Event(summary, when.start, when.end, when.zone, place, description, details, number)

    def _heard_beside(
        self, number: int, values: dict[str, FieldValue], when: When, recurrence: Recurrence | None, words: Sequence[FieldValue]
    ) -> list[Blame]:  # fmt: skip
        """Take what the title and the notes of a repeating row say of when it is not held into its exceptions."""
        from nomarium.reading.rows.saidbeside import Held, heard_beside

        rule = next(iter(recurrence.rules), None) if recurrence is not None else None
        first = when.start.date() if isinstance(when.start, dt.datetime) else when.start
        texts = (
            (field, text)
            for field, text in zip(("summary", "description"), words, strict=True)
            if isinstance(text, str)
        )
        options, lexicon = self.reading.options, self.reading.decisions.lexicon
        held = Held(values.get("repeat"), rule, first)
        heard = heard_beside(held, texts, lexicon, options.knows_days_off)
        if isinstance(heard, Blame):
            return [heard]
        if heard.left_out:
            values["except"] = (*(values.get("except") or ()), *heard.left_out)
        for told in heard.notes:
            self.account.count(told.at(self.sheet.place(number)), told.message)
        return []

    def _not_overridden(self, number: int, row: Sequence[Cell], blames: list[Blame]) -> list[Blame]:
        """The faults that matter: a field that every row is given anew is read past, and told of."""
        for blame in blames:
            if blame.field in self.overridden:
                text = self._problem(number, row, blame).cell
                message = f"“{text}” is read past: --override gives every row the {blame.field}."
                self.account.count(note("cell-overridden", message).at(self.sheet.place(number)), blame.field)
        return [blame for blame in blames if blame.field not in self.overridden]

    def _repeated(self, number: int, values: dict[str, FieldValue], when: When) -> "Repeated | Blame":
        from nomarium.reading.rows.repeating import bounds_of, repeated

        found = repeated(when, values, self.reading.decisions, bounds_of(self.reading.options))
        if not isinstance(found, Blame):
            for told in found.notes:
                self.account.count(told.at(self.sheet.place(number)), told.cell or told.message)
        return found
