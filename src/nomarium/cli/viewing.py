"""What `view` does: events into what is drawn, and that onto the terminal or into files."""

import datetime as dt
import sys
from collections.abc import Iterator, Sequence
from pathlib import Path

from nomarium.building import gathering
from nomarium.cli.asked import FOLLOWED, Asked, Taken
from nomarium.cli.render import say, say_json, say_notes, say_problems
from nomarium.cli.seen import Seen
from nomarium.cli.viewoptions import Looking
from nomarium.model.wording import counted
from nomarium.pictures.lanes import weekdays_needed
from nomarium.pictures.names import names_in
from nomarium.pictures.paging import Page, pages_of, window_of
from nomarium.pictures.shown import Show, Shown, days_of, in_order, keys_of, without_labels
from nomarium.pictures.terminal.lines import Line, Part


def seen(asked: Asked, looking: Looking, today: dt.date) -> Seen:
    """Read the sources and choose what is drawn."""
    from nomarium.cli.outputs import check_outputs

    reading = asked.reading()
    first, last = asked.window()
    horizon = None if last else max(first or today, today) + FOLLOWED
    reading = reading._replace(horizon=horizon)
    check_outputs({"-o": None if looking.split else looking.output}, asked.named, asked.files_read(reading))
    with asked.taken(reading) as taken:
        how = gathering.Asked(taken.window, reading.zone, horizon, looking.color_by, looking.split)
        found = gathering.gathered(taken.sources.listed, how)
        problems, notes = taken.problems(), taken.notes()
        days, heading = days_of(taken.sources.plans), looking.heading or _heading(asked, taken)
    events = without_labels(found.events, days)
    names = names_in(reading.languages[0] if reading.languages else "en", _zone(events, reading.zone))
    kind = "all" if looking.form == "html" else looking.kind
    start, end = window_of(kind, events, first, last, today, names)
    whole = Show(
        heading, in_order(events), start, end, keys_of(events), days, len(found.events) - len(events)
    )
    show = whole.within(start, end)
    parts = [
        (value, whole._replace(events=in_order(without_labels(some, days))).within(start, end))
        for value, some in found.parts
    ]
    weekdays = (
        weekdays_needed(show.events, looking.weekdays)
        if looking.kind in ("week", "month")
        else frozenset(range(7))
    )
    return Seen(
        show, names, weekdays, _beside(whole, show, weekdays), problems, notes, [part for part in parts if part[1].events]
    )  # fmt: skip


def _beside(whole: Show, show: Show, weekdays: frozenset[int]) -> list[str]:
    """What was read and is not drawn."""
    lines = (
        []
        if show.events
        else [f"Nothing is from {show.first} to {show.last}: other dates with --from and --until."]
    )
    earlier = sum(one.event.last_day < show.first for one in whole.events)
    later = sum(one.event.first_day > show.last for one in whole.events)
    if earlier:
        lines.append(f"{counted(earlier, 'event')} before {show.first}: --from DATE shows earlier ones.")
    if later:
        lines.append(
            f"{counted(later, 'event')} after {show.last}: --from DATE or --until DATE shows later ones."
        )
    left = sum(not _is_on(one, weekdays) for one in show.events)
    if left:
        lines.append(f"{counted(left, 'event')} on other weekdays: without --days they are shown.")
    return lines


def _is_on(one: Shown, weekdays: frozenset[int]) -> bool:
    first, last = one.event.first_day, one.event.last_day
    length = (last - first).days
    return length >= 6 or any((first.weekday() + n) % 7 in weekdays for n in range(length + 1))


def _heading(asked: Asked, taken: Taken) -> str:
    """The calendar's name: that of a plan or a calendar file, else the source's."""
    from nomarium.cli.sources import calendar_name

    plans = taken.sources.plans
    called = plans[0].settings.calendar_name if len(plans) == 1 and len(asked.named) == 1 else ""
    return called or ", ".join(dict.fromkeys(calendar_name([source], "-") for source in asked.named))


def _zone(events: Sequence[Shown], asked: str | None) -> str | None:
    """The zone of the calendar: the one that is asked for, else that of its first event with one."""
    zones = (one.event.zone for one in events if one.event.zone and one.event.zone != "UTC")
    return asked or next(zones, None)


def show_it(found: Seen, looking: Looking, details: bool, json: bool) -> int:
    """Show what was found; the exit status."""
    status = 1 if found.problems else 0
    if json:
        say_json(_facts(found))
        return status
    say_problems(found.problems)
    sys.stderr.flush()
    if looking.output is None and (found.show.events or not found.problems):
        _on_terminal(found, looking)
    elif looking.output is not None and not found.problems:
        _into_files(found, looking)
    for line in found.beside:
        say(line)
    if details:
        say_notes(found.notes, details=True)
    elif found.notes:
        say(f"{counted(len(found.notes), 'note')} on how it was read: --details, or survey.")
    return status


def _on_terminal(found: Seen, looking: Looking) -> None:
    from nomarium.cli.paint import paint, terminal_width

    width = terminal_width()
    shows = [(f"{found.show.heading} · {value}", show) for value, show in found.parts] or [
        (found.show.heading, found.show)
    ]
    for n, (heading, show) in enumerate(shows):
        for page in pages_of(looking.kind, show.first, show.last, found.names, found.weekdays):
            count = counted(len(show.within(page.first, page.last).events), "event")
            if n or page.first != show.first:
                say()
            paint([[Part(heading, "bold"), Part(f" · {page.heading} · {count}")], []])
            paint(_drawn(show.within(page.first, page.last), page, found, looking, width))
        if looking.kind != "year":
            paint(_legend(show, width))


def _into_files(found: Seen, looking: Looking) -> None:
    from nomarium.targets.replacing import replace_file

    assert looking.output is not None
    path = Path(looking.output)
    if looking.form == "html":
        from nomarium.pictures.page.page import page_text

        text = page_text(found.show, found.names, looking.kind)
        replace_file(path, lambda file: file.write(text.encode("utf-8", "replace")))
        say(f"Wrote {counted(len(found.show.events), 'event')} as a page to {path}")
        return
    from nomarium.cli.posters import draw_posters

    draw_posters(found, looking, path)


def _drawn(show: Show, page: Page, found: Seen, looking: Looking, width: int) -> Iterator[Line]:
    from nomarium.pictures.terminal.agenda import agenda
    from nomarium.pictures.terminal.month import month
    from nomarium.pictures.terminal.week import week
    from nomarium.pictures.terminal.year import year

    if looking.kind == "agenda":
        return agenda(show, found.names, width)
    if looking.kind == "year":
        return year(show, found.names, width)
    if looking.kind == "month":
        return month(show, found.names, width, found.weekdays, page.first.replace(day=1))
    return week(show, found.names, width, page.days, looking.hours)


def _legend(show: Show, width: int) -> list[Line]:
    """What the colours stand for, when there are several."""
    from nomarium.pictures.terminal.lines import width_of
    from nomarium.pictures.terminal.marks import spine

    keys = [(key, n) for key, n, _ in show.legend]
    if len(keys) < 2:
        return []
    lines: list[list[Part]] = [[], []]
    at = 0
    for key, n in keys:
        wide = width_of(key) + 4
        if at + wide > width and at:
            lines.append([])
            at = 0
        lines[-1] += [Part(spine(n) + " ", key=n), Part(f"{key}  ")]
        at += wide
    return list(lines)


def _facts(found: Seen) -> dict[str, object]:
    return {
        "heading": found.show.heading,
        "first_day": found.show.first,
        "last_day": found.show.last,
        "events": [
            {
                "summary": one.event.summary,
                "start": one.event.start.isoformat(),
                "end": one.event.end.isoformat(),
                "location": one.event.location,
                "color_by": one.key,
            }
            for one in found.show.events
        ],
        "not_shown": list(found.beside),
        "problems": list(found.problems),
        "notes": list(found.notes),
    }
