"""`python -m benchmarks [--rows N] [--large] [--instructions]`: every figure from this run."""

from __future__ import annotations

import argparse
import os
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path
from statistics import median
from typing import NamedTuple

from benchmarks.data import write_csv, write_ods, write_xlsx

PYTHON = sys.executable
ZONE = ["--timezone", "America/Halifax"]


class Cost(NamedTuple):
    """What one process took."""

    cpu_secs: float
    peak_mb: float


def cost_of(command: Sequence[str], output: Path) -> Cost:
    """Run a command on a fresh output and read the operating system's account of it."""
    output.unlink(missing_ok=True)
    null = os.open(os.devnull, os.O_WRONLY)
    # bytecode as an installed program has it
    environment = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    actions = [(os.POSIX_SPAWN_DUP2, null, 1), (os.POSIX_SPAWN_DUP2, null, 2)]
    child = os.posix_spawn(command[0], list(command), environment, file_actions=actions)
    _, status, usage = os.wait4(child, 0)
    os.close(null)
    if status:
        raise SystemExit(f"{' '.join(command)} ended with {status}")
    return Cost(usage.ru_utime + usage.ru_stime, usage.ru_maxrss / 1024)


def middle(command: Sequence[str], output: Path, times: int) -> Cost:
    """The median of several runs, after one that is not counted."""
    cost_of(command, output)
    costs = [cost_of(command, output) for _ in range(times)]
    return Cost(median(c.cpu_secs for c in costs), median(c.peak_mb for c in costs))


def instructions(command: Sequence[str], output: Path) -> float | None:
    """Millions of instructions under valgrind, which do not move with the machine's load."""
    if not shutil.which("valgrind"):
        return None
    environment = {k: v for k, v in os.environ.items() if k != "PYTHONDONTWRITEBYTECODE"}
    output.unlink(missing_ok=True)
    tool = ["valgrind", "--tool=callgrind", "--callgrind-out-file=/dev/null", *command]
    run = subprocess.run(tool, capture_output=True, text=True, check=False, env=environment)
    found = re.search(r"Collected : (\d+)", run.stderr)
    return int(found[1]) / 1e6 if found else None


def ours(source: Path, output: Path) -> list[str]:
    return [PYTHON, "-m", "nomarium", "build", str(source), "-o", str(output), *ZONE]


def peer(name: str, source: Path, output: Path) -> list[str]:
    return [PYTHON, "-m", "benchmarks.peers", name, str(source), str(output)]


def main() -> None:
    parser = argparse.ArgumentParser(prog="python -m benchmarks")
    parser.add_argument("--rows", type=int, default=100_000)
    parser.add_argument("--runs", type=int, default=3)
    parser.add_argument("--large", action="store_true", help="also a million rows")
    parser.add_argument("--instructions", action="store_true", help="count instructions too (slow)")
    options = parser.parse_args()
    with tempfile.TemporaryDirectory() as name:
        compare(Path(name), options.rows, options.runs, options.large)
        start_up(Path(name), options.runs, options.instructions)
        if options.instructions:
            a_row(Path(name))


def compare(folder: Path, count: int, runs: int, large: bool) -> None:
    out = folder / "out.ics"
    kinds: list[tuple[str, str, Callable[[Path], None], tuple[str, ...]]] = [
        ("CSV", "list.csv", lambda path: write_csv(path, count), ("floor",)),
        ("CSV, adverse", "adverse.csv", lambda path: write_csv(path, count, adverse=True), ("floor",)),
        (".xlsx", "list.xlsx", lambda path: write_xlsx(path, count), ("cells", "floor")),
        (".ods", "list.ods", lambda path: write_ods(path, count), ("cells", "floor")),
    ]
    few = max(count // 20, 1)
    write_csv(folder / "few.csv", few)
    slow = middle(peer("pipeline", folder / "few.csv", out), out, 1).cpu_secs / few
    print(f"{count:,} rows; CPU seconds and peak memory, medians of {runs} runs")
    print(f"{'source':14} {'ours':>16} {'yardstick':>24} {'ratio':>7} {'events/s':>10} {'x pipeline':>10}")
    for label, file, write, names in kinds:
        source = folder / file
        write(source)
        mine = middle(ours(source, out), out, runs)
        rate = count / mine.cpu_secs
        for name in names:
            other = middle(peer(name, source, out), out, runs)
            print(
                f"{label:14} {mine.cpu_secs:7.2f} s {mine.peak_mb:4.0f} MB {name:>8} {other.cpu_secs:6.2f} s "
                f"{other.peak_mb:4.0f} MB {mine.cpu_secs / other.cpu_secs:6.2f} {rate:10,.0f} {rate * slow:10.0f}"
            )
    if large:
        write_csv(folder / "large.csv", 1_000_000)
        cost = cost_of(ours(folder / "large.csv", out), out)
        print(f"{'CSV, million':14} {cost.cpu_secs:7.2f} s {cost.peak_mb:4.0f} MB")
    print(f"(pipeline: {1 / slow:,.0f} events/s over {few:,} rows)")


def a_row(folder: Path) -> None:
    """Thousands of instructions for each row beyond the first, ours and the yardsticks'."""
    out, one = folder / "out.ics", folder / "one"
    kinds: list[tuple[str, str, Callable[[Path, int], None], tuple[str, ...]]] = [
        ("CSV", ".csv", write_csv, ("floor", "pipeline")),
        ("CSV, adverse", ".csv", lambda path, count: write_csv(path, count, adverse=True), ("floor",)),
        (".xlsx", ".xlsx", write_xlsx, ("cells", "floor")),
        (".ods", ".ods", write_ods, ("cells", "floor")),
    ]
    print("\nthousands of instructions a row")
    for label, ending, write, names in kinds:
        few, many = one.with_suffix(ending), folder / f"many{ending}"
        write(few, 1)
        told = [label.ljust(14)]
        for name in ("ours", *names):
            count = 1_000 if name == "pipeline" else 20_000
            write(many, count)
            low, high = (
                instructions(ours(source, out) if name == "ours" else peer(name, source, out), out) or 0
                for source in (few, many)
            )
            told.append(f"{name} {(high - low) * 1e3 / (count - 1):,.1f}")
        print("  ".join(told))


def start_up(folder: Path, runs: int, count_instructions: bool) -> None:
    out = folder / "out.ics"
    write_csv(folder / "one.csv", 1)
    write_csv(folder / "thousand.csv", 1_000)
    commands = {
        "bare interpreter": [PYTHON, "-c", "pass"],
        # as a console script runs it: `-m` alone, or an older pip's script with its `import re`, costs 17 to 26 M
        "--version": [PYTHON, "-c", "from nomarium.__main__ import main; main()", "--version"],
        "--help": [PYTHON, "-m", "nomarium", "--help"],
        "build, 1 row": ours(folder / "one.csv", out),
        "build, 1,000 rows": ours(folder / "thousand.csv", out),
    }
    print("\nwhole process")
    for label, command in commands.items():
        cost = middle(command, out, runs)
        counted = instructions(command, out) if count_instructions else None
        print(
            f"{label:20} {cost.cpu_secs * 1000:6.0f} ms"
            + (f" {counted:8.0f} M instructions" if counted else "")
        )


if __name__ == "__main__":
    main()
