"""What was found in the lines of a text, and what people are told of it."""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted
from nomarium.reading.layouts.layout import Reading
from nomarium.sheets.sheet import Row


class Found(NamedTuple):
    rows: list[Row]
    notes: int
    """Lines, of all that were read, that are neither the first of an event nor refused."""
    sample: str
    """How the first of them is read, after its number."""
    has_open_ends: bool
    refused: list[tuple[int, str, Refusal]]
    """Lines that have a date or a time and are no events, as they stand, and why."""
    above: list[tuple[int, str]]
    """Lines over the first event, which may say the year of all of them."""
    timed: list[tuple[int, str]]
    """Sentences that say a time and no date, and are passed over."""
    asides: list[tuple[int, str]]
    """Lines with a date or a time that are taken for no event."""
    loose: list[tuple[int, str]]
    """Lines without a time under a date, of which no event says anything."""
    forward: list[tuple[int, str]]
    """Times that are in the afternoon, for they follow others of their day."""
    sent: str
    """When the message was sent, where days without a month are in that month."""


def told_of(found: Found, reading: Reading) -> Iterator[Problem]:
    more = (
        f"; so {'is' if len(found.rows) == 2 else 'are'} {counted(len(found.rows) - 1, 'other')}"
        if len(found.rows) > 1
        else ""
    )
    first = reading.sheet.place(found.rows[0][0] if found.rows else None)._replace(file="", sheet="")
    yield note("text-lines", f"Read line by line: {first} {found.sample}{more}.").at(reading.sheet.place())
    if found.has_open_ends:
        message = "A time without an end lasts until the next line under the same date, if that is within four hours."
        yield note("text-ends", message, "If not, write the ends.").at(reading.sheet.place())
    if found.forward:
        number = found.forward[0][0]
        message = f"Times under one date run forward through the day: {', '.join(text for _, text in found.forward[:4])} in the afternoon."
        yield note("text-forward", message, "If not, write am and pm.").at(reading.sheet.place(number))
    if found.sent:
        message = f"Days without a month are those after {found.sent}, when the message was sent."
        yield note("text-sent", message, "If not, write the months.").at(reading.sheet.place())
    if found.timed:
        message = f"Passed over, for it says a time and no event: {_first_of(found.timed)}."
        yield note("text-times", message).at(reading.sheet.place(found.timed[0][0]))
    if found.asides:
        message = f"Taken for no event, although it has a date or a time: {_first_of(found.asides)}."
        yield note(
            "text-asides", message, "If it is one, write it as “Fri 16 April 2027: Open day, 10–11am”."
        ).at(reading.sheet.place(found.asides[0][0]))
    if found.loose:
        message = f"Passed over, for it stands under a date and has no time: {_first_of(found.loose)}."
        yield note("text-loose", message, "If it is an event, write its date or its time on the line.").at(
            reading.sheet.place(found.loose[0][0])
        )


def _first_of(lines: Sequence[tuple[int, str]]) -> str:
    more = f" and {counted(len(lines) - 1, 'other')}" if len(lines) > 1 else ""
    return f"“{lines[0][1]}”{more}"


def lost_figures(text: str, rows: Sequence[Row]) -> str:
    """The figures of a line that none of its rows has, as they stand; nothing where all have their place.

    >>> lost_figures("Fri 4 Dec 0830 Fair (240 places)", [(1, ["Fri 4 Dec", "08:30", "Fair"])])
    '240'
    """
    said = " ".join(str(cell) for _, cells in rows for cell in cells)
    digits = set(filter(str.isdigit, text))
    if all(text.count(digit) <= said.count(digit) for digit in digits):
        return ""
    there = Counter(filter(str.isdigit, said))
    return ", ".join(figure for figure in re.findall(r"\d+", text) if Counter(figure) - there)
