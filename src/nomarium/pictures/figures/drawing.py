"""Sheets put on paper by Matplotlib: `png` and `svg` one below another, `pdf` a page each."""

import contextlib
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, BinaryIO, Final

from nomarium.pictures.figures.metrics import FAMILIES
from nomarium.pictures.figures.paper import RULE, Paper

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

DOTS = 100
"""Pixels an inch of a `png`."""
SIZES: Final = {
    "screen": (1280.0, 800.0),
    "a4": (1280.0, 1280.0 * 210 / 297),
    "letter": (1280.0, 1280.0 * 8.5 / 11),
}
"""Width and height of a sheet, in its own unit; paper lies on its side."""
_INCHES: Final = {"a4": 297 / 25.4, "letter": 11.0}
MOST_STACKED: Final = 40
"""Sheets that one picture holds below one another."""
_BASELINE = 0.98


def draw(papers: Sequence[Paper], form: str, paper: str, target: BinaryIO) -> None:
    """Draw sheets as one file of a form; the same sheets are the same bytes."""
    import matplotlib

    with matplotlib.rc_context(
        {"svg.hashsalt": "nomarium", "svg.fonttype": "none", "pdf.fonttype": 42, "hatch.linewidth": 0.5}
    ):
        if form == "pdf":
            from matplotlib.backends.backend_pdf import PdfPages

            with PdfPages(
                target, metadata={"CreationDate": None, "Creator": "Nomarium", "Producer": None}
            ) as pages:
                for one in papers:
                    with _figure([one], _INCHES[paper]) as figure:
                        pages.savefig(figure)
            return
        with _figure(papers, papers[0].width / DOTS) as figure:
            metadata = {"png": {"Software": None}, "svg": {"Date": None, "Creator": "Nomarium"}}[form]
            figure.savefig(target, format=form, dpi=DOTS, metadata=metadata)


@contextlib.contextmanager
def _figure(papers: Sequence[Paper], inches: float) -> "Iterator[Figure]":
    """The sheets one below another, so many inches wide."""
    from matplotlib.figure import Figure

    width, height = papers[0].width, sum(paper.height for paper in papers)
    scale = inches / width
    figure = Figure(figsize=(inches, height * scale), facecolor="white")
    axes = figure.add_axes((0, 0, 1, 1))
    axes.set_xlim(0, width)
    axes.set_ylim(height, 0)
    axes.axis("off")
    top = 0.0
    for paper in papers:
        _onto(axes, paper, top, scale * 72)
        top += paper.height
    yield figure
    figure.clear()


def _onto(axes: "Axes", paper: Paper, top: float, points: float) -> None:
    """Draw a sheet; `points` is what its unit is in points."""
    from matplotlib.collections import LineCollection, PatchCollection
    from matplotlib.patches import Rectangle

    boxes = [Rectangle((box.x, box.y + top), box.width, box.height) for box in paper.boxes]
    fills = [box.fill or "none" for box in paper.boxes]
    lines = [box.line or "none" for box in paper.boxes]
    axes.add_collection(
        PatchCollection(boxes, facecolors=fills, edgecolors=lines, linewidths=0.8 * points, zorder=1)
    )
    for box in paper.boxes:
        if box.hatched:
            axes.add_patch(
                Rectangle((box.x, box.y + top), box.width, box.height, fill=False, hatch="////", edgecolor=RULE, linewidth=0)
            )  # fmt: skip
    strokes = [((one.x, one.y + top), (one.to_x, one.to_y + top)) for one in paper.strokes]
    axes.add_collection(
        LineCollection(strokes, colors=[one.color for one in paper.strokes], linewidths=[one.width * points for one in paper.strokes], zorder=0.9)
    )  # fmt: skip
    aligned = {"left": "left", "right": "right", "middle": "center"}
    struck = []
    for text in paper.texts:
        axes.text(
            text.x, text.y + top + text.size * _BASELINE, text.text, fontsize=text.size * points, color=text.color,
            family=[FAMILIES[text.weight], *paper.metrics.families], fontweight="normal" if text.weight == "plain" else "bold",
            ha=aligned[text.align], va="baseline", parse_math=False,
        )  # fmt: skip
        if text.struck:
            y = text.y + top + text.size * 0.68
            struck.append(((text.x, y), (text.x + paper.metrics.width(text.text, text.size, text.weight), y)))
    if struck:
        axes.add_collection(LineCollection(struck, colors="#16232f", linewidths=0.9 * points))
