"""Day by day: every event with its time, its title and its place."""

from collections.abc import Iterator

from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show, Shown
from nomarium.pictures.terminal.lines import Line, Part, width_of, wrapped
from nomarium.pictures.terminal.marks import spine
from nomarium.pictures.wording import days_text, place_text, state_text, times_text, title_text

_TIMES = 14
"""Cells for `10:00–11:30` and the margin."""


def agenda(show: Show, names: Names, width: int) -> Iterator[Line]:
    """The events under the date on which each begins, or the first of the window; nothing is cut."""
    last = None
    for one in show.events:
        day = max(one.event.first_day, show.first)
        if day != last:
            if last is not None:
                yield []
            yield _heading(show, names, day)
            last = day
        yield from _event(one, show, names, width)


def _heading(show: Show, names: Names, day: object) -> Line:
    import datetime as dt

    assert isinstance(day, dt.date)
    known = show.days.get(day)
    parts = [Part(names.day(day, with_year=True), "bold")]
    if known is not None and (known.label or known.off):
        parts.append(Part(f" · {known.label or known.off}", "dim"))
    return parts


def _event(one: Shown, show: Show, names: Names, width: int) -> Iterator[Line]:
    event = one.event
    when = times_text(event) if not one.is_long else "all day" if event.is_all_day else ""
    key = show.keys.get(one.key, -1)
    room = width - _TIMES - 2
    beside = ", ".join(filter(None, (state_text(event), days_text(event, names) if one.is_long else "")))
    titles = wrapped(title_text(event), room)
    where = " · ".join(filter(None, (beside, place_text(event))))
    indent = " " * _TIMES
    fits = where and len(titles) == 1 and width_of(titles[0]) + 3 + width_of(where) <= room
    for n, line in enumerate(titles):
        parts = [Part(f"  {when:<{_TIMES - 2}}" if n == 0 else indent), Part(spine(key) + " ", key=key)]
        parts.append(Part(line, "struck" if event.details.status == "CANCELLED" else ""))
        if fits:
            parts.append(Part(f"   {where}", "dim"))
        yield parts
    if where and not fits:
        for line in wrapped(where, room):
            yield [Part(indent), Part(spine(key) + " ", key=key), Part(line, "dim")]
