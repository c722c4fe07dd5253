"""A month in cells: long events as bands over their days, the others by time; what has no line is counted."""

import datetime as dt
from collections.abc import Iterator, Sequence

from nomarium.pictures.lanes import Band, bands_over, next_month, weeks_of
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show, Shown
from nomarium.pictures.terminal.lines import Line, Part, cut, padded, width_of, wrapped
from nomarium.pictures.terminal.marks import band_parts, spine
from nomarium.pictures.wording import clock, title_text

_MOST_LINES = 8
"""Lines of a week's events."""
_WITH_TIMES = 15
"""Cells from which on a cell has room for times, too."""


def month(show: Show, names: Names, width: int, weekdays: frozenset[int], begin: dt.date) -> Iterator[Line]:
    """The month that begins on a date."""
    last = next_month(begin) - dt.timedelta(days=1)
    weeks = weeks_of(begin, last, names.first_weekday)
    drawn = [day.weekday() for day in weeks[0] if day.weekday() in weekdays]
    column = max((width - (len(drawn) - 1)) // len(drawn), 4)
    yield _joined(
        [
            [Part(padded(names.days[day] if column > 9 else names.short_days[day], column), "bold")]
            for day in drawn
        ]
    )
    by_day = show.within(max(begin, show.first), min(last, show.last)).by_day
    for week in weeks:
        days = [day for day in week if day.weekday() in weekdays]
        inside = [day for day in days if day.month == begin.month]
        if inside:
            yield [Part("┼".join(["─" * column] * len(days)), "dim")]
            yield from _week(show, days, by_day, column, begin)


def _week(
    show: Show, days: Sequence[dt.date], by_day: dict[dt.date, list[Shown]], column: int, begin: dt.date
) -> Iterator[Line]:
    yield _joined([_number(show, day, by_day.get(day, ()), column, begin) for day in days])
    touched = {id(one): one for day in days for one in by_day.get(day, ())}
    inside = [day if day in by_day else None for day in days]
    bands = bands_over(inside, [one for one in touched.values() if one.spans_days])
    timed = [[one for one in by_day.get(day, ()) if not one.spans_days] for day in days]
    for lines in (3, 2, 1):  # titles are wrapped where there is room for all of them
        drawn = [[line for one in found for line in _entry(one, show, column, lines)] for found in timed]
        height = max((_needed(bands, n, found) for n, found in enumerate(drawn)), default=0)
        if height <= _MOST_LINES:
            break
    is_full = height > _MOST_LINES
    height = min(height, _MOST_LINES)
    shown = [band for band in bands if band.lane < (height - 1 if is_full else height)]
    lanes = {(n, band.lane): band for band in shown for n in range(band.first, band.last + 1)}
    cells = [_cell(n, found, bands, lanes, height, column) for n, found in enumerate(drawn)]
    for line in range(height):
        here = [band for band in shown if band.lane == line]
        yield _with_bands(here, [cell[line] for cell in cells], column, show)


def _needed(bands: Sequence[Band], n: int, lines: Sequence[object]) -> int:
    """How many lines a day needs: up to its lowest band, and its events in what is free."""
    lanes = [band.lane for band in bands if band.first <= n <= band.last]
    return max(max(lanes, default=-1) + 1, len(lanes) + len(lines))


def _cell(
    n: int, lines: Sequence[list[Part]], bands: Sequence[Band], lanes: dict[tuple[int, int], Band], height: int, column: int
) -> list[list[Part]]:  # fmt: skip
    """The lines of a day between its bands; the last one counts what has no line (then each event has one)."""
    free = [line for line in range(height) if (n, line) not in lanes]
    hidden_bands = sum(band.first <= n <= band.last for band in bands) - (height - len(free))
    cells = [[Part(" " * column)] for _ in range(height)]
    room = len(free)
    if len(lines) > room or hidden_bands:
        room -= 1
        cells[free[-1]] = [Part(padded(f"+{len(lines) - room + hidden_bands}", column), "bold")]
    for at, line in zip(free[:room], lines, strict=False):
        cells[at] = line
    return cells


def _entry(one: Shown, show: Show, column: int, most: int) -> list[list[Part]]:
    """An event in at most so many lines."""
    event, key = one.event, show.keys.get(one.key, -1)
    start = event.start
    time = f"{clock(start)} " if column >= _WITH_TIMES and isinstance(start, dt.datetime) else ""
    titles = wrapped(time + title_text(event), column - 1)
    if len(titles) > most:
        titles = [*titles[: most - 1], cut(" ".join(titles[most - 1 :]), column - 1)]
    look = "struck" if event.details.status == "CANCELLED" else ""
    lines = []
    for n, text in enumerate(titles):
        begin = time if n == 0 else ""
        rest = " " * (column - 1 - width_of(text))
        lines.append(
            [Part(spine(key), key=key), Part(begin, "dim"), Part(text[len(begin) :], look), Part(rest)]
        )
    return lines


def _number(show: Show, day: dt.date, found: Sequence[Shown], column: int, begin: dt.date) -> list[Part]:
    """A day's number with what is known of it; nothing for one of another month."""
    if day.month != begin.month:
        return [Part(" " * column)]
    text = f"{day.day:>2}"
    if not show.first <= day <= show.last:
        return [Part(padded(f"({day.day})", column), "dim")]
    about = cut(f" {show.mark_of(day, found)}".rstrip(), column - 2)
    return [Part(text, "bold"), Part(padded(about, column - 2), "dim")]


def _with_bands(bands: Sequence[Band], cells: Sequence[list[Part]], column: int, show: Show) -> Line:
    """A line of cells, over some of which bands go."""
    parts, n = list[Part](), 0
    starts = {band.first: band for band in bands}
    while n < len(cells):
        if n:
            parts.append(Part("│", "dim"))
        band = starts.get(n)
        if band is None:
            parts += cells[n]
            n += 1
            continue
        wide = band.last - band.first + 1
        parts += band_parts([band._replace(first=0, last=wide - 1)], wide, column, show.keys)
        n += wide
    return parts


def _joined(cells: Sequence[list[Part]]) -> Line:
    parts = list(cells[0])
    for cell in cells[1:]:
        parts += [Part("│", "dim"), *cell]
    return parts
