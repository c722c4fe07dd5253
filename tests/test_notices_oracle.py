"""Notices at random: lists, cards, lines under titles, each with its days reckoned apart from the program. Read as meant, or refused."""

from __future__ import annotations

import datetime as dt
import random
from pathlib import Path
from typing import NamedTuple

import pytest

from helpers import events_in, nomarium, plain

TITLES = ("Tar night", "Knots", "Oar making", "Choir", "Chess", "Yoga", "Lofting", "Swim", "Fair", "Supper")
PLACES = ("Loft A", "Sail loft", "Main shed", "Slip 2")
DAY = dt.timedelta(1)
DATE_FORMS = (
    "{0.day} {0:%B} {0.year}",
    "{0:%a} {0.day} {0:%b} {0.year}",
    "{0:%A} {0.day} {0:%B} {0.year}",
    "{0:%d/%m/%Y}",
    "{0:%B} {0.day}, {0.year}",
)
TIME_FORMS = ("{0:%H:%M}", "{0:%-I:%M} {0:%p}", "{0:%-H}.{0:%M}")
KINDS = ("single", "until", "all day", "weekly", "counted", "two days", "except", "fortnightly", "both ends")


class Said(NamedTuple):
    """How a notice says when something is, and the dates and times that this means."""

    words: str
    dates: list[dt.date]
    start: dt.time | None
    end: dt.time | None


def _when(kind: str, chance: random.Random, date_form: str, time_form: str) -> Said:
    first = dt.date(2026, 9, 13) + DAY * chance.randrange(60)
    hour = chance.choice((10, 14, 18, 19))
    start, end = dt.time(hour, chance.choice((0, 30))), dt.time(hour + 1, 45)
    day = date_form.format
    times = chance.choice(("{}-{}", "{} – {}", "{} to {}")).format(
        time_form.format(start), time_form.format(end)
    )
    count = chance.randint(3, 7)
    step = 14 if kind == "fortnightly" else 7
    dates = [first + DAY * step * n for n in range(count)]
    last = dates[-1]
    stretch = chance.choice(("{} to {}", "{} - {}", "{} until {}")).format(day(first), day(last))
    weekdays = f"{first:%A}s"
    if kind == "single":
        return Said(f"{day(first)}, {times}", [first], start, end)
    if kind == "until":
        return Said(
            f"{day(first)}, {time_form.format(start)} until {time_form.format(end)}", [first], start, end
        )
    if kind == "all day":
        return Said(day(first), [first], None, None)
    if kind == "weekly":
        return Said(
            chance.choice(
                (
                    f"{weekdays}, {times}, {stretch}",
                    f"{weekdays} {times} from {stretch}",
                    f"{stretch}, {weekdays}, {times}",
                )
            ),
            dates,
            start,
            end,
        )
    if kind == "counted":
        return Said(f"{weekdays}, {times}, from {day(first)} for {count} weeks", dates, start, end)
    if kind == "both ends":
        return Said(f"{weekdays}, {times}, {stretch} ({count} weeks)", dates, start, end)
    if kind == "fortnightly":
        return Said(
            f"{chance.choice(('every other ' + weekdays[:-1], 'fortnightly on ' + weekdays, 'alternate ' + weekdays))}, {times}, {stretch}",
            dates,
            start,
            end,
        )
    if kind == "except":
        left_out = dates[chance.randrange(1, count - 1)]
        words = (
            f"{weekdays}, {times}, {stretch} ({chance.choice(('not', 'except', 'no class'))} {day(left_out)})"
        )
        return Said(words, [one for one in dates if one != left_out], start, end)
    other = first + DAY * chance.choice((1, 2))
    both = sorted({first.weekday(), other.weekday()})
    named = " and ".join(f"{dt.date(2026, 9, 7) + DAY * one:%A}s" for one in both)
    each = [first + DAY * n for n in range((last - first).days + 1)]
    return Said(f"{named}, {times}, {stretch}", [one for one in each if one.weekday() in both], start, end)


def _notice(seed: int) -> tuple[str, list[str]]:
    """A notice, and the events that it means in one line each, without their places."""
    chance = random.Random(seed)
    date_form, time_form = chance.choice(DATE_FORMS), chance.choice(TIME_FORMS)
    shape = chance.choice(("list", "labels", "cards", "under"))
    lines, meant = (["Notices", ""] if chance.random() < 0.5 else []), list[str]()
    for title in chance.sample(TITLES, chance.randint(2, 4)):
        kinds = chance.choices(KINDS, k=2) if shape == "under" else [chance.choice(KINDS)]
        said = [_when(kind, chance, date_form, time_form) for kind in kinds]
        place = chance.choice(PLACES)
        if shape == "list":
            lines.append(f"{title}{chance.choice((': ', ' – '))}{said[0].words}, {place}")
        elif shape == "labels":
            lines += [title, f"When: {said[0].words}", f"Where: {place}", ""]
        elif shape == "cards":
            lines += [title, said[0].words, place, ""]
        else:
            lines += [title, *(f"  {one.words}" for one in said), ""]
        for one in said:
            for date in one.dates:
                span = (
                    f"{date}T{one.start:%H:%M}/{date}T{one.end:%H:%M}"
                    if one.start and one.end
                    else f"{date}/{date + DAY}"
                )
                meant.append(f"{title} {span}")
    return "\n".join(lines) + "\n", sorted(meant)


@pytest.mark.parametrize("part", range(4))
def test_notices_at_random_are_read_as_meant_or_refused(part: int, tmp_path: Path) -> None:
    refused = 0
    seeds = range(part * 25, part * 25 + 25)
    for seed in seeds:
        text, meant = _notice(seed)
        source, target = tmp_path / f"{seed}.txt", tmp_path / f"{seed}.ics"
        source.write_text(text, "utf-8")
        outcome = nomarium("build", source, "-o", target)
        refused += outcome.status != 0
        if outcome.status == 0:
            assert sorted(plain(event).partition(" @ ")[0] for event in events_in(target)) == meant, text
    assert refused <= len(seeds) // 4
