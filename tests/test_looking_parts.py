"""The parts that pictures are made of: dates in words, colours, marks of days, texts that fit, words of pages."""

from __future__ import annotations

import datetime as dt
from itertools import pairwise
from pathlib import Path

import pytest

from helpers import nomarium
from nomarium.cli.demo import write_samples
from nomarium.model.event import Details, Event
from nomarium.pictures.figures.metrics import Metrics
from nomarium.pictures.figures.paper import FLOOR, Words, fits, largest, put, style
from nomarium.pictures.figures.paper import Paper as Sheet
from nomarium.pictures.lanes import months_of, weekdays_needed, weeks_of
from nomarium.pictures.names import names_in
from nomarium.pictures.page.words import language_of, words_in
from nomarium.pictures.palette import INKS, PLAIN, ink_of
from nomarium.pictures.shown import (
    Day,
    Show,
    Shown,
    field_of,
    in_order,
    in_zone,
    keys_of,
    shown_by,
    without_labels,
)
from nomarium.pictures.terminal.lines import cut, padded, width_of, wrapped
from nomarium.pictures.wording import days_text, state_text, times_text, title_text

NAMES, FRENCH = names_in("en", None), names_in("fr", None)
DAY = dt.date(2026, 11, 12)


def timed(title: str = "Rigging", hour: int = 9, minutes: int = 50, **details: object) -> Event:
    start = dt.datetime(2026, 11, 12, hour)
    return Event(
        title, start, start + dt.timedelta(minutes=minutes), "America/Halifax", details=Details(**details)
    )  # type: ignore[arg-type]


SPANS = {
    "a day": (DAY, DAY, "Thu 12 November 2026"),
    "days of a month": (DAY, dt.date(2026, 11, 18), "12–18 November 2026"),
    "days of two months": (DAY, dt.date(2026, 12, 2), "12 November – 2 December 2026"),
    "days of two years": (DAY, dt.date(2027, 1, 2), "12 November 2026 – 2 January 2027"),
}


@pytest.mark.parametrize("name", SPANS)
def test_two_dates_say_what_they_do_not_share(name: str) -> None:
    first, last, expected = SPANS[name]
    assert NAMES.span(first, last) == expected


def test_dates_have_the_names_of_their_language() -> None:
    assert (NAMES.day(DAY), NAMES.short_day(DAY), NAMES.month(DAY)) == (
        "Thu 12 November",
        "Thu 12 Nov",
        "November 2026",
    )
    assert FRENCH.day(DAY, with_year=True) == "jeu. 12 novembre 2026"
    assert NAMES.tiny_days == ("Mo", "Tu", "We", "Th", "Fr", "Sa", "Su")
    assert names_in("pt-BR", None).code == "pt-BR"


ZONES = {
    "Halifax begins on Sunday": ("en", "America/Halifax", 6),
    "London on Monday": ("en", "Europe/London", 0),
    "Cairo on Saturday": ("ar", "Africa/Cairo", 5),
    "nowhere on Monday": ("en", None, 0),
    "a place that is no country's": ("en", "Etc/UTC", 0),
}


@pytest.mark.parametrize("name", ZONES)
def test_weeks_begin_as_they_do_where_the_zone_is(name: str) -> None:
    language, zone, expected = ZONES[name]
    assert names_in(language, zone).first_weekday == expected


def test_weeks_and_months_are_whole() -> None:
    weeks = weeks_of(dt.date(2026, 11, 1), dt.date(2026, 11, 30), 0)
    assert (len(weeks), weeks[0][0], weeks[-1][-1]) == (6, dt.date(2026, 10, 26), dt.date(2026, 12, 6))
    assert weeks_of(DAY, DAY, 6)[0][0] == dt.date(2026, 11, 8)
    assert months_of(dt.date(2026, 12, 31), dt.date(2027, 2, 1)) == [
        dt.date(2026, 12, 1),
        dt.date(2027, 1, 1),
        dt.date(2027, 2, 1),
    ]
    saturday = Shown(Event("Regatta", dt.date(2026, 11, 14), dt.date(2026, 11, 15)))
    assert weekdays_needed([saturday], frozenset()) == frozenset(range(6))
    assert weekdays_needed([saturday], frozenset((0, 2))) == frozenset((0, 2)), (
        "what is asked for is what is drawn"
    )


SAID = {
    "a lesson": (timed(), "9:00–9:50", "", ""),
    "a moment": (timed(minutes=0), "9:00", "", ""),
    "over midnight": (timed(hour=22, minutes=210), "22:00–1:30", "until Fri 13 Nov 1:30", ""),
    "two days": (timed(minutes=60 * 26), "9:00–11:00", "until Fri 13 Nov 11:00", ""),
    "all day": (Event("Staff day", DAY, DAY + dt.timedelta(days=1)), "", "", ""),
    "a week": (Event("Break", DAY, DAY + dt.timedelta(days=7)), "", "until Wed 18 Nov", ""),
    "cancelled": (timed(status="CANCELLED"), "9:00–9:50", "", "cancelled"),
    "tentative": (timed(status="TENTATIVE"), "9:00–9:50", "", "not certain"),
}


@pytest.mark.parametrize("name", SAID)
def test_what_stands_beside_a_title(name: str) -> None:
    event, times, until, state = SAID[name]
    assert (times_text(event), days_text(event, NAMES), state_text(event)) == (times, until, state)
    assert title_text(event._replace(summary=" \n ")) == "(no title)"
    assert title_text(event._replace(summary="Steam\nbending")) == "Steam bending"


COLORS = {
    "categories first": ([timed(categories=("Hull",)), timed("B", facets=(("class", "KN"),))], "categories"),
    "then classes": ([timed(facets=(("class", "KN"),))], "class"),
    "nothing": ([timed()], ""),
    "what goes with the events' own colours": (
        [
            timed(categories=("Hull",), color="teal", facets=(("class", "KN"),)),
            timed("B", categories=("Hull",), color="olive", facets=(("class", "LF"),)),
        ],
        "class",
    ),
    "a field even where none goes with them": (
        [timed(categories=("Hull",), color="teal"), timed("B", categories=("Hull",), color="olive")],
        "categories",
    ),
}


@pytest.mark.parametrize("name", COLORS)
def test_events_are_coloured_by_what_tells_them_apart(name: str) -> None:
    events, expected = COLORS[name]
    assert field_of(events) == expected


def test_keys_are_numbered_by_how_many_they_have_and_inks_differ() -> None:
    shown = [shown_by(timed(categories=(key,)), "categories") for key in ("Rope", "Hull", "Hull", "")]
    assert keys_of(shown) == {"Hull": 0, "Rope": 1}
    assert shown_by(timed(color="teal"), "calendar", "year", has_own=False) == Shown(
        timed(color="teal"), "year", ""
    )
    assert len({ink.light for ink in INKS}) == len({ink.dark for ink in INKS}) == len(INKS)
    assert ink_of(-1) == PLAIN and ink_of(len(INKS)) == INKS[0]
    assert style("teal", 2).ink == "#008080" and style("", 2).ink == INKS[2].light
    lights = [
        sum(int(ink.light[n : n + 2], 16) * share for n, share in ((1, 0.21), (3, 0.72), (5, 0.07)))
        for ink in INKS
    ]
    assert all(abs(a - b) > 8 for a, b in pairwise(lights)), "neighbours differ in a grey print"


def test_marks_are_labels_and_days_off_that_no_event_says() -> None:
    off, label = (
        Event("Gale", DAY, DAY + dt.timedelta(days=1)),
        Event("Keel", DAY, DAY + dt.timedelta(days=1)),
    )
    days = {DAY: Day("Keel", "Keel", "Autumn", "", True), DAY + dt.timedelta(days=1): Day(off="Gale")}
    show = Show("S", [], DAY, DAY, {}, days)
    assert show.mark_of(DAY) == "Keel"
    assert show.mark_of(DAY + dt.timedelta(days=1)) == "Gale"
    assert show.mark_of(DAY + dt.timedelta(days=1), [Shown(off)]) == ""
    assert show.mark_of(DAY + dt.timedelta(days=9)) == ""
    assert without_labels([Shown(label), Shown(off)], days) == [Shown(off)]


def test_events_stand_by_day_long_ones_first_and_in_the_zone_that_is_asked_for() -> None:
    break_ = Event("Break", DAY, DAY + dt.timedelta(days=3))
    shown = in_order(map(Shown, [timed("B", 10), timed("A", 10), break_, timed("C", 8)]))
    assert [one.event.summary for one in shown] == ["Break", "C", "A", "B"]
    by_day = Show("S", shown, DAY, DAY + dt.timedelta(days=1)).by_day
    assert [len(by_day[DAY]), len(by_day[DAY + dt.timedelta(days=1)])] == [4, 1]
    utc = timed()._replace(zone="UTC")
    assert in_zone(utc, "America/Halifax").start == dt.datetime(2026, 11, 12, 5)
    assert in_zone(timed()._replace(zone=None), "America/Halifax").start == dt.datetime(2026, 11, 12, 9), (
        "a floating time stays"
    )


FITTED = {
    "it fits": ("Steam shed", 10, "Steam shed", ["Steam shed"]),
    "a sign where something is missing": ("Steam shed", 8, "Steam s…", ["Steam", "shed"]),
    "a long word goes on": ("Dampfbiegen", 6, "Dampf…", ["Dampfb", "iegen"]),
    "wide letters count twice": ("竜骨の進水", 6, "竜骨…", ["竜骨の", "進水"]),
    "marks that combine count nothing": (
        "e\u0301e\u0301e\u0301",
        3,
        "e\u0301e\u0301e\u0301",
        ["e\u0301e\u0301e\u0301"],
    ),
    "no room": ("Keel", 1, "…", ["K", "e", "e", "l"]),
}


@pytest.mark.parametrize("name", FITTED)
def test_texts_of_a_terminal_are_cut_and_wrapped_by_their_width(name: str) -> None:
    text, width, short, lines = FITTED[name]
    assert (cut(text, width), wrapped(text, width)) == (short, lines)
    assert width_of(padded(text, width)) == width


def test_letters_of_a_picture_are_as_large_as_all_can_be_and_no_smaller_than_can_be_read() -> None:
    metrics = Metrics()
    words = Words("Steam bending (Apprentices A)", ["9:25–10:15", "Steam shed"])
    assert largest(metrics, [(words, 400, 300)], 34.0) > largest(metrics, [(words, 120, 80)], 34.0) >= FLOOR
    assert largest(metrics, [(words, 20, 10)], 34.0) == FLOOR
    assert not fits(metrics, Words("Apprentices"), 40, 400, 20), "no word is broken while it can be smaller"
    sheet = Sheet(500, 500, metrics)
    put(sheet, words, 0, 0, 60, FLOOR * 1.28 * 2, 20)
    assert [one.text for one in sheet.texts][-1].endswith("…") and min(
        one.size for one in sheet.texts
    ) == FLOOR
    assert metrics.width(metrics.cut("Steam bending", 30, 10), 10) <= 30
    assert metrics.cut("Keel", 0, 10) == ""


def test_pages_speak_four_languages_with_the_same_words() -> None:
    assert {frozenset(words_in(code)) for code in ("en", "fr", "de", "es")} == {frozenset(words_in("en"))}
    assert words_in("fr-CA")["month"] == "Mois" and words_in("eu")["month"] == "Month"
    assert (language_of("fr-CA"), language_of("eu")) == ("fr-CA", "en")


@pytest.mark.parametrize("width", [60, 100])
def test_every_source_of_the_demo_school_can_be_seen_at_any_width(
    width: int, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    write_samples(tmp_path)
    monkeypatch.chdir(tmp_path)
    monkeypatch.setenv("COLUMNS", str(width))
    sources = sorted(
        path.name
        for path in tmp_path.iterdir()
        if path.suffix in (".csv", ".xlsx", ".txt", ".ics") or path.name == "year"
    )
    refused = {
        "visitors.csv",
        "evening-classes.csv",
        "boat-launches.csv",
        "places.csv",
        "apprentice-programme.csv",
        "fixtures.xlsx",
        "days-off.csv",
    }
    for source in (one for one in sources if one not in refused):
        for kind in ("agenda", "week", "month", "year"):
            outcome = nomarium("view", source, "--as", kind)
            assert outcome.status == 0, (source, kind, outcome.text)
            drawn = outcome.out.split("\n\n", 1)[-1].splitlines()
            assert [line for line in drawn if width_of(line) > width and "--" not in line] == [], (
                source,
                kind,
            )
