"""The first row of a list without headings, and a row behind a gap, are events like the others: no headings, whatever they say."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused

BELOW = "Holiday,31.5.2027,\nRegatta,12 June 2027,Slip 2"
EVENTS = ["Holiday 2027-05-31/2027-06-01", "Regatta 2027-06-12/2027-06-13 @ Slip 2"]
WEEK = "2027-05-24/2027-05-31"

READ: dict[str, tuple[str, list[str]]] = {
    "a week in figures, which is no numbered heading": (f"Meeting,w/c 24.5.27,Slip 1\n{BELOW}", [f"Meeting {WEEK} @ Slip 1", *EVENTS]),
    "the same before what is on": ("w/c 24.5.27,Meeting\n31.5.2027,Holiday", [f"Meeting {WEEK}", EVENTS[0]]),
    "a week behind a blank row": (f"Event,When,Where\nLaunch,15 May 2027,\n,,\nInset,week of 24.5.27,\n{BELOW}", [f"Inset {WEEK}", "Launch 2027-05-15/2027-05-16", *EVENTS]),
    "a week behind a lone text": (f"Event,When,Where\nLaunch,15 May 2027,\n,(rain or shine),\nInset,w/c 24.5.27,\n{BELOW}", [f"Inset {WEEK}", "Launch 2027-05-15/2027-05-16", *EVENTS]),
    "headings that are weekdays stay headings": ("Sunday,Preacher\n6 Sept 2026,R. Finch\n13 Sept 2026,A. Moss", ["Preacher: A. Moss 2026-09-13/2026-09-14", "Preacher: R. Finch 2026-09-06/2026-09-07"]),
    "a title with a year stays a title": (f"Saltmarsh School,,2027\n{BELOW}", EVENTS),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_first_rows_are_events(kind: str, tmp_path: Path) -> None:
    table, events = READ[kind]
    assert sorted(built(csv_file(tmp_path, table))) == sorted(events)


REFUSED: dict[str, tuple[str, str]] = {
    "a day that is not settled": (f"Meeting,TBC,Slip 1\n{BELOW}", "row 1, column B: “TBC”"),
    "two of them": (f"Meeting,TBC,Slip 1\nDinner,TBA,\n{BELOW}", "4 rows read = 2 events + 2 rejected"),
    "no day, and a place like those below": (f"Meeting,,Slip 1\n{BELOW}", "3 rows read = 2 events + 1 rejected"),
    "a weekday alone, of another day than the dates": (f"Meeting,Friday,Slip 1\n{BELOW}", "cells that are none, “Friday”"),
    "a repeat": (f"Meeting,every Friday,Slip 1\n{BELOW}", '--column "B=date"'),
    "half a month": (f"Meeting,mid May,Slip 1\n{BELOW}", "“mid May”"),
    "a day that is not": (f"Meeting,30.2.2027,Slip 1\n{BELOW}", "“30.2.2027”"),
    "a date behind a word": (f"Essay,due 24.5.27,Slip 1\n{BELOW}", "“due 24.5.27”"),
    "the same behind a blank row": (f"Event,When,Where\nLaunch,15 May 2027,\n,,\nInset,from 24.5.27,\n{BELOW}", "says a first day, and no last one"),
}  # fmt: skip


@pytest.mark.parametrize("kind", REFUSED)
def test_first_rows_without_a_settled_day_are_refused(kind: str, tmp_path: Path) -> None:
    table, said = REFUSED[kind]
    assert said in refused(csv_file(tmp_path, table))


def test_the_remedy_for_a_column_of_dates_and_others_works(tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Meeting,every Friday,Slip 1\n{BELOW}")
    assert "row 1, column B: “every Friday”" in refused(source, "--column", "B=date")
