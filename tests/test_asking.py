"""--ask: questions on a terminal, driven through a pseudo-terminal."""

from __future__ import annotations

import datetime as dt
import os
import sys
from pathlib import Path

import pytest

from helpers import csv_file, events_in, nomarium
from nomarium.cli.asked import Asked
from nomarium.cli.asking import answers_in, with_answer
from nomarium.model.problem import Problem

pexpect = pytest.importorskip("pexpect")

PLAIN = {**os.environ, "NO_COLOR": "1", "TERM": "dumb", "COLUMNS": "120"}
WHICH, KEEP = r"Which\? \(Enter leaves it open\): ?", r"Keep them as a recipe\?[^:]*: ?"

ASKED = {
    "the order of dates": (
        "Date,Start,Event\n04/05/2027,10:00,Visit\n06/05/2027,11:00,Tour\n",
        [(WHICH, "2"), (KEEP, "")],
        ["It could be 4 May 2027 or 5 April 2027", "1  --date-order dmy", "row 2: Tue 2027-05-04 10:00  Visit", "row 2: Mon 2027-04-05 10:00  Visit"],
        ["2027-04-05T10:00:00", "2027-06-05T11:00:00"],
    ),
    "the school year and a month written once": (
        "Month,Day,Event\nSeptember,3,A\n,4,B\n",
        [(WHICH, "3"), (WHICH, "1"), (KEEP, "reading")],
        ["3 September has no year", "--fill-down Month", "Your answers as options:", "Kept in reading.toml"],
        None,
    ),
    "from when to when": (
        "Course,Meets,Time\nKnots,Mondays,7-8.30pm\n",
        [(WHICH, "1"), (r"--from \(like [\d-]+\): ?", "2026-09-14"), (WHICH, "1"), (r"--until[^:]*: ?", "2026-09-21"), (KEEP, "")],
        ["nothing says from when to when they repeat", "(you type it)"],
        ["2026-09-14T19:00:00", "2026-09-21T19:00:00"],
    ),
    "an answer that makes no sense": (
        "Course,Meets,Time\nKnots,Mondays,7-8.30pm\n",
        [(WHICH, "1"), (r"--from[^:]*: ?", "Monday")],
        ["--from Monday is not a whole date"],
        [],
    ),
    "which of two columns is the title": (
        "Date,Event,Title\n2026-10-05,Launch,Petrel\n2026-10-06,Race,Heron\n", [(WHICH, "2"), (KEEP, "")],
        ["--column Event=summary", "row 2: Mon 2026-10-05  Launch", "--column Title=summary", "row 2: Mon 2026-10-05  Petrel"],
        ["2026-10-05", "2026-10-06"],
    ),
    "what a column of times is": (
        "Date,Event,Start,End,Arrive\n2026-10-05,Launch,9:00,10:00,8:45\n", [(WHICH, "2"), (KEEP, "")],
        ["The column “Arrive” holds times", "--column Arrive=description", "--column Arrive="], ["2026-10-05T09:00:00"],
    ),
    "what a code of weekdays means": (
        "Course,Days,Time,First,Last\nKnots,TH,9:00-9:50,2026-09-07,2026-09-18\n", [(WHICH, "2"), (KEEP, "")],
        ["“TH” could be Thursday or Tuesday and Thursday", "--weekdays TH=Thu", '--weekdays "TH=Tue Thu"'],
        ["2026-09-08T09:00:00", "2026-09-10T09:00:00", "2026-09-15T09:00:00", "2026-09-17T09:00:00"],
    ),
    "a question that is left open": (
        "Date,Start,Event\n04/05/2027,10:00,Visit\n", [(WHICH, "")], ["Nothing was written: 1 problem"], [],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", ASKED)
def test_questions_are_put_and_their_answers_hold(name: str, tmp_path: Path) -> None:
    text, talk, expected, starts = ASKED[name]
    csv_file(tmp_path, text)
    child = pexpect.spawn(
        sys.executable, ["-m", "nomarium", "build", "events.csv", "-o", "o.ics", "--ask"], cwd=tmp_path, env=PLAIN,
        encoding="utf-8", timeout=30, dimensions=(50, 120),
    )  # fmt: skip
    said = ""
    for prompt, answer in talk:
        child.expect(prompt)
        said += child.before + child.after
        child.sendline(answer)
    child.expect(pexpect.EOF)
    said += child.before
    child.close()
    assert [one for one in expected if one not in said] == [], said
    if starts is not None:
        assert child.exitstatus == (0 if starts else 1), said
        there = events_in(tmp_path / "o.ics") if starts else []
        assert [event["DTSTART"].dt.isoformat() for event in there] == starts
    else:
        assert (tmp_path / "reading.toml").exists()
        assert (
            nomarium(
                "build",
                tmp_path / "events.csv",
                "-o",
                tmp_path / "p.ics",
                "--recipe",
                tmp_path / "reading.toml",
            ).status
            == 0
        )


def test_nobody_is_asked_where_there_is_no_terminal(tmp_path: Path) -> None:
    outcome = nomarium("survey", csv_file(tmp_path, "Date,Event\n04/05/2027,A\n"), "--ask")
    assert outcome.status == 2
    assert "--ask puts questions on a terminal" in outcome.err


REMEDIES = {
    "two orders": ("Say which with --date-order dmy (day first) or --date-order mdy (month first).", ["--date-order dmy", "--date-order mdy"]),
    "a heading with a blank": ('or, if a date written once holds for the rows below it: --fill-down "First day".', ["--fill-down First day"]),
    "leave it out, or say": ('Say what it is with --column "Doors=time", or leave it out with --column "Doors=".', ["--column Doors=time", "--column Doors="]),
    "examples are typed": ("Say so: --from 2026-09-07 --until 2026-12-18, or --terms FILE with the dates of the terms.", ["--from ?", "--until ?", "--terms ?"]),
    "a word of the sentence is no value": ("Give --until too.", ["--until ?"]),
    "a placeholder is typed": ('Say what happens then: --set-code "N=TITLE".', ["--set-code ?"]),
    "a heading in capitals is no placeholder": ('Say which one it is: --column "TITLE=summary".', ["--column TITLE=summary"]),
    "clocks": ("Say how all are meant: --clock 12 (afternoon) or --clock 24 (night).", ["--clock 12", "--clock 24"]),
    "the school years around": (
        "Say which school year it is in: --school-year 2026:2027.",
        ["--school-year 2025:2026", "--school-year 2026:2027", "--school-year 2027:2028"],
    ),
    "an option that is no reading": ("Or --partial writes the rest; give --expect 3.", []),
    "a switch": ("--keep-extra puts them into the description.", []),
    "no option": ("Write the date like 2027-04-12 or 12 April 2027.", []),
    "the same twice": ("Give --until DATE, or --until 2026-12-18.", ["--until ?"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REMEDIES)
def test_the_options_that_a_remedy_names_become_answers(name: str) -> None:
    remedy, expected = REMEDIES[name]
    answers = answers_in(Problem("any", "Something is open.", remedy), dt.date(2026, 11, 27))
    assert [f"{one.flag} {one.value or '?'}" for one in answers] == expected


def test_an_answer_joins_what_the_command_line_said() -> None:
    asked = Asked(sources=["list.csv"], column=["A=summary"], date_order=None)
    more = with_answer(with_answer(asked, "--column", "B=start"), "--date-order", "dmy")
    assert (more.column, more.date_order, more.sources) == (["A=summary", "B=start"], "dmy", ["list.csv"])
    assert (asked.column, asked.date_order) == (["A=summary"], None), "what was asked before stays as it was"
    assert more.said() == "--column A=summary --column B=start --date-order dmy"
