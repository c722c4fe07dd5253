"""The small readers of a plan, as tables of cases; the starter; what a survey says of a plan; banners."""

from __future__ import annotations

import datetime as dt
import json
from functools import reduce
from pathlib import Path

import openpyxl
import pytest

from helpers import events_in, nomarium
from nomarium.model.refusal import Refusal
from nomarium.model.templates import filled
from nomarium.school.codes import Codes, natural
from nomarium.school.plantables import is_plan, near_table, table_name
from nomarium.school.settings import read_school_days
from nomarium.school.templates import unknown_fields
from nomarium.school.timetable import read_meets
from test_plan_classes import BASE, BELLS, CYCLE, ONE, TERMS, table
from test_plan_year import folder

FULL = {"name": "Rigging", "room": "Loft", "teacher": "R. Finch", "period": "1"}
TEMPLATES = [
    ("{name}", FULL, "Rigging"),
    ("{name} ({room})", FULL, "Rigging (Loft)"),
    ("{name} ({room})", {"name": "Rigging"}, "Rigging"),
    ("{name} – {teacher}", {"name": "Rigging"}, "Rigging"),
    ("{teacher}: {name}", {"name": "Rigging"}, "Rigging"),
    ("{name}, {room}, {teacher}", {"name": "Rigging", "teacher": "R. Finch"}, "Rigging, R. Finch"),
    ("{name} [{room}, {teacher}]", {"name": "Rigging"}, "Rigging"),
    ("{name} [{room}, {teacher}]", {"name": "Rigging", "teacher": "R. Finch"}, "Rigging [R. Finch]"),
    ("{name} [{room}, {teacher}]", {"name": "Rigging", "room": "Loft"}, "Rigging [Loft]"),
    ("{label}/{period} {name}", {"name": "Rigging", "period": "1"}, "1 Rigging"),
    ("{name} / {room}", {"name": "Rigging"}, "Rigging"),
    ("Class {name}", FULL, "Class Rigging"),
    ("{name}\n{room}\n{teacher}", {"name": "Rigging", "teacher": "R. Finch"}, "Rigging\nR. Finch"),
    ("Room: {room}\n{name}", {"name": "Rigging"}, "Rigging"),
    ("{room}", {}, ""),
]


@pytest.mark.parametrize(("template", "values", "expected"), TEMPLATES)
def test_an_empty_field_takes_its_signs_along(template: str, values: dict[str, str], expected: str) -> None:
    assert filled(template, values) == expected


def test_unknown_fields_are_found() -> None:
    assert unknown_fields("{name} {nmae} {x}") == ["nmae", "x"]


LABELS = Codes("label", ["1", "2", "3", "4", "5", "6"], [("Keel", "1")])
LETTERS = Codes("label", ["A", "B", "C", "D"])
PERIODS = Codes("period", ["HR", "1", "2", "3", "10"])
READ = [
    (LABELS, "3", "3"), (LABELS, "Day 3", "3"), (LABELS, "day3", "3"), (LABELS, "DAY-3", "3"), (LABELS, "keel", "1"), (LABELS, 3.0, "3"),
    (LABELS, "1, 3, 5", "1 3 5"), (LABELS, "1;3\n5", "1 3 5"), (LABELS, "2-4", "2 3 4"), (LABELS, "2–4", "2 3 4"), (LABELS, "Day 2 to Day 4", "2 3 4"),
    (LABELS, "1 and 3", "1 3"), (LABELS, "1 & 3", "1 3"), (LABELS, "1/3", "1 3"), (LABELS, "1 3 5", "1 3 5"), (LABELS, "1-2, 5", "1 2 5"),
    (LETTERS, "a-c", "A B C"), (LETTERS, "A, C", "A C"), (LETTERS, "Day B", "B"), (PERIODS, "P2", "2"), (PERIODS, "Period 2", "2"),
    (PERIODS, "hr", "HR"), (PERIODS, "HR-2", "HR 1 2"), (PERIODS, "2-10", "2 3 10"), (PERIODS, "Block 3", "3"),
]  # fmt: skip


@pytest.mark.parametrize(("codes", "cell", "expected"), READ)
def test_codes_are_read_one_by_one_in_lists_and_ranges(
    codes: Codes, cell: str | float, expected: str
) -> None:
    found = codes.read(cell)
    assert not isinstance(found, Refusal)
    assert " ".join(found) == expected


NOT_READ = [
    (LABELS, "7", "label-unknown"), (LETTERS, "D-B", "label-range"), (LETTERS, "A, X", "label-unknown"), (PERIODS, "P9", "period-unknown"),
    (PERIODS, dt.date(2026, 1, 2), "period-date"), (PERIODS, dt.datetime(2026, 3, 2), "period-date"), (PERIODS, "2-Jan", "period-date"),
    (PERIODS, "Jan-02", "period-date"),
]  # fmt: skip


@pytest.mark.parametrize(("codes", "cell", "code"), NOT_READ)
def test_what_is_no_code_is_refused(codes: Codes, cell: object, code: str) -> None:
    refusal = codes.read(cell)  # type: ignore[arg-type]
    assert isinstance(refusal, Refusal)
    assert refusal.code == code
    assert refusal.remedy


P123 = Codes("period", ["1", "2", "3"])
MEETS = [
    (LETTERS, P123, "A1", "A1"), (LETTERS, P123, "A1 B3 D2", "A1 B3 D2"), (LETTERS, P123, "A1, B3; D2", "A1 B3 D2"), (LETTERS, P123, "a-1", "A1"),
    (LETTERS, P123, "A-C 2", "A2 B2 C2"), (LETTERS, P123, "A, C 1-2", "A1 A2 C1 C2"), (LETTERS, P123, "A1 & C3", "A1 C3"), (LETTERS, P123, "A1/B2 and C3", "A1 B2 C3"),
    (LETTERS, P123, "1(A,C) 3(B)", "A1 C1 B3"), (LETTERS, P123, "1(A-C)", "A1 B1 C1"), (LETTERS, P123, "A(1,3)", "A1 A3"), (LETTERS, P123, "P1(A)", "A1"),
    (LETTERS, P123, "Day B P3", "B3"), (LABELS, P123, "Day 2 P3", "23"), (LABELS, P123, "Day 2 Period 3, Day 4 P1", "23 41"), (LETTERS, P123, "A1-2", "A1 A2"),
    (LETTERS, P123, "A 1 B 2", "A1 B2"), (LABELS, P123, "1(4,5)", "41 51"),
]  # fmt: skip


@pytest.mark.parametrize(("labels", "periods", "text", "expected"), MEETS)
def test_meets_is_read(labels: Codes, periods: Codes, text: str, expected: str) -> None:
    found = read_meets(text, labels, periods)
    assert not isinstance(found, Refusal)
    assert " ".join(label + period for label, period in found) == expected


@pytest.mark.parametrize("text", ["Z1", "A9", "A", "1(Z)", "A1 nonsense"])
def test_meets_that_is_not_understood_is_refused(text: str) -> None:
    assert isinstance(read_meets(text, LETTERS, P123), Refusal)


def test_figures_that_can_be_cut_in_two_ways_are_refused() -> None:
    refusal = read_meets("111", Codes("label", ["1", "11"]), Codes("period", ["1", "11"]))
    assert isinstance(refusal, Refusal)
    assert refusal.code == "meets-ambiguous"


SCHOOL_DAYS = [
    ("Mon-Fri", (0, 1, 2, 3, 4)), ("Sun-Thu", (6, 0, 1, 2, 3)), ("Mon-Sat", (0, 1, 2, 3, 4, 5)), ("Monday to Friday", (0, 1, 2, 3, 4)),
    ("Mon, Tue, Thu", (0, 1, 3)), ("Mon–Thu and Sat", (0, 1, 2, 3, 5)), ("weekdays", None), ("Mon-Blue", None), ("", None),
]  # fmt: skip


@pytest.mark.parametrize(("text", "expected"), SCHOOL_DAYS)
def test_school_days_are_read(text: str, expected: tuple[int, ...] | None) -> None:
    assert read_school_days(text) == expected


def test_names_of_sheets_match_loosely() -> None:
    assert [table_name(name) for name in ("Days off", "days-off", "DAYS_OFF", "daysoff")] == ["daysoff"] * 4
    assert table_name("Timetable - R. Finch") == "timetable:R. Finch"
    assert table_name("Notes") is None
    assert near_table("Timetabel") == "Timetable"
    plans = (["Terms", "Timetable"], ["Events", "Terms"], ["Cycle"], ["Timetable", "Bells", "Notes"])
    lists = (
        ["Events"],
        ["Events", "People"],
        ["Events", "Settings"],
        ["Timetable", "Notes"],
        ["Terms"],
        ["Schedule", "Names"],
    )
    assert [is_plan(names) for names in (*plans, *lists)] == [True] * len(plans) + [False] * len(lists)
    assert is_plan(["events"], is_folder=True)
    assert sorted(["B10", "B2", "A"], key=natural) == ["A", "B2", "B10"]


HEADS = {
    "spaces and capitals": "CLASS , Label, period", "other words": "Course,Day,Block", "hyphens": "class,la-bel,per_iod", "a star": "Class*,Label:,Period",
    "in French": "Cours,Jour,Période", "a title above": "Autumn timetable\n\nClass,Label,Period",
}  # fmt: skip


@pytest.mark.parametrize("name", HEADS)
def test_headings_of_a_timetable_may_be_spelt_in_many_ways(name: str, tmp_path: Path) -> None:
    out = tmp_path / "out.ics"
    outcome = nomarium("build", folder(tmp_path, {**BASE, **table(HEADS[name] + "\nKN1,C,1")}), "-o", out)
    assert outcome.status == 0, outcome.text
    assert [str(event["SUMMARY"]) for event in events_in(out)] == ["KN1"]


OWN = {
    "Autumn": "Harvest", "Staff days": "Staff", "Fog watch": "Fog", "Bring gloves.": "Gloves.", "Knots and splices": "Knots",
    "finch@saltmarsh.example": "f@saltmarsh.example", "Bowline": "Bowlines", "Open day": "Open house",
}  # fmt: skip
"""One text of each table of the starter plan that is left out while it holds the examples alone, and one's own."""


def test_the_starter_plan_builds_in_both_forms_once_its_tables_are_ones_own(tmp_path: Path) -> None:
    book, files = tmp_path / "year.xlsx", tmp_path / "year"
    assert nomarium("starter", "plan", "-o", book).status == 0
    assert nomarium("starter", "plan", "-o", files).status == 0
    assert nomarium("starter", "plan", "-o", book).status == 2
    for path in files.iterdir():
        text = path.read_text("utf-8-sig")
        path.write_text(reduce(lambda changed, old: changed.replace(old, OWN[old]), OWN, text))
    filled = openpyxl.load_workbook(book)
    for cell in (cell for sheet in filled for row in sheet.iter_rows() for cell in row):
        cell.value = OWN.get(cell.value, cell.value)
    filled.save(book)
    for source, out in ((book, tmp_path / "book.ics"), (files, tmp_path / "files.ics")):
        outcome = nomarium("build", source, "-o", out)
        assert outcome.status == 0, outcome.text
        assert "39 rows read = 39 used" in outcome.out
    lines = [
        [line for line in (tmp_path / f"{name}.ics").read_text().splitlines() if "DTSTAMP" not in line]
        for name in ("book", "files")
    ]
    assert lines[0] == lines[1]
    sheets = openpyxl.load_workbook(book).sheetnames
    assert sheets == [
        "How to fill it in",
        "Settings",
        "Terms",
        "Days off",
        "Cycle",
        "Special days",
        "Bells",
        "Timetable",
        "Rotation",
        "Names",
        "People",
        "Enrolments",
        "Lessons",
        "Events",
    ]


def test_a_survey_explains_a_plan(tmp_path: Path) -> None:
    tables = {
        **BASE,
        **table("Class,Label,Period,Teacher\nKN1,A,1-2,R. Finch\nRG2,A,1,R. Finch"),
        "special-days": "Date,Label\n2026-09-11,none",
    }
    source = folder(tmp_path, tables)
    said = nomarium("survey", source)
    assert said.status == 0
    for part in (
        "cycle of 3 labels, moving each school day",
        "Autumn",
        "Regular",
        "8:30",
        "13:25",
        "KN1",
        "clash: teacher R. Finch is in KN1 and RG2 at once 2 times",
    ):
        assert part in said.out, part
    plan = json.loads(nomarium("survey", source, "--json").out)["plans"][0]
    assert plan["terms"][0]["labels"] == {"A": 2, "B": 1, "C": 1}
    assert plan["terms"][0]["unlabelled"] == 1
    assert [(one["code"], one["meetings"], one["hours"]) for one in plan["classes"]] == [
        ("KN1", 2, 4.17),
        ("RG2", 2, 2.0),
    ]
    assert [day["label"] for day in plan["days"]] == ["A", "B", "C", "A", ""]


def banners(path: Path, tables: dict[str, str]) -> list[str]:
    out = path / "out.ics"
    outcome = nomarium("build", folder(path, tables), "-o", out)
    assert outcome.status == 0, outcome.text
    return [
        f"{e.decoded('DTSTART'):%d}-{e.decoded('DTEND'):%d} {e['SUMMARY']}"
        for e in events_in(out)
        if not hasattr(e.decoded("DTSTART"), "hour")
    ]


def test_banners_for_labels_weeks_and_days_off(tmp_path: Path) -> None:
    tables = {
        "settings": "Setting,Value\nShow labels,yes\nShow weeks,yes\nShow days off,yes\nCycle moves,by weekday",
        "terms": "Name,First day,Last day\nTerm 1,2026-09-07,2026-09-18", "cycle": "Label,Name,Weekday,Week\n1,,Mon,A\n2,Keel day,Mon,B",
        "days-off": "Name,First day,Last day,Kind\nSummer,2026-08-01,2026-08-30,Holiday", "special-days": "Date,Name\n2026-09-07,Launch",
    }  # fmt: skip
    assert banners(tmp_path, tables) == [
        "07-08 Day 1 – Launch",
        "14-15 Keel day",
        "07-12 Term 1 week 1 (A)",
        "14-19 Term 1 week 2 (B)",
        "01-31 Summer",
    ]
    summer = next(event for event in events_in(tmp_path / "out.ics") if event["SUMMARY"] == "Summer")
    assert summer["CATEGORIES"].to_ical() == b"Holiday"


PHRASES = {
    "every B day": "08 11", "every A day and C day": "07 09 10", "last school day of each week": "11", "first school day of the month": "07",
    "every school day until 9 Sept": "07 08 09", "every A day for 1 times": "07", "termly": "07", "every A day except 10 Sept": "07",
}  # fmt: skip


@pytest.mark.parametrize("phrase", PHRASES)
def test_phrases_about_the_year(phrase: str, tmp_path: Path) -> None:
    tables = {
        "terms": TERMS,
        "cycle": CYCLE,
        "bells": BELLS,
        **table(ONE + "KN1,A,1"),
        "events": f'Title,Date,Repeat\nRoll call,2026-09-07,"{phrase}"',
    }
    assert [line[:2] for line in banners(tmp_path, tables)] == PHRASES[phrase].split()
