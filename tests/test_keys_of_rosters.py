"""Rosters whose codes are explained in a table of its own above or below, and those under a title with a date."""

from __future__ import annotations

from itertools import product
from pathlib import Path

import pytest

from helpers import nomarium

NAMES = ["Moss A.", "Fern Cole", "Ida Rowe"]
CODES = {"E": ("Early", "07:00", "15:00"), "L": ("Late", "14:00", "22:00")}
DUTIES = {"2026-10-05": "ELE", "2026-10-06": "LE ", "2026-10-07": "ELL"}
KEYS = {
    "a table": [["Code", "Shift", "Start", "End"], *([code, *said] for code, said in CODES.items())],
    "lines": [[f"{code} = {name} {start}-{end}"] for code, (name, start, end) in CODES.items()],
    "cells": [["Key:"], *([code, f"{name} {start}–{end}"] for code, (name, start, end) in CODES.items())],
}
TITLES = {
    "none": [],
    "a week": [["Week commencing 5 October 2026"]],
    "days": [["Yard duty, 5-7 October 2026"]],
}


@pytest.mark.parametrize(
    ("key", "title", "place", "are_dates_down"), [*product(KEYS, TITLES, ("above", "below"), (True, False))]
)
def test_codes_are_explained_wherever_their_key_stands(
    key: str, title: str, place: str, are_dates_down: bool, tmp_path: Path
) -> None:
    rows = [["Name", *NAMES], *([day, *(code.strip() for code in codes)] for day, codes in DUTIES.items())]
    if not are_dates_down:
        rows = [list(row) for row in zip(*rows, strict=True)]
    above, below = ([*KEYS[key], []], []) if place == "above" else ([], [[], *KEYS[key]])
    source, out = tmp_path / "duty.csv", tmp_path / "out.csv"
    source.write_text(
        "".join(",".join(row) + "\n" for row in (*TITLES[title], *above, *rows, *below)), "utf-8"
    )
    outcome = nomarium("build", source, "-o", out)
    assert outcome.status == 0, outcome.text
    found = [tuple(line.split(",")[:4]) for line in out.read_text("utf-8-sig").splitlines()[1:]]
    assert sorted(found) == sorted(
        (f"{name}: {code} ({CODES[code][0]})", day, *CODES[code][1:])
        for day, codes in DUTIES.items()
        for name, code in zip(NAMES, codes, strict=True)
        if code.strip()
    )
