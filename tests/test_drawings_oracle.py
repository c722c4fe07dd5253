"""Weeks and timetables drawn at random, weekdays across or down: each is read as it was meant, or refused, never otherwise."""

from __future__ import annotations

import datetime as dt
import random
from pathlib import Path

import pytest

from helpers import read_or_refused

MONDAY = dt.date(2026, 9, 7)
WEEKDAYS = (("Mon", "Tue", "Wed", "Thu", "Fri"), ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday"))
DOWN = {  # what may stand over the first column, and what below
    ("Room", "Place", ""): ("Loft 1", "Loft 2", "Shed 3", "Slip 4"),
    ("Name", "Staff", ""): ("Quill", "May Lund", "April Moss", "Barr"),
    ("Team", "Squad", ""): ("U 9", "U 11", "U13", "1st XI", "2nd XI"),
    ("Class", "Form"): ("7A", "7B", "8A", "9P"),
    ("Van", ""): ("Van 1", "Van 2", "Van 3"),
    ("Court", "Lane"): ("1", "2", "3", "4"),
    ("Duty", "Post", ""): ("Gate", "Yard", "Bar", "Galley"),
    ("Berth", "Bay"): ("A5", "A6", "B1", "C12"),
    ("Time", ""): ("9:00-10:00", "10:00-11:00", "11:15-12:15", "13:30-14:30"),
}
CELLS = (
    ("Knots", "Ropes", "Sails", "Tar"),
    ("QUI", "OSE", "BAR"),
    ("FR", "MA", "SO", "TH", "DI"),
    ("7A", "8B", "9C"),
)


def _drawing(seed: int) -> tuple[list[list[str]], list[tuple[str, str, str]]]:
    """The rows of a drawing, and its events: what is on, beside what, and its day or begin."""
    rng = random.Random(seed)
    headings, names = rng.choice([*DOWN.items()])
    weekdays = rng.choice(WEEKDAYS)[: rng.randint(3, 5)]
    words = rng.choice(CELLS)
    rows, meant = [[rng.choice(headings), *weekdays]], []
    for name in names[: rng.randint(2, len(names))]:
        row = [rng.choice((*words, "")) for _ in weekdays]
        rows.append([name, *row])
        hour, minute = name.split("-")[0].zfill(5).split(":") if "Time" in headings else ("", "")
        for at, word in enumerate(row):
            day = (MONDAY + dt.timedelta(at)).isoformat()
            meant += [(word, "" if hour else name, f"{day}T{hour}:{minute}" if hour else day)] if word else []
    if rng.random() < 0.3:
        rows.insert(0, ["Autumn bookings"] + [""] * len(weekdays))
    return rows, meant


@pytest.mark.parametrize("block", range(4))
def test_weeks_drawn_at_random_are_read_as_meant_or_refused(block: int, tmp_path: Path) -> None:
    refused = 0
    for seed in range(block * 15, block * 15 + 15):
        rows, meant = _drawing(seed)
        events, said = read_or_refused(tmp_path / f"{seed}.csv", rows, "--day-one", MONDAY)
        if events is None:
            refused += bool(meant)
            continue
        assert len(events) == len(meant), (rows, events, said)
        for word, beside, begin in meant:
            found = next(
                (one for one in events if word in one and beside in one and f" {begin}/" in one), None
            )
            assert found is not None, (rows, word, beside, begin, events)
            events.remove(found)
    assert refused <= 1


LESSONS = ("Knots", "Oars", "Sails", "Tar", "Hulls", "Charts")
BESIDE_PERIODS = ("Registration", "Clubs", "Gate duty", "After school", "Form time")
HEADS = (
    ("Mon", "Tue", "Wed", "Thu", "Fri"),
    ("M", "Tu", "W", "Th", "F"),
    ("Mon.", "Tues.", "Wed.", "Thurs.", "Fri."),
)
CLOCKS = ("{h:02}:{m:02}", "{h}.{m:02}", "{t}:{m:02}{half}", "{t}:{m:02}")


def _clock(minutes: int, form: str) -> str:
    hour, minute = divmod(minutes, 60)
    return form.format(h=hour, m=minute, t=(hour - 1) % 12 + 1, half="am" if hour < 12 else "pm")


def _timetable(seed: int) -> tuple[list[list[str]], list[str]]:
    """The rows of a timetable, its lines called by numbers, names or times, and its lessons as they are meant."""
    rng = random.Random(seed)
    form, days = rng.choice(CLOCKS), rng.choice(HEADS)[: rng.randint(3, 5)]
    style = rng.choice(("columns", "brackets", "times", "turned"))
    joint = rng.choice(("-", " - ", "–"))
    table, meant = [], []
    begin, count = rng.choice((480, 510, 525)), rng.randint(3, 6)
    before = [""] * len(days)
    names = rng.sample(BESIDE_PERIODS, 2)
    for n in range(count):
        length = rng.choice((30, 45, 50))
        name = names.pop() if n in (0, count - 1) and rng.random() < 0.5 else f"P{n}"
        span = f"{_clock(begin, form)}{joint}{_clock(begin + length, form)}"
        is_break = 0 < n < count - 1 and rng.random() < 0.2
        name = "Lunch" if is_break else name
        cells = [
            rng.choice([one for one in (*LESSONS, "", "Free") if one in ("", "Free") or one != last])
            for last in before
        ]
        before = cells = ["Lunch"] * len(days) if is_break else cells
        for at, lesson in enumerate(cells):
            if lesson in LESSONS:
                start, end = (
                    dt.datetime.combine(MONDAY + dt.timedelta(at), dt.time()) + dt.timedelta(minutes=m)
                    for m in (begin, begin + length)
                )
                meant.append(f"{lesson} {start:%Y-%m-%dT%H:%M}/{end:%Y-%m-%dT%H:%M}")
        named = name[0] != "P"
        label = (
            [f"{name} ({span})"]
            if style == "brackets"
            else [rng.choice((f"{name} {span}", f"{span} {name}")) if named else span]
        )
        table.append([*([name, span] if style in ("columns", "turned") else label), *cells])
        begin += length + rng.choice((0, 5, 10))
    rows = [[*(("Period", "Time") if style in ("columns", "turned") else ("Time",)), *days], *table]
    rows = [list(row) for row in zip(*rows, strict=True)] if style == "turned" else rows
    if rng.random() < 0.3:
        rows = [[rng.choice(("Weekly timetable", "Autumn 2026")), *[""] * (len(rows[0]) - 1)], *rows]
    if rng.random() < 0.3:
        rows = [*rows, [""] * len(rows[0]), ["Subject to change", *[""] * (len(rows[0]) - 1)]]
    return rows, meant


@pytest.mark.parametrize("block", range(4))
def test_timetables_drawn_at_random_are_read_as_meant_or_refused(block: int, tmp_path: Path) -> None:
    refused = 0
    until = MONDAY + dt.timedelta(4)
    for seed in range(block * 15, block * 15 + 15):
        rows, meant = _timetable(seed)
        events, said = read_or_refused(tmp_path / f"{seed}.csv", rows, "--from", MONDAY, "--until", until)
        refused += events is None
        assert events is None or sorted(events) == sorted(meant), (rows, said)
    assert refused <= 1
