"""The recurrence engine and the calendar reader beside dateutil and the icalendar library, in one process.

Run as `python -m benchmarks.engine`; every figure is CPU time from this run.
"""

from __future__ import annotations

import datetime as dt
import gc
import io
import random
import resource
import sys
import tempfile
import time
from collections.abc import Callable
from contextlib import redirect_stdout
from itertools import islice
from pathlib import Path

_FIRST = dt.datetime(2026, 9, 7, 9)
_LAST = dt.datetime(2027, 9, 6, 23, 59, 59)
_DAYS = ("MO", "TU", "WE", "TH", "FR")


def school_rules(count: int) -> list[str]:
    """Rules as a school has them: three in four weekly, the rest daily, fortnightly, monthly."""
    chance = random.Random(11)
    found = []
    for _ in range(count):
        kind = chance.random()
        if kind < 0.75:
            days = ",".join(sorted(chance.sample(_DAYS, chance.choice((1, 1, 2, 3))), key=_DAYS.index))
            found.append(f"FREQ=WEEKLY;BYDAY={days}")
        elif kind < 0.8:
            found.append("FREQ=DAILY")
        elif kind < 0.9:
            found.append(f"FREQ=WEEKLY;INTERVAL=2;BYDAY={chance.choice(_DAYS)}")
        else:
            found.append(f"FREQ=MONTHLY;BYDAY={chance.choice((1, 2, 3, -1))}{chance.choice(_DAYS)}")
    return found


def by_us(texts: list[str], most: int | None = None) -> int:
    from nomarium.reckoning.rules import parse_rule
    from nomarium.reckoning.starts import starts

    total = 0
    for text in texts:
        rule = parse_rule(text)
        total += len(list(islice(starts(rule, _FIRST, last_day=None if most else _LAST.date()), most)))  # type: ignore[arg-type]
    return total


def by_dateutil(texts: list[str], most: int | None = None) -> int:
    from dateutil.rrule import rrulestr

    until = "" if most else f";UNTIL={_LAST:%Y%m%dT%H%M%S}"
    return sum(len(list(islice(rrulestr(text + until, dtstart=_FIRST), most))) for text in texts)


def cpu_of(work: Callable[[], object], times: int = 3) -> float:
    """The least CPU time of several runs, in seconds."""
    work()
    costs = []
    for _ in range(times):
        begun = time.process_time()
        work()
        costs.append(time.process_time() - begun)
    return min(costs)


def floor_of_parsing(data: bytes) -> int:
    """What reading cannot go below in plain Python: lines cut at their colons into dictionaries."""
    count = 0
    for block in data.decode().split("BEGIN:VEVENT\r\n")[1:]:
        values = {}
        for line in block.replace("\r\n ", "").split("\r\n"):
            head, _, value = line.partition(":")
            values[head.partition(";")[0]] = value
        digits = values["DTSTART"]
        dt.datetime(
            int(digits[:4]), int(digits[4:6]), int(digits[6:8]), int(digits[9:11]), int(digits[11:13])
        )
        count += 1
    return count


def main() -> None:
    gc.disable()  # as the program does
    weekly = [f"FREQ=WEEKLY;BYDAY={day}" for day in _DAYS] * 400
    for label, texts, most in (
        ("2,000 rules of a school, a year", school_rules(2000), None),
        ("2,000 weekly rules, a year", weekly, None),
        ("200 rules of 10,000 dates", school_rules(200), 10_000),
    ):
        few = texts[: len(texts) // 10]
        count, ours = by_us(texts, most), cpu_of(lambda t=texts, m=most: by_us(t, m))  # type: ignore[misc]
        begun = time.process_time()
        some = by_dateutil(few, most)
        theirs = (time.process_time() - begun) / some
        print(
            f"{label:34} {ours / count * 1e6:6.2f} us a date, dateutil {theirs * 1e6:6.2f}: {theirs / ours * count:5.1f} times"
        )
    read(int(sys.argv[1]) if len(sys.argv) > 1 else 100_000)


def read(count: int) -> None:
    """Parsing a calendar of `count` events."""
    import icalendar

    from benchmarks.data import write_csv
    from nomarium.cli.main import application
    from nomarium.ical.reader import read_calendar

    with tempfile.TemporaryDirectory() as name:
        source, target, few = Path(name) / "a.csv", Path(name) / "a.ics", Path(name) / "few.ics"
        for rows, path in ((count, target), (count // 50, few)):
            write_csv(source, rows)
            options = ["build", str(source), "-o", str(path), "--timezone", "America/Halifax", "--json"]
            with redirect_stdout(io.StringIO()):
                application(("build",))(options, standalone_mode=False)
        data, small = target.read_bytes(), few.read_bytes()
    floor = cpu_of(lambda: floor_of_parsing(data), 1) / count
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    begun = time.process_time()
    found = read_calendar(data, "a.ics")
    ours = (time.process_time() - begun) / count
    held = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    assert len(found.entries) == count
    theirs = cpu_of(lambda: icalendar.Calendar.from_ical(small), 1) / (count // 50)
    print(
        f"{'reading ' + format(count, ',') + ' events':34} {ours * 1e6:6.2f} us an event, the icalendar library "
        f"{theirs * 1e6:6.0f}: {theirs / ours:4.1f} times; floor {floor * 1e6:.1f}: {ours / floor:.1f} of it; held {held:.0f} MB"
    )


if __name__ == "__main__":
    main()
