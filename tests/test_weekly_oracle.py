"""Random lists of weekly classes, with their days, ends, counts and exceptions in columns as schools have them, must come
out on the dates that a few lines of plain reckoning give, or be refused."""

import csv
import datetime as dt
import tempfile
from pathlib import Path
from typing import NamedTuple

from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import nomarium

FROM, UNTIL = dt.date(2026, 9, 7), dt.date(2026, 12, 18)
DAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday")
WEEK = dt.timedelta(7)


class Form(NamedTuple):
    """Which columns a list has, and what heads them."""

    first: str
    last: str
    often: str
    count: str
    left_out: str
    added: str
    turned: bool
    has_two_times: bool
    pattern: str


class Class(NamedTuple):
    weekdays: tuple[int, ...]
    begins: int
    lasts: int
    is_alternate: bool
    count: int
    left_out: int
    added: int


FORMS = st.builds(
    Form,
    first=st.sampled_from(["", "First day", "Starting", "Starts", "Begins on"]),
    last=st.sampled_from(["", "Last day", "Ends", "Final session", "Repeat until"]),
    often=st.sampled_from(["", "Frequency", "Repeat"]),
    count=st.sampled_from(["", "", "No. of classes", "Number of weeks"]),
    left_out=st.sampled_from(["", "Not on"]),
    added=st.sampled_from(["", "Also on"]),
    turned=st.booleans(),
    has_two_times=st.booleans(),
    pattern=st.sampled_from(["%Y-%m-%d", "%-d %B %Y", "%a %-d %b %Y"]),
)
CLASSES = st.builds(
    Class,
    weekdays=st.lists(st.integers(0, 4), min_size=1, max_size=2, unique=True).map(lambda w: tuple(sorted(w))),
    begins=st.integers(0, 40),
    lasts=st.integers(1, 60),
    is_alternate=st.booleans(),
    count=st.integers(1, 5),
    left_out=st.integers(0, 9),
    added=st.integers(0, 90),
)


def reckoned(form: Form, held: Class) -> tuple[dict[str, str], set[dt.date]]:
    """The cells of a class and its dates, by reckoning from day to day."""
    cells, first, last = {}, FROM, UNTIL
    if form.first:
        first = FROM + dt.timedelta(held.begins)
        cells[form.first] = first.strftime(form.pattern)
    if form.last:
        last = first + dt.timedelta(held.lasts if form.often else max(held.lasts, 7))
        cells[form.last] = last.strftime(form.pattern)
    days = [
        day
        for n in range((last - first).days + 1)
        if (day := first + dt.timedelta(n)).weekday() in held.weekdays
    ]
    monday = days[0] - dt.timedelta(days[0].weekday()) if days else first
    if form.often:
        cells[form.often] = "fortnightly" if held.is_alternate else "weekly"
        days = [day for day in days if not held.is_alternate or (day - monday).days // 7 % 2 == 0]
    if form.count:
        cells[form.count] = str(held.count)
        in_weeks = [day for day in days if day < first + held.count * WEEK]
        days = days[: held.count] if form.count == "No. of classes" else in_weeks
    dates = set(days)
    if form.left_out and days:
        out = days[held.left_out % len(days)]
        cells[form.left_out] = out.strftime(form.pattern)
        dates.discard(out)
    if form.added:
        more = FROM + dt.timedelta(held.added)
        more += dt.timedelta(more.strftime(form.pattern) == cells.get(form.left_out))
        cells[form.added] = more.strftime(form.pattern)
        dates.add(more)
    return cells, dates


@settings(max_examples=120, deadline=None)
@given(form=FORMS, classes=st.lists(CLASSES, min_size=1, max_size=3))
def test_weekly_lists_are_on_their_dates_or_refused(form: Form, classes: list[Class]) -> None:
    names = [n for n in (form.first, form.last, form.often, form.count, form.left_out, form.added) if n]
    names = names[::-1] if form.turned else names
    times = ["Start time", "End time"] if form.has_two_times else ["Time"]
    rows, wanted = [["Class", "Day", *times, *names]], []
    for n, held in enumerate(classes):
        cells, dates = reckoned(form, held)
        spans = ["9:00", "10:00"] if form.has_two_times else ["9:00-10:00"]
        day = " & ".join(DAYS[weekday] for weekday in held.weekdays)
        rows.append([f"Knots {n}", day, *spans, *(cells.get(name, "") for name in names)])
        wanted += [(f"Knots {n}", date.isoformat()) for date in dates]
    with tempfile.TemporaryDirectory() as folder:
        source, written = Path(folder, "week.csv"), Path(folder, "out.csv")
        with source.open("w", newline="") as file:
            csv.writer(file).writerows(rows)
        outcome = nomarium("build", source, "-o", written, "--from", FROM, "--until", UNTIL)
        assert outcome.status in (0, 1), outcome.err
        if outcome.status:
            assert "→" in outcome.err, outcome.err
            return
        with written.open(encoding="utf-8-sig", newline="") as file:
            found = [(row["Title"], row["Date"]) for row in csv.DictReader(file)]
    assert sorted(found) == sorted(wanted)
