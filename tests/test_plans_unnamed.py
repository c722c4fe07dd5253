"""Plans whose files are called nothing in particular: each table is known by what it holds, or asked about."""

from __future__ import annotations

import csv
from itertools import product
from pathlib import Path

import pytest

from helpers import nomarium

Rows = list[list[str]]
LABELS = ["Keel", "Rib", "Plank", "Deck", "Mast", "Sail"]
TERMS: Rows = [["Term", "From", "To"], ["Autumn", "2026-09-07", "2026-10-02"]]
OFF: Rows = [["Date", "Reason"], ["2026-09-14", "Staff day"]]
BELLS: dict[str, Rows] = {
    "ends": [["Period", "Start", "End"], ["1", "9:00", "9:50"], ["2", "10:00", "10:50"]],
    "lengths": [["Period", "Start", "Length"], ["1", "9:00", "50"], ["2", "10:00", "50"]],
    "all three": [
        ["Lesson", "Start", "End", "Minutes"],
        ["1", "9:00", "9:50", "50"],
        ["2", "10:00", "10:50", "50"],
    ],
}
CYCLES: dict[str, Rows] = {
    "a column": [["Label"], *([label] for label in LABELS)],
    "numbered": [["No", "Label"], *([str(n), label] for n, label in enumerate(LABELS, 1))],
    "in French": [["Jour du cycle"], *([label] for label in LABELS)],
    "a row": [["Cycle:", *LABELS]],
    "a cell": [["Cycle"], [", ".join(LABELS)]],
    "arrows": [[" → ".join(LABELS)]],
}
CLASSES: dict[str, Rows] = {
    "a list": [["Class", "Day", "Period"], ["Knots", "Keel", "1"], ["Oars", "Rib", "2"], ["Charts", "Mast", "1"]],
    "drawn": [["", *LABELS], ["1", "Knots", "", "", "", "Charts", ""], ["2", "", "Oars", "", "", "", ""]],
    "on its side": [["", "1", "2"], *([label, {"Keel": "Knots", "Mast": "Charts"}.get(label, ""), "Oars" * (label == "Rib")] for label in LABELS)],
}  # fmt: skip
EXPECTED = {
    ("Knots", "2026-09-07"), ("Knots", "2026-09-16"), ("Knots", "2026-09-24"), ("Knots", "2026-10-02"),
    ("Oars", "2026-09-08"), ("Oars", "2026-09-17"), ("Oars", "2026-09-25"),
    ("Charts", "2026-09-11"), ("Charts", "2026-09-22"), ("Charts", "2026-09-30"),
}  # fmt: skip


def build(folder: Path, tables: dict[str, Rows], *options: str) -> tuple[set[tuple[str, str]], str]:
    sources = []
    for name, rows in tables.items():
        sources.append(folder / f"{name}.csv")
        with sources[-1].open("w", newline="", encoding="utf-8") as file:
            csv.writer(file).writerows(rows)
    outcome = nomarium(
        "build", *sources, "-o", folder / "out.csv", "--as", "plan", "--timezone", "America/Halifax", *options
    )
    if outcome.status:
        assert outcome.status == 1 and not (folder / "out.csv").exists()
        return set(), outcome.text
    with (folder / "out.csv").open(encoding="utf-8-sig") as file:
        return {(row["Title"], row["Date"]) for row in csv.DictReader(file)}, outcome.text


@pytest.mark.parametrize(("cycle", "classes", "bells"), [*product(CYCLES, CLASSES, BELLS)])
def test_tables_are_known_by_what_they_hold(cycle: str, classes: str, bells: str, tmp_path: Path) -> None:
    tables = {"a": TERMS, "b": OFF, "c": BELLS[bells], "d": CYCLES[cycle], "e": CLASSES[classes]}
    found, said = build(tmp_path, tables)
    assert found == EXPECTED, said


def test_a_length_that_is_not_that_of_its_bell_is_a_problem(tmp_path: Path) -> None:
    bells = [
        ["Period", "Start", "End", "Minutes"],
        ["1", "9:00", "9:50", "50"],
        ["2", "10:00", "10:50", "45"],
    ]
    _, said = build(
        tmp_path, {"a": TERMS, "b": OFF, "c": bells, "d": CYCLES["a column"], "e": CLASSES["a list"]}
    )
    assert (
        "row 3, column D “Minutes”: “45”" in said
        and "The length is not the time from 10:00 to 10:50." in said
    )


def test_dated_rows_that_may_be_days_off_are_asked_about(tmp_path: Path) -> None:
    off = [["Wann", "Wer"], ["2026-09-14", "Lehrertag"], ["2026-09-21", "Hafentag"]]
    tables = {"a": TERMS, "b": off, "c": BELLS["ends"], "d": CYCLES["a column"], "e": CLASSES["a list"]}
    found, said = build(tmp_path, tables)
    assert (
        not found and "“b” holds dates, and is no part of the plan" in said and '--table "b=daysoff"' in said
    )
    found, _ = build(tmp_path, tables, "--table", "b=daysoff")
    assert ("Knots", "2026-09-07") in found and not any(
        day in ("2026-09-14", "2026-09-21") for _, day in found
    )


@pytest.mark.parametrize(
    "rows",
    [[["Change", "When"], ["Bells moved", "2026-09-14"]], [["Who", "Born"], ["Ida Rowe", "1985-09-14"]]],
)
def test_dates_of_the_paper_or_of_other_years_are_no_days_off(rows: Rows, tmp_path: Path) -> None:
    found, said = build(
        tmp_path,
        {
            "a": TERMS,
            "b": OFF,
            "c": BELLS["ends"],
            "d": CYCLES["a column"],
            "e": CLASSES["a list"],
            "f": rows,
        },
    )
    assert found == EXPECTED and "“f” is no part of a plan" in said


def test_a_list_of_other_words_is_no_cycle(tmp_path: Path) -> None:
    tables = {
        "a": TERMS,
        "b": OFF,
        "c": BELLS["ends"],
        "d": [["Boat"], ["Gull"], ["Tern"], ["Keel"]],
        "e": CLASSES["a list"],
    }
    found, said = build(tmp_path, tables)
    assert not found and "no table says in which order labels come" in said
