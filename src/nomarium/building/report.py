"""What a build is asked to do, and everything that it found and did."""

import datetime as dt
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO, NamedTuple

from nomarium.model.account import Ledger
from nomarium.model.problem import Problem
from nomarium.reading.layouts.eventlist import PassedOver
from nomarium.reading.notebook import Notebook
from nomarium.reading.reading import SheetReading
from nomarium.targets.calendars import WrittenFile

if TYPE_CHECKING:
    from nomarium.reckoning.daysoff import DaysOff, PublicHolidays
    from nomarium.school.clashes import Clash
    from nomarium.school.plan import Plan


class BuildOptions(NamedTuple):
    """What is to be made of the events."""

    output: Path | BinaryIO | None
    """The calendar file or table, the folder of a split, an open binary stream, or None for a dry run."""
    calendar_name: str
    identity_name: str
    """The name that UIDs are made from: the same for a part as for the whole."""
    dtstamp: str
    """When the sources were last revised, `20270412T120000Z`."""
    color: str = ""
    first_day: dt.date | None = None
    last_day: dt.date | None = None
    reminder_secs: int | None = None
    split_by: str = ""
    expected: int | None = None
    partial: bool = False
    afresh: bool = False
    cancel_removed: bool = False
    by_rule: bool = False
    """Whether what repeats stays one event with a rule, where a rule can say it."""
    merge_duplicates: bool = False
    workers: int = 1
    """How many processes may share the meetings of a plan …"""
    share_from: int = 20_000
    """… each with at least this many."""
    days_off: "DaysOff | None" = None
    """Dates on which nothing repeats."""
    shown_holidays: "tuple[PublicHolidays, ...]" = ()
    """Public holidays that become events of their own."""


class SheetReport(NamedTuple):
    """What became of one sheet."""

    title: str
    ledger: Ledger
    note_rows: list[tuple[int, str]]


class BuildReport:
    """Everything that a build found and did."""

    def __init__(self) -> None:
        self.ledger = Ledger()
        self.sheets: list[SheetReport] = []
        self.passed_over: list[PassedOver] = []
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []
        self.readings: list[SheetReading] = []
        self.notebooks: list[Notebook] = []
        self.plans: list[Plan] = []
        self.clashes: list[Clash] = []
        """Who a plan puts in two places at once."""
        self.files: list[WrittenFile] = []
        self.kept_files: list[str] = []
        """Files of an earlier build in the folder that this one no longer makes."""
        self.event_count = 0
        """Distinct events that were (or would be) written."""
        self.span: tuple[dt.date, dt.date] | None = None
        """First and last local date of the events."""
        self.has_floating = False
        """Whether some timed event is in no zone."""
        self.is_written = False
        self.repeating_count = 0
        """Events of the source that repeat."""
        self.dated_count = 0
        """Dated events that they became."""
        self.rule_count = 0
        """Those that were kept as a rule, and …"""
        self.rule_date_count = 0
        """… the dates that their rules stand for."""
        self.holiday_count = 0
        self.duplicate_count = 0
        """Events that say the same as one before them, under a UID of their own."""
        self.changes: dict[str, int] = {}
        """Against the earlier build: new, changed, moved, unchanged, removed, cancelled."""
