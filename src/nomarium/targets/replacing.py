"""Files replaced whole: written beside their place and renamed into it, so that a failure leaves the old one."""

import os
from collections.abc import Callable
from itertools import count
from pathlib import Path
from typing import BinaryIO, NamedTuple


class WrittenFile(NamedTuple):
    """A file of a build."""

    name: str
    event_count: int
    value: str = ""
    """The value of the split field that its events have."""


def replace_file(path: Path, write: Callable[[BinaryIO], object]) -> None:
    """Write a file beside `path` and rename it into place; `write` gets the open binary file."""
    part, file = part_file(path.parent)
    try:
        with file:
            write(file)
        if path.exists():
            part.chmod(path.stat().st_mode & 0o777)
        part.replace(path)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


_part_numbers = count()
"""Goes on where the last search for a free name ended: a thousand files would otherwise be a million tries."""


def part_file(folder: Path) -> tuple[Path, BinaryIO]:
    """A new file in a folder, open for writing, that no other run has."""
    for number in _part_numbers:
        path = folder / f".nomarium-{os.getpid()}-{number}.part"
        try:
            return path, path.open("xb", buffering=1 << 17)
        except FileExistsError:
            continue
    raise AssertionError("count() does not end")
