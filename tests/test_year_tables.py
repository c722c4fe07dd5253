"""Terms, days off, letter days, weeks and bells as schools write them down."""

import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused
from test_own_tables import BELLS, FIRST, SECOND, TERM, Rows, at, plan_book

CLASSES: Rows = [["Class", "Day", "Period"], ["Knots", "Mon", 1], ["Sails", "Fri", 2]]
KNOTS, SAILS = f"Knots {at(7, *FIRST)}", f"Sails {at(11, *SECOND)}"
LETTERS: Rows = [["Class", "Letter", "Period"], ["Knots", "A", 1], ["Sails", "B", 2]]
ODD: Rows = [["", "Mon A", "Fri A", "Mon B"], ["9:00-9:50", "Knots", "Sails", "Steam"]]


def typed(text: str) -> dt.datetime:
    return dt.datetime.fromisoformat(text)


READ: dict[str, tuple[dict[str, Rows], list[str], str]] = {
    "key dates": (
        {"Dates": [["Date", "Event"], ["2026-09-07", "First day of Fall term"], ["2026-09-09", "Parents’ evening"], ["2026-09-11", "Harbour holiday"], ["2026-09-18", "Last day before fall break"]],
         "Bells": BELLS, "Classes": CLASSES},
        [KNOTS, f"Knots {at(14, *FIRST)}", f"Sails {at(18, *SECOND)}"],
        "The terms are Fall term from 2026-09-07 to 2026-09-18 (“First day of Fall term” and “Last day before fall break”)",
    ),
    "key dates of a break that begins and ends": (
        {"Dates": [["Date", "Event"], ["2026-09-07", "Classes begin"], ["2026-09-11", "Reading week begins"], ["2026-09-14", "Reading week ends"], ["2026-09-18", "Classes end"]],
         "Bells": BELLS, "Classes": CLASSES},
        [KNOTS, f"Sails {at(18, *SECOND)}"], "“Classes begin” and “Classes end”",
    ),
    "key dates beside a table of terms": (
        {"Dates": [["Date", "Event"], ["2026-09-07", "First day of Fall term"], ["2026-09-11", "Harbour holiday"], ["2026-09-18", "Last day of Fall term"]],
         "Terms": TERM, "Bells": BELLS, "Classes": CLASSES},
        [KNOTS], "only the days off count: the terms are those of Terms",
    ),
    "a half term beside its term": (
        {"Terms": [["Term", "Start", "Half term", "End"], ["Autumn", "2026-09-07", "11–14 Sept 2026", "2026-09-18"]], "Bells": BELLS, "Classes": CLASSES},
        [KNOTS, f"Sails {at(18, *SECOND)}"], "“Half term” beside a term is days off, from 2026-09-11 to 2026-09-14",
    ),
    "terms whose dates stand in one cell, remarks below": (
        {"Semesters": [["Semester", "Dates"], ["Fall", "7 September 2026 – 11 September 2026"], [], ["Subject to approval by the board"]], "Bells": BELLS, "Classes": CLASSES},
        [KNOTS, SAILS], "taken for remarks: “Subject to approval by the board”",
    ),
    "letter days drawn week by week": (
        {"Terms": TERM, "Bells": BELLS, "Classes": LETTERS,
         "Letter days": [["Week of", "Mon", "Tue", "Wed", "Thu", "Fri"], ["7 Sept 2026", "A", "B", "A", "Sports day", "B"], ["14 Sept 2026", "A", "B", "", "", ""]]},
        None, "2026-09-14 is outside every term",
    ),
    "days without a letter": (
        {"Terms": TERM, "Bells": BELLS, "Classes": LETTERS,
         "Letter days": [["Date", "Day", "Letter"], ["2026-09-07", "Mon", "A"], ["2026-09-08", "Tue", "B"], ["2026-09-09", "Wed", "No school"], ["2026-09-10", "Thu", "A"], ["2026-09-11", "Fri", "B"], ["2026-09-05", "Sat", "-"]]},
        [KNOTS, f"Sails {at(8, *SECOND)}", f"Knots {at(10, *FIRST)}", SAILS], "4 school days (A 2, B 2)",
    ),
    "a table of the weeks A and B": (
        {"Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-08", "2026-09-18"]], "Week": ODD,
         "Weeks A and B": [["w/c", "Week"], ["2026-08-31", "A"], ["2026-09-07", "B"], ["2026-09-14", "A"], ["2026-09-21", "B"]]},
        [f"Knots {at(14, '09:00', '09:50')}", f"Sails {at(18, '09:00', '09:50')}"], "No school day is a Monday of week B",
    ),
    "a class of some weeks of the term": (
        {"Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-10-02"]], "Bells": BELLS,
         "Modules": [["Module", "Weeks", "Day", "Period"], ["Knots", "1-2", "Mon", 1], ["Sails", "1, 3", "Fri", 2], ["Steam", "even", "Tue", 1]]},
        [KNOTS, SAILS, f"Knots {at(14, *FIRST)}", f"Steam {at(15, *FIRST)}", f"Sails {at(25, *SECOND)}", f"Steam {at(29, *FIRST)}"], "counted in each term, week 1 of Autumn from 2026-09-07",
    ),
    "weeks of the calendar, days in German": (
        {"Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-10-02"]], "Bells": BELLS,
         "Stundenplan": [["Fach", "KW", "Tag", "Stunde"], ["Knots", "37-38", "Mo", 1], ["Sails", "37", "Fr", 2]]},
        [KNOTS, SAILS, f"Knots {at(14, *FIRST)}"], "those of the calendar (ISO 8601)",
    ),
    "bells that no date has": (
        {"Terms": TERM, "Classes": CLASSES, "Bells": [["Period", "Regular", "Assembly day"], [1, "8:30-9:30", "8:30-9:00"], [2, "9:40-10:40", "9:10-9:40"]]},
        [KNOTS, SAILS], "The bells “Assembly day” ring on no date",
    ),
    "bells of a weekday in words": (
        {"Terms": TERM, "Classes": CLASSES, "Bells": [["Period", "Regular", "Friday (early release)"], [1, "8:30-9:30", "8:30-9:00"], [2, "9:40-10:40", "9:10-9:40"]]},
        [KNOTS, f"Sails {at(11, '09:10', '09:40')}"], "",
    ),
    "bells of a weekday in a cycle of numbers": (
        {"Terms": TERM, "Cycle": [["Label"], [1], [2], [3], [4], [5]],
         "Classes": [["Class", "Day", "Period"], ["Knots", 4, 1], ["Sails", 5, 2]],
         "Bells": [["Label", "Period", "Start", "End"], ["", 1, "8:30", "9:30"], ["", 2, "9:40", "10:40"], ["Friday", 1, "8:30", "9:00"], ["Friday", 2, "9:10", "9:40"]]},
        [f"Knots {at(10, *FIRST)}", f"Sails {at(11, '09:10', '09:40')}"], "",
    ),
    "bells of two divisions, sheet by sheet": (
        {"Terms": TERM, "MS bells": BELLS, "HS bells": [["Period", "Start", "End"], [1, "10:00", "11:00"]],
         "Classes": [["Class", "Division", "Day", "Period"], ["Knots", "MS", "Mon", 1], ["Sails", "HS", "Fri", 1]]},
        [KNOTS, f"Sails {at(11, '10:00', '11:00')}"], "",
    ),
    "a start over its end beside the days, and times in four figures": (
        {"Terms": TERM, "Week A": [["", "Mon", "Fri"], ["8:30\n9:30", "Knots", ""]], "Week B": [["Time", "Mon", "Fri"], ["0940 to 1040", "", "Sails"]],
         "Cycle": [["Label"], ["A"], ["B"]]},
        [KNOTS], "",
    ),
    "names beside the headings": (
        {"Terms": [["", "Start", "End"], ["Autumn", "2026-09-07", "2026-09-11"]], "Closures": [["Start", "End"], ["2026-09-11", "2026-09-11", "Harbour day"]], "Bells": BELLS, "Classes": CLASSES},
        [KNOTS], "",
    ),
    "a teacher above the class in each cell": (
        {"Terms": TERM, "Week": [["", "Monday", "Friday"], ["8:30-9:30", "Ana Cole\nKnots\nLoft 2", "D. Roe\nSails\nShed 4"], ["9:40-10:40", "", "Ana Cole\nSteam\nLoft 2"]]},
        [f"{KNOTS} @ Loft 2", f"Sails {at(11, *FIRST)} @ Shed 4", f"Steam {at(11, *SECOND)} @ Loft 2"], "The parts of a cell are teacher, class, room",
    ),
    "terms and holidays without headings": (
        {"Dates": [["Autumn term", "7 September 2026", "10 September 2026"], ["Half term", "11 September 2026", "13 September 2026"], ["Autumn term 2", "14 September 2026", "18 September 2026"]],
         "Bells": BELLS, "Classes": CLASSES},
        [KNOTS, f"Knots {at(14, *FIRST)}", f"Sails {at(18, *SECOND)}"], "names of terms, and of holidays with them",
    ),
    "a first and a last day, and no more": (
        {"Dates": [["First day", "Last day"], ["2026-09-07", "2026-09-29"]], "Bells": BELLS, "Classes": CLASSES},
        [*(f"Knots {at(day, *FIRST)}" for day in (7, 14, 21, 28)), *(f"Sails {at(day, *SECOND)}" for day in (11, 18, 25))], "Dates is taken for Terms",
    ),
    "letters on the days of a month, on a sheet of any name": (
        {"Bells": BELLS, "Classes": LETTERS,
         "Our year": [["September 2026"], ["Mon", "Tue", "Wed", "Thu", "Fri"], ["7", "8 A", "9 B", "10 A", "11 No school"], ["14 B", "15 A", "16 B", "17", "18"]]},
        [f"{name} {at(day, *when)}" for day, name, when in ((8, "Knots", FIRST), (9, "Sails", SECOND), (10, "Knots", FIRST), (14, "Sails", SECOND),
                                                            (15, "Knots", FIRST), (16, "Sails", SECOND))],
        "the labels on the days of a calendar",
    ),
    "letters on the days of a month, on a sheet that is called Cycle": (
        {"Bells": BELLS, "Classes": LETTERS,
         "Cycle": [["September 2026"], ["Mon", "Tue", "Wed", "Thu", "Fri"], ["7\nA", "8\nB", "9\nA", "10\nB", "11\nNo school"], ["14\nA", "15\nB", "16", "17", "18"]]},
        [f"{name} {at(day, *when)}" for day, name, when in ((7, "Knots", FIRST), (8, "Sails", SECOND), (9, "Knots", FIRST), (10, "Sails", SECOND),
                                                            (14, "Knots", FIRST), (15, "Sails", SECOND))],
        "its name and the labels on the days of a calendar",
    ),
    "periods apart by spaces under weekdays": (
        {"Terms": TERM, "Bells": BELLS, "Classes": [["Class", "Mon", "Fri"], ["Knots", 1, ""], ["Sails", "", "1 2"]]},
        [KNOTS, f"Sails {at(11, FIRST[0], SECOND[1])}"], "2 meetings",
    ),
    "weeks A and B named in the corners of drawn weeks": (
        {"Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-09-18"]],
         "Timetable": [["Mr Fenn – Timetable"], [], ["Week A", "Mon", "Tue"], ["P1 8:30-9:30", "Knots", ""], ["P2 9:40-10:40", "", "Sails"], [],
                       ["Week B", "Mon", "Tue"], ["P1 8:30-9:30", "Sails", ""], ["P2 9:40-10:40", "", "Knots"]]},
        [KNOTS, f"Sails {at(8, *SECOND)}", f"Sails {at(14, *FIRST)}", f"Knots {at(15, *SECOND)}"], "The weeks A and B take turns",
    ),
    "a timetable for each term": (
        {"Terms": [["Term", "Start", "End"], ["Autumn", "2026-09-07", "2026-09-08"], ["Spring", "2026-09-14", "2026-09-15"]],
         "Autumn timetable": [["", "Mon", "Tue"], ["8:30-9:30", "Knots", "Sails"]], "Spring timetable": [["", "Mon", "Tue"], ["8:30-9:30", "Sails", "Knots"]]},
        [KNOTS, f"Sails {at(8, *FIRST)}", f"Sails {at(14, *FIRST)}", f"Knots {at(15, *FIRST)}"], "The classes of “Spring timetable” are held in Spring",
    ),
    "lists of classes for each term": (
        {"Terms": [["Term", "Start", "End"], ["Term 1", "2026-09-07", "2026-09-11"], ["Term 2", "2026-09-14", "2026-09-18"]],
         "Bells": BELLS, "Term 1 classes": CLASSES, "Classes term 2": [CLASSES[0], ["Knots", "Fri", 2]]},
        [KNOTS, SAILS, f"Knots {at(18, *SECOND)}"], "The classes of “Term 1 classes” are held in Term 1",
    ),
    "bells that are called normal": (
        {"Terms": TERM, "Classes": CLASSES, "Special days": [["Date", "Bells"], ["2026-09-11", "Early"]],
         "Bells": [["Schedule", "Period", "Start", "End"], ["Normal day", 1, "8:30", "9:30"], ["Normal day", 2, "9:40", "10:40"], ["Early", 1, "8:30", "8:50"], ["Early", 2, "9:00", "9:20"]]},
        [KNOTS, f"Sails {at(11, '09:00', '09:20')}"], "2 meetings",
    ),
    "a planner of a term and its half term, and bells without headings": (
        {"Year planner": [["Autumn term starts", "Mon 7 Sep 2026"], ["Half term", "10 – 13 Sept 2026"], ["Autumn term ends", "Fri 18 Sep 2026"]],
         "Times": [["1", "08.30", "09.30"], ["2", "09.40", "10.40"]], "Classes": CLASSES},
        [KNOTS, f"Knots {at(14, *FIRST)}", f"Sails {at(18, *SECOND)}"], "“Autumn term starts” and “Autumn term ends”",
    ),
    "a room a column": (
        {"Terms": TERM, "Bells": BELLS, "Master": [["Day", "Period", "Loft 1", "Shed 3"], ["Mon", 1, "Knots – Quill", ""], ["Fri", 2, "", "Sails – Fenn"]]},
        [f"{KNOTS} @ Loft 1", f"{SAILS} @ Shed 3"], "taken for the room of their classes",
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", READ)
def test_the_year_is_read_as_schools_write_it_down(name: str, tmp_path: Path) -> None:
    sheets, expected, says = READ[name]
    source = plan_book(tmp_path, sheets)
    if expected is None:
        assert says in refused(source)
        return
    assert sorted(built(source)) == sorted(expected)
    assert says in nomarium("build", source, "-o", tmp_path / "again.ics", "--details").text


REFUSED: dict[str, tuple[dict[str, Rows], list[str]]] = {
    "a sheet of a term that the plan does not have": (
        {"Terms": [["Term", "Start", "End"], ["Autumn", "2026-09-07", "2026-09-08"], ["Spring", "2026-09-14", "2026-09-15"]],
         "Summer timetable": [["", "Mon", "Tue"], ["8:30-9:30", "Knots", "Sails"]]}, ["no term “Summer”"],
    ),
    "a weekday that is not the date’s": (
        {"Terms": TERM, "Bells": BELLS, "Classes": CLASSES, "Closures": [["Date", "Day", "Reason"], [typed("2026-09-11"), "Thursday", "Harbour day"]]},
        ["2026-09-11 is a Friday, not a Thursday"],
    ),
    "dates that Terms has no use for": (
        {"Terms": [[*TERM[0], "Reports due"], [*TERM[1], typed("2026-09-10")]], "Bells": BELLS, "Classes": CLASSES},
        ["“Reports due” holds dates or times, and Terms has no use for it", '--column "Reports due="'],
    ),
    "times that Bells have no use for": (
        {"Terms": TERM, "Classes": CLASSES, "Bells": [[*BELLS[0], "Late start"], [*BELLS[1], "10:00"], [*BELLS[2], "11:00"]]},
        ["“Late start” holds dates or times"],
    ),
    "a diary that may be days off or events": (
        {"Terms": TERM, "Bells": BELLS, "Classes": CLASSES, "Diary": [["Date", "What"], ["2026-09-07", "Thanksgiving"], ["2026-09-08", "Concert"], ["2026-09-09", "Easter break"]]},
        ["Diary could be Days off", '--table "Diary=events"'],
    ),
    "dates that span lives": (
        {"Letter days": [["Date", "Letter"], ["1927-09-07", "A"], *[[f"2026-09-{n:02}", "AB"[n % 2]] for n in range(7, 13)]], "Bells": BELLS, "Classes": LETTERS},
        ["The dates span from 1927-09-07 to 2026-09-12"],
    ),
    "one label, which is no cycle": (
        {"Terms": TERM, "Bells": BELLS, "Classes": [["Class", "Day", "Period"], ["Knots", "Day 1", 1]]}, ["The only label is 1, and one is no cycle"],
    ),
    "weeks that the term has not": (
        {"Terms": TERM, "Bells": BELLS, "Classes": [["Class", "Weeks", "Day", "Period"], ["Knots", "1-6", "Mon", 1]]}, ["“1-6” goes beyond the weeks with school, which are 1"],
    ),
    "one class left out among many": (
        {"Terms": TERM, "Bells": BELLS, "Classes": [["Class", "Day", "Period"], *[[name, "Mon", n + 1] for n, name in enumerate(["Knots", "", "Sails"])], *[["Steam", day, 1] for day in ("Tue", "Wed", "Thu")]]},
        ["The cell is blank: it could be the one above", '--fill-down "Class"'],
    ),
    "persons and classes that could be each other": (
        {"Terms": TERM, "Week": [["", "Mon", "Tue"], ["8:30-9:30", "Ana Cole\nKnots\nLoft 2", "Ana Cole\nSails\nLoft 3"], ["9:40-10:40", "Tom Finch\nLofting\nLoft 2", "Tom Finch\nSteam\nLoft 2"]]},
        ["may be the class or its teacher", '--cell "teacher class room"'],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_the_tables_of_a_year_leave_open_is_refused(name: str, tmp_path: Path) -> None:
    sheets, says = REFUSED[name]
    said = refused(plan_book(tmp_path, sheets))
    for part in says:
        assert part in said, said


def test_rows_of_key_dates_are_accounted_for_and_surveyed(tmp_path: Path) -> None:
    source = plan_book(tmp_path, READ["key dates"][0])
    said = nomarium("survey", source).text
    assert "key dates: when terms begin and end" in said
    assert "Dates: 5 rows read = 3 used + 2 notes" in said


def test_sections_by_number_tell_the_classes_of_a_course_apart(tmp_path: Path) -> None:
    rows: Rows = [["Course name", "Section", "Day", "Period"], ["Knots", "01", "Mon", 1], ["Knots", "02", "Mon", 1], ["Sails", "01", "Fri", 2]]  # fmt: skip
    said = nomarium("tally", plan_book(tmp_path, {"Terms": TERM, "Bells": BELLS, "Export": rows})).text
    assert "(Knots 01)" in said and "(Knots 02)" in said


def test_a_list_of_some_weeks_or_terms_alone_is_a_timetable(tmp_path: Path) -> None:
    weeks = csv_file(tmp_path, 'Module,Day,Time,Weeks\nKnots,Mon,9:00-9:50,1-2\nSails,Fri,9:00-9:50,"1,3"', "weeks.csv")  # fmt: skip
    assert len(built(weeks, "--from", "2026-09-07", "--until", "2026-10-02")) == 4
    terms = csv_file(tmp_path, "Term,Start,End\nFall,2026-09-07,2026-09-18\nWinter,2027-01-04,2027-01-15", "terms.csv")  # fmt: skip
    classes = csv_file(tmp_path, "Class,Day,Time,Term\nKnots,Mon,9:00-9:50,Fall\nSails,Mon,10:00-10:50,Winter\nSteam,Tue,9:00-9:50,Year", "classes.csv")  # fmt: skip
    assert [line.split("T")[0] for line in built(classes, "--terms", terms)] == [
        "Knots 2026-09-07", "Steam 2026-09-08", "Knots 2026-09-14", "Steam 2026-09-15",
        "Sails 2027-01-04", "Steam 2027-01-05", "Sails 2027-01-11", "Steam 2027-01-12",
    ]  # fmt: skip
