"""A year on one sheet: each day with its label and a bar for the number of its events; terms, days off and what takes
several days beside it."""

import datetime as dt
from collections import Counter
from collections.abc import Iterator, Sequence

from nomarium.pictures.figures.frame import MARGIN, framed
from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.paper import FLOOR, INK, MARK, SHADE, SOFT, Box, Paper, Stroke, style_of
from nomarium.pictures.lanes import months_of, next_month, weeks_of
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show
from nomarium.pictures.wording import title_text

_BESIDE = 236.0
_ACROSS = 4


def year(show: Show, names: Names, heading: str, size: tuple[float, float], metrics: Metrics) -> Paper:
    """Up to twelve months on a sheet of this size."""
    paper, top, bottom = framed(*size, show._replace(keys={}), heading, metrics)
    months = months_of(show.first, show.last)
    across = min(_ACROSS, len(months))
    rows = -(-len(months) // across)
    width = (paper.width - 2 * MARGIN - _BESIDE) / across
    height = (bottom - top) / rows
    counts = Counter({day: len(found) for day, found in show.by_day.items()})
    most = max(counts.values(), default=1)
    for n, begin in enumerate(months):
        at = (MARGIN + n % across * width, top + n // across * height, width - 18, height - 10)
        _month(paper, show, names, begin, at, counts, most)
    _beside(paper, show, names, paper.width - MARGIN - _BESIDE + 14, top, bottom, most)
    return paper


def _month(
    paper: Paper, show: Show, names: Names, begin: dt.date, place: tuple[float, float, float, float], counts: Counter[dt.date],
    most: int,
) -> None:  # fmt: skip
    x, y, width, height = place
    last = next_month(begin) - dt.timedelta(days=1)
    total = sum(1 for one in show.events if one.event.first_day <= last and one.event.last_day >= begin)
    paper.write(x, y, names.month(begin), 14, "bold")
    if total:
        paper.write(x + width, y + 3, f"{total:,}", 10.5, color=SOFT, align="right")
    y += 14 * LINE
    column = width / 7
    weeks = weeks_of(begin, last, names.first_weekday)
    for n, day in enumerate(weeks[0]):
        paper.write(x + n * column + 2, y, names.tiny_days[day.weekday()], 9, color=SOFT)
    y += 9 * LINE + 1
    row = (height - 14 * LINE - 9 * LINE - 1) / 6
    for k, week in enumerate(weeks):
        for n, day in enumerate(week):
            if day.month == begin.month:
                _day(
                    paper,
                    show,
                    day,
                    (x + n * column, y + k * row, column, row),
                    counts[day] / most,
                    counts[day],
                )


def _day(
    paper: Paper, show: Show, day: dt.date, place: tuple[float, float, float, float], share: float, count: int
) -> None:  # fmt: skip
    x, y, width, height = place
    known = show.days.get(day)
    is_school = known is not None and known.is_school if show.days else day.weekday() < 5
    is_off = known is not None and bool(known.off)
    paper.boxes.append(
        Box(
            x,
            y,
            width - 1.5,
            height - 1.5,
            "" if is_school else SHADE,
            "#d0ccbd" if is_school else "",
            is_off,
        )
    )
    size = min(height * 0.42, 12.0)
    paper.write(
        x + 3, y + 0.5, str(day.day), size, "bold" if count else "plain", INK if is_school or count else SOFT
    )
    if known is not None and known.short:
        small = FLOOR
        label = known.short
        while (
            label and paper.metrics.width(label, small) > width - 5
        ):  # the beginning of a label is enough to know it by
            label = label[:-1]
        paper.write(x + 3, y + 0.5 + size * LINE - 1, label, small, color=MARK)
    if count:
        paper.boxes.append(Box(x + 2, y + height - 5, max((width - 5.5) * share, 2.0), 2.4, INK))


def _beside(paper: Paper, show: Show, names: Names, x: float, top: float, bottom: float, most: int) -> None:
    """Terms, days off and events of several days, with their dates; what has no room is counted."""
    metrics, width = paper.metrics, _BESIDE - 14
    paper.strokes.append(Stroke(x - 8, top, x - 8, bottom))
    bottom -= 12 * LINE
    paper.boxes.append(Box(x, bottom + 8, 60, 2.4, INK))
    paper.write(
        x + 66, bottom + 1, f"{most:,} events on a day" if most != 1 else "1 event on a day", 9.5, color=SOFT
    )
    parts = [(term, first, last, "") for term, first, last in _terms(show)]
    listed = [*parts, *_several(show)]
    size = 11.5
    while (
        size > FLOOR
        and sum(_rows(metrics, name, width, size) for name, *_ in listed) * size * LINE > bottom - top
    ):
        size -= 0.5
    y = top
    for n, (name, first, last, ink) in enumerate(listed):
        lines = metrics.wrapped(name, width - 8, size, "bold" if not ink else "plain")
        if y + (len(lines) + 1) * size * LINE > bottom - (size * LINE if n < len(listed) - 1 else 0):
            paper.write(x, y, f"+{len(listed) - n} more", size, "bold")
            return
        if ink:
            paper.boxes.append(Box(x, y + 2, 3, (len(lines) + 0.8) * size * LINE - 4, ink))
        for line in lines:
            paper.write(x + 8, y, line, size, "plain" if ink else "bold")
            y += size * LINE
        paper.write(
            x + 8,
            y,
            names.short_day(first) + (f" – {names.short_day(last)}" if last != first else ""),
            size * 0.88,
            color=SOFT,
        )
        y += size * LINE * 1.05


def _rows(metrics: Metrics, name: str, width: float, size: float) -> float:
    return len(metrics.wrapped(name, width - 8, size, "bold")) + 1.1


def _terms(show: Show) -> Iterator[tuple[str, dt.date, dt.date]]:
    dates: dict[str, list[dt.date]] = {}
    for day, known in show.days.items():
        if known.term:
            dates.setdefault(known.term, []).append(day)
    for term, found in dates.items():
        yield term, min(found), max(found)


def _several(show: Show) -> Sequence[tuple[str, dt.date, dt.date, str]]:
    """The long events, each once, with their ink."""
    found = dict.fromkeys(
        (title_text(one.event), one.event.first_day, one.event.last_day, style_of(one, show).ink) for one in show.events if one.is_long
    )  # fmt: skip
    return list(found)
