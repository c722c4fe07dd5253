"""An agenda on paper: day by day in columns, on as many sheets as it takes; nothing is cut."""

import datetime as dt
from collections.abc import Iterator
from typing import NamedTuple

from nomarium.pictures.figures.frame import MARGIN, framed
from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.paper import INK, MARK, RULE, SOFT, Paper, Stroke, style_of
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show, Shown
from nomarium.pictures.wording import days_text, place_text, state_text, times_text, title_text

_GAP = 26.0


class _Item(NamedTuple):
    """A heading of a day, or an event of it."""

    day: dt.date
    one: Shown | None
    titles: list[str]
    beside: list[str]
    height: float


def agenda(
    show: Show, names: Names, heading: str, size: tuple[float, float], metrics: Metrics
) -> list[Paper]:  # fmt: skip
    """The events by day, on sheets of this size."""
    columns, letters = (2, 14.0) if len(show.events) <= 40 else (3, 12.0)
    paper, top, bottom = framed(*size, show, heading, metrics)
    papers = [paper]
    width = (paper.width - 2 * MARGIN - (columns - 1) * _GAP) / columns
    times = metrics.width("00:00–00:00", letters) + 12
    column, y = 0, top
    waiting: _Item | None = None
    for item in _items(show, names, width - times - 10, letters, metrics):
        if item.one is None:
            waiting = item
            continue
        height = item.height + (waiting.height if waiting else 0)
        if y + height > bottom and y > top:
            column, y = column + 1, top
            if column == columns:
                paper, top, bottom = framed(*size, show, heading, metrics)
                papers.append(paper)
                column, y = 0, top
            waiting = waiting or _day(show, names, item.day, letters)  # the date again above what goes on
        x = MARGIN + column * (width + _GAP)
        if waiting is not None:
            _draw_day(paper, waiting, x, y, width, letters)
            y += waiting.height
            waiting = None
        _draw(paper, show, item, x, y, times, letters)
        y += item.height
    return papers


def _day(show: Show, names: Names, day: dt.date, size: float) -> _Item:
    return _Item(day, None, [names.day(day, with_year=True)], [show.mark_of(day)], size * 1.1 * LINE + 12)


def _items(show: Show, names: Names, width: float, size: float, metrics: Metrics) -> Iterator[_Item]:
    last = None
    for one in show.events:
        event = one.event
        day = max(event.first_day, show.first)
        if day != last:
            yield _day(show, names, day, size)
            last = day
        titles = metrics.wrapped(title_text(event), width, size, "bold")
        until = days_text(event, names) if one.is_long else ""
        beside = " · ".join(filter(None, (until, place_text(event), state_text(event))))
        lines = metrics.wrapped(beside, width, size * 0.9)
        yield _Item(day, one, titles, lines, (len(titles) + len(lines) * 0.9) * size * LINE + 5)


def _draw_day(paper: Paper, item: _Item, x: float, y: float, width: float, size: float) -> None:
    text = item.titles[0]
    paper.write(x, y + 6, text, size * 1.05, "head")
    at = x + paper.metrics.width(text, size * 1.05, "head") + 10
    paper.write(at, y + 7, paper.metrics.cut(item.beside[0], x + width - at, size), size, color=MARK)
    paper.strokes.append(Stroke(x, y + item.height - 2, x + width, y + item.height - 2, RULE))


def _draw(paper: Paper, show: Show, item: _Item, x: float, y: float, times: float, size: float) -> None:
    assert item.one is not None
    event, look = item.one.event, style_of(item.one, show)
    when = times_text(event) if not item.one.is_long else "all day" if event.is_all_day else ""
    paper.write(x, y, when, size, color=SOFT)
    paper.spine(x + times - 2, y + 1, item.height - 4, look.ink, look.key)
    struck = event.details.status == "CANCELLED"
    for text in item.titles:
        paper.write(x + times + 8, y, text, size, "bold", INK, struck=struck)
        y += size * LINE
    for text in item.beside:
        paper.write(x + times + 8, y, text, size * 0.9, color=SOFT)
        y += size * 0.9 * LINE
