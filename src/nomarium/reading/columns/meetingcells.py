"""Cells that say the days and the times of a class together, several of them perhaps: `Mon 9:00-10:00, Wed 11:00-12:00`."""

import re
from collections.abc import Sequence
from typing import Final

from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH, fold
from nomarium.reading.columns.weekdaycolumn import UNSETTLED, days_and_time

_PARTED: Final = r"\s*[,;\n]\s*(?=[^\W\d_]+[^,;\n]*\d)|(?<=\d)\s*(?:&|\band\b|/)\s*(?=[^\W\d_]+[^,;\n]*\d)"


def meetings_in(text: str) -> list[str]:
    """The meetings of a cell, each with its days and its time."""
    return re.split(_PARTED, text)


def are_meetings(texts: Sequence[str], is_of_times: bool) -> bool:
    """Whether all cells are days with times, but for those that are open, and some are several, or stand under a heading of times."""
    pieces = [meetings_in(text) for text in texts if fold(text).strip(" .") not in UNSETTLED]
    said = [days_and_time(piece) for some in pieces for piece in some]
    if not said or not all(time for _, time in said):
        return False
    are_days = WeekdayCodes([days for days, _ in said], ENGLISH).are_days
    return are_days and (is_of_times or any(len(some) > 1 for some in pieces))
