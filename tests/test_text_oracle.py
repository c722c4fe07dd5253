"""Notices, programmes, letters, lists of dates and columns of them, as people type them, each in one of many writings, must come back as the events
that they were made from."""

from __future__ import annotations

import csv
import datetime as dt
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import built, events_in, nomarium, plain

TITLES = (
    "Regatta", "Open day", "Parents' evening", "Year 9 tour", "Lofting workshop", "Harbour clean-up", "Slip 2 blessing", "Careers fair",
    "Sail loft tour", "Quiz night", "Book sale", "Founders' lecture", "Winter concert", "First aid course",
)  # fmt: skip
PLACES = ("Main slip", "Sail loft", "Shed 3", "Boathouse", "Town quay", "Library", "")
WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
MONTHS = (
    "",
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)
ASIDES = (
    "For more information ring 01632 960123.", "Tickets £5 (under 12s free).", "All welcome!", "See page 4 for details.",
    "Office hours: Monday to Friday 8.30am–4pm", "Next issue: 1 December 2026", "Children must be aged 7-11.",
)  # fmt: skip
OPTIONS = ("--timezone", "America/Halifax", "--school-year", "2026:2027", "--date-order", "dmy")


def ordinal(number: int) -> str:
    ending = {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return f"{number}{'th' if 10 < number % 100 < 14 else ending}"


Said = Callable[[dt.date], str]
DATES: dict[str, Said] = {
    "weekday, day, month": lambda d: f"{WEEKDAYS[d.weekday()]} {d.day} {MONTHS[d.month]} {d.year}",
    "short": lambda d: f"{WEEKDAYS[d.weekday()][:3]} {d.day} {MONTHS[d.month][:3]} {d.year}",
    "ordinal": lambda d: f"{WEEKDAYS[d.weekday()]} the {ordinal(d.day)} of {MONTHS[d.month]} {d.year}",
    "month first": lambda d: f"{MONTHS[d.month]} {d.day}, {d.year}",
    "stops": lambda d: f"{WEEKDAYS[d.weekday()][:3]}. {MONTHS[d.month][:3]}. {d.day}, {d.year}",
    "figures": lambda d: f"{d.day:02d}/{d.month:02d}/{d.year}",
    "dots": lambda d: f"{d.day:02d}.{d.month:02d}.{d.year}",
    "capitals": lambda d: (
        f"{WEEKDAYS[d.weekday()][:3].upper()} {d.day:02d} {MONTHS[d.month][:3].upper()} {d.year}"
    ),
    "without a year": lambda d: f"{WEEKDAYS[d.weekday()][:3]} {ordinal(d.day)} {MONTHS[d.month]}",
    "month first, without a year": lambda d: f"{WEEKDAYS[d.weekday()]}, {MONTHS[d.month]} {d.day}",
}


class Hour(NamedTuple):
    hour: int
    minute: int

    @property
    def half(self) -> str:
        return "am" if self.hour < 12 else "pm"


CLOCKS: dict[str, Callable[[Hour], str]] = {
    "3.30pm": lambda t: f"{t.hour % 12 or 12}{f'.{t.minute:02d}' if t.minute else ''}{t.half}",
    "3:30 PM": lambda t: f"{t.hour % 12 or 12}:{t.minute:02d} {t.half.upper()}",
    "3.30 p.m.": lambda t: f"{t.hour % 12 or 12}.{t.minute:02d} {t.half[0]}.m.",
    "15:30": lambda t: f"{t.hour:02d}:{t.minute:02d}",
    "15.30": lambda t: f"{t.hour:02d}.{t.minute:02d}",
    "1530 hrs": lambda t: f"{t.hour:02d}{t.minute:02d} hrs",
}
JOINTS = ("-", "–", " - ", " – ", " to ", " till ", " until ")


class Meant(NamedTuple):
    title: str
    day: dt.date
    start: Hour | None
    end: Hour | None
    place: str

    def said(self) -> str:
        if self.start is None:
            return f"{self.title} {self.day}/{self.day + dt.timedelta(days=1)}"
        first = dt.datetime(self.day.year, self.day.month, self.day.day, *self.start)
        last = first.replace(hour=self.end.hour, minute=self.end.minute) if self.end else None
        return f"{self.title} {first:%Y-%m-%dT%H:%M}/" + (f"{last:%Y-%m-%dT%H:%M}" if last else "")


class Pen(NamedTuple):
    """How one hand writes dates and times."""

    date: Said
    clock: Callable[[Hour], str]
    joint: str

    def when(self, event: Meant) -> str:
        if event.start is None:
            return ""
        return self.clock(event.start) + (f"{self.joint}{self.clock(event.end)}" if event.end else "")


def joined(sign: str, *parts: str) -> str:
    return sign.join(part for part in parts if part)


Line = Callable[[Meant, Pen], str]
LINES: dict[str, Line] = {
    "date: title, time, place": lambda e, p: joined(", ", f"{p.date(e.day)}: {e.title}", p.when(e), e.place),
    "title – date, time (place)": lambda e, p: f"{e.title} – {joined(', ', p.date(e.day), p.when(e))}" + f" ({e.place})" * bool(e.place),
    "title, date, time, place": lambda e, p: joined(", ", e.title, p.date(e.day), p.when(e), e.place),
    "date, time: title (place)": lambda e, p: f"{joined(', ', p.date(e.day), p.when(e))}: {e.title}" + f" ({e.place})" * bool(e.place),
    "time date title": lambda e, p: joined(" ", p.when(e), p.date(e.day), e.title),
    "columns": lambda e, p: joined("   ", p.date(e.day), p.when(e), e.title, e.place),
    "sentence": lambda e, p: f"The {e.title} will be held on {joined(' from ' if e.end else ' at ', p.date(e.day), p.when(e))}"
    + f" in the {e.place}" * bool(e.place) + ".",
    "sentence that begins with its date": lambda e, p: f"On {joined(' from ' if e.end else ' at ', p.date(e.day), p.when(e))} we are holding our {e.title}"
    + f" in the {e.place}" * bool(e.place) + ".",
    "invitation": lambda e, p: f"We are pleased to invite you to our {e.title} on {joined(' from ' if e.end else ' at ', p.date(e.day), p.when(e))}.",
}  # fmt: skip
BLOCKS: dict[str, Callable[[Meant, Pen], list[str]]] = {
    "labels": lambda e, p: [e.title, f"Date: {p.date(e.day)}", *[f"Time: {p.when(e)}"] * bool(e.start), *[f"Venue: {e.place}"] * bool(e.place)],
    "a heading over its date": lambda e, p: [f"## {e.title}", "", joined(" – ", joined(", ", p.date(e.day), p.when(e)), e.place)],
    "title, date, place": lambda e, p: [e.title, joined(", ", p.date(e.day), p.when(e)), *[e.place] * bool(e.place)],
    "date, title, time, place": lambda e, p: [p.date(e.day), e.title, p.when(e) or "All welcome!", e.place or "All welcome!"],
}  # fmt: skip


@st.composite
def events(draw: st.DrawFn) -> list[Meant]:
    found, day = list[Meant](), dt.date(2026, 9, 1) + dt.timedelta(days=draw(st.integers(0, 60)))
    for title in draw(st.lists(st.sampled_from(TITLES), min_size=3, max_size=6, unique=True)):
        day += dt.timedelta(days=draw(st.integers(1, 12)))
        start = draw(st.none() | st.builds(Hour, st.integers(8, 19), st.sampled_from([0, 15, 30, 45])))
        lasts = start is not None and draw(st.booleans())
        end = (
            Hour(start.hour + draw(st.integers(1, 3)), draw(st.sampled_from([0, 30])))
            if start and lasts
            else None
        )
        found.append(Meant(title, day, start, end, draw(st.sampled_from(PLACES))))
    return found


pens = st.builds(
    Pen,
    st.sampled_from(list(DATES.values())),
    st.sampled_from(list(CLOCKS.values())),
    st.sampled_from(JOINTS),
)


def read(lines: list[str]) -> list[str] | None:
    """The events that a text comes to, with `/` alone where none was meant; None where it is refused."""
    with tempfile.TemporaryDirectory() as folder:
        source, out = Path(folder, "notice.txt"), Path(folder, "notice.ics")
        source.write_text("\n".join(lines) + "\n", "utf-8")
        outcome = nomarium("build", source, "-o", out, *OPTIONS)
        if outcome.status == 1:
            return None
        assert outcome.status == 0, outcome.text
        return sorted(plain(event).split(" @ ")[0] for event in events_in(out))


def check(meant: list[Meant], lines: list[str], may_be_refused: bool = False) -> None:
    found = read(lines)
    if found is None:
        assert may_be_refused, lines
        return
    assert len(found) == len(meant), (lines, found)
    for text, event in zip(found, sorted(meant, key=lambda one: one.said()), strict=True):
        assert text.startswith(event.said()), (lines, text, event.said())


@pytest.mark.parametrize("writing", LINES)
@settings(max_examples=10, deadline=None)
@given(
    meant=events(),
    pen=pens,
    asides=st.lists(st.sampled_from(ASIDES), max_size=2),
    bullet=st.sampled_from(["", "- ", "• "]),
)
def test_a_line_an_event(writing: str, meant: list[Meant], pen: Pen, asides: list[str], bullet: str) -> None:
    check(meant, ["What's on", "", *(bullet + LINES[writing](event, pen) for event in meant), "", *asides])


@pytest.mark.parametrize("writing", BLOCKS)
@settings(max_examples=10, deadline=None)
@given(meant=events(), pen=pens, aside=st.sampled_from(ASIDES[:4]))
def test_an_event_over_some_lines(writing: str, meant: list[Meant], pen: Pen, aside: str) -> None:
    lines = ["Newsletter", ""]
    for event in meant:
        lines += [*BLOCKS[writing](event, pen), ""]
    check(meant, [*lines, aside], may_be_refused=writing == "date, title, time, place")


@settings(max_examples=15, deadline=None)
@given(meant=events(), pens=st.lists(pens, min_size=6, max_size=6), data=st.data())
def test_many_hands_in_one_text(meant: list[Meant], pens: list[Pen], data: st.DataObject) -> None:
    writings = [data.draw(st.sampled_from(list(LINES.values())[:4])) for _ in meant]
    check(meant, [line(event, pen) for line, event, pen in zip(writings, meant, pens, strict=False)])


@settings(max_examples=15, deadline=None)
@given(
    meant=events(), pen=pens, sign=st.sampled_from([" – ", ": ", "  ", " "]), form=st.sampled_from([0, 1, 2])
)
def test_days_under_their_months(meant: list[Meant], pen: Pen, sign: str, form: int) -> None:
    lines, above = ["Dates for your diary"], ""
    for event in meant:
        month = f"{MONTHS[event.day.month]} {event.day.year}"
        if month != above:
            lines += ["", month]
            above = month
        weekday, day = WEEKDAYS[event.day.weekday()], ordinal(event.day.day)
        begins = (f"{weekday[:3]} {event.day.day}", day, f"{weekday} {day}")[form]
        lines.append(begins + sign + joined(", ", event.title, pen.when(event)))
    check(meant, lines)


@settings(max_examples=15, deadline=None)
@given(
    meant=events(), pen=pens, named=st.sampled_from(["Week beginning", "Week commencing", "w/c", "Week of"])
)
def test_weekdays_under_their_weeks(meant: list[Meant], pen: Pen, named: str) -> None:
    lines, above = ["School diary"], dt.date.min
    for event in meant:
        monday = event.day - dt.timedelta(days=event.day.weekday())
        if monday != above:
            lines += ["", f"{named} {pen.date(monday)}"]
            above = monday
        lines.append(f"{WEEKDAYS[event.day.weekday()]}: {joined(', ', event.title, pen.when(event))}")
    check(meant, lines)


class Written(NamedTuple):
    """A cell of a column When, and the events that it means: first day, start, last day, end."""

    cell: str
    events: list[tuple[dt.date, Hour | None, dt.date, Hour | None]]


@st.composite
def cells(draw: st.DrawFn, pen: Pen, sign: str) -> Written:
    day, days = dt.date(2026, 9, 1) + dt.timedelta(days=draw(st.integers(0, 120))), draw(st.integers(1, 4))
    last = day + dt.timedelta(days=days)
    start, end = Hour(draw(st.integers(8, 12)), 15), Hour(draw(st.integers(13, 20)), 30)
    times = f"{pen.clock(start)}{pen.joint}{pen.clock(end)}"
    one, other, each = pen.date(day), pen.date(last), [day + dt.timedelta(days=n) for n in range(days + 1)]
    forms = [
        Written(one, [(day, None, day, None)]),
        Written(f"{one}{sign}{pen.clock(start)}", [(day, start, day, None)]),
        Written(f"{one}{sign}{times}", [(day, start, day, end)]),
        Written(f"{one} – {other}", [(day, None, last, None)]),
        Written(f"{one} – {other}{sign}{times}", [(date, start, date, end) for date in each]),
        Written(f"{one} {pen.clock(start)} – {other} {pen.clock(end)}", [(day, start, last, end)]),
    ]
    return draw(st.sampled_from(forms))


@settings(max_examples=40, deadline=None)
@given(
    pen=pens,
    sign=st.sampled_from([", ", " "]),
    heading=st.sampled_from(["When", "Date", "Dates", "Day", "Date and time"]),
    data=st.data(),
)
def test_a_column_of_every_form(pen: Pen, sign: str, heading: str, data: st.DataObject) -> None:
    written = data.draw(st.lists(cells(pen, sign), min_size=2, max_size=6))
    rows = [[title, one.cell] for title, one in zip(TITLES, written, strict=False)]
    meant = [
        Meant(title, *event[:2], None, "")
        for title, one in zip(TITLES, written, strict=False)
        for event in one.events
    ]
    ends = [event[2:] for one in written for event in one.events]
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder, "list.csv")
        with source.open("w", encoding="utf-8", newline="") as file:
            csv.writer(file).writerows([["Event", heading], *rows])
        found = sorted(built(source, *OPTIONS, "--spans", "daily"))
    expected = [(event.said(), last, end) for event, (last, end) in zip(meant, ends, strict=True)]
    assert len(found) == len(expected), (rows, found)
    for text, (said, last, end) in zip(found, sorted(expected, key=lambda one: one[0]), strict=True):
        if "T" not in said:
            said = f"{said.split('/')[0]}/{last + dt.timedelta(days=1)}"
        elif end is not None:
            said += f"{last}T{end.hour:02d}:{end.minute:02d}"
        assert text.startswith(said), (rows, text, said)
