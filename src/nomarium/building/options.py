"""What a build is asked to do."""

import datetime as dt
from pathlib import Path
from typing import TYPE_CHECKING, BinaryIO, NamedTuple

if TYPE_CHECKING:
    from nomarium.building.withheld import Withheld
    from nomarium.reckoning.daysoff import DaysOff, PublicHolidays
    from nomarium.targets.settled import Edited


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
    split_by: tuple[str, ...] = ()
    """The field by which events go into files; of two, the first is a folder's."""
    expected: int | None = None
    partial: bool = False
    afresh: bool = False
    cancel_removed: bool = False
    is_dry: bool = False
    """Everything but the writing: what is there is compared with, and stays."""
    by_rule: bool = False
    """Whether what repeats stays one event with a rule, where a rule can say it."""
    merge_duplicates: bool = False
    workers: int = 1
    """How many processes may share the meetings of a plan …"""
    share_from: int = 20_000
    """… each with at least this many."""
    days_off: "DaysOff | None" = None
    """Dates on which nothing repeats."""
    withheld: "Withheld | None" = None
    """What calendars hold already, so that it is not written again."""
    language: str = "en"
    """The language of pages."""
    with_pages: bool = False
    """Whether a folder of calendars has pages, too …"""
    base_url: str = ""
    """… and where it is to stand on the web."""
    shown_holidays: "tuple[PublicHolidays, ...]" = ()
    """Public holidays that become events of their own."""
    edited: "Edited | None" = None
    """What people have changed in the calendar since the last build."""
    method: str = ""
    """METHOD of the calendar file: nothing, or REQUEST for invitations (RFC 5546, 3.2.2)."""
