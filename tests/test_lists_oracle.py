"""Lists at random, with the columns that people keep beside what is on: each is read as it was meant, or refused, never otherwise."""

from __future__ import annotations

import datetime as dt
import random
from pathlib import Path

import pytest

from helpers import read_or_refused

TITLES = "Knots,Launch day,Sail panel,Supper,Year 8 trip,7A visit,Van 1 service,U 11 match,John 3:16 study,Harbour 10k".split(
    ","
)
DATES = ("%d/%m/%Y", "%Y-%m-%d", "%a %d %b %Y", "%d.%m.%Y", "%A %d %B %Y", "%d %b %y", "%d-%b-%Y")
BESIDE = {  # headings, and what stands below them
    ("Price", "Fee", "Entry"): ("£5", "8.00", "free", "12.50"),
    ("Places", "Numbers"): ("8", "12", "30"),
    ("Year", "Class", "Form"): ("7", "8A", "9P", "10-11"),
    ("Lead", "Staff", "In charge"): ("Quill", "May Osei", "April Barr", "SA", "MO"),
    ("Result", "Score"): ("3-1", "2:1", "28:24", ""),
    ("Ref", "Code"): ("1021", "20260907", "A5", "2026/14"),
    ("Notes", "Comments"): ("", "bring oars", "new members welcome"),
    ("Trips", "Fixtures", "Birthdays"): ("", "v Harbour", "Y8 to quay"),
    ("Distance", "Ages"): ("10-12", "5", "7-11", "10k"),
    ("Sunset", "High water"): ("19:32",),
    ("Booked", "Enrolled", "Sign-ups"): ("3/12", "10/20", "0/8"),
    ("Week", "Wk"): ("A", "B"),
    ("Date added", "Letter sent"): ("3 May 2026", "4 June 2026"),
    ("Contact", "Phone"): ("902-555-0142", "M. Lund"),
    ("Confirmed?", "On website"): ("Y", "N", ""),
}  # fmt: skip
ABOVE = (
    "Saltmarsh School of Boatbuilding",
    "What is on",
    "Printed 3 August 2026",
    "Provisional dates - subject to change",
)
BELOW = (
    "Dates may change", "Last updated 1 August 2026", "Contact the office on 902 555 0100", "Page 1 of 2", "* bring oars",
    "Please note: times are approximate", "See www.saltmarsh.example for more", "Total: 6", "End of list",
)  # fmt: skip
LEAST_READ = 40
"""Of a hundred such, how many are read at least in each block; the others have columns that could be taken for something else, and are refused."""


def _clock(secs: int, form: str) -> str:
    hour, minute = divmod(secs // 60, 60)
    half, twelve = ("am" if hour < 12 else "pm"), (hour - 1) % 12 + 1
    return {
        "24": f"{hour:02}:{minute:02}", "dots": f"{hour:02}.{minute:02}", "four": f"{hour:02}{minute:02}",
        "half": f"{twelve}:{minute:02}{half}", "dots half": f"{twelve}.{minute:02}{half}",
    }[form]  # fmt: skip


def _list(seed: int) -> tuple[list[list[str]], list[str]]:
    """The rows of a list, its headings first, and its events as they are meant."""
    rng = random.Random(seed)
    count = rng.randint(3, 6)
    days = [dt.date(2026, 9, 13) + dt.timedelta(n) for n in sorted(rng.sample(range(120), count))]
    titles = rng.sample(TITLES, count)
    written, form = rng.choice(DATES), rng.choice(("24", "dots", "four", "half", "dots half"))
    starts = [rng.choice((8, 9, 10, 14, 15, 19, 20)) * 3600 + rng.choice((0, 900, 1800)) for _ in days]
    starts[0] = 14 * 3600
    lengths = [rng.choice((2700, 3600, 5400)) for _ in days]
    places = [rng.choice(("Loft 1", "Slip 2", "Shed A", "4.10")) for _ in days]
    columns = {
        rng.choice(("Date", "When")): [day.strftime(written) for day in days],
        rng.choice(("Event", "Title", "What", "Activity")): titles,
        rng.choice(("Place", "Venue", "Room")): places,
    }
    if rng.random() < 0.5:
        ends = [_clock(a + b, form) for a, b in zip(starts, lengths, strict=True)]
        columns |= {"Start": [_clock(one, form) for one in starts], rng.choice(("End", "Finish")): ends}
    else:
        spans = zip(starts, lengths, strict=True)
        columns["Time"] = [
            f"{_clock(a, form)}{rng.choice(('-', ' - ', '–'))}{_clock(a + b, form)}" for a, b in spans
        ]
    if rng.random() < 0.3:
        columns[rng.choice(("Meet", "Doors", "Report by"))] = [_clock(one - 2700, form) for one in starts]
    for headings, cells in rng.sample([*BESIDE.items()], rng.randint(0, 3)):
        columns[rng.choice(headings)] = [rng.choice(cells) for _ in days]
    order = rng.sample([*columns], len(columns))
    rows = [order, *([columns[heading][n] for heading in order] for n in range(count))]
    meant = []
    for day, title, start, length, place in zip(days, titles, starts, lengths, places, strict=True):
        begin = dt.datetime.combine(day, dt.time()) + dt.timedelta(seconds=start)
        meant.append(
            f"{title} {begin:%Y-%m-%dT%H:%M}/{begin + dt.timedelta(seconds=length):%Y-%m-%dT%H:%M} @ {place}"
        )
    return _framed(rows, days, rng), meant


def _framed(rows: list[list[str]], days: list[dt.date], rng: random.Random) -> list[list[str]]:
    """The rows with what stands among and around those of a list: months, headings again, blank rows, titles, remarks."""
    head, *body = rows
    blank = [""] * len(head)
    form = rng.choice(("", "months", "headings", "blank"))
    framed = [head]
    for n, (row, day) in enumerate(zip(body, days, strict=True)):
        if form == "months" and (n == 0 or day.month != days[n - 1].month):
            framed.append([f"{day:%B %Y}", *blank[1:]])
        framed += [head] if form == "headings" and n == 2 else [blank] if form == "blank" and n else []
        framed.append(row)
    above = [[text, *blank[1:]] for text in rng.sample(ABOVE, rng.choice((0, 0, 1, 2)))]
    below = [[text, *blank[1:]] for text in rng.sample(BELOW, rng.choice((0, 0, 1, 2)))]
    return [*above, *framed, *([blank] if below and rng.random() < 0.5 else []), *below]


@pytest.mark.parametrize("block", range(5))
def test_lists_with_columns_beside_are_read_as_meant_or_refused(block: int, tmp_path: Path) -> None:
    read = 0
    for seed in range(block * 20, block * 20 + 20):
        rows, meant = _list(seed)
        events, said = read_or_refused(tmp_path / f"{seed}.csv", rows)
        if events is not None:
            read += 1
            assert sorted(events) == sorted(meant), (rows, said)
    assert read * 5 > LEAST_READ
