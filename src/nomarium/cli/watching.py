"""What `watch` does between one build and the next: it waits for files to be saved, and asks feeds."""

import contextlib
import datetime as dt
import io
import sys
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from pathlib import Path
from typing import Final

import typer

from nomarium.cli.optionvalues import length_option, wrong
from nomarium.cli.render import problem_lines, say
from nomarium.cli.sources import feed_cache
from nomarium.exchange.fetch import fetch
from nomarium.model.addresses import shown_name
from nomarium.model.errors import NomariumError, UsageError

_READ: Final = ("sources", "recipe", "days_off", "people", "places", "terms", "without", "edited")
"""The options of a build that name files."""
_STEP_MSECS: Final = 400
_SETTLED_SECS: Final = 0.25
"""A file that has not changed for so long is saved whole."""
_LONGEST_SAVE_SECS: Final = 5.0


def keep_watch(every: str, values: Mapping[str, object], build: Callable[..., None]) -> None:
    """Build, and again for every change, until it is interrupted (exit status 130)."""
    from watchfiles import watch

    if values.get("output") == "-":
        raise wrong("watch builds again and again, and - is one stream.", "Name a file: -o OUT.ics")
    secs = length_option(every, "--every")
    if secs < 1:
        raise wrong(f"--every {every} is no time.", "Write it like 15m.")
    named = [text for name in _READ for text in _texts(values.get(name))]
    if "-" in named:
        raise wrong("Standard input can be read once, and not be watched.", "Name a file.")
    feeds = [one for one in named if "://" in one]
    files = [Path(one).absolute() for one in named if "://" not in one]
    folders = sorted({str(path if path.is_dir() else path.parent) for path in files})
    for folder in folders:
        if not Path(folder).is_dir():
            raise wrong(f"There is no folder {shown_name(folder)}.", "Check the sources.")
    marks = _marks(files)
    _build(build, values)
    asked = time.monotonic()
    try:
        watched = (
            watch(
                *folders,
                debounce=200,
                step=50,
                rust_timeout=_STEP_MSECS,
                yield_on_timeout=True,
                recursive=False,
            )
            if folders
            else _ticks()
        )
        for _ in watched:
            if _marks(files) != marks:
                marks = _settled(files)
                _build(build, values)
            if feeds and time.monotonic() - asked >= secs:
                asked = time.monotonic()
                if _have_changed(feeds):
                    _build(build, values)
    except KeyboardInterrupt:
        raise typer.Exit(130) from None


def _texts(value: object) -> list[str]:
    return [str(one) for one in value] if isinstance(value, list) else [str(value)] if value else []


def _ticks() -> Iterator[None]:
    """Nothing but time, where there is no file to watch."""
    while True:
        time.sleep(_STEP_MSECS / 1000)
        yield None


def _marks(files: Sequence[Path]) -> dict[str, tuple[int, int, int]]:
    """What tells one state of files from another; a file that is not there has none."""
    found = {}
    for path in files:
        for one in sorted(path.iterdir()) if path.is_dir() else [path]:
            with contextlib.suppress(OSError):
                state = one.stat()
                found[str(one)] = state.st_mtime_ns, state.st_size, state.st_ino
    return found


def _settled(files: Sequence[Path]) -> dict[str, tuple[int, int, int]]:
    """The state of files once nobody is writing them any more: editors save in pieces, or by another file and its renaming."""
    began, before = time.monotonic(), _marks(files)
    while time.monotonic() - began < _LONGEST_SAVE_SECS:
        time.sleep(_SETTLED_SECS)
        now = _marks(files)
        if now == before and all(path.exists() for path in files):
            break
        before = now
    return _marks(files)


def _have_changed(feeds: Sequence[str]) -> bool:
    """Whether some address holds another thing than when it was last asked; one that cannot be had has not changed, and a line
    says so."""
    changed = False
    for address in feeds:
        try:
            changed |= fetch(address, io.BytesIO(), time.monotonic, feed_cache())
        except NomariumError as error:
            _line(error.problem.message)
    return changed


def _build(build: Callable[..., None], values: Mapping[str, object]) -> None:
    """Build once and say in a line what came of it."""
    out, err = io.StringIO(), io.StringIO()
    status = 0
    try:
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            build(**values)
    except typer.Exit as end:
        status = end.exit_code
    except UsageError:
        raise
    except NomariumError as error:
        status = 1
        err.write("\n".join(problem_lines(error.problem)))
    except OSError as error:
        status = 1
        err.write(f"{error.filename or ''}: {error.strerror or error}")
    said = out.getvalue().splitlines()
    if status == 0:
        told = [line for line in said if line.startswith(("Wrote ", "Since the last build: "))]
        _line("; ".join(told) or "Built.")
        return
    kept = [line for line in said if line.startswith("Wrote ")]
    _line("Refused; what was there stays." if not kept else "; ".join(kept))
    for line in [
        line for line in err.getvalue().splitlines() if line and not line.startswith("Nothing was written")
    ][:12]:
        say(f"    {line}")
    sys.stdout.flush()


def _line(text: str) -> None:
    say(f"{dt.datetime.now():%H:%M:%S}  {text}")
    sys.stdout.flush()
