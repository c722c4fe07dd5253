"""Rows with several dates, with a length in days, and with a first and a last day: each event keeps what its row says."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused


def test_each_date_of_a_row_keeps_what_the_row_says(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Task,Class,Location,Notes,Category,Link,Crew,Handed out,Due back\n"
        "Knots,Keel A,Loft 2,bring rope,rope,https://a.example/x,Moss,2026-10-05,2026-10-19\n",
    )
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out, "--keep-extra").status == 0
    found = events_in(out)
    assert [str(one["summary"]) for one in found] == ["Knots: Handed out", "Knots: Due back"]
    for one in found:
        assert str(one["location"]) == "Loft 2"
        assert "bring rope" in str(one["description"]) and "Crew: Moss" in str(one["description"])
        assert one["categories"].cats == ["rope"] and str(one["url"]) == "https://a.example/x"
        assert str(one["x-nomarium-class"]) == "Keel A"


@pytest.mark.parametrize("row", ["Knots,Cancelled,", "CANCELLED: Knots,,"])
def test_no_date_of_a_cancelled_row_is_held(tmp_path: Path, row: str) -> None:
    source = csv_file(
        tmp_path, f"Task,Status,Notes,Review,Sign-off\n{row},2026-10-05,2026-10-19\nOars,,,2026-10-06,\n"
    )
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out).status == 0
    assert [(str(one["summary"]), str(one.get("status", ""))) for one in events_in(out)] == [
        ("Knots: Review", "CANCELLED"), ("Knots: Sign-off", "CANCELLED"), ("Oars: Review", ""),
    ]  # fmt: skip


def test_a_date_beside_that_of_the_row_has_its_groups_and_neither_its_place_nor_its_people(
    tmp_path: Path,
) -> None:
    source = csv_file(
        tmp_path,
        "Meeting,Date,Start,Location,Audience,Attendees,Papers due\n"
        "Crew,2026-10-19,14:00,Loft 2,Journeymen,moss@saltmarsh.example,2026-10-12\n",
    )
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out).status == 0
    meeting, due = events_in(out)
    assert str(meeting["location"]) == "Loft 2" and "attendee" in meeting
    assert str(due["summary"]) == "Crew: Papers due" and "location" not in due and "attendee" not in due
    assert str(due["x-nomarium-audience"]) == "Journeymen"


def test_only_the_doubtful_date_of_a_row_is_tentative(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Task,Review,Sign-off\nKnots,2026-10-05,2026-10-19 (TBC)\nOars,2026-10-06,2026-10-20\n"
    )
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out).status == 0
    doubtful = [str(one["summary"]) for one in events_in(out) if one.get("status") == "TENTATIVE"]
    assert doubtful == ["Knots: Sign-off"]


def test_an_identity_of_a_row_is_not_that_of_two_events(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "UID,Task,Review,Sign-off\nk1,Knots,2026-10-05,2026-10-19\n")
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out).status == 0
    assert len({str(one["uid"]) for one in events_in(out)}) == 2


@pytest.mark.parametrize(
    ("length", "last", "fits"),
    [
        ("5 days", "09/10/2026", True), ("4 days", "09/10/2026", True), ("6 days", "09/10/2026", False), ("3 days", "05/10/2026", False),
        ("10 days", "16/10/2026", True), ("2 weeks", "16/10/2026", True), ("3 weeks", "16/10/2026", False),
    ],
)  # fmt: skip
def test_a_length_in_days_fits_between_the_first_and_the_last(
    tmp_path: Path, length: str, last: str, fits: bool
) -> None:
    source = csv_file(
        tmp_path, f"Who,From,To,Length\nMoss,05/10/2026,{last},{length}\nFern,19/10/2026,23/10/2026,5 days\n"
    )
    if fits:
        assert len(built(source)) == 2
    else:
        text = refused(source)
        assert "The length is" in text and "row 2" in text


def test_nights_fit_between_the_arrival_and_the_departure(tmp_path: Path) -> None:
    text = "Guest,Arrival,Departure,Nights\nMoss,2026-10-05,2026-10-09,{}\nFern,2026-10-14,2026-10-15,1\n"
    assert "Moss 2026-10-05/2026-10-10" in built(csv_file(tmp_path, text.format(4)))
    assert "The length is 8 days" in refused(csv_file(tmp_path, text.format(8), "wrong.csv"))


CALLED_OFF = {
    "planner": "Week beginning,Mon,Tue,Wed,Update\n2026-10-05,Knots,Oars,Sails,\n2026-10-12,Sails,Ropes,Knots,{}\n",
    "dates across": "Name,Mon 5 Oct 2026,Tue 6 Oct 2026,Wed 7 Oct 2026,Remark\nMoss,9-12,9-12,13-17,\nFern,9-12,9-12,13-17,{}\n",
    "dates down": "Date,Morning,Afternoon,Status\n2026-10-05,Knots,Oars,\n2026-10-06,Sails,Knots,{}\n2026-10-07,Oars,Sails,\n",
    "day sheet": "Programme 5 October 2026\n\nTime,Loft 1,Loft 2,Notes\n9:00,Knots,Oars,\n10:00,Sails,Ropes,{}\n11:00,Oars,Knots,\n",
}


@pytest.mark.parametrize("drawing", CALLED_OFF)
@pytest.mark.parametrize("word", ["CANCELLED", "cancelled", "Fällt aus", "annulé", "Postponed"])
def test_what_is_called_off_beside_a_drawing_is_not_held(tmp_path: Path, drawing: str, word: str) -> None:
    text = refused(csv_file(tmp_path, CALLED_OFF[drawing].format(word)))
    assert f"“{word}”" in text
    assert built(csv_file(tmp_path, CALLED_OFF[drawing].format("see board"), "other.csv"))


@pytest.mark.parametrize("headings", ["From,Until", "Start,End", "First day,Last day", "von,bis"])
@pytest.mark.parametrize("has_number", [False, True])
def test_a_duty_lasts_until_the_last_day_of_its_row(tmp_path: Path, headings: str, has_number: bool) -> None:
    rows = [
        "05/10/2026,11/10/2026,Moss,Fern",
        "12/10/2026,18/10/2026,Fern,Rowe",
        "19/10/2026,,Rowe,Moss",
    ]
    lines = [f"{headings},Engineer,Backup", *rows]
    numbered = [f"{number},{line}" for number, line in zip(["Week", "41", "42", "43"], lines, strict=True)]
    source = csv_file(tmp_path, "\n".join(numbered if has_number else lines))
    out = tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", out, "--as", "roster")
    assert outcome.status == 0
    assert (
        "(18 is no month)" in outcome.text
        or "(11 is no month)" in outcome.text
        or "(19 is no month)" in outcome.text
    )
    found = [(str(one["summary"]), str(one["dtstart"].dt), str(one["dtend"].dt)) for one in events_in(out)]
    assert sorted(found) == [
        ("Backup: Fern", "2026-10-05", "2026-10-12"), ("Backup: Moss", "2026-10-19", "2026-10-20"),
        ("Backup: Rowe", "2026-10-12", "2026-10-19"), ("Engineer: Fern", "2026-10-12", "2026-10-19"),
        ("Engineer: Moss", "2026-10-05", "2026-10-12"), ("Engineer: Rowe", "2026-10-19", "2026-10-20"),
    ]  # fmt: skip


QUESTIONS = {
    "Event": ["What is the name of the event?", "What's your event called?", "What are you planning?", "Please give the name of the event"],
    "Date": ["What date is it?", "On which date will the event be held?", "When will it take place?", "What is the date of the event?"],
    "Start": ["What time does it start?", "At what time will the event begin?", "What is the start time?", "From what time?"],
    "End": ["When does it finish?", "What time will the event end?", "What is the end time of the event?", "Until when?"],
    "Location": ["Where will it be held?", "What is the venue?", "Where does the event take place?", "In which venue is it?"],
}  # fmt: skip


@pytest.mark.parametrize("n", range(4))
def test_headings_may_ask(tmp_path: Path, n: int) -> None:
    """The answers to a form: whoever filled it in, and when, is no event."""
    asked = [forms[(n + at) % 4] for at, forms in enumerate(QUESTIONS.values())]
    source = csv_file(
        tmp_path,
        f"Timestamp,What is your name?,{','.join(asked)},Any comments?\n"
        "2026-09-01 10:22:11,A. Moss,Knots,2026-10-05,18:00,20:00,Loft 2,\n"
        "2026-09-03 11:02:45,B. Fern,Oar day,2026-10-14,9:00,15:30,Shed 3,bring lunch\n",
    )
    out = tmp_path / "out.ics"
    assert nomarium("build", source, "-o", out).status == 0
    found = [
        (
            str(one["summary"]),
            f"{one['dtstart'].dt:%Y-%m-%d %H:%M}",
            f"{one['dtend'].dt:%H:%M}",
            str(one["location"]),
        )
        for one in events_in(out)
    ]
    assert found == [
        ("Knots", "2026-10-05 18:00", "20:00", "Loft 2"), ("Oar day", "2026-10-14 09:00", "15:30", "Shed 3"),
    ]  # fmt: skip


def test_words_under_a_weekday_that_are_none_are_told(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "What,Date,Day\nKnots,05/10/2026,Inset\nOars,19/10/2026,Mon\nSails,20/10/2026,Tue (am)\n"
    )
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert (
        outcome.status == 0
        and "row 2: What stands in the column of weekdays and is none is not used." in outcome.text
    )
    assert "row 3" not in outcome.text.replace("row 3 is “19/10/2026”", "") and "row 4" not in outcome.text


@pytest.mark.parametrize("heading", ["Location", "Where", "Venue", "Ort", "Lieu"])
def test_the_place_of_a_row_of_a_rota_is_nobodys_duty(tmp_path: Path, heading: str) -> None:
    rows = ["2026-10-05,Moss,Fern,Pier", "2026-10-06,Fern,Moss,Quay", "2026-10-07,Moss,Fern,Pier"]
    found = built(csv_file(tmp_path, "\n".join([f"Date,Opener,Closer,{heading}", *rows])), "--as", "roster")
    assert len(found) == 6 and "Closer: Moss 2026-10-06/2026-10-07 @ Quay" in found
    rows = [row.replace("Pier", "Rowe").replace("Quay", "Fern") for row in rows]
    assert (
        len(
            built(
                csv_file(tmp_path, "\n".join([f"Date,Opener,Closer,{heading}", *rows]), "n.csv"),
                "--as",
                "roster",
            )
        )
        == 9
    )


@pytest.mark.parametrize(
    ("heading", "cells", "kept"),
    [
        ("Team", ("Pier", "Quay"), True), ("Role", ("Rigger", "Cook"), True), ("Phone", ("902 555 0100", "902 555 0101"), False),
        ("Email", ("a@saltmarsh.example", "b@saltmarsh.example"), False), ("Notes", ("new", "left-handed"), False), ("Hours", ("40", "32"), False),
    ],
)  # fmt: skip
def test_what_stands_beside_a_name_is_its_kind_or_is_told(
    tmp_path: Path, heading: str, cells: tuple[str, str], kept: bool
) -> None:
    source = csv_file(
        tmp_path,
        f"Name,{heading},Mon 5 Oct 2026,Tue 6 Oct 2026,Wed 7 Oct 2026\n"
        f"Moss,{cells[0]},9-12,13-17,9-12\nFern,{cells[1]},13-17,9-12,OFF\n",
    )
    out = tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", out)
    assert outcome.status == 0 and len(events_in(out)) == 5
    kinds = {one["categories"].cats[0] for one in events_in(out) if "categories" in one}
    assert kinds == (set(cells) if kept else set())
    assert (f"Not used: the column “{heading}”" in outcome.text) is not kept


@pytest.mark.parametrize(
    "cells", ["902 555 0100|902 555 0101", "a@saltmarsh.example|b@saltmarsh.example", "$4|$5.50"]
)
def test_how_to_reach_somebody_is_nobodys_duty(tmp_path: Path, cells: str) -> None:
    one, two = cells.split("|")
    text = f"Duty rota\n\nDate,Opener,Closer,More\n2026-10-05,Moss,Fern,{one}\n2026-10-06,Fern,Moss,{two}\n2026-10-07,Moss,Fern,{one}\n"
    out = tmp_path / "out.ics"
    outcome = nomarium("build", csv_file(tmp_path, text), "-o", out)
    assert outcome.status == 0 and len(events_in(out)) == 6 and "Not used: the column “More”" in outcome.text
    if "@" in cells:
        text = f"Duty rota\n\nDate,Opener,Closer\n2026-10-05,{one},{two}\n2026-10-06,{two},{one}\n2026-10-07,{one},{two}\n"
        assert len(built(csv_file(tmp_path, text, "by_address.csv"))) == 6


def test_a_day_with_two_full_stops_is_no_time(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Herbst 2026;;\n\nKurs;Von;Bis\nKnoten;05.10.;11.10.\nSegel;12.10.;18.10.\nRuder;26.10.;01.11.\n",
    )
    assert built(source) == [
        "Knoten 2026-10-05/2026-10-12",
        "Segel 2026-10-12/2026-10-19",
        "Ruder 2026-10-26/2026-11-02",
    ]
    source = csv_file(tmp_path, "Kurs;Datum;Zeit\nKnoten;15.10.2026;9.05.\n", "times.csv")
    assert built(source) == ["Knoten 2026-10-15T09:05/2026-10-15T10:05"]


@pytest.mark.parametrize(
    "headings",
    [
        "Horodateur,Quel est le nom de l'événement ?,À quelle date ?,À quelle heure commence-t-il ?,À quelle heure finit-il ?",
        "Zeitstempel,Wie heißt die Veranstaltung?,An welchem Tag?,Wann beginnt es?,Wann endet es?",
    ],
)
def test_headings_ask_in_french_and_german_and_when_it_was_filled_in_is_no_date(
    tmp_path: Path, headings: str
) -> None:
    rows = (
        "2026-09-01 10:22:11,Knots,15/10/2026,18:00,20:00\n2026-09-03 11:02:45,Oars,21/11/2026,9:00,15:30\n"
    )
    assert built(csv_file(tmp_path, f"{headings}\n{rows}")) == [
        "Knots 2026-10-15T18:00/2026-10-15T20:00", "Oars 2026-11-21T09:00/2026-11-21T15:30",
    ]  # fmt: skip


def test_a_column_of_dates_that_nobody_named_can_be_named_as_told(tmp_path: Path) -> None:
    text = "Marque,Event,Fixé pour le,Begins\n2026-09-01 10:22:11,Knots,15/10/2026,18:00\n2026-09-03 11:02:45,Oars,21 novembre,9:00\n"
    source = csv_file(tmp_path, text)
    assert '--column "Fixé pour le=date"' in refused(source)
    found = built(source, "--column", "Fixé pour le=date")
    assert (
        "Knots 2026-10-15T18:00/2026-10-15T19:00" in found
        and "Oars 2026-11-21T09:00/2026-11-21T10:00" in found
    )
