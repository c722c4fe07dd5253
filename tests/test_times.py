"""Times, lengths and choices in cells (`reading.times`, `reading.lengths`, `reading.choices`)."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nomarium.model.event import Person
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.choices import read_busy, read_priority, read_privacy, read_status, read_yes_no
from nomarium.reading.cells.lengths import read_length
from nomarium.reading.cells.people import read_geo, read_list, read_people, read_url
from nomarium.reading.cells.times import Clock, Times, read_times


def clock(value: Clock | None) -> str | None:
    return f"{value.secs // 3600}:{value.secs // 60 % 60:02}" if value else None


@pytest.mark.parametrize(
    ("text", "start", "end"),
    [
        ("9", "9:00", None),
        ("9am", "9:00", None),
        ("9 p", "21:00", None),
        ("9.30", "9:30", None),
        ("0930", "9:30", None),
        ("930", "9:30", None),
        ("1430 hrs", "14:30", None),
        ("9:30:00 p.m.", "21:30", None),
        ("9h30", "9:30", None),
        ("14 h", "14:00", None),
        ("9 Uhr", "9:00", None),
        ("9u30", "9:30", None),
        ("9.30 Uhr", "9:30", None),
        ("14:05", "14:05", None),
        ("12am", "0:00", None),
        ("12pm", "12:00", None),
        ("noon", "12:00", None),
        ("12 midnight", "0:00", None),
        ("midi", "12:00", None),
        ("24:00", "24:00", None),
        ("9am start", "9:00", None),
        ("Doors 6:30pm", "18:30", None),
        ("kick-off 3pm", "15:00", None),
        ("9-10am sharp", "9:00", "10:00"),
        ("9am*", "9:00", None),
        ("9am for 9.30", "9:30", None),
        ("8:15–9:10", "8:15", "9:10"),
        ("0815-0910", "8:15", "9:10"),
        ("1–2:30pm", "13:00", "14:30"),
        ("11-1pm", "11:00", "13:00"),
        ("11:30-12:30pm", "11:30", "12:30"),
        ("9-5pm", "9:00", "17:00"),
        ("7pm–9", "19:00", "21:00"),
        ("10am-2", "10:00", "14:00"),
        ("from 9 to 10:30", "9:00", "10:30"),
        ("9h à 10h30", "9:00", "10:30"),
        ("9AM-5PM", "9:00", "17:00"),
        ("7pm onwards", "19:00", None),
        ("ab 14 Uhr", "14:00", None),
        ("dès 14h", "14:00", None),
        ("à partir de 9h", "9:00", None),
        ("desde las 14h", "14:00", None),
        ("9:00 a. m. - 1:30 p. m.", "9:00", "13:30"),
        ("vanaf 14.00 uur", "14:00", None),
    ],
)
def test_times_and_ranges(text: str, start: str, end: str | None) -> None:
    times = read_times(text)
    assert isinstance(times, Times), times
    assert (clock(times.start), clock(times.end)) == (start, end)


@pytest.mark.parametrize("text", ["TBC", "tba", "?", "to be confirmed"])
def test_a_time_may_be_unknown(text: str) -> None:
    times = read_times(text)
    assert isinstance(times, Times)
    assert times.is_unknown


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("25:00", "time-impossible"),
        ("9:75", "time-impossible"),
        ("24:30", "time-impossible"),
        ("0pm", "time-impossible"),
        ("lately", "time-unread"),
        ("9:30 EST", "time-rest"),
        ("9-10 (Atlantic)", "time-rest"),
        ("9:30 or later", "time-unread"),
        ("", "time-unread"),
    ],
)
def test_what_is_no_time_is_refused(text: str, code: str) -> None:
    refusal = read_times(text)
    assert isinstance(refusal, Refusal)
    assert refusal.code == code
    assert "9:30" in refusal.remedy


@given(st.integers(0, 23), st.integers(0, 59))
def test_every_minute_of_the_day_in_both_clocks(hour: int, minute: int) -> None:
    twelve = f"{(hour - 1) % 12 + 1}:{minute:02} {'am' if hour < 12 else 'pm'}"
    for text in (f"{hour:02}:{minute:02}", f"{hour}h{minute:02}", twelve):
        times = read_times(text)
        assert isinstance(times, Times)
        assert times.start is not None
        assert times.start.secs == hour * 3600 + minute * 60


@pytest.mark.parametrize(
    ("text", "minutes"),
    [
        ("1h 30m", 90), ("1h30", 90), ("90 min", 90), ("1:30", 90), ("1.5 hours", 90), ("1,5 h", 90),
        ("PT90M", 90), ("PT1H30M", 90), ("P1D", 1440), ("2 days", 2880), ("an hour", 60),
        ("half an hour", 30), ("1 hr. 15 mins", 75), ("2 hours and 15 minutes", 135), ("45'", 45),
        ("1 Stunde 5 Minuten", 65), ("1 week", 10080), ("1½ hours", 90), ("2 1/4 h", 135), ("¾ hour", 45), ("an hour and a half", 90),
        ("one and a half hours", 90), ("ninety minutes", 90), ("quarter of an hour", 15), ("1 hr 15", 75),
    ],
)  # fmt: skip
def test_lengths(text: str, minutes: int) -> None:
    assert read_length(text) == minutes * 60


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("90", "length-unit"),
        ("long", "length-unread"),
        ("PT", "length-unread"),
        ("99999999999999w", "length-unread"),
        ("9" * 199 + "h", "length-unread"),
    ],
)
def test_what_is_no_length_is_refused(text: str, code: str) -> None:
    refusal = read_length(text)
    assert isinstance(refusal, Refusal)
    assert refusal.code == code


def test_a_bare_length_takes_the_unit_of_its_column() -> None:
    assert read_length("90", 60) == 5400


@pytest.mark.parametrize(
    ("read", "yes", "no"),
    [
        (read_yes_no, ["yes", "Y", "TRUE", "1", "x", "✓", "oui", "Ja", "sí", True, 1.0], ["no", "0", "✗", "nein", False]),
    ],
)  # fmt: skip
def test_yes_and_no_in_words_ticks_and_figures(read, yes, no) -> None:
    assert [read(cell) for cell in yes] == [True] * len(yes)
    assert [read(cell) for cell in no] == [False] * len(no)
    assert isinstance(read("perhaps"), Refusal)


@pytest.mark.parametrize(
    ("read", "text", "value"),
    [
        (read_status, "Provisional", "TENTATIVE"),
        (read_status, "annulé", "CANCELLED"),
        (read_privacy, "Personal", "PRIVATE"),
        (read_privacy, "vertraulich", "CONFIDENTIAL"),
        (read_busy, "Free", False),
        (read_busy, "Tentative", "TENTATIVE"),
        (read_busy, "Out of office", True),
        (read_priority, "High", 1),
        (read_priority, "7", 7),
        (read_geo, "44.65; -63.57", (44.65, -63.57)),
        (read_url, "www.saltmarsh.example", "https://www.saltmarsh.example"),
        (read_list, "a, b;c\n a", ("a", "b", "c")),
    ],
)
def test_answers_among_few(read, text, value) -> None:
    assert read(text) == value


@pytest.mark.parametrize("read", [read_status, read_privacy, read_busy, read_priority, read_geo, read_url])
def test_other_answers_are_refused_with_the_right_ones(read) -> None:
    refusal = read("blah blah")
    assert isinstance(refusal, Refusal)
    assert refusal.remedy


def test_people_are_names_addresses_or_both() -> None:
    text = "Maren Quill <maren@saltmarsh.example>; tobias@saltmarsh.example, Odile; Hollow, Piers <p@salt.example>"
    assert read_people(text) == (
        Person("Maren Quill", "maren@saltmarsh.example"),
        Person("", "tobias@saltmarsh.example"),
        Person("Odile", ""),
        Person("Hollow, Piers", "p@salt.example"),
    )
    assert isinstance(read_people("maren@"), Refusal)
