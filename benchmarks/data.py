"""Made-up files of any size, the same at every run."""

from __future__ import annotations

import datetime as dt
import random
import zipfile
from collections.abc import Iterator
from pathlib import Path

HEADINGS = ("Title", "Date", "Start", "End", "Location", "Description")
_WHAT = ("Keel laying", "Rib bending", "Planking", "Rope work", "Caulking", "Sail plan", "Varnish", "Launch")
_WHERE = ("Slip 1", "Slip 2", "Rigging loft", "Sail loft", "Steam shed", "Paint shed")


def rows(count: int, adverse: bool = False) -> Iterator[tuple[str, ...]]:
    """Rows of an event list. Adverse ones are all different in every cell, so that nothing seen helps."""
    chance = random.Random(7)
    for n in range(count):
        day = dt.date(2026, 9, 1) + dt.timedelta(days=chance.randrange(300))
        hour, minute = chance.randrange(8, 17), chance.choice((0, 15, 30, 45))
        where, notes = chance.choice(_WHERE), "Bring gloves, and a knife" if n % 5 == 0 else ""
        if adverse:
            day = dt.date(1950, 1, 1) + dt.timedelta(days=chance.randrange(70_000))
            second = chance.randrange(60)
            start, end = (
                f"{hour:02}:{minute + 1:02}:{second:02}",
                f"{hour + 1:02}:{minute:02}:{59 - second:02}",
            )
            yield (
                f"{chance.choice(_WHAT)} {n}",
                str(day),
                start,
                end,
                f"{where}, berth {n}",
                f"Nº {n}: {notes}",
            )
        else:
            start, end = f"{hour:02}:{minute:02}", f"{hour + 1:02}:{minute:02}"
            yield f"{chance.choice(_WHAT)} {n}", str(day), start, end, where, notes


def write_csv(path: Path, count: int, adverse: bool = False) -> None:
    import csv

    with path.open("w", newline="", encoding="utf-8") as file:
        writer = csv.writer(file)
        writer.writerow(HEADINGS)
        writer.writerows(rows(count, adverse))


def write_xlsx(path: Path, count: int) -> None:
    """With real dates and times."""
    import xlsxwriter

    with xlsxwriter.Workbook(path, {"constant_memory": True}) as book:
        date, time = book.add_format({"num_format": "yyyy-mm-dd"}), book.add_format({"num_format": "hh:mm"})
        sheet = book.add_worksheet("Events")
        sheet.write_row(0, 0, HEADINGS)
        for at, (title, day, start, end, where, notes) in enumerate(rows(count), 1):
            sheet.write_string(at, 0, title)
            sheet.write_datetime(at, 1, dt.datetime.fromisoformat(day), date)
            for column, clock in ((2, start), (3, end)):
                sheet.write_number(at, column, (int(clock[:2]) * 60 + int(clock[3:])) / 1440, time)
            sheet.write_row(at, 4, (where, notes))


def write_ods(path: Path, count: int) -> None:
    """The smallest OpenDocument workbook, dates and times as real values."""
    names = "".join(
        f' xmlns:{name}="urn:oasis:names:tc:opendocument:xmlns:{name}:1.0"'
        for name in ("office", "table", "text")
    )
    text = '<table:table-cell office:value-type="string"><text:p>{}</text:p></table:table-cell>'
    date = '<table:table-cell office:value-type="date" office:date-value="{0}"><text:p>{0}</text:p></table:table-cell>'
    time = '<table:table-cell office:value-type="time" office:time-value="PT{0}H{1}M00S"><text:p>{0}:{1}</text:p></table:table-cell>'
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        archive.writestr(
            "META-INF/manifest.xml",
            '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
        )
        with archive.open("content.xml", "w") as file:
            head = "".join(map(text.format, HEADINGS))
            file.write(
                f"<office:document-content{names}><office:body><office:spreadsheet>"
                f'<table:table table:name="Events"><table:table-row>{head}</table:table-row>'.encode()
            )
            for title, day, start, end, where, notes in rows(count):
                cells = text.format(title) + date.format(day)
                cells += time.format(start[:2], start[3:]) + time.format(end[:2], end[3:])
                cells += text.format(where) + text.format(notes)
                file.write(f"<table:table-row>{cells}</table:table-row>".encode())
            file.write(b"</table:table></office:spreadsheet></office:body></office:document-content>")
