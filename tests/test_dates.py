"""Days as people write them (`reading.dates`, `reading.moments`)."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import Days, read_days
from nomarium.reading.cells.moments import Moment, read_moment
from nomarium.reading.cells.serials import from_serial
from nomarium.reading.cells.words import ENGLISH, fold, lexicon_of

FRENCH = ENGLISH.extended(lexicon_of("fr"))
GERMAN = ENGLISH.extended(lexicon_of("de"))


def days_in(text: str, lexicon=ENGLISH) -> Days:
    days = read_days(text, lexicon)
    assert isinstance(days, Days), days
    return days


@pytest.mark.parametrize(
    ("text", "times"),
    [
        ("5 Sept 10-12", "10-12"),
        ("5 Sept 10-12.30", "10-12.30"),
        ("Sat 5 Sept 2-4pm", "2-4pm"),
        ("Sept 5, 10-12", "10-12"),
        ("5th Sept 10-noon", "10-noon"),
        ("5 Sept 10/12", "10/12"),
    ],
)
def test_the_first_hour_of_a_time_range_is_no_year(text: str, times: str) -> None:
    days = days_in(text)
    assert [(one.year, one.month, one.day) for one in days.first.readings] == [(None, 9, 5)]
    assert (days.last, days.rest) == (None, times)


@pytest.mark.parametrize("text", ["5 Sept 27-9 Sept 27", "5/Sep/27-9/Sep/27", "5 Sept 27-Thu 9 Sept 27"])
def test_a_year_of_two_figures_stands_before_another_date(text: str) -> None:
    days = days_in(text)
    assert days.last is not None
    assert [days.first.readings[0].date(), days.last.readings[0].date()] == [
        dt.date(2027, 9, 5),
        dt.date(2027, 9, 9),
    ]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("2027-04-12", "2027-4-12"),
        ("20270412", "2027-4-12"),
        ("2027/4/12", "2027-4-12"),
        ("2027.04.12", "2027-4-12"),
        ("12 April 2027", "2027-4-12"),
        ("12. April 2027", "2027-4-12"),
        ("12th of April, 2027", "2027-4-12"),
        ("April 12, 2027", "2027-4-12"),
        ("Apr. 12 '27", "2027-4-12"),
        ("12-Apr-27", "2027-4-12"),
        ("12-APR-2027", "2027-4-12"),
        ("2 Sept., 2027", "2027-9-2"),
        ("5/Apr/1999", "1999-4-5"),
        ("12 April", "None-4-12"),
        ("April 3rd", "None-4-3"),
        ("5 Apr 69", "2069-4-5"),
        ("5 Apr 70", "1970-4-5"),
    ],
)
def test_a_day_with_one_meaning(text: str, expected: str) -> None:
    (reading,) = days_in(text).first.readings
    assert f"{reading.year}-{reading.month}-{reading.day}" == expected


@pytest.mark.parametrize(
    ("text", "orders"),
    [
        ("05/04/2027", "dmy mdy"),
        ("5.4.27", "dmy mdy ymd"),
        ("12-4-2027", "dmy mdy"),
        ("12–4–2027", "dmy mdy"),
        ("12,4,2027", "dmy mdy"),
        ("12 04 2027", "dmy mdy"),
        ("13/04/2027", "dmy"),
        ("04/13/2027", "mdy"),
        ("99/12/31", "ymd"),
        ("5/4", "dmy mdy"),
        ("5.4.", "dmy"),
    ],
)
def test_figures_keep_every_order_open(text: str, orders: str) -> None:
    assert " ".join(one.order for one in days_in(text).first.readings) == orders


@pytest.mark.parametrize(
    ("text", "first", "last"),
    [
        ("24–28 Oct 2027", "2027-10-24", "2027-10-28"),
        ("28 Oct - 3 Nov 2027", "2027-10-28", "2027-11-03"),
        ("28 Dec - 3 Jan 2028", "2027-12-28", "2028-01-03"),
        ("28 Dec 2027 to 3 Jan", "2027-12-28", "2028-01-03"),
        ("Oct 24-28, 2027", "2027-10-24", "2027-10-28"),
        ("Oct 24 – Nov 3, 2027", "2027-10-24", "2027-11-03"),
        ("Mon 25 – Fri 29 Oct 2027", "2027-10-25", "2027-10-29"),
        ("2027-04-12 to 2027-04-16", "2027-04-12", "2027-04-16"),
        ("24-28/10/2027", "2027-10-24", "2027-10-28"),
        ("24–28 Oct 2027 inclusive", "2027-10-24", "2027-10-28"),
        ("24–28 Oct 2027 (incl.)", "2027-10-24", "2027-10-28"),
    ],
)
def test_a_range_is_inclusive_and_shares_what_is_said_once(text: str, first: str, last: str) -> None:
    days = days_in(text)
    assert days.last is not None
    assert [str(day.readings[0].date()) for day in (days.first, days.last)] == [first, last]


@pytest.mark.parametrize(
    ("text", "lexicon", "weekday", "date"),
    [
        ("mardi 6 avril 2027", FRENCH, 1, "2027-04-06"),
        ("mar. 6 avr. 2027", FRENCH, 1, "2027-04-06"),
        ("1er mars 2027", FRENCH, None, "2027-03-01"),
        ("du 5 au 9 mai 2027", FRENCH, None, "2027-05-05"),
        ("vom 5. bis 9. Mai 2027", GERMAN, None, "2027-05-05"),
        ("Mittwoch, den 14. April 2027", GERMAN, 2, "2027-04-14"),
        ("Monday, April 5th 2027", ENGLISH, 0, "2027-04-05"),
        ("5 April 2027 (Mon)", ENGLISH, 0, "2027-04-05"),
    ],
)
def test_names_in_the_languages_of_cldr(text, lexicon, weekday, date) -> None:
    first = days_in(text, lexicon).first
    assert (first.weekday, str(first.readings[0].date())) == (weekday, date)


@pytest.mark.parametrize(
    ("text", "code", "says"),
    [
        ("31/02/2027", "date-impossible", "no such date"),
        ("30 February 2027", "date-impossible", "29 days at most"),
        ("13/13/2027", "date-impossible", "no such date"),
        ("April 2027", "date-no-day", "no day"),
        ("Monday", "date-weekday-only", "no date"),
        ("5 & 6 May 2027", "date-several", "several days"),
        ("5 Foo 2027", "date-word", "“Foo” is no month"),
        ("5 Sept 9", "date-year", "“9” is no year"),
        ("Sept 5, 9", "date-year", "“9” is no year"),
        ("31 Sept 9", "date-impossible", "30 days at most"),
        ("soon", "date-unread", "not a date"),
        ("", "date-unread", "not a date"),
    ],
)
def test_a_refusal_says_why(text: str, code: str, says: str) -> None:
    refusal = read_days(text, ENGLISH)
    assert isinstance(refusal, Refusal)
    assert (refusal.code, says in refusal.message) == (code, True)


@pytest.mark.parametrize(
    ("cell", "role", "day", "start", "end"),
    [
        ("2027-04-05 09:30", "either", "2027-04-05", 570, None),
        ("5 April 2027 at 9am-10am", "date", "2027-04-05", 540, 600),
        ("9:00 Monday 5 April 2027", "date", "2027-04-05", 540, None),
        ("5 April 2027 10-12.30", "date", "2027-04-05", 600, 750),
        ("5 April 27 10-12", "date", "2027-04-05", 600, 720),
        ("9am on 5 April 2027", "date", "2027-04-05", 540, None),
        ("Wednesday 14 April 2027, 19:00–21:00", "date", "2027-04-14", 1140, 1260),
        ("9.30", "time", None, 570, None),
        ("9.30", "either", None, 570, None),
        ("2027年4月5日", "date", "2027-04-05", None, None),
        ("46489", "date", "2027-04-12", None, None),
        (46489.5, "date", "2027-04-12", 720, None),
        (0.375, "time", None, 540, None),
        (930.0, "time", None, 570, None),
        (9.3, "time", None, 570, None),
        (dt.time(8, 15), "time", None, 495, None),
        (dt.date(1900, 1, 1), "time", None, 1440, None),
        (dt.datetime(2027, 4, 5, 9, 0, 0, 400), "either", "2027-04-05", 540, None),
    ],
)
def test_a_cell_may_hold_days_times_or_both(cell, role, day, start, end) -> None:
    moment = read_moment(cell, role, ENGLISH)
    assert isinstance(moment, Moment), moment
    date = moment.first.readings[0].date() if moment.first else None
    minutes = [clock.secs // 60 if clock else None for clock in (moment.start, moment.end)]
    assert (str(date) if date else None, *minutes) == (day, start, end)


@pytest.mark.parametrize(
    ("text", "offset"),
    [("2027-04-05T09:00:00Z", 0), ("2027-04-05 09:00+02:00", 7200), ("2027-04-05T09:00-0330", -12600)],
)
def test_an_offset_from_utc_is_kept(text: str, offset: int) -> None:
    moment = read_moment(text, "either", ENGLISH)
    assert isinstance(moment, Moment)
    assert moment.offset_secs == offset


def test_serial_numbers_count_from_1900_or_1904() -> None:
    assert from_serial(46489) == dt.datetime(2027, 4, 12)
    assert from_serial(46489 - 1462, counts_1904=True) == dt.datetime(2027, 4, 12)
    assert from_serial(17) is None


@given(st.dates(dt.date(1970, 1, 1), dt.date(2069, 12, 31)), st.sampled_from(
    ["%d %B %Y", "%B %d, %Y", "%A %d %b %Y", "%Y-%m-%d", "%Y%m%d", "%d-%b-%y", "%d.%m.%Y", "%m/%d/%Y"]
))  # fmt: skip
def test_whatever_a_date_is_written_as_it_is_among_its_readings(day: dt.date, form: str) -> None:
    days = days_in(day.strftime(form))
    assert day in [one.date() for one in days.first.readings]
    assert days.first.weekday in (None, day.weekday())


@given(st.text(max_size=40))
def test_no_text_makes_a_cell_reader_stumble(text: str) -> None:
    for role in ("date", "time", "either"):
        assert isinstance(read_moment(text, role, FRENCH), (Moment, Refusal))
    assert fold(fold(text)) == fold(text) or not text.isascii()


@pytest.mark.parametrize(
    "text",
    ["6 Oct 2026 (wk 5)", "6 Oct 2026 [1]", "*6 Oct 2026", "6 Oct 2026 (moved from 5 Oct)", "6 Oct 2026 (was Monday)"],
)  # fmt: skip
def test_what_stands_around_a_date_and_is_none_of_it(text: str) -> None:
    moment = read_moment(text, "date", ENGLISH)
    assert isinstance(moment, Moment) and moment.first is not None
    assert (str(moment.first.readings[0].date()), moment.start, moment.last) == ("2026-10-06", None, None)


@pytest.mark.parametrize(
    "text", ["6 Oct 206", "6 Oct 2026 (moved to 8 Oct)", "6-8 Oct 2026 (4 days)", "6 Oct 2026 (3 days)"]
)
def test_what_may_be_more_than_a_remark_is_refused(text: str) -> None:
    refusal = read_moment(text, "date", ENGLISH)
    assert isinstance(refusal, Refusal) and refusal.code == "date-rest"


def test_days_that_are_counted_behind_a_range_agree() -> None:
    moment = read_moment("6-8 Oct 2026 (3 days)", "date", ENGLISH)
    assert isinstance(moment, Moment) and moment.last is not None
    assert str(moment.last.readings[0].date()) == "2026-10-08"
