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


def _text(folder: Path, text: str) -> Path:
    source = folder / "lines.txt"
    source.write_text(text)
    return source


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
    source = _text(tmp_path, text)
    ran = nomarium("build", source, "-o", tmp_path / "all.ics", "--partial")
    assert ran.status == 0, ran.text
    found = [event.casefold().replace("@ the ", "@ ") for event in built(source, "--partial")]
    assert not [event for event in found if event not in meant], text
    assert len(found) == len(meant) or "It is a sentence with a date or a time" in ran.text, text


UNDER_HEADINGS = (  # the heading, and the lines of the paragraph below it
    ("{T}", "{d}, {a} – {b}, {P}"), ("{T}", "Date: {d}\nTime: {a} – {b}\nPlace: {P}"), ("{T}", "When: {d}, {a} – {b}\nWhere: {P}"),
    ("{T} – {d}", "{a} – {b}, {P}. Bring a friend."), ("{T} – {d}", "{a} – {b}, {P}"), ("{d}", "{a} – {b} {T}, {P}"),
    ("{T}", "It will be held on {d}, {a} – {b}, in {p}."), ("Dates for your diary", "{d}: {T}, {a} – {b}, {P}"),
)  # fmt: skip


@pytest.mark.parametrize("suffix", [".txt", ".md", ".html"])
@pytest.mark.parametrize("form", UNDER_HEADINGS)
def test_a_newsletter_says_its_events_under_headings(
    form: tuple[str, str], suffix: str, tmp_path: Path
) -> None:
    rng = random.Random(f"{form}")
    heads, meant = [], []
    for title in rng.sample(TITLES, 4):
        day, place = dt.date(2026, rng.randint(1, 12), rng.randint(1, 28)), rng.choice(PLACES)
        bare = place.removeprefix("the ")
        said = {
            "T": title.capitalize(),
            "d": DATES[0](day),
            "a": "6pm",
            "b": "8pm",
            "p": place,
            "P": bare.capitalize() if bare != place else place,
        }
        heads.append([part.format(**said) for part in form])
        meant.append(f"{title} {day}T18:00/{day}T20:00 @ {bare}".casefold())
    source = tmp_path / f"news{suffix}"
    if suffix == ".html":
        parts = [f"<h2>{head}</h2><p>{text.replace(chr(10), '<br>')}</p>" for head, text in heads]
        source.write_text(f"<html><body><h1>Saltmarsh News</h1>{''.join(parts)}</body></html>")
    else:
        mark, broken = ("## ", "  \n") if suffix == ".md" else ("", "\n")
        parts = [f"{mark}{head}\n{text.replace(chr(10), broken)}\n" for head, text in heads]
        source.write_text("\n".join(["SALTMARSH NEWS", "", *parts]))
    assert sorted(event.casefold().replace("@ the ", "@ ") for event in built(source)) == sorted(meant)


def test_a_programme_under_a_title_and_a_day_stays_one(tmp_path: Path) -> None:
    source = _text(tmp_path, "Open day – 12 June 2027\n10:00 Welcome, Main shed\n11:00 Launch, Slip 2\n")
    assert built(source) == [
        "Welcome 2027-06-12T10:00/2027-06-12T11:00 @ Main shed",
        "Launch 2027-06-12T11:00/2027-06-12T12:00 @ Slip 2",
    ]


@pytest.mark.parametrize(
    "line",
    [
        "Save the date: 13.06.2027, summer fair, 2–5pm",
        "Save the date! 13 June 2027 – summer fair, 2–5pm",
        "REMINDER: 13 June 2027 – summer fair, 2-5pm",
    ],
)
def test_what_heralds_a_date_is_no_title(line: str, tmp_path: Path) -> None:
    assert built(_text(tmp_path, f"{line}\n")) == ["summer fair 2027-06-13T14:00/2027-06-13T17:00"]


SAY_NOTHING_TO_HOLD = (
    "The library closes at 4pm on 5 July 2026.", "Thanks to all who came on 5 July 2026.", "Happy birthday to Quill on 5 July 2026!",
    "Signed on 5 July 2026 in Halifax.", "Don't forget your coat on 5 July 2026.",
    "Tickets for the quiz go on sale on 5 July 2026.", "The regatta was moved to 5 July 2026 and ends at 4pm.",
    "Results for 5 July 2026: Herons 4, Terns 2.", "Reminder: no swimming on 5 July 2026.",
    "Parents are invited to attend on 5 June 2027 at 6pm.", "We look forward to welcoming you back on 5 June 2027.", "The winners will be announced on 5 June 2027.",
    "The new slip will be finished on 5 June 2027.", "The course is held on Mondays from 7 June 2027 to 28 June 2027 at 7pm.", "The fair may be held on 5 June 2027.",
    "There will be a fair on 5 June 2027 or 12 June 2027.", "All are welcome at the fair, but not on 5 June 2027.", "Please join us for the fair on 5 June 2027 unless it rains.",
    "The next staff meeting is on Thursday at 3.45pm in the Loft, and the deadline for reports is Friday 16 October 2026.",
    "The meeting is on Thursday and reports are due on Friday 16 October 2026.", "Training is on Monday evening; the match is on Saturday 17 October 2026.",
    "The staff meeting is on Thursday 15 October 2026 at 3.45pm in the Loft, and the deadline for reports is Friday.",
    "The trip is tomorrow and the talk is on 17 October 2026 at 7pm.", "The pool will be empty from 12 October to 16 October 2026.",
    "Mr Moss will be on leave from 12 October to 16 October 2026.", "The lift will be out of order on 12 October 2026.",
    "The website will be down for maintenance on 12 October 2026 from 1am to 3am.", "The deadline is 12 October 2026.",
)  # fmt: skip


@pytest.mark.parametrize("sentence", SAY_NOTHING_TO_HOLD)
def test_sentences_that_name_no_event_are_refused(sentence: str, tmp_path: Path) -> None:
    source = _text(tmp_path, f"Dear all,\n\n{sentence}\n")
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
    source = _text(tmp_path, f"{line}\n")
    assert built(source) == [BESIDE[line]]


def test_a_counted_repeat_behind_its_first_day_keeps_title_and_place_apart(tmp_path: Path) -> None:
    source = _text(tmp_path, "• Sail repair: Wednesdays 2pm-3pm starting 25/11/2026 (3 weeks), Main shed\n")
    events = built(source)
    assert len(events) == 3 and events[0] == "Sail repair 2026-11-25T14:00/2026-11-25T15:00 @ Main shed"


PAPERS: dict[str, tuple[str, list[str]]] = {
    "halves of the day before the times": (
        "EXAMS 2027\n\nMonday 17 May\nAM  9.00  Paper 1 (1h 30m)   Hall\nPM  1.30  Boat design (2h)   Loft A\n",
        ["Paper 1 2027-05-17T09:00/2027-05-17T10:30 @ Hall", "Boat design 2027-05-17T13:30/2027-05-17T15:30 @ Loft A"],
    ),
    "an agenda under its meeting": (
        "Council, Thursday 12 November 2026, 7.00 pm, Hall\n\n7.00  Welcome\n7.15  Budget\n",
        ["Council 2026-11-12T19:00/2026-11-12T20:00 @ Hall", "Welcome 2026-11-12T19:00/2026-11-12T19:15", "Budget 2026-11-12T19:15/2026-11-12T20:15"],
    ),
    "a memorandum, and a day by which to answer": (
        "MEMO\n\nTo: All staff\nDate: 2 September 2026\nRe: Training\n\nFirst aid: Friday 18 September 2026, 2–4pm, Room 4.\n\nPlease confirm attendance by 9 September 2026.\n",
        ["Deadline: attendance 2026-09-09/2026-09-10", "First aid 2026-09-18T14:00/2026-09-18T16:00 @ Room 4"],
    ),
    "days with their numbers in the week of the title": (
        "NOTICES for the week of Sunday 4 October 2026\n\nSunday 4th 8.00am Service\nTuesday 6th 2pm Knots, Parish room\n",
        ["Service 2026-10-04T08:00/2026-10-04T09:00", "Knots 2026-10-06T14:00/2026-10-06T15:00 @ Parish room"],
    ),
    "years at the end of a sentence": (
        "Programme of lectures, winter 2026/27.\n\n1. 7 October: Ropes\n2. 13 January: Tar\n",
        ["Ropes 2026-10-07/2026-10-08", "Tar 2027-01-13/2027-01-14"],
    ),
    "the year of all days below them": ("- Oct 3: Fair, 11-3\n- Oct 16: Photos\n\nAll dates 2026.\n", ["Fair 2026-10-03T11:00/2026-10-03T15:00", "Photos 2026-10-16/2026-10-17"]),
    "times of each of two days": ("- Oar making – 12 & 13 June 2027, 9.30am – 4.30pm each day\n", ["Oar making 2027-06-12T09:30/2027-06-12T16:30", "Oar making 2027-06-13T09:30/2027-06-13T16:30"]),
    "what a day is, how a term ends, and a letter that bears a date": (
        "Thank you for your letter of 3 November 2026. Term ends on Friday 18 December 2026 at 12 noon.\n\nMonday 4 January 2027 is a staff training day. School re-opens on 5 January 2027.\n\nBookings for the camp open on 1 April 2027.\n",
        ["Term ends 2026-12-18T12:00/2026-12-18T13:00", "Staff training day 2027-01-04/2027-01-05", "School re-opens 2027-01-05/2027-01-06", "Bookings for the camp open 2027-04-01/2027-04-02"],
    ),
    "what is due on a day": ("Report cards are due on 30 November 2026.\n\n5 November 2026: Quiz\n", ["Deadline: Report cards 2026-11-30/2026-12-01", "Quiz 2026-11-05/2026-11-06"]),
    "what must be back": ("Library books must be back by 30 November 2026.\n\n5 November 2026: Quiz\n", ["Deadline: Library books 2026-11-30/2026-12-01", "Quiz 2026-11-05/2026-11-06"]),
    "what all must": ("All forms must be returned by 30 November 2026.\n\n5 November 2026: Quiz\n", ["Deadline: forms 2026-11-30/2026-12-01", "Quiz 2026-11-05/2026-11-06"]),
    "what is payable": ("Fees are payable by 30 November 2026.\n\n5 November 2026: Quiz\n", ["Deadline: Fees 2026-11-30/2026-12-01", "Quiz 2026-11-05/2026-11-06"]),
    "from where": ("The ferry leaves at 8:15 on Monday 30 November 2026 from the quay.\n\n5 November 2026: Quiz\n", ["Ferry 2026-11-30T08:15/2026-11-30T09:15 @ Quay", "Quiz 2026-11-05/2026-11-06"]),
    "what is due": ("Subs are due by 30 November 2026.\n\n5 November 2026: Quiz\n", ["Deadline: Subs 2026-11-30/2026-12-01", "Quiz 2026-11-05/2026-11-06"]),
    "what somebody reported": (
        "4. Osei reported that the lift is out of order until 30 October 2026.\n5. Next meeting: 3 November 2026, 7 pm, Loft A.\n",
        ["Next meeting 2026-11-03T19:00/2026-11-03T20:00 @ Loft A"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", PAPERS)
def test_papers_of_an_office_say_their_events(kind: str, tmp_path: Path) -> None:
    text, events = PAPERS[kind]
    source = _text(tmp_path, text)
    assert sorted(built(source)) == sorted(events)


@pytest.mark.parametrize(
    "text",
    [
        "Lectures in the Library. All at 7.30 pm.\n\n7 October 2026: Ropes\n",
        "The gala is on 16 October 2026 at the pool. Warm-up 5.15pm, racing from 6pm.\n",
    ],
)
def test_a_time_for_events_of_other_sentences_is_asked_about(text: str, tmp_path: Path) -> None:
    source = _text(tmp_path, text)
    refused(source)


SAID_IN_FRENCH = {
    "La réunion des parents aura lieu le jeudi 12 novembre 2026 à 19 h dans la grande salle.": "Réunion des parents 2026-11-12T19:00/2026-11-12T20:00 @ grande salle",
    "La fête de l'école se tiendra le samedi 12 juin 2027 de 14 h à 17 h au hangar.": "Fête de l'école 2027-06-12T14:00/2027-06-12T17:00 @ hangar",
    "Nous vous invitons au concert de la chorale le vendredi 18 décembre 2026 à 18h30 à la bibliothèque.": "Concert de la chorale 2026-12-18T18:30/2026-12-18T19:30 @ bibliothèque",
    "Le samedi 12 juin 2027, nous organisons une vente de gâteaux au quai 2 à 9 h.": "Vente de gâteaux 2027-06-12T09:00/2027-06-12T10:00 @ quai 2",
    "La vente de livres commence à 9 h le 14 novembre 2026 et se termine à 15 h.": "Vente de livres 2026-11-14T09:00/2026-11-14T15:00",
    "Les cours reprennent le lundi 4 janvier 2027.": "Cours reprennent 2027-01-04/2027-01-05",
    "Veuillez rendre les formulaires avant le 30 septembre 2026.": "Date limite : formulaires 2026-09-30/2026-10-01",
    "N'oubliez pas la journée photo le 7 septembre 2026.": "Journée photo 2026-09-07/2026-09-08",
}


@pytest.mark.parametrize("sentence", SAID_IN_FRENCH)
def test_french_sentences_say_their_events(sentence: str, tmp_path: Path) -> None:
    source = _text(tmp_path, f"Chers parents,\n\n{sentence}\n\nCordialement,\nR. Quill\n")
    assert built(source) == [SAID_IN_FRENCH[sentence]]


@pytest.mark.parametrize(
    "sentence",
    ["La sortie du 4 juin 2027 est annulée.", "La chorale ne répète pas le 4 juin 2027.", "La sortie du 4 juin 2026 a eu lieu au quai 2."],
)  # fmt: skip
def test_french_sentences_of_what_is_not_held_are_no_events(sentence: str, tmp_path: Path) -> None:
    source = _text(tmp_path, f"Chers parents,\n\n{sentence}\n\nCordialement,\nR. Quill\n")
    refused(source)


def test_a_gap_behind_an_exclamation_parts_no_columns_of_prose(tmp_path: Path) -> None:
    text = "Skippers!   The icebreaker series starts Sunday 11 April 2027,\nweather permitting, in the main shed.\n"
    assert built(_text(tmp_path, text)) == ["Icebreaker series 2027-04-11/2027-04-12 @ Main shed"]


def test_a_sentence_in_doubt_is_told_beside_a_table_that_is_refused(tmp_path: Path) -> None:
    table = "<table><tr><td>Date</td><td>Gate</td><td>Tea</td></tr><tr><td>5 May 2027</td><td>Quill</td><td>Moss</td></tr></table>"
    source = tmp_path / "page.html"
    source.write_text(f"{table}<p>The fair may be held on 5 June 2027 in the loft.</p>")
    assert "It is a sentence with a date or a time" in refused(source)
    source.write_text(f"{table}<p>Ask at the office.</p>")
    assert "no line has a date or a time" in refused(source) and "1 problem" in refused(source)


AT_EACH_TIME = {
    "Wed 17 March 2027, 2.15pm & 6pm - Concert, Main hall": ["Concert 2027-03-17T14:15/2027-03-17T15:15 @ Main hall", "Concert 2027-03-17T18:00/2027-03-17T19:00 @ Main hall"],
    "Fri 19 March 2027: Matinee, 2pm and 7.30pm, Long shed": ["Matinee 2027-03-19T14:00/2027-03-19T15:00 @ Long shed", "Matinee 2027-03-19T19:30/2027-03-19T20:30 @ Long shed"],
    "Sat 20 March 2027: Boat tours at 10am, 12 noon and 2pm": ["Boat tours 2027-03-20T10:00/2027-03-20T11:00", "Boat tours 2027-03-20T12:00/2027-03-20T13:00", "Boat tours 2027-03-20T14:00/2027-03-20T15:00"],
    "Photos will be taken on Thurs 14th Jan 2027 from 9.30.": ["Photos taken 2027-01-14T09:30/2027-01-14T10:30"],
    "Prizes will be awarded on 12 March 2027 at 2pm in the Long shed.": ["Prizes awarded 2027-03-12T14:00/2027-03-12T15:00 @ Long shed"],
}  # fmt: skip


@pytest.mark.parametrize("line", AT_EACH_TIME)
def test_an_event_at_each_time_that_a_line_lists(line: str, tmp_path: Path) -> None:
    path = tmp_path / "line.txt"
    path.write_text(f"{line}\n", encoding="utf-8")
    assert built(path) == AT_EACH_TIME[line]


@pytest.mark.parametrize(
    "times",
    [
        "2pm, 6pm",
        "2pm/6pm",
        "14:00/16:00",
        "between 2pm and 6pm or 8pm",
        "2pm and 6pm, doors 1pm",
        "2.15 and 6pm",
    ],
)
def test_times_that_may_be_a_start_and_an_end_are_refused(times: str, tmp_path: Path) -> None:
    path = tmp_path / "line.txt"
    path.write_text(f"Wed 17 March 2027: Concert, {times}\n", encoding="utf-8")
    assert "line 1" in refused(path)
