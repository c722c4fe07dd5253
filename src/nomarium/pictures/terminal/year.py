"""A year: twelve months, each day with a mark for the number of its events."""

import datetime as dt
from collections import Counter
from collections.abc import Iterator, Sequence

from nomarium.pictures.lanes import months_of, next_month, weeks_of
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show
from nomarium.pictures.terminal.lines import Line, Part, padded, wrapped

_WIDTH, _GAP = 20, 3
_MARKS, _OFF = "▁▃▅█", "×"


def year(show: Show, names: Names, width: int) -> Iterator[Line]:
    """The months of the window, as many beside each other as fit, and what the marks stand for."""
    counts = Counter({day: len(found) for day, found in show.by_day.items()})
    bounds = _bounds(max(counts.values(), default=0))
    beside = max((width + _GAP) // (_WIDTH + 1 + _GAP), 1)
    months = months_of(show.first, show.last)
    for n in range(0, len(months), beside):
        drawn = [_month(begin, show, names, counts, bounds) for begin in months[n : n + beside]]
        height = max(map(len, drawn))
        for line in range(height):
            parts = list[Part]()
            for found in drawn:
                parts += found[line] if line < len(found) else [Part(" " * (_WIDTH + 1))]
                parts.append(Part(" " * _GAP))
            yield parts
        yield []
    if counts:
        off = f"   {_OFF} day off" if any(day.off for day in show.days.values()) else ""
        yield from ([Part(line, "dim")] for line in wrapped(_legend(bounds) + off, width))


def _month(
    begin: dt.date, show: Show, names: Names, counts: Counter[dt.date], bounds: Sequence[int]
) -> list[list[Part]]:
    last = next_month(begin) - dt.timedelta(days=1)
    rows = [[Part(padded(names.month(begin), _WIDTH + 1), "bold")]]
    weeks = weeks_of(begin, last, names.first_weekday)
    rows.append([Part("".join(padded(names.tiny_days[day.weekday()], 2) + " " for day in weeks[0]), "dim")])
    for week in weeks:
        parts = list[Part]()
        for day in week:
            if day.month != begin.month:
                parts.append(Part("   "))
                continue
            known, count = show.days.get(day), counts[day]
            is_off = known is not None and bool(known.off)
            is_free = is_off or (known is None if show.days else day.weekday() > 4)
            parts.append(Part(f"{day.day:>2}", "dim" if is_free else "bold" if count else ""))
            mark = _OFF if is_off else _MARKS[sum(count > bound for bound in bounds)] if count else " "
            parts.append(Part(mark, key=0))
        rows.append(parts)
    return rows


def _bounds(most: int) -> list[int]:
    """The counts above which the next mark is taken."""
    if most <= len(_MARKS):
        return list(range(1, max(most, 1)))
    return [most // 4, most // 2, 3 * most // 4]


def _legend(bounds: Sequence[int]) -> str:
    lows = [1, *(bound + 1 for bound in bounds)]
    ends = [*bounds, 0]
    parts = []
    for mark, low, high in zip(_MARKS, lows, ends, strict=False):
        text = (
            f"{low} or more"
            if not high and len(bounds) == 3
            else str(low)
            if high in (low, 0)
            else f"{low}–{high}"
        )
        parts.append(f"{mark} {text}")
    return "events a day: " + "   ".join(parts)
