"""Every kind of source goes through one stream: windows, repeats, twins, days off and counts hold for each alike."""

from __future__ import annotations

import datetime as dt
import json
from collections.abc import Iterator
from pathlib import Path

import pytest

from helpers import csv_file, events_in, nomarium, plain, refused
from nomarium.building.build import build
from nomarium.building.options import BuildOptions
from nomarium.model.account import Account, Ledger
from nomarium.model.entry import Series
from nomarium.model.event import NO_DETAILS, Details, Event
from nomarium.model.problem import Place
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows import reader, tableevents
from nomarium.reckoning.window import Window
from nomarium.sheets.opening import open_source
from nomarium.sources.dated import dated_events
from nomarium.sources.opening import Opened, sources_in
from nomarium.sources.source import Source
from test_calendar_source import PLAIN, ics, vevent
from test_plan_year import folder

LIST = "Title,Date\nA,2027-04-12\nB,2027-04-13"
WEEKLY = "Title,Date,Repeat\nSail,2027-04-12,every Monday for 6 weeks"
TWICE = vevent("SUMMARY:Launch|DTSTART:20270405T090000|DTEND:20270405T100000")
PLAN = {
    "terms": "Name,First day,Last day\nAutumn,2026-09-07,2026-09-18",
    "cycle": "Label\nA\nB\nC",
    "bells": "Period,Start,End\n1,9:00,10:00",
    "timetable": "Class,Label,Period\nKnots,A,1",
}
TEA = {"events": "Title,Date,Start,Repeat\nTea,2026-09-07,15:00,every Monday"}


# -- rows are counted where they are read ---------------------------------------------------------------------


def test_a_ledger_shows_rows_that_are_lost_or_counted_twice() -> None:
    ledger = Ledger()
    ledger.read, ledger.events, ledger.notes = 5, 3, 1
    assert ledger.lost == 1
    ledger.blank = 2
    assert ledger.lost == -1


def test_accounts_add_up_part_by_part() -> None:
    one, two = Ledger(), Ledger("entries")
    one.read, one.events = 2, 2
    two.read, two.rejected, two.left_out = 3, 1, 2
    one.add(two)
    assert one.as_dict() == {"read": 5, "events": 2, "blank": 0, "notes": 0, "left_out": 2, "rejected": 1}
    assert one.unit == "rows and entries"


def test_an_account_that_does_not_add_up_is_a_problem() -> None:
    account = Account("events.csv")
    account.ledger.read = 2
    account.ledger.events = 1
    (problem,) = account.all_problems()
    assert problem.code == "rows-lost"
    assert "1 too few" in problem.message
    assert problem.place == Place("events.csv")


def test_a_row_that_is_lost_while_reading_stops_the_build(tmp_path, monkeypatch) -> None:
    """The first promise must be able to fail: here a row is dropped on purpose."""

    class Losing(reader.RowReader):  # what a slip in the program would do
        def read(self, number: int, row) -> Event | None:
            return None if number == 3 else super().read(number, row)

    monkeypatch.setattr(tableevents, "RowReader", Losing)
    text = refused(csv_file(tmp_path, LIST))
    assert "The account does not add up" in text
    assert "1 too few" in text


COUNTED = {
    "a list with titles and blanks": (
        "My events\n\nTitle,Date\nA,2027-04-12\n\nB,2027-04-13",
        (5, 2, 2, 1, 0, 0),
    ),
    "no headings": ("A,2027-04-12\nB,2027-04-13", (2, 2, 0, 0, 0, 0)),
    "a total below": (LIST + "\nTotal,2", (3, 2, 0, 1, 0, 0)),
    "an example row": ("Title,Date\nEXAMPLE – Keel,2027-04-12\nB,2027-04-13", (2, 1, 0, 0, 1, 0)),
    "one that is rejected": (LIST + "\nC,2027-02-30", (3, 2, 0, 0, 0, 1)),
    "outside the window": (LIST + "\nC,2028-01-01", (3, 2, 0, 0, 1, 0)),
    "a grid": (",2027-04-12,2027-04-13\n9:00,Sail,Rope\n10:00,Oars,", (3, 3, 0, 0, 0, 0)),
    "a grid under a title": (
        "Boat week\n,2027-04-12,2027-04-13\n9:00,Sail,Rope\n10:00,Oars,",
        (4, 3, 0, 1, 0, 0),
    ),
}


@pytest.mark.parametrize("name", COUNTED)
def test_the_account_of_a_table(name: str, tmp_path: Path) -> None:
    text, expected = COUNTED[name]
    source = csv_file(tmp_path, text)
    outcome = nomarium(
        "build", source, "-o", tmp_path / "o.ics", "--json", "--until", "2027-12-31", "--partial"
    )
    ledger = json.loads(outcome.out)["ledger"]
    read, events, blank, notes, left_out, rejected = expected
    assert ledger == {
        "read": read, "events": events, "blank": blank, "notes": notes, "left_out": left_out, "rejected": rejected,
    }  # fmt: skip


def test_every_entry_of_a_calendar_is_counted_in_its_own_file(tmp_path: Path) -> None:
    old = ics(tmp_path, vevent(PLAIN) + "|BEGIN:VTODO|SUMMARY:Paint|END:VTODO", name="old.ics")
    new = ics(tmp_path, vevent(PLAIN + "|SEQUENCE:2") + "|" + vevent("DTSTART:x"), name="new.ics")
    outcome = nomarium("build", old, new, "-o", tmp_path / "o.ics", "--json", "--partial")
    sheets = {
        sheet["sheet"].rsplit("/", 1)[-1]: sheet["ledger"] for sheet in json.loads(outcome.out)["sheets"]
    }
    assert sheets["old.ics"] == {"read": 2, "events": 0, "blank": 0, "notes": 0, "left_out": 2, "rejected": 0}
    assert sheets["new.ics"] == {"read": 2, "events": 1, "blank": 0, "notes": 0, "left_out": 0, "rejected": 1}


def test_a_replaced_date_in_another_file_is_counted_there(tmp_path: Path) -> None:
    series = ics(tmp_path, vevent(PLAIN + "|RRULE:FREQ=DAILY;COUNT=3"), name="series.ics")
    moved = PLAIN.replace("0405T09", "0406T11").replace("0405T10", "0406T12")
    other = ics(tmp_path, vevent(moved + "|RECURRENCE-ID:20270406T090000"), name="moved.ics")
    outcome = nomarium("build", series, other, "-o", tmp_path / "o.ics", "--json")
    document = json.loads(outcome.out)
    assert [sheet["ledger"]["read"] for sheet in document["sheets"]] == [1, 1]
    assert [sheet["ledger"]["events"] for sheet in document["sheets"]] == [1, 1]
    assert document["events"] == 3


# -- what says the same again is told where it stands ---------------------------------------------------------


def test_equal_events_of_a_calendar_are_told_at_their_line_alone_or_before_a_list(tmp_path: Path) -> None:
    two = ics(tmp_path, f"{TWICE}|{TWICE}", name="two.ics")
    source = csv_file(tmp_path, LIST)
    for sources in ([two], [two, source]):
        outcome = nomarium("build", *sources, "-o", tmp_path / "o.ics", "--afresh")
        assert outcome.status == 0
        assert "two.ics, line 9: Line 9 says the same as an earlier line" in outcome.out
        assert "row 9" not in outcome.out.lower()


def test_a_row_twice_in_the_events_of_a_plan_is_told(tmp_path: Path) -> None:
    rows = TEA["events"] + "\nTea,2026-09-07,15:00,every Monday"
    source = folder(tmp_path, {**PLAN, "events": rows})
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert "sheet “events”, row 3: Row 3 says the same as an earlier row; both stay events." in outcome.out


def test_rows_of_one_title_and_date_that_differ_are_never_called_repetitions(tmp_path: Path) -> None:
    rows = "\n".join(f"Berth,2027-04-12,Berth number {n}" for n in range(16_000))
    source = csv_file(tmp_path, f"Title,Date,Notes\n{rows}")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert outcome.status == 0
    assert "says the same" not in outcome.out
    again = csv_file(tmp_path, f"Title,Date,Notes\n{rows}\nBerth,2027-04-12,Berth number 7", name="again.csv")
    assert "Row 16002 says the same" in nomarium("build", again, "-o", tmp_path / "p.ics").out


def test_a_uid_twice_is_refused_at_its_column_and_a_row_under_a_calendars_uid_gives_way(
    tmp_path: Path,
) -> None:
    source = csv_file(tmp_path, "Title,Date,UID\nA,2027-04-12,x\nB,2027-04-13,x")
    assert "row 3, column C “UID”: “x”" in refused(source)
    newer = ics(tmp_path, vevent(PLAIN.replace("UID:1", "UID:x")), name="newer.ics")
    row = csv_file(tmp_path, "Title,Date,UID\nA,2027-04-12,x\nB,2027-04-13,y", name="rows.csv")
    outcome = nomarium("build", row, newer, "-o", tmp_path / "o.ics", "--json")
    document = json.loads(outcome.out)
    assert document["events"] == 2
    assert [note["row"] for note in document["notes"] if note["code"] == "event-superseded"] == [2]
    assert document["ledger"]["left_out"] == 1


# -- days off, windows and rules hold for every kind of source -------------------------------------------------


def tea_days(outcome_file: Path) -> list[str]:
    return [plain(event)[4:14] for event in events_in(outcome_file) if event["SUMMARY"] == "Tea"]


def test_a_plans_own_repeats_skip_days_off_that_are_given_beside_it(tmp_path: Path) -> None:
    source = folder(tmp_path, {**PLAN, **TEA})
    off = csv_file(tmp_path, "Name,Date\nFog,2026-09-14", name="off.csv")
    for options, expected in (
        ((), ["2026-09-07", "2026-09-14"]),
        (("--days-off", off), ["2026-09-07"]),
        (("--public-holidays", "CA-NS"), ["2026-09-14"]),
    ):
        out = tmp_path / "o.ics"
        outcome = nomarium("build", source, "-o", out, "--afresh", *options)
        assert outcome.status == 0, outcome.text
        assert tea_days(out) == expected, options


def test_a_day_off_beside_a_plan_closes_the_school_and_the_cycle_waits(tmp_path: Path) -> None:
    source = folder(tmp_path, PLAN)
    off = csv_file(tmp_path, "Name,Date\nFog,2026-09-08", name="off.csv")
    out = tmp_path / "o.ics"
    nomarium("build", source, "-o", out)
    assert [plain(e)[6:16] for e in events_in(out)] == [
        "2026-09-07",
        "2026-09-10",
        "2026-09-15",
        "2026-09-18",
    ]
    outcome = nomarium("build", source, "-o", out, "--afresh", "--days-off", off)
    assert [plain(e)[6:16] for e in events_in(out)] == ["2026-09-07", "2026-09-11", "2026-09-16"]
    assert "1 given beside the plan is a day off for the whole school: 2026-09-08 Fog." in outcome.out


def test_a_day_off_that_the_plan_has_already_is_not_told_again(tmp_path: Path) -> None:
    source = folder(tmp_path, {**PLAN, "days-off": "Name,First day\nFog,2026-09-08"})
    off = csv_file(tmp_path, "Name,Date\nMist,2026-09-08", name="off.csv")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--days-off", off)
    assert "given beside" not in outcome.out


def test_a_special_day_on_a_day_off_given_beside_the_plan_is_refused(tmp_path: Path) -> None:
    source = folder(tmp_path, {**PLAN, "special-days": "Date,Name\n2026-09-08,Regatta"})
    off = csv_file(tmp_path, "Name,Date\nFog,2026-09-08", name="off.csv")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--days-off", off)
    assert outcome.status == 1
    assert "2026-09-08 is a day off, Fog (given beside the plan)." in outcome.err


def test_days_off_of_a_plan_become_banners_as_its_own_do(tmp_path: Path) -> None:
    source = folder(tmp_path, {**PLAN, "settings": "Setting,Value\nShow days off,yes"})
    off = csv_file(tmp_path, "Name,First day,Last day\nFog,2026-09-08,2026-09-10", name="off.csv")
    out = tmp_path / "o.ics"
    nomarium("build", source, "-o", out, "--days-off", off)
    assert "Fog 2026-09-08/2026-09-11" in [plain(event) for event in events_in(out)]


def test_rules_hold_for_a_plans_own_events_and_its_meetings_stay_dated_with_a_note(tmp_path: Path) -> None:
    source = folder(tmp_path, {**PLAN, **TEA})
    out = tmp_path / "o.ics"
    outcome = nomarium("build", source, "-o", out, "--repeats", "rule")
    rules = [event["SUMMARY"] for event in events_in(out) if "RRULE" in event]
    assert rules == ["Tea"]
    assert len([event for event in events_in(out) if event["SUMMARY"] == "Knots"]) == 4
    assert outcome.out.count("stay dated events where a cycle moves them: no rule can say one") == 1


def test_a_plans_own_event_outside_the_window_is_left_out_of_its_account(tmp_path: Path) -> None:
    rows = "Title,Date\nEarly,2026-09-07\nLate,2026-09-18"
    source = folder(tmp_path, {**PLAN, "events": rows})
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--from", "2026-09-10", "--json")
    ledgers = {sheet["sheet"]: sheet["ledger"] for sheet in json.loads(outcome.out)["sheets"]}
    own = next(ledger for title, ledger in ledgers.items() if "events" in title)
    assert (own["events"], own["left_out"]) == (1, 1)


@pytest.mark.parametrize(
    ("rule", "expected"),
    [
        ("RRULE:FREQ=WEEKLY", []),
        ("RRULE:FREQ=WEEKLY;INTERVAL=2", ["2027-04-12", "2027-04-26", "2027-05-10"]),
        ("RRULE:FREQ=YEARLY", ["2027-04-12", "2027-04-26", "2027-05-03", "2027-05-10", "2027-05-17"]),
        ("RRULE:FREQ=WEEKLY;COUNT=2", ["2027-04-12", "2027-05-03", "2027-05-10", "2027-05-17"]),
    ],
)  # fmt: skip
def test_days_off_without_an_end_are_looked_at_as_far_as_needed(
    rule: str, expected: list[str], tmp_path: Path
) -> None:
    """Closed from 19 April on, by different rules; until when to look, nobody says."""
    closed = ics(
        tmp_path, vevent(f"UID:c|SUMMARY:Closed|DTSTART;VALUE=DATE:20270419|{rule}"), name="closed.ics"
    )
    if not expected:
        expected = ["2027-04-12"]
    out = tmp_path / "o.ics"
    outcome = nomarium("build", csv_file(tmp_path, WEEKLY), "-o", out, "--days-off", closed)
    assert outcome.status == 0, outcome.text
    assert [plain(event)[5:15] for event in events_in(out)] == expected


def test_dates_outside_the_window_are_left_out_and_not_counted_as_events(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date\nA,2027-04-12\nB,2027-05-01\nC,2027-06-01")
    outcome = nomarium(
        "build", source, "-o", tmp_path / "o.ics", "--from", "2027-05-01", "--until", "2027-05-31"
    )
    assert "3 rows read = 1 event + 2 left out" in outcome.out


# -- anything that gets events gets them by one call ------------------------------------------------------------


class Given(Source):
    """A source for the tests: what it is given, and what was left out of it."""

    def __init__(self, *items: Event | Series, off: frozenset[int] = frozenset()) -> None:
        self.accounts = (Account("given"),)
        self.items, self.days_off = items, off
        self.dropped: list[object] = []

    def events(self) -> Iterator[Event | Series]:
        return iter(self.items)

    def leave_out(self, item: Event | Series) -> None:
        self.dropped.append(item)

    def place(self, row_number: int | None, field: str = "") -> Place:
        return Place("given", row=row_number)


def day(text: str, title: str = "Day") -> Event:
    date = dt.date.fromisoformat(text)
    return Event(title, date, date + dt.timedelta(days=1))


def test_dated_events_are_those_of_all_sources_in_the_window() -> None:
    early, late = day("2027-01-01"), day("2027-06-01")
    one, two = Given(early, late), Given(day("2027-03-01"))
    found = list(dated_events([one, two], Window(dt.date(2027, 2, 1), dt.date(2027, 12, 31))))
    assert [event.start.isoformat() for event in found] == ["2027-06-01", "2027-03-01"]
    assert one.dropped == [early]
    assert two.dropped == []


def test_dated_events_skip_the_days_off_of_their_own_source_and_of_the_window(tmp_path: Path) -> None:
    options = ReadingOptions(repeats_until=dt.date(2027, 5, 31))
    sheets = open_source(csv_file(tmp_path, WEEKLY), "weekly.csv")
    found = sources_in(Opened(sheets), options)
    found.listed[0].days_off = frozenset([dt.date(2027, 4, 19).toordinal()])
    window = Window(days_off=frozenset([dt.date(2027, 4, 26).toordinal()]))
    days = [event.start.isoformat() for event in dated_events(found.listed, window)]
    assert days == ["2027-04-12", "2027-05-03", "2027-05-10", "2027-05-17"]
    assert found.listed[0].account.ledger.lost == 0


WINDOWS = [
    ((None, None), True), (("2027-04-12", None), True), (("2027-04-13", None), False), ((None, "2027-04-12"), True),
    ((None, "2027-04-11"), False), (("2027-04-01", "2027-04-30"), True), (("2027-04-12", "2027-04-12"), True),
]  # fmt: skip


@pytest.mark.parametrize(("ends", "is_in"), WINDOWS)
def test_a_window_takes_what_touches_it(ends: tuple[str | None, str | None], is_in: bool) -> None:
    first, last = (dt.date.fromisoformat(end) if end else None for end in ends)
    assert Window(first, last).takes(day("2027-04-12")) is is_in


def test_a_window_with_more_days_off_has_both() -> None:
    window = Window(days_off=frozenset([1])).also_without(frozenset([2]))
    assert [1 in window.days_off, 2 in window.days_off, 3 in window.days_off] == [True, True, False]
    assert Window().also_without(frozenset([2])).days_off == frozenset([2])
    assert Window(days_off=frozenset([1])).also_without(frozenset()).days_off == frozenset([1])


def test_a_build_is_one_call_for_a_program(tmp_path: Path) -> None:
    opened = Opened(open_source(csv_file(tmp_path, LIST), "events.csv"))
    how = BuildOptions(tmp_path / "o.ics", "Slips", "Slips", "20270101T000000Z", reminder_secs=900)
    told: list[int] = []
    report = build(opened, ReadingOptions(), how, told.append)
    assert (report.event_count, report.problems, report.is_written) == (2, [], True)
    assert [plain(event) for event in events_in(tmp_path / "o.ics")] == [
        "A 2027-04-12/2027-04-13",
        "B 2027-04-13/2027-04-14",
    ]
    assert all(event.subcomponents for event in events_in(tmp_path / "o.ics")), "each has its alarm"


def test_progress_is_told_now_and_then(tmp_path: Path) -> None:
    rows = "\n".join(f"T{n},2027-04-12" for n in range(2_500))
    opened = Opened(open_source(csv_file(tmp_path, f"Title,Date\n{rows}"), "events.csv"))
    told: list[int] = []
    build(opened, ReadingOptions(), BuildOptions(None, "x", "x", "20270101T000000Z"), told.append)
    assert told == [1024, 2048]


def test_a_reminder_does_not_replace_one_of_the_events_own(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Start,Reminder\nA,2027-04-12,9:00,1 h\nB,2027-04-13,9:00,")
    out = tmp_path / "o.ics"
    nomarium("build", source, "-o", out, "--reminder", "15m")
    alarms = [event.walk("VALARM")[0]["TRIGGER"].dt for event in events_in(out)]
    assert alarms == [dt.timedelta(hours=-1), dt.timedelta(minutes=-15)]


# -- tally takes what build takes -------------------------------------------------------------------------------


def test_a_tally_reads_lists_and_zones_as_a_build_does(tmp_path: Path) -> None:
    lost = vevent(PLAIN.replace("DTSTART:", "DTSTART;TZID=Nowhere:").replace("DTEND:", "DTEND;TZID=Nowhere:"))
    calendar = ics(
        tmp_path, lost + "|" + vevent(PLAIN.replace("UID:1", "UID:2") + "|LOCATION:Slip"), name="z.ics"
    )
    assert nomarium("tally", calendar, "--by", "room").status == 1
    outcome = nomarium("tally", calendar, "--by", "room", "--timezone", "America/Halifax", "--json")
    assert outcome.status == 0, outcome.text
    assert [(line[0], line[1]) for line in json.loads(outcome.out)["lines"]] == [("Slip", 1)]
    told = nomarium("tally", calendar, "--by", "room", "--timezone", "America/Halifax").out
    assert "1 timed event has no room and is not counted." in told
    source = csv_file(
        tmp_path, "Title,Date,Start,End,Room\nA,2027-04-12,9:00,10:30,Loft\nB,2027-04-13,9:00,10:00,Loft"
    )
    listed = json.loads(nomarium("tally", source, "--by", "room", "--json").out)
    assert [(line[0], line[1], line[3]) for line in listed["lines"]] == [("Loft", 2, 2.5)]


@pytest.mark.parametrize(
    "late",
    [
        pytest.param('"Mondays 4pm, 7 Sept – 28 Sept 2026",', id="a repeat, which no row before it has"),
        pytest.param("soon,", id="a date that nobody can read"),
    ],
)
def test_what_a_late_row_says_is_the_same_to_every_command(late: str, tmp_path: Path) -> None:
    days = [dt.date(2026, 9, 1) + dt.timedelta(n % 300) for n in range(3_000)]
    rows = [f"E{n},{day:%d/%m/%Y},9:00" for n, day in enumerate(days)]
    source = csv_file(tmp_path, "\n".join(["Event,Date,Start", *rows, f"Sail club,{late}"]))
    built = nomarium("build", source, "-o", tmp_path / "o.ics", "--partial")
    written = len(events_in(tmp_path / "o.ics"))
    assert written == (3_000 if "soon" in late else 3_004), built.text
    checked = nomarium("check", source, "--json")
    assert (json.loads(checked.out)["events"], checked.status) == (written, built.status), checked.text
    counted = json.loads(nomarium("tally", source, "--by", "summary", "--json").out)
    assert sum(line[1] for line in counted["lines"]) == written


def test_a_tally_of_an_endless_series_asks_until_when(tmp_path: Path) -> None:
    calendar = ics(tmp_path, vevent(PLAIN + "|LOCATION:Slip|RRULE:FREQ=WEEKLY"))
    outcome = nomarium("tally", calendar, "--by", "room")
    assert outcome.status == 1
    assert "--until DATE" in outcome.err
    counted = nomarium("tally", calendar, "--by", "room", "--until", "2027-04-30", "--json")
    assert json.loads(counted.out)["lines"][0][1] == 4


def test_public_holidays_go_into_every_calendar_of_a_split(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Audience\nA,2027-06-30,Apprentices\nB,2027-07-02,Journeymen")
    outcome = nomarium(
        "build",
        source,
        "-o",
        tmp_path / "out",
        "--split-by",
        "audience",
        "--public-holidays",
        "CA-NS",
        "--show-holidays",
    )
    assert "1 public holiday added" in outcome.out
    for name in ("apprentices", "journeymen"):
        assert "Canada Day" in [
            str(event["SUMMARY"]) for event in events_in(tmp_path / "out" / f"{name}.ics")
        ]


def test_nothing_shares_details_by_accident() -> None:
    assert Details() == NO_DETAILS
    assert Event("x", dt.date(2027, 1, 1), dt.date(2027, 1, 2)).details is NO_DETAILS
