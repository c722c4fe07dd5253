"""Small ugly files, each with one defect, and what the program makes of them (`tests/ugly/*.told`).

`python tests/ugly_files.py` shows what has changed, `python tests/ugly_files.py --keep` takes it as right: read it first.
The first line of a .told file holds the options of the build.
"""

from __future__ import annotations

import difflib
import sys
import tempfile
from pathlib import Path

from helpers import events_in, nomarium, plain

FOLDER = Path(__file__).with_name("ugly")
FILES = sorted(path for path in FOLDER.iterdir() if path.suffix != ".told")


def told_file(source: Path) -> Path:
    """Where it stands what becomes of a source."""
    return source.with_name(f"{source.name}.told")


def told(source: Path, options: str) -> str:
    """The events of a source and everything that is said of it."""
    with tempfile.TemporaryDirectory() as name:
        target = Path(name, "out.ics")
        outcome = nomarium("build", source, "-o", target, "--details", *options.split())
        events = [plain(event) for event in events_in(target)] if target.exists() else []
    said = outcome.text.replace(str(source), source.name).replace(str(target), "out.ics")
    return "\n".join([options, f"status {outcome.status}", *events, "", said])


def main() -> None:
    for source in FILES:
        path = told_file(source)
        before = path.read_text("utf-8") if path.exists() else "\n"
        after = told(source, before.splitlines()[0])
        if after != before:
            sys.stdout.writelines(
                difflib.unified_diff(before.splitlines(True), after.splitlines(True), path.name, "now")
            )
            if "--keep" in sys.argv:
                path.write_text(after, "utf-8")


if __name__ == "__main__":
    main()
