"""Weeks drawn at random, weekdays across, read as one week: each as it was meant, or refused, never otherwise."""

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
