"""Lists of courses at random, as offices export them: each meets as it was meant, or the list is refused, never otherwise."""

from __future__ import annotations

import datetime as dt
import random
from collections.abc import Sequence
from pathlib import Path

import pytest

from helpers import built, csv_file, read_or_refused, refused

FIRST, LAST = dt.date(2026, 9, 7), dt.date(2026, 9, 25)
NAMES = ("Knots", "Oar making", "Sail repair", "Tar and pitch", "Rope work", "Hull design", "Charts II")
CODES = (
    ("M T W R F", ""),
    ("M T W Th F", ""),
    ("Mo Tu We Th Fr", " "),
    ("Mon Tue Wed Thu Fri", "/"),
    ("Monday Tuesday Wednesday Thursday Friday", ", "),
)
WEEKDAYS = ((0, 2, 4), (1, 3), (0,), (3,), (4,), (0, 1, 3))
HEADS = {
    "code": ("Course", "Course code", "Subject", "Class code"), "name": ("Course title", "Course name", "Class", "Title"), "days": ("Days", "Meeting days", "Day(s)", "Meets"),
    "time": ("Time", "Times", "Meeting time"), "first": ("Start date", "First day", "Begins"), "last": ("End date", "Last class", "Ends"), "seats": ("Seats", "Enrolled"),
}  # fmt: skip


def _clock(minutes: int, half: bool) -> str:
    hour, minute = divmod(minutes, 60)
    return (
        f"{(hour - 1) % 12 + 1}:{minute:02}{'am' if hour < 12 else 'pm'}"
        if half
        else f"{hour:02}:{minute:02}"
    )


def _courses(seed: int) -> tuple[list[list[str]], list[str], Sequence[object]]:
    """The rows of a list of courses, its meetings as they are meant, and the options that it needs."""
    rng = random.Random(seed)
    (letters, joint), half, is_dated = rng.choice(CODES), rng.random() < 0.5, rng.random() < 0.5
    fields = [
        *(("code",) if rng.random() < 0.6 else ()),
        "name",
        *(("seats",) if rng.random() < 0.3 else ()),
        "days",
        "time",
    ]
    fields += ["first", "last"] if is_dated else []
    rows, meant = [[rng.choice(HEADS[field]) for field in fields]], []
    for number, name in enumerate(rng.sample(NAMES, rng.randint(3, 6))):
        held, begin, length = (
            rng.choice(WEEKDAYS),
            rng.choice((540, 600, 780, 840)),
            rng.choice((50, 75, 110)),
        )
        first = FIRST + dt.timedelta(rng.choice((0, 7)) if is_dated else 0)
        last = LAST - dt.timedelta(rng.choice((0, 7)) if is_dated else 0)
        is_open = rng.random() < 0.05
        said = {
            "code": f"BOAT{100 + number}", "name": name, "days": "" if is_open else joint.join(letters.split()[day] for day in held),
            "time": "TBA" if is_open else f"{_clock(begin, half)}-{_clock(begin + length, half)}", "first": f"{first:%d %b %Y}", "last": f"{last:%d %b %Y}", "seats": str(8 + number),
        }  # fmt: skip
        rows.append([said[field] for field in fields])
        for n in range((last - first).days + 1):
            day = dt.datetime.combine(first + dt.timedelta(n), dt.time())
            if day.weekday() in held and not is_open:
                start, end = day + dt.timedelta(minutes=begin), day + dt.timedelta(minutes=begin + length)
                meant.append(f"{name} {start:%Y-%m-%dT%H:%M}/{end:%Y-%m-%dT%H:%M}")
    return rows, meant, () if is_dated else ("--from", FIRST, "--until", LAST)


@pytest.mark.parametrize("block", range(4))
def test_courses_at_random_meet_as_meant_or_are_refused(block: int, tmp_path: Path) -> None:
    for seed in range(block * 15, block * 15 + 15):
        rows, meant, options = _courses(seed)
        events, said = read_or_refused(tmp_path / f"{seed}.csv", rows, *options)
        if events is None:  # of a course nothing says yet when it meets
            assert any("TBA" in row for row in rows), (rows, said)
        else:
            assert sorted(events) == sorted(meant), (rows, said)


def test_a_course_without_days_and_times_is_no_event_all_day(tmp_path: Path) -> None:
    head = "Class,Days,Time,Start date,End date\nKnots,Mon,9:00-9:50,7 Sep 2026,25 Sep 2026"
    said = refused(csv_file(tmp_path, f"{head}\nOars,,,7 Sep 2026,18 Sep 2026"))
    assert "neither its weekdays nor its times" in said and "write “all day” as its time" in said
    source = csv_file(tmp_path, f"{head}\nFair,,all day,7 Sep 2026,8 Sep 2026\nWalk,,,9 Sep 2026,9 Sep 2026")
    assert {"Fair 2026-09-07/2026-09-09", "Walk 2026-09-09/2026-09-10"} < {*built(source)}


def test_a_section_of_a_course_is_called_by_its_name(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Class code,Sec,Class,Days,Time\nBOAT101,01,Knots,Mon,9:00-9:50\nBOAT102,02,Oars,Tue,9:00-9:50",
    )
    assert sorted(built(source, "--from", FIRST, "--until", "2026-09-11")) == [
        "Knots 2026-09-07T09:00/2026-09-07T09:50", "Oars 2026-09-08T09:00/2026-09-08T09:50",
    ]  # fmt: skip


def test_a_course_of_one_week_meets_once(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Class,Days,Time,Start date,End date\nKnots,Fri,9:00-9:50,7 Sep 2026,25 Sep 2026\nOars,Fri,9:00-9:50,14 Sep 2026,18 Sep 2026",
    )
    assert "Oars 2026-09-18T09:00/2026-09-18T09:50" in built(source)


@pytest.mark.parametrize("times", ["9:00,9:50", "0900,0950"])
def test_from_and_to_over_times_leave_the_days_to_their_own_headings(times: str, tmp_path: Path) -> None:
    head = "Subject,Sec,Title,Days,From,To,Begins,Ends"
    source = csv_file(
        tmp_path,
        f"{head}\nBOAT100,02,Knots,Mon,{times},7 Sep 2026,18 Sep 2026\nBOAT101,01,Oars,Tue,{times},7 Sep 2026,11 Sep 2026",
    )
    assert sorted(built(source)) == [
        "Knots 2026-09-07T09:00/2026-09-07T09:50", "Knots 2026-09-14T09:00/2026-09-14T09:50", "Oars 2026-09-08T09:00/2026-09-08T09:50",
    ]  # fmt: skip


def test_a_missing_weekday_is_not_filled_from_above_where_the_time_is_missing_too(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Class,Days,Time\nKnots,Mon & Wed,9:00-9:50\nOars,,TBA\nTar,Tue & Thu,9:00-9:50"
    )
    assert "--fill-down" not in refused(source, "--from", FIRST, "--until", LAST)
