"""Random weeks of classes, drawn or listed in the ways of schools, must come back as they are."""

import datetime as dt
import tempfile
from collections.abc import Callable
from pathlib import Path

import openpyxl
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import built

Week = dict[tuple[int, int], tuple[str, str]]
"""(day, period) → class and room."""
Rows = list[list[object]]

DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday")
TIMES = (("8:30", "9:20"), ("9:40", "10:30"), ("11:00", "11:50"), ("1:00", "1:50"))
BELLS: Rows = [["Period", "Start", "End"], *[[n, *times] for n, times in enumerate(TIMES, 1)]]
MONDAY = dt.date(2026, 9, 7)

WEEKS = st.dictionaries(
    st.tuples(st.integers(0, 4), st.integers(0, 3)),
    st.tuples(
        st.sampled_from(["Knots", "Sails", "Steam", "Lofting"]),
        st.sampled_from(["Loft 2", "Shed 4", "Slip 1"]),
    ),
    min_size=3,
    max_size=14,
).filter(lambda week: len({day for day, _ in week}) > 1 and len({period for _, period in week}) > 1)


def span(period: int) -> str:
    return "-".join(TIMES[period])


def cell(week: Week, day: int, period: int, mark: str) -> str:
    found = week.get((day, period))
    return mark.join(found) if found else ""


def drawn(week: Week) -> dict[str, Rows]:
    head = ["Time", *DAYS]
    return {"Week": [head, *[[span(p), *[cell(week, d, p, "\n") for d in range(5)]] for p in range(4)]]}


def turned(week: Week) -> dict[str, Rows]:
    head = ["", *[f"{p + 1} ({span(p)})" for p in range(4)]]
    return {"Week": [head, *[[DAYS[d][:3], *[cell(week, d, p, ", ") for p in range(4)]] for d in range(5)]]}


def with_lunch(week: Week) -> dict[str, Rows]:
    rows: Rows = [["", "", *DAYS]]
    for p in range(4):
        rows.append(
            [
                f"P{p + 1}",
                span(p),
                *[cell(week, d, p, " (") + (")" if (d, p) in week else "") for d in range(5)],
            ]
        )
        rows += [["", "11:50-12:40", *["LUNCH"] * 5]] if p == 2 else []
    return {"Sheet1": rows}


def rooms_below(week: Week) -> dict[str, Rows]:
    rows: Rows = [["Period", *DAYS]]
    for p in range(4):
        found = [week.get((d, p), ("", "")) for d in range(5)]
        rows += [[p + 1, *[one for one, _ in found]], ["", *[room for _, room in found]]]
    return {"Quill": rows, "Bells": BELLS}


def rooms_beside(week: Week) -> dict[str, Rows]:
    head: list[object] = [""]
    for day in DAYS:
        head += [day, ""]
    rows: Rows = [head]
    for p in range(4):
        row: list[object] = [span(p)]
        for d in range(5):
            row += week.get((d, p), ("", ""))
        rows.append(row)
    return {"Week": rows}


def listed(week: Week) -> dict[str, Rows]:
    rows: Rows = [["Class", "Day", "Start", "End", "Room"]]
    rows += [[name, DAYS[d], *TIMES[p], room] for (d, p), (name, room) in sorted(week.items())]
    return {"Classes": rows}


def slots_of_a_person(week: Week) -> dict[str, Rows]:
    rows: Rows = [["Day", "Period", "Course", "Room"]]
    for d in range(5):
        rows += [[DAYS[d] if p == 0 else "", p + 1, *week.get((d, p), ("", ""))] for p in range(4)]
    return {"M. Quill": rows, "Bell times": BELLS}


def in_columns(week: Week) -> dict[str, Rows]:
    rows: Rows = [["Class", "Room", *DAYS]]
    for name, room in sorted(set(week.values())):
        for p in range(4):
            row = [span(p) if week.get((d, p)) == (name, room) else "" for d in range(5)]
            rows += [[name, room, *row]] if any(row) else []
    return {"Classes": rows}


def blocks(week: Week) -> dict[str, Rows]:
    """Each class and room is a block, which meets as a rotation says."""
    pairs = sorted(set(week.values()))
    codes = {pair: "ABCDEFGHIJKL"[n] for n, pair in enumerate(pairs)}
    rotation: Rows = [["", *DAYS]]
    for p in range(4):
        rotation.append([p + 1, *[codes.get(week.get((d, p), ("", "")), "") for d in range(5)]])
    classes: Rows = [["Class", "Block", "Room"], *[[name, codes[name, room], room] for name, room in pairs]]
    return {"Classes": classes, "Rotation": rotation, "Bells": BELLS}


FORMS: tuple[Callable[[Week], dict[str, Rows]], ...] = (
    drawn, turned, with_lunch, rooms_below, rooms_beside, listed, slots_of_a_person, in_columns, blocks,
)  # fmt: skip


def expected(week: Week) -> list[str]:
    found = []
    for (day, period), (name, room) in week.items():
        date = MONDAY + dt.timedelta(day)
        start, end = (
            f"{int(t.split(':')[0]) + 12 * (period == 3):02}:{t.split(':')[1]}" for t in TIMES[period]
        )
        found.append(f"{name} {date}T{start}/{date}T{end} @ {room}")
    return sorted(found)


@settings(max_examples=60, deadline=None)
@given(week=WEEKS, form=st.sampled_from(FORMS))
def test_a_week_comes_back_as_it_was_drawn(week: Week, form: Callable[[Week], dict[str, Rows]]) -> None:
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder) / "school.xlsx"
        book = openpyxl.Workbook()
        book.remove(book.active)
        for name, rows in {
            **form(week),
            "Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-09-11"]],
        }.items():
            sheet = book.create_sheet(name)
            for row in rows:
                sheet.append(row)
        book.save(source)
        assert sorted(built(source)) == expected(week)
