"""A month on paper: every event in its day, weeks as high as they need; what has no room even in small letters is counted."""

import datetime as dt
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from nomarium.pictures.figures.frame import MARGIN, framed
from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.paper import FLOOR, INK, MARK, SHADE, SOFT, Box, Paper, Stroke, style_of
from nomarium.pictures.lanes import Band, bands_over, next_month, weeks_of
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show, Shown
from nomarium.pictures.wording import clock, place_text, state_text, title_text

_NUMBER = 15.0
_HEAD = _NUMBER * LINE + 3
"""Above the events of a day: the line of its number."""
_WITH_PLACES = 8.0
"""The size down to which places are written behind titles."""


class _Way(NamedTuple):
    """How events are written: in which size, and whether with their places."""

    size: float
    places: bool
    wraps: bool = True


class _Week(NamedTuple):
    days: Sequence[dt.date]
    bands: Sequence[Band]
    timed: Sequence[Sequence[Shown]]


def month(
    show: Show, names: Names, heading: str, begin: dt.date, weekdays: frozenset[int], size: tuple[float, float],
    metrics: Metrics,
) -> Paper:  # fmt: skip
    """The month that begins on a date, on a sheet of this size."""
    paper, top, bottom = framed(*size, show, heading, metrics)
    last = next_month(begin) - dt.timedelta(days=1)
    by_day = show.within(max(begin, show.first), min(last, show.last)).by_day
    weeks = [
        _week([day for day in week if day.weekday() in weekdays], begin, by_day)
        for week in weeks_of(begin, last, names.first_weekday)
    ]
    weeks = [week for week in weeks if any(day.month == begin.month for day in week.days)]
    column = (paper.width - 2 * MARGIN) / len(weeks[0].days)
    for n, day in enumerate(weeks[0].days):
        paper.write(
            MARGIN + n * column + 5,
            top,
            metrics.cut(names.days[day.weekday()], column - 8, 13),
            13,
            color=SOFT,
        )
    top += 13 * LINE + 3
    way, heights = _way(weeks, column, bottom - top, metrics)
    for week, height in zip(weeks, heights, strict=True):
        _draw(paper, show, week, (top, height, column), begin, way)
        top += height
    paper.strokes.append(Stroke(MARGIN, top, paper.width - MARGIN, top))
    return paper


def _week(days: Sequence[dt.date], begin: dt.date, by_day: Mapping[dt.date, list[Shown]]) -> _Week:
    inside = [day if day in by_day and day.month == begin.month else None for day in days]
    touched = {id(one): one for day in inside if day for one in by_day[day]}
    bands = [one for one in touched.values() if one.spans_days]
    timed = [[one for one in by_day.get(day, ()) if not one.spans_days] if day else [] for day in inside]
    return _Week(days, bands_over(inside, bands) if bands else [], timed)


def _way(weeks: Sequence[_Week], column: float, room: float, metrics: Metrics) -> tuple[_Way, list[float]]:
    """The largest letters in which everything has room, and how high each week is then."""
    ways = [_Way(size / 2, True) for size in range(40, round(_WITH_PLACES * 2) - 1, -1)]
    ways += [_Way(size / 2, False) for size in range(24, round(FLOOR * 2), -1)]
    ways += [_Way(FLOOR, False), _Way(FLOOR, False, False)]
    for way in ways:
        needed = [_needed(week, column, way, metrics) for week in weeks]
        if sum(needed) <= room:
            more = (room - sum(needed)) / len(weeks)
            return way, [height + more for height in needed]
    return ways[-1], [height * room / sum(needed) for height in needed]


def _needed(week: _Week, column: float, way: _Way, metrics: Metrics) -> float:
    """How high a week is when everything in it is written."""
    lane = way.size * LINE + 3
    highest = 0.0
    for n, found in enumerate(week.timed):
        lanes = max((band.lane + 1 for band in week.bands if band.first <= n <= band.last), default=0)
        highest = max(highest, lanes * lane + sum(_height(one, column, way, metrics) for one in found))
    return _HEAD + highest + 5


def _height(one: Shown, column: float, way: _Way, metrics: Metrics) -> float:
    return len(_lines(one, column, way, metrics)) * way.size * LINE + 2.5


def _lines(one: Shown, column: float, way: _Way, metrics: Metrics) -> list[tuple[str, str]]:
    """An event in lines: what of each is its time and title, and what its place."""
    event, room = one.event, column - 16
    time = f"{clock(event.start)} " if isinstance(event.start, dt.datetime) else ""
    text = time + title_text(event)
    if not way.wraps:
        return [(metrics.cut(text, room, way.size), "")]
    lines = [(line, "") for line in metrics.wrapped(text, room, way.size)]
    beside = " · ".join(filter(None, (place_text(event), state_text(event)))) if way.places else ""
    if not beside:
        return lines
    last = lines[-1][0]
    if metrics.width(f"{last} · {beside}", way.size) <= room:
        return [*lines[:-1], (last, f" · {beside}")]
    return [*lines, *(("", line) for line in metrics.wrapped(beside, room, way.size))]


def _draw(
    paper: Paper, show: Show, week: _Week, place: tuple[float, float, float], begin: dt.date, way: _Way
) -> None:
    top, height, column = place
    lane = way.size * LINE + 3
    shown = [band for band in week.bands if _HEAD + (band.lane + 1) * lane <= height - (way.size * LINE)]
    hidden = [band for band in week.bands if band not in shown]
    for n, day in enumerate(week.days):
        x = MARGIN + n * column
        if day.month != begin.month:
            paper.boxes.append(Box(x, top, column, height, SHADE))
            continue
        _number(paper, show, day, week, n, (x, top, column))
        lanes = max((band.lane + 1 for band in shown if band.first <= n <= band.last), default=0)
        y = top + _HEAD + lanes * lane
        missing = sum(band.first <= n <= band.last for band in hidden)
        _entries(paper, show, week.timed[n], (x, y, top + height - 3, column), way, missing)
    for band in shown:
        _band(paper, show, band, top + _HEAD + band.lane * lane, column, way)
    paper.strokes.append(Stroke(MARGIN, top, paper.width - MARGIN, top))
    for n in range(len(week.days) + 1):
        paper.strokes.append(Stroke(MARGIN + n * column, top, MARGIN + n * column, top + height))


def _number(
    paper: Paper, show: Show, day: dt.date, week: _Week, n: int, place: tuple[float, float, float]
) -> None:  # fmt: skip
    x, top, column = place
    is_in = show.first <= day <= show.last
    known = show.days.get(day)
    if known is not None and known.off:
        paper.boxes.append(Box(x, top, column, _HEAD, SHADE))
    paper.write(x + 5, top + 2, str(day.day), _NUMBER, "bold" if is_in else "plain", INK if is_in else SOFT)
    over = [*(band.one for band in week.bands if band.first <= n <= band.last), *week.timed[n]]
    mark = paper.metrics.cut(show.mark_of(day, over), column - 40, 12)
    paper.write(x + 32, top + 4, mark, 12, color=MARK)


def _entries(
    paper: Paper, show: Show, found: Sequence[Shown], place: tuple[float, float, float, float], way: _Way, missing: int
) -> None:  # fmt: skip
    """The events of a day by time; those that have no room are counted with the bands that have none."""
    x, y, bottom, column = place
    heights = [_height(one, column, way, paper.metrics) for one in found]
    if missing or y + sum(heights) > bottom + 0.5:
        bottom -= way.size * LINE  # for the count
    for n, one in enumerate(found):
        if y + heights[n] > bottom + 0.5:
            missing += len(found) - n
            break
        _entry(paper, show, one, (x, y, column, heights[n]), way)
        y += heights[n]
    if missing:
        paper.write(x + 8, y, f"+{missing}", way.size, "bold")


def _entry(paper: Paper, show: Show, one: Shown, place: tuple[float, float, float, float], way: _Way) -> None:
    x, y, column, height = place
    look = style_of(one, show)
    paper.boxes.append(Box(x + 3, y, column - 6, height - 1.5, look.tint))
    paper.spine(x + 3, y, height - 1.5, look.ink, look.key)
    struck = one.event.details.status == "CANCELLED"
    for title, beside in _lines(one, column, way, paper.metrics):
        paper.write(x + 10, y, title, way.size, struck=struck)
        paper.write(x + 10 + paper.metrics.width(title, way.size), y, beside, way.size, color=SOFT)
        y += way.size * LINE


def _band(paper: Paper, show: Show, band: Band, y: float, column: float, way: _Way) -> None:
    look = style_of(band.one, show)
    x, width = MARGIN + band.first * column + 3, (band.last - band.first + 1) * column - 6
    height = way.size * LINE + 1
    paper.boxes.append(Box(x, y, width, height, look.tint))
    paper.spine(x, y, height, look.ink, look.key)
    title = ("‹ " if band.began else "") + title_text(band.one.event) + (" ›" if band.goes_on else "")
    where = place_text(band.one.event)
    text = f"{title} · {where}" if where else title
    size, room = way.size, width - 14
    text = text if paper.metrics.width(text, size) <= room else title
    while size > FLOOR and paper.metrics.width(text, size) > room:
        size = max(size - 0.5, FLOOR)
    struck = band.one.event.details.status == "CANCELLED"
    paper.write(x + 8, y, paper.metrics.cut(text, room, size), size, struck=struck)
