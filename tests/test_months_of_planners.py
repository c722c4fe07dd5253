"""Planners, matrices and lists under months: in other languages, and with months that are none."""

from __future__ import annotations

import calendar
import csv
import datetime as dt
from itertools import product
from pathlib import Path

import pytest

from helpers import nomarium, read_or_refused
from nomarium.reading.layouts.slippedmonths import is_like_month

Rows = list[list[str]]
NUMBERS = (9, 10, 11, 12)
HEADS = {
    "en": "September October November December", "fr": "septembre octobre novembre décembre", "de": "September Oktober November Dezember",
    "es": "sep oct nov dic", "it": "settembre ottobre novembre dicembre", "nl": "september oktober november december",
    "sv": "september oktober november december", "fi": "syyskuu lokakuu marraskuu joulukuu", "pl": "wrzesień październik listopad grudzień",
    "short years": "Sep-26 Oct-26 Nov-26 Dec-26",
}  # fmt: skip
WEEKDAYS = {"fr": "lun mar mer jeu ven sam dim", "de": "Mo Di Mi Do Fr Sa So"}
ON = {(9, 7): "Launch", (9, 23): "Regatta", (10, 12): "Supper", (11, 30): "Carving", (12, 18): "Carols"}
EXPECTED = {(title, f"2026-{month:02d}-{day:02d}") for (month, day), title in ON.items()}


def weekday(language: str, month: int, day: int) -> str:
    names = WEEKDAYS.get(language, "Mon Tue Wed Thu Fri Sat Sun").split()
    return names[dt.date(2026, month, day).weekday()] if day <= calendar.monthrange(2026, month)[1] else ""


def planner(heads: list[str], form: str, language: str) -> Rows:
    if form == "weekdays beside":
        head = ["", *(one for name in heads for one in (name, ""))]
        body = [
            [
                str(day),
                *(
                    one
                    for month in NUMBERS
                    for one in (weekday(language, month, day), ON.get((month, day), ""))
                ),
            ]
            for day in range(1, 32)
        ]
    else:
        within = form == "weekdays within"
        head = ["", *heads]
        body = [
            [
                str(day),
                *(
                    " ".join(filter(None, [within * weekday(language, month, day), ON.get((month, day), "")]))
                    for month in NUMBERS
                ),
            ]
            for day in range(1, 32)
        ]
    rows = [head, *body]
    return [list(one) for one in zip(*rows, strict=True)] if form == "months down" else rows


def dated(folder: Path, rows: Rows) -> tuple[set[tuple[str, str]] | None, str]:
    source, out = folder / "planner.csv", folder / "out.csv"
    with source.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows([["School year 2026-27"], *rows])
    outcome = nomarium("build", source, "-o", out, "--timezone", "America/Halifax")
    if outcome.status:
        assert outcome.status == 1 and not out.exists()
        return None, outcome.text
    with out.open(encoding="utf-8-sig") as file:
        return {(row["Title"], row["Date"]) for row in csv.DictReader(file)}, outcome.text


@pytest.mark.parametrize(
    ("language", "form"), [*product(HEADS, ("plain", "weekdays beside", "weekdays within", "months down"))]
)
def test_planners_of_languages(language: str, form: str, tmp_path: Path) -> None:
    found, said = dated(tmp_path, planner(HEADS[language].split(), form, language))
    assert found == EXPECTED, said


def test_a_weekday_within_a_planner_that_its_day_has_not_is_a_problem(tmp_path: Path) -> None:
    rows = planner(HEADS["en"].split(), "weekdays within", "en")
    rows[7][1] = "Tue Launch"
    found, said = dated(tmp_path, rows)
    assert found is None and "2026-09-07 is a Monday, not a Tuesday." in said


SLIPS = ("Setpember", "Ocotber", "Novmber", "TBC", "xx")


@pytest.mark.parametrize(("slip", "at", "form"), [*product(SLIPS, range(3), ("plain", "months down"))])
def test_a_heading_that_is_no_month_does_not_lose_what_stands_under_it(
    slip: str, at: int, form: str, tmp_path: Path
) -> None:
    heads = HEADS["en"].split()
    heads[at] = slip
    found, said = dated(tmp_path, planner(heads, form, "en"))
    assert found is None and f"“{slip}”" in said and "stands among months and is none" in said


def test_notes_among_the_months_are_told_of_and_are_in_no_month(tmp_path: Path) -> None:
    rows = planner(HEADS["en"].split(), "plain", "en")
    rows = [[*row[:2], "Notes" if n == 0 else "x" * (n == 3), *row[2:]] for n, row in enumerate(rows)]
    found, said = dated(tmp_path, rows)
    assert found == EXPECTED and "Not used: the column “Notes”" in said


def test_what_is_like_a_month() -> None:
    likes = {
        "Ocotber": True,
        "Decembr": True,
        "Match": False,
        "March": False,
        "Octopus": False,
        "Notes": False,
    }
    assert {text: is_like_month(text) for text in likes} == likes


MATRIX = {
    "Committee": ("7", "12", "9", "14"),
    "Slip duty": ("1st & 15th", "5th and 19th", "", "7th, 21st"),
    "Regatta": ("23", "", "30", ""),
}
MEETINGS = {
    *(("Committee", f"2026-{m:02d}-{d:02d}") for m, d in zip(NUMBERS, (7, 12, 9, 14), strict=True)), ("Regatta", "2026-09-23"), ("Regatta", "2026-11-30"),
    *(("Slip duty", f"2026-{one}") for one in ("09-01", "09-15", "10-05", "10-19", "12-07", "12-21")),
}  # fmt: skip


def matrix(heads: list[str], on_side: bool) -> Rows:
    rows = [["Event", *heads], *([title, *days] for title, days in MATRIX.items())]
    return [list(one) for one in zip(*rows, strict=True)] if on_side else rows


@pytest.mark.parametrize(
    ("language", "on_side"), [*product([one for one in HEADS if one != "short years"], (False, True))]
)
def test_matrices_of_languages_and_on_their_side(language: str, on_side: bool, tmp_path: Path) -> None:
    found, said = dated(tmp_path, matrix(HEADS[language].split(), on_side))
    assert found == MEETINGS, said


@pytest.mark.parametrize("on_side", [False, True])
def test_a_matrix_loses_no_month(on_side: bool, tmp_path: Path) -> None:
    found, said = dated(tmp_path, matrix(["September", "Ocotber", "November", "December"], on_side))
    assert found is None and "“Ocotber”" in said


UNDER: dict[str, Rows] = {
    "between": [["September"], ["7", "Launch"], ["23", "Regatta"], ["Ocotber"], ["12", "Supper"], ["November"], ["30", "Carving"]],
    "first": [["Setpember"], ["7", "Launch"], ["23", "Regatta"], ["October"], ["12", "Supper"], ["12", "Sail"], ["November"], ["30", "Carving"]],
    "a word over days that begin again": [["September"], ["7", "Launch"], ["23", "Regatta"], ["Winter"], ["12", "Supper"], ["13", "Carving"]],
    "with weekdays and ranges": [["Setpember"], ["Mon 7", "Launch"], ["Wed 23", "Regatta"], ["October"], ["Mon 12", "Supper"], ["Sat 17-18", "Sail"]],
}  # fmt: skip


@pytest.mark.parametrize("kind", UNDER)
def test_days_under_what_is_no_month_are_asked_about(kind: str, tmp_path: Path) -> None:
    found, said = dated(tmp_path, UNDER[kind])
    assert found is None and "stands among months and is none" in said


def test_a_month_and_its_year_in_a_column_of_dates_are_asked_about(tmp_path: Path) -> None:
    rows = [
        ["Month", "Day", "Event"],
        ["Sep-26", "7", "Launch"],
        ["Oct-26", "12", "Supper"],
        ["Nov-26", "30", "Carving"],
    ]
    found, said = dated(tmp_path, rows)
    assert found is None and "“Sep-26” could be the 26th of Sep, or Sep 2026" in said
    rows = [["Date", "Event"], ["Sep-26", "Launch"], ["Oct-12", "Supper"], ["Nov-30", "Carving"]]
    events, _ = read_or_refused(tmp_path / "days.csv", [["School year 2026-27"], *rows])
    assert events is not None and [one.split(" ")[1][:10] for one in events] == [
        "2026-09-26",
        "2026-10-12",
        "2026-11-30",
    ]
