"""Pictures: laid out so that nothing overlaps, every title is there or counted, and the same events are the same bytes."""

from __future__ import annotations

import datetime as dt
import random
import re
import struct
from collections.abc import Sequence
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from helpers import nomarium
from nomarium.model.event import Details, Event
from nomarium.pictures.figures.agenda import agenda
from nomarium.pictures.figures.drawing import SIZES
from nomarium.pictures.figures.metrics import LINE, Metrics
from nomarium.pictures.figures.month import month
from nomarium.pictures.figures.paper import FLOOR, Paper, Text
from nomarium.pictures.figures.week import week
from nomarium.pictures.figures.year import year
from nomarium.pictures.lanes import bands_over, blocks_on, weekdays_needed
from nomarium.pictures.names import names_in
from nomarium.pictures.shown import Show, Shown, in_order, keys_of

METRICS = Metrics()
NAMES = names_in("en", None)
MONDAY = dt.date(2026, 11, 2)
ALL = frozenset(range(7))

WORDS = "Keel Rib Plank Steam-bending Rigging Caulking a of the Dampfbiegen Lofting-and-fairing".split()


def some_events(seed: int) -> list[Event]:
    """Events as they come: few or many, short or over days, with long titles; each says its number at its end."""
    dice = random.Random(seed)
    found = []
    crowd = dice.choice((1, 27))  # all in one day, or over the month
    for n in range(dice.choice((3, 20, 60))):
        begin = dt.datetime(2026, 11, 2) + dt.timedelta(minutes=5 * dice.randrange(crowd * 288))
        title = f"{' '.join(dice.choices(WORDS, k=dice.randrange(1, 8)))} no{n}end"
        if dice.random() < 0.6:
            end = begin + dt.timedelta(minutes=5 * dice.randrange(80))
            found.append(Event(title, begin, end, None, dice.choice(("", "Slip 1", "The long mould loft"))))
        else:
            found.append(
                Event(title, begin.date(), begin.date() + dt.timedelta(days=dice.choice((1, 1, 2, 9))))
            )
    return found


SEEDS = st.integers(0, 100_000)


def show_of(found: Sequence[Event], first: dt.date = MONDAY, days: int = 30) -> Show:
    shown = in_order(Shown(event, f"key {n % 7}") for n, event in enumerate(found))
    return Show("Saltmarsh", shown, first, first + dt.timedelta(days=days - 1), keys_of(shown)).within(
        first, first + dt.timedelta(days=days - 1)
    )


def box_of(text: Text) -> tuple[float, float, float, float]:
    """Left, top, right and bottom of the letters of a line, without the space between lines."""
    width = METRICS.width(text.text, text.size, text.weight)
    left = text.x - (width if text.align == "right" else 0)
    return left, text.y + text.size * 0.2, left + width, text.y + text.size * 1.1


def overlaps(paper: Paper) -> list[tuple[str, str]]:
    boxes = sorted((box_of(one), one.text) for one in paper.texts if one.text.strip())
    found = []
    for n, ((left, top, right, bottom), text) in enumerate(boxes):
        for (left_2, top_2, _, bottom_2), other in boxes[n + 1 :]:
            if left_2 >= right - 0.5:
                break
            if top < bottom_2 - 0.5 and top_2 < bottom - 0.5 and left < right:
                found.append((text, other))
    return found


def outside(paper: Paper) -> list[str]:
    return [
        one.text
        for one in paper.texts
        for left, top, right, bottom in [box_of(one)]
        if left < -1 or top < -1 or right > paper.width + 1 or bottom > paper.height + 1
    ]


def marks_in(papers: Sequence[Paper]) -> set[int]:
    """The numbers of events whose title is there to its end."""
    text = "".join(one.text for paper in papers for one in paper.texts)
    return {int(number) for number in re.findall(r"no(\d+)end", text)}


def counted_in(papers: Sequence[Paper]) -> int:
    return sum(int(n) for paper in papers for one in paper.texts for n in re.findall(r"^\+(\d+)", one.text))


@settings(max_examples=40, deadline=None)
@given(SEEDS)
def test_a_week_never_overlaps_and_shows_cuts_with_a_sign_or_counts_every_event(seed: int) -> None:
    found = some_events(seed)
    show = show_of(found, days=7)
    days = [MONDAY + dt.timedelta(days=n) for n in range(7)]
    paper = week(show, NAMES, "2–8 November", days, None, SIZES["screen"], METRICS)
    assert overlaps(paper) == []
    assert outside(paper) == []
    assert min(one.size for one in paper.texts) >= FLOOR * 0.86 - 0.01
    cuts = sum("…" in one.text for one in paper.texts)
    assert len(marks_in([paper])) + cuts + counted_in([paper]) >= len(show.events)


@settings(max_examples=40, deadline=None)
@given(SEEDS)
def test_a_month_shows_cuts_with_a_sign_or_counts_every_event(seed: int) -> None:
    found = some_events(seed)
    show = show_of(found)
    paper = month(show, NAMES, "November 2026", dt.date(2026, 11, 1), ALL, SIZES["screen"], METRICS)
    assert overlaps(paper) == []
    assert outside(paper) == []
    cuts = sum("…" in one.text for one in paper.texts)
    inside = [one for one in show.events if one.event.first_day.month == 11]
    assert len(marks_in([paper])) + cuts + counted_in([paper]) >= len(inside)


def test_a_month_of_forty_events_shows_each_in_full() -> None:
    found = [
        Event(f"Launch of the skiff no{n}end", dt.datetime(2026, 11, 2 + n % 27, 9 + n % 8), dt.datetime(2026, 11, 2 + n % 27, 18), None, "Slip 1")
        for n in range(40)
    ]  # fmt: skip
    paper = month(show_of(found), NAMES, "November 2026", dt.date(2026, 11, 1), ALL, SIZES["screen"], METRICS)
    assert marks_in([paper]) == set(range(40))
    assert sum(one.text.count("Slip") for one in paper.texts) == 40, "places stay"
    assert min(one.size for one in paper.texts) >= 8


@settings(max_examples=20, deadline=None)
@given(SEEDS)
def test_an_agenda_cuts_nothing(seed: int) -> None:
    found = some_events(seed)
    show = show_of(found, days=40)
    papers = agenda(show, NAMES, "November 2026", SIZES["a4"], METRICS)
    assert marks_in(papers) == set(range(len(found)))
    for paper in papers:
        assert overlaps(paper) == []
        assert outside(paper) == []


def test_a_year_lists_what_takes_days_and_counts_the_rest() -> None:
    found = [
        Event(f"Closure no{n}end", MONDAY + dt.timedelta(days=n), MONDAY + dt.timedelta(days=n + 2))
        for n in range(150)
    ]
    paper = year(show_of(found, days=360), NAMES, "a year", SIZES["a4"], METRICS)
    assert overlaps(paper) == []
    assert len(marks_in([paper])) + counted_in([paper]) == 150
    assert counted_in([paper]) > 0


LANES = {
    "side by side": ([(540, 600), (550, 620)], [(0, 2), (1, 2)]),
    "one after another": ([(540, 600), (600, 660)], [(0, 1), (0, 1)]),
    "a chain shares its width": ([(540, 600), (590, 650), (640, 700)], [(0, 2), (1, 2), (0, 2)]),
    "three at once": ([(540, 600), (540, 600), (540, 600)], [(0, 3), (1, 3), (2, 3)]),
    "without length": ([(540, 540), (540, 600)], [(1, 2), (0, 2)]),
}


@pytest.mark.parametrize("name", LANES)
def test_events_at_once_lie_side_by_side(name: str) -> None:
    spans, expected = LANES[name]
    midnight = dt.datetime(2026, 11, 2)
    shown = [
        Shown(Event(str(n), midnight + dt.timedelta(minutes=a), midnight + dt.timedelta(minutes=b)))
        for n, (a, b) in enumerate(spans)
    ]
    found = {one.one.event.summary: (one.lane, one.lanes) for one in blocks_on(MONDAY, shown)}
    assert [found[str(n)] for n in range(len(spans))] == expected


def test_long_events_take_lanes_over_all_their_days_and_those_at_night_two_columns() -> None:
    days = [MONDAY + dt.timedelta(days=n) for n in range(5)]
    trip = Shown(Event("Trip", MONDAY, MONDAY + dt.timedelta(days=9)))
    staff = Shown(Event("Staff day", MONDAY + dt.timedelta(days=1), MONDAY + dt.timedelta(days=2)))
    bands = bands_over(days, [staff, trip])
    assert [(b.one.event.summary, b.first, b.last, b.lane, b.goes_on) for b in bands] == [
        ("Trip", 0, 4, 0, True), ("Staff day", 1, 1, 1, False),
    ]  # fmt: skip
    night = Shown(Event("Watch", dt.datetime(2026, 11, 2, 22), dt.datetime(2026, 11, 3, 1, 30)))
    assert [(one.begin, one.end) for day in days[:2] for one in blocks_on(day, [night])] == [
        (1320, 1440),
        (0, 90),
    ]
    assert weekdays_needed([trip], frozenset()) == frozenset(range(5)), "a long event needs no weekend"


def test_files_are_pictures_of_their_kind_and_the_same_again(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    rows = [
        f"2026-11-{2 + n:02},{8 + n % 3}:30,9{n % 2}5 min,Rigging <{n}> & $x$,Sail loft" for n in range(12)
    ]
    source.write_text("Date,Start,Length,Title,Where\n" + "\n".join(rows))
    for name in ("w.png", "w.svg", "w.pdf"):
        first, again = tmp_path / name, tmp_path / f"2{name}"
        for path in (first, again):
            outcome = nomarium(
                "view", source, "--as", "week", "--from", "2026-11-02", "--until", "2026-11-13", "-o", path
            )
            assert outcome.status == 0, outcome.text
        assert first.read_bytes() == again.read_bytes()
    png = (tmp_path / "w.png").read_bytes()
    assert png[:8] == b"\x89PNG\r\n\x1a\n"
    assert struct.unpack(">II", png[16:24]) == (1280, 1600), "two weeks below one another"
    svg = (tmp_path / "w.svg").read_text()
    assert all(f"&lt;{n}&gt;" in svg for n in range(12)), "texts stay texts"
    pdf = (tmp_path / "w.pdf").read_bytes()
    assert len(re.findall(rb"/Type /Page\b", pdf)) == 2
    assert re.search(rb"/MediaBox \[ 0 0 841\.\d+ 595", pdf), "A4 on its side"


def test_a_split_draws_one_picture_a_value(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Date,Title,Teacher\n2026-11-02,Knots,R. Finch\n2026-11-03,Sails,A. Plover\n")
    outcome = nomarium(
        "view",
        source,
        "--as",
        "month",
        "--split-by",
        "teacher",
        "-o",
        tmp_path / "posters",
        "--from",
        "2026-11-01",
    )
    assert outcome.status == 0, outcome.text
    assert sorted(path.name for path in (tmp_path / "posters").iterdir()) == ["a-plover.png", "r-finch.png"]


def test_letters_that_no_font_has_are_boxes_and_told(tmp_path: Path) -> None:
    source = tmp_path / "list.csv"
    source.write_text("Date,Title\n2026-11-02,Keel \U0001f6a3\U000f1234\n", "utf-8")
    outcome = nomarium("view", source, "-o", tmp_path / "a.svg", "--from", "2026-11-01")
    assert "No font on this machine has" in outcome.out
    assert "\U000f1234" in outcome.out
    assert "Keel" in (tmp_path / "a.svg").read_text("utf-8")


def test_own_colours_come_first_and_a_legend_says_what_they_mean() -> None:
    rib = Event(
        "Ribs", dt.datetime(2026, 11, 2, 9), dt.datetime(2026, 11, 2, 10), details=Details(color="teal")
    )
    shown = [Shown(rib, "Boats", "teal"), Shown(rib._replace(summary="Oars"), "Oars")]
    show = Show("S", in_order(shown), MONDAY, MONDAY, keys_of(shown))
    assert show.legend == [("Boats", 0, "teal"), ("Oars", 1, "")]
    paper = week(show, NAMES, "", [MONDAY], None, SIZES["screen"], METRICS)
    assert "#008080" in {box.fill for box in paper.boxes}
    assert [one.text for one in paper.texts if one.text in ("Boats", "Oars")].count("Boats") == 1
    assert LINE > 1
