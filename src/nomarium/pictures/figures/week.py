"""A week on paper: a column a day, hours down, overlaps side by side, long events above; to be read from the door."""

import datetime as dt
from collections.abc import Sequence

from nomarium.pictures.figures.frame import MARGIN, framed
from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.paper import (
    FLOOR,
    INK,
    MARK,
    SOFT,
    Box,
    Paper,
    Stroke,
    Words,
    largest,
    put,
    style_of,
)
from nomarium.pictures.lanes import Block, bands_over, blocks_on
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show
from nomarium.pictures.wording import days_text, minutes_text, place_text, state_text, times_text, title_text

_GUTTER = 46.0
_LARGEST = 34.0
"""The largest letters: on a sheet of paper they can be read from two metres."""
_BAND = 19.0
_MOST_BANDS = 8
_SHORTEST = 11.5
"""The height of the shortest event: a line of the smallest letters."""
_NARROWEST = 34.0
"""The width below which events beside each other are counted, and not drawn."""


def week(
    show: Show, names: Names, heading: str, days: Sequence[dt.date], hours: tuple[int, int] | None, size: tuple[float, float],
    metrics: Metrics,
) -> Paper:  # fmt: skip
    """The days of a week on a sheet of this size."""
    paper, top, bottom = framed(*size, show, heading, metrics)
    column = (paper.width - 2 * MARGIN - _GUTTER) / max(len(days), 1)
    left = MARGIN + _GUTTER
    top = _heads(paper, show, names, days, left, top, column)
    top = _bands(paper, show, names, days, left, top, column)
    by_day = show.by_day
    blocks = [blocks_on(day, by_day.get(day, ())) for day in days]
    every = [one for found in blocks for one in found]
    if not every:
        paper.strokes += [
            Stroke(left + n * column, top, left + n * column, bottom) for n in range(len(days) + 1)
        ]
        return paper
    first, last = hours or (min(one.begin for one in every) // 60, -(-max(one.end for one in every) // 60))
    last = max(last, first + 1)
    outside = sum(one.end <= first * 60 or one.begin >= last * 60 for one in every)
    if outside:
        bottom -= 16
        paper.write(left, bottom + 2, f"+{outside} before {first}:00 or after {last}:00", 11, "bold")
    scale = (bottom - top) / ((last - first) * 60)
    shortest = int(_SHORTEST / scale) + 1  # what is drawn higher than it lasts must not lie on what follows
    blocks = [blocks_on(day, by_day.get(day, ()), shortest=shortest) for day in days]
    _hours(paper, first, last, top, scale, left, len(days) * column)
    paper.strokes += [Stroke(left + n * column, top, left + n * column, bottom) for n in range(len(days) + 1)]
    _blocks(paper, show, blocks, left, column, (first * 60, last * 60, top, scale))
    return paper


def _heads(
    paper: Paper, show: Show, names: Names, days: Sequence[dt.date], left: float, top: float, column: float
) -> float:  # fmt: skip
    """The dates above their columns, with what is known of each; where they end."""
    metrics, by_day = paper.metrics, show.by_day
    texts = [f"{names.days[day.weekday()]} {day.day}" for day in days]
    size = 22.0
    while size > 9 and any(metrics.width(text, size, "bold") > column - 8 for text in texts):
        size -= 0.5
    marks = [show.mark_of(day, by_day.get(day, ())) for day in days]
    for n, (text, mark) in enumerate(zip(texts, marks, strict=True)):
        paper.write(left + n * column + 6, top, metrics.cut(text, column - 8, size, "bold"), size, "bold")
        small = min(size * 0.86, 14)
        paper.write(
            left + n * column + 6, top + size * LINE, metrics.cut(mark, column - 10, small), small, color=MARK
        )
    return top + size * LINE + (min(size * 0.86, 14) * LINE if any(marks) else 0) + 4


def _bands(
    paper: Paper, show: Show, names: Names, days: Sequence[dt.date], left: float, top: float, column: float
) -> float:  # fmt: skip
    """The long events above the hours; those beyond the last lane are counted."""
    bands = bands_over(days, show.events)
    lanes = min(max((band.lane for band in bands), default=-1) + 1, _MOST_BANDS)
    hidden = [0] * len(days)
    for band in bands:
        if band.lane >= _MOST_BANDS - 1 and max(one.lane for one in bands) >= _MOST_BANDS:
            for n in range(band.first, band.last + 1):
                hidden[n] += 1
            continue
        look = style_of(band.one, show)
        x, y = left + band.first * column + 2, top + band.lane * _BAND
        width = (band.last - band.first + 1) * column - 4
        paper.boxes.append(Box(x, y, width, _BAND - 2, look.tint))
        paper.spine(x, y, _BAND - 2, look.ink, look.key)
        more = ", ".join(
            filter(
                None, (days_text(band.one.event, names) if band.goes_on else "", place_text(band.one.event))
            )
        )
        title = ("‹ " if band.began else "") + title_text(band.one.event)
        full = f"{title} · {more}" if more else title
        room = width - 14
        text = full if paper.metrics.width(full, 11.5) <= room else title
        fitted = 11.5
        while fitted > FLOOR and paper.metrics.width(text, fitted) > room:
            fitted -= 0.5
        struck = band.one.event.details.status == "CANCELLED"
        paper.write(x + 8, y + 1, paper.metrics.cut(text, room, fitted), fitted, struck=struck)
    for n, count in enumerate(hidden):
        if count:
            paper.write(left + n * column + 8, top + (_MOST_BANDS - 1) * _BAND, f"+{count}", 11.5, "bold")
    end = top + lanes * _BAND + (4 if lanes else 0)
    paper.strokes.append(Stroke(MARGIN, end, left + len(days) * column, end, SOFT, 1.0))
    return end


def _hours(paper: Paper, first: int, last: int, top: float, scale: float, left: float, width: float) -> None:
    size = max(min(scale * 60 * 0.8, 13.0), FLOOR)
    for hour in range(first, last):
        y = top + (hour - first) * 60 * scale
        paper.write(
            left - 8,
            y if hour == first else y - size * 0.62,
            minutes_text(hour * 60),
            size,
            color=SOFT,
            align="right",
        )
        if hour > first:
            paper.strokes.append(Stroke(left, y, left + width, y))


def _blocks(
    paper: Paper, show: Show, blocks: Sequence[Sequence[Block]], left: float, column: float,
    hours: tuple[int, int, float, float],
) -> None:  # fmt: skip
    """The events of the hours, all in the largest size at which most of them have room."""
    first, last, top, scale = hours
    placed: list[tuple[Block, float, float, float, float]] = []
    hidden: dict[tuple[int, int], int] = {}
    for n, found in enumerate(blocks):
        for one in found:
            begin, end = max(one.begin, first), min(one.end, last)
            if begin >= last or one.end < first or (one.end == first and one.begin < first):
                continue
            most = min(one.lanes, max(int((column - 4) // _NARROWEST), 1))
            if one.lane >= most:
                hidden[n, begin] = hidden.get((n, begin), 0) + 1
                continue
            room = column - 4 - (20 if most < one.lanes else 0)
            wide = room / most
            y = top + (begin - first) * scale
            placed.append(
                (
                    one,
                    left + n * column + 2 + one.lane * wide,
                    y,
                    wide - 2,
                    max((end - begin) * scale - 1.5, 9.5),
                )
            )
    asked = [(_words(one), width - 12, height - 4) for one, _, _, width, height in placed]
    size = largest(paper.metrics, asked, _LARGEST, 0.6)
    for (one, x, y, width, height), (words, room, _) in zip(placed, asked, strict=True):
        look = style_of(one.one, show)
        paper.boxes.append(Box(x, y, width, height, look.tint, "#ffffff"))
        paper.spine(x, y, height, look.ink, look.key, 5.0)
        put(
            paper,
            words,
            x + 9,
            y + min(2.0, max(height - 9.7, 0) / 2),
            room,
            height - min(4.0, max(height - 9.7, 0)),
            size,
        )
    _counts(paper, hidden, left, column, (first, top, scale))


def _counts(
    paper: Paper, hidden: dict[tuple[int, int], int], left: float, column: float, hours: tuple[int, float, float]
) -> None:  # fmt: skip
    """How many events have no room beside the others, at the right of their column; near ones together."""
    first, top, scale = hours
    found: list[tuple[int, float, int]] = []
    for (n, begin), count in sorted(hidden.items()):
        y = top + (begin - first) * scale
        if found and found[-1][0] == n and y - found[-1][1] < 13:
            found[-1] = (n, found[-1][1], found[-1][2] + count)
        else:
            found.append((n, y, count))
    for n, y, count in found:
        paper.write(left + (n + 1) * column - 4, y, f"+{count}", 10, "bold", INK, "right")


def _words(block: Block) -> Words:
    event = block.one.event
    beside = [text for text in (times_text(event), place_text(event), state_text(event)) if text]
    return Words(title_text(event), beside, event.details.status == "CANCELLED")
