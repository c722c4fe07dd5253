"""Headings to fields, tables in sheets, and what columns settle together, tested on the core itself."""

from __future__ import annotations

import datetime as dt

import pytest

from nomarium.model.problem import column_letter
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.moments import read_moment
from nomarium.reading.cells.relativedays import day_of_programme
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.columns import assign_columns
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.columns.evidence import decide
from nomarium.reading.columns.head import find_head
from nomarium.reading.columns.headings import is_placeholder, match_heading, near_field, unit_of
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text, is_blank

HEADINGS = {
    "summary": "Subject, Title, Event Name, What, Activity, TITLE *, Titre, Événement, Veranstaltung, Betreff, Asunto, Onderwerp, Events",
    "date": "Date, Start Date, StartDate, start_date, Event date:, Date de début, Datum, Startdatum, Fecha de inicio, Begindatum, Date / Fecha",
    "end-date": "End Date, To date, Last day, Date de fin, Enddatum, Fecha fin, Einddatum",
    "start": "Start, Start Time, Begins, From, Heure de début, Beginn, Startzeit, Hora de inicio, Aanvang, Begintijd",
    "end": "End, End time, Finish, Until, To, Heure de fin, Ende, Hora fin, Einde, Eindtijd",
    "time": "Time, Time slot, Heure, Horaire, Uhrzeit, Hora, Tijd",
    "when": "When, Date and time, DateTime, Quand, Fecha y hora",
    "all-day": "All day event, All Day, Allday, Journée entière, Ganztägig, Todo el día, Hele dag",
    "location": "Location, Venue, Where, Lieu, Ort, Lugar, Plaats, Locaton",
    "description": "Description, Notes, Comments, Remarques, Bemerkungen, Observaciones, Opmerkingen, Descripton",
    "categories": "Category, Categories, Type, Catégorie, Kategorie, Tipo",
    "audience": "Audience, Access groups, Who should see it, Zielgruppe, Doelgroep",
    "organizer": "Organizer, Organiser, Host, Meeting Organizer, Responsable, Veranstalter",
    "attendees": "Required Attendees, Participants, Invitees, Teilnehmer, Deelnemers",
    "busy": "Availability, Free/Busy, Verfügbarkeit",
    "privacy": "Sensitivity, Privacy, Sensibilité",
    "reminder": "Reminder, Alarm, Rappel, Erinnerung",
    "duration": "Duration, Length (min), Durée, Dauer, Duración, Duur",
    "uid": "UID, Unique ID",
    "teacher": "Teacher, Instructor, Enseignant, Lehrer, Profesora, Docent",
    "room": "Room, Classroom, Salle, Raum, Lokaal",
}


@pytest.mark.parametrize("field", HEADINGS)
def test_spellings_in_five_languages(field: str) -> None:
    found = {heading: match_heading(heading) for heading in HEADINGS[field].split(", ")}
    assert {heading: match and match.field for heading, match in found.items()} == dict.fromkeys(found, field)


@pytest.mark.parametrize(
    "heading", ["Opponent", "Mileage", "Billing Information", "Vak", "x", "", "Startled", "Bus"]
)
def test_other_headings_name_nothing(heading: str) -> None:
    assert match_heading(heading) is None


def test_headings_that_say_nothing_units_and_near_fields() -> None:
    assert [is_placeholder(text) for text in ("", "Column1", "Unnamed: 3", "F2", "b", "Boat")] == [
        True
    ] * 5 + [False]
    assert [unit_of(text).date_order for text in ("Date (mm/dd/yyyy)", "Datum (TT.MM.JJJJ)", "Date")] == [
        "mdy",
        "dmy",
        "",
    ]
    assert [unit_of(text).length_secs for text in ("Length (min)", "Duration in hours", "Hours", "Length")][
        0::2
    ] == [60, 3600]
    assert (near_field("titel"), near_field("sumary"), near_field("zzz")) == ("summary", "summary", None)
    assert [column_letter(n) for n in (0, 25, 26, 701, 702)] == ["A", "Z", "AA", "ZZ", "AAA"]


def sheet_of(text: str, **more) -> Sheet:
    """A sheet from lines parted by bars."""
    rows = [[cell.strip() for cell in line.split("|")] for line in text.strip("\n").splitlines()]
    return Sheet("list.csv", "", lambda: enumerate(rows, 1), **more)


@pytest.mark.parametrize(
    ("text", "headers", "first", "titles"),
    [
        ("Date|Title\n2027-04-05|A", (1,), 2, ()),
        ("Saltmarsh\n|\nDate|Title|Place\n2027-04-05|A|B", (3,), 4, (1,)),
        ("Spring term|2027\nDate|Title\n2027-04-05|A", (2,), 3, (1,)),
        ("2027-04-05|A\n2027-04-06|B", (), 1, ()),
        ("Our list\n2027-04-05|A", (), 2, (1,)),
        ("Sortie|Jour du départ\nA|2027-04-05", (1,), 2, ()),
        ("Event|Start||End|\n|Date|Time|Date|Time\nA|2027-04-05|9:00||", (1, 2), 3, ()),
    ],
)
def test_where_the_table_is(text: str, headers, first: int, titles) -> None:
    head = find_head(sheet_of(text))
    assert head is not None
    assert (head.header_rows, head.first_row, head.title_rows) == (headers, first, titles)


def test_a_blank_sheet_has_no_table() -> None:
    assert find_head(sheet_of(" | \n | ")) is None
    assert is_blank(["", "  "])
    assert not is_blank(["", 0.0])


def columns_of(text: str, options: ReadingOptions = ReadingOptions()):  # noqa: B008
    sheet = sheet_of(text)
    head = find_head(sheet)
    assert head is not None
    rows = [row for _, row in list(sheet.rows())[head.first_row - 1 :]]
    return sheet, head, assign_columns(sheet, head, rows, options)


@pytest.mark.parametrize(
    ("text", "fields"),
    [
        ("Date|Description|Notes\n2027-04-05|A|x", "date summary description"),
        ("Date|Name\n2027-04-05|A", "date summary"),
        ("Name|Event|Date\nAnn|A|2027-04-05", "- summary date"),
        ("Day|Date|Event\nMon|2027-04-05|A", "day date summary"),
        ("Week|Day|Title\n1|2|A", "week day summary"),
        ("From|To|Event\n2027-04-05|2027-04-06|A", "start end summary"),
        ("From|To|Trip|Date\nHalifax|Bay|A|2027-04-05", "- - summary date"),
        ("At|Event|Date\n9:00|A|2027-04-05", "start summary date"),
        ("Event|Date|Hours\nA|2027-04-05|9:00–17:00", "summary date time"),
        ("Title|Title|Date\nA|A|2027-04-05", "summary summary date"),
        ("Title|Subject|Date\nA||2027-04-05", "summary - date"),
    ],
)
def test_columns_take_their_fields_from_heading_and_content(text: str, fields: str) -> None:
    _, _, columns = columns_of(text)
    assert " ".join(column.field or "-" for column in columns) == fields


def test_what_was_asked_for_beats_the_headings() -> None:
    options = ReadingOptions(columns={"opponent": "summary", "Title": "", "C": "location"})
    _, _, columns = columns_of("Title|Opponent|x|Date\nA|B|y|2027-04-05", options)
    assert [(c.field, c.how) for c in columns][:3] == [
        ("", "asked"),
        ("summary", "asked"),
        ("location", "asked"),
    ]


def decisions_of(text: str, **options) -> Decisions:
    chosen = ReadingOptions(**options)
    sheet, head, columns = columns_of(text, chosen)
    rows = list(sheet.rows())[head.first_row - 1 :]
    return decide(sheet, columns, rows, chosen, ENGLISH)


@pytest.mark.parametrize(
    ("text", "order", "evidence"),
    [
        ("Date|Title\n05/04/2027|A\n13/04/2027|B", "dmy", "13 is no month"),
        ("Date|Title\n04/05/2027|A\n04/13/2027|B", "mdy", "13 is no month"),
        ("Date|Title\nMon 05/04/2027|A", "dmy", "only then is it a Monday"),
        ("Date|Day|Title\n05/04/2027|Tuesday|A", "mdy", "only then is it a Tuesday"),
        ("Date|End date|Title\n05/04/2027|03/05/2027|A", "dmy", "end before it starts"),
        ("Date (dd/mm/yyyy)|Title\n05/04/2027|A", "dmy", "the heading"),
        ("Date|Title\n99/12/31|A\n99/11/30|B", "ymd", "99 is no month"),
        ("Date|Title\n5/5/2027|A", "", ""),
        ("Date|Title\n2027-04-05|A", "", ""),
    ],
)
def test_the_order_of_figures_and_its_evidence(text: str, order: str, evidence: str) -> None:
    decisions = decisions_of(text)
    assert decisions.order == order
    assert (evidence in decisions.order_evidence) or evidence.startswith("99")
    assert decisions.order_refusal is None


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("Date|Title\n05/04/2027|A", "date-ambiguous"),
        ("Date|Title\n5.4.2027|A", "date-ambiguous"),
        ("Date|Title\n5-4-2027|A", "date-ambiguous"),
        ("Date|Title\n13/04/2027|A\n04/13/2027|B", "date-orders-differ"),
        ("Date|Title\n27/04/12|A\n28/09/30|B\n26/11/02|C", "date-ambiguous"),
    ],
)
def test_what_nothing_settles_is_refused(text: str, code: str) -> None:
    refusal = decisions_of(text).order_refusal
    assert refusal is not None
    assert refusal.code == code
    assert "--date-order" in refusal.remedy


def day_in(text: str, decisions: Decisions) -> dt.date | Refusal:
    moment = read_moment(text, "date", ENGLISH)
    assert not isinstance(moment, Refusal)
    assert moment.first is not None
    return resolve_day(moment.first, decisions)


def test_years_are_those_of_the_school_year_and_nothing_else() -> None:
    window = (dt.date(2026, 9, 1), dt.date(2027, 6, 30))
    decisions = decisions_of("Date|Title\n5 April|A", school_year=window)
    assert day_in("5 April", decisions) == dt.date(2027, 4, 5)
    assert day_in(
        "29 February",
        decisions_of("Date|Title\n5 April|A", school_year=(dt.date(2027, 9, 1), dt.date(2028, 6, 30))),
    ) == dt.date(2028, 2, 29)
    outside = day_in("15 July", decisions)
    assert isinstance(outside, Refusal)
    assert "not within the school year" in outside.message
    long = decisions_of("Date|Title\n5 April|A", school_year=(dt.date(2026, 1, 1), dt.date(2027, 12, 31)))
    twice = day_in("5 April", long)
    assert isinstance(twice, Refusal)
    assert "more than one year" in twice.message
    assert day_in("Mon 5 April", long) == dt.date(2027, 4, 5)


def test_a_weekday_alone_finds_no_year() -> None:
    refusal = day_in("Mon 5 April", decisions_of("Date|Title\nMon 5 April|A"))
    assert isinstance(refusal, Refusal)
    assert refusal.code == "date-no-year"


@pytest.mark.parametrize(
    ("week", "day", "expected"),
    [
        ("1", "1", "2027-04-05"),
        ("Week 2", "Wed", "2027-04-14"),
        ("W3", "", "2027-04-19"),
        ("", "17", "2027-04-21"),
        ("", "Day 3", "2027-04-07"),
    ],
)
def test_programmes_count_from_day_one(week: str, day: str, expected: str) -> None:
    assert str(day_of_programme(dt.date(2027, 4, 5), week, day, ENGLISH)) == expected


@pytest.mark.parametrize(("week", "day"), [("soon", "1"), ("1", "8"), ("1", "someday"), ("99999", "1")])
def test_programmes_refuse_what_is_no_count(week: str, day: str) -> None:
    result = day_of_programme(
        dt.date(9000, 4, 5) if week == "99999" else dt.date(2027, 4, 5), week, day, ENGLISH
    )
    assert isinstance(result, Refusal)


@pytest.mark.parametrize(
    ("cell", "text"),
    [(12.0, "12"), (0.5, "0.5"), (True, "yes"), (dt.date(2027, 4, 5), "2027-04-05"), (dt.datetime(2027, 4, 5, 9), "2027-04-05 09:00"),
     (dt.time(9, 30), "09:30"), (dt.timedelta(hours=26), "26:00"), ("  a ", "a")],
)  # fmt: skip
def test_cells_as_a_person_reads_them(cell, text: str) -> None:
    assert cell_text(cell) == text
