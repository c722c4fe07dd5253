"""A sheet of paper as plain shapes: what is where, before anything draws it. Lengths are pixels of a screen, y goes down."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

from nomarium.pictures.figures.metrics import LINE, Metrics, Weight
from nomarium.pictures.palette import ink_of
from nomarium.pictures.shown import Show, Shown

INK, SOFT, RULE, SHADE, MARK = "#16232f", "#51606d", "#d0ccbd", "#f1eee4", "#7a4a12"
FLOOR = 7.6
"""The smallest size of letters."""


class Box(NamedTuple):
    """A rectangle."""

    x: float
    y: float
    width: float
    height: float
    fill: str = ""
    line: str = ""
    hatched: bool = False


class Stroke(NamedTuple):
    """A straight line."""

    x: float
    y: float
    to_x: float
    to_y: float
    color: str = RULE
    width: float = 1.0


class Text(NamedTuple):
    """A line of text; `y` is where its line begins."""

    x: float
    y: float
    text: str
    size: float
    weight: Weight = "plain"
    color: str = INK
    align: Literal["left", "right", "middle"] = "left"
    struck: bool = False


class Paper:
    """A page with its shapes, in the order in which they are drawn."""

    def __init__(self, width: float, height: float, metrics: Metrics) -> None:
        self.width, self.height = width, height
        self.metrics = metrics
        self.boxes: list[Box] = []
        self.strokes: list[Stroke] = []
        self.texts: list[Text] = []

    def write(
        self, x: float, y: float, text: str, size: float, weight: Weight = "plain", color: str = INK,
        align: Literal["left", "right", "middle"] = "left", struck: bool = False,
    ) -> None:  # fmt: skip
        """Put a line of text."""
        if text:
            text = self.metrics.drawable(text, weight)
            self.texts.append(Text(x, y, text, size, weight, color, align, struck))

    def spine(self, x: float, y: float, height: float, ink: str, key: int, width: float = 4.0) -> None:
        """The stroke at the side of an event; neighbours among the colours differ in it, so that grey paper tells them
        apart: whole, double, broken, dotted."""
        kind = max(key, 0) % 4
        if kind == 0:
            self.boxes.append(Box(x, y, width, height, ink))
        elif kind == 1:
            thin = width * 0.32
            self.boxes += [Box(x, y, thin, height, ink), Box(x + width - thin, y, thin, height, ink)]
        else:
            step, part = (10.0, 7.0) if kind == 2 else (4.0, 2.2)
            at = 0.0
            while at < height:
                self.boxes.append(Box(x, y + at, width, min(part, height - at), ink))
                at += step


class Style(NamedTuple):
    """How an event is coloured: its ink, the tint of its paper, the number of its stroke."""

    ink: str
    tint: str
    key: int


def style_of(one: Shown, show: Show) -> Style:
    """The colour of an event: its own, else that of its key."""
    key = show.keys.get(one.key, -1)
    return style(one.color, key)


def style(color: str, key: int) -> Style:
    """A colour by its CSS name, else by a key's number."""
    from matplotlib.colors import CSS4_COLORS

    ink = str(CSS4_COLORS.get(color, "")) or ink_of(key).light
    return Style(ink, _mixed(ink, 0.88), key)


def _mixed(color: str, white: float) -> str:
    """A colour with so much white in it, 0 to 1."""
    parts = (int(color[n : n + 2], 16) for n in (1, 3, 5))
    return "#" + "".join(f"{round(part + (255 - part) * white):02x}" for part in parts)


class Words(NamedTuple):
    """What is written for an event: its title, then what stands beside it, the most needed first."""

    title: str
    beside: Sequence[str] = ()
    struck: bool = False


def fits(metrics: Metrics, words: Words, width: float, height: float, size: float) -> bool:
    """Whether everything that is to be written has room at a size, with no word broken."""
    if max((metrics.width(word, size, "bold") for word in words.title.split()), default=0) > width:
        return False
    small = (metrics.width(word, size * 0.86) for text in words.beside for word in text.split())
    if max(small, default=0) > width:
        return False
    lines = metrics.wrapped(words.title, width, size, "bold")
    return _height(metrics, lines, words.beside, width, size) <= height + 0.01


def largest(
    metrics: Metrics, asked: Sequence[tuple[Words, float, float]], most: float, share: float = 1.0
) -> float:
    """The largest size at which that share of texts fits, each in its width and height; the floor when none does."""
    size = most
    while size > FLOOR:
        if sum(fits(metrics, *one, size) for one in asked) >= share * len(asked):
            return size
        size -= 0.5
    return FLOOR


def _height(
    metrics: Metrics, lines: Sequence[str], beside: Sequence[str], width: float, size: float
) -> float:
    small = sum(len(metrics.wrapped(text, width, size * 0.86)) for text in beside)
    return (len(lines) + small * 0.86) * size * LINE


def put(paper: Paper, words: Words, x: float, y: float, width: float, height: float, size: float) -> None:
    """Write what there is to say of an event into its room: smaller when it must be, never below the floor; then without
    what stands beside the title, and with a sign where the title itself has no room."""
    metrics = paper.metrics
    while size > FLOOR and not fits(metrics, words, width, height, size):
        size = max(size - 0.5, FLOOR)
    beside = list(words.beside)
    lines = metrics.wrapped(words.title, width, size, "bold")
    while beside and _height(metrics, lines, beside, width, size) > height + 0.01:
        beside.pop()
    room = max(int((height + 0.01) // (size * LINE)), 1)
    if len(lines) > room:
        lines = [*lines[: room - 1], metrics.cut(" ".join(lines[room - 1 :]), width, size, "bold")]
    for line in lines:
        paper.write(x, y, line, size, "bold", struck=words.struck)
        y += size * LINE
    small = size * 0.86
    for text in beside:
        for line in metrics.wrapped(text, width, small):
            paper.write(x, y, line, small, color=SOFT)
            y += small * LINE
