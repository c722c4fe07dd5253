"""What a refusal advises, followed to the letter, changes the outcome and leads to no wrong calendar; what cannot apply is not advised."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused

FOLLOWED: dict[str, tuple[str, tuple[str, ...], tuple[str, ...], list[str]]] = {
    "one week of rows with several weekdays": (
        "Squad,Days,Start,Finish\nJuniors,Tue & Thu,4.30pm,6pm\nMasters,Sat,8am,10am", (), ("--day-one", "2026-09-07"),
        ["Juniors 08T16:30", "Juniors 10T16:30", "Masters 12T08:00"],
    ),
    "one week of run-together weekdays": (
        "Clinic,Days,Time\nRigging,MWF,9-12\nEyes,TTh,1.30-4", (), ("--day-one", "2026-09-07"),
        ["Rigging 07T09:00", "Rigging 09T09:00", "Rigging 11T09:00", "Eyes 08T13:30", "Eyes 10T13:30"],
    ),
    "how long each lasts": (
        "Case,Hearing,Duration est.\nPell v Quist,7 Sep 2026 at 10am,2 hrs\nMoss v Lund,8 Sep 2026 at 2pm,90 min", (), ("--column", "Duration est.=duration"),
        ["Pell v Quist 07T10:00", "Moss v Lund 08T14:00"],
    ),
    "a rota of names": (
        "w/c,Consultant,Registrar,Notes\nMon 7 Sep 2026,Dr Oakes,Dr Pell,\nMon 14 Sep 2026,Dr Lorne,Dr Pell,leave", (), ("--as", "roster"),
        ["Consultant: Dr Oakes 07", "Registrar: Dr Pell 07", "Consultant: Dr Lorne 14", "Registrar: Dr Pell 14"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", FOLLOWED)
def test_advice_followed_to_the_letter_leads_to_the_right_events(kind: str, tmp_path: Path) -> None:
    table, options, advised, expected = FOLLOWED[kind]
    source = csv_file(tmp_path, table)
    assert all(word in refused(source, *options) for word in advised if word[:2] == "--")
    found = {one.split("/")[0].replace("2026-09-", "") for one in built(source, *options, *advised)}
    assert found == set(expected)


NOT_ADVISED: dict[str, tuple[str, str, str]] = {
    "one day for rounds with dates of their own": (
        "Round 1 (5 Sept 2026),,Round 2 (12 Sept 2026),\nHome,Away,Home,Away\nKeel,Rib,Rib,Mast\nPlank,Mast,Keel,Plank", "--set date=", "Give each row its date",
    ),
    "one day for rows of months": ("Month,Events\nJanuary 2027,4 Term starts; 12 Works\nFebruary 2027,9 Works; 15-19 Half term", "--set date=", "--column"),
    "a roster of patients": (
        "Patient,Appt,Clinic,Tel\nA Barr,12/01/2027 0930,Eyes,01234 567890\nB Moss,13/01/2027 1015,Feet,01234 098765", "--as roster", "--title",
    ),
    "measures as dates": ("Tides\nDate,Height (m),Depth (m)\nThu,4.1,0.8\nFri,4.0,0.9", "Height (m)=date", "→"),
    "an extra time as the time": ("Exam,Date,Length,Extra time\nRig,11 Jan 2027,1h30,1h52\nTar,12 Jan 2027,45 mins,56 mins", "Extra time=time", "→"),
}  # fmt: skip


@pytest.mark.parametrize("kind", NOT_ADVISED)
def test_what_cannot_apply_is_not_advised(kind: str, tmp_path: Path) -> None:
    table, never, instead = NOT_ADVISED[kind]
    text = refused(csv_file(tmp_path, table))
    assert never not in text and instead in text


READ: dict[str, tuple[str, list[str]]] = {
    "times of a month under its name": (
        "September 2026\nDay,Dawn,Noon,Sunset\n1,05:48,13:12,18:55\n2,05:49,13:12,18:53\n3,05:50,13:12,18:51",
        [f"{what} {day:02}T{at}" for day, times in ((1, "05:48 13:12 18:55"), (2, "05:49 13:12 18:53"), (3, "05:50 13:12 18:51")) for what, at in zip(("Dawn", "Noon", "Sunset"), times.split(), strict=True)],
    ),
    "tides under a title with their month": (
        "Tides at Saltmarsh September 2026\nDate,High water,Low water\nTue 1,03:12,09:20\nWed 2,03:55,10:02",
        ["High water 01T03:12", "Low water 01T09:20", "High water 02T03:55", "Low water 02T10:02"],
    ),
    "times on and off": ("Date,Duty manager,Time on,Time off\nTue 1 Sep 2026,Pell,8,17\nWed 2 Sep 2026,Quist,13,22", ["Pell 01T08:00", "Quist 02T13:00"]),
    "a regatta whose lanes are numbered": (
        "Regatta programme Sat 5 Sep 2026\nRace,Time,Class,Lane 1,Lane 2\n1,10:00,Novice,Keel,Rib\n2,10:15,Senior,Deck,Keel", ["Novice 05T10:00", "Senior 05T10:15"],
    ),
    "days side by side under their titles": (
        "Visit\nDay 1 – Mon 7 Sep 2026,,Day 2 – Tue 8 Sep 2026,\n8.30,Arrive,9.00,Lessons\n9.00,Tour,10.30,Depart",
        ["Arrive 07T08:30", "Tour 07T09:00", "Lessons 08T09:00", "Depart 08T10:30"],
    ),
    "slots called after halves of the day": (
        "Duty,Mon 7 Sep 2026,Tue 8 Sep 2026\nAM (8.15-8.35),AP,CL\nBreak (10.40-11.00),CL,AP\nPM (3.10-3.25),AP,BQ",
        ["AP 07T08:15", "CL 08T08:15", "CL 07T10:40", "AP 08T10:40", "AP 07T15:10", "BQ 08T15:10"],
    ),
    "feasts beside dates": (
        "Date,Event\nGood Friday 26 March 2027,Walk\n28 March 2027 - Easter Sunday,Breakfast\nChristmas Eve 24 Dec 2026 11.30pm,Vigil",
        ["Walk 2027-03-26", "Breakfast 2027-03-28", "Vigil 2026-12-24T23:30"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_what_a_person_reads_at_a_glance_is_read(kind: str, tmp_path: Path) -> None:
    table, expected = READ[kind]
    found = {one.split("/")[0].replace("2026-09-", "") for one in built(csv_file(tmp_path, table))}
    assert found == set(expected)


def test_a_feast_on_another_weekday_is_refused(tmp_path: Path) -> None:
    assert "2027-03-22 is a Monday, not a Sunday." in refused(
        csv_file(tmp_path, "Date,Event\nPalm Sunday 22 March 2027,Parade")
    )


def test_a_title_that_says_on_which_days_of_its_week_it_is_is_refused(tmp_path: Path) -> None:
    table = "Week,Events\n4-8 Jan 2027,Mon: INSET; Tue: term starts\n11-15 Jan 2027,Wed: open evening 6pm"
    assert "says on which of its days it is, and would be all of them" in refused(csv_file(tmp_path, table))
