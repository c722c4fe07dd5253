"""Rosters made at random, dates across or down, must come back as the duties that they were made from, or be refused; never as
others."""

from __future__ import annotations

import csv
import datetime as dt
import random
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

import pytest

from helpers import built, csv_file, nomarium, workbook

PEOPLE = ("Quill", "Osei", "Marlow", "Finch", "Heron", "Tern")
POSTS = ("Gate", "Kitchen", "Front desk", "Slip 1", "Loft", "Library")
CODES = {"E": (420, 900), "L": (780, 1260), "N": (1260, 1860)}
HOURS = {
    "9-5": (540, 1020),
    "8.30-4.30": (510, 990),
    "13:00-21:00": (780, 1260),
    "0700-1500": (420, 900),
    "9am-1pm": (540, 780),
}
HEADS: dict[str, Callable[[dt.date], object]] = {
    "ISO": lambda d: d.isoformat(),
    "day and month": lambda d: f"{d.day} {d:%b}",
    "weekday, day and month": lambda d: f"{d:%a} {d.day} {d:%b}",
    "figures": lambda d: f"{d:%d/%m/%Y}",
    "a workbook's own": lambda d: d,
    "numbers": lambda d: d.day,
    "weekday and number": lambda d: f"{d:%a} {d.day}",
}
SEEDS = 90
LEAST_RIGHT = 0.85
"""The share that must be read: two posts side by side, or jobs of few people, may be a list as well, and are asked about."""


class Roster(NamedTuple):
    rows: list[list[object]]
    duties: set[tuple[str, str, str, str, str]]
    """Label, what stands in the cell and has no times, date, start and end."""
    options: list[str]
    is_workbook: bool


def clock(minutes: int) -> str:
    return f"{minutes // 60 % 24:02}:{minutes % 60:02}"


def roster(rng: random.Random) -> Roster:
    kind = rng.choice(("codes", "codes", "hours", "people"))
    labels = rng.sample(POSTS if kind == "people" else PEOPLE, rng.randint(2, 5))
    heads = rng.choice(list(HEADS))
    is_of_month = heads in ("numbers", "weekday and number")
    first = dt.date(2027, 2, 1) + dt.timedelta(
        rng.choice((0, 2, 7, 14)) if is_of_month else rng.randrange(28)
    )
    days = [first + dt.timedelta(n) for n in range(rng.choice((5, 7, 10)))]
    title = "Rota February 2027" if is_of_month else rng.choice(("Duty rota 2027", "Yard rota, spring 2027"))
    used = rng.sample(list(CODES if kind == "codes" else HOURS), 3) + (
        ["13:00-21:00"] if kind == "hours" else []
    )
    free, share = rng.choice(("", "OFF", "-")), rng.choice((0.5, 0.8, 1.0))
    cells: dict[tuple[str, dt.date], str] = {}
    duties = set()
    for label in labels:
        for day in days:
            cells[label, day] = free
            if rng.random() < share:
                text = cells[label, day] = rng.choice(PEOPLE if kind == "people" else used)
                start, end = (map(clock, {**CODES, **HOURS}[text])) if kind != "people" else ("", "")
                duties.add((label, "" if kind == "hours" else text, day.isoformat(), start, end))
    corner = rng.choice(("", "Date"))
    rows: list[list[object]] = [[title]]
    if rng.random() < 0.5:
        rows += [
            [corner, *labels],
            *([HEADS[heads](day), *(cells[one, day] for one in labels)] for day in days),
        ]
    else:
        post, sums = rng.random() < 0.3, rng.random() < 0.3
        left, right = [[""], ["Role"]][: 1 + post], [["Total"]] * sums
        if heads == "numbers" and rng.random() < 0.5:
            rows += [[*([""] * len(left)), *(f"{day:%a}" for day in days)]]
        rows += [[one for cells_of in (*left, [*map(HEADS[heads], days)], *right) for one in cells_of]]
        for one in labels:
            beside = [rng.choice(("Skipper", "Mate", "4410"))] * post
            rows += [[one, *beside, *(cells[one, day] for day in days), *["32"] * sums]]
        if rng.random() < 0.3:
            rows += [
                [
                    rng.choice(("Staff on", "On duty", "Total")),
                    *[""] * post,
                    *(rng.randint(1, 5) for _ in days),
                ]
            ]
    if kind == "codes":
        key = [f"{code} = {clock(CODES[code][0])}-{clock(CODES[code][1])}" for code in used]
        rows += [
            [],
            *rng.choice(
                ([[f"Key: {', '.join(key)}"]], [[one] for one in key], [one.split(" = ") for one in key])
            ),
        ]
    return Roster(
        rows,
        duties,
        ["--date-order", "dmy"] * (heads == "figures"),
        heads == "a workbook's own" or rng.random() < 0.4,
    )


def outcome_of(seed: int, folder: Path) -> str:
    made = roster(random.Random(seed))
    if made.is_workbook:
        source = workbook(folder, made.rows)
    else:
        source = csv_file(folder, "\n".join(",".join(f'"{cell}"' for cell in row) for row in made.rows))
    target = folder / "out.csv"
    if nomarium("build", source, "-o", target, *made.options).status:
        return "refused"
    with target.open(encoding="utf-8-sig", newline="") as lines:
        found = [(f"{one['Title']} {one.get('Location') or ''}", one["Date"], one["Start"] or "", one["End"] or "") for one in csv.DictReader(lines)]  # fmt: skip
    are_there = all(
        any(label in said and text in said and (date, start, end) == (*when,) for said, *when in found)
        for label, text, date, start, end in made.duties
    )
    return "right" if are_there and len(found) == len(made.duties) else "wrong"


def test_duties_come_back_from_rosters_of_many_forms(tmp_path: Path) -> None:
    outcomes = {}
    for seed in range(SEEDS):
        folder = tmp_path / str(seed)
        folder.mkdir()
        outcomes[seed] = outcome_of(seed, folder)
    assert [seed for seed, one in outcomes.items() if one == "wrong"] == []
    assert list(outcomes.values()).count("right") >= LEAST_RIGHT * SEEDS, outcomes


@pytest.mark.parametrize("posts", ["Slip 1,Front desk,Store,Gate", "Workshop,Kitchen,Bins,Gate"])
def test_one_column_of_turns_is_not_taken_for_the_titles(posts: str, tmp_path: Path) -> None:
    rows = [
        "-,Quill,-,-",
        "-,-,Marlow,Quill",
        "Heron,Osei,Finch,-",
        "Quill,Marlow,-,Tern",
        "-,-,-,Osei",
        "Osei,Finch,Heron,-",
    ]
    text = "\n".join([f"Date,{posts}", *(f"{n + 8:02}/02/2027,{row}" for n, row in enumerate(rows))])
    events = built(csv_file(tmp_path, text), "--date-order", "dmy")
    first, *_, last = posts.split(",")
    assert len(events) == 13
    assert (
        f"{first}: Quill 2027-02-11/2027-02-12" in events and f"{last}: Osei 2027-02-12/2027-02-13" in events
    )
