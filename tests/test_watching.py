"""watch: built again whenever something has changed; feeds, asked only whether they have."""

from __future__ import annotations

import os
import shlex
import signal
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path

import pytest

from helpers import csv_file, events_in, interruptible, nomarium, workbook

LIST = "Event,Date\nRigging,2026-11-12\nKnots,2026-11-13"


class Watch:
    """The program as it watches, with what it has said so far."""

    def __init__(self, folder: Path, *arguments: object) -> None:
        environment = {
            **os.environ,
            "NOMARIUM_HISTORY": "off",
            "NOMARIUM_CACHE": str(folder / "cache"),
            "PYTHONUNBUFFERED": "1",
        }
        self.process = subprocess.Popen(
            [sys.executable, "-m", "nomarium", "watch", *map(str, arguments)],
            stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True, env=environment, cwd=folder,
            preexec_fn=interruptible,
        )  # fmt: skip
        self.lines: list[str] = []
        self._reader = threading.Thread(target=self._read, daemon=True)
        self._reader.start()

    def _read(self) -> None:
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.lines.append(line.rstrip("\n"))

    def until(self, text: str, count: int = 1, secs: float = 30) -> None:
        """Wait until a text has been said so often."""
        end = time.monotonic() + secs
        while sum(text in line for line in self.lines) < count:
            assert time.monotonic() < end and self.process.poll() is None, "\n".join(self.lines)
            time.sleep(0.05)

    def stop(self) -> int:
        self.process.send_signal(signal.SIGINT)
        status = self.process.wait(20)
        self._reader.join(5)
        assert self.process.stdout is not None
        self.process.stdout.close()
        return status


@contextmanager
def watching(folder: Path, *arguments: object) -> Iterator[Watch]:
    watch = Watch(folder, *arguments)
    try:
        yield watch
    finally:
        if watch.process.poll() is None:
            watch.stop()


def test_saved_in_place_by_renaming_in_pieces_and_refused(tmp_path: Path) -> None:
    source, out = csv_file(tmp_path, LIST, "list.csv"), tmp_path / "out.ics"
    with watching(tmp_path, "list.csv", "-o", "out.ics") as watch:
        watch.until("Wrote 2 events")
        source.write_text(LIST + "\nPaint,2026-11-14\n")
        watch.until("Wrote 3 events")
        other = tmp_path / "list.csv~"
        other.write_text(LIST + "\nPaint,2026-11-14\nTar,2026-11-15\n")
        other.replace(source)
        watch.until("Wrote 4 events")
        before = out.read_bytes()
        source.write_text(LIST + "\nPaint,2026-13-45\n")
        watch.until("Refused; what was there stays.")
        watch.until("There is no such date as 2026-13-45.")
        assert out.read_bytes() == before
        with source.open("w") as file:  # an application that saves in pieces
            for piece in (LIST[:20], LIST[20:], "\nPaint,2026", "-11-14\nTar,2026-11-15\nOars,2026-11-16\n"):
                file.write(piece)
                file.flush()
                time.sleep(0.1)
        watch.until("Wrote 5 events")
        assert watch.stop() == 130
    assert "Traceback" not in "\n".join(watch.lines) and watch.lines[-1] == "Stopped; nothing was replaced."
    assert len(events_in(out)) == 5
    assert not [line for line in watch.lines if "Wrote 1 event" in line], "nothing half saved was built"


def test_a_workbook_that_is_gone_for_a_moment_and_other_files_beside_it(tmp_path: Path) -> None:
    source = workbook(tmp_path, [["Event", "Date"], ["Rigging", "2026-11-12"]])
    recipe = csv_file(tmp_path, 'defaults = { location = "Loft" }', "recipe.toml")
    with watching(tmp_path, source.name, "-o", "out.ics", "--recipe", recipe.name) as watch:
        watch.until("Wrote 1 event")
        (tmp_path / "beside.txt").write_text("nothing to do with it")
        half = source.read_bytes()
        source.unlink()
        time.sleep(0.5)
        source.write_bytes(half[:200])
        time.sleep(0.1)
        workbook(tmp_path, [["Event", "Date"], ["Rigging", "2026-11-12"], ["Knots", "2026-11-13"]])
        watch.until("Wrote 2 events")
        recipe.write_text('defaults = { location = "Slip" }')
        watch.until("2 changed")
        assert sum("Wrote" in line for line in watch.lines) == 3
        assert watch.stop() == 130


class Feed:
    """An address whose answer the test chooses, and what it was asked."""

    def __init__(self) -> None:
        self.text, self.status, self.tag = LIST, 200, '"1"'
        self.asked: list[tuple[str, int]] = []
        feed = self

        class Handler(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                known = self.headers.get("If-None-Match", "")
                status = 304 if feed.status == 200 and known and known == feed.tag else feed.status
                feed.asked.append((known, status))
                self.send_response(status)
                if feed.tag:
                    self.send_header("ETag", feed.tag)
                self.end_headers()
                if status == 200:
                    self.wfile.write(feed.text.encode())

            def log_message(self, *_: object) -> None:
                pass

        self.server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        self.server.daemon_threads = True
        threading.Thread(
            target=self.server.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True
        ).start()
        self.url = f"http://127.0.0.1:{self.server.server_address[1]}/list.csv"


@pytest.fixture
def feed() -> Iterator[Feed]:
    found = Feed()
    yield found
    found.server.shutdown()
    found.server.server_close()


def test_a_feed_is_asked_only_whether_it_has_changed(
    tmp_path: Path, feed: Feed, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("NOMARIUM_CACHE", str(tmp_path / "cache"))
    out = tmp_path / "out.ics"
    assert nomarium("build", feed.url, "-o", out).status == 0
    before = out.read_bytes()
    assert nomarium("build", feed.url, "-o", out).status == 0
    assert feed.asked == [("", 200), ('"1"', 304)] and len(events_in(out)) == 2
    feed.text, feed.tag = LIST + "\nPaint,2026-11-14", '"2"'
    assert nomarium("build", feed.url, "-o", out).status == 0 and len(events_in(out)) == 3
    feed.status = 500
    before = out.read_bytes()
    ran = nomarium("build", feed.url, "-o", out)
    assert ran.status == 1 and "the server answers 500" in ran.text and out.read_bytes() == before
    assert all(feed.url.encode() not in path.read_bytes() for path in (tmp_path / "cache").iterdir())
    monkeypatch.setenv("NOMARIUM_CACHE", "off")
    feed.status = 200
    assert nomarium("build", feed.url, "-o", out).status == 0 and feed.asked[-1] == ("", 200)


def test_a_feed_is_watched(tmp_path: Path, feed: Feed) -> None:
    with watching(tmp_path, feed.url, "-o", "out.ics", "--every", "1s") as watch:
        watch.until("Wrote 2 events")
        feed.text, feed.tag = LIST + "\nPaint,2026-11-14", '"2"'
        watch.until("Wrote 3 events")
        feed.status = 503
        watch.until("the server answers 503")
        feed.status = 200
        time.sleep(1.5)
        assert watch.stop() == 130
    assert sum("Wrote" in line for line in watch.lines) == 2, watch.lines
    assert len(events_in(tmp_path / "out.ics")) == 3


@pytest.mark.parametrize(
    ("arguments", "said"),
    [
        (("list.csv", "-o", "-"), "Name a file"),
        (("-", "-o", "out.ics"), "be watched"),
        (("list.csv", "-o", "out.ics", "--every", "soon"), "--every"),
        (("nowhere/list.csv", "-o", "out.ics"), "There is no folder"),
        (("list.csv", "-o", "out.ics", "--json"), "--json"),
    ],
)  # fmt: skip
def test_what_makes_no_sense_is_refused(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, arguments: tuple[str, ...], said: str
) -> None:
    csv_file(tmp_path, LIST, "list.csv")
    monkeypatch.chdir(tmp_path)
    ran = nomarium("watch", *arguments)
    assert ran.status == 2 and said in ran.text


def test_the_examples_of_the_documents(tmp_path: Path) -> None:
    from nomarium.cli.demo import write_samples

    root = Path(__file__).parents[1]
    write_samples(tmp_path)
    lines = [
        line
        for path in (root / "README.md", root / "docs/sharing.md")
        for line in path.read_text().splitlines()
    ]
    examples = [line for line in lines if line.startswith("nomarium watch")]
    assert examples
    for line in examples:
        with watching(tmp_path, *shlex.split(line)[2:]) as watch:
            watch.until("Wrote")
            assert watch.stop() == 130


def test_invitations_hold_what_has_guests(tmp_path: Path) -> None:
    head = "Event,Date,Organizer,Attendees"
    rows = ["Regatta,2026-12-05,a@s.example,b@s.example; c@s.example", "Storm day,2026-12-06,,"]
    source = csv_file(tmp_path, "\n".join([head, *rows]))
    out = tmp_path / "invitations.ics"
    ran = nomarium("build", source, "-o", out, "--method", "request")
    assert (
        ran.status == 0
        and "1 event has no guests" in ran.text
        and "2 rows read = 1 event + 1 left out" in ran.text
    )
    assert b"METHOD:REQUEST\r\n" in out.read_bytes() and [str(one["SUMMARY"]) for one in events_in(out)] == [
        "Regatta"
    ]
    csv_file(tmp_path, "\n".join([head, rows[0].replace("a@s.example", "")]))
    ran = nomarium("build", source, "-o", out, "--method", "request")
    assert ran.status == 1 and "nobody who invites them" in ran.text and "column C" in ran.text
    assert (
        nomarium("build", source, "-o", out, "--method", "request", "--set", "organizer=a@s.example").status
        == 0
    )
    assert nomarium("build", source, "-o", tmp_path / "o.csv", "--method", "request").status == 2
    assert nomarium("build", source, "-o", out, "--method", "cancel").status == 2
