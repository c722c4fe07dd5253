"""Day sheets under titles in other languages, with their hours as people write them; and days that head columns, which are no rooms."""

from __future__ import annotations

import csv
from itertools import product
from pathlib import Path

import pytest

from helpers import nomarium

Rows = list[list[str]]
HOURS = [("09:00", "10:00"), ("10:00", "11:00"), ("11:00", "12:00")]
ON = [["Knots", "", "Oars"], ["", "Sails", ""], ["Charts", "Ropes", ""]]
ROOMS = ["Loft 1", "Loft 2", "Shed A"]
DAYS = ["2026-10-05", "2026-10-06", "2026-10-07"]
LABELS = {
    "ranges": ["9:00-10:00", "10:00-11:00", "11:00-12:00"], "hours in French": ["9h", "10h", "11h"],
    "ranges in French": ["de 9h à 10h", "de 10h à 11h", "de 11h à 12h"], "hours in German": ["9 Uhr", "10 Uhr", "11 Uhr"],
    "in Dutch": ["9u", "10u", "11u"],
}  # fmt: skip
TITLES = [
    "Monday 5 October 2026", "Lundi 5 octobre 2026", "Montag, 5. Oktober 2026", "Lunes, 5 de octubre de 2026", "lunedì 5 ottobre 2026",
    "maandag 5 oktober 2026", "Måndag 5 oktober 2026", "Occupation des salles, lundi 5 octobre 2026", "Raumplan Montag, 5. Oktober 2026",
]  # fmt: skip


def held(folder: Path, rows: Rows) -> tuple[set[tuple[str, ...]], str]:
    source, out = folder / "day.csv", folder / "out.csv"
    with source.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows(rows)
    outcome = nomarium("build", source, "-o", out, "--timezone", "America/Halifax")
    if outcome.status:
        assert outcome.status == 1 and not out.exists()
        return set(), outcome.text
    with out.open(encoding="utf-8-sig") as file:
        rows_out = [*csv.DictReader(file)]
    return {
        tuple(filter(None, (row["Title"], row["Date"], row["Start"], row["End"], row.get("Location", ""))))
        for row in rows_out
    }, outcome.text


IN_ROOMS = {(ON[n][m], DAYS[0], *HOURS[n], ROOMS[m]) for n, m in product(range(3), range(3)) if ON[n][m]}
ON_DAYS = {(ON[n][m], DAYS[m], *HOURS[n]) for n, m in product(range(3), range(3)) if ON[n][m]}


@pytest.mark.parametrize(("title", "labels", "on_side"), [*product(TITLES, LABELS, (False, True))])
def test_rooms_on_one_day(title: str, labels: str, on_side: bool, tmp_path: Path) -> None:
    rows = [["", *ROOMS], *([label, *cells] for label, cells in zip(LABELS[labels], ON, strict=True))]
    rows = [list(one) for one in zip(*rows, strict=True)] if on_side else rows
    found, said = held(tmp_path, [[title], *rows])
    assert found == IN_ROOMS, said


@pytest.mark.parametrize("heads", [["Start", "End"], ["From", "To"], ["Beginn", "Ende"], ["Début", "Fin"]])
def test_rooms_beside_two_columns_of_times(heads: list[str], tmp_path: Path) -> None:
    rows = [[*heads, *ROOMS], *([*hours, *cells] for hours, cells in zip(HOURS, ON, strict=True))]
    found, said = held(tmp_path, [[TITLES[0]], *rows])
    assert found == IN_ROOMS, said


HEADS = {
    "English": ["Mon 5", "Tue 6", "Wed 7"], "with months": ["Mon 5 Oct", "Tue 6 Oct", "Wed 7 Oct"], "ISO": DAYS,
    "month first": ["Mon 10/5", "Tue 10/6", "Wed 10/7"], "French": ["lundi 5 octobre", "mardi 6 octobre", "mercredi 7 octobre"],
    "German": ["Mo 5.10.", "Di 6.10.", "Mi 7.10."], "Dutch": ["ma 5 okt", "di 6 okt", "wo 7 okt"],
}  # fmt: skip


@pytest.mark.parametrize(
    ("title", "heads", "labels"),
    [*product(("Timetable October 2026", "Week of 5 October 2026"), HEADS, LABELS)],
)
def test_days_that_head_columns_are_no_rooms(title: str, heads: str, labels: str, tmp_path: Path) -> None:
    rows = [["", *HEADS[heads]], *([label, *cells] for label, cells in zip(LABELS[labels], ON, strict=True))]
    found, said = held(tmp_path, [[title], *rows])
    assert found == ON_DAYS, said
