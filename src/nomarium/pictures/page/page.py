"""A calendar as one HTML page: a list that every browser shows, and scripts that draw a month and a week from it.

Everything is in the page, and a policy lets it fetch nothing (Content Security Policy Level 3).
"""

import base64
import datetime as dt
import hashlib
from collections.abc import Iterable, Iterator, Mapping, Sequence
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Final, NamedTuple

from nomarium.model.event import Event
from nomarium.model.values import values_of
from nomarium.pictures.names import Names
from nomarium.pictures.page.words import language_of, words_in
from nomarium.pictures.palette import INKS
from nomarium.pictures.shown import Show, Shown
from nomarium.pictures.wording import clock, place_text
from nomarium.reckoning.zones import zone_named

if TYPE_CHECKING:
    from jinja2 import Template

_HERE: Final = Path(__file__).parent
_FILTERS: Final = (("categories", "c"), ("teacher", "t"), ("class", "k"), ("room", "r"))
"""The fields by which a page can be filtered, and the letter of their values in it."""
_SAFE_LINKS: Final = ("http://", "https://", "tel:", "mailto:")


class _Link(NamedTuple):
    href: str
    name: str


class _Line(NamedTuple):
    """An event as the list has it."""

    number: int
    look: str
    values: str
    all_day: bool
    start: str
    end: str
    """The machine's end where it is another than the start; of an all-day event its last day."""
    begins: str
    to: str
    until: bool
    title: str
    state: str
    place: str
    links: Sequence[_Link]
    more: str


class _Day(NamedTuple):
    iso: str
    name: str
    mark: str
    lines: list[_Line]


class Choice(NamedTuple):
    """The values of a field, of which one can be picked."""

    field: str
    letter: str
    values: Mapping[str, int]


def page_text(show: Show, names: Names, view: str = "month") -> str:
    """The page of what is to be shown; scripts begin with a `view`: month, week or agenda."""
    words = words_in(names.code)
    choices = list(_choices(show.events))
    rules, looks = _inks(show)
    css = f"{_read('page.css')}{rules}"
    script = _read("page.js")
    legend = [{"look": looks.get(own, f"k{n % len(INKS)}"), "name": key} for key, n, own in show.legend]
    return _template("page.html").render(
        lang=language_of(names.code),
        policy=_policy(css, script),
        css=_markup(css),
        script=_markup(script),
        heading=show.heading,
        span=" · ".join(_told(show, names, words)),
        w=words,
        choices=[{"name": words[one.field], "letter": one.letter, "texts": list(one.values)} for one in choices],
        days=list(_days(show, names, choices, looks, words)),
        legend=legend if len(legend) > 1 else [],
        said={
            "lang": language_of(names.code), "months": names.months, "days": names.days, "short": names.short_days,
            "first": names.first_weekday, "of": words["of"], "events": words["events"], "none": words["none"], "view": {"agenda": "list", "week": "week"}.get(view, "month"),
            "marks": _marks(show),
        },
    )  # fmt: skip


def _told(show: Show, names: Names, words: Mapping[str, str]) -> Iterator[str]:
    yield names.span(show.first, show.last)
    yield f"{len(show.events):,} {words['event' if len(show.events) == 1 else 'events']}"
    if show.label_count:
        yield f"{show.label_count:,} {words['labels']}"


def _marks(show: Show) -> dict[str, str]:
    by_day = show.by_day
    marks = (
        (day, show.mark_of(day, by_day.get(day, ()))) for day in show.days if show.first <= day <= show.last
    )
    return {day.isoformat(): mark for day, mark in marks if mark}


def _choices(events: Sequence[Shown]) -> Iterator[Choice]:
    for field, letter in _FILTERS:
        values = sorted({value for one in events for value in values_of(one.event, field)}, key=str.casefold)
        if len(values) > 1:
            yield Choice(field, letter, {value: n for n, value in enumerate(values)})


def _days(
    show: Show, names: Names, choices: Sequence[Choice], looks: Mapping[str, str], words: Mapping[str, str]
) -> Iterator[_Day]:
    latest = None
    by_day = show.by_day
    for number, one in enumerate(show.events):
        day = max(one.event.first_day, show.first)
        if latest is None or latest.iso != day.isoformat():
            if latest is not None:
                yield latest
            mark = show.mark_of(day, by_day.get(day, ()))
            latest = _Day(day.isoformat(), names.day(day, with_year=True), mark, [])
        latest.lines.append(_line(number, one, names, choices, looks, words, show.keys))
    if latest is not None:
        yield latest


def _line(
    number: int, one: Shown, names: Names, choices: Sequence[Choice], looks: Mapping[str, str], words: Mapping[str, str],
    keys: Mapping[str, int],
) -> _Line:  # fmt: skip
    event = one.event
    start, end, begins, to, until = _times(event, names)
    values = " ".join(
        f"{choice.letter}{choice.values[value]}"
        for choice in choices
        for value in values_of(event, choice.field)
    )
    status = event.details.status
    state = (
        words["cancelled"] if status == "CANCELLED" else words["tentative"] if status == "TENTATIVE" else ""
    )
    look = looks.get(one.color) or (f"k{keys[one.key] % len(INKS)}" if one.key in keys else "")
    teachers = [name for name in values_of(event, "teacher") if name not in event.summary]
    return _Line(
        number, f"{look} x".strip() if status == "CANCELLED" else look, values, event.is_all_day, start, end, begins, to, until,
        " ".join(event.summary.split()) or words["no_title"], state, " · ".join(filter(None, (place_text(event), *teachers))),
        list(_links(event, words)), event.description.strip(),
    )  # fmt: skip


def _times(event: Event, names: Names) -> tuple[str, str, str, str, bool]:
    """Start and end for machines and for people, and whether the end is a date. An end that says nothing is blank."""
    start, end = event.start, event.end
    if not isinstance(start, dt.datetime) or not isinstance(end, dt.datetime):
        if event.last_day == event.first_day:
            return event.first_day.isoformat(), "", "", "", False
        return (
            event.first_day.isoformat(),
            event.last_day.isoformat(),
            "",
            names.short_day(event.last_day),
            True,
        )
    is_long = end - start >= dt.timedelta(days=1)
    to = f"{names.short_day(end.date())} {clock(end)}" if is_long else clock(end)
    return (
        _moment(start, event.zone),
        _moment(end, event.zone) if end != start else "",
        clock(start),
        to,
        is_long,
    )


def _moment(moment: dt.datetime, zone_name: str | None) -> str:
    """A moment as HTML has it, with its offset where the zone is known."""
    zone = zone_named(zone_name) if zone_name else None
    return (moment if zone is None else moment.replace(tzinfo=zone)).isoformat(timespec="minutes")


def _links(event: Event, words: Mapping[str, str]) -> Iterator[_Link]:
    for href, name in ((event.details.url, words["link"]), (event.details.conference, words["join"])):
        if href.lower().startswith(_SAFE_LINKS):
            yield _Link(href, name)


def _inks(show: Show) -> tuple[str, dict[str, str]]:
    """The style rules of the colours, and the class of each colour that events have of their own."""
    used = sorted({one.color for one in show.events if one.color})
    looks = {color: f"o{n}" for n, color in enumerate(used)}
    light = [f".k{n}{{--c:{ink.light}}}" for n, ink in enumerate(INKS)]
    own = [f".{look}{{--c:{color}}}" for color, look in looks.items() if color.isalpha()]
    dark = [f".k{n}{{--c:{ink.dark}}}" for n, ink in enumerate(INKS)]
    dark += [
        f".{look}{{--c:color-mix(in oklab,{color} 55%,#fff)}}"
        for color, look in looks.items()
        if color.isalpha()
    ]
    return (
        f"{''.join(light)}{''.join(own)}@media screen and (prefers-color-scheme:dark){{{''.join(dark)}}}",
        looks,
    )


def _policy(css: str, script: str) -> str:
    return f"default-src 'none'; style-src '{_hash(css)}'; script-src '{_hash(script)}'; base-uri 'none'; form-action 'none'"


def _hash(text: str) -> str:
    return f"sha256-{base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()}"


@cache
def _read(name: str) -> str:
    return (_HERE / name).read_text("utf-8").strip()


@cache
def _template(name: str) -> "Template":
    from jinja2 import Environment, FileSystemLoader, StrictUndefined

    loader = FileSystemLoader(_HERE)
    pages = Environment(autoescape=True, trim_blocks=True, undefined=StrictUndefined, loader=loader)
    return pages.get_template(name)


def _markup(text: str) -> object:
    from markupsafe import Markup

    return Markup(text)  # our own style and script, no text of a source


def folder_text(name: str, names: Names, calendars: Iterable[Mapping[str, object]]) -> str:
    """The page that lists the calendars of a folder."""
    words = words_in(names.code)
    css = f"{_read('page.css')}{_read('folder.css')}"
    return _template("folder.html").render(
        lang=language_of(names.code), policy=_policy(css, ""), css=_markup(css), heading=name, w=words, calendars=list(calendars)
    )  # fmt: skip


def letter_text(heading: str, days: Sequence[tuple[str, str, Sequence[str]]]) -> str:
    """A page that tells what has changed, by dates: each as HTML and as people have it, with its sentences."""
    css = f"{_read('page.css')}.letter li{{padding:.25rem 0}}"
    return _template("letter.html").render(
        lang="en", policy=_policy(css, ""), css=_markup(css), heading=heading, days=list(days)
    )
