"""Rosters of one week: weekdays across, names or posts down, and the week that they are of in the title or `--day-one`."""

from nomarium.reading.layouts import roster
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.weekdays import dated_weekdays


def look(top: Top) -> Reading | NotRead:
    """Read a sheet as a roster whose weekdays get the dates of their week, or say why it is none."""
    dated = dated_weekdays(top, top.seen or top.of_weekdays)
    if dated is not None:
        return roster.look(Top(dated, top.options, True))
    message = f"{top.sheet.title} has no weekdays that a week could date."
    return not_read(top.sheet, "no-weekdays", "it has no weekdays", "date-column-missing", message)
