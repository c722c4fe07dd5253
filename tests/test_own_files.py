"""What belongs to the person stays: sources, recipes, links, modes; what killed runs leave is removed."""

import errno
import os
import subprocess
import sys
from pathlib import Path

import pytest

from helpers import csv_file, nomarium
from nomarium.targets.replacing import part_file

LIST = "Event,Date\nLaunch,2026-09-07\nFair,2026-13-45"
LOST: dict[str, tuple[str, str]] = {
    "the source as a table": ("build x.csv -o x.csv", "-o x.csv is the same file as the source x.csv"),
    "the source by another spelling": ("build x.csv -o ./folder/../x.csv", "is the same file as the source x.csv"),
    "the source by a link": ("build x.csv -o link.csv", "-o link.csv is the same file as the source x.csv"),
    "a table of a plan's folder": ("build year -o year/timetable.csv", "is the same file as the source year"),
    "rejected rows onto the source": ("build x.csv -o o.ics --partial --rejects x.csv", "--rejects x.csv is the same file as the source"),
    "rejected rows onto the output": ("build x.csv -o o.csv --partial --rejects o.csv", "--rejects o.csv is the same file as -o"),
    "rejected rows into something else": ("build x.csv -o o.ics --partial --rejects notes.txt", "does not end in .csv or .xlsx"),
    "a recipe onto the table": ("survey x.csv --save x.csv", "does not end in .toml"),
    "a recipe onto the one that is read": ("survey x.csv --recipe r.toml --save r.toml", "--save r.toml is the same file as r.toml"),
    "days off": ("build x.csv -o c.ics --days-off c.ics", "-o c.ics is the same file as c.ics"),
    "a calendar that leaves out": ("build x.csv -o c.ics --without c.ics", "-o c.ics is the same file as c.ics"),
    "a table of places": ("build x.csv -o p.csv --places p.csv", "-o p.csv is the same file as p.csv"),
    "a tally": ("tally x.csv -o x.csv", "-o x.csv is the same file as the source"),
}  # fmt: skip


@pytest.mark.parametrize("name", LOST)
def test_no_output_is_a_file_that_is_read(name: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.chdir(tmp_path)
    files = {
        "x.csv": LIST, "p.csv": "Place,Address\nLoft,4 Brick Lane", "notes.txt": "mine",
        "r.toml": "", "c.ics": "BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n",
    }  # fmt: skip
    for file, text in files.items():
        Path(file).write_text(text, "utf-8")
    for folder in ("folder", "year"):
        Path(folder).mkdir()
    Path("year/timetable.csv").write_text("Class,Day,Time\nKnots,Mon,9:00-9:50\n", "utf-8")
    Path("link.csv").symlink_to("x.csv")
    before = {path: path.read_bytes() for path in Path().rglob("*") if path.is_file()}
    command, said = LOST[name]
    outcome = nomarium(*command.split())
    assert (outcome.status, said in outcome.text) == (2, True), outcome.text
    assert {path: path.read_bytes() for path in Path().rglob("*") if path.is_file()} == before


def test_a_calendar_may_be_brought_up_to_date(tmp_path: Path) -> None:
    target = tmp_path / "year.ics"
    assert nomarium("build", csv_file(tmp_path, "Event,Date\nLaunch,2026-09-07"), "-o", target).status == 0
    outcome = nomarium(
        "build", target, csv_file(tmp_path, "Event,Date\nFair,2026-09-08", "more.csv"), "-o", target
    )
    assert "Since the last build: 1 unchanged, 1 new" in outcome.text, outcome.text


def test_of_a_link_the_file_that_it_points_at_is_replaced_and_keeps_its_mode(tmp_path: Path) -> None:
    (tmp_path / "shared").mkdir()
    real, link = tmp_path / "shared" / "real.ics", tmp_path / "link.ics"
    real.write_text("old", "utf-8")
    real.chmod(0o640)
    link.symlink_to(real)
    assert nomarium("build", csv_file(tmp_path, "Event,Date\nLaunch,2026-09-07"), "-o", link).status == 0
    assert (link.is_symlink(), "SUMMARY:Launch" in real.read_text("utf-8"), real.stat().st_mode & 0o777) == (
        True,
        True,
        0o640,
    )
    assert not list(tmp_path.rglob("*.part"))


def test_what_a_killed_run_left_is_removed_and_nothing_else(tmp_path: Path) -> None:
    left = "from pathlib import Path; from nomarium.targets.replacing import part_file, part_folder; import sys, os, signal\n"
    left += "part_file(Path(sys.argv[1])); (part_folder(Path(sys.argv[1])) / 'x').touch(); os.kill(os.getpid(), signal.SIGKILL)"
    subprocess.run([sys.executable, "-c", left, str(tmp_path)], check=False)
    parts = sorted(path.name for path in tmp_path.iterdir())
    assert len(parts) == 2
    running, file = part_file(tmp_path / ".")  # of this process
    file.close()
    elsewhere = tmp_path / f".nomarium-00000000-{os.getpid()}-1.part"
    elsewhere.touch()
    outcome = nomarium("build", csv_file(tmp_path, "Event,Date\nLaunch,2026-09-07"), "-o", tmp_path / "o.ics")
    assert outcome.status == 0, outcome.text
    assert sorted(path.name for path in tmp_path.glob(".*")) == sorted([running.name, elsewhere.name])


BAD_ROW = "Title,Date\nRegatta,2026-09-12\nFeast,soon\n"


def test_rejected_rows_are_no_reason_to_say_that_nothing_was_written(tmp_path: Path, monkeypatch) -> None:
    def full(*_: object) -> None:
        raise OSError(errno.ENOSPC, os.strerror(errno.ENOSPC))

    monkeypatch.setattr("nomarium.targets.rejects.replace_file", full)
    target, rejects = tmp_path / "o.ics", tmp_path / "r.csv"
    outcome = nomarium("build", csv_file(tmp_path, BAD_ROW), "-o", target, "--partial", "--rejects", rejects)
    assert (outcome.status, target.exists(), rejects.exists()) == (1, True, False)
    assert "r.csv\n    The rejected rows were not kept: No space left on device." in outcome.text
    assert "Wrote 1 event" in outcome.text and "kept in" not in outcome.text


def test_a_dry_run_keeps_no_rejected_rows(tmp_path: Path) -> None:
    rejects = tmp_path / "r.csv"
    outcome = nomarium(
        "build", csv_file(tmp_path, BAD_ROW), "-o", tmp_path / "o.ics", "--dry-run", "--rejects", rejects
    )
    assert (rejects.exists(), "1 rejected row would be kept in" in outcome.text) == (False, True)


def test_an_output_without_a_folder_is_told_before_anything_is_written(tmp_path: Path) -> None:
    source, target = csv_file(tmp_path, BAD_ROW), tmp_path / "o.ics"
    (tmp_path / "link.ics").symlink_to(tmp_path / "gone" / "o.ics")
    for arguments in (
        ("build", source, "-o", target, "--partial", "--rejects", tmp_path / "gone" / "r.csv"),
        ("build", source, "-o", tmp_path / "link.ics", "--partial"),
        ("survey", source, "--save", tmp_path / "gone" / "r.toml"),
    ):
        outcome = nomarium(*arguments)
        assert (outcome.status, target.exists()) == (2, False)
        assert f"there is no folder {tmp_path / 'gone'}." in outcome.text
