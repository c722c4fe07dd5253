"""What an earlier build had, and what became of it: pairing, revisions, cancelled events, windows."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from helpers import csv_file, events_in, nomarium, plain
from nomarium.history.pairing import pair_moved, with_distinct_uids
from nomarium.history.revisions import (
    EarlierEvent,
    Revision,
    Sketch,
    cancelled,
    day_of_block,
    revision_of,
    sketch_of_block,
    with_revision,
    zone_of_block,
)
from nomarium.model.uids import is_made_uid, lasting_uid, occurrence_uid
from nomarium.reckoning.window import Window

BLOCK = (
    "BEGIN:VEVENT\r\nUID:a\\,b\r\nDTSTAMP:20270101T000000Z\r\nSEQUENCE:2\r\nDTSTART;TZID=America/Halifax:20270405T090000\r\n"
    "DTEND;TZID=America/Halifax:20270405T100000\r\nSUMMARY:A very long title that is folded somewhere in the middle beca\r\n"
    " use it is long\r\nLOCATION:Slip\\, main\r\nEND:VEVENT\r\n"
)


def sketch(text: str, body: int = 0) -> Sketch:
    """`uid title start end place` in one line."""
    uid, title, start, end, place = [*text.split(), "", ""][:5]
    return Sketch(uid, title, start, end, place, body or hash(text))


# name: (gone, new, pairs new → old)
PAIRS = {
    "nothing": ([], [], {}),
    "a move of one": (["o Race 20270405T09 20270405T10"], ["n Race 20270406T09 20270406T10"], {"n": "o"}),
    "a rename at one time and place": (["o Race 20270405T09 20270405T10 Bay"], ["n Regatta 20270405T09 20270405T10 Bay"], {"n": "o"}),
    "a rename of a whole day": (["o Week1 20270405 20270406"], ["n Week1A 20270405 20270406"], {"n": "o"}),
    "neither title nor time": (["o Race 20270405T09 20270405T10"], ["n Tea 20270406T09 20270406T10"], {}),
    "two that could be one renamed": (["o Race 20270405 20270406", "p Tea 20270405 20270406"], ["n Regatta 20270405 20270406"], {}),
    "the same again before a move": (
        ["o Race 20270405T09 20270405T10", "p Race 20270405T14 20270405T15"],
        ["o Race 20270405T14 20270405T15", "p Race 20270405T16 20270405T17"], {"o": "p", "p": "o"}),
    "each new one takes the nearest": (
        ["o Race 20270401T09 20270401T10", "p Race 20270410T09 20270410T10", "q Race 20270420T09 20270420T10"],
        ["n Race 20270412T09 20270412T10"], {"n": "p"}),
    "as many new as gone go in order": (
        ["o Race 20270401T09 x", "p Race 20270410T09 x"], ["n Race 20270409T09 x", "m Race 20270411T09 x"], {"n": "o", "m": "p"}),
    "another place at the same time is the same event": (
        ["o Race 20270405T09 20270405T10 Bay"], ["n Race 20270405T09 20270405T10 Slip"], {"n": "o"}),
}  # fmt: skip


@pytest.mark.parametrize("name", PAIRS)
def test_which_event_became_which(name: str) -> None:
    gone, new, expected = PAIRS[name]
    assert (
        pair_moved([sketch(text) for text in gone], [sketch(text, n + 1) for n, text in enumerate(new)])
        == expected
    )


def test_the_same_body_is_the_same_event_whatever_its_uid() -> None:
    gone = [
        Sketch("o", "Race", "20270405", "20270406", "", 7),
        Sketch("p", "Race", "20270412", "20270413", "", 8),
    ]
    new = [Sketch("n", "Tea", "20270412", "20270413", "", 8)]
    assert pair_moved(gone, new) == {"n": "p"}


@given(st.permutations("abcdef"), st.integers(0, 6))
def test_uids_stay_distinct_whatever_is_paired(order: list[str], count: int) -> None:
    pairs = dict(zip("abcdef", order[:count], strict=False))
    settled = with_distinct_uids(pairs, "abcdef")
    assert sorted(settled) == list("abcdef")
    assert len(set(settled.values())) == 6
    assert pairs.items() <= settled.items()


REVISIONS = [
    (None, "body", 0, Revision("u", 0, "now"), "a new event"),
    (None, "body", 3, Revision("u", 3, "now"), "a new one that its source has revised"),
    (EarlierEvent(2, "then", hash("body")), "body", 0, Revision("u", 2, "then"), "an unchanged one"),
    (
        EarlierEvent(2, "then", hash("body")),
        "body",
        5,
        Revision("u", 5, "then"),
        "unchanged, newer in its source",
    ),
    (EarlierEvent(2, "", hash("body")), "body", 0, Revision("u", 2, "now"), "unchanged, never stamped"),
    (EarlierEvent(2, "then", 0), "body", 0, Revision("u", 3, "now"), "a changed one"),
    (EarlierEvent(2, "then", 0), "body", 9, Revision("u", 9, "now"), "changed, far ahead in its source"),
]


@pytest.mark.parametrize(("earlier", "body", "sequence", "expected", "_why"), REVISIONS)
def test_the_revision_of_an_event(
    earlier: EarlierEvent | None, body: str, sequence: int, expected: Revision, _why: str
) -> None:
    assert revision_of("u", body, earlier, "now", sequence) == expected


def test_what_a_block_says() -> None:
    found = sketch_of_block(BLOCK)
    assert found.uid == "a,b"
    assert found.summary.endswith("in the middle because it is long")
    assert (found.start, found.end, found.location) == ("20270405T090000", "20270405T100000", "Slip, main")
    assert zone_of_block(BLOCK) == "America/Halifax"
    assert zone_of_block(BLOCK.replace(";TZID=America/Halifax", "")) is None
    assert day_of_block(BLOCK) == dt.date(2027, 4, 5)
    assert day_of_block("BEGIN:VEVENT\r\nDTSTART:nothing\r\nEND:VEVENT\r\n") is None
    assert day_of_block("BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20270230\r\nEND:VEVENT\r\n") is None


def test_an_event_is_withdrawn_once() -> None:
    gone = cancelled(BLOCK, "20280101T000000Z")
    assert "SEQUENCE:3\r\n" in gone
    assert "DTSTAMP:20280101T000000Z\r\n" in gone
    assert gone.count("STATUS:CANCELLED\r\n") == 1
    assert cancelled(gone, "20290101T000000Z") == gone


def test_a_status_gives_way_and_an_alarm_stays_behind_it() -> None:
    alarm = "STATUS:CONFIRMED\r\nBEGIN:VALARM\r\nACTION:DISPLAY\r\nEND:VALARM\r\nEND:VEVENT\r\n"
    gone = cancelled(BLOCK.replace("END:VEVENT\r\n", alarm), "20280101T000000Z")
    assert "CONFIRMED" not in gone
    assert gone.index("STATUS:CANCELLED") < gone.index("BEGIN:VALARM")


def test_a_block_with_another_revision_has_the_same_body() -> None:
    new = with_revision(BLOCK, Revision("other", 7, "20280101T000000Z"))
    assert new.startswith("BEGIN:VEVENT\r\nUID:other\r\nDTSTAMP:20280101T000000Z\r\nSEQUENCE:7\r\n")
    assert sketch_of_block(new).body == sketch_of_block(BLOCK).body


TOUCHES = [
    ("20270405", "20270406", "2027-04-05", "2027-04-05", True), ("20270405", "20270406", "2027-04-06", None, False),
    ("20270405", "20270408", "2027-04-07", None, True), ("20270405T090000", "20270405T100000", None, "2027-04-04", False),
    ("20270405T220000", "20270406T000000", "2027-04-06", None, False), ("20270405T220000", "20270406T010000", "2027-04-06", None, True),
    ("", "", "2027-04-06", None, True), ("20270405T090000", "PT1H", "2030-01-01", None, True),
]  # fmt: skip


@pytest.mark.parametrize(("start", "end", "first", "last", "expected"), TOUCHES)
def test_an_earlier_event_in_a_window(
    start: str, end: str, first: str | None, last: str | None, expected: bool
) -> None:
    window = Window(*(dt.date.fromisoformat(day) if day else None for day in (first, last)))
    assert Sketch("u", "s", start, end, "").touches(window) is expected


def test_made_uids_have_a_form_of_their_own() -> None:
    assert is_made_uid(lasting_uid("a", "b"))
    assert is_made_uid(occurrence_uid("x", dt.date(2027, 4, 5)))
    assert not is_made_uid("0f8fad5b-d9cb-469f-a165-70867728950e")
    assert not is_made_uid("")


# -- whole builds -----------------------------------------------------------------------------------------------


def states(path: Path) -> dict[str, tuple[str, int]]:
    """Start → (uid, sequence)."""
    return {
        plain(event).split(" ")[1]: (str(event["UID"]), int(event.get("SEQUENCE", 0)))
        for event in events_in(path)
    }


def rebuilt(folder: Path, first: str, second: str, *options: object) -> tuple[dict, dict, str]:
    """The states of two builds into one file, and what the second said."""
    out = folder / "o.ics"
    assert nomarium("build", csv_file(folder, first), "-o", out).status == 0
    before = states(out)
    outcome = nomarium("build", csv_file(folder, second), "-o", out, *options)
    assert outcome.status == 0, outcome.text
    return before, states(out), outcome.out


HEAD = "Title,Date,Start,End,Place"


def test_of_two_a_day_the_one_that_stays_keeps_its_uid_when_the_other_moves_past_it(tmp_path: Path) -> None:
    rows = f"{HEAD}\nRace,2027-04-05,9:00,10:00,Bay\nRace,2027-04-05,14:00,15:00,Bay"
    moved = f"{HEAD}\nRace,2027-04-05,14:00,15:00,Bay\nRace,2027-04-05,16:00,17:00,Bay"
    before, after, said = rebuilt(tmp_path, rows, moved)
    stays = "2027-04-05T14:00/2027-04-05T15:00"
    assert after[stays] == before[stays]
    assert after["2027-04-05T16:00/2027-04-05T17:00"] == (before["2027-04-05T09:00/2027-04-05T10:00"][0], 1)
    assert "Since the last build: 1 unchanged, 1 moved" in said


def test_an_event_put_before_two_of_its_title_is_the_new_one(tmp_path: Path) -> None:
    rows = f"{HEAD}\nRace,2027-04-05,9:00,10:00,Bay\nRace,2027-04-05,14:00,15:00,Bay"
    more = rows.replace("\nRace,2027-04-05,9", "\nRace,2027-04-05,7:00,8:00,Bay\nRace,2027-04-05,9", 1)
    before, after, said = rebuilt(tmp_path, rows, more)
    assert all(after[when] == state for when, state in before.items())
    assert len({uid for uid, _ in after.values()}) == 3
    assert "1 new" in said
    assert "2 unchanged" in said


def test_whole_days_that_are_renamed_are_changed_and_keep_their_uids(tmp_path: Path) -> None:
    rows = "Title,Date\n" + "\n".join(f"Week {n},2027-04-{n:02}" for n in range(1, 21))
    before, after, said = rebuilt(tmp_path, rows, rows.replace("Week ", "A-week "))
    assert {when: uid for when, (uid, _) in after.items()} == {when: uid for when, (uid, _) in before.items()}
    assert "Since the last build: 20 changed" in said


def test_a_change_of_place_is_no_move(tmp_path: Path) -> None:
    rows = f"{HEAD}\nRace,2027-04-05,9:00,10:00,Bay"
    _, _, said = rebuilt(tmp_path, rows, rows.replace("Bay", "Slip"))
    assert "Since the last build: 1 changed" in said
    out = tmp_path / "o.ics"
    nomarium(
        "build", csv_file(tmp_path, rows.replace("-05,", "-06,")), "-o", out
    )  # moved: carries the UID along
    outcome = nomarium(
        "build", csv_file(tmp_path, rows.replace("-05,", "-06,").replace("Bay", "Loft")), "-o", out
    )
    assert "Since the last build: 1 changed" in outcome.out


def test_what_is_outside_the_window_is_neither_removed_nor_cancelled(tmp_path: Path) -> None:
    rows = f"{HEAD}\nRace,2027-04-05,9:00,10:00,Bay\nTea,2027-05-05,9:00,10:00,Bay\nSail,2027-05-06,9:00,10:00,Bay"
    fewer = "\n".join(rows.splitlines()[:3])
    _, after, said = rebuilt(tmp_path, rows, fewer, "--from", "2027-05-01", "--cancel-removed")
    assert "1 cancelled" in said
    assert "removed" not in said
    assert sorted(after) == ["2027-05-05T09:00/2027-05-05T10:00", "2027-05-06T09:00/2027-05-06T10:00"]
    status = {str(event["SUMMARY"]): str(event.get("STATUS", "")) for event in events_in(tmp_path / "o.ics")}
    assert status == {"Tea": "", "Sail": "CANCELLED"}


def test_a_uid_of_the_source_is_never_given_away(tmp_path: Path) -> None:
    rows = "Title,Date,Start,UID\nRace,2027-04-05,9:00,one\nRace,2027-04-05,14:00,two"
    swapped = "Title,Date,Start,UID\nRace,2027-04-05,14:00,one\nRace,2027-04-05,16:00,two"
    _, after, _ = rebuilt(tmp_path, rows, swapped)
    assert {when[11:16]: uid for when, (uid, _) in after.items()} == {"14:00": "one", "16:00": "two"}
