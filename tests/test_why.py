"""why: from the cell to the calendar, for lists, drawn sheets, plans and calendar files."""

from __future__ import annotations

import json
from pathlib import Path

import pytest

from helpers import csv_file, nomarium
from nomarium.cli.demo import write_samples


@pytest.fixture(scope="module")
def school(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("school")
    write_samples(folder)
    return folder


PLAN = {
    "the way of a meeting": (
        "2026-11-12", "Planking", True,
        ["It is Deck: the school day before, Tuesday 2026-11-10, was Plank."],
        ["PL1 meets on Deck, period 1", "row 9, column C “Period”", "Period 1 is 8:00–9:15 in the bells Regular of Journeymen",
         "2 periods follow each other and are one meeting, 8:00–10:35", "PL1 is called Planking"],
    ),
    "another label": (
        "2026-11-12", "Lofting", True,
        ["Its row 8 is for Keel, Rib and Plank, and the date is Deck.", "It meets next on Tuesday 2026-11-17, Keel."], [],
    ),
    "a day off": (
        "2026-11-11", "Lofting", False,
        ["Remembrance Day / Jour du Souvenir, 2026-11-11, is a day off (Days off row 3).", "It is no school day."], [],
    ),
    "a day off that the cycle goes over": (
        "2026-11-27", "", True, ["was Keel, and Gale warning used up a label"], [],
    ),
    "a weekend": (
        "2026-11-14", "", False,
        ["Saturday is no school day: those are Monday, Tuesday", "The next school day is Monday 2026-11-16, Sail."], [],
    ),
    "between terms": (
        "2026-12-24", "", False, ["outside every term: Autumn / Automne ended on 2026-12-18, and Winter / Hiver begins on 2027-01-05"], [],
    ),
    "a special day without classes": (
        "2026-12-18", "Drawing A", True,
        ["Regatta is a special day (Special days row 3): it is outside the cycle", "nobody has classes (Special days row 3)"], [],
    ),
    "a period that the named bells lack": (
        "2026-10-30", "Drawing B", True, ["Its row 7 is period 6, and the bells Late start have no such period."], [],
    ),
    "a special label": (
        "2027-05-08", "", True, ["Open day is a special day (Special days row 4): it has the label Keel; the cycle waits."], [],
    ),
    "another term": (
        "2026-11-16", "Engines", True, ["and the date is"], [],
    ),
    "the plan's own list": (
        "2026-11-09", "Drawing office", True, [], ["every other Monday until 30 Nov", "It repeats every 2 weeks on Monday"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", PLAN)
def test_a_plan_says_why(name: str, school: Path) -> None:
    date, event, is_school, reasons, steps = PLAN[name]
    outcome = nomarium("why", school / "year", "--on", date, "--json", *(["--event", event] if event else []))
    assert outcome.status == 0, outcome.text
    facts = json.loads(outcome.out)
    assert (facts["date"], facts["school_day"]) == (date, is_school)
    said = "\n".join(facts["reasons"])
    assert [one for one in reasons if one not in said] == [], said
    told = "\n".join(f"{step['text']} {step['where']}" for one in facts["events"] for step in one["steps"])
    assert [one for one in steps if one not in told] == [], told
    if event:
        assert bool(facts["events"]) == bool(steps)
        assert all(event in one["summary"] for one in facts["events"])
    assert nomarium("why", school / "year", "--on", date).out.count("\n") >= 3


def test_a_list_says_what_each_cell_was_read_as(school: Path) -> None:
    outcome = nomarium("why", school / "launch-days.csv", "--on", "2026-11-25")
    assert outcome.status == 0
    for text in ("19:00–21:00  Families' evening", "“25/11/2026” is the date: dates, day first", "row 6, column A “Date”",
                 "An end without am or pm takes the first such time"):  # fmt: skip
        assert text in outcome.out
    none = nomarium("why", school / "launch-days.csv", "--on", "2026-11-26")
    assert "There is no event at all on 2026-11-26." in none.out
    assert "The next one is “Launch of the dory Agnes, if the ice allows” on 2026-12-11." in none.out
    last = nomarium("why", school / "launch-days.csv", "--on", "2028-01-01", "--event", "launch")
    assert "The last one was “Launch of the schooner Constance” on 2027-06-05." in last.out


OTHERS = {
    "a repeat": (["boat-launches.csv", "--on", "2027-01-06", "--until", "2027-06-30", "--days-off", "days-off.csv"],
                 ["It repeats every week on Wednesday until 2027-04-28, from 2027-01-04 on.", "column F “Repeat”"]),
    "a drawn week": (["boat-week.xlsx", "--on", "2027-04-12"], ["drawn as a grid: 8:30 | Moulds and ribbands ⏎ Slip 2 | ", "sheet “Boat week”, row 4", "Read as a grid"]),
    "a calendar file": (["harbour.ics", "--on", "2027-04-09"],
                        ["line 15", "It repeats every month on the 2nd Friday", "moved here from 2027-04-09"]),
    "what was left out": (["launch-days.csv", "--on", "2026-11-25", "--leave-out", "location=Rigging loft"],
                          ["“Families' evening” is left out, as --only or --leave-out asks."]),
    "what was renamed": (["launch-days.csv", "--on", "2026-11-25", "--rename", "Families' evening=Evening"],
                         ["The title “Families' evening” becomes “Evening”, as asked."]),
    "several sources": (["launch-days.csv", "harbour.ics", "--on", "2026-11-25"], ["Families' evening"]),
}  # fmt: skip


@pytest.mark.parametrize("name", OTHERS)
def test_other_sources_say_what_they_know(name: str, school: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    arguments, expected = OTHERS[name]
    monkeypatch.chdir(school)
    outcome = nomarium("why", *arguments)
    assert outcome.status == 0, outcome.text
    assert [text for text in expected if text not in outcome.out] == [], outcome.out


def test_a_built_calendar_keeps_what_made_its_meetings(school: Path, tmp_path: Path) -> None:
    assert nomarium("build", school / "year", "-o", tmp_path / "y.ics").status == 0
    outcome = nomarium("why", tmp_path / "y.ics", "--on", "2026-11-12", "--event", "planking")
    assert "An earlier build noted: class Planking, teacher A. Plover" in outcome.out
    assert "label Deck" in outcome.out


def test_a_day_without_events_names_the_nearest_one(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Event\n2026-09-03,B\n2026-09-01,A\n2026-09-12,D\n2026-09-10,C")
    assert "The next one is “C” on 2026-09-10." in nomarium("why", source, "--on", "2026-09-05").out
    assert "The last one was “D” on 2026-09-12." in nomarium("why", source, "--on", "2026-09-20").out


def test_problems_of_a_source_are_told_and_a_wrong_date_is_refused(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Event\n2026-11-02,A\n2026-31-31,B\n")
    outcome = nomarium("why", source, "--on", "2026-11-02")
    assert outcome.status == 1 and "2026-31-31" in outcome.err and "“A” is the title" in outcome.out
    assert nomarium("why", source, "--on", "November").status == 2


def plan(folder: Path, **tables: str) -> Path:
    """A plan of one class a day, with these tables over the usual ones; a table without text is left out."""
    usual = {
        "terms": "Name,First day,Last day,Division\nAutumn,2026-09-07,2026-12-18,\n",
        "cycle": "Label\nKeel\nRib\nPlank\n",
        "bells": "Period,Start,End\n1,9:00,9:50\n2,10:00,10:50\n",
        "timetable": "Class,Label,Period,Term,First day,Last day,Division\nKN,Keel,1,,,,\n",
        "settings": "Setting,Value\nTime zone,America/Halifax\n",
    }
    (folder / "plan").mkdir()
    for name, text in (usual | tables).items():
        if text:
            (folder / "plan" / f"{name.replace('_', '-')}.csv").write_text(text, "utf-8")
    return folder / "plan"


YEARS = {
    "the first day of the cycle": ({}, "2026-09-07", "KN", ["The cycle begins here, with Keel."], True),
    "a cycle by weekday": (
        {"cycle": "Label,Weekday\nKeel,Monday\nRib,Tuesday\nPlank,Wednesday\nKeel,Thursday\nRib,Friday\n"}, "2026-09-10", "KN",
        ["Thursday is Keel: the cycle moves by weekday."], True,
    ),
    "a week each": (
        {"settings": "Setting,Value\nCycle moves,each week\n"}, "2026-09-15", "KN",
        ["Its week is Rib: the cycle moves each week.", "is for Keel, and the date is Rib."], False,
    ),
    "dates of its own": (
        {"cycle": "Date,Label\n2026-09-07,Keel\n2026-09-08,Rib\n2026-09-10,Keel\n", "terms": ""}, "2026-09-10", "KN",
        ["2026-09-10 is Keel: Cycle says so by its date (Cycle row 4)."], True,
    ),
    "a date that the cycle does not list": (
        {"cycle": "Date,Label\n2026-09-07,Keel\n2026-09-08,Rib\n2026-09-10,Keel\n", "terms": ""}, "2026-09-09", "",
        ["Cycle has no row for 2026-09-09", "The next school day is Thursday 2026-09-10, Keel."], False,
    ),
    "a class that has ended": (
        {"timetable": "Class,Label,Period,Last day\nKN,Keel,1,2026-09-30\n"}, "2026-10-01", "KN",
        ["KN does not meet on Thursday 2026-10-01.", "It met last on"], False,
    ),
    "a class that begins later": (
        {"timetable": "Class,Label,Period,First day\nKN,Keel,1,2026-10-01\n"}, "2026-09-07", "KN", ["begins on 2026-10-01."], False,
    ),
    "a class of another term": (
        {"terms": "Name,First day,Last day\nAutumn,2026-09-07,2026-12-18\nWinter,2027-01-05,2027-03-26\n", "timetable": "Class,Label,Period,Term\nKN,Keel,1,Winter\n"},
        "2026-09-07", "KN", ["is for Winter only, and the date is in Autumn.", "It meets next on"], False,
    ),
    "a division that is closed": (
        {"days_off": "Name,First day,Last day,Division\nHarbour trip,2026-09-10,,Journeymen\n", "timetable": "Class,Label,Period,Division\nKN,Keel,1,Journeymen\nST,Keel,1,Apprentices\n"},
        "2026-09-10", "KN", ["Harbour trip, 2026-09-10, is a day off for Journeymen", "Journeymen has no school then."], False,
    ),
    "the cycle waits": (
        {"days_off": "Name,First day,Last day,Cycle\nGale,2026-09-08,,hold\n"}, "2026-09-08", "KN", ["is a day off (Days off row 2); the cycle waits."], False,
    ),
    "after a day off that used a label up": (
        {"days_off": "Name,First day,Last day,Cycle\nGale,2026-09-08,,pass\n"}, "2026-09-09", "",
        ["It is Plank: the school day before, Monday 2026-09-07, was Keel, and Gale used up a label."], True,
    ),
    "a class on a weekday": (
        {"cycle": "", "timetable": "Class,Label,Period\nKN,Monday,1\n"}, "2026-09-14", "KN", ["Autumn runs from 2026-09-07 to 2026-12-18"], True,
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", YEARS)
def test_every_kind_of_cycle_says_how_a_date_came_by_its_label(name: str, tmp_path: Path) -> None:
    tables, date, event, expected, is_met = YEARS[name]
    outcome = nomarium(
        "why", plan(tmp_path, **tables), "--on", date, "--json", *(["--event", event] if event else [])
    )
    assert outcome.status == 0, outcome.text
    facts = json.loads(outcome.out)
    said = "\n".join(facts["reasons"])
    assert [one for one in expected if one not in said] == [], said
    if event:
        assert bool(facts["events"]) == is_met


def test_times_of_its_own_and_joined_periods_are_told(tmp_path: Path) -> None:
    own = plan(tmp_path, bells="", timetable="Class,Label,Time\nKN,Keel,9:15-10:05\n")
    outcome = nomarium("why", own, "--on", "2026-09-07")
    assert "The row says its times itself: 9:15–10:05." in outcome.out
    joined = tmp_path / "two"
    joined.mkdir()
    outcome = nomarium(
        "why", plan(joined, timetable='Class,Label,Period\nKN,Keel,"1,2"\n'), "--on", "2026-09-07"
    )
    assert "2 periods follow each other and are one meeting, 9:00–10:50." in outcome.out
