"""Lists and grids whose dates stand above their rows: a date for each section, or the week of the weekdays."""

from __future__ import annotations

import datetime as dt
import json
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import built, csv_file, nomarium, refused, workbook

DAY = "2026-09-07"
ASSEMBLY, KNOTS = "Assembly 2026-09-07T09:00/2026-09-07T10:00", "Knots 2026-09-08T09:00/2026-09-08T10:00"
A, B = "A 2026-09-07T09:00/2026-09-07T10:00", "B 2026-09-08T09:00/2026-09-08T10:00"

READ = {
    "a date above each day's rows": (
        "Time,Event,Place\nMonday 7 September 2026,,\n9:00,Assembly,Loft\nTuesday 8 September 2026,,\n9:00,Knots,", [],
        [f"{ASSEMBLY} @ Loft", KNOTS], "4 rows read = 2 events + 2 notes",
    ),
    "without headings": (
        "7 Sept 2026,\n9:00,Assembly\n8 Sept 2026,\n9:00,Knots", [], [ASSEMBLY, KNOTS], "+ 2 notes",
    ),
    "headings again under each date": (
        "7 Sept 2026,\nTime,Event\n9:00,Assembly\n8 Sept 2026,\nTime,Event\n9:00,Knots", [], [ASSEMBLY, KNOTS],
        "5 rows read = 2 events + 3 notes",
    ),
    "a remark and a blank row between": (
        "Time,Event\n7 Sept 2026,\n9:00,Assembly\n(lunch at noon),\n,\n8 Sept 2026,\n9:00,Knots", [], [ASSEMBLY, KNOTS],
        "6 rows read = 2 events + 1 blank + 3 notes",
    ),
    "a month heads the numbers of its days, and the next one in its turn": (
        "Saltmarsh Sailing Club,\nSep-26,What,Where\n7,Regatta,\n14-16,Sail course,Loft\nOct-26,What,Where\nFri 2nd,Launch,Slip 1", [],
        ["Regatta 2026-09-07/2026-09-08", "Sail course 2026-09-14/2026-09-17 @ Loft", "Launch 2026-10-02/2026-10-03 @ Slip 1"],
        "The month that heads the days is theirs: “Sep-26”, of 2026.",
    ),
    "days and times under “When” and months": (
        "Programme 2026-27,,\nWhen,What,Where\nSeptember,,\nMon 7,Regatta,\n\"Tue 8, 9am-10am\",Knots,Loft\nOctober,,\nFri 2nd 7pm,Launch,Slip 1", [],
        ["Regatta 2026-09-07/2026-09-08", "Knots 2026-09-08T09:00/2026-09-08T10:00 @ Loft", "Launch 2026-10-02T19:00/2026-10-02T20:00 @ Slip 1"],
        "6 rows read = 3 events + 3 notes",
    ),
    "a month without a year heads the days": (
        "Sept,Event,Time\n7th,Assembly,9:00\n8th,Knots,9:00", ["--school-year", "2026:2027"], [ASSEMBLY, KNOTS], "2 rows read = 2 events",
    ),
    "months under headings, over days and nothing else": (
        "Day,Event\nSeptember 2026,\n7,Regatta\n8,Parade\nOctober 2026,\n2,Launch", [],
        ["Regatta 2026-09-07/2026-09-08", "Parade 2026-09-08/2026-09-09", "Launch 2026-10-02/2026-10-03"], "5 rows read = 3 events + 2 notes",
    ),
    "a day without times": ("Time,Event\n7 Sept 2026,\n,Regatta\n8 Sept 2026,\n9:00,Knots", [], ["Regatta 2026-09-07/2026-09-08", KNOTS], "+ 2 notes"),
    "one column of all": (
        "7 September 2026\nRegatta\nParade\n8 September 2026\nSupper", [],
        ["Regatta 2026-09-07/2026-09-08", "Parade 2026-09-07/2026-09-08", "Supper 2026-09-08/2026-09-09"], "+ 2 notes",
    ),
    "in French": (
        "Horaire;Quoi\nlundi 7 septembre 2026;\n9h;Assembly\nmardi 8 septembre 2026;\n9h;Knots", [], [ASSEMBLY, KNOTS], "French",
    ),
    "without years": (
        "Time,Event\nMon 7 Sept,\n9:00,Assembly\nTue 8 Sept,\n9:00,Knots", ["--school-year", "2026:2027"], [ASSEMBLY, KNOTS], "+ 2 notes",
    ),
    "a week's name above weekdays": ("Week beginning 7 September 2026,,\nTime,Monday,Tuesday\n9:00,A,\n10:00,,\n9:00,,B", [], [A, B], f"from {DAY} on (row 1)"),
    "the weekday settles its figures": ("W/C 7/9/26,,\nTime,Mon,Tue\n9:00-10:00,A,B", [], [A, B], f"from {DAY} on (row 1)"),
    "an order that was asked for settles them": (
        "Week of 6/9/26,,\nTime,Mon,Tue\n9:00-10:00,A,B", ["--date-order", "dmy"], [A, B], "from 2026-09-06 on (row 1)",
    ),
    "the date in a cell of its own": ("W/C,07/09/2026,\nTime,Mon,Tue\n9:00-10:00,A,B", [], [A, B], "(row 1)"),
    "two weeks in one sheet": (
        "W/C,07/09/2026,\nTime,Mon,Tue\n9:00-10:00,A,\n,,\nW/C,14/09/2026,\nTime,Mon,Tue\n9:00-10:00,,B", [],
        [A, "B 2026-09-15T09:00/2026-09-15T10:00"], "(row 1)",
    ),
    "a week that begins on Sunday": (
        "Week of Sunday 6 September 2026,,\nTime,Sun,Mon\n9:00-10:00,S,A", [], ["S 2026-09-06T09:00/2026-09-06T10:00", A], "from 2026-09-06",
    ),
    "weekdays down": ("Week of 7 September 2026,,\n,9:00-10:00,10:00-11:00\nMonday,A,\nTuesday,,C", [], [A, "C 2026-09-08T10:00/2026-09-08T11:00"], "(row 1)"),
    "weekdays in a list": ("W/C 7 September 2026,,\nDay,Time,Event\nMonday,9:00,A\nTuesday,9:00,B", [], [A, B], "3 rows read = 2 events + 1 note"),
    "German weekdays": (
        "Woche vom 7.9.2026;;;;;\nZeit;Montag;Dienstag;Mittwoch;Donnerstag;Freitag\n9:00-10:00;A;B;;;", [], [A, B], f"from {DAY} on (row 1)",
    ),
    "the week is asked for": ("Time,Monday,Tuesday\n9:00-10:00,A,B", ["--day-one", DAY], [A, B], f"from {DAY} on (--day-one)"),
}  # fmt: skip


@pytest.mark.parametrize("name", READ)
def test_dates_above_rows_date_them(name: str, tmp_path: Path) -> None:
    text, options, expected, told = READ[name]
    source = csv_file(tmp_path, text)
    assert built(source, *options) == expected
    assert told in nomarium("build", source, "-o", tmp_path / "again.ics", *options).text


REFUSED = {
    "a second week that nothing names": ("W/C 7 September 2026,\nDay,Event\nMonday,A\nFriday,B\nMonday,C\nFriday,D", ["--day-one"]),
    "a day of a second week": (
        "W/C 7 September 2026,\nDay,Event\nMonday,A\nTuesday,B\nWednesday,C\nThursday,D\nFriday,E\nMonday,F", ["row 8, column A", "“Monday” names a weekday"],
    ),
    "weekdays and no week": ("Time,Monday,Tuesday\n9:00,A,B", ["--day-one", "--terms FILE"]),
    "a week whose figures can be read two ways": ("Week of 6/9/26,,\nTime,Mon,Tue\n9:00,A,B", ["--day-one"]),
    "a date that is not the first weekday": ("9 September 2026,,\nTime,Mon,Tue\n9:00,A,B", ["--day-one"]),
    "one date alone above a table without times": ("7 September 2026,\nWho,Event\nQuill,A\nFenn,B", ["--set date="]),
    "a section's weekday is wrong": ("Time,Event\nTuesday 7 September 2026,\n9:00,A\nTuesday 8 September 2026,\n9:00,B", ["row 3", "a Monday, not a Tuesday"]),
    "sections without a year": ("Time,Event\n7 Sept,\n9:00,A\n8 Sept,\n9:00,B", ["row 3", "no year", "--school-year"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_dates_nothing_is_refused(name: str, tmp_path: Path) -> None:
    text, says = REFUSED[name]
    said = refused(csv_file(tmp_path, text))
    for part in says:
        assert part in said


def test_each_sheet_is_called_after_the_month_of_its_days(tmp_path: Path) -> None:
    rows = [["Day", "Date", "Event"], ["Tue", 1, "Induction"], ["Tue", 8, "Talk"]]
    october = [["Day", "Date", "Event"], ["Thu", 1, "Launch"], ["Thu", 8, "Sale"]]
    source = workbook(tmp_path, [["Notes"]], more={"September 2026": rows, "October 2026": october})
    found = [line.partition("/")[0] for line in built(source)]
    assert found == ["Induction 2026-09-01", "Talk 2026-09-08", "Launch 2026-10-01", "Sale 2026-10-08"]


def test_merged_dates_of_a_workbook_head_sections(tmp_path: Path) -> None:
    rows = [["Open days", None, None], [dt.date(2026, 9, 7), None, None], ["9:00", "Assembly", "Loft"],
            [dt.date(2026, 9, 8), None, None], ["9:00", "Knots", "Loft"]]  # fmt: skip
    assert built(workbook(tmp_path, rows, merged=["A2:C2", "A4:C4"])) == [
        f"{ASSEMBLY} @ Loft",
        f"{KNOTS} @ Loft",
    ]


def test_one_day_is_set_for_all(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Time,Event\n9:00,Assembly")
    assert built(source, "--set", f"date={DAY}") == [ASSEMBLY]


@pytest.mark.parametrize("name", ["a date above each day's rows", "weekdays in a list"])
def test_a_recipe_keeps_the_reading(name: str, tmp_path: Path) -> None:
    text, _, expected, _ = READ[name]
    source, recipe = csv_file(tmp_path, text), tmp_path / "day.toml"
    outcome = nomarium("survey", source, "--save", recipe)
    assert outcome.status == 0 and "note" in outcome.text
    assert built(source, "--recipe", recipe) == expected


def test_rejected_rows_keep_their_section(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Time,Event\n7 Sept 2026,\n9:00,Assembly\n8 Sept 2026,\n25:00,Knots")
    rejects = tmp_path / "rejects.csv"
    outcome = nomarium("build", source, "-o", tmp_path / "x.ics", "--rejects", rejects, "--partial")
    assert outcome.status == 1
    rejects.write_text(rejects.read_text("utf-8").replace("25:00", "9:00"), "utf-8")
    assert built(rejects) == [KNOTS]


CELLS = st.sampled_from(
    "Mon,Tue,Friday,Week,W/C,7 Sept 2026,2026-09-07,14 Sep,Time,Event,9:00,9:00 -,A,x,Tuesday 8 September 2026,"
    "Week of 7/9/26,W/C 14 Sept 2026,n/a,----,".split(",")
)
OPTIONS = st.sampled_from(
    [[], ["--day-one", DAY], ["--school-year", "2026:2027"], ["--as", "grid"], ["--set", f"date={DAY}"]]
)


@given(rows=st.lists(st.lists(CELLS, max_size=5), min_size=1, max_size=8), options=OPTIONS)
@settings(max_examples=150, deadline=None)
def test_whatever_stands_where_every_row_is_accounted_for(
    rows: list[list[str]], options: list[str], tmp_path_factory: pytest.TempPathFactory
) -> None:
    source = tmp_path_factory.mktemp("any") / "any.csv"
    source.write_text("\n".join(",".join(row) for row in rows) + "\n", "utf-8")
    outcome = nomarium("build", source, "-o", source.with_suffix(".ics"), "--json", *options)
    assert outcome.status in (0, 1)
    if '"ledger"' in outcome.out:
        ledger = json.loads(outcome.out)["ledger"]
        assert ledger["read"] == sum(
            ledger[part] for part in ("events", "blank", "notes", "left_out", "rejected")
        )


def test_numbers_of_days_under_their_month_are_no_times(tmp_path: Path) -> None:
    halves = csv_file(tmp_path, "September 2026,Morning,Afternoon\n7,Knots,Sails\n8,Oars,\n9,,Tar")
    found = [line.partition("/")[0] for line in built(halves)]
    assert found == [
        "Knots (Morning) 2026-09-07",
        "Sails (Afternoon) 2026-09-07",
        "Oars (Morning) 2026-09-08",
        "Tar (Afternoon) 2026-09-09",
    ]
    said = refused(csv_file(tmp_path, "September 2026,Sales,Target\n7,100,120\n8,110,120", "b.csv"))
    assert "nothing says of which day" not in said
