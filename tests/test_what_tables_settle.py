"""What a table's cells settle together, and what single texts say: the parts of reading, one by one."""

from __future__ import annotations

import datetime as dt
import zipfile
from pathlib import Path
from zoneinfo import ZoneInfo

import pytest

from helpers import built, csv_file, events_in, nomarium, refused, workbook
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.model.templates import filled
from nomarium.reading.cells.bookkeeping import is_bookkeeping
from nomarium.reading.cells.choices import says_cancelled
from nomarium.reading.cells.markup import without_html
from nomarium.reading.cells.times import read_times
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.clocks import clock_from
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.columns.swapped import exchanged_back
from nomarium.reading.columns.titles import title_columns
from nomarium.reading.columns.yearsabove import YearAbove
from nomarium.reading.rows.calledoff import without_cancellation
from nomarium.reading.rows.lone import lone_event
from nomarium.reading.rows.several import several_days
from nomarium.reading.rows.titles import TitleMaker, is_no_title
from nomarium.reading.rows.yearly import is_yearly, yearly_rule
from nomarium.reckoning.rules import with_local_until
from nomarium.reckoning.starts import starts
from nomarium.reckoning.zones import zones_called
from nomarium.sheets.faults import xlsx_extras

# -- the clock of a table -------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("texts", "clock"),
    [
        (["3:45", "4:45"], "12"),
        (["3:45", "16:45"], "24"),
        (["3:45", "13:00"], "24"),
        (["3:45", "12:30"], "12"),
        (["03:45"], "24"),
        (["3:45", "08:30-09:15"], "24"),
        (["3:45", "8:05"], "12"),
        (["3:45", "0:30"], "24"),
        (["3:45", "4:45 pm"], "mixed"),
        (["3:45", "noon"], "12"),
        (["9:00", "10:00"], ""),
        (["9:00 am", "4:45 pm"], ""),
        ([], ""),
    ],
)
def test_the_clock_of_a_table(texts: list[str], clock: str) -> None:
    heard = []
    for text in texts:
        times = read_times(text)
        assert not isinstance(times, Refusal)
        heard += [(one, text) for one in (times.start, times.end) if one is not None]
    assert clock_from(heard).clock == clock


def test_a_time_that_the_clock_asked_for_does_not_have(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Event,Start\n2027-04-12,A,3:45\n2027-04-13,B,14:00")
    assert "row 3, column C “Start”: “14:00”" in refused(source, "--clock", "12")
    assert built(source, "--clock", "24")[0] == "A 2027-04-12T03:45/2027-04-12T04:45"


def test_a_typed_time_of_a_workbook_has_the_clock_of_its_table(tmp_path: Path) -> None:
    rows = [["Date", "Event", "Start", "End"], ["2027-04-12", "Club", dt.time(3, 45), dt.time(4, 45)]]
    source = workbook(tmp_path, rows)
    assert built(source) == ["Club 2027-04-12T15:45/2027-04-12T16:45"]
    assert built(source, "--clock", "24") == ["Club 2027-04-12T03:45/2027-04-12T04:45"]


# -- the year of a table --------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("year", "months", "window"),
    [
        (YearAbove(2026, True, ""), [9, 1, 3, 12], ("2026-08-01", "2027-07-31")),
        (YearAbove(2027, False, ""), [1, 4, 4, 12], ("2027-01-01", "2027-12-31")),
        (YearAbove(2026, False, ""), [9, 10, 1, 3], ("2026-09-01", "2027-08-31")),
        (YearAbove(2026, False, ""), [9, 10, 1, 9], None),
        (YearAbove(2026, False, ""), [9, 3, 10, 1], None),
        (YearAbove(2026, False, ""), [], ("2026-01-01", "2026-12-31")),
    ],
)
def test_where_days_without_a_year_fall(
    year: YearAbove, months: list[int], window: tuple[str, str] | None
) -> None:
    found = year.window(months)
    assert (found and tuple(map(str, found))) == window


@pytest.mark.parametrize(
    ("above", "date"),
    [
        ("Autumn term 2026", "2026-09-07"),
        ("School year 2026/2027", "2026-09-07"),
        ("2026–27 calendar", "2026-09-07"),
        ("Calendar 2026-2028", None),
        ("Printed 2026-07-01", None),
        ("Room 2026A", "2026-09-07"),
        ("12/2026/3", None),
    ],
)
def test_years_in_titles(above: str, date: str | None, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"{above},\nDate,Event\n7 Sept,A")
    if date is None:
        assert "has no year" in refused(source)
    else:
        assert built(source)[0].startswith(f"A {date}")


def test_a_sheets_name_says_the_year_and_an_option_beats_it(tmp_path: Path) -> None:
    rows = [["Date", "Event"], ["7 Sept", "A"]]
    source = workbook(tmp_path, rows, more={"2026-27": rows})
    assert built(source, "--sheet", "2026-27") == ["A 2026-09-07/2026-09-08"]
    assert built(source, "--sheet", "2026-27", "--school-year", "2028:2029") == ["A 2028-09-07/2028-09-08"]


# -- texts about days -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "days"),
    [
        ("3/4/5 June 2027", ["2027-06-03", "2027-06-04", "2027-06-05"]),
        ("7, 14 and 21 Sept 2026", ["2026-09-07", "2026-09-14", "2026-09-21"]),
        ("Mon 7th & Tue 8th Sept 2026", ["2026-09-07", "2026-09-08"]),
        ("7 Sep, 14 Sep, 21 Sep 2026", ["2026-09-07", "2026-09-14", "2026-09-21"]),
        ("2026-09-07; 2026-10-09", ["2026-09-07", "2026-10-09"]),
        ("2026-09-07\n2026-10-09", ["2026-09-07", "2026-10-09"]),
        ("12./13.12.2026", ["2026-12-12", "2026-12-13"]),
        ("Sa/So 12. und 13.12.2026", ["2026-12-12", "2026-12-13"]),
        ("15.10., 22.11. und 17.12.2026", ["2026-10-15", "2026-11-22", "2026-12-17"]),
        ("7 September 2026", None),
        ("7–9 September 2026 and 12 September 2026", None),
        ("Knots and ropes", None),
        ("9:00, 10:00", None),
    ],
)
def test_several_days_in_a_text(text: str, days: list[str] | None) -> None:
    found = several_days(text, Decisions(ENGLISH))
    assert (None if found is None else list(map(str, found))) == days  # type: ignore[arg-type]


def test_a_day_among_several_that_is_another_weekday_is_refused() -> None:
    found = several_days("Mon 7th & Wed 8th Sept 2026", Decisions(ENGLISH))
    assert isinstance(found, Refusal) and "is a Tuesday, not a Wednesday" in found.message


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("4 Jan, 15 Feb 2027", ["2027-01-04", "2027-02-15"]),
        ("7 Dec, 4 Jan 2027", ["2026-12-07", "2027-01-04"]),
        ("7 Dec 2026, 4 Jan", ["2026-12-07", "2027-01-04"]),
        ("Mon 7 Dec, Mon 4 Jan and Mon 1 Feb 2027", ["2026-12-07", "2027-01-04", "2027-02-01"]),
        ("21 Sept, 14 Sept 2026", ["2026-09-21", "2026-09-14"]),
        ("7 Dec 2026, 4 Jan 2027, 1 Feb", ["2026-12-07", "2027-01-04", "2027-02-01"]),
        ("4 May, 7 Dec 2027", ["2027-05-04", "2027-12-07"]),
    ],
)
def test_days_of_a_list_run_on_over_the_end_of_a_year(text: str, expected: list[str]) -> None:
    found = several_days(text, Decisions(ENGLISH))
    assert isinstance(found, list) and [str(day) for day in found] == expected


def test_days_of_a_list_that_may_be_in_either_year_are_refused() -> None:
    found = several_days("5 Sept, 9 May 2027", Decisions(ENGLISH))
    assert isinstance(found, Refusal) and "may be in 2027 or in 2026" in found.message


@pytest.mark.parametrize(
    ("text", "title", "days"),
    [
        ("SCHOOL CLOSED Tuesday 13 April 2027", "SCHOOL CLOSED", ["2027-04-13"]),
        ("HALF TERM – Monday 31 May 2027 to Friday 4 June 2027", "HALF TERM", ["2027-05-31/2027-06-04"]),
        ("13 April 2027: no school", "no school", ["2027-04-13"]),
        ("Round 3 – Saturday 5 September 2026", "Round 3", ["2026-09-05"]),
        ("Good Friday (26 March 2027)", "Good Friday", ["2027-03-26"]),
        ("INSET days: 1 September 2026, 4 January 2027, 1 June 2027", "INSET days", ["2026-09-01", "2027-01-04", "2027-06-01"]),
        ("INSET days: 4 Jan, 15 Feb 2027", "INSET days", ["2027-01-04", "2027-02-15"]),
        ("Closed 24 Dec, 31 Dec and 4 Jan 2027", "Closed", ["2026-12-24", "2026-12-31", "2027-01-04"]),
        ("Staff day Mon 4 Jan 2027 and Tue 1 June 2027", "Staff day", ["2027-01-04", "2027-06-01"]),
        ("Clubs: 1 October 2026; 8 October 2026 in the loft", "Clubs in the loft", ["2026-10-01", "2026-10-08"]),
        ("Closed 24 December 2026 – 1 January 2027, 26 March 2027", "Closed", ["2026-12-24/2027-01-01", "2027-03-26"]),
        ("Closed 24 December 2026; reopens 4 January 2027", "Closed reopens 4 January 2027", ["2026-12-24"]),
    ],
)  # fmt: skip
def test_the_events_of_a_line_across_the_table(text: str, title: str, days: list[str]) -> None:
    found = lone_event(text, Decisions(ENGLISH))
    assert found is not None and not isinstance(found, Refusal)
    name, parts = found
    assert name == title
    assert [f"{part.first}/{part.last}" if part.last else str(part.first) for part in parts] == days


@pytest.mark.parametrize(
    "text",
    [
        "Last updated 3 March 2027",
        "Printed on 3 March 2027",
        "Correct as of 3 March 2027",
        "13 April 2027",
        "Term 2",
        "Please bring gloves",
        "Week 12",
        "Room 101, see the 3 notices",
    ],
)
def test_lines_that_are_no_events(text: str) -> None:
    assert lone_event(text, Decisions(ENGLISH)) is None


@pytest.mark.parametrize(
    ("heading", "yearly"),
    [
        ("Birthday", True),
        ("Date of birthday", True),
        ("Wedding anniversary", True),
        ("Geburtstage", True),
        ("Cumpleaños", True),
        ("Verjaardag", True),
        ("Date of birth", True),
        ("DOB", True),
        ("Date", False),
        ("Birth year", False),
    ],
)
def test_headings_of_days_that_come_back(heading: str, yearly: bool) -> None:
    assert is_yearly(heading) is yearly


def test_a_leap_day_comes_back_on_the_last_of_february() -> None:
    rule = yearly_rule("Birthday", dt.date(1992, 2, 29), dt.date(1996, 12, 31))
    assert isinstance(rule, Rule)
    found = [str(day) for day in starts(rule, dt.date(1992, 2, 29))]
    assert found == ["1992-02-29", "1993-02-28", "1994-02-28", "1995-02-28", "1996-02-29"]


def test_only_a_day_that_is_a_month_can_have_been_exchanged() -> None:
    assert exchanged_back(dt.date(2026, 7, 9)) == dt.date(2026, 9, 7)
    moved = exchanged_back(dt.datetime(2026, 12, 1, 9, 30))
    assert moved == dt.datetime(2026, 1, 12, 9, 30)
    assert isinstance(exchanged_back(dt.date(2026, 7, 13)), Refusal)


# -- titles and notes -----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("title", "bare"),
    [
        ("CANCELLED: Race", "Race"),
        ("Cancelled - Race", "Race"),
        ("Race (cancelled)", "Race"),
        ("Annulé : Régate", "Régate"),
        ("Abgesagt: Chor", "Chor"),
        ("Cancelled debts", None),
        ("Race", None),
        ("CANCELLED:", None),
        ("(cancelled)", None),
    ],
)
def test_titles_that_cancel(title: str, bare: str | None) -> None:
    assert without_cancellation(title) == bare


@pytest.mark.parametrize("word", ["Cancelled", "CANCELED!", "annulé", "abgesagt", "cancelado", "geannuleerd"])
def test_words_that_cancel(word: str) -> None:
    assert says_cancelled(word)


@pytest.mark.parametrize("title", ["-", "–", "n/a", "N/A", "none", "..."])
def test_titles_that_are_none(title: str) -> None:
    assert is_no_title(title) and not is_bookkeeping(title)


@pytest.mark.parametrize("title", ["Last updated", "Updated on:", "Printed", "Version", "Last modified by"])
def test_titles_that_keep_books(title: str) -> None:
    assert is_bookkeeping(title) and not is_no_title(title)


@pytest.mark.parametrize(
    "title", ["Updated safety training", "Version 2 launch", "None of the above", "Printing"]
)
def test_titles_that_only_look_like_it(title: str) -> None:
    assert not is_bookkeeping(title) and not is_no_title(title)


@pytest.mark.parametrize(
    ("row", "title"),
    [
        (["History", "Paper 1", "Hall"], "History: Paper 1 (Hall)"),
        (["History", "", "Hall"], "History (Hall)"),
        (["History", "Paper 1", ""], "History: Paper 1"),
        (["", "Paper 1", ""], "Paper 1"),
        (["", "", ""], ""),
    ],
)
def test_titles_from_columns(row: list[str], title: str) -> None:
    maker = TitleMaker("{Subject}: {Paper} ({location})", ("Subject", "Paper", "Where"), 0, {"location": 2})
    assert maker.title(row, row[0]) == title


def test_a_title_may_hold_the_one_without_the_template() -> None:
    maker = TitleMaker("{Team} – {title}", ("Team", "Event"), 0, {"summary": 1})
    assert maker.title(["U12", "Race"], "Race") == "U12 – Race"


def test_names_in_a_template_are_headings_fields_or_letters() -> None:
    found, unknown = title_columns("{B}{Subject}{location}{Papr}", ("Subject", "Paper"), 0, {"location": 7})
    assert found == {"B": 1, "Subject": 0, "location": 7} and unknown == ["Papr"]


def test_an_empty_field_takes_its_separator_along() -> None:
    assert filled("{a} – {b}", {"a": "", "b": "x"}) == "x" and filled("{a}", {}) == ""


@pytest.mark.parametrize(
    ("text", "plain"),
    [
        ("<p>One</p><p>Two</p>", "One\nTwo"),
        ("<ul><li>Gloves</li><li>Hat</li></ul>", "- Gloves\n- Hat"),
        ("Tom &amp; Ann<br/>now", "Tom & Ann\nnow"),
        ('<a href="mailto:a@saltmarsh.example">a@saltmarsh.example</a>', "a@saltmarsh.example"),
        ('<a href="https://saltmarsh.example">https://saltmarsh.example</a>', "https://saltmarsh.example"),
        ("glaze < 3 mm", "glaze < 3 mm"),
        ("a <b and c> d", "a <b and c> d"),
        ("5 &lt; 6", "5 &lt; 6"),
        ("<notatag>", "<notatag>"),
        ("", ""),
    ],
)
def test_html_as_a_person_sees_it(text: str, plain: str) -> None:
    assert without_html(text) == plain


# -- repeats and zones ----------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("zone", "first", "until"),
    [
        ("America/Halifax", dt.datetime(2027, 3, 1, 20), dt.datetime(2027, 3, 3, 19)),
        ("Pacific/Auckland", dt.datetime(2027, 3, 1, 8), dt.datetime(2027, 3, 4, 12)),
        (None, dt.datetime(2027, 3, 1, 8), dt.datetime(2027, 3, 3, 23)),
        ("Pacific/Auckland", dt.date(2027, 3, 1), dt.date(2027, 3, 4)),
    ],
)
def test_an_end_in_utc_is_in_the_time_of_its_event(zone: str | None, first: dt.date, until: dt.date) -> None:
    rule = Rule("DAILY", until=dt.datetime(2027, 3, 3, 23), until_is_utc=True)
    found = with_local_until(rule, first, ZoneInfo(zone) if zone else None)
    assert (found.until, found.until_is_utc) == (until, False)


def test_an_end_that_is_a_day_stays_as_it_is() -> None:
    rule = Rule("DAILY", until=dt.date(2027, 3, 3))
    assert with_local_until(rule, dt.datetime(2027, 3, 1, 8), ZoneInfo("Asia/Tokyo")) == rule


@pytest.mark.parametrize(
    ("letters", "zone", "other"),
    [
        ("BST", "Europe/London", "Europe/Paris"),
        ("CEST", "Europe/Berlin", "Europe/London"),
        ("NZDT", "Pacific/Auckland", "Europe/London"),
    ],
)
def test_zones_by_what_their_clocks_show(letters: str, zone: str, other: str) -> None:
    found = zones_called(letters)
    assert zone in found and other not in found and zones_called("XQ") == ()


# -- workbooks, recipes, calendars ----------------------------------------------------------------------


def test_hidden_rows_in_the_markup_whatever_the_order_of_its_attributes(tmp_path: Path) -> None:
    book = tmp_path / "x.xlsx"
    sheet = '<row r="2" hidden="1"/><row hidden="true" spans="1:2" r="5"><c r="A5"/></row><row r="7" hidden="0"/><row r="8"/>'
    with zipfile.ZipFile(book, "w") as archive:
        archive.writestr("xl/workbook.xml", '<sheets><sheet name="A" r:id="r1"/></sheets>')
        archive.writestr("xl/_rels/workbook.xml.rels", '<Relationship Id="r1" Target="worksheets/s.xml"/>')
        archive.writestr("xl/worksheets/s.xml", f"<sheetData>{sheet}</sheetData>")
    assert xlsx_extras(book, ["A"])["A"].hidden == {2, 5}


def test_a_recipe_names_columns_without_a_heading_by_their_letter(tmp_path: Path) -> None:
    source, recipe = csv_file(tmp_path, "Event,,Date\nA,Loft,2026-09-07"), tmp_path / "r.toml"
    recipe.write_text('[columns]\n"Event" = "summary"\n"B" = "location"\n"Date" = "date"\n', "utf-8")
    assert built(source, "--recipe", recipe) == ["A 2026-09-07/2026-09-08 @ Loft"]
    recipe.write_text('[columns]\n"Room" = "location"\n', "utf-8")
    outcome = nomarium("build", source, "--recipe", recipe, "-o", tmp_path / "other.ics")
    assert outcome.status == 1 and "“Room”" in outcome.text


def test_days_off_are_read_with_all_their_rows(tmp_path: Path) -> None:
    off = tmp_path / "off.csv"
    days = [f"0{1 + n % 9}/0{1 + n % 9 % 8}/2027,Closed {n}" for n in range(400)] + ["25/12/2027,Last"]
    off.write_text("\n".join(["Date,Name", *days]), "utf-8")
    source = csv_file(tmp_path, "Event,Date,Repeat\nA,2027-12-24,daily for 3 days")
    assert built(source, "--days-off", off) == ["A 2027-12-24/2027-12-25", "A 2027-12-26/2027-12-27"]


def test_floating_times_of_a_calendar_are_in_the_zone_asked_for_and_others_stay(tmp_path: Path) -> None:
    calendar = tmp_path / "a.ics"
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Saltmarsh//EN"]
    for uid, start in (
        ("1", ":20270412T090000"),
        ("2", ";TZID=Europe/Paris:20270412T090000"),
        ("3", ";VALUE=DATE:20270412"),
    ):
        lines += [
            "BEGIN:VEVENT",
            f"UID:{uid}",
            "DTSTAMP:20270101T000000Z",
            f"DTSTART{start}",
            f"SUMMARY:{uid}",
            "END:VEVENT",
        ]
    calendar.write_bytes("\r\n".join([*lines, "END:VCALENDAR", ""]).encode())
    target = tmp_path / "out.ics"
    outcome = nomarium("build", calendar, "-o", target, "--timezone", "America/Halifax")
    text = target.read_text("utf-8")
    assert outcome.status == 0 and "TZID=America/Halifax:20270412T090000" in text
    assert "TZID=Europe/Paris:20270412T090000" in text and "VALUE=DATE:20270412" in text


def test_a_planner_of_weekdays_alone_is_all_in_the_week_asked_for(tmp_path: Path) -> None:
    text = "Mon,Tue,Wed,Thu,Fri\nKnots,,Ropes,,Sail"
    outcome = nomarium("survey", csv_file(tmp_path, text), "--day-one", "2027-04-12", "--as", "planner")
    assert "all in that of 2027-04-12" in outcome.text
    numbered = csv_file(tmp_path, "Week,Mon,Tue,Wed,Thu,Fri\n1,Knots,,Ropes,,Sail\n2,,Oars,,,")
    assert (
        "counted from 2027-04-12 on"
        in nomarium("survey", numbered, "--day-one", "2027-04-12", "--as", "planner").text
    )


EVENTS = (
    b"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Saltmarsh//EN\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20270101T000000Z\r\n"
    b"DTSTART:20270412T090000\r\nSUMMARY:A\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nUID:2\r\nDTSTAMP:20270101T000000Z\r\n"
    b"DTSTART:20270413T090000\r\nSUMMARY:BEGIN of\r\n  it\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
)


@pytest.mark.parametrize(
    ("mark", "folded"),
    [
        (b"BEGIN:VEVENT", b"BEGIN:VEV\r\n ENT"),
        (b"BEGIN:VCALENDAR", b"BEGIN:VC\r\n AL\r\n ENDAR"),
        (b"END:VEVENT", b"E\r\n\tND:VEVENT"),
        (b"END:VEVENT", b"END:VEVEN\n T"),
        (b"BEGIN:VEVENT", b"begin:v\r\n event"),
    ],
)
def test_lines_that_begin_and_end_components_may_be_folded(
    mark: bytes, folded: bytes, tmp_path: Path
) -> None:
    source, target = tmp_path / "a.ics", tmp_path / "out.ics"
    source.write_bytes(EVENTS.replace(mark, folded))
    outcome = nomarium("build", source, "-o", target)
    assert outcome.status == 0 and "2 entries read = 2 events" in outcome.text
    assert [str(event["SUMMARY"]) for event in events_in(target)] == ["A", "BEGIN of it"]


def test_a_place_in_brackets_is_no_part_of_an_entrys_title(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Time,2027-04-12,2027-04-13\n9:00,Knots (Room 4),Ropes (new)\n10:00,Sail @ Slip,"
    )
    assert built(source) == [
        "Knots 2027-04-12T09:00/2027-04-12T10:00 @ Room 4",
        "Ropes (new) 2027-04-13T09:00/2027-04-13T10:00",
        "Sail 2027-04-12T10:00/2027-04-12T11:00 @ Slip",
    ]


def test_a_plan_of_classes_without_terms_says_what_is_missing(tmp_path: Path) -> None:
    for name, text in {
        "timetable": "Class,Label,Period\nKnots,Keel,1",
        "cycle": "Label\nKeel\nRib",
        "bells": "Period,Start,End\n1,9:00,10:00",
    }.items():
        (tmp_path / f"{name}.csv").write_text(text, "utf-8")
    outcome = nomarium("build", tmp_path, "-o", tmp_path / "out.ics")
    assert (
        outcome.status == 1 and "from when to when" in outcome.text and "First day, Last day" in outcome.text
    )


def test_a_table_says_the_days_it_reaches_over(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date\nB,2026-09-09\nA,2026-09-07\nC,2026-09-08")
    outcome = nomarium("build", source, "-o", tmp_path / "out.csv")
    assert "3 events from 2026-09-07 to 2026-09-09" in outcome.text


@pytest.mark.parametrize(
    ("text", "line"),
    [
        ("Event,Date\nA,2026-09-07", "nomarium build {} -o events.ics"),
        ("Event,Date\nA,07/09/2026", "nomarium build {} -o events.ics --date-order …    (… is dmy or mdy)"),
        (
            "Week,Day,Event\n1,1,A",
            "nomarium build {} -o events.ics --day-one …    (… is the date of the first day of week 1)",
        ),
        ("Event,Date\nA,31/02/2026", "mend the problem above, and survey again."),
        ("Event,Date\nA,31/02/2026\nB,31/04/2026", "mend the problems above, and survey again."),
    ],
)
def test_what_comes_after_a_survey(text: str, line: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, text)
    assert f"Next: {line.format(source)}\n" in nomarium("survey", source).out
