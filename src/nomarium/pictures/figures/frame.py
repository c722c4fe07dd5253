"""What every picture has: a heading above, and below it what the colours stand for."""

from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.paper import INK, MARK, SOFT, Paper, Stroke, style
from nomarium.pictures.shown import Show

MARGIN = 34.0
_LEGEND_SIZE, _LEGEND_LINES = 11.0, 2


def framed(
    width: float, height: float, show: Show, heading: str, metrics: Metrics
) -> tuple[Paper, float, float]:
    """A sheet with its heading and legend, and from where to where there is room between them."""
    paper = Paper(width, height, metrics)
    size, room = 25.0, width - 2 * MARGIN
    while size > 12 and metrics.width(f"{show.heading}   {heading}", size, "head") > room:
        size -= 1
    right = metrics.width(heading, size * 0.8, "head")
    name = metrics.cut(show.heading, room - right - 20, size, "head")
    paper.write(MARGIN, 22, name, size, "head")
    paper.write(width - MARGIN, 22 + size * 0.2, heading, size * 0.8, "head", MARK, "right")
    top = 22 + size * LINE + 6
    paper.strokes.append(Stroke(MARGIN, top, width - MARGIN, top, INK, 1.6))
    return paper, top + 6, height - 16 - _legend(paper, show)


def _legend(paper: Paper, show: Show) -> float:
    """Write what the colours stand for along the foot; how high that is. What has no room is counted."""
    legend = show.legend
    if len(legend) < 2:
        return 0.0
    metrics, size = paper.metrics, _LEGEND_SIZE
    lines: list[list[tuple[str, str, int]]] = [[]]
    at, room, hidden = 0.0, paper.width - 2 * MARGIN - 80, 0
    for key, n, color in legend:
        name = metrics.cut(key, 260, size)
        wide = metrics.width(name, size) + 28
        if at + wide > room and lines[-1]:
            if len(lines) == _LEGEND_LINES:
                hidden += 1
                continue
            lines.append([])
            at = 0.0
        lines[-1].append((name, color, n))
        at += wide
    y = paper.height - 14 - len(lines) * size * LINE
    for line in lines:
        x = MARGIN
        for name, color, n in line:
            paper.spine(x, y + 1, size + 1, style(color, n).ink, n, 5.0)
            paper.write(x + 10, y, name, size, color=SOFT)
            x += metrics.width(name, size) + 28
        y += size * LINE
    if hidden:
        paper.write(paper.width - MARGIN, y - size * LINE, f"+{hidden} more", size, color=SOFT, align="right")
    return len(lines) * size * LINE + 6
