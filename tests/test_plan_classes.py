"""Classes of a plan: bells, the timetable in every form, joining, names, lessons, people, splits, tallies."""

from __future__ import annotations

import json
from pathlib import Path

import icalendar
import openpyxl
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from helpers import events_in, nomarium
from test_plan_year import folder

TERMS = "Name,First day,Last day\nAutumn,2026-09-07,2026-09-11"  # Monday to Friday: A B C A B
CYCLE = "Label\nA\nB\nC"
BELLS = "Period,Start,End\n1,8:30,9:30\n2,9:35,10:35\n3,10:50,11:50\n4,12:40,1:25"
BASE = {"terms": TERMS, "cycle": CYCLE, "bells": BELLS}


def meetings(path: Path, tables: dict[str, str], *options: object) -> list[str]:
    """The timed events of a plan that must build: day, times, title and place."""
    out = path / "out.ics"
    outcome = nomarium("build", folder(path, {**BASE, **tables}), "-o", out, *options)
    assert outcome.status == 0, outcome.text
    return [line_of(event) for event in events_in(out) if hasattr(event.decoded("DTSTART"), "hour")]


def line_of(event: icalendar.Event) -> str:
    start, end = event.decoded("DTSTART"), event.decoded("DTEND")
    place = f" @ {event['LOCATION']}" if "LOCATION" in event else ""
    return f"{start:%d %H:%M}-{end:%H:%M} {event['SUMMARY']}{place}"


def table(rows: str) -> dict[str, str]:
    return {"timetable": rows}


ONE = "Class,Label,Period\n"
CASES: dict[str, tuple[dict[str, str], list[str]]] = {
    "a label": (table(ONE + "KN1,A,1"), ["07 08:30-09:30 KN1", "10 08:30-09:30 KN1"]),
    "an empty label is every label": (table(ONE + "KN1,,1"), [f"{day} 08:30-09:30 KN1" for day in ("07", "08", "09", "10", "11")]),
    "lists of both are every combination": (table(ONE + 'KN1,"A, C","1, 3"'),
        ["07 08:30-09:30 KN1", "07 10:50-11:50 KN1", "09 08:30-09:30 KN1", "09 10:50-11:50 KN1", "10 08:30-09:30 KN1", "10 10:50-11:50 KN1"]),
    "a range": (table(ONE + "KN1,B-C,3"), ["08 10:50-11:50 KN1", "09 10:50-11:50 KN1", "11 10:50-11:50 KN1"]),
    "neighbours are joined": (table(ONE + "KN1,C,1-2"), ["09 08:30-10:35 KN1"]),
    "a longer gap is not": (table(ONE + "KN1,C,2-3"), ["09 09:35-10:35 KN1", "09 10:50-11:50 KN1"]),
    "a longer gap that is allowed": ({**table(ONE + "KN1,C,2-3"), "settings": "Setting,Value\nJoin gap,15 min"}, ["09 09:35-11:50 KN1"]),
    "not joined when not wanted": ({**table(ONE + "KN1,C,1-2"), "settings": "Setting,Value\nJoin periods,no"}, ["09 08:30-09:30 KN1", "09 09:35-10:35 KN1"]),
    "not joined in two rooms": (table("Class,Label,Period,Room\nKN1,C,1,Loft\nKN1,C,2,Shed"), ["09 08:30-09:30 KN1 @ Loft", "09 09:35-10:35 KN1 @ Shed"]),
    "12-hour bells run forward": (table(ONE + "KN1,C,4"), ["09 12:40-13:25 KN1"]),
    "bells of any order": ({**table(ONE + "KN1,C,1"), "bells": "Period,Start,End\n2,1:00,2:00\n1,8:00,9:00"}, ["09 08:00-09:00 KN1"]),
    "a first period at one is in the afternoon": ({**table(ONE + "KN1,C,1"), "bells": "Period,Start,End\n1,1:00,2:00"}, ["09 13:00-14:00 KN1"]),
    "times in one cell": ({**table(ONE + "KN1,C,1"), "bells": "Period,Time\n1,8:15–9:10"}, ["09 08:15-09:10 KN1"]),
    "meets": (table("Class,Meets\nKN1,A1 C2"), ["07 08:30-09:30 KN1", "09 09:35-10:35 KN1", "10 08:30-09:30 KN1"]),
    "meets with brackets": (table('Class,Meets\nKN1,"1(A,C) 4(B)"'),
        ["07 08:30-09:30 KN1", "08 12:40-13:25 KN1", "09 08:30-09:30 KN1", "10 08:30-09:30 KN1", "11 12:40-13:25 KN1"]),
    "meets in words": ({"cycle": "Label\n1\n2\n3", **table("Class,Meets\nKN1,Day 3 P2")}, ["09 09:35-10:35 KN1"]),
    "labels and periods by other names": ({"cycle": "Label\n1\n2\n3", **table(ONE + "KN1,Day 3,Period 2")}, ["09 09:35-10:35 KN1"]),
    "names without regard to case": (table("class , LABEL,per-iod\nKN1,c,P2"), ["09 09:35-10:35 KN1"]),
    "weekdays where there is no cycle": ({"cycle": "", **table(ONE + 'KN1,"Mon, Wed",1')}, ["07 08:30-09:30 KN1", "09 08:30-09:30 KN1"]),
    "a term": ({"terms": TERMS + "\nWinter,2026-09-14,2026-09-15", **table("Class,Label,Period,Term\nKN1,,1,Winter")}, ["14 08:30-09:30 KN1", "15 08:30-09:30 KN1"]),
    "first and last day": (table("Class,Label,Period,First day,Last day\nKN1,,1,2026-09-08,2026-09-09"), ["08 08:30-09:30 KN1", "09 08:30-09:30 KN1"]),
    "the same row twice is one": (table(ONE + "KN1,C,1\nKN1,C,1"), ["09 08:30-09:30 KN1"]),
    "bells of a label replace the others": ({**table(ONE + "KN1,,1"), "bells": BELLS.replace("Period", "Label,Period").replace("\n", "\n,").replace("\n,Label", "\nLabel") + "\nC,1,10:00,11:00"},
        ["07 08:30-09:30 KN1", "08 08:30-09:30 KN1", "09 10:00-11:00 KN1", "10 08:30-09:30 KN1", "11 08:30-09:30 KN1"]),
    "bells of a weekday": ({**table(ONE + "KN1,,1"), "bells": "Label,Period,Start,End\n,1,8:30,9:30\nWed,1,10:00,11:00"},
        ["07 08:30-09:30 KN1", "08 08:30-09:30 KN1", "09 10:00-11:00 KN1", "10 08:30-09:30 KN1", "11 08:30-09:30 KN1"]),
    "bells of a division": ({**table("Class,Label,Period,Division\nKN1,C,1,Journeymen\nRG2,C,1,"), "bells": "Division,Period,Start,End\n,1,8:30,9:30\nJourneymen,1,9:00,10:00"},
        ["09 08:30-09:30 RG2", "09 09:00-10:00 KN1"]),
    "a named schedule": ({**table(ONE + "KN1,,1\nRG2,,4"), "special-days": "Date,Bells\n2026-09-09,Late start", "bells": BELLS.replace("Period", "Schedule,Period").replace("\n", "\n,") + "\nLate start,1,10:00,10:40"},
        ["07 08:30-09:30 KN1", "07 12:40-13:25 RG2", "08 08:30-09:30 KN1", "08 12:40-13:25 RG2", "09 10:00-10:40 KN1",
         "10 08:30-09:30 KN1", "10 12:40-13:25 RG2", "11 08:30-09:30 KN1", "11 12:40-13:25 RG2"]),
    "a day off of one division": ({**table("Class,Label,Period,Division\nKN1,,1,Journeymen\nRG2,,1,Apprentices"), "days-off": "Name,First day,Division\nTrip,2026-09-08,Journeymen"},
        ["07 08:30-09:30 KN1", "07 08:30-09:30 RG2", "08 08:30-09:30 RG2", "09 08:30-09:30 KN1", "09 08:30-09:30 RG2",
         "10 08:30-09:30 KN1", "10 08:30-09:30 RG2", "11 08:30-09:30 KN1", "11 08:30-09:30 RG2"]),
    "a special label of one division moves nothing": ({**table("Class,Label,Period,Division\nKN1,A,1,Journeymen\nRG2,B,1,Apprentices"), "special-days": "Date,Label,Division\n2026-09-08,A,Journeymen"},
        ["07 08:30-09:30 KN1", "08 08:30-09:30 KN1", "08 08:30-09:30 RG2", "10 08:30-09:30 KN1", "11 08:30-09:30 RG2"]),
    "a day without a label has no classes": ({"settings": "Setting,Value\nCycle starts,2026-09-10", **table(ONE + "KN1,,1")}, ["10 08:30-09:30 KN1", "11 08:30-09:30 KN1"]),
    "a day outside the cycle has none": ({"special-days": "Date,Label\n2026-09-08,none", **table(ONE + "KN1,B,1")}, ["09 08:30-09:30 KN1"]),
    "names": ({**table("Class,Label,Period,Room\nKN1,C,1,L1"), "names": "Code,Name,Kind\nKN1,Knots,class\nL1,Upper loft,room"}, ["09 08:30-09:30 Knots @ Upper loft"]),
    "a room from Names": ({**table(ONE + "KN1,C,1"), "names": "Code,Name,Room\nKN1,Knots,Loft"}, ["09 08:30-09:30 Knots @ Loft"]),
    "a class that is not kept": ({**table(ONE + "KN1,C,1\nPLAN,C,2"), "names": "Code,Name,Keep\nPLAN,Planning,no"}, ["09 08:30-09:30 KN1"]),
    "a title of templates": ({**table("Class,Label,Period,Room,Teacher\nKN1,C,1-2,Loft,R. Finch\nRG2,C,4,,"), "settings": 'Setting,Value\nEvent title,"{name} ({room}) – {teacher}, {label}{period}"'},
        ["09 08:30-10:35 KN1 (Loft) – R. Finch, C1–2 @ Loft", "09 12:40-13:25 RG2, C4"]),
    "lessons are poured": ({**table(ONE + "KN1,,1"), "lessons": "Class,Title,Meetings\nKN1,Bowline,\nKN1,Splice,2"},
        ["07 08:30-09:30 KN1: Bowline", "08 08:30-09:30 KN1: Splice", "09 08:30-09:30 KN1: Splice", "10 08:30-09:30 KN1", "11 08:30-09:30 KN1"]),
    "events on labels": ({"events": "Title,Date,Start,End,Repeat\nAssembly,2026-09-07,12:00,12:30,every A day"}, ["07 12:00-12:30 Assembly", "10 12:00-12:30 Assembly"]),
    "events on school days": ({"days-off": "Name,First day\nStorm,2026-09-09", "events": "Title,Date,Start,End,Repeat\nRoll call,2026-09-08,8:00,8:10,every school day"},
        ["08 08:00-08:10 Roll call", "10 08:00-08:10 Roll call", "11 08:00-08:10 Roll call"]),
    "events skip days off": ({"days-off": "Name,First day\nStorm,2026-09-09", "events": "Title,Date,Start,End,Repeat\nChoir,2026-09-07,8:00,9:00,daily"},
        ["07 08:00-09:00 Choir", "08 08:00-09:00 Choir", "10 08:00-09:00 Choir", "11 08:00-09:00 Choir"]),
}  # fmt: skip


@pytest.mark.parametrize("name", CASES)
def test_meetings_are_where_they_were_worked_out_to_be(name: str, tmp_path: Path) -> None:
    tables, expected = CASES[name]
    tables = {key: text for key, text in {**BASE, **tables}.items() if text}
    path = folder(tmp_path, tables)
    for unused in set(BASE) - set(tables):
        (path / f"{unused}.csv").unlink(missing_ok=True)
    out = tmp_path / "out.ics"
    outcome = nomarium("build", path, "-o", out)
    assert outcome.status == 0, outcome.text
    found = [line_of(event) for event in events_in(out) if hasattr(event.decoded("DTSTART"), "hour")]
    assert sorted(found) == sorted(expected)


REFUSED = {
    "an unknown label": (table(ONE + "KN1,Q,1"), ["row 2, column B “Label”", "no label “Q”"]),
    "an unknown period": (table(ONE + "KN1,A,9"), ["row 2, column C “Period”", "no period “9”"]),
    "a range that runs backwards": (table(ONE + "KN1,C-A,1"), ["C-A runs backwards"]),
    "no period": (table(ONE + "KN1,A,"), ["has no period"]),
    "no class": (table(ONE + ",A,1"), ["has no class"]),
    "meets beside a period": (table("Class,Label,Period,Meets\nKN1,A,1,B2"), ["Meets beside Label or Period"]),
    "meets that is not understood": (table("Class,Meets\nKN1,Q7"), ["“Q7” is no label with a period"]),
    "an unknown term": (table("Class,Label,Period,Term\nKN1,A,1,Autum"), ["Did you mean Autumn?"]),
    "a period without a bell": ({**table(ONE + "KN1,,2"), "bells": "Label,Period,Start,End\n,1,8:30,9:30\n,2,9:35,10:35\nC,1,10:00,11:00"},
                                ["no bell on 2026-09-09", "must list every period"]),
    "bells that overlap": ({"bells": BELLS + "\n5,9:00,10:00", **table(ONE + "KN1,A,1")}, ["overlaps period"]),
    "a period twice": ({"bells": BELLS + "\n1,14:00,15:00", **table(ONE + "KN1,A,1")}, ["Period 1 is in row 2"]),
    "bells that end before they start": ({"bells": "Period,Start,End\n1,10:00,9:00", **table(ONE + "KN1,A,1")}, ["before it starts at 10:00"]),
    "label and weekday bells on one date": ({**table(ONE + "KN1,,1"), "bells": "Label,Period,Start,End\n,1,8:30,9:30\nC,1,10:00,11:00\nWed,1,9:00,10:00"}, ["meet on one date", "Special days"]),
    "an unknown schedule": ({"special-days": "Date,Bells\n2026-09-09,Late", **table(ONE + "KN1,A,1")}, ["no bell schedule “Late”"]),
    "no bells at all": ({"bells": "", **table(ONE + "KN1,A,1")}, ["no period “1”"]),
    "an unknown division": ({**table("Class,Label,Period,Division\nKN1,A,1,Jorneymen"), "days-off": "Name,First day,Division\nTrip,2026-09-08,Journeymen"}, ["“Jorneymen”", "Did you mean Journeymen?"]),
    "lessons left over": ({**table(ONE + "KN1,C,1"), "lessons": "Class,Title\nKN1,Bowline\nKN1,Splice"}, ["1 lesson from “Splice” on has no meeting left"]),
    "lessons of an unknown class": ({**table(ONE + "KN1,C,1"), "lessons": "Class,Title\nKN2,Bowline"}, ["no class “KN2”", "Did you mean KN1?"]),
    "an unknown phrase": ({"events": "Title,Date,Repeat\nAssembly,2026-09-07,every Q day"}, ["events", "row 2"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_a_bad_plan_is_refused_with_table_row_and_column(name: str, tmp_path: Path) -> None:
    tables, says = REFUSED[name]
    tables = {key: text for key, text in {**BASE, **tables}.items() if text}
    out = tmp_path / "out.ics"
    outcome = nomarium("build", folder(tmp_path, tables), "-o", out)
    assert outcome.status == 1
    assert [part for part in says if part not in outcome.err] == [], outcome.err
    assert not out.exists()


def plan_workbook(
    path: Path, sheets: dict[str, list[list[object]]], merged: dict[str, str] | None = None
) -> Path:
    book = openpyxl.Workbook()
    book.remove(book.active)
    texts = {"Terms": TERMS, "Cycle": CYCLE, "Bells": BELLS}
    rows = {name: [line.split(",") for line in text.splitlines()] for name, text in texts.items()}
    for name, table_rows in {**rows, **sheets}.items():
        sheet = book.create_sheet(name)
        for row in table_rows:
            sheet.append(row)
        for area in [merged[name]] if merged and name in merged else []:
            sheet.merge_cells(area)
    book.save(path / "year.xlsx")
    return path / "year.xlsx"


GRIDS: dict[str, tuple[dict[str, list[list[object]]], dict[str, str], list[str]]] = {
    "labels across": ({"Timetable": [["", "A", "B", "C"], ["1", "", "", "KN1\nLoft"], ["2", "", "RG2 @ Shed", "KN1 (Loft)"]]}, {},
        ["08 09:35-10:35 RG2 @ Shed", "09 08:30-10:35 KN1 @ Loft", "11 09:35-10:35 RG2 @ Shed"]),
    "periods across": ({"Timetable": [["", "1", "2"], ["A", "", ""], ["C", "KN1", "RG2"]]}, {}, ["09 08:30-09:30 KN1", "09 09:35-10:35 RG2"]),
    "a merged double period": ({"Timetable": [["", "A", "B", "C"], ["1", "", "", "KN1"], ["2", "", "", None]]}, {"Timetable": "D2:D3"}, ["09 08:30-10:35 KN1"]),
    "merged over labels": ({"Timetable": [["", "A", "B", "C"], ["1", "", "KN1", None]]}, {"Timetable": "C2:D2"}, ["08 08:30-09:30 KN1", "09 08:30-09:30 KN1", "11 08:30-09:30 KN1"]),
    "a title above": ({"Timetable": [["Autumn timetable"], ["", "Day A", "Day B", "Day C"], ["Period 1", "", "", "KN1"]]}, {}, ["09 08:30-09:30 KN1"]),
    "two people's sheets are one meeting": ({"Timetable - R. Finch": [["", "A", "B", "C"], ["1", "", "", "KN1"]], "Timetable - O. Tern": [["", "A", "B", "C"], ["1", "", "", "KN1"]]}, {}, ["09 08:30-09:30 KN1"]),
}  # fmt: skip


@pytest.mark.parametrize("name", GRIDS)
def test_a_timetable_may_be_a_grid(name: str, tmp_path: Path) -> None:
    sheets, merged, expected = GRIDS[name]
    out = tmp_path / "out.ics"
    outcome = nomarium("build", plan_workbook(tmp_path, sheets, merged), "-o", out)
    assert outcome.status == 0, outcome.text
    assert sorted(map(line_of, events_in(out))) == sorted(expected)
    if "people" in name:
        assert "X-NOMARIUM-TEACHER:R. Finch\\; O. Tern" in out.read_text()


def test_a_date_typed_by_the_spreadsheet_in_a_period_is_refused(tmp_path: Path) -> None:
    import datetime as dt

    book = plan_workbook(
        tmp_path, {"Timetable": [["Class", "Label", "Period"], ["KN1", "A", dt.datetime(2026, 1, 2)]]}
    )
    outcome = nomarium("build", book, "-o", tmp_path / "x.ics")
    assert outcome.status == 1
    assert "one of “1-2”" in outcome.err


FULL = {
    **table("Class,Label,Period,Room,Teacher,Group\nKN1,A-B,1,Loft,R. Finch,Apprentices\nRG2,B-C,1,Shed,O. Tern; R. Finch,Journeymen\nST3,C,4,Loft,,"),
    "people": "Name,Email,Groups\nR. Finch,finch@saltmarsh.example,Staff\nO. Tern,tern@saltmarsh.example,Staff\nA. Knot,knot@saltmarsh.example,Apprentices",
    "events": "Title,Date,Start,End,Audience,Attendees\nStaff tea,2026-09-09,16:00,17:00,Staff,R. Finch",
    "settings": "Setting,Value\nTime zone,America/Halifax\nCalendar name,Saltmarsh\nShow days off,yes",
    "days-off": "Name,First day,Kind\nRegatta,2026-09-12,Holiday",
}  # fmt: skip


def contents(path: Path) -> set[bytes]:
    return {event.to_ical() for event in events_in(path)}


@pytest.mark.parametrize("field", ["teacher", "class", "room", "group", "label", "person"])
def test_the_union_of_a_split_is_the_whole(field: str, tmp_path: Path) -> None:
    source = folder(tmp_path, {**BASE, **FULL})
    whole, parts = tmp_path / "whole.ics", tmp_path / "parts"
    assert nomarium("build", source, "-o", whole).status == 0
    assert nomarium("build", source, "-o", parts, "--split-by", field).status == 0
    files = sorted(parts.glob("*.ics"))
    assert set().union(*(contents(file) for file in files)) == contents(whole)
    for file in files:
        assert b"SUMMARY:Regatta" in file.read_bytes()  # banners go into every file
    again = tmp_path / "again"
    nomarium("build", source, "-o", again, "--split-by", field)
    assert [file.read_bytes() for file in files] == [(again / file.name).read_bytes() for file in files]


def test_a_person_gets_what_they_teach_and_what_their_groups_see(tmp_path: Path) -> None:
    parts = tmp_path / "parts"
    nomarium("build", folder(tmp_path, {**BASE, **FULL}), "-o", parts, "--split-by", "person")
    assert sorted(file.name for file in parts.iterdir()) == [
        "a-knot.ics",
        "no-person.ics",
        "o-tern.ics",
        "r-finch.ics",
    ]
    titles = {file.stem: {str(event["SUMMARY"]) for event in events_in(file)} for file in parts.iterdir()}
    assert titles["o-tern"] == {"RG2", "Staff tea", "Regatta"}
    assert titles["a-knot"] == {"KN1", "Regatta"}
    assert titles["no-person"] == {"ST3", "Regatta"}


def test_addresses_go_into_events_and_never_into_class_meetings(tmp_path: Path) -> None:
    out = tmp_path / "out.ics"
    nomarium("build", folder(tmp_path, {**BASE, **FULL}), "-o", out)
    people = {str(event["SUMMARY"]): str(event.get("ATTENDEE", "")) for event in events_in(out)}
    assert people["Staff tea"] == "mailto:finch@saltmarsh.example"
    assert {people["KN1"], people["RG2"]} == {""}


def test_a_class_keeps_its_uids_when_it_is_renamed_or_moved(tmp_path: Path) -> None:
    out = tmp_path / "out.ics"
    source = folder(tmp_path, {**BASE, **table(ONE + "KN1,A,1")})
    nomarium("build", source, "-o", out)
    before = [str(event["UID"]) for event in events_in(out)]
    for tables in ({"names": "Code,Name\nKN1,Knots", **table(ONE + "KN1,A,2")}, table(ONE + "KN1,B,2")):
        folder(tmp_path, tables)
        assert nomarium("build", source, "-o", out).status == 0
        assert [str(event["UID"]) for event in events_in(out)] == before
    assert str(events_in(out)[0]["SUMMARY"]) == "Knots"


def test_a_tally_counts_meetings_hours_labels_and_losses(tmp_path: Path) -> None:
    bells = BELLS.replace("Period", "Schedule,Period").replace("\n", "\n,") + "\nLate start,1,10:00,10:40"
    tables = {
        **BASE,
        **table(ONE + "KN1,,1-2\nRG2,A,4"),
        "bells": bells,
        "special-days": "Date,Bells\n2026-09-09,Late start",
    }
    source = folder(tmp_path, tables)
    facts = json.loads(nomarium("tally", source, "--per", "term", "--json").out)
    lines = {line["name"]: line for line in map(as_line, facts["lines"])}
    assert lines["KN1"] == {
        "name": "KN1",
        "meetings": 5,
        "periods": 9,
        "hours": 9.0,
        "by_span": {"Autumn": 5},
        "not_met": 1,
        "uneven": False,
    }
    assert lines["RG2"]["meetings"] == 2
    assert facts["labels"] == {"A": {"Autumn": 2}, "B": {"Autumn": 2}, "C": {"Autumn": 1}}
    assert facts["school_days"] == {"Autumn": 5}
    out = tmp_path / "out.ics"
    nomarium("build", source, "-o", out)
    from_calendar = json.loads(nomarium("tally", out, "--per", "term", "--json").out)
    assert [line[:5] for line in from_calendar["lines"]] == [line[:5] for line in facts["lines"]]
    for name in ("tally.csv", "tally.xlsx", "tally.png", "tally.svg"):
        outcome = nomarium("tally", source, "-o", tmp_path / name)
        assert outcome.status == 0, outcome.text
        assert (tmp_path / name).stat().st_size > 40
    rows = (tmp_path / "tally.csv").read_text("utf-8-sig").splitlines()
    assert rows[:2] == ["Class,2026-09,Meetings,Periods,Hours,Not met,Uneven", "KN1,5,5,9,9.0,1,"]
    assert nomarium("tally", source, "--by", "weather").status == 2


def as_line(values: list[object]) -> dict[str, object]:
    return dict(
        zip(("name", "meetings", "periods", "hours", "by_span", "not_met", "uneven"), values, strict=True)
    )


def test_uneven_classes_are_marked(tmp_path: Path) -> None:
    tables = {
        **BASE,
        "terms": "Name,First day,Last day\nAutumn,2026-09-07,2026-09-11",
        **table(ONE + "KN1,A,1\nRG2,B,1\nST3,C,1"),
    }
    tables["cycle"] = "Label\nA\nB\nC\nD"
    tables["special-days"] = "Date,Label,Cycle\n2026-09-08,A,hold\n2026-09-09,A,hold"
    outcome = nomarium("tally", folder(tmp_path, tables), "--json")
    lines = {line[0]: (line[2], line[6]) for line in json.loads(outcome.out)["lines"]}
    assert lines == {"KN1": (3, False), "RG2": (1, True), "ST3": (1, True)}


def test_clashes_are_told_at_the_end(tmp_path: Path) -> None:
    tables = table(
        "Class,Label,Period,Room,Teacher\nKN1,A,1,Loft,R. Finch\nRG2,A,1,Shed,R. Finch\nST3,A,2,Loft,"
    )
    outcome = nomarium("build", folder(tmp_path, {**BASE, **tables}), "-o", tmp_path / "out.ics")
    assert "1 clash: teacher R. Finch is in KN1 and RG2 at once (first on 2026-09-07, 2 times)" in outcome.out


def test_of_several_clashes_the_first_is_told(tmp_path: Path) -> None:
    tables = table(
        "Class,Label,Period,Room,Teacher\nKN1,A,1,Loft,R. Finch\nRG2,A,1,Shed,R. Finch\nST3,A,2,Loft,T. Roe\nWV4,A,2,Loft,O. Moss"
    )
    outcome = nomarium("build", folder(tmp_path, {**BASE, **tables}), "-o", tmp_path / "out.ics")
    assert (
        "2 clashes: teacher R. Finch is in KN1 and RG2" in outcome.out and "--json lists all" in outcome.out
    )


def test_an_option_beats_a_setting_with_a_note(tmp_path: Path) -> None:
    outcome = nomarium(
        "build", folder(tmp_path, {**BASE, **FULL}), "-o", tmp_path / "out.ics", "--timezone", "Europe/Paris"
    )
    assert "--timezone Europe/Paris beats the setting America/Halifax of the plan" in outcome.out


def test_a_sheet_or_column_of_no_use_is_named_with_the_nearest_word(tmp_path: Path) -> None:
    tables = {
        **BASE,
        "timetabel": "x",
        "people": "Name,Email,Shoe size\nR. Finch,f@saltmarsh.example,44",
        **table(ONE + "KN1,A,1"),
    }
    outcome = nomarium("build", folder(tmp_path, tables), "-o", tmp_path / "out.ics")
    assert "“timetabel” is no part of a plan: it is passed over. Did you mean Timetable?" in outcome.out
    assert "no use for a column “Shoe size”" in outcome.out


cells = st.sampled_from(
    ["", "A", "B", "1", "2", "1-2", "A-C", "Mon", "2026-09-08", "9/9/2026", "8:30", "1:00", "yes", "none", "hold", "pass", "each week",
     "KN1", "Cycle moves", "First label", "Late", "?", "#REF!", "=1+1", "\u202e", "R. Finch; O. Tern", "Autumn", "1(A,B)", "-", "9" * 40]
)  # fmt: skip
HEADS = {
    "settings": "Setting,Value", "terms": "Name,First day,Last day,Division", "days-off": "Name,First day,Last day,Cycle,Division",
    "cycle": "Label,Name,Weekday,Week", "special-days": "Date,Last day,Label,Cycle,Bells,Division", "bells": "Schedule,Label,Division,Period,Start,End",
    "timetable": "Class,Label,Period,Meets,Room,Teacher,Term,Division,First day", "names": "Code,Name,Kind,Keep,Color",
    "people": "Name,Email,Groups", "lessons": "Class,Title,Meetings", "events": "Title,Date,Start,Repeat",
}  # fmt: skip
GOOD = {**BASE, **table(ONE + "KN1,A,1")}


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.sampled_from(sorted(HEADS)), st.lists(st.lists(cells, min_size=1, max_size=9), min_size=1, max_size=4)
)
def test_garbage_in_a_plan_is_a_problem_and_never_a_crash(
    tmp_path: Path, name: str, rows: list[list[str]]
) -> None:
    width = HEADS[name].count(",") + 1
    lines = [",".join(f'"{cell}"' for cell in (row + [""] * width)[:width]) for row in rows]
    good = (
        GOOD.get(name, HEADS[name])
        if name != "bells"
        else HEADS[name]
        + "\n"
        + "\n".join(
            ",,," + line.split(",", 1)[0] + "," + line.split(",", 1)[1] for line in BELLS.splitlines()[1:]
        )
    )
    head = good if good.startswith(HEADS[name]) else HEADS[name]
    source = folder(tmp_path, {**GOOD, name: "\n".join([head, *lines])})
    out = tmp_path / "out.ics"
    out.unlink(missing_ok=True)
    outcome = nomarium("build", source, "-o", out, "--json")
    facts = json.loads(outcome.out)
    ledger = facts["ledger"]
    assert ledger["read"] == sum(
        ledger[part] for part in ("events", "blank", "notes", "left_out", "rejected")
    )
    assert min(ledger.values()) >= 0
    assert out.exists() == (outcome.status == 0)
    (source / f"{name}.csv").unlink()
