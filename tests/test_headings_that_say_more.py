"""What headings add to what stands under them: numbers, names and weeks that say nothing alone, rooms and groups below dates."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused, workbook

WEEK_37 = ("--day-one", "2026-09-07")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "ordinals under what they count": ("Council,,\nMeeting,Date,Chair\n1st,14/09/26,Quill\n2nd,12/10/26,Moss\nAGM,14/12/26,Quill", (), ["Meeting 1st 2026-09-14/2026-09-15", "Meeting 2nd 2026-10-12/2026-10-13", "Meeting AGM 2026-12-14/2026-12-15"]),
    "numbers under what they count": ("Round,Date,Place\n1,14/09/26,Slip 1\n2,12/10/26,Slip 2", (), ["Round 1 2026-09-14/2026-09-15 @ Slip 1", "Round 2 2026-10-12/2026-10-13 @ Slip 2"]),
    "numbers beside titles": ("Session,Date,Topic\n1,14/09/26,Knots\n2,12/10/26,Sails", (), ["Knots 2026-09-14/2026-09-15", "Sails 2026-10-12/2026-10-13"]),
    "names under a post": ("Date,Speaker\n14/09/26,Dr Quill\n12/10/26,F. Moss", (), ["Speaker: Dr Quill 2026-09-14/2026-09-15", "Speaker: F. Moss 2026-10-12/2026-10-13"]),
    "what a room is booked for": ("Booked by,For,From,To\nQuill,Choir,17/09/2026 18:00,17/09/2026 20:00", (), ["Choir 2026-09-17T18:00/2026-09-17T20:00"]),
    "a dash for a date that there is none of": ("Assignment,Set,Due\nTest,-,19 Oct 2026", (), ["Test 2026-10-19/2026-10-20"]),
    "weeks of the year in a planner": ("Deliveries;Mo;Di;Mi;Do;Fr\nKW 37;Wood;;Paint;;\nKW 38;;Tar;;;", WEEK_37, ["Paint 2026-09-09/2026-09-10", "Tar 2026-09-15/2026-09-16", "Wood 2026-09-07/2026-09-08"]),
    "weeks with their year": ("Deliveries;Mo;Di;Mi;Do;Fr\nKW 37/2026;Wood;;Paint;;\nKW 38/2026;;Tar;;;", (), ["Paint 2026-09-09/2026-09-10", "Tar 2026-09-15/2026-09-16", "Wood 2026-09-07/2026-09-08"]),
    "weeks of the year in a list, over its end": ("KW;Tag;Was\n37;Montag;Wood\n38;Fr;Paint\n1;Mo;Tar", WEEK_37, ["Paint 2026-09-18/2026-09-19", "Tar 2027-01-04/2027-01-05", "Wood 2026-09-07/2026-09-08"]),
    "weeks that no word names, beside weekdays": ("Sem.,Jour,Quoi\nS37,lundi,A\nS38,mardi,B", WEEK_37, ["A 2026-09-07/2026-09-08", "B 2026-09-15/2026-09-16"]),
    "weeks of a programme": ("Week,Day,What\n1,Monday,Wood\n3,Wed,Paint", WEEK_37, ["Paint 2026-09-23/2026-09-24", "Wood 2026-09-07/2026-09-08"]),
    "rooms below dates": ("Slot,Mon 14 Sep 2026,,Tue 15 Sep 2026,\n,Loft A,Loft B,Loft A,Loft B\n9:00-10:00,Quill,Moss,Barr,\n10:00-11:00,,,,Lund", (), [
        "Barr 2026-09-15T09:00/2026-09-15T10:00 @ Loft A", "Lund 2026-09-15T10:00/2026-09-15T11:00 @ Loft B", "Moss 2026-09-14T09:00/2026-09-14T10:00 @ Loft B",
        "Quill 2026-09-14T09:00/2026-09-14T10:00 @ Loft A"]),
    "letters of weekdays with the days of a month, and a key in one cell": ("Rota w/c 07.09.26,,,,,\n,M 7,T 8,W 9,T 10,F 11\nQuill,E,,,N,O\nKey: E 07:00-15:00  N 21:30-07:30  O off,,,,,", (), [
        "Quill: E 2026-09-07T07:00/2026-09-07T15:00", "Quill: N 2026-09-10T21:30/2026-09-11T07:30"]),
    "weekdays once over the weeks of a roster with sums": ("Name,Mon,Tue,Wed,Thu,Fri,Total\nw/c 7 Sept 2026,,,,,,\nQuill,9-5,9-5,,9-1,,20\nMoss,,12-8,,,,8\nw/c 14 Sept 2026,,,,,,\nQuill,,,9-5,,,8", (), [
        "Moss 2026-09-08T12:00/2026-09-08T20:00", "Quill 2026-09-07T09:00/2026-09-07T17:00", "Quill 2026-09-08T09:00/2026-09-08T17:00", "Quill 2026-09-10T09:00/2026-09-10T13:00",
        "Quill 2026-09-16T09:00/2026-09-16T17:00"]),
    "parts of the day under a place are no places": ("Hall bookings,Mon 14 Sep 2026,Tue 15 Sep 2026\nMorning,Toddlers,\nEvening,,Choir 7.30", (), [
        "Choir 2026-09-15T19:30/2026-09-15T20:30", "Toddlers (Morning) 2026-09-14/2026-09-15"]),
    "out and back": ("Trip,Out,Back\nMuseum,18/09/2026 08:45,18/09/2026 15:30\nIsland,25/09/2026 07:00,27/09/2026 19:00", (), [
        "Island 2026-09-25T07:00/2026-09-27T19:00", "Museum 2026-09-18T08:45/2026-09-18T15:30"]),
    "days listed without headings": ('Act 1,"14, 16 Sept 2026",7pm\nDress,30 Sept 2026,6.30pm', (), [
        "Act 1 2026-09-14T19:00/2026-09-14T20:00", "Act 1 2026-09-16T19:00/2026-09-16T20:00", "Dress 2026-09-30T18:30/2026-09-30T19:30"]),
    "marks under shifts whose hours stand below": ("Name,Shift,Mon 7 Sep 2026,Tue 8 Sep 2026\nQuill,Early,X,\nFinch,Night,,X\nEarly 7-15,,,\nNight 23-7,,,", (), [
        "Finch 2026-09-08T23:00/2026-09-09T07:00", "Quill 2026-09-07T07:00/2026-09-07T15:00"]),
    "places in brackets behind times of a roster": ("Exam,Mon 10 May 2027,Tue 11 May 2027\nRigging,9:00 (Shed),\nMaths,,13:30 (Loft A)", (), [
        "Maths 2027-05-11T13:30/2027-05-11T14:30 @ Loft A", "Rigging 2027-05-10T09:00/2027-05-10T10:00 @ Shed"]),
    "headings of an export, words run together": ("MeetingDate,StartTime,EndTime,SectionName,RoomName\n2026-09-08,08:30,09:20,Rigging 1,Loft A", (), ["Rigging 1 2026-09-08T08:30/2026-09-08T09:20 @ Loft A"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_headings_are_read_with_what_they_head(kind: str, tmp_path: Path) -> None:
    table, options, events = READ[kind]
    assert sorted(built(csv_file(tmp_path, table), *options)) == sorted(events)


def test_numbers_that_nothing_names_are_no_titles(tmp_path: Path) -> None:
    assert "what each event is called" in refused(csv_file(tmp_path, "No.,Date\n1,14/09/26\n2,12/10/26"))


@pytest.mark.parametrize("heads", ["Apprentices,Journeymen", "Yard,Office"])
def test_what_heads_the_columns_of_a_planner_of_months_is_kept(heads: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f",{heads}\nSept 2026,,\nTue 1,Induction,\nMon 28,Photos,Photos\nOct 2026,,\nFri 2,,Row"
    )
    built(source)
    text = source.with_suffix(".ics").read_text("utf-8")
    first, second = heads.split(",")
    assert (text.count(f"CATEGORIES:{first}"), text.count(f"CATEGORIES:{second}")) == (2, 2)


def test_groups_below_merged_dates_are_told(tmp_path: Path) -> None:
    rows = [
        ["Slot", "Mon 14 Sep 2026", "", "Tue 15 Sep 2026", ""],
        ["", "Apprentices", "Journeymen", "Apprentices", "Journeymen"],
        ["9:00-10:00", "Knots", "Tar", "Oars", ""],
    ]
    book = workbook(tmp_path, rows, merged=("B1:C1", "D1:E1"))
    outcome = nomarium("build", book, "-o", tmp_path / "a.ics")
    assert "Below each date stand Apprentices and Journeymen" in outcome.text
    assert (tmp_path / "a.ics").read_text("utf-8").count("CATEGORIES:Apprentices") == 2
