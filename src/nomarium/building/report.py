"""Everything that a build found and did."""

import datetime as dt
from typing import TYPE_CHECKING

from nomarium.model.account import Account, Ledger
from nomarium.model.problem import Problem
from nomarium.reading.layouts.layout import NotRead, Reading
from nomarium.targets.replacing import WrittenFile

if TYPE_CHECKING:
    from nomarium.school.clashes import Clash
    from nomarium.school.plan import Plan


class SpreadCounts:
    """What became of events that repeat, over all sources."""

    def __init__(self) -> None:
        self.repeating = 0
        """Events of the sources that repeat and have a date in the window."""
        self.dated = 0
        """Dated events that they became."""
        self.by_rule = 0
        """Events that were kept as a rule."""
        self.rule_dates = 0
        """Dates that those rules stand for."""


class BuildReport:
    """What was found in the sources, what became of it, what was written."""

    def __init__(self) -> None:
        self.accounts: list[Account] = []
        """One a table or file, in the order in which they were read."""
        self.passed_over: list[NotRead] = []
        self.unread: list[NotRead] = []
        """Sheets that should be read and cannot be, as a whole."""
        self.problems: list[Problem] = []
        self.notes: list[Problem] = []
        self.readings: list[Reading] = []
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
        self.has_kept_rejects: bool | None = None
        """Whether rejected rows were put into a file of their own; None where it was not tried."""
        self.spread = SpreadCounts()
        """What became of events that repeat."""
        self.holiday_count = 0
        self.duplicate_count = 0
        """Events that say the same as one before them, under a UID of their own."""
        self.changes: dict[str, int] = {}
        """Against the earlier build: new, changed, moved, unchanged, removed, cancelled."""
        self.settled: dict[str, int] = {}
        """What became of what people changed in the calendar: kept, added, deleted, returned, refused, joined, dropped."""

    @property
    def rejected_rows(self) -> int:
        """How many rows can be kept to be mended: none of a table that is refused as a whole."""
        return sum(len(account.rejected) for account in self.accounts)

    @property
    def ledger(self) -> Ledger:
        """The accounts together."""
        total = Ledger()
        for account in self.accounts:
            total.add(account.ledger)
        return total
