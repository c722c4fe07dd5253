"""Rules and their occurrences: the RFC's own examples, and dateutil as the judge of random rules."""

from __future__ import annotations

import datetime as dt
import warnings
from itertools import islice

import pytest
from dateutil.rrule import rrulestr
from hypothesis import given, settings
from hypothesis import strategies as st

from nomarium.model.recurrence import Rule
from nomarium.reckoning.rules import RuleFault, parse_rule, rule_text
from nomarium.reckoning.starts import starts

NINE = dt.datetime(1997, 9, 2, 9)

# RFC 5545, 3.8.5.3: rule, start, and the first (or all) dates that the text gives, as MM-DD of the year before it
RFC_EXAMPLES = [
    ("FREQ=DAILY;COUNT=4", NINE, "1997: 09-02 09-03 09-04 09-05 |"),
    ("FREQ=DAILY;INTERVAL=10;COUNT=5", NINE, "1997: 09-02 09-12 09-22 10-02 10-12 |"),
    ("FREQ=WEEKLY;INTERVAL=2;WKST=SU", NINE, "1997: 09-02 09-16 09-30 10-14 10-28 11-11 11-25"),
    ("FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH", NINE, "1997: 09-02 09-04 09-09 09-11 09-16 09-18 09-23 09-25 09-30 10-02 |"),
    ("FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000;WKST=SU;BYDAY=MO,WE,FR", dt.datetime(1997, 9, 1, 9),
     "1997: 09-01 09-03 09-05 09-15 09-17 09-19 09-29 10-01 10-03 10-13 10-15 10-17 10-27 10-29 10-31 11-10 11-12 11-14 "
     "11-24 11-26 11-28 12-08 12-10 12-12 12-22 |"),
    ("FREQ=MONTHLY;COUNT=10;BYDAY=1FR", dt.datetime(1997, 9, 5, 9),
     "1997: 09-05 10-03 11-07 12-05 1998: 01-02 02-06 03-06 04-03 05-01 06-05 |"),
    ("FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU", dt.datetime(1997, 9, 7, 9),
     "1997: 09-07 09-28 11-02 11-30 1998: 01-04 01-25 03-01 03-29 05-03 05-31 |"),
    ("FREQ=MONTHLY;COUNT=6;BYDAY=-2MO", dt.datetime(1997, 9, 22, 9), "1997: 09-22 10-20 11-17 12-22 1998: 01-19 02-16 |"),
    ("FREQ=MONTHLY;BYMONTHDAY=-3", dt.datetime(1997, 9, 28, 9), "1997: 09-28 10-29 11-28 12-29 1998: 01-29 02-26"),
    ("FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1", dt.datetime(1997, 9, 30, 9),
     "1997: 09-30 10-01 10-31 11-01 11-30 12-01 12-31 1998: 01-01 01-31 02-01 |"),
    ("FREQ=YEARLY;COUNT=10;BYMONTH=6,7", dt.datetime(1997, 6, 10, 9), "1997: 06-10 07-10 1998: 06-10 07-10 1999: 06-10"),
    ("FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200", dt.datetime(1997, 1, 1, 9),
     "1997: 01-01 04-10 07-19 2000: 01-01 04-09 07-18 2003: 01-01 04-10 07-19 2006: 01-01 |"),
    ("FREQ=YEARLY;BYDAY=20MO", dt.datetime(1997, 5, 19, 9), "1997: 05-19 1998: 05-18 1999: 05-17"),
    ("FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO", dt.datetime(1997, 5, 12, 9), "1997: 05-12 1998: 05-11 1999: 05-17"),
    ("FREQ=YEARLY;BYMONTH=3;BYDAY=TH", dt.datetime(1997, 3, 13, 9), "1997: 03-13 03-20 03-27 1998: 03-05 03-12 03-19 03-26"),
    ("FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13", NINE, "1998: 02-13 03-13 11-13 1999: 08-13 2000: 10-13"),
    ("FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13", dt.datetime(1997, 9, 13, 9), "1997: 09-13 10-11 11-08 12-13 1998: 01-10"),
    ("FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8", dt.datetime(1996, 11, 5, 9), "1996: 11-05 2000: 11-07 2004: 11-02"),
    ("FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3", dt.datetime(1997, 9, 4, 9), "1997: 09-04 10-07 11-06 |"),
    ("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2", dt.datetime(1997, 9, 29, 9), "1997: 09-29 10-30 11-27 12-30 1998: 01-29"),
    ("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO", dt.datetime(1997, 8, 5, 9), "1997: 08-05 08-10 08-19 08-24 |"),
    ("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU", dt.datetime(1997, 8, 5, 9), "1997: 08-05 08-17 08-19 08-31 |"),
    ("FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5", dt.datetime(2007, 1, 15, 9), "2007: 01-15 01-30 02-15 03-15 03-30 |"),
]  # fmt: skip


def dates_of(text: str) -> tuple[list[str], bool]:
    dates, year = [], ""
    for word in text.removesuffix("|").split():
        if word.endswith(":"):
            year = word[:-1]
        else:
            dates.append(f"{year}-{word}")
    return dates, text.endswith("|")


@pytest.mark.parametrize(("text", "first", "expected"), RFC_EXAMPLES)
def test_the_examples_of_the_standard(text: str, first: dt.datetime, expected: str) -> None:
    rule = parse_rule(text)
    assert isinstance(rule, Rule)
    dates, is_whole = dates_of(expected)
    found = list(islice(starts(rule, first), len(dates) + 1))
    assert [f"{day:%Y-%m-%d}" for day in found[: len(dates)]] == dates
    assert {day.time() for day in found} == {first.time()}  # type: ignore[union-attr]
    assert len(found) == len(dates) + (not is_whole)


TIMES = [
    ("FREQ=HOURLY;INTERVAL=3;UNTIL=19970902T170000", "09:00 12:00 15:00"),
    ("FREQ=MINUTELY;INTERVAL=15;COUNT=6", "09:00 09:15 09:30 09:45 10:00 10:15"),
    ("FREQ=MINUTELY;INTERVAL=90;COUNT=4", "09:00 10:30 12:00 13:30"),
    ("FREQ=DAILY;BYHOUR=9,10;BYMINUTE=0,40;COUNT=4", "09:00 09:40 10:00 10:40"),
    ("FREQ=SECONDLY;INTERVAL=1800;COUNT=3", "09:00 09:30 10:00"),
    ("FREQ=HOURLY;BYMINUTE=5,50;BYSETPOS=-1;COUNT=2", "09:50 10:50"),
]


@pytest.mark.parametrize(("text", "expected"), TIMES)
def test_rules_within_a_day(text: str, expected: str) -> None:
    rule = parse_rule(text)
    assert isinstance(rule, Rule)
    assert [f"{moment:%H:%M}" for moment in islice(starts(rule, NINE), 20)] == expected.split()


NEVER = [
    "FREQ=YEARLY;BYMONTH=1;BYDAY=6MO", "FREQ=YEARLY;BYYEARDAY=60;BYMONTH=1", "FREQ=WEEKLY;BYDAY=MO;BYSETPOS=2",
    "FREQ=DAILY;INTERVAL=7;BYDAY=WE", "FREQ=HOURLY;INTERVAL=2;BYHOUR=10", "FREQ=SECONDLY;BYSETPOS=2",
    "FREQ=MINUTELY;INTERVAL=1440;BYMINUTE=1", "FREQ=YEARLY;BYWEEKNO=1;BYMONTH=6",
    "FREQ=SECONDLY;BYYEARDAY=100;BYMONTH=1",
]  # fmt: skip


@pytest.mark.parametrize("text", NEVER)
def test_a_rule_that_never_matches_ends_by_itself(text: str) -> None:
    rule = parse_rule(text)
    assert isinstance(rule, Rule)
    assert next(iter(starts(rule, NINE)), None) is None


FAULTS = {
    "BYDAY=MO": "no FREQ", "FREQ=SOMETIMES": "FREQ=SOMETIMES", "FREQ=DAILY;INTERVAL=0": "INTERVAL=0",
    "FREQ=DAILY;COUNT=0": "COUNT=0", "FREQ=DAILY;COUNT=2;UNTIL=20270101": "both COUNT and UNTIL",
    "FREQ=YEARLY;BYMONTH=13": "BYMONTH=13", "FREQ=MONTHLY;BYMONTHDAY=0": "BYMONTHDAY=0",
    "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30": "BYMONTHDAY=30", "FREQ=WEEKLY;BYDAY=2TU": "no number in a WEEKLY rule",
    "FREQ=WEEKLY;BYDAY=XX": "BYDAY=XX", "FREQ=MONTHLY;BYDAY=6MO": "more than five times", "FREQ=DAILY;BYHOUR=24": "BYHOUR=24",
    "FREQ=DAILY;UNTIL=soon": "UNTIL=SOON", "FREQ=DAILY;UNTIL=20270230": "UNTIL=20270230", "FREQ=DAILY;COLOUR=RED": "COLOUR",
    "FREQ=DAILY;WKST=XX": "WKST=XX", "FREQ=DAILY;BYSETPOS": "no value", "FREQ=DAILY;FREQ=WEEKLY": "given twice",
    "FREQ=YEARLY;BYWEEKNO=20;BYDAY=2MO": "no number with BYWEEKNO", "FREQ=YEARLY;RSCALE=HEBREW": "RSCALE",
}  # fmt: skip


@pytest.mark.parametrize("text", FAULTS)
def test_an_impossible_rule_is_refused_with_the_part_named(text: str) -> None:
    fault = parse_rule(text)
    assert isinstance(fault, RuleFault)
    assert FAULTS[text] in fault.message


def test_what_real_files_write_is_read() -> None:
    for text in (
        "freq=weekly;byday=mo",
        "RRULE:FREQ=WEEKLY;BYDAY=MO;",
        "BYDAY=MO;FREQ=WEEKLY",
        "FREQ=WEEKLY;COUNT=-1;BYDAY=1MO",
    ):
        assert parse_rule(text) == Rule("WEEKLY", weekdays=((0, 0),))


numbers = st.integers(1, 5)
weekdays = st.lists(st.sampled_from("MO TU WE TH FR SA SU".split()), min_size=1, max_size=3, unique=True)


@st.composite
def rules(draw: st.DrawFn) -> str:
    freq = draw(st.sampled_from(["YEARLY", "MONTHLY", "WEEKLY", "DAILY"]))
    parts = [f"FREQ={freq}", f"INTERVAL={draw(st.integers(1, 6))}"]

    def maybe(name: str, values: st.SearchStrategy[int], size: int = 3) -> None:
        if draw(st.integers(0, 3)) == 0:
            chosen = draw(st.lists(values, min_size=1, max_size=size, unique=True))
            parts.append(f"{name}={','.join(map(str, chosen))}")

    maybe("BYMONTH", st.integers(1, 12), 5)
    if freq != "WEEKLY":
        maybe("BYMONTHDAY", st.integers(1, 28) | st.integers(-28, -1), 6)
    if freq == "YEARLY":
        maybe("BYYEARDAY", st.integers(1, 366) | st.integers(-366, -1), 9)
    has_weeks = freq == "YEARLY" and draw(st.integers(0, 5)) == 0
    if has_weeks:
        # the library mistakes in which week of the year before the first days of January are (2022-01-01 is in
        # week 52 of 2021): last weeks are judged by ISO dates below
        parts.append(f"BYWEEKNO={draw(st.integers(1, 51))}")
    if draw(st.booleans()):
        days = draw(weekdays)
        if freq in ("YEARLY", "MONTHLY") and not has_weeks and draw(st.booleans()):
            days = [f"{draw(st.sampled_from([1, 2, 3, 4, 5, -1, -2]))}{day}" for day in days]
        parts.append(f"BYDAY={','.join(days)}")
    maybe("BYHOUR", st.integers(0, 23))
    maybe("BYMINUTE", st.integers(0, 59), 2)
    # dateutil begins a week's set at the start, not at the week's first day: in a weekly rule they differ
    if freq != "WEEKLY" and len(parts) > 2:
        maybe("BYSETPOS", st.integers(1, 3) | st.integers(-3, -1), 2)
    if draw(st.booleans()):
        parts.append(f"WKST={draw(st.sampled_from(['MO', 'SU', 'SA']))}")
    return ";".join(parts)


@settings(max_examples=130, deadline=None)
@given(rules(), st.datetimes(dt.datetime(2020, 1, 1), dt.datetime(2030, 1, 1)), st.integers(0, 1500))
def test_random_rules_agree_with_an_independent_library(text: str, first: dt.datetime, later: int) -> None:
    first = first.replace(microsecond=0)
    rule = parse_rule(text)
    if isinstance(rule, RuleFault):
        assert "BYMONTHDAY" in rule.part
        return
    assert parse_rule(rule_text(rule)) == rule
    end = first + dt.timedelta(days=1827)
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        expected = list(rrulestr(f"{text};UNTIL={end:%Y%m%dT%H%M%S}", dtstart=first))
    ours = [moment for moment in starts(rule, first, last_day=end.date()) if moment <= end]
    assert ours == expected
    since = first.date() + dt.timedelta(days=later)
    jumped = [moment for moment in starts(rule, first, since, end.date()) if moment <= end]
    assert jumped == [moment for moment in expected if moment.date() >= since]


def test_an_old_endless_rule_costs_only_what_is_taken() -> None:
    rule = parse_rule("FREQ=SECONDLY")
    assert isinstance(rule, Rule)
    day = dt.date(2027, 1, 4)
    assert next(iter(starts(rule, dt.datetime(1970, 1, 1), day))) == dt.datetime(2027, 1, 4)


@pytest.mark.parametrize("week", [52, 53])
def test_last_weeks_of_the_year_are_those_of_iso_8601(week: int) -> None:
    rule = parse_rule(f"FREQ=YEARLY;BYWEEKNO={week}")
    assert not isinstance(rule, RuleFault)
    first, last = dt.datetime(2018, 1, 1), dt.date(2034, 12, 31)
    days = (dt.date.fromordinal(n) for n in range(first.toordinal(), last.toordinal() + 1))
    expected = [day for day in days if day.isocalendar().week == week]
    found = [moment.date() for moment in starts(rule, first, last_day=last)]
    assert found == expected
