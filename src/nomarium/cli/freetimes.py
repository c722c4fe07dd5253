"""How `free` goes about it: what its options mean, what it says, writes and draws."""

import datetime as dt
import sys
from itertools import groupby
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple, cast

from nomarium.checking.freetimes import Free, Regular, Wanted, free_times, whatever_label
from nomarium.cli.asked import Asked
from nomarium.cli.optionvalues import length_option, wrong
from nomarium.cli.outputs import check_outputs
from nomarium.cli.progress import counting
from nomarium.cli.render import rest_text, say, say_json, say_notes, say_problems, shortened
from nomarium.cli.sources import revised
from nomarium.cli.viewoptions import weekdays_option
from nomarium.history.letter import day_text
from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import counted, listed, nearest
from nomarium.school.ringing import rings

if TYPE_CHECKING:
    from nomarium.cli.viewoptions import Form

_DRAWN = (".png", ".svg", ".pdf")
_ENDINGS = (".ics", ".csv", *_DRAWN)


class Looking(NamedTuple):
    """What was asked for, as it was typed."""

    length: str
    who: tuple[str, ...]
    between: str | None
    days: str | None
    every_label: bool
    output: str | None
    paper: str
    has_end: bool
    """Whether a last day was asked for."""


class Found(NamedTuple):
    """What was found, and what is wrong with the sources."""

    free: Free
    regular: list[Regular]
    length_secs: int
    problems: list[Problem]
    notes: list[Problem]
    dtstamp: str
    who: tuple[str, ...]


def found(asked: Asked, looking: Looking, horizon: dt.date) -> Found:
    """Look for free times. Raises UsageError for what makes no sense, and for names that nobody has."""
    output = looking.output
    if output and Path(output).suffix.lower() not in _ENDINGS:
        raise wrong(f"{output} does not say by its ending what it is to be.", f"Use {', '.join(_ENDINGS)}.")
    secs = length_option(looking.length, "--length")
    if secs <= 0:
        raise wrong(f"--length {looking.length} is no time.", "Write it like 45m.")
    between, weekdays = _between(looking.between), weekdays_option(looking.days)
    reading = asked.reading()
    if reading.repeats_until is None:
        reading = reading._replace(horizon=horizon)
    check_outputs({"-o": output}, asked.named, asked.files_read(reading))
    with asked.taken(reading) as taken, counting("Looking") as progress:
        wanted = Wanted(secs, looking.who, between, weekdays, taken.window, reading.zone, reading.horizon)
        bells = [ring for plan in taken.sources.plans for ring in rings(plan)]
        first, last = asked.window()
        bells = [
            ring for ring in bells if (not first or ring.date >= first) and (not last or ring.date <= last)
        ]
        result = free_times(taken.sources.listed, bells, wanted, progress)
        problems, notes = taken.problems(), taken.notes()
    if result.unknown and not problems:
        name = result.unknown[0]
        near = nearest(name, result.names, 0.5)
        some = ", ".join(sorted(result.names)[:8]) or "none"
        raise wrong(
            f"--who {name}: nothing in the sources names {name}.",
            f"Did you mean {near}?" if near else f"Names in it are {some} ….",
        )
    regular = whatever_label(result.regular) if looking.every_label else list(result.regular)
    return Found(result, regular, secs, problems, notes, revised(asked.named), looking.who)


def _between(text: str | None) -> tuple[int, int] | None:
    from nomarium.reading.cells.times import read_times

    if text is None:
        return None
    read = read_times(text)
    if (
        isinstance(read, Refusal)
        or read.start is None
        or read.end is None
        or not read.start.secs < read.end.secs <= 86_400
    ):
        raise wrong(
            f"--between {text} is not from one time of the day to a later one.", "Write it like 8:00-16:00."
        )
    return read.start.secs, read.end.secs


def show(it: Found, looking: Looking, details: bool, json: bool) -> int:
    """Say, write or draw what was found; the exit status."""
    if looking.output and not it.problems:
        _write(it, Path(looking.output), looking.paper, looking.has_end)
    if json:
        say_json(_facts(it))
        return 1 if it.problems else 0
    say_problems(it.problems)
    sys.stderr.flush()
    if it.problems:
        return 1
    who = listed(looking.who) if looking.who else "Everybody"
    minutes = counted(it.length_secs // 60, "minute")
    slots, first, last = it.free.slots, it.free.first, it.free.last
    if first is None or last is None:
        say("There is no event and no school day to look at.")
        return 0
    verb = "are" if len(looking.who) > 1 else "is"
    for_so_long = f"free for {minutes} or longer"
    often = f"{for_so_long} {counted(len(slots), 'time')}" if slots else f"never {for_so_long}"
    say(f"{who} {verb} {often} from {day_text(first)} to {day_text(last)}.")
    days = [
        (day, list(group)) for day, group in groupby(slots, key=lambda one: (one.start.date(), one.label))
    ]
    shown, rest = shortened(days, details)
    for (day, label), group in shown:
        times = ", ".join(f"{one.start:%-H:%M}–{one.end:%-H:%M}" for one in group)
        say(f"  {day_text(day)}{f' · {label}' if label else ''}: {times}")
    if rest:
        say(f"  {rest_text(rest, 'date')}")
    if it.regular:
        say("By label and period:" if not looking.every_label else "By period:")
        shown_too, rest = shortened(it.regular, details)
        for one in shown_too:
            day_name = f"{one.label} days, period {one.period}" if one.label else f"Period {one.period}"
            say(f"  {day_name} ({one.start:%-H:%M}–{one.end:%-H:%M}): free on {one.free} of {one.of}")
        if rest:
            say(f"  {rest_text(rest, 'period')}")
    if looking.output:
        say(f"Wrote {looking.output}")
    if details:
        say_notes(it.notes, details=True)
    return 0


def _facts(it: Found) -> dict[str, object]:
    return {
        "slots": [{"start": one.start.isoformat(), "end": one.end.isoformat(), **({"label": one.label} if one.label else {})} for one in it.free.slots],
        "regular": [
            {"label": one.label, "period": one.period, "start": one.start.isoformat("minutes"), "end": one.end.isoformat("minutes"),
             "free": one.free, "of": one.of}
            for one in it.regular
        ],
        "timezone": it.free.zone_name, "first_day": it.free.first, "last_day": it.free.last,
        "problems": it.problems, "notes": it.notes,
    }  # fmt: skip


def _write(it: Found, path: Path, paper: str, has_end: bool) -> None:
    from nomarium.targets.freebusy import write_free_table, write_freebusy

    ending = path.suffix.lower()
    if ending == ".ics":
        write_freebusy([one.utc for one in it.free.slots], it.free.busy, path, it.dtstamp)
    elif ending == ".csv":
        write_free_table(((one.start, one.end, one.label) for one in it.free.slots), path)
    else:
        _draw(it, path, paper, has_end)


def _draw(it: Found, path: Path, paper: str, has_end: bool) -> None:
    """Draw weeks with the free times in them as `view` draws a week: all of them on the pages of a .pdf, else the first, or those
    to the last day that was asked for."""
    from nomarium.cli.posters import papers_of, put
    from nomarium.cli.seen import Seen
    from nomarium.cli.viewoptions import Looking as Drawing
    from nomarium.model.event import Event
    from nomarium.pictures.figures.metrics import Metrics
    from nomarium.pictures.names import names_in
    from nomarium.pictures.shown import Show, Shown, in_order, keys_of

    first, last = it.free.first, it.free.last
    if first is None or last is None:
        raise wrong("There is nothing to draw.", "Look at other dates: --from, --until.")
    form = cast("Form", path.suffix.lower()[1:])
    if form != "pdf" and not has_end:
        last = min(last, first + dt.timedelta(days=6 - first.weekday()))
    zone = it.free.zone_name
    events = in_order(
        Shown(Event(f"free {_long(one.end - one.start)}", one.start, one.end, zone), color="seagreen")
        for one in it.free.slots
    )
    show = Show(
        f"Free for {_long(dt.timedelta(seconds=it.length_secs))} or longer",
        events,
        first,
        last,
        keys_of(events),
    )
    weekdays = frozenset(one.start.weekday() for one in it.free.slots) or frozenset(range(5))
    seen = Seen(show.within(first, last), names_in("en", zone), weekdays, (), (), ())
    drawing = Drawing("week", form, str(path), "", weekdays, None, show.heading, paper, ())
    put(papers_of(seen.show, seen, drawing, Metrics()), drawing, path)


def _long(length: dt.timedelta) -> str:
    minutes = round(length.total_seconds() / 60)
    return f"{minutes // 60} h {minutes % 60:02}" if minutes >= 60 else f"{minutes} min"
