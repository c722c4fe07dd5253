"""The short way through common events gives what the long one gives, for whatever lines an event has."""

from __future__ import annotations

import csv
import random
from pathlib import Path

import pytest

from helpers import csv_file, events_in, nomarium
from nomarium.ical.plainevents import PlainEvents
from nomarium.ical.reader import CalendarRead, read_calendar
from nomarium.reading.cells.partmemo import PartMemo, part_memo
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.clocks import ClockFound
from nomarium.reading.columns.decisions import Decisions
from nomarium.reading.columns.headings import unit_of
from nomarium.reading.options import Order
from nomarium.targets.calendars import CalendarTarget

TIMES = [
    ("DTSTART:20270412T090000", "DTEND:20270412T100000"), ("DTSTART:20270412T220000", "DTEND:20270413T013000"),
    ("DTSTART;TZID=Europe/London:20270412T200000", "DTEND;TZID=Europe/London:20270412T210059"),
    ("DTSTART:20270412T090000Z", "DTEND:20270412T100000Z"), ("DTSTART;VALUE=DATE:20270412", "DTEND;VALUE=DATE:20270414"),
    ("DTSTART;VALUE=DATE:20270412",), ("DTSTART:20270412",), ("DTSTART;VALUE=DATE:99991231",), ("DTSTART:20270412T090000",),
    ("DTSTART:20270412T090060", "DTEND:20270412T100000"), ("DTSTART:20270412T250000", "DTEND:20270412T260000"),
    ("DTSTART:20270412T090000", "DTEND:20270412T080000"), ("DTSTART;TZID=Nowhere/At:20270412T090000", "DTEND:20270412T100000"),
    ("DTSTART:20270412T240000", "DTEND:20270413T010000"), ("DTSTART:２０２７0412T090000", "DTEND:20270412T100000"),
]  # fmt: skip
LINES = [
    "UID:a@saltmarsh.example", "SUMMARY:Knots\\, splices", "SUMMARY: ", "LOCATION:Loft\\; upper", "DESCRIPTION:One\\nTwo\\\\three",
    "CATEGORIES:Boats,Sails\\, new", "CATEGORIES:Boats\nCATEGORIES:Rope", "STATUS:CONFIRMED", "STATUS:MAYBE", "CLASS:PRIVATE", "TRANSP:TRANSPARENT",
    "PRIORITY:3", "PRIORITY:²", "URL:https://saltmarsh.example/", "COLOR:Teal", "SEQUENCE:4", "SEQUENCE:x", "DTSTAMP:20260801T000000Z",
    "DTSTAMP:20260801T000000", "DTSTAMP:x", "LAST-MODIFIED:20260801T000000Z", "LAST-MODIFIED:20260801T000000", "CREATED:20260801T010203Z",
    "RRULE:FREQ=WEEKLY;COUNT=3", "RRULE:FREQ=WEEKLY;UNTIL=20270501T000000Z", "RRULE:FREQ=NEVER", "EXDATE:20270419T090000", "X-NOMARIUM-TEACHER:R. Finch",
    "X-NOMARIUM-AUDIENCE:Year 7,Year 8", "X-OTHER:kept", "junk without a colon", "ATTENDEE;CN=Ann:mailto:ann@saltmarsh.example",
    "BEGIN:VALARM\nACTION:DISPLAY\nDESCRIPTION:Knots\\, splices\nTRIGGER:-PT15M\nEND:VALARM",
    "BEGIN:VALARM\nACTION:DISPLAY\nDESCRIPTION:Reminder\nTRIGGER:-PT15M\nEND:VALARM", "BEGIN:VALARM\nTRIGGER:x\nEND:VALARM",
    "BEGIN:VALARM\nACTION:AUDIO\nTRIGGER;RELATED=END:PT5M\nEND:VALARM\nLOCATION:behind", "RECURRENCE-ID:20270412T090000", "GEO:44.6;-63.5",
]  # fmt: skip


def calendar(seed: int, events: int = 60) -> bytes:
    """A calendar of events whose lines are drawn from those above."""
    chance = random.Random(seed)
    blocks = []
    for _ in range(events):
        lines = [*chance.choice(TIMES), *chance.sample(LINES, chance.randint(0, 4))]
        if chance.random() < 0.7:
            lines.append("SUMMARY:Knots\\, splices")
        if chance.random() < 0.5:
            chance.shuffle(lines)
        blocks.append("\n".join(["BEGIN:VEVENT", *lines, "END:VEVENT"]))
    text = "\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", *blocks, "END:VCALENDAR", ""])
    return text.replace("\n", "\r\n").encode()


def everything(found: CalendarRead) -> tuple[object, ...]:
    return (
        [(one.event, str(one.zone), *one[2:]) for one in found.entries], found.problems, sorted(map(repr, found.notes)),
    )  # fmt: skip


@pytest.mark.parametrize("seed", range(40))
def test_the_short_way_through_an_event_is_the_long_one(seed: int, monkeypatch: pytest.MonkeyPatch) -> None:
    data = calendar(seed)
    short = everything(read_calendar(data, "a.ics"))
    monkeypatch.setattr(PlainEvents, "entry", lambda *_: None)
    assert short == everything(read_calendar(data, "a.ics"))
    assert short[0]


def test_the_short_way_is_taken() -> None:
    taken = []
    reader = PlainEvents.entry

    def entry(self: PlainEvents, text: str, line_number: int) -> object:
        taken.append(reader(self, text, line_number) is not None)
        return None

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(PlainEvents, "entry", entry)
        for seed in range(10):
            read_calendar(calendar(seed), "a.ics")
    assert sum(taken) > len(taken) / 10  # odd as these events are


def test_an_unusual_alarm_and_a_stamp_stay_in_their_order() -> None:
    lines = "DTSTART:20270412T090000\nDTEND:20270412T100000\nSUMMARY:A\nLAST-MODIFIED:20260801T000000Z\nCREATED:20260701T000000Z\n"
    alarm = "BEGIN:VALARM\nACTION:DISPLAY\nDESCRIPTION:Wake\nTRIGGER:-PT5M\nEND:VALARM\n"
    found = read_calendar(
        f"BEGIN:VCALENDAR\nBEGIN:VEVENT\n{lines}{alarm}END:VEVENT\nEND:VCALENDAR".encode(), "a.ics"
    )
    assert found.entries[0].event.details.other == (
        "LAST-MODIFIED:20260801T000000Z", "CREATED:20260701T000000Z", *alarm.split(),
    )  # fmt: skip


CELLS = [
    *(f"{day}{mark}{month}{mark}{year}" for day in ("7", "07", "31", "13", "00") for month in ("2", "09", "13") for mark in "/.-" for year in ("2026", "26")),
    *(f"{hour}:{minute}{half}" for hour in ("0", "00", "1", "06", "6", "9", "12", "13", "23", "24") for minute in ("00", "15", "60") for half in ("", " PM", "am", " p.m.")),
    "2026-09-07", "7/9-2026", "07/09/2026 10:00", "9.15", "１2:30", "7/9/２026", "9:15:00", " 9:15 PM", "noon",
]  # fmt: skip
CLOCKS = [None, ClockFound("12", "x"), ClockFound("24", "as asked"), ClockFound("mixed", "")]


@pytest.mark.parametrize("clock", CLOCKS)
@pytest.mark.parametrize("order", ["", "dmy", "mdy", "ymd"])
@pytest.mark.parametrize("field", ["date", "start", "end", "time", "end-date", "when"])
@pytest.mark.parametrize("heading", ["", "Start (pm)", "Start (UTC)", "w/c", "Due (11.59pm)"])
def test_plain_cells_are_read_as_all_others(
    field: str, order: Order, clock: ClockFound | None, heading: str
) -> None:
    decisions = Decisions(
        ENGLISH, order=order, clock=clock, date_only_columns=frozenset({0} if order == "mdy" else ())
    )
    for weekday in (None, 0):
        memo = part_memo(
            field, 0, decisions, False, weekday=weekday, zone_name="Europe/London", unit=unit_of(heading)
        )
        assert isinstance(memo, PartMemo)
        whole = part_memo(
            field, 0, decisions, False, weekday=weekday, zone_name="Europe/London", unit=unit_of(heading)
        )
        assert isinstance(whole, PartMemo)
        whole._plain = lambda _cell: None
        assert [memo[cell] for cell in CELLS] == [whole[cell] for cell in CELLS]


CELLS: dict[str, tuple[str, ...]] = {
    "Title": ("Launch", "Launch ", "Régate; à voile", "A long name of something that is held, " * 3, "Knots (cancelled)", "Cancelled: tour", "-", "", "EXAMPLE – x", "Row\nof two"),
    "Date": ("17/09/2026", "18/9/2026", "2026-09-19", "01/11/2026", "14/03/2027", "Fri 18 Sept 2026", "31/02/2026", ""),
    "Start": ("9:00", "9:15 AM", "12:30 PM", "0:30", "13:05", "noon", "", "all day"),
    "End": ("10:00", "9:45 AM", "1:30 PM", "24:00", "13:05", "14:00:30", "", "8:00"),
    "Location": ("Loft 2", "Slip; 1, west", "", "Forêt", "-"),
    "Description": ("", "Bring a rope, a knife; and <b>tea</b>", "Café\\latte " * 20, "moved to 9 Sept", "cancelled", "One\nTwo"),
    "Categories": ("Boats", "Boats, Sails", "", "Öl"),
    "Room": ("Loft 9", ""),
}  # fmt: skip


def random_table(seed: int, path: Path) -> None:
    """Rows of which about half are plain, in a table with some of the columns."""
    chance = random.Random(seed)
    headings = ["Title", "Date", "Start", "End", *(h for h in list(CELLS)[4:] if chance.random() < 0.6)]
    with path.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow(headings)
        for _ in range(40):
            plain = chance.random() < 0.5
            writer.writerow([chance.choice(CELLS[h][: 3 if plain else None]) for h in headings])


@pytest.mark.parametrize("seed", range(25))
@pytest.mark.parametrize("zone", [["--timezone", "America/Halifax"], ["--timezone", "UTC"], []], ids=str)
def test_lines_of_plain_rows_are_those_of_their_events(seed: int, zone: list[str], tmp_path: Path) -> None:
    random_table(seed, tmp_path / "list.csv")
    found = []
    for window in ([], ["--from", "1900-01-01"]):  # a window needs the events themselves
        out = tmp_path / f"{len(window)}" / "out.ics"
        out.parent.mkdir()
        run = nomarium(
            "build", tmp_path / "list.csv", "-o", out, *zone, *window, "--partial", "--date-order", "dmy"
        )
        said = "\n".join(line for line in run.text.splitlines() if not line.startswith("Wrote"))
        found.append((run.status, said, out.read_bytes()))
    assert found[0] == found[1]
    assert found[0][2].count(b"BEGIN:VEVENT") > 3


def test_rows_that_are_plain_are_written_as_lines(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "list.csv").write_text(
        "Title,Date,Start,End\nLaunch,17/09/2026,9:00,10:00\nTour (late),17/09/2026,9:00,10:00\n", "utf-8"
    )
    lined: list[str] = []
    write = CalendarTarget.write_plain

    def write_plain(
        self: CalendarTarget, zone: str | None, summary: str, day: int, body: str, row: int
    ) -> None:
        lined.append(summary)
        write(self, zone, summary, day, body, row)

    monkeypatch.setattr(CalendarTarget, "write_plain", write_plain)
    first = ("build", tmp_path / "list.csv", "-o", tmp_path / "out.ics")
    assert nomarium(*first).status == 0
    assert lined == ["Launch"]
    assert nomarium(*first).status == 0
    assert lined == ["Launch"], "over an earlier build each event is compared with what is there"


def test_a_value_that_cannot_be_among_plain_rows_is_that_rows_problem(tmp_path: Path) -> None:
    rows = ["2026-09-07,Regatta,5", "2026-09-08,Tide,soon", "2026-09-09,Sail,5", "2026-09-10,Oar,5"]
    source = csv_file(tmp_path, "\n".join(["Date,Title,Priority", *rows]))
    told = nomarium("build", source, "-o", tmp_path / "o.ics", "--partial")
    assert told.status == 1
    assert "row 3, column C “Priority”: “soon”" in told.err
    assert [str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")] == ["Regatta", "Sail", "Oar"]
