"""A district's plan of any size: teachers × 6 classes a day × 180 school days, into one file a teacher.

Run as `python -m benchmarks.district [TEACHERS]`; by one process and by
one a processor: wall and CPU time, and the peak memory of the largest process.
"""

from __future__ import annotations

import os
import shutil
import sys
import tempfile
import time
from pathlib import Path

from benchmarks.__main__ import PYTHON, cost_of

SCHOOL_DAYS = 180


def write_plan(folder: Path, teachers: int) -> None:
    """Write the plan of a district: each teacher has a class in each of six periods, every day."""
    folder.mkdir()
    classes = "".join(
        f"C{n}-{period},,{period},Room {n},Teacher {n},Group {n % 40}\n"
        for n in range(1, teachers + 1)
        for period in range(1, 7)
    )
    tables = {
        "settings": "Setting,Value\nTime zone,America/Halifax\nJoin periods,no\n",
        "terms": "Name,First day,Last day\nYear,2026-09-07,2027-05-14\n",
        "cycle": "Label\n" + "".join(f"{label}\n" for label in "ABCDEF"),
        "bells": "Period,Start,End\n" + "".join(f"{n},{7 + n}:00,{7 + n}:50\n" for n in range(1, 7)),
        "timetable": "Class,Label,Period,Room,Teacher,Group\n" + classes,
    }
    for name, text in tables.items():
        (folder / f"{name}.csv").write_text(text, "utf-8")


def main() -> None:
    sizes = [int(text) for text in sys.argv[1:]] or [10, 100]
    for teachers in sizes:
        with tempfile.TemporaryDirectory() as name:
            source, target = Path(name) / "year", Path(name) / "out"
            write_plan(source, teachers)
            meetings = teachers * 6 * SCHOOL_DAYS
            for workers in (1, os.cpu_count() or 1):
                shutil.rmtree(target, ignore_errors=True)
                words = f"build {source} -o {target} --split-by teacher --workers {workers}".split()
                began = time.monotonic()
                cost = cost_of([PYTHON, "-m", "nomarium", *words], Path(name) / "nothing")
                wall_secs = time.monotonic() - began
                each = cost.cpu_secs / meetings * 1e6
                print(
                    f"{meetings:,} meetings into {len(list(target.glob('*.ics'))):,} files, {workers} processes: "
                    f"{wall_secs:.1f} s, CPU {cost.cpu_secs:.1f} s, {each:.0f} us a meeting, {cost.peak_mb:.0f} MB"
                )


if __name__ == "__main__":
    main()
