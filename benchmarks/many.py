"""Many schools at once: 200 plans of a school year each, by one process, by two, and by a cluster of two workers on loopback.

Run as `python -m benchmarks.many [PLANS]`; wall time, and whether the files are the same.
"""

from __future__ import annotations

import contextlib
import filecmp
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

from benchmarks.__main__ import PYTHON
from benchmarks.district import write_plan

TEACHERS = 3
CLUSTER = """
import sys
from distributed import LocalCluster
if __name__ == "__main__":
    with LocalCluster(n_workers=2, threads_per_worker=1, host="127.0.0.1", dashboard_address=None) as cluster:
        print(cluster.scheduler_address, flush=True)
        sys.stdin.readline()
"""


@contextlib.contextmanager
def scheduler(folder: Path) -> Iterator[str]:
    process = subprocess.Popen(
        [PYTHON, "-c", CLUSTER], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, cwd=folder
    )
    assert process.stdin is not None and process.stdout is not None
    try:
        yield process.stdout.readline().strip()
    finally:
        process.stdin.write("\n")
        process.stdin.close()
        process.wait(30)


def main() -> None:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        plans = [folder / f"school-{n}" for n in range(count)]
        for plan in plans:
            write_plan(plan, TEACHERS)
        environment = {**os.environ, "NOMARIUM_HISTORY": "off", "SOURCE_DATE_EPOCH": "1790000000"}
        with scheduler(folder) as address:
            ways = {
                "one process": [],
                "two processes": ["--workers", "2"],
                "a cluster of two": ["--scheduler", address],
            }
            for way, more in ways.items():
                out = folder / way.replace(" ", "-")
                began = time.perf_counter()
                command = [
                    PYTHON,
                    "-m",
                    "nomarium",
                    "build",
                    *map(str, plans),
                    "-o",
                    str(out),
                    "--each",
                    *more,
                ]
                subprocess.run(command, env=environment, check=True, stdout=subprocess.DEVNULL)
                taken = time.perf_counter() - began
                same = filecmp.cmpfiles(
                    folder / "one-process", out, [one.name for one in out.iterdir()], shallow=False
                )
                alike = "the same files" if len(same[0]) == count else "OTHER FILES"
                print(f"{way}: {count} plans in {taken:.1f} s, {count / taken:.1f} a second; {alike}")


if __name__ == "__main__":
    main()
