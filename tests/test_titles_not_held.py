"""Titles whose last words say that what they name is not held, in rows with and without times and in drawn cells."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import csv_file, events_in, nomarium, refused
from nomarium.reading.cells.notheld import may_be_off
from nomarium.reading.rows.calledoff import is_off

NOT_HELD = [
    "Probe entfällt", "Chorprobe abgesagt", "Kurs ausgefallen", "Probe fällt heute aus", "Der Kurs muss leider ausfallen", "Cours annulé",
    "Réunion annulée", "Le cours est annulé", "La séance sera supprimée", "Clase cancelada", "Clase suspendida", "No se celebra: la clase no tendrá lugar",
    "Lezione annullata", "La lezione non avrà luogo", "Les vervalt", "Aula suspensa", "Lektion inställd", "Lekcja odwołana", "Net making not happening",
    "Gig race not running", "Race no longer taking place", "Race will not take place", "The club won't meet this week", "Race does not run",
    "Race rained off", "Race suspended", "Race delayed until further notice", "Kurs fällt aus.", "Yoga geannuleerd!",
]  # fmt: skip
HELD = [
    "Film evening", "Sail training", "At the last", "Mill Lane", "Spring fiesta", "Head held high", "Officer called Reed", "Pont suspendu",
    "Evening not to be missed", "Entrega de reporte", "Open door", "Post office talk", "Rain dance", "Call for crews", "Stage annulé?", "Caffè in sospeso",
    "Not running but rowing", "Why the Gale was not built", "Do not miss: the last race", "New sails", "Fallen oak", "Versailles", "Instruments",
    "Probe verlegt in Raum 12", "Cours déplacé au 2e étage", "Clase trasladada al aula 3", "Les verplaatst naar lokaal 12", "Race moved to 12 Dock Street",
    "Nova 2027", "Nouvel élan",
]  # fmt: skip


@pytest.mark.parametrize("title", NOT_HELD)
@pytest.mark.parametrize("times", ["14:00,15:00", ","])
def test_such_titles_are_written_as_cancelled(title: str, times: str, tmp_path: Path) -> None:
    table = f'Title,Date,Start,End\nRopes,2026-10-05,{times}\n"{title}",2026-10-14,{times}\nKnots,2026-10-15,{times}\n'
    assert nomarium("build", csv_file(tmp_path, table), "-o", tmp_path / "out.ics").status == 0
    ropes, other, knots = events_in(tmp_path / "out.ics")
    assert (other["SUMMARY"], other["STATUS"]) == (title, "CANCELLED")
    assert "STATUS" not in ropes and "STATUS" not in knots
    assert may_be_off(title)


@pytest.mark.parametrize("title", HELD)
@pytest.mark.parametrize("times", ["14:00,15:00", ","])
def test_titles_that_sound_like_these_are_held(title: str, times: str, tmp_path: Path) -> None:
    table = f'Title,Date,Start,End\n"{title}",2026-10-14,{times}\nRopes,2026-10-05,{times}\n'
    assert nomarium("build", csv_file(tmp_path, table), "-o", tmp_path / "out.ics").status == 0
    found = events_in(tmp_path / "out.ics")
    assert {event["SUMMARY"] for event in found} == {"Ropes", title}
    assert not any("STATUS" in event for event in found) and not is_off(title)


def test_a_drawn_cell_that_is_not_held_is_cancelled_too(tmp_path: Path) -> None:
    rows = [
        "October 2026",
        "Mon,Tue,Wed,Thu,Fri",
        ",,,1,2",
        "5 Probe entfällt,6,7,8 Ropes,9",
        "12,13,14,15,16",
        "19,20,21,22,23",
        "26,27,28,29,30",
    ]
    assert nomarium("build", csv_file(tmp_path, "\n".join(rows)), "-o", tmp_path / "out.ics").status == 0
    found = {event["SUMMARY"]: event.get("STATUS") for event in events_in(tmp_path / "out.ics")}
    assert found == {"Probe entfällt": "CANCELLED", "Ropes": None}


@pytest.mark.parametrize(
    "title",
    ["Regatta - changed to Friday", "Regatta now on Friday", "Regatta put back a week", "Regatta brought forward by two days", "Race (now next Friday)",
     "Race moved to next week", "Probe verschoben auf 21. Oktober", "Probe (neuer Termin 21.10.)", "Probe vertagt auf nächste Woche", "Probe jetzt am 21. Oktober",
     "Probe verschoben um eine Woche", "Cours (reporté au 21 octobre)", "Cours déplacé au vendredi", "Cours - nouvel horaire 18h", "Cours reporté à demain",
     "Clase aplazada al 21 de octubre", "Clase adelantada a las 9", "Lezione spostata al 21 ottobre", "Lezione (nuova data: 21 ottobre)",
     "Les verplaatst naar vrijdag", "Aula adiada para 21 de outubro", "Lektion flyttad till 21 oktober", "Lekcja przełożona na 21 października"],
)  # fmt: skip
def test_titles_that_are_moved_to_another_day_are_refused(title: str, tmp_path: Path) -> None:
    table = f"Title,Date,Start,End\nRopes,2026-10-05,14:00,15:00\n{title},2026-10-14,14:00,15:00\n"
    said = refused(csv_file(tmp_path, table))
    assert "row 3" in said and title in said


def test_a_row_on_the_day_to_which_its_title_is_moved_stands(tmp_path: Path) -> None:
    table = "Title,Date,Start,End\nCours (reporté au 21 octobre),2026-10-21,14:00,15:00\nRopes,2026-10-05,14:00,15:00\n"
    assert nomarium("build", csv_file(tmp_path, table), "-o", tmp_path / "out.ics").status == 0
    assert len(events_in(tmp_path / "out.ics")) == 2


@pytest.mark.parametrize(
    "remark",
    [
        "verschoben auf 21. Oktober",
        "reporté au 21 octobre",
        "Neuer Termin: 21.10.",
        "aplazada al 21 de octubre",
    ],
)
def test_notes_that_move_a_row_refuse_it_in_any_language(remark: str, tmp_path: Path) -> None:
    table = f"Title,Date,Notes\nRopes,2026-10-05,Bring gloves\nKnots,2026-10-14,{remark}\n"
    said = refused(csv_file(tmp_path, table))
    assert "row 3" in said and remark in said


DRAWN = {
    "a grid": "Time,14 Oct 2026,15 Oct 2026\n13:00-14:00,{},Tar\n14:00-15:00,Sails,Oars\n",
    "a month": "October 2026\nMon,Tue,Wed,Thu,Fri\n,,,1,2\n5,6,7,8 Tar,9\n12,13,{},15,16\n19,20,21,22,23\n26,27,28,29,30\n",
    "a planner": "Week beginning,Mon,Tue,Wed,Thu,Fri\n5 October 2026,,,Tar,,\n12 October 2026,,Sails,{},,\n19 October 2026,,,,Oars,\n",
    "a day sheet": "Programme for 14 October 2026\nTime,Hall,Loft\n13:00,{},Tar\n14:00,Sails,Oars\n15:00,Rig,Mast\n",
}  # fmt: skip


@pytest.mark.parametrize("kind", DRAWN)
@pytest.mark.parametrize(
    "cell", ["Knots (cancelled)", "Knots\nCANCELLED", "Knots entfällt", "Cancelled: Knots"]
)
def test_what_is_cancelled_in_a_drawn_cell_is_no_place_and_no_event(
    kind: str, cell: str, tmp_path: Path
) -> None:
    filled = f"14 {cell}" if kind == "a month" else cell
    source = csv_file(tmp_path, DRAWN[kind].replace("{}", f'"{filled}"'))
    assert (outcome := nomarium("build", source, "-o", tmp_path / "out.ics")).status == 0, outcome.text
    events = events_in(tmp_path / "out.ics")
    said = [event for event in events if "Knots" in event["SUMMARY"]]
    assert [event["STATUS"] for event in said] == ["CANCELLED"]
    assert not any("ancel" in f"{event.get('LOCATION', '')}".lower() for event in events)
    assert not any("STATUS" in event for event in events if event not in said)
