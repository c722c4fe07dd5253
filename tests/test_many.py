"""build --each: many schools at once, whoever does it."""

from __future__ import annotations

import json
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from helpers import csv_file, events_in, nomarium

COUNT = 50
CLUSTER = """
import sys
from distributed import LocalCluster
if __name__ == "__main__":
    with LocalCluster(n_workers=2, threads_per_worker=2, host="127.0.0.1", dashboard_address=None) as cluster:
        print(cluster.scheduler_address, flush=True)
        sys.stdin.readline()
"""


@pytest.fixture(scope="module")
def schools(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Fifty lists, one of which cannot be read."""
    folder = tmp_path_factory.mktemp("schools")
    for n in range(COUNT):
        date = "2026-13-45" if n == 17 else f"2026-11-{n % 28 + 1:02}"
        csv_file(
            folder,
            f"Event,Date,Start,End,Teacher\nRigging {n},{date},9:00,10:00,R. Finch\nKnots,2026-12-01,,,M. Quill",
            f"school-{n}.csv",
        )
    return folder


@pytest.fixture(scope="module")
def scheduler(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """A scheduler with two workers on loopback, in a working folder of its own."""
    process = subprocess.Popen(
        [sys.executable, "-c", CLUSTER], stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True,
        cwd=tmp_path_factory.mktemp("elsewhere"),
    )  # fmt: skip
    assert process.stdout is not None and process.stdin is not None
    yield process.stdout.readline().strip()
    process.stdin.write("\n")
    process.stdin.close()
    process.wait(30)
    process.stdout.close()


def contents(folder: Path) -> dict[str, bytes]:
    return {
        path.relative_to(folder).as_posix(): path.read_bytes()
        for path in sorted(folder.rglob("*"))
        if path.is_file()
    }


def sources(folder: Path) -> list[Path]:
    return sorted(folder.glob("*.csv"))


def test_whoever_does_it_the_files_are_the_same_and_one_that_fails_stops_nobody(
    schools: Path, scheduler: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("NOMARIUM_TIMEZONE", "America/Halifax")
    monkeypatch.setenv("NOMARIUM_HISTORY", str(tmp_path / "history.sqlite3"))
    made = {}
    for name, more in {"alone": (), "two": ("--workers", "2"), "cluster": ("--scheduler", scheduler)}.items():
        out = tmp_path / name
        ran = nomarium("build", *sources(schools), "-o", out, "--each", *more)
        assert ran.status == 1 and ran.text.count("refused") == 2, ran.text
        assert (
            "There is no such date as 2026-13-45." in ran.out
            and f"49 sources of {COUNT} built, with 98 events" in ran.out
        )
        made[name] = contents(out)
    assert made["alone"] == made["two"] == made["cluster"]
    assert len(made["alone"]) == 49 and b"TZID=America/Halifax" in made["alone"]["school-3.ics"]
    history = nomarium("history", "--json")
    kept = json.loads(history.out)["outputs"]
    assert len(kept) == 3 * 49, "the process that started them writes the history"


def test_sources_of_one_name_and_folders_of_a_split(tmp_path: Path) -> None:
    for school in ("north", "south"):
        (tmp_path / school).mkdir()
        csv_file(
            tmp_path / school,
            f"Event,Date,Teacher\n{school},2026-11-12,R. Finch\nB,2026-11-13,M. Quill",
            "list.csv",
        )
    other = csv_file(tmp_path, "Event,Date,Teacher\nC,2026-11-12,O. Tern", "other.csv")
    three = (tmp_path / "north/list.csv", tmp_path / "south/list.csv", other)
    assert nomarium("build", *three, "-o", tmp_path / "out", "--each").status == 0
    assert list(contents(tmp_path / "out")) == ["north-list.ics", "other.ics", "south-list.ics"]
    assert str(events_in(tmp_path / "out/south-list.ics")[0]["SUMMARY"]) == "south"
    assert nomarium("build", *three, "-o", tmp_path / "split", "--each", "--split-by", "teacher").status == 0
    assert "north-list/r-finch.ics" in contents(tmp_path / "split") and "other/o-tern.ics" in contents(
        tmp_path / "split"
    )
    facts = json.loads(nomarium("build", *three, "-o", tmp_path / "out", "--each", "--json").out)
    assert [(one["ok"], one["events"], one["changes"]) for one in facts["jobs"]][2] == (
        True,
        1,
        {"unchanged": 1, "removed": 0},
    )


@pytest.mark.parametrize(
    ("more", "said"),
    [
        (("-o", "out.ics", "--each"), "Give a folder"),
        (("-o", "out", "--each", "--name", "X"), "--name is about one calendar"),
        (("-o", "out", "--each", "--rejects", "bad.csv"), "--rejects is about one calendar"),
        (("-o", "out", "--scheduler", "tcp://127.0.0.1:1"), "Give --each too"),
        (("-o", "out", "--each", "--scheduler", "127.0.0.1"), "is no address of a scheduler"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, more: tuple[str, ...], said: str
) -> None:
    monkeypatch.chdir(tmp_path)
    ran = nomarium("build", csv_file(tmp_path, "Event,Date\nA,2026-11-12"), *more)
    assert ran.status == 2 and said in ran.text
