"""The lengths that rows of a plan say, of classes and of bells."""

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import clock_text
from nomarium.reading.cells.lengths import read_length
from nomarium.school.plantables import Item


def length_unit(item: Item) -> int:
    """The seconds of one unit of a plain number under the heading of lengths: minutes, unless it says hours."""
    return 3600 if "hour" in item.table.headings.get("length", "").casefold() else 60


def length_said(item: Item) -> int | Problem | None:
    """The length that a row says, in seconds; None where it says none."""
    text = item.text("length")
    length = read_length(text, length_unit(item)) if text else None
    return length.problem(item.place("length"), text) if isinstance(length, Refusal) else length


def length_unlike(item: Item, start_secs: int, end_secs: int) -> Problem | None:
    """The problem of a row whose length is not the time between when it starts and when it ends."""
    said = length_said(item)
    if said is None or isinstance(said, Problem) or int(said) == end_secs - start_secs:
        return said if isinstance(said, Problem) else None
    message = f"The length is not the time from {clock_text(start_secs)} to {clock_text(end_secs)}."
    return item.problem("length-conflict", "length", message, "Correct it or leave it blank.")
