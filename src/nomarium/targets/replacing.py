"""Files replaced whole: written beside their place and renamed into it, so that a failure leaves the old one."""

import contextlib
import os
import re
import shutil
import zlib
from collections.abc import Callable
from itertools import count
from pathlib import Path
from typing import BinaryIO, Final, NamedTuple, TypeVar

Made = TypeVar("Made")


class WrittenFile(NamedTuple):
    """A file of a build."""

    name: str
    event_count: int
    value: str = ""
    """The value of the split field that its events have."""


def replace_file(path: Path, write: Callable[[BinaryIO], object]) -> None:
    """Write a file beside `path` and rename it into place; `write` gets the open binary file. Of a symbolic link the file
    that it points at is replaced. Raises OSError, and leaves the old file whole."""
    if path.is_symlink():
        path = Path(os.path.realpath(path))
    part, file = part_file(path.parent)
    try:
        with file:
            write(file)
        if path.exists():
            _as_before(path.stat(), part)
        part.replace(path)
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def _as_before(old: os.stat_result, part: Path) -> None:
    """Give a new file the owner and the mode of the one that it replaces, as far as that is allowed."""
    new = part.stat()
    if hasattr(os, "chown") and (old.st_uid, old.st_gid) != (new.st_uid, new.st_gid):
        with contextlib.suppress(PermissionError):
            os.chown(part, old.st_uid, old.st_gid)
    part.chmod(old.st_mode & 0o777)


_part_numbers = count()
"""Goes on where the last search for a free name ended: a thousand files would otherwise be a million tries."""
_PART: Final = re.compile(r"\.nomarium-([0-9a-f]{8})-(\d+)-\d+\.part")
_MACHINE: Final = f"{zlib.crc32(os.uname().nodename.encode() if hasattr(os, 'uname') else b''):08x}"
"""Process numbers mean something on one machine only, and folders are shared."""
_swept: set[Path] = set()


def part_file(folder: Path) -> tuple[Path, BinaryIO]:
    """A new file in a folder, open for writing, that no other run has."""
    return _new_part(folder, lambda path: path.open("xb", buffering=1 << 17))


def part_folder(folder: Path) -> Path:
    """A new folder in a folder, that no other run has."""
    return _new_part(folder, lambda path: path.mkdir(0o700))[0]


def _new_part(folder: Path, make: Callable[[Path], Made]) -> tuple[Path, Made]:
    if folder not in _swept and not _PART.fullmatch(
        folder.name
    ):  # what is in a folder of ours belongs to its run
        _swept.add(folder)
        _sweep(folder)
    for number in _part_numbers:
        path = folder / f".nomarium-{_MACHINE}-{os.getpid()}-{number}.part"
        try:
            return path, make(path)
        except FileExistsError:
            continue
    raise AssertionError("count() does not end")


def _sweep(folder: Path) -> None:
    """Remove what runs that were killed have left in a folder: our own parts, whose process on this machine is gone."""
    with contextlib.suppress(OSError):
        for entry in list(os.scandir(folder)):
            match = _PART.fullmatch(entry.name)
            if match is None or match[1] != _MACHINE or entry.is_symlink() or _is_running(int(match[2])):
                continue
            if entry.is_dir(follow_symlinks=False):
                shutil.rmtree(entry.path, ignore_errors=True)
            else:
                Path(entry.path).unlink()


def _is_running(process: int) -> bool:
    """Whether there may be a process of this number: yes where that cannot be told."""
    if os.name != "posix":  # signal 0 is Ctrl-C elsewhere
        return True
    try:
        os.kill(process, 0)
    except (ProcessLookupError, OverflowError):
        return False
    except OSError:
        return True
    return True
