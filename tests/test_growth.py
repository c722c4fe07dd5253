"""Twice the input costs about twice the steps: lines of the program that are run, counted, since timings are no tests."""

import csv
import io
import sys
from collections.abc import Callable
from pathlib import Path
from types import FrameType
from typing import Any

import pytest

from helpers import nomarium

Writes = Callable[[Path, int], list[object]]
"""Writes an input of a size into a folder, and gives the command that reads it."""


def steps_of(arguments: list[object]) -> int:
    """How many lines of the program a command runs."""
    count = 0

    def line(_frame: FrameType, event: str, _value: object) -> Any:
        nonlocal count
        count += event == "line"
        return line

    def call(frame: FrameType, _event: str, _value: object) -> Any:
        return line if "nomarium" in frame.f_code.co_filename else None

    before = sys.gettrace()
    sys.settrace(call)
    try:
        outcome = nomarium(*arguments)
    finally:
        sys.settrace(before)
    assert outcome.status in (0, 1), outcome.text
    return count


def listed(folder: Path, rows: list[str], name: str = "events.csv") -> Path:
    (folder / name).write_text("\n".join(rows) + "\n", "utf-8")
    return folder / name


def plan(folder: Path, **tables: list[str]) -> Path:
    year = {
        "terms": ["Name,First day,Last day", "Autumn,2026-09-07,2026-09-11"],
        "cycle": ["Label", "A", "B"],
        "bells": ["Period,Start,End", "1,8:30,9:30"],
        "timetable": ["Class,Label,Period", "Knots,A,1"],
        **tables,
    }
    (folder / "year").mkdir()
    for name, rows in year.items():
        listed(folder / "year", rows, f"{name.replace('_', '-')}.csv")
    return folder / "year"


def rows_without_a_date(folder: Path, size: int) -> list[object]:
    rows = ["Event,Date", "Launch,2026-01-02", *(f"Event number {n},soon {n}" for n in range(size))]
    return ["build", listed(folder, rows), "-o", folder / "o.ics"]


def one_title_and_date(folder: Path, size: int) -> list[object]:
    return [
        "build",
        listed(folder, ["Event,Date,Notes", *(f"Same,2026-01-02,{n}" for n in range(size))]),
        "-o",
        folder / "o.ics",
    ]


def split_names_that_begin_alike(folder: Path, size: int) -> list[object]:
    rows = ["Event,Date,Room", *(f"Same,2026-01-02,{'A' * 90}{n}" for n in range(size))]
    return ["build", listed(folder, rows), "-o", folder / "out", "--split-by", "room"]


def split_by_two_fields(folder: Path, size: int) -> list[object]:
    rows = ["Event,Date,Room,Teacher", *(f"Same,2026-01-02,R{n},T{n}" for n in range(size))]
    return ["build", listed(folder, rows), "-o", folder / "out", "--split-by", "room,teacher"]


def a_rebuild_under_another_name(folder: Path, size: int) -> list[object]:
    source = listed(folder, ["Event,Date", *(f"E{n},2026-01-02" for n in range(size))])
    assert nomarium("build", source, "-o", folder / "o.ics", "--name", "One").status == 0
    listed(folder, ["Event,Date", *(f"F{n},2026-01-03" for n in range(size))])
    return ["build", source, "-o", folder / "o.ics", "--name", "Other"]


def endless_repeats(folder: Path, size: int) -> list[object]:
    rows = ["Event,Date,Repeat", *(f"E{n},2026-01-02,every Friday" for n in range(size))]
    return ["build", listed(folder, rows), "-o", folder / "o.ics"]


def dates_of_one_rule(folder: Path, size: int) -> list[object]:
    rows = ["Event,Date,Start,Repeat", f"Bell,2026-01-02,9:00,FREQ=HOURLY;COUNT={size * 5}"]
    return ["build", listed(folder, rows), "-o", folder / "o.ics"]


def terms_that_overlap(folder: Path, size: int) -> list[object]:
    terms = ["Name,First day,Last day", *(f"T{n},2026-09-07,2026-09-11" for n in range(size))]
    return ["build", plan(folder, terms=terms), "-o", folder / "o.ics"]


def days_off_without_end(folder: Path, size: int) -> list[object]:
    off = ["Name,First day,Last day", *(f"T{n},2026-10-07,9999-12-31" for n in range(size))]
    return ["build", plan(folder, days_off=off), "-o", folder / "o.ics"]


def a_cycle_of_many_labels(folder: Path, size: int) -> list[object]:
    labels = [f"L{n}" for n in range(size)]
    classes = ["Class,Label,Period", *(f"K{n},{label},1" for n, label in enumerate(labels))]
    return ["build", plan(folder, cycle=["Label", *labels], timetable=classes), "-o", folder / "o.ics"]


def one_place_for_everybody(folder: Path, size: int) -> list[object]:
    classes = ["Class,Label,Period,Room,Teacher", *(f"K{n},A,1,Yard,T{n}" for n in range(size))]
    return ["build", plan(folder, timetable=classes), "-o", folder / "o.ics"]


def an_export_of_classes(folder: Path, size: int) -> list[object]:
    rows = [
        "crse,crse title,days,beg time,end time,rm",
        *(f"RG{n},Rigging {n},MWF,9:00,9:50,L{n}" for n in range(size)),
    ]
    terms = listed(folder, ["Name,First day,Last day", "Autumn,2026-09-07,2026-09-11"], "terms.csv")
    return ["build", listed(folder, rows, "export.csv"), terms, "--as", "plan", "-o", folder / "o.ics"]


def calendar_lines(folder: Path, size: int) -> list[object]:
    events = "".join(
        f"BEGIN:VEVENT\r\nUID:{n}\r\nDTSTART:20260102T090000\r\nSUMMARY:E{n}\r\nX-A:{n}\r\nJUNK:{n}\r\nEND:VEVENT\r\n" for n in range(size)
    )  # fmt: skip
    (folder / "x.ics").write_bytes(f"BEGIN:VCALENDAR\r\n{events}END:VCALENDAR\r\n".encode())
    return ["build", folder / "x.ics", "-o", folder / "o.ics"]


GROWING: tuple[Writes, ...] = (
    rows_without_a_date, one_title_and_date, split_names_that_begin_alike, split_by_two_fields, a_rebuild_under_another_name,
    endless_repeats, dates_of_one_rule, terms_that_overlap, days_off_without_end, a_cycle_of_many_labels, one_place_for_everybody,
    an_export_of_classes, calendar_lines,
)  # fmt: skip


@pytest.mark.parametrize("writes", GROWING, ids=lambda one: one.__name__)
def test_twice_the_input_is_twice_the_steps(writes: Writes, tmp_path: Path) -> None:
    size = 150
    (tmp_path / "before").mkdir()
    nomarium(*writes(tmp_path / "before", 10))  # what is worked out once and kept
    found = []
    for times in (1, 2, 3):
        folder = tmp_path / str(times)
        folder.mkdir()
        found.append(steps_of(writes(folder, size * times)))
    first, second, third = found
    assert third - second <= 1.3 * (second - first) + 2_000, (
        found
    )  # each further part costs no more than the one before


@pytest.mark.parametrize("bad", ["31/02/2026", "soon {}"], ids=["one date for all", "each another text"])
def test_a_refused_row_costs_no_more_than_it_must(bad: str, tmp_path: Path) -> None:
    from benchmarks.data import write_csv

    steps: dict[int, int] = {}
    for size in (1_200, 1_200, 1_700):  # the first for what is worked out once and kept
        source = tmp_path / f"{size}.csv"
        write_csv(source, size)
        rows = list(csv.reader(io.StringIO(source.read_text("utf-8"))))
        at = rows[0].index("Date")
        rejected = [[*row[:at], bad.format(n), *row[at + 1 :]] for n, row in enumerate(rows[1:])]
        with (tmp_path / "t.csv").open("w", encoding="utf-8", newline="") as made:
            csv.writer(made).writerows([*rows[:601], *rejected[600:]])
        wanted = ["build", tmp_path / "t.csv", "-o", tmp_path / "o.ics", "--afresh", "--partial"]
        steps[size] = steps_of(wanted)
    assert steps[1_700] - steps[1_200] <= MOST_FOR_REFUSED[bad] * 500, steps


MOST_FOR_REFUSED = {"31/02/2026": 290, "soon {}": 690}
"""Lines of the program for one more refused row: 265 and 683 (weekdays and hours of phrases, and names of feasts, are looked for), where a good one was 89."""


MOST_STEPS = {"csv": 105, "adverse": 480, "ics": 310}
"""Lines of the program for one more row of a list, or event of a calendar, as offices keep them: a row was 89, one with every cell
different 416, an event 273 when this was written. A field that turns the short way off costs several times as much."""


@pytest.mark.parametrize("kind", MOST_STEPS)
def test_one_more_real_row_costs_few_steps(kind: str, tmp_path: Path) -> None:
    from benchmarks.data import write_csv

    found = []
    for size in (1_200, 1_200, 1_700):  # the first for what is worked out once and kept
        source = tmp_path / f"{size}.csv"
        write_csv(source, size, kind == "adverse")
        if kind == "ics":
            nomarium("build", source, "-o", tmp_path / f"{size}.ics", "--timezone", "America/Halifax")
            source = tmp_path / f"{size}.ics"
        found.append(steps_of(["build", source, "-o", tmp_path / f"{size}-out.ics", "--afresh"]))
    assert (found[2] - found[1]) / 500 <= MOST_STEPS[kind], [(found[2] - found[1]) / 500, *found]
