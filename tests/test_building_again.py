"""Building again: the same bytes, the same events updated, old files whole."""

from __future__ import annotations

import datetime as dt
import os
import re
from collections import Counter
from itertools import combinations
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from helpers import csv_file, events_in, nomarium
from nomarium.history.pairing import pair_moved
from nomarium.history.revisions import Sketch

FIRST = (
    "Date,Start,Title,Place\n2027-04-05,9:00,Race,Bay\n2027-04-12,9:00,Race,Bay\n2027-04-20,10:00,Launch,Slip"
)


def build(
    folder: Path, text: str, *options: object, revised: int = 1_800_000_000
) -> dict[str, tuple[str, int, str]]:
    """Build into the same file; title and date → (uid, sequence, dtstamp)."""
    source = csv_file(folder, text)
    os.utime(source, (revised, revised))
    outcome = nomarium("build", source, "-o", folder / "out.ics", *options)
    assert outcome.status == 0, outcome.text
    return {
        f"{event['SUMMARY']} {str(event.decoded('DTSTART'))[:10]}": (
            str(event["UID"]), int(event.get("SEQUENCE", 0)), event["DTSTAMP"].to_ical().decode()
        )
        for event in events_in(folder / "out.ics")
    }  # fmt: skip


def test_the_same_input_gives_the_same_bytes(tmp_path) -> None:
    build(tmp_path, FIRST)
    before = (tmp_path / "out.ics").read_bytes()
    build(tmp_path, FIRST)
    assert (tmp_path / "out.ics").read_bytes() == before
    build(tmp_path, FIRST, "--afresh")
    assert (tmp_path / "out.ics").read_bytes() == before


def test_the_epoch_fixes_the_stamp(tmp_path, monkeypatch) -> None:
    monkeypatch.setenv("SOURCE_DATE_EPOCH", "0")
    assert {stamp for _, _, stamp in build(tmp_path, FIRST).values()} == {"19700101T000000Z"}


def test_a_changed_event_keeps_its_uid_and_counts_up_and_the_others_keep_their_stamps(tmp_path) -> None:
    before = build(tmp_path, FIRST)
    after = build(tmp_path, FIRST.replace("10:00,Launch", "11:00,Launch"), revised=1_800_086_400)
    uid, sequence, stamp = after["Launch 2027-04-20"]
    assert (uid, sequence) == (before["Launch 2027-04-20"][0], 1)
    assert stamp > before["Launch 2027-04-20"][2]
    assert after["Race 2027-04-05"] == before["Race 2027-04-05"]


def test_a_moved_event_and_a_renamed_one_keep_their_uids(tmp_path) -> None:
    before = build(tmp_path, FIRST)
    text = FIRST.replace("2027-04-12", "2027-04-13").replace("Launch", "Big launch")
    after = build(tmp_path, text)
    assert after["Race 2027-04-13"][:2] == (before["Race 2027-04-12"][0], 1)
    assert after["Big launch 2027-04-20"][:2] == (before["Launch 2027-04-20"][0], 1)
    assert after["Race 2027-04-05"] == before["Race 2027-04-05"]
    again = build(tmp_path, text)
    assert again == after


def test_of_many_with_one_title_each_new_one_takes_the_nearest_that_is_gone() -> None:
    from nomarium.history.pairing import pair_moved
    from nomarium.history.revisions import Sketch

    gone = [Sketch(f"old{day}", "Race", f"202704{day:02}T090000", "", "", day) for day in (1, 10, 20)]
    new = [Sketch(f"new{day}", "Race", f"202704{day:02}T090000", "", "", 100 + day) for day in (12, 19)]
    assert pair_moved(gone, new) == {"new12": "old10", "new19": "old20"}
    assert pair_moved(gone[:2], new) == {"new12": "old1", "new19": "old10"}
    assert pair_moved([], new) == {}


def test_afresh_starts_anew(tmp_path) -> None:
    build(tmp_path, FIRST)
    after = build(tmp_path, FIRST.replace("Bay", "Harbour"), "--afresh")
    assert {sequence for _, sequence, _ in after.values()} == {0}


def test_removed_events_go_or_stay_cancelled(tmp_path) -> None:
    before = build(tmp_path, FIRST, "--timezone", "America/Halifax")
    without = "\n".join(FIRST.splitlines()[:-1])
    kept = build(tmp_path, without, "--cancel-removed", "--timezone", "America/Halifax")
    assert kept["Launch 2027-04-20"][:2] == (before["Launch 2027-04-20"][0], 1)
    assert b"STATUS:CANCELLED" in (tmp_path / "out.ics").read_bytes()
    again = build(tmp_path, without, "--cancel-removed", "--timezone", "America/Halifax")
    assert again == kept
    assert "Launch 2027-04-20" not in build(tmp_path, without, "--timezone", "America/Halifax")


def test_two_events_of_one_title_and_date_are_two(tmp_path) -> None:
    text = "Date,Start,Title\n2027-04-05,9:00,Race\n2027-04-05,11:00,Race\n2027-04-05,11:00,Race"
    source = csv_file(tmp_path, text)
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert len({str(event["UID"]) for event in events_in(tmp_path / "o.ics")}) == 3
    assert "Row 4 say" in outcome.out


def test_a_refused_build_leaves_the_old_file_whole(tmp_path) -> None:
    build(tmp_path, FIRST)
    before = (tmp_path / "out.ics").read_bytes()
    bad = csv_file(tmp_path, FIRST + "\n31/31/2027,,Bad,", "bad.csv")
    outcome = nomarium("build", bad, "-o", tmp_path / "out.ics")
    assert outcome.status == 1
    assert "untouched" in outcome.err
    assert (tmp_path / "out.ics").read_bytes() == before
    assert [path.name for path in tmp_path.iterdir() if path.suffix == ".part"] == []


def test_partial_writes_the_rest_and_rejects_can_be_mended_and_built(tmp_path) -> None:
    text = "Date,Title,Place\n2027-04-05,A,Bay\n31/02/2027,=B,Bay\n2027-04-07,,Bay"
    source = csv_file(tmp_path, text)
    rejects = tmp_path / "rejects.csv"
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--partial", "--rejects", rejects)
    assert outcome.status == 1
    assert len(events_in(tmp_path / "o.ics")) == 1
    kept = rejects.read_text("utf-8-sig")
    assert kept.splitlines()[0] == "Date,Title,Place,Reason for rejection"
    assert "31/02/2027,'=B,Bay,There is no such date" in kept
    rejects.write_text(kept.replace("31/02/2027", "28/02/2027").replace("07,,", "07,C,"), "utf-8")
    assert nomarium("build", rejects, "-o", tmp_path / "mended.ics").status == 0
    assert [str(event["SUMMARY"]) for event in events_in(tmp_path / "mended.ics")] == ["=B", "C"]


def test_rejects_as_a_workbook_hold_texts_only(tmp_path) -> None:
    import openpyxl

    source = csv_file(tmp_path, "Date,Title\n31/02/2027,=1+1")
    nomarium("build", source, "-o", tmp_path / "o.ics", "--rejects", tmp_path / "r.xlsx")
    cell = openpyxl.load_workbook(tmp_path / "r.xlsx").active["B2"]
    assert (cell.value, cell.data_type) == ("=1+1", "s")


@pytest.mark.parametrize(("count", "status"), [(3, 0), (2, 1)])
def test_expect(tmp_path, count: int, status: int) -> None:
    outcome = nomarium("build", csv_file(tmp_path, FIRST), "-o", tmp_path / "o.ics", "--expect", count)
    assert outcome.status == status
    assert (tmp_path / "o.ics").exists() is (status == 0)


SPLIT = 'Date,Title,For\n2027-04-05,A,"Apprentices, Journeymen"\n2027-04-06,B,apprentices\n2027-04-07,C,\n2027-04-08,D,App/rentices'


def test_a_split_is_the_whole_in_parts(tmp_path) -> None:
    source = csv_file(tmp_path, SPLIT)
    nomarium("build", source, "-o", tmp_path / "whole.ics")
    outcome = nomarium("build", source, "-o", tmp_path / "parts", "--split-by", "audience")
    assert outcome.status == 0, outcome.text
    names = sorted(path.name for path in (tmp_path / "parts").iterdir())
    assert names == [
        "app-rentices.ics",
        "apprentices-2.ics",
        "apprentices.ics",
        "journeymen.ics",
        "no-audience.ics",
    ]
    parts = {str(e["UID"]) for name in names for e in events_in(tmp_path / "parts" / name)}
    assert parts == {str(e["UID"]) for e in events_in(tmp_path / "whole.ics")}
    assert re.search(r"1  journeymen\.ics  \(Journeymen\)", outcome.out)
    assert "Wrote 4 events" in outcome.out


def test_files_of_an_earlier_split_are_kept_and_named(tmp_path) -> None:
    nomarium("build", csv_file(tmp_path, SPLIT), "-o", tmp_path / "parts", "--split-by", "audience")
    without = SPLIT.replace(", Journeymen", "")
    outcome = nomarium(
        "build", csv_file(tmp_path, without), "-o", tmp_path / "parts", "--split-by", "audience"
    )
    assert "no longer made: journeymen.ics" in outcome.out
    assert (tmp_path / "parts" / "journeymen.ics").exists()


def test_a_dry_run_writes_nothing(tmp_path) -> None:
    outcome = nomarium("build", csv_file(tmp_path, FIRST), "-o", tmp_path / "o.ics", "--dry-run")
    assert "Would write 3 events" in outcome.out
    assert not (tmp_path / "o.ics").exists()


@given(
    st.lists(st.integers(0, 60), min_size=1, max_size=5),
    st.lists(st.integers(0, 60), min_size=1, max_size=7),
)
def test_events_of_one_title_are_paired_so_that_all_together_move_least(
    gone: list[int], new: list[int]
) -> None:
    def sketches(days: list[int], letter: str) -> list[Sketch]:
        dates = [(dt.date(2026, 9, 1) + dt.timedelta(days=day)).strftime("%Y%m%dT090000") for day in days]
        return [
            Sketch(f"{letter}{n}", "Rigging", start, start, f"{letter}{n}", hash((letter, n)))
            for n, start in enumerate(dates)
        ]

    old, now = {one.uid: one for one in sketches(gone, "g")}, {one.uid: one for one in sketches(new, "n")}
    pairs = pair_moved(old.values(), now.values())
    assert len(pairs) == len(set(pairs.values())) == min(len(gone), len(new))
    moved = [abs(gone[int(a[1:])] - new[int(b[1:])]) for b, a in pairs.items()]
    left = [day for day in moved if day]
    # what is the same is paired first; of the rest no other pairs move less
    rest_old, rest_new = Counter(gone) - Counter(new), Counter(new) - Counter(gone)
    few, many = sorted((sorted(rest_old.elements()), sorted(rest_new.elements())), key=len)
    best = min(
        sum(abs(a - b) for a, b in zip(few, some, strict=True)) for some in combinations(many, len(few))
    )
    assert sum(left) == best
