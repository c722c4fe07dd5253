"""Lists whose months, years or numbers of days are said once, and rosters whose key says what their codes stand for, drawn at random:
what is read is what was drawn, and anything else is refused."""

from __future__ import annotations

import datetime as dt
import random
from collections import Counter
from pathlib import Path

import pytest

from helpers import read_or_refused

MONTHS = "January February March April May June July August September October November December".split()
TITLES = [
    "Regatta",
    "Launch",
    "Caulking talk",
    "Open shed",
    "Rope night",
    "Tar day",
    "Harbour walk",
    "Oar making",
    "Quiz",
]
KINDS = ["month over the numbers", "month in a row", "year in a row", "term in a row", "numbers go on"]


def _number(day: dt.date, is_ordinal: bool) -> str:
    ending = {1: "st", 2: "nd", 3: "rd", 21: "st", 22: "nd", 23: "rd", 31: "st"}.get(day.day, "th")
    return f"{day.day}{ending if is_ordinal else ''}"


def _list(pick: random.Random, kind: str) -> tuple[list[list[str]], list[str]]:
    """The rows of a list, and its events as they must come back."""
    first = dt.date(2026, pick.randint(1, 12), 1)
    days = [first + dt.timedelta(n) for n in sorted(pick.sample(range(150), pick.randint(5, 14)))]
    is_ordinal, is_short, has_weekdays = pick.random() < 0.3, pick.random() < 0.5, pick.random() < 0.4
    head = ["Date", pick.choice(["Event", "What"]), "Time", pick.choice(["Where", "Venue"])]
    rows: list[list[str]] = [["Saltmarsh School", "", "", ""]] if pick.random() < 0.4 else []
    rows += [] if kind == "month over the numbers" else [head]
    events, before = [], None
    for day in days:
        title, hour = pick.choice(TITLES), pick.choice([None, pick.randint(9, 19)])
        name = MONTHS[day.month - 1][: 3 if is_short else 12]
        weekday = f"{day:%a} " if has_weekdays else ""
        said, mark = f"{weekday}{_number(day, is_ordinal)}", (day.year, day.month)
        if "year" in kind or "term" in kind:
            said, mark = f"{said} {name}", (day.year, 0)
        is_new, before = mark != before, mark
        if is_new and kind == "numbers go on":
            said = f"{weekday}{day.day} {name} {day.year}"
        elif is_new and kind == "month over the numbers":
            rows.append([f"{name} {day.year}", *head[1:]])
        elif is_new:
            over = {"month in a row": f"{name} {day.year}", "year in a row": f"{day.year}"}.get(
                kind, f"Spring term {day.year}"
            )
            rows.append([over, "", "", ""])
        place = pick.choice(["Loft 1", "Quay", ""])
        rows.append([said, title, f"{hour}:30" if hour else "", place])
        when = f"{day}T{hour:02}:30/{day}T{hour + 1:02}:30" if hour else f"{day}/{day + dt.timedelta(1)}"
        events.append(f"{title} {when}{f' @ {place}' if place else ''}")
    return rows, events


@pytest.mark.parametrize("seed", range(8))
@pytest.mark.parametrize("kind", KINDS)
def test_what_is_said_once_holds_for_the_rows_below(kind: str, seed: int, tmp_path: Path) -> None:
    rows, expected = _list(random.Random(f"{kind} {seed}"), kind)
    found, said = read_or_refused(tmp_path / "list.csv", rows)
    assert found is not None, said
    assert Counter(found) == Counter(expected)


SHIFTS = [
    {"E": (7, 0, 15, 0), "L": (15, 0, 23, 0), "N": (23, 0, 7, 0)}, {"LD": (7, 30, 20, 0), "N": (19, 30, 8, 0)}, {"D": (9, 0, 17, 0), "E": (6, 0, 14, 0)},
    {"A": (8, 0, 12, 30), "P": (12, 30, 17, 0), "N": (22, 0, 6, 30)},
]  # fmt: skip
NAMES = {
    "E": "Early",
    "L": "Late",
    "N": "Night",
    "LD": "Long day",
    "D": "Day",
    "A": "Morning",
    "P": "Afternoon",
}


def _clock(hour: int, minute: int, form: str) -> str:
    half = f"{(hour - 1) % 12 + 1}{f':{minute:02}' if minute else ''}{'am' if hour < 12 else 'pm'}"
    return half if form == "half" else form.format(hour, minute)


def _key(pick: random.Random, shifts: dict[str, tuple[int, int, int, int]]) -> list[list[str]]:
    form, to = (
        pick.choice(["{:02}:{:02}", "{:02}{:02}", "{}:{:02}", "{:02}.{:02}", "half"]),
        pick.choice(["-", " - ", "–", " to "]),
    )
    said = {code: f"{_clock(a, b, form)}{to}{_clock(c, d, form)}" for code, (a, b, c, d) in shifts.items()}
    if pick.random() < 0.3:
        said = {code: f"{NAMES[code]} {hours}" for code, hours in said.items()}
    signed = [f"{code}{pick.choice([' = ', '=', ': '])}{hours}" for code, hours in said.items()]
    return pick.choice(
        [
            [[code, hours] for code, hours in said.items()], [signed], [["Key", *signed]],
            [[pick.choice(["", "Key: "]) + pick.choice([", ", "; "]).join(signed)]],
            [["Key", *(text for pair in said.items() for text in pair)]],
        ]
    )  # fmt: skip


def _roster(pick: random.Random) -> tuple[list[list[str]], Counter[str]]:
    """The rows of a roster with its key below, and who is on duty when."""
    shifts = pick.choice(SHIFTS)
    days = [dt.date(2026, 9, pick.randint(13, 24)) + dt.timedelta(n) for n in range(pick.randint(3, 7))]
    days = [days[0] + dt.timedelta(n) for n in range(len(days))]
    people = pick.sample(["Osei", "Moss", "Quill", "Barr", "Lund"], pick.randint(2, 4))
    codes = {(who, day): pick.choice([*shifts, *shifts, "", "off", "-"]) for who in people for day in days}
    codes |= {(pick.choice(people), pick.choice(days)): code for code in shifts}
    form = pick.choice(["%a %d %b %Y", "%d/%m/%Y", "%d %B %Y", "%Y-%m-%d"])
    if pick.random() < 0.6:
        rows = [[pick.choice(["Name", "", "Staff"]), *(day.strftime(form) for day in days)]]
        rows += [[who, *(codes[who, day] for day in days)] for who in people]
    else:
        rows = [
            ["Date", *people],
            *([day.strftime(form), *(codes[who, day] for who in people)] for day in days),
        ]
    rows += [[""]] * (pick.random() < 0.5) + _key(pick, shifts)
    width = max(map(len, rows))
    on = Counter[str]()
    for (who, day), code in codes.items():
        if code in shifts:
            a, b, c, d = shifts[code]
            begin, end = (dt.datetime(day.year, day.month, day.day, h, m) for h, m in ((a, b), (c, d)))
            end += dt.timedelta(end <= begin)
            on[f"{who} {begin:%Y-%m-%dT%H:%M}/{end:%Y-%m-%dT%H:%M}"] += 1
    return [[*row, *[""] * (width - len(row))] for row in rows], on


def test_codes_are_the_hours_that_their_key_says(tmp_path: Path) -> None:
    read = 0
    for seed in range(60):
        rows, expected = _roster(random.Random(seed))
        (folder := tmp_path / str(seed)).mkdir()
        found, said = read_or_refused(folder / "roster.csv", rows)
        if found is not None:
            read += 1
            assert Counter(f"{line.split(':')[0]} {line.rsplit(' ', 1)[1]}" for line in found) == expected, (
                seed,
                rows,
                said,
            )
    assert read > 48  # the others are refused
