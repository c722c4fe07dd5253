"""Letters made at random, whole or broken where a width ends: each event that a sentence says is read as it was meant, or its line
is refused; never as another."""

from __future__ import annotations

import datetime as dt
import random
import textwrap
from collections.abc import Callable
from pathlib import Path

import pytest

from helpers import built, nomarium, refused

TITLES = (
    "parents' evening",
    "summer fair",
    "launch of the Heron",
    "rope workshop",
    "book sale",
    "photo day",
    "regatta",
)
PLACES = ("the sail loft", "the main shed", "Loft A", "Room 4", "the library", "Slip 2")
REMARKS = (
    "We hope that you have had a good week.", "If you have any questions, please call the office on 902 555 0143.",
    "Tickets cost £4.50 each.", "Refreshments will be served.", "Mrs Quill writes: it has been a busy term.", "Membership is now 214.",
)  # fmt: skip
SENTENCES = (  # title, date, start, end, place
    "The {t} will be held on {d} at {a} in {p}.", "The {t} takes place on {d} from {a} to {b} in {p}.", "Join us for the {t} on {d} at {a} in {p}!",
    "On {d} we are holding our {t} in {p}, starting at {a}.", "Our {t} is on {d}, {a} to {b}, in {p}.", "{T}: {d}, {a}-{b}, {p}.",
    "You are warmly invited to the {t} at {a} on {d} in {p}.", "Please note that the {t} will be on {d}.", "The {t} is scheduled for {d} at {a}.",
    "There will be a {t} on {d} between {a} and {b}.", "We look forward to seeing you at the {t} on {d} at {a}.",
    "The {t} begins at {a} on {d} and ends at {b}.", "Save the date: {t}, {d}, {a}.", "The date of the {t} is {d}.",
    "A {t} has been arranged for {d} at {a} in {p}.", "Don't forget the {t} on {d} ({a}, {p}).", "Reminder: the {t} starts at {a} on {d}.",
    "{d}: {t} in {p} at {a}.", "This year's {t} will take place in {p} on {d}, starting at {a} and finishing at {b}.",
    "We would like to invite all parents to the {t}, which will be held in {p} on {d} at {a}.",
    "All are welcome at the {t} on {d}, from {a} until {b}, in {p}.", "The {t} ({d}, {a}) will be in {p}.",
    "Parents are invited to attend the {t} on {d} at {a}.", "{T} – {d} at {a} in {p}.", "Mark your calendars for the {t} on {d} at {a}.",
    "The committee has decided to hold the {t} on {d} at {a} in {p}.", "The {t}, to be held on {d} in {p}, begins at {a}.",
    "The date for the {t} has been set: {d}, {a}.", "Please join us on {d} at {a} in {p} for our {t}.", "The {t} has been moved to {d} at {a}.",
    "From {a} to {b} on {d} there will be a {t} in {p}.", "Tickets for the {t} on {d} at {a} cost £5.",
)  # fmt: skip
DATES: tuple[Callable[[dt.date], str], ...] = (
    lambda d: f"{d:%A} {d.day} {d:%B} {d.year}", lambda d: f"{d:%A}, {d:%B} {d.day}, {d.year}", lambda d: f"{d:%B} {d.day}, {d.year}",
)  # fmt: skip
CLOCKS: tuple[Callable[[int], str], ...] = (
    lambda h: f"{h}:00", lambda h: f"{h - 12}pm", lambda h: f"{h - 12} p.m.", lambda h: f"{h - 12}.30pm",
)  # fmt: skip


def _letter(seed: int) -> tuple[str, list[str]]:
    rng = random.Random(seed)
    date_of, clock = rng.choice(DATES), rng.choice(CLOCKS)
    minutes = "30" if clock(13).endswith(".30pm") else "00"
    paragraphs, meant = ["Dear parents and carers,"], []
    for title in rng.sample(TITLES, rng.randint(2, 5)):
        day = dt.date(2026, rng.randint(1, 12), rng.randint(1, 28))
        start, place, form = rng.choice((13, 14, 18, 19)), rng.choice(PLACES), rng.choice(SENTENCES)
        said = {
            "t": title,
            "T": title.capitalize(),
            "d": date_of(day),
            "a": clock(start),
            "b": clock(start + 2),
            "p": place,
        }
        remarks = [rng.choice(REMARKS)] if rng.random() < 0.5 else []
        lead = [rng.choice(REMARKS)] if rng.random() < 0.3 else []
        paragraphs.append(" ".join([*lead, form.format(**said), *remarks]))
        end = start + (2 if "{b}" in form else 1)
        when = (
            f"{day}T{start}:{minutes}/{day}T{end}:{minutes}"
            if "{a}" in form
            else f"{day}/{day + dt.timedelta(1)}"
        )
        meant.append(
            f"{title} {when}{' @ ' + place.removeprefix('the ') if '{p}' in form else ''}".casefold()
        )
    width = rng.choice((0, 58, 68, 76))
    lines = [line for text in paragraphs for line in (*(textwrap.wrap(text, width) if width else [text]), "")]
    return "\n".join([*lines, "Yours sincerely,", "R. Quill", "Head of the school", ""]), meant


@pytest.mark.parametrize("seed", range(60))
def test_what_a_letter_says_is_read_or_refused(seed: int, tmp_path: Path) -> None:
    text, meant = _letter(seed)
    source = tmp_path / "letter.txt"
    source.write_text(text)
    ran = nomarium("build", source, "-o", tmp_path / "all.ics", "--partial")
    assert ran.status == 0, ran.text
    found = [event.casefold().replace("@ the ", "@ ") for event in built(source, "--partial")]
    assert not [event for event in found if event not in meant], text
    assert len(found) == len(meant) or "It is a sentence with a date or a time" in ran.text, text


SAY_NOTHING_TO_HOLD = (
    "The library closes at 4pm on 5 July 2026.", "Thanks to all who came on 5 July 2026.", "Happy birthday to Quill on 5 July 2026!",
    "Signed on 5 July 2026 in Halifax.", "Don't forget your coat on 5 July 2026.",
    "Tickets for the quiz go on sale on 5 July 2026.", "The regatta was moved to 5 July 2026 and ends at 4pm.",
    "Results for 5 July 2026: Herons 4, Terns 2.", "Reminder: no swimming on 5 July 2026.",
)  # fmt: skip


@pytest.mark.parametrize("sentence", SAY_NOTHING_TO_HOLD)
def test_sentences_that_name_no_event_are_refused(sentence: str, tmp_path: Path) -> None:
    source = tmp_path / "letter.txt"
    source.write_text(f"Dear all,\n\n{sentence}\n")
    refused(source)


BESIDE = {
    "Tea in Slip 2 on May 25, 2026": "Tea 2026-05-25/2026-05-26 @ Slip 2",
    "Tea in Slip 2 May 25, 2026": "Tea 2026-05-25/2026-05-26 @ Slip 2",
    "Open day: 23 October 2027. All welcome": "Open day 2027-10-23/2027-10-24",
    "14 May 2027: choir concert in Slip 2 at 7 pm. Membership is now 214.": "choir concert 2027-05-14T19:00/2027-05-14T20:00 @ Slip 2",
    "Rope workshop: 27 August 2027, 2pm-4pm, Slip 2. Tickets cost £4.50.": "Rope workshop 2027-08-27T14:00/2027-08-27T16:00 @ Slip 2",
}


@pytest.mark.parametrize("line", BESIDE)
def test_what_stands_beside_a_date_is_no_part_of_it(line: str, tmp_path: Path) -> None:
    source = tmp_path / "lines.txt"
    source.write_text(f"{line}\n")
    assert built(source) == [BESIDE[line]]


def test_a_counted_repeat_behind_its_first_day_keeps_title_and_place_apart(tmp_path: Path) -> None:
    source = tmp_path / "lines.txt"
    source.write_text("• Sail repair: Wednesdays 2pm-3pm starting 25/11/2026 (3 weeks), Main shed\n")
    events = built(source)
    assert len(events) == 3 and events[0] == "Sail repair 2026-11-25T14:00/2026-11-25T15:00 @ Main shed"
