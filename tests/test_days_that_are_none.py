"""A heading between or beside days that names none: what stands under it is asked about, and never passed over."""

from __future__ import annotations

from itertools import chain
from pathlib import Path

import pytest

from helpers import built, csv_file, refused
from nomarium.reading.cells.weekdayslips import is_like_weekday

DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri"]
CELLS = ["Knots,Sails,Oars,Charts,Ropes", "Oars,Knots,Ropes,Sails,Charts", "Sails,Ropes,Charts,Oars,Knots"]
SHEETS: dict[str, tuple[str, list[str], tuple[str, ...]]] = {
    "a drawn week": ("Period", ["9:00-10:00", "10:00-11:00", "11:00-12:00"], ("--from", "2026-09-07", "--until", "2026-09-11")),
    "a week a row": ("Week beginning", ["7 Sep 2026", "14 Sep 2026", "21 Sep 2026"], ()),
    "a roster of one week": ("Name", ["Pell", "Quist", "Oakes"], ("--day-one", "2026-09-07")),
}  # fmt: skip


@pytest.mark.parametrize(
    ("at", "slip"), [(0, "Mom"), (1, "Tus"), (3, "Thrs"), (3, "Jeu"), (4, "Firday"), (4, "Fryday")]
)
@pytest.mark.parametrize("kind", SHEETS)
def test_a_weekday_with_a_slip_is_asked_about(kind: str, at: int, slip: str, tmp_path: Path) -> None:
    corner, left, options = SHEETS[kind]
    days = [*DAYS[:at], slip, *DAYS[at + 1 :]]
    table = "\n".join(
        chain([",".join([corner, *days])], (f"{one},{cells}" for one, cells in zip(left, CELLS, strict=True)))
    )
    assert f"“{slip}”" in refused(csv_file(tmp_path, table), *options)


DATED = ["Mon 28 Sep 2026", "Tue 29 Sep 2026", "Wed 30 Sep 2026", "Thu 1 Oct 2026", "Fri 2 Oct 2026"]


@pytest.mark.parametrize(
    "slip", ["Wed 31 Sep 2026", "30 Sepp 2026", "Wed 30 Sep 206", "TBC", "?", "Wed", "30"]
)
def test_what_is_no_date_among_dates_is_asked_about(slip: str, tmp_path: Path) -> None:
    rows = [f"{name},{cells}" for name, cells in zip(("Pell", "Quist", "Oakes"), CELLS, strict=True)]
    table = "\n".join([",".join(["Name", *DATED[:2], slip, *DATED[3:]]), *rows])
    assert f"“{slip}”" in refused(csv_file(tmp_path, table))


def test_sums_and_remarks_among_days_are_no_days(tmp_path: Path) -> None:
    table = "Name,Mon 28 Sep 2026,Tue 29 Sep 2026,Hours,Wed 30 Sep 2026,Notes\nPell,9-12,13-16,6,9-11,new\nQuist,9-10,,1,10-12,"
    assert len(built(csv_file(tmp_path, table))) == 5


HEADS = [
    "Lu,Ma,Me,Je,Ve",
    "Lu,Ma,Mi,Ju,Vi",
    "ma,ti,on,to,fr",
    "må,ti,on,to,fr",
    "ma,di,wo,do,vr",
    "Mo,Di,Mi,Do,Fr",
    "ma,ti,ke,to,pe",
]


@pytest.mark.parametrize("heads", HEADS)
def test_short_weekdays_head_all_their_columns(heads: str, tmp_path: Path) -> None:
    table = f",{heads}\n9:00-10:00,{CELLS[0]}\n10:00-11:00,{CELLS[1]}"
    found = built(csv_file(tmp_path, table), "--from", "2026-09-07", "--until", "2026-09-11")
    assert sorted(one.split("T")[0] for one in found if "T09:00" in one) == sorted(
        f"{name} 2026-09-{7 + n:02d}" for n, name in enumerate(CELLS[0].split(","))
    )


@pytest.mark.parametrize(
    "word", ["Notes", "Sum", "Set 2", "Room 3", "Sunny", "Mon", "Friday 2 Oct", "March", "Team"]
)
def test_other_words_are_no_slips(word: str) -> None:
    assert not is_like_weekday(word)
