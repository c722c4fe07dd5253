"""Headings of times that name a time zone by its letters, `Time (ET)`: which zone that is, letters alone do not say."""

import datetime as dt
import re
from collections.abc import Sequence

from nomarium.model.problem import Problem
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.columnnotes import called
from nomarium.reading.options import ReadingOptions
from nomarium.reckoning.zones import zone_named, zones_called
from nomarium.sheets.sheet import Sheet

_TIMED = ("date", "when", "start", "end", "time")
_LETTERS = r"[(\[]([ECMPA]T)[)\]]|(?:^|[\s(\[/,])([ECMPAN][SD]T|CES?T|WES?T|EES?T|BST|IST|MSK|JST|AE[SD]T|AC[SD]T|AWST|NZ[SD]T|SAST|HST|AK[SD]T)[)\]]?\s*$"
"""Those of two letters in brackets only: *AT* is a word."""
MOMENTS = (dt.datetime(2026, 1, 15), dt.datetime(2026, 7, 15))


def zones_in_headings(sheet: Sheet, columns: Sequence[Column], options: ReadingOptions) -> list[Problem]:
    """A problem for the first heading of times that names another zone than `--timezone` gives, or where that gives none."""
    if any(c.field == "timezone" and c.filled for c in columns):
        return []
    for column in columns:
        is_said = column.field in _TIMED and column.heading.rstrip(" )]")[-1:].isupper()
        match = re.search(_LETTERS, column.heading) if is_said else None
        if match is None:
            continue
        shown = match[1] or match[2]
        letters = {shown, f"{shown[0]}ST", f"{shown[0]}DT"} if len(shown) == 2 else {shown}
        zone = zone_named(options.zone) if options.zone else None
        if zone is not None and letters & {zone.tzname(moment) for moment in MOMENTS}:
            return []
        likely = next(
            (found[0] for one in sorted(letters) if (found := zones_called(one))), "America/New_York"
        )
        message = f"The heading {called(sheet, column)} says that its times are {shown}, "
        message += (
            "and nothing says which zone that is." if zone is None else f"and --timezone is {options.zone}."
        )
        remedy = (
            f"Give the zone that is meant, such as --timezone {likely}; or take “{shown}” out of the heading."
        )
        return [Problem("heading-zone", message, remedy, sheet.place(None, column.at, column.heading))]
    return []
