"""A week as a grid of times: events in the column of their day, long ones as bands above, overlaps side by side."""

import datetime as dt
from collections.abc import Iterator, Sequence

from nomarium.pictures.lanes import Block, bands_over, blocks_on
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show
from nomarium.pictures.terminal.lines import Line, Part, cut, padded, width_of, wrapped
from nomarium.pictures.terminal.marks import band_parts, spine
from nomarium.pictures.wording import minutes_text, place_text, state_text, times_text, title_text

_GUTTER = 6
"""Cells for the hour at the left."""
_NARROWEST = 7
"""Cells below which events beside each other are counted, and not drawn."""

Cells = list[list[Part]]


def week(
    show: Show, names: Names, width: int, days: Sequence[dt.date], hours: tuple[int, int] | None
) -> Iterator[Line]:
    """The dates of a week. `hours`: from which hour to which; None is what the events need."""
    column = max((width - _GUTTER - (len(days) - 1)) // max(len(days), 1), 4)
    by_day = show.by_day
    yield _row("", [[Part(padded(names.short_day(day), column), "bold")] for day in days])
    marks = [show.mark_of(day, by_day.get(day, ())) for day in days]
    if any(marks):
        yield _row("", [[Part(padded(mark, column), "dim")] for mark in marks])
    yield [Part(f"{'─' * (_GUTTER - 1)}{'┬'.join(['', *['─' * column] * len(days)])}", "dim")]
    bands = bands_over(days, show.events)
    for lane in range(max((band.lane for band in bands), default=-1) + 1):
        yield [
            Part(" " * _GUTTER),
            *band_parts([one for one in bands if one.lane == lane], len(days), column, show.keys),
        ]
    grain = _grain([one for day in days for one in blocks_on(day, by_day.get(day, ()))])
    blocks = {day: blocks_on(day, by_day.get(day, ()), grain) for day in days}
    every = [one for found in blocks.values() for one in found]
    if not every:
        return
    if bands:
        yield [Part(f"{'─' * (_GUTTER - 1)}{'┼'.join(['', *['─' * column] * len(days)])}", "dim")]
    first, last = hours or (min(one.begin for one in every) // 60, -(-max(one.end for one in every) // 60))
    columns = [_column(blocks[day], show, column, first * 60, last * 60, grain) for day in days]
    for n, minute in enumerate(range(first * 60, last * 60, grain)):
        hour = minutes_text(minute) if minute % 60 == 0 else ""
        yield _row(hour, [cells[n] for cells in columns])
    outside = sum(one.end <= first * 60 or one.begin >= last * 60 for one in every)
    if outside:
        yield [Part(f"+{outside} before {first}:00 or after {last}:00", "dim")]


def _grain(blocks: Sequence[Block]) -> int:
    """How many minutes a line stands for: half an hour, or a quarter where there are shorter events."""
    return 15 if any(one.end - one.begin < 30 or one.begin % 30 or one.end % 30 for one in blocks) else 30


def _row(label: str, cells: Sequence[Sequence[Part]]) -> Line:
    parts = [Part(f"{label:>{_GUTTER - 1}}", "dim")]
    for cell in cells:
        parts += [Part("│", "dim"), *cell]
    return parts


def _column(blocks: Sequence[Block], show: Show, width: int, first: int, last: int, grain: int) -> Cells:
    """The lines of a day's column, each as wide as it."""
    rows: list[list[tuple[int, list[Part]]]] = [[] for _ in range(first, last, grain)]
    hidden: dict[int, int] = {}
    for one in blocks:
        most = one.lanes if one.lanes * _NARROWEST <= width else max((width - 3) // _NARROWEST, 1)
        top, bottom = max((one.begin - first) // grain, 0), min((one.end - first) // grain, len(rows))
        if top >= bottom:
            continue
        if one.lane >= most:
            hidden[top] = hidden.get(top, 0) + 1
            continue
        room = width if one.lanes <= most else width - 3
        left, right = room * one.lane // min(one.lanes, most), room * (one.lane + 1) // min(one.lanes, most)
        for n, parts in enumerate(_block(one, show, right - left, bottom - top)):
            rows[top + n].append((left, parts))
    for top, count in hidden.items():
        rows[top].append((width - 3, [Part(f"+{count}"[:3], "bold")]))
    return [_filled(row, width) for row in rows]


def _filled(row: list[tuple[int, list[Part]]], width: int) -> list[Part]:
    parts, at = list[Part](), 0
    for left, found in sorted(row, key=lambda one: one[0]):
        parts.append(Part(" " * (left - at)))
        parts += found
        at = left + sum(width_of(part.text) for part in found)
    return [*parts, Part(" " * (width - at))]


def _block(block: Block, show: Show, width: int, height: int) -> list[list[Part]]:
    """An event in so many lines: its title, then its times, then its place, as far as there are lines."""
    event, key = block.one.event, show.keys.get(block.one.key, -1)
    room = max(width - 2, 1)
    titles = wrapped(title_text(event), room)
    if len(titles) > height:
        titles = [*titles[: height - 1], cut(" ".join(titles[height - 1 :]), room)]
    look = "struck" if event.details.status == "CANCELLED" else "bold"
    lines = [(line, look) for line in titles]
    beside = [times_text(event), state_text(event), *wrapped(place_text(event), room)]
    lines += [(cut(line, room), "dim") for line in beside if line]
    lines = [*lines[:height], *[("", "")] * (height - len(lines))]
    return [[Part(spine(key), key=key), Part(padded(line, width - 1), look)] for line, look in lines]
