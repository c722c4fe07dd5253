"""Letters, programmes, calendars and timetables made at random, each in every kind of document, must come back as the events that they
were made from."""

from __future__ import annotations

import csv
import datetime as dt
import html
import random
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

import pytest

from helpers import nomarium
from test_documents import docx, mail, odt, page, word_paragraph

TITLES = (
    "Launch day", "Open evening", "Rowing regatta", "Knot workshop", "Parents' evening", "Boat show", "Harvest supper", "Choir concert",
    "Rigging exam", "Visit to the harbour", "Prize giving", "Sail loft tour", "Year 9 trip", "Governors' meeting", "Film night",
)  # fmt: skip
PLACES = ("Main Hall", "Sail loft", "Slip 1", "Shed A", "Canteen", "North Quay")
ASIDES = (
    "The office is open Monday to Friday, 8.30am to 4pm.", "For more information ring 01632 960123.", "All are welcome.",
    "Tickets £5 (under 12s free).", "Please see page 4 for details.", "Children must be aged 7–11.",
)  # fmt: skip
YEAR = ("--school-year", "2026:2027", "--date-order", "dmy", "--timezone", "America/Halifax")


class Made(NamedTuple):
    title: str
    day: dt.date
    start: int | None
    end: int | None
    place: str


Block = tuple[str, list[list[str]]]
"""What a block is, `head`, `text`, `list` or `table`, and its rows of cells; a text has one cell a row."""


def ordinal(number: int) -> str:
    return f"{number}{'th' if 10 < number % 100 < 14 else {1: 'st', 2: 'nd', 3: 'rd'}.get(number % 10, 'th')}"


DATES: dict[str, Callable[[dt.date], str]] = {
    "long": lambda d: f"{d.day} {d:%B} {d.year}",
    "weekday": lambda d: f"{d:%A} {ordinal(d.day)} {d:%B} {d.year}",
    "month first": lambda d: f"{d:%A}, {d:%B} {d.day}, {d.year}",
    "short": lambda d: f"{d:%a} {d.day} {d:%b}",
}


def clock(minutes: int) -> str:
    return f"{minutes // 60:02}:{minutes % 60:02}"


def by_twelve(minutes: int) -> str:
    return f"{(minutes // 60 - 1) % 12 + 1}:{minutes % 60:02} {'am' if minutes < 720 else 'pm'}"


def times(one: Made, said: Callable[[int], str]) -> str:
    return "" if one.start is None else said(one.start) + ("" if one.end is None else f"–{said(one.end)}")


def events(rng: random.Random, count: int) -> list[Made]:
    found = []
    for title in rng.sample(TITLES, count):
        start = None if rng.random() < 0.2 else rng.choice(range(480, 1200, 15))
        end = None if start is None or rng.random() < 0.5 else start + rng.choice((45, 60, 90))
        day = dt.date(2026, 9, 1) + dt.timedelta(rng.randrange(290))
        found.append(Made(title, day, start, end, rng.choice((*PLACES, ""))))
    return sorted(found, key=lambda one: (one.day, one.start or 0))


def heading(text: str) -> Block:
    return "head", [[text]]


def dates_in_a_list(rng: random.Random) -> tuple[list[Block], list[Made]]:
    made, said, date = events(rng, 6), rng.choice((clock, by_twelve)), DATES[rng.choice(list(DATES))]
    form = rng.choice(
        ("{d}: {t}, {c}, {p}", "{d} – {t} ({c}, {p})", "{d} – {t} – {c} – {p}", "{t}, {d}, {c}, {p}")
    )
    lines = []
    for one in made:
        line = form.format(d=date(one.day), t=one.title, c=times(one, said) or "\0", p=one.place or "\0")
        for gap in ("(\0, \0)", ", \0", " – \0", "\0, "):
            line = line.replace(gap, "")
        lines.append([line])
    return [
        heading("Dates for your diary"),
        ("text", [[rng.choice(ASIDES)]]),
        (rng.choice(("text", "list")), lines),
    ], made


def labelled_blocks(rng: random.Random) -> tuple[list[Block], list[Made]]:
    made, said, date = events(rng, 3), rng.choice((clock, by_twelve)), DATES[rng.choice(list(DATES))]
    blocks = [heading("Coming up")]
    for one in made:
        lines = [[f"Date: {date(one.day)}"]]
        lines += [[f"Time: {times(one, said)}"]] * (one.start is not None) + [[f"Place: {one.place}"]] * bool(
            one.place
        )
        blocks.append(heading(one.title))
        blocks += [("text", [line]) for line in lines] if rng.random() < 0.5 else [("text", lines)]
        blocks += [("text", [["All are welcome."]])] * (rng.random() < 0.4)
    return blocks, made


def letter(rng: random.Random) -> tuple[list[Block], list[Made]]:
    made, date = events(rng, 4), DATES[rng.choice(("long", "weekday", "month first"))]
    blocks: list[Block] = [heading("Newsletter"), ("text", [["Dear parents and carers,"]])]
    for one in made:
        at = (
            ""
            if one.start is None
            else f" from {times(one, by_twelve)}"
            if one.end
            else f" at {by_twelve(one.start)}"
        )
        where = (
            f" in {one.place}"
            if one.place in ("Slip 1", "Shed A")
            else f" in the {one.place}"
            if one.place
            else ""
        )
        said = rng.choice(
            (
                "The {t} takes place on {w}.",
                "Our {t} will be held on {w}.",
                "Please join us for the {t} on {w}.",
            )
        )
        blocks.append(
            ("text", [[f"{said.format(t=one.title, w=date(one.day) + at + where)} {rng.choice(ASIDES)}"]])
        )
    return blocks, made


def a_day_by_the_clock(rng: random.Random) -> tuple[list[Block], list[Made]]:
    blocks, made = [heading("Programme")], []
    said, form = (
        rng.choice((clock, by_twelve)),
        rng.choice(("{c} {t} ({p})", "{c} – {t} – {p}", "{c}\t{t}\t{p}")),
    )
    names = iter(
        rng.sample(
            (
                "Registration",
                "Welcome",
                "Tide talk",
                "Lunch",
                "Panel: wood or steel?",
                "Closing words",
                "Coffee",
                "Harbour walk",
            ),
            8,
        )
    )
    for n in range(2):
        day, start, lines = dt.date(2026, 10, 5) + dt.timedelta(7 * n), 540, []
        for _ in range(4):
            one = Made(next(names), day, start, start + 45, rng.choice(PLACES))
            lines.append([form.format(c=times(one, said), t=one.title, p=one.place)])
            made.append(one)
            start += 60
        blocks += [heading(DATES["weekday"](day)), (rng.choice(("text", "list")), lines)]
    return blocks, made


def months_over_tables(rng: random.Random) -> tuple[list[Block], list[Made]]:
    made, blocks = events(rng, 9), [heading("Calendar 2026–27")]
    for month in dict.fromkeys((one.day.year, one.day.month) for one in made):
        those = [one for one in made if (one.day.year, one.day.month) == month]
        rows = [[f"{one.day:%a} {one.day.day}", one.title, times(one, clock), one.place] for one in those]
        blocks += [heading(f"{those[0].day:%B} {month[0]}"), ("table", rows)]
    return blocks, made


def an_exam_timetable(rng: random.Random) -> tuple[list[Block], list[Made]]:
    made, rows, day = [], [["Date", "Session", "Start", "End", "Paper", "Room"]], dt.date(2027, 5, 10)
    for n, subject in enumerate(
        rng.sample(("Rigging", "Navigation", "Joinery", "Boat design", "French", "Drawing"), 6)
    ):
        start = 540 if n % 2 == 0 else 810
        one = Made(f"{subject}: Paper 1", day + dt.timedelta(n // 2), start, start + 90, rng.choice(PLACES))
        rows.append(
            [
                DATES["long"](one.day),
                "AM" if start < 720 else "PM",
                clock(start),
                clock(start + 90),
                one.title,
                one.place,
            ]
        )
        made.append(one)
    return [
        heading("Examinations"),
        ("text", [["Be seated 10 minutes before the start."]]),
        ("table", rows),
    ], made


FORMS = (dates_in_a_list, labelled_blocks, letter, a_day_by_the_clock, months_over_tables, an_exam_timetable)


def as_text(blocks: list[Block], rng: random.Random) -> str:
    lines: list[str] = []
    underlined = rng.random() < 0.5
    for kind, rows in blocks:
        if kind == "table":
            widths = [max(len(row[n]) for row in rows) + 3 for n in range(len(rows[0]))]
            lines += [
                "".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip()
                for row in rows
            ]
        else:
            lines += [f"- {row[0]}" if kind == "list" else row[0] for row in rows]
        lines += ["-" * len(rows[0][0])] * (underlined and kind == "head") + [""]
    return "\n".join(lines)


def as_page(blocks: list[Block]) -> str:
    parts = []
    for kind, rows in blocks:
        cells = [[html.escape(cell).replace("\t", "&emsp;") for cell in row] for row in rows]
        if kind == "table":
            parts.append(
                "<table>"
                + "".join("<tr><td>" + "</td><td>".join(row) + "</td></tr>" for row in cells)
                + "</table>"
            )
        elif kind == "list":
            parts.append("<ul>" + "".join(f"<li>{row[0]}</li>" for row in cells) + "</ul>")
        else:
            tag = "h2" if kind == "head" else "p"
            parts.append(f"<{tag}>" + "<br>\n".join(row[0] for row in cells) + f"</{tag}>")
    return "\n".join(parts)


def as_word(blocks: list[Block]) -> str:
    parts = []
    for kind, rows in blocks:
        cells = [[html.escape(cell).replace("\t", "</w:t><w:tab/><w:t>") for cell in row] for row in rows]
        if kind == "table":
            made = ("".join(f"<w:tc>{word_paragraph(cell)}</w:tc>" for cell in row) for row in cells)
            parts.append("<w:tbl>" + "".join(f"<w:tr>{row}</w:tr>" for row in made) + "</w:tbl>")
        else:
            style = '<w:pPr><w:pStyle w:val="Heading1"/></w:pPr>' if kind == "head" else ""
            parts += [f"<w:p>{style}<w:r><w:t>{row[0]}</w:t></w:r></w:p>" for row in cells]
    return "".join(parts)


def as_odt(blocks: list[Block]) -> str:
    parts = []
    for kind, rows in blocks:
        cells = [[html.escape(cell).replace("\t", "<text:tab/>") for cell in row] for row in rows]
        if kind == "table":
            made = (
                "".join(f"<table:table-cell><text:p>{cell}</text:p></table:table-cell>" for cell in row)
                for row in cells
            )
            parts.append(
                "<table:table>"
                + "".join(f"<table:table-row>{row}</table:table-row>" for row in made)
                + "</table:table>"
            )
        else:
            tag = "h" if kind == "head" else "p"
            parts += [f"<text:{tag}>{row[0]}</text:{tag}>" for row in cells]
    return "".join(parts)


def written(folder: Path, kind: str, blocks: list[Block], rng: random.Random) -> Path:
    if kind == "docx":
        return docx(folder, as_word(blocks))
    if kind == "odt":
        return odt(folder, as_odt(blocks))
    if kind == "html":
        return page(folder, as_page(blocks))
    if kind == "eml":
        return mail(folder, as_page(blocks), "text/html")
    path = folder / "dates.txt"
    path.write_text(as_text(blocks, rng), "utf-8")
    return path


def plain_place(text: str) -> str:
    return text.casefold().removeprefix("the ")


@pytest.mark.parametrize("kind", ["txt", "html", "docx", "odt", "eml"])
@pytest.mark.parametrize("form", FORMS, ids=lambda form: form.__name__)
def test_a_document_comes_back_as_what_it_was_made_from(
    form: Callable[[random.Random], tuple[list[Block], list[Made]]], kind: str, tmp_path: Path
) -> None:
    for seed in range(3):
        rng = random.Random(f"{form.__name__} {kind} {seed}")
        blocks, made = form(rng)
        out = tmp_path / f"{seed}.csv"
        outcome = nomarium("build", written(tmp_path, kind, blocks, rng), "-o", out, *YEAR)
        assert outcome.status == 0, outcome.text
        with out.open(encoding="utf-8-sig") as file:
            got = list(csv.DictReader(file))
        found = sorted(
            (row["Date"], row["Start"], row["Title"].casefold(), plain_place(row["Location"])) for row in got
        )
        assert found == sorted(
            (
                one.day.isoformat(),
                "" if one.start is None else clock(one.start),
                one.title.casefold(),
                plain_place(one.place),
            )
            for one in made
        ), as_text(blocks, rng)
        ends = {(row["Date"], row["Start"], row["End"]) for row in got}
        assert all(
            (one.day.isoformat(), clock(one.start), clock(one.end)) in ends
            for one in made
            if one.start is not None and one.end is not None
        )
