"""Many jobs that know nothing of each other, done by whoever there is: the order of what comes back is theirs."""

from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Executor
from typing import TypeVar

_Job = TypeVar("_Job")
_Done = TypeVar("_Done")


def run_jobs(
    work: Callable[[_Job], _Done], jobs: Sequence[_Job], executor: Executor | None
) -> Iterator[_Done]:
    """What comes of each job, in their order; one after another where there is no executor."""
    if executor is None:
        yield from map(work, jobs)
        return
    running = [executor.submit(work, job) for job in jobs]
    try:
        for future in running:
            yield future.result()
    finally:
        for future in running:
            future.cancel()
