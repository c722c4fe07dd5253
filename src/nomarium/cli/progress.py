"""A count of events on a terminal while a long command runs; nothing in a pipe."""

import contextlib
import sys
import time
from collections.abc import Callable, Iterator

_PATIENCE_SECS = 1.0


@contextlib.contextmanager
def counting(doing: str = "Building") -> Iterator[Callable[[int], None] | None]:
    """A function to call with the number of events so far; it shows itself after about a second."""
    if not sys.stderr.isatty():
        yield None
        return
    began = time.monotonic()
    with contextlib.ExitStack() as stack:
        shown: list[Callable[[int], None]] = []

        def show(count: int) -> None:
            if not shown and time.monotonic() - began > _PATIENCE_SECS:
                shown.append(stack.enter_context(_bar(doing)))
            if shown:
                shown[0](count)

        yield show


@contextlib.contextmanager
def _bar(doing: str) -> Iterator[Callable[[int], None]]:
    from rich.console import Console
    from rich.progress import BarColumn, Progress, TextColumn, TimeElapsedColumn

    columns = (
        TextColumn(doing),
        BarColumn(),
        TextColumn("{task.completed:,} events"),
        TimeElapsedColumn(),
    )
    with Progress(*columns, console=Console(stderr=True), transient=True) as progress:
        task = progress.add_task("events", total=None)
        yield lambda count: progress.update(task, completed=count)
