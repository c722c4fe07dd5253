"""A tally as a chart: a bar for each class, cut by month or term."""

from typing import BinaryIO

from nomarium.school.tally import Tally

_MOST_BARS = 60
_COLORS = ("#0b3c49", "#1d6f74", "#4fa3a5", "#a9cfc0", "#e9c46a", "#f4a259", "#e76f51", "#b5543c", "#7d3c50", "#4a3a5c",
           "#2f4b7c", "#6c8ebf")  # fmt: skip


def draw_tally(tally: Tally, form: str, target: BinaryIO) -> None:
    """Draw a tally as `png`, `svg` or `pdf`. Classes that are uneven have their total in bold."""
    import matplotlib

    matplotlib.use("Agg")
    matplotlib.rcParams["svg.hashsalt"] = "nomarium"  # the same tally is the same bytes
    from matplotlib import pyplot as plt

    lines = tally.lines[:_MOST_BARS]
    height = min(max(2.2 + 0.3 * len(lines), 4.0), 20.0)
    figure, axes = plt.subplots(figsize=(12.8, height), dpi=100, layout="constrained")
    names = [line.name if len(line.name) <= 40 else line.name[:39] + "…" for line in lines]
    left = [0] * len(lines)
    for n, span in enumerate(tally.spans):
        counts = [line.by_span.get(span, 0) for line in lines]
        axes.barh(
            range(len(lines)),
            counts,
            left=left,
            label=span or "no term",
            color=_COLORS[n % len(_COLORS)],
            height=0.72,
        )
        left = [a + b for a, b in zip(left, counts, strict=True)]
    most = max(left, default=0) or 1
    for at, line in enumerate(lines):
        lost = f", {line.not_met} not met" if line.not_met else ""
        weight = "bold" if line.is_uneven else "normal"
        text = f"{line.meetings} meetings, {line.hours:g} h{lost}{', uneven' if line.is_uneven else ''}"
        axes.text(left[at] + most * 0.01, at, text, va="center", fontsize=9, fontweight=weight)
    axes.set_yticks(range(len(lines)), names)
    axes.invert_yaxis()
    axes.set_xlim(0, most * 1.28)
    axes.set_xlabel("Meetings")
    title = f"Meetings of each {tally.kind} by {tally.span}"
    if len(tally.lines) > _MOST_BARS:
        title += f" (the first {_MOST_BARS} of {len(tally.lines)})"
    axes.set_title(title, loc="left", fontsize=13)
    axes.spines[["top", "right"]].set_visible(False)
    if len(tally.spans) > 1:
        axes.legend(
            ncols=min(len(tally.spans), 6),
            loc="upper center",
            bbox_to_anchor=(0.5, -0.12 * 4 / height),
            frameon=False,
            fontsize=9,
        )
    metadata = {"png": {"Software": None}, "svg": {"Date": None}, "pdf": {"CreationDate": None}}[form]
    figure.savefig(target, format=form, metadata=metadata)
    plt.close(figure)
