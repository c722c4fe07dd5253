"""The sample workbooks, made when they are wanted: their cells are easier to read here than in a ZIP."""

import datetime as dt
from pathlib import Path

_BOAT_WEEK = (
    (
        "8:30",
        (
            "Moulds and ribbands\nSlip 2",
            "Steam-bent ribs\nSteam shed",
            "",
            "Planking\nSlip 2",
            "Caulking\nSlip 2",
        ),
    ),
    ("9:30", ("", "", "Timber talk\nSail loft", "", "")),
    (
        "10:30",
        (
            "Rope work\nRigging loft",
            "Rope work\nRigging loft",
            "",
            "",
            "Paint and varnish\nPaint shed",
        ),
    ),
    ("11:30", ("", "", "Knots\nRigging loft", "Sail plan\nSail loft", "")),
)
_BOAT_WEEK_MERGES = ("B4:B5", "C4:C5", "E4:E6")

_APRIL_ENTRIES = {
    dt.date(2027, 4, 1): "9:00 Assembly",
    dt.date(2027, 4, 7): "Timber delivery\n14:00–15:30 Sail loft inventory",
    dt.date(2027, 4, 15): "Launch of the punt Minnow",
    dt.date(2027, 4, 23): "Staff day",
    dt.date(2027, 4, 30): "8:30-12:00 Haul-out",
}
_SPRING_CRUISE = (dt.date(2027, 4, 19), dt.date(2027, 4, 22))


def write_fixtures(path: Path) -> None:
    """A workbook with title rows, real dates and times, a merged date, a total, and a sheet of contacts."""
    import xlsxwriter

    with xlsxwriter.Workbook(path) as book:
        date = book.add_format({"num_format": "d mmm yyyy", "valign": "top"})
        time = book.add_format({"num_format": "h:mm"})
        bold = book.add_format({"bold": True})
        sheet = book.add_worksheet("Fixtures")
        sheet.write("A1", "Saltmarsh School of Boatbuilding – rowing fixtures", bold)
        sheet.write("A2", "Subject to tides")
        sheet.write_row("A4", ["Date", "Start", "Finish", "Opponent", "Venue", "Cox"], bold)
        rows = [
            (
                dt.date(2027, 5, 8),
                dt.time(10),
                dt.time(12),
                "Gull Island rowers",
                "Main slip",
                "Agathe Roussel",
            ),
            (
                dt.date(2027, 5, 15),
                dt.time(9, 30),
                dt.time(11),
                "Lightkeepers’ crew",
                "Main slip",
                "Tobias Fenn",
            ),
            (
                None,
                dt.time(13),
                dt.time(14, 30),
                "Lightkeepers’ second crew",
                "Main slip",
                "Tobias Fenn",
            ),
            (
                dt.date(2027, 5, 29),
                dt.time(10),
                dt.time(15),
                "Harbour regatta",
                "Outer harbour",
                "",
            ),
        ]
        for at, (day, start, end, *texts) in enumerate(rows, 4):
            if day:
                sheet.write_datetime(at, 0, dt.datetime.combine(day, dt.time()), date)
            sheet.write_datetime(at, 1, dt.datetime.combine(dt.date(1899, 12, 31), start), time)
            sheet.write_datetime(at, 2, dt.datetime.combine(dt.date(1899, 12, 31), end), time)
            sheet.write_row(at, 3, texts)
        sheet.merge_range("A6:A7", "", date)
        sheet.write_datetime("A6", dt.datetime(2027, 5, 15), date)
        sheet.write_row("A10", ["Total", "", "", "4 fixtures"])
        sheet.autofit()
        contacts = book.add_worksheet("Contacts")
        contacts.write_row("A1", ["Crew", "Telephone"], bold)
        contacts.write_row("A2", ["Gull Island rowers", "555 0142"])
        contacts.write_row("A3", ["Lightkeepers’ crew", "555 0177"])


def write_boat_week(path: Path) -> None:
    """A week drawn as a grid: dates across, times down, long lessons as merged cells."""
    import xlsxwriter

    with xlsxwriter.Workbook(path) as book:
        bold = book.add_format({"bold": True})
        lesson = book.add_format({"text_wrap": True, "valign": "top", "border": 1})
        sheet = book.add_worksheet("Boat week")
        sheet.write("A1", "Boat week, apprentices", bold)
        for n in range(5):
            day = dt.datetime(2027, 4, 12) + dt.timedelta(days=n)
            sheet.write(2, n + 1, f"{day:%a} {day.day} April 2027", bold)
        for at, (time, cells) in enumerate(_BOAT_WEEK, 3):
            sheet.write(at, 0, time, bold)
            sheet.write_row(at, 1, cells, lesson)
        for area in _BOAT_WEEK_MERGES:
            first = area.split(":")[0]
            column, row = ord(first[0]) - 65, int(first[1:]) - 1
            sheet.merge_range(area, _BOAT_WEEK[row - 3][1][column - 1], lesson)
        sheet.set_column("B:F", 22)


def write_april(path: Path) -> None:
    """A month drawn in cells: day numbers, entries under them, a merged band for a cruise."""
    import xlsxwriter

    with xlsxwriter.Workbook(path) as book:
        bold = book.add_format({"bold": True, "align": "center"})
        wrap = book.add_format({"text_wrap": True, "valign": "top"})
        sheet = book.add_worksheet("April")
        sheet.merge_range("A1:G1", "April 2027", bold)
        sheet.write_row("A2", ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"], bold)
        row = 2
        for week in range(5):
            monday = dt.date(2027, 3, 29) + dt.timedelta(weeks=week)
            for n in range(7):
                day = monday + dt.timedelta(days=n)
                if day.month == 4:
                    sheet.write(row, n, day.day, bold)
                    if day in _APRIL_ENTRIES:
                        sheet.write(row + 1, n, _APRIL_ENTRIES[day], wrap)
            if monday == _SPRING_CRUISE[0]:
                sheet.merge_range(row + 1, 0, row + 1, 3, "Spring cruise", wrap)
            row += 2
        sheet.set_column("A:G", 20)


_MEETINGS = (
    ("Rope work", "RW1", "Keel, Plank, Mast", "1", "Rigging loft", "R. Finch"),
    ("Rope work", "RW2", "Rib, Deck, Sail", "1", "Rigging loft", "R. Finch"),
    ("Planking", "PL1", "Keel, Deck", "2", "Slip 2", "M. Quill"),
    ("Steam bending", "SB1", "Rib, Mast", "2", "Steam shed", "O. Tern"),
    ("Sail plan", "SP1", "Plank, Sail", "2", "Sail loft", "S. Dunlin"),
    ("Lofting", "LF1", "Keel, Rib, Plank", "3", "Mould loft", "A. Plover"),
    ("Caulking", "CK1", "Deck, Mast, Sail", "3", "Slip 2", "M. Quill"),
    ("Yard duty", "YD1", "Keel, Rib, Plank, Deck, Mast, Sail", "4", "Main slip", ""),
)
_DAILY = (
    ("1", "8:30", "9:40"),
    ("2", "9:50", "11:00"),
    ("Lunch", "11:00", "11:50"),
    ("3", "11:50", "1:00"),
    ("4", "1:10", "2:20"),
)
_CLOSED = (dt.date(2026, 9, 30), dt.date(2026, 10, 12))
_DRAWN_WEEK = (
    ("Time", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday"),
    ("8:30-9:40", "Knots\nRigging loft", "", "Knots\nRigging loft", "Splices\nRigging loft", "-"),
    (
        "9:50-11:00",
        "Splices\nRigging loft",
        "Sail plan\nSail loft",
        "",
        "Knots\nRigging loft",
        "Sail plan\nSail loft",
    ),
    ("11:00-11:50", "Lunch", "Lunch", "Lunch", "Lunch", "Lunch"),
    ("11:50-1:00", "", "Splices\nRigging loft", "Sail plan\nSail loft", "", "Yard duty\nMain slip"),
    ("1:10-2:20", "Yard duty\nMain slip", "free", "", "Yard duty\nMain slip", ""),
)


def write_export(path: Path) -> None:
    """What a school system's export looks like: class meetings, letter days with their dates, the daily schedule."""
    import xlsxwriter

    with xlsxwriter.Workbook(path) as book:
        bold = book.add_format({"bold": True})
        date = book.add_format({"num_format": "d mmm yyyy"})
        meetings = book.add_worksheet("Class meetings")
        meetings.write_row("A1", ["Course", "Section", "Days", "Block", "Room", "Instructor"], bold)
        for n, row in enumerate(_MEETINGS, 1):
            meetings.write_row(n, 0, row)
        letters = book.add_worksheet("Letter days")
        letters.write_row("A1", ["Date", "Weekday", "Day"], bold)
        day, count = dt.date(2026, 9, 8), 0
        while count < 48:
            if day.weekday() < 5 and day not in _CLOSED:
                count += 1
                letters.write_datetime(count, 0, dt.datetime.combine(day, dt.time()), date)
                letters.write_row(
                    count, 1, [f"{day:%A}", ("Keel", "Rib", "Plank", "Deck", "Mast", "Sail")[(count - 1) % 6]]
                )
            day += dt.timedelta(days=1)
        schedule = book.add_worksheet("Daily schedule")
        schedule.write_row("A1", ["Block", "Starts", "Ends"], bold)
        for n, bell in enumerate(_DAILY, 1):
            schedule.write_row(n, 0, bell)
        for page in (meetings, letters, schedule):
            page.set_column("A:F", 18)


def write_drawn_week(path: Path) -> None:
    """One teacher's week as it hangs on the wall, and the terms with their holidays."""
    import xlsxwriter

    with xlsxwriter.Workbook(path) as book:
        bold, wrap = book.add_format({"bold": True}), book.add_format({"text_wrap": True, "valign": "top"})
        week = book.add_worksheet("R. Finch")
        week.write("A1", "R. Finch", bold)
        for n, row in enumerate(_DRAWN_WEEK, 2):
            week.write_row(n, 0, row, bold if n == 2 else wrap)
        terms = book.add_worksheet("Term dates")
        terms.write_row("A1", ["What", "From", "To"], bold)
        rows = (
            ("Autumn term", "8 Sept 2026", "18 Dec 2026"),
            ("Half term", "9 Nov 2026", "13 Nov 2026"),
            ("Winter term", "5 Jan 2027", "26 Mar 2027"),
        )
        for n, term in enumerate(rows, 1):
            terms.write_row(n, 0, term)
        for page in (week, terms):
            page.set_column("A:F", 18)


WORKBOOKS = {
    "fixtures.xlsx": write_fixtures,
    "boat-week.xlsx": write_boat_week,
    "april.xlsx": write_april,
    "school-export.xlsx": write_export,
    "drawn-week.xlsx": write_drawn_week,
}
"""File name → the function that writes it."""
