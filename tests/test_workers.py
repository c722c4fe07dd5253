"""Several processes make the same files as one, and leave nothing behind."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest
from benchmarks.district import write_plan

import nomarium.samples
from helpers import interruptible
from helpers import nomarium as run
from nomarium.building.sharing import can_share, shared_out

pytestmark = pytest.mark.skipif(not can_share(), reason="this system cannot copy a process")
YEAR = Path(nomarium.samples.__file__).parent / "year"


def year(folder: Path) -> Path:
    shutil.copytree(YEAR, folder / "year", ignore=shutil.ignore_patterns("__pycache__"))
    for table in (folder / "year").iterdir():
        os.utime(table, (1_800_000_000, 1_800_000_000))
    return folder / "year"


def files_in(path: Path) -> dict[str, bytes]:
    """Everything under a path, hidden files as well."""
    paths = [path] if path.is_file() else [one for one in path.rglob("*") if one.is_file()]
    return {one.name: one.read_bytes() for one in paths}


def built(folder: Path, out: str, workers: int, *options: str) -> tuple[dict[str, bytes], str]:
    """The files of a build, and its report without the place they were put in."""
    target = folder / f"with-{workers}" / out
    target.parent.mkdir(exist_ok=True)
    outcome = run("build", folder / "year", "-o", target, "--workers", workers, *options)
    left = [one.name for one in target.parent.rglob(".nomarium-*")]
    assert outcome.status in (0, 1) and not left, outcome.text
    return files_in(target), outcome.text.replace(str(target.parent), "")


@pytest.mark.parametrize(
    ("out", "options"),
    [
        ("year.ics", ()), ("year.json", ()), ("year.csv", ()), ("teachers", ("--split-by", "teacher")), ("people", ("--split-by", "person")),
        ("rooms", ("--split-by", "room", "--reminder", "10m")), ("labels", ("--split-by", "label", "--from", "2026-10-01", "--until", "2027-02-10")),
        ("classes", ("--split-by", "class", "--timezone", "UTC")), ("once.ics", ("--merge-duplicates",)),
    ],
)  # fmt: skip
def test_any_number_of_processes_makes_the_same_files(
    out: str, options: tuple[str, ...], tmp_path: Path
) -> None:
    year(tmp_path)
    one = built(tmp_path, out, 1, *options)
    assert one[0]
    for workers in (2, 5):
        assert built(tmp_path, out, workers, *options) == one


def test_a_changed_plan_updates_the_same_events_whoever_writes_them(tmp_path: Path) -> None:
    source = year(tmp_path)
    for workers in (1, 3):
        built(tmp_path, "teachers", workers, "--split-by", "teacher")
    timetable = source / "timetable.csv"
    lines = timetable.read_text("utf-8").splitlines()
    timetable.write_text("\n".join([lines[0], *lines[2:]]) + "\n", "utf-8")  # a class is gone
    bells = source / "bells.csv"
    bells.write_text(bells.read_text("utf-8").replace(":30", ":35"), "utf-8")  # many times changed
    for table in (timetable, bells):
        os.utime(table, (1_800_090_000, 1_800_090_000))
    alone, shared = (
        built(tmp_path, "teachers", workers, "--split-by", "teacher", "--cancel-removed")
        for workers in (1, 3)
    )
    assert shared == alone
    assert "changed" in alone[1] and b"STATUS:CANCELLED" in b"".join(alone[0].values())


def test_clashes_are_found_across_the_shares(tmp_path: Path) -> None:
    source = year(tmp_path)
    timetable = source / "timetable.csv"
    lines = timetable.read_text("utf-8").splitlines()
    twice = lines[1].split(",")
    timetable.write_text("\n".join([*lines, ",".join(["TWICE", *twice[1:]])]) + "\n", "utf-8")
    one, two = (built(tmp_path, "year.ics", workers)[1] for workers in (1, 2))
    assert one == two and "TWICE" in one


def test_the_number_of_processes_is_at_least_one(tmp_path: Path) -> None:
    outcome = run("build", year(tmp_path), "-o", tmp_path / "year.ics", "--workers", "0")
    assert outcome.status == 2 and "--workers" in outcome.text


def test_results_come_in_the_order_of_the_shares() -> None:
    told: list[int] = []

    def job(share: int, tell) -> tuple[int, int]:
        time.sleep(0.02 * share)
        tell(share * 10)
        return share, os.getpid()

    made = shared_out(job, [3, 1, 2], told.append)
    assert [share for share, _ in made] == [3, 1, 2]
    assert len({pid for _, pid in made} | {os.getpid()}) == 4
    assert told[-1] == 60


def test_the_failure_of_one_is_raised_when_all_have_ended() -> None:
    def job(share: int, _tell) -> int:
        if share == 1:
            raise OSError(28, "No space left on device", "out.ics")
        if share == 2:
            os._exit(3)
        return share

    with pytest.raises(OSError, match="No space left"):
        shared_out(job, [0, 1, 2], None)
    with pytest.raises(ChildProcessError, match="worker 1 ended"):
        shared_out(job, [2], None)


def test_an_interrupted_build_leaves_nothing(tmp_path: Path) -> None:
    source, target = tmp_path / "district", tmp_path / "out"
    write_plan(source, 150)
    target.mkdir()
    command = [sys.executable, "-m", "nomarium", "build", source, "-o", target, "--split-by", "teacher", "--workers", "2"]  # fmt: skip
    with subprocess.Popen(
        command, stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True, preexec_fn=interruptible
    ) as build:
        while not any(target.rglob(".nomarium-*/*")) and build.poll() is None:
            time.sleep(0.01)
        build.send_signal(signal.SIGINT)
        _, errors = build.communicate(timeout=30)
    assert build.returncode == 130 and errors == "Stopped; nothing was replaced.\n"
    assert list(target.iterdir()) == []
