"""PDF documents as sources: ruled and unruled tables, tables over pages, lines, columns of text, and what cannot be read."""

from __future__ import annotations

import io
from pathlib import Path

import pdfplumber
import pytest

from helpers import events_in, nomarium, plain
from nomarium.sheets.pdf import open_pdf
from nomarium.sheets.sheet import cell_text
from pdf_maker import Mark, pdf, table

EVENTS = [
    ["Date", "Time", "Event", "Place"],
    ["Mon 7 Sept 2026", "9:00-10:30", "Welcome", "Main slip"],
    ["Tue 8 Sept 2026", "10:00-11:00", "Knots and splices", "Rigging loft"],
    ["Sat 12 Sept 2026", "14:00-16:00", "Regatta", "Slip 2"],
]
READ = [
    "Welcome 2026-09-07T09:00/2026-09-07T10:30 @ Main slip", "Knots and splices 2026-09-08T10:00/2026-09-08T11:00 @ Rigging loft",
    "Regatta 2026-09-12T14:00/2026-09-12T16:00 @ Slip 2",
]  # fmt: skip
COLUMNS = (40.0, 160.0, 260.0, 420.0)


def read(folder: Path, data: bytes, *options: object) -> tuple[list[str], str]:
    """The events of a document, and what was said."""
    source, target = folder / "dates.pdf", folder / "dates.ics"
    source.write_bytes(data)
    outcome = nomarium("build", source, "-o", target, *options)
    assert outcome.status == 0, outcome.text
    return [plain(event) for event in events_in(target)], outcome.text


def rows_of(folder: Path, data: bytes) -> list[list[list[str]]]:
    path = folder / "rows.pdf"
    path.write_bytes(data)
    return [
        [[cell_text(cell) for cell in row] for number, row in sheet.rows() if number]
        for sheet in open_pdf(path, "rows.pdf")
    ]


@pytest.mark.parametrize("ruled", [True, False])
@pytest.mark.parametrize("packed", [True, False])
def test_a_table_is_read_ruled_or_not(ruled: bool, packed: bool, tmp_path: Path) -> None:
    events, said = read(tmp_path, pdf(table(EVENTS, COLUMNS, ruled=ruled), packed=packed))
    assert events == READ
    assert "3 rows read = 3 events" in said


def test_cells_of_a_ruled_table_are_those_that_another_reader_finds(tmp_path: Path) -> None:
    rows = [*EVENTS, ["Sun 13 Sept 2026", "10:00\nto 12:00", "Races of all\nthe boats", ""]]
    data = pdf(table(rows, COLUMNS, ruled=True))
    with pdfplumber.open(io.BytesIO(data)) as document:
        theirs = document.pages[0].extract_tables()[0]
    assert rows_of(tmp_path, data)[0] == [[cell or "" for cell in row] for row in theirs] == rows


def test_a_table_that_goes_on_is_one_with_its_headings_and_page_numbers_away(tmp_path: Path) -> None:
    days = [[f"{n % 28 + 1:02}/{9 + n // 28:02}/2026", f"Lesson {n}", f"Shed {n % 4}"] for n in range(90)]
    pages = [
        [(220.0, 30.0, f"Saltmarsh School, page {n + 1} of 3"), *table([["Date", "Event", "Room"], *days[n * 30 : n * 30 + 30]], (40, 160, 320), 70, 20)]
        for n in range(3)
    ]  # fmt: skip
    events, said = read(tmp_path, pdf(*pages))
    assert len(events) == 90
    assert "Running heads and feet of its pages are passed over: 3 lines" in said


def test_weeks_that_head_pages_are_no_page_numbers(tmp_path: Path) -> None:
    pages = [
        [
            (40.0, 60.0, f"Week {n}"),
            (40.0, 90.0, f"{6 + n} September 2026: Muster {n}"),
            (40.0, 105.0, "Bring boots."),
        ]
        for n in (1, 2, 3)
    ]
    events, said = read(tmp_path, pdf(*pages))
    assert events == [f"Muster {n} 2026-09-{6 + n:02}/2026-09-{7 + n:02}" for n in (1, 2, 3)]
    assert "page 1, line 2 has the date" in said or "line 2 has the date" in said


def test_lines_are_numbered_anew_on_each_page(tmp_path: Path) -> None:
    pages: list[list[Mark]] = [
        [(40, 100, "Mon 7 September 2026: Muster")],
        [(40, 100, "Notes"), (40, 115, "Mon 8 September 2026: Race")],
    ]
    source = tmp_path / "two.pdf"
    source.write_bytes(pdf(*pages))
    outcome = nomarium("build", source, "-o", tmp_path / "a.ics")
    assert outcome.status == 1
    assert "two.pdf, page 2, line 2" in outcome.text


def test_lines_of_a_programme(tmp_path: Path) -> None:
    lines = [
        "Open day",
        "Saturday 12 September 2026",
        "10.00 Welcome (Main slip)",
        "10.30 Tour of the yard",
        "12 noon Lunch",
    ]
    events, _ = read(tmp_path, pdf([(60.0, 80.0 + 16 * n, line) for n, line in enumerate(lines)]))
    assert events == [
        "Welcome 2026-09-12T10:00/2026-09-12T10:30 @ Main slip", "Tour of the yard 2026-09-12T10:30/2026-09-12T12:00",
        "Lunch 2026-09-12T12:00/2026-09-12T13:00",
    ]  # fmt: skip


def test_two_columns_of_text_are_read_one_after_the_other(tmp_path: Path) -> None:
    left = [
        "The school has had a good summer and",
        "the new slip is ready for the boats.",
        "Sat 12 September 2026: Regatta, Slip 2",
        "All families are welcome to come and",
        "see what the apprentices have built.",
    ]
    right = [
        "In the autumn we shall begin to build",
        "a ketch, which will take two years.",
        "Mon 14 September 2026: Laying of the keel",
        "Those who can help should write to us",
        "before the end of the first half term.",
    ]
    marks: list[Mark] = [(40.0, 100.0 + 14 * n, line) for n, line in enumerate(left)]
    marks += [(310.0, 100.0 + 14 * n, line) for n, line in enumerate(right)]
    events, _ = read(tmp_path, pdf(marks))
    assert events == ["Regatta 2026-09-12/2026-09-13 @ Slip 2", "Laying of the keel 2026-09-14/2026-09-15"]


def test_columns_of_a_newsletter_whose_lines_stand_at_heights_of_their_own(tmp_path: Path) -> None:
    left = [
        "It has been a busy start of the year and the",
        "apprentices have launched their first skiff.",
        "The harvest supper will be held on Thursday 15",
        "October 2026 at 6.30pm in the Main Shed. Please",
        "bring a dish to share.",
    ]
    right = [
        "Dates for your diary",
        "Mon 12 Oct 2026 - Thanksgiving",
        "Wed 21 Oct 2026 - Parents' evening, 4-7pm",
        "26-30 Oct 2026 - Half term",
    ]
    marks: list[Mark] = [(40.0, 60.0, "The Tern - Newsletter 3"), (40.0, 74.0, "Friday 2 October 2026")]
    marks += [(40.0, 104.0 + 14 * n, line) for n, line in enumerate(left)]
    marks += [(310.0, 100.0 + 14 * n, line) for n, line in enumerate(right)]
    events, _ = read(tmp_path, pdf(marks))
    assert events == [
        "Harvest supper 2026-10-15T18:30/2026-10-15T19:30 @ Main Shed", "Thanksgiving 2026-10-12/2026-10-13",
        "Parents' evening 2026-10-21T16:00/2026-10-21T19:00", "Half term 2026-10-26/2026-10-31",
    ]  # fmt: skip


def test_days_of_a_programme_with_columns_of_their_own(tmp_path: Path) -> None:
    days = {"Saturday 12 June 2027": (40.0, 130.0, 260.0), "Sunday 13 June 2027": (40.0, 110.0, 190.0)}
    rows = [
        ["09:00", "Boats", "Foyer"],
        ["09:30-10:30", "Opening talk", "Hall"],
        ["11:00", "Launch", "Slip 1"],
    ]
    marks: list[Mark] = [(40.0, 60.0, "Programme")]
    top = 80.0
    for day, columns in days.items():
        marks.append((30.0, top, day))
        for n, row in enumerate(rows):
            up = 6 * (row[1] == "Opening talk")  # of two lines, beside the middle of which the others stand
            marks += [
                (x, top + 20 * (n + 1) - up * (x == columns[1]), text)
                for x, text in zip(columns, row, strict=True)
            ]
        marks += [(columns[1], top + 46, "I. Holm")]
        top += 90
    events, said = read(tmp_path, pdf(marks))
    assert events == [
        f"{title} 2027-06-{day}T{start}/2027-06-{day}T{end} @ {place}"
        for day in (12, 13)
        for title, start, end, place in (
            ("Boats", "09:00", "10:00", "Foyer"), ("Opening talk I. Holm", "09:30", "10:30", "Hall"), ("Launch", "11:00", "12:00", "Slip 1"),
        )
    ], said  # fmt: skip


def test_lines_that_a_cell_of_a_month_was_too_narrow_for(tmp_path: Path) -> None:
    days = [
        [
            "",
            "",
            "",
            "1\nHarvest\nassembly\n9.15am",
            "2\nParents'\nevening 4-\n7pm",
            "3",
            "4\nRegatta\nFeast 7pm",
        ]
    ]
    days += [[str(day) if day < 32 else "" for day in range(first, first + 7)] for first in (5, 12, 19, 26)]
    rows = [["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"], *days]
    marks: list[Mark] = [
        (40.0, 60.0, "October 2026"),
        *table(rows, tuple(40.0 + 70 * n for n in range(7)), ruled=True),
    ]
    events, said = read(tmp_path, pdf(marks))
    assert events == [
        "Harvest assembly 2026-10-01T09:15/2026-10-01T10:15", "Parents' evening 2026-10-02T16:00/2026-10-02T19:00",
        "Regatta 2026-10-04/2026-10-05", "Feast 2026-10-04T19:00/2026-10-04T20:00",
    ], said  # fmt: skip


def test_headings_over_the_lines_of_a_table_are_its_own(tmp_path: Path) -> None:
    """The weekdays stand over what is ruled, and the month over them."""
    columns = tuple(40.0 + 70 * n for n in range(7))
    weeks = [[str(day) for day in range(first, first + 7)] for first in (7, 14, 21)]
    weeks[0][2] = "9\nInset day"
    marks: list[Mark] = [(40.0, 60.0, "June 2027")]
    marks += [
        (x + 3, 84.0, day)
        for x, day in zip(columns, ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"), strict=True)
    ]
    events, said = read(tmp_path, pdf([*marks, *table(weeks, columns, ruled=True)]))
    assert events == ["Inset day 2027-06-09/2027-06-10"], said


def test_merged_cells_and_rows_that_only_a_frame_holds(tmp_path: Path) -> None:
    marks = table([["Date", "Event"], ["7 Sept 2026", "Knots"], ["", "Sails"]], (40, 200), ruled=False)
    levels, xs = (88.0, 106.0, 124.0, 142.0), (40.0, 200.0, 400.0)
    marks += (
        [(40.0, y, 400.0, y) for y in levels if y != 124.0]
        + [(200.0, 124.0, 400.0, 124.0)]
        + [(x, 88.0, x, 142.0) for x in xs]
    )
    events, _ = read(tmp_path, pdf(marks))
    assert events == ["Knots 2026-09-07/2026-09-08", "Sails 2026-09-07/2026-09-08"]
    framed = table(EVENTS, COLUMNS, ruled=False)
    framed += [
        (40.0, 88.0, 560.0, 88.0),
        (40.0, 104.0, 560.0, 104.0),
        (40.0, 164.0, 560.0, 164.0),
        *((x, 88.0, x, 164.0) for x in (*COLUMNS, 560.0)),
    ]
    assert read(tmp_path, pdf(framed))[0] == READ


def test_letters_that_stand_sideways_are_told(tmp_path: Path) -> None:
    events, said = read(tmp_path, pdf([*table(EVENTS, COLUMNS), (20.0, 300.0, "^Sept")]))
    assert events == READ
    assert "Letters that stand sideways are not read: 4" in said


def test_a_page_that_is_shown_turned(tmp_path: Path) -> None:
    marks = [
        (x, y, f"^{text}")
        for x, y, text in ((100.0, 800.0, "7 Sept 2026: Muster"), (130.0, 800.0, "8 Sept 2026: Race"))
    ]
    assert read(tmp_path, pdf(marks, rotate=90))[0] == [
        "Muster 2026-09-07/2026-09-08",
        "Race 2026-09-08/2026-09-09",
    ]


UNREAD = {
    "damaged": (pdf(table(EVENTS, COLUMNS))[:300], "cut short or damaged"),
    "nothing in it": (b"%PDF-1.7\nnothing", "cut short or damaged"),
    "no text": (pdf([]), "holds no table and no line of text"),
}


@pytest.mark.parametrize("name", UNREAD)
def test_what_cannot_be_read_is_told_in_one_line(name: str, tmp_path: Path) -> None:
    data, why = UNREAD[name]
    source, target = tmp_path / "bad.pdf", tmp_path / "out.ics"
    source.write_bytes(data)
    outcome = nomarium("build", source, "-o", target)
    assert (outcome.status, target.exists()) == (1, False)
    assert why in outcome.text
    assert "Traceback" not in outcome.text


def test_a_page_without_text_is_told(tmp_path: Path) -> None:
    assert "Page 2 has no text" in read(tmp_path, pdf(table(EVENTS, COLUMNS), []))[1]


def test_a_scan_is_refused_by_its_page(tmp_path: Path) -> None:
    image = b"q 100 0 0 100 50 500 cm BI /W 1 /H 1 /BPC 8 /CS /G ID \x80 EI Q"
    data = pdf([(40, 100, "Mon 7 September 2026: Muster")], [(40, 100, "X" * len(image))])
    start = data.rindex(b"BT /F")
    end = data.index(b"ET", start) + 2
    data = data[:start] + image.ljust(end - start) + data[end:]
    source = tmp_path / "scan.pdf"
    source.write_bytes(data)
    assert "Page 2 is a picture without text" in nomarium("build", source, "-o", tmp_path / "o.ics").text


def test_a_stream_that_unpacks_without_end_is_stopped(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("nomarium.sheets.pdfpages.LONGEST_READER_SECS", 5)
    marks: list[Mark] = [(40.0, 100.0, "A" * 40)]
    data = pdf(marks, packed=True)
    import zlib

    bomb = zlib.compress(b"BT /F 10 Tf 40 700 Td (" + b"A" * (300 << 20) + b") Tj ET", 9)
    start = data.index(b"<< /Length")
    end = data.index(b"endstream", start)
    source = tmp_path / "bomb.pdf"
    source.write_bytes(
        data[:start]
        + b"<< /Length %d /Filter /FlateDecode >>\nstream\n" % len(bomb)
        + bomb
        + b"\n"
        + data[end:]
    )
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert outcome.status == 1
    assert "reading it takes more than" in outcome.text and "Traceback" not in outcome.text


def test_rows_that_come_back_on_every_page_are_rows(tmp_path: Path) -> None:
    days = ["Monday", "Tuesday", "Wednesday"]
    pages = [
        [(40.0, 40.0, f"Week of {7 + 7 * n} September 2026"), *table([["", *days], ["9:00-10:00", "Knots", "Sails", "Knots"], ["10:00-11:00", "Steam", f"Race {n}", ""]], (40, 150, 260, 370), 70, 18, ruled=bool(n % 2))]
        for n in range(3)
    ]  # fmt: skip
    tables = [rows for rows in rows_of(tmp_path, pdf(*pages)) if len(rows[0]) > 1]
    assert sum(row[1:] == ["Knots", "Sails", "Knots"] for rows in tables for row in rows) == 3
    lists = [
        [
            (40.0, 50.0, f"Mon {7 + 7 * n} September 2026"),
            (40.0, 64.0, "9.00 Assembly"),
            (40.0, 78.0, f"10.00 Race {n}"),
        ]
        for n in range(3)
    ]
    assert len(read(tmp_path, pdf(*lists))[0]) == 6
