"""One rule for every file that a command writes: it is none of those that it reads, and no two are one."""

import os
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from types import MappingProxyType
from typing import Final

from nomarium.cli.optionvalues import wrong
from nomarium.model.errors import UsageError

_CALENDARS = (".ics", ".json")
"""What may be source and output at once: a calendar that is brought up to date keeps its events' identities."""


_ENDINGS: Final[Mapping[str, tuple[str, ...]]] = MappingProxyType(
    {"--rejects": (".csv", ".xlsx"), "--save": (".toml",)}
)


def check_outputs(
    outputs: Mapping[str, str | None],
    sources: Sequence[str],
    others: Iterable[str | None] = (),
    updates: str = "",
) -> None:
    """Raises UsageError where a file of `outputs` (by the option that names it) is a source, one of the `others` that are
    read (recipes, lists of days off …), or another output, does not end as such a file does, or has no folder to be in.
    `updates` is the option whose file may be a source, if that is a calendar."""
    named = {option: file for option, file in outputs.items() if file and file != "-"}
    for option, file in named.items():
        endings = _ENDINGS.get(option, ())
        if endings and Path(file).suffix.lower() not in endings:
            raise wrong(f"{option} {file} does not end in {' or '.join(endings)}.", "Name it so.")
        folder = Path(os.path.realpath(file)).parent  # where a link points, too
        if (endings or Path(file).is_symlink()) and not folder.is_dir():
            raise wrong(f"{option} {file}: there is no folder {folder}.", "Make it first.")
    read = [(source, path) for source in sources for path in _files_of(source)]
    read_too = [(other, path) for other in others if other for path in _files_of(other)]
    for option, file in named.items():
        for source, path in read:
            is_update = option == updates and Path(file).suffix.lower() in _CALENDARS
            if not is_update and is_same(Path(file), path):
                raise _clash(option, file, f"the source {source}", "whose rows would be lost")
        for other, path in read_too:
            if is_same(Path(file), path):
                raise _clash(option, file, other, "which this command reads")
    pairs = list(named.items())
    for n, (option, file) in enumerate(pairs):
        for other, another in pairs[:n]:
            if is_same(Path(file), Path(another)):
                raise _clash(option, file, other, "and one would replace the other")


def _clash(option: str, file: str, what: str, why: str) -> UsageError:
    return wrong(f"{option} {file} is the same file as {what}, {why}.", "Name another file.")


def is_same(one: Path, other: Path) -> bool:
    """Whether two paths are one file, whatever they are called: by links, by another spelling, or not there yet."""
    try:
        return one.samefile(other)
    except OSError:
        return os.path.normcase(os.path.realpath(one)) == os.path.normcase(os.path.realpath(other))


def _files_of(source: str) -> list[Path]:
    """The files that a source is: those in a folder, too; none for standard input and addresses."""
    if source == "-" or "://" in source:
        return []
    path = Path(source)
    return [path, *(one for one in path.iterdir() if one.is_file())] if path.is_dir() else [path]
