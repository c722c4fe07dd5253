"""Lists upright and on their side: whichever way they lie, their events are those that were meant."""

from __future__ import annotations

import csv
import datetime as dt
import random
from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, plain, refused

TITLES = ("Tar night", "Knots", "Oar making", "Choir", "Chess", "Yoga", "Lofting", "Swim")
DATE_FORMS = (
    "{0:%Y-%m-%d}",
    "{0.day} {0:%B} {0.year}",
    "{0:%a} {0.day} {0:%b} {0.year}",
    "{0:%B} {0.day}, {0.year}",
)
TIME_FORMS = ("{0:%H:%M}", "{0:%-I:%M} {0:%p}")
OTHERS = {
    "Chair": ("Quill", "Moss"),
    "Speaker": ("Osei", "Tarn"),
    "Notes": ("cash", "boots"),
    "Cost": ("$5", "$8"),
}


def _list(seed: int) -> tuple[list[list[str]], list[str]]:
    """The columns of a list, each under its heading, and its events in one line each."""
    chance = random.Random(seed)
    day, clock = chance.choice(DATE_FORMS).format, chance.choice(TIME_FORMS).format
    titles = chance.sample(TITLES, chance.randint(2, 5))
    starts = [
        dt.datetime(2026, 9, 13, chance.choice((9, 14, 18)), chance.choice((0, 30))) + dt.timedelta(chance.randrange(90))
        for _ in titles
    ]  # fmt: skip
    ends = [start + dt.timedelta(minutes=chance.choice((45, 60, 90))) for start in starts]
    heading = chance.choice(("Event", "Meeting", "Title", "What", "Activity", "Class", "Course"))
    columns = [[heading, *titles], [chance.choice(("Date", "When")), *map(day, starts)]]
    form = chance.choice(("span", "two", "none"))
    if form == "span":
        columns.append(["Time", *(f"{clock(a)}-{clock(b)}" for a, b in zip(starts, ends, strict=True))])
    elif form == "two":
        columns += [["Start", *map(clock, starts)], ["End", *map(clock, ends)]]
    if chance.random() < 0.6:
        columns.append(["Room", *(chance.choice(("Loft A", "Slip 2")) for _ in titles)])
    for other in chance.sample(sorted(OTHERS), chance.randint(0, 2)):
        columns.append([other, *(chance.choice(OTHERS[other]) for _ in titles)])
    if chance.random() < 0.5:
        chance.shuffle(columns)
    spans = (
        f"{start:%Y-%m-%d}/{start + dt.timedelta(1):%Y-%m-%d}" if form == "none" else f"{start:%Y-%m-%dT%H:%M}/{end:%Y-%m-%dT%H:%M}"
        for start, end in zip(starts, ends, strict=True)
    )  # fmt: skip
    return columns, sorted(f"{title} {span}" for title, span in zip(titles, spans, strict=True))


@pytest.mark.parametrize("part", range(2))
def test_a_list_means_the_same_whichever_way_it_lies(part: int, tmp_path: Path) -> None:
    count = 0
    seeds = range(part * 25, part * 25 + 25)
    for seed in seeds:
        columns, meant = _list(seed)
        for name, rows in (("upright", zip(*columns, strict=True)), ("turned", columns)):
            source, target = tmp_path / f"{seed}-{name}.csv", tmp_path / f"{seed}-{name}.ics"
            with source.open("w", newline="", encoding="utf-8") as file:
                csv.writer(file).writerows(rows)
            outcome = nomarium("build", source, "-o", target)
            count += outcome.status != 0
            if outcome.status == 0:
                assert sorted(plain(event).partition(" @ ")[0] for event in events_in(target)) == meant, (
                    source.read_text()
                )
    assert count <= len(seeds) // 5


COURSES = {
    "a course and who speaks": (
        "Course,Day,Room,Speaker\nChoir,23 Sept 2026,Sail loft,Quill\nOars,14 Oct 2026,Loft A,Osei",
        ["Choir 2026-09-23/2026-09-24 @ Sail loft", "Oars 2026-10-14/2026-10-15 @ Loft A"],
    ),
    "a class and what it does": (
        "Class,Date,Trip to\nApprentices,27 Sept 2026,Museum\nJourneymen,28 Sept 2026,Harbour",
        ["Apprentices: Museum 2026-09-27/2026-09-28", "Journeymen: Harbour 2026-09-28/2026-09-29"],
    ),
    "what is brought, and what one calls it": (
        "Materials,Product,Date\nOak,Oars,27 Sept 2026\nRope,Knots,28 Sept 2026", ["Oars 2026-09-27/2026-09-28", "Knots 2026-09-28/2026-09-29"],
    ),
    "a group and its address": (
        "Group,When,Email\nChoir,27 Sept 2026,ida@example.org\nBook club,28 Sept 2026,per@example.org",
        ["Choir 2026-09-27/2026-09-28", "Book club 2026-09-28/2026-09-29"],
    ),
    "a group and codes": (
        "Group,When,Cost centre\nChoir,27 Sept 2026,B100\nBook club,28 Sept 2026,B200", ["Choir 2026-09-27/2026-09-28", "Book club 2026-09-28/2026-09-29"],
    ),
    "an outing and who leads it": (
        "Minister,Excursion,Date\nQuill,Museum,27 Sept 2026\nMoss,Harbour,28 Sept 2026", ["Museum 2026-09-27/2026-09-28", "Harbour 2026-09-28/2026-09-29"],
    ),
    "the code of a class and what it does": (
        "Class,Date,Paper\nKN1,27 Sept 2026,Knots\nSA2,28 Sept 2026,Sails", ["Knots 2026-09-27/2026-09-28", "Sails 2026-09-28/2026-09-29"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", COURSES)
def test_a_course_is_no_less_a_title_than_what_stands_beside_it(kind: str, tmp_path: Path) -> None:
    table, events = COURSES[kind]
    assert built(csv_file(tmp_path, table)) == events


def test_a_row_called_date_is_no_event(tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, "What,Choir,Fair\nDate,23 Sept 2026,2 Nov 2026")) == [
        "Choir 2026-09-23/2026-09-24", "Fair 2026-11-02/2026-11-03",
    ]  # fmt: skip


ROOMS = "Room,Mon 7 Sept 2026,Tue 8 Sept 2026\nLoft,{},Tar 8-10\nShed,10-12 Oars,1-3pm Sails"
WITHIN = {
    "Knots 9:00-11:00, Moss": "Knots, Moss 2026-09-07T09:00/2026-09-07T11:00 @ Loft",
    "Knots 9-11 (Moss)": "Knots (Moss) 2026-09-07T09:00/2026-09-07T11:00 @ Loft",
    "Knots, 9-11, Moss": "Knots, Moss 2026-09-07T09:00/2026-09-07T11:00 @ Loft",
    "Tea 3pm onwards": "Tea 2026-09-07T15:00/2026-09-07T16:00 @ Loft",
    "Match 10:00 v Gull Rock": "Match v Gull Rock 2026-09-07T10:00/2026-09-07T11:00 @ Loft",
    "9-11 Staff meeting": "Staff meeting 2026-09-07T09:00/2026-09-07T11:00 @ Loft",
    "Psalm 9:10, Moss": "Psalm 9:10, Moss 2026-09-07/2026-09-08 @ Loft",
    "Grades 3-5, hall": "Grades 3-5, hall 2026-09-07/2026-09-08 @ Loft",
    "3-5 helpers needed": "3-5 helpers needed 2026-09-07/2026-09-08 @ Loft",
    "Dinner by 6pm, Moss": "Dinner by 6pm, Moss 2026-09-07/2026-09-08 @ Loft",
}


@pytest.mark.parametrize("cell", WITHIN)
def test_a_time_between_the_words_of_a_cell_is_its_own(cell: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, ROOMS.format(f'"{cell}"'))
    assert WITHIN[cell] in built(source)


def test_two_times_of_a_cell_are_asked_about(tmp_path: Path) -> None:
    assert "more than one time" in refused(
        csv_file(tmp_path, ROOMS.format('"9:00-11:00 or 12:30-1:30 Knots"'))
    )


def test_a_bin_is_a_column_of_marks(tmp_path: Path) -> None:
    table = "Collection day,Black bin,Green bin\nTue 8 Sept 2026,x,\nTue 15 Sept 2026,,x"
    assert built(csv_file(tmp_path, table)) == [
        "Black bin 2026-09-08/2026-09-09",
        "Green bin 2026-09-15/2026-09-16",
    ]


OCCASIONS = ",Regatta,Fair\n,12 Sept 2026,19 Sept 2026\nBar,Tarn,Quill\n,Muster,Steam day\n,26 Sept 2026,3 Oct 2026\nBar,Osei,Moss"


def test_what_stands_over_the_dates_of_a_roster_is_its_category(tmp_path: Path) -> None:
    source, target = csv_file(tmp_path, OCCASIONS), tmp_path / "events.ics"
    outcome = nomarium("build", source, "-o", target)
    assert "“Regatta” over a date is the category" in outcome.text and "= 4 events + 2 notes" in outcome.text
    said = [(str(event["SUMMARY"]), event["CATEGORIES"].to_ical().decode()) for event in events_in(target)]
    assert said == [
        ("Bar: Tarn", "Regatta"), ("Bar: Quill", "Fair"), ("Bar: Osei", "Muster"), ("Bar: Moss", "Steam day"),
    ]  # fmt: skip


@pytest.mark.parametrize("row", [",Mon,Tue", ",September,September", ",Week 1,Week 2", ",1,2", ",Duties,"])
def test_what_says_when_over_dates_is_no_category(row: str, tmp_path: Path) -> None:
    source, target = (
        csv_file(tmp_path, f"{row}\n,14 Sept 2026,15 Sept 2026\nBar,Tarn,Quill"),
        tmp_path / "events.ics",
    )
    assert nomarium("build", source, "-o", target).status == 0
    assert not any("CATEGORIES" in event for event in events_in(target))


@pytest.mark.parametrize("cell", [". 9-11", "\u0301 9-11", "() at 9"])
def test_a_cell_of_marks_and_hours_is_no_fault(cell: str, tmp_path: Path) -> None:
    outcome = nomarium("build", csv_file(tmp_path, ROOMS.format(cell)), "-o", tmp_path / "events.ics")
    assert outcome.status in (0, 1) and "fault" not in outcome.text


def test_a_day_in_a_cell_is_no_hour(tmp_path: Path) -> None:
    cell = "Dinner planned since 4 June"
    assert f"{cell} 2026-09-07/2026-09-08 @ Loft" in built(csv_file(tmp_path, ROOMS.format(cell)))
