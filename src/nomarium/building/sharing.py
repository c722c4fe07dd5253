"""Work shared out among processes: each takes over everything read so far and gives back what it made.

A process of its own begins as a copy of this one (a fork), so nothing has to be sent to it; what it
returns must be picklable. Where a system cannot fork, the caller does the work itself.
"""

import os
import signal
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any, TypeVar

if TYPE_CHECKING:
    from multiprocessing.connection import Connection

Share = TypeVar("Share")
Result = TypeVar("Result")
Tell = Callable[[int], None]
"""Called now and then with how much of a share is done."""


def can_share() -> bool:
    """Whether this system can copy a process."""
    return hasattr(os, "fork")


def shared_out(
    job: Callable[[Share, Tell], Result], shares: Sequence[Share], progress: Tell | None
) -> list[Result]:
    """What `job` makes of each share, in their order, each in a process of its own.

    `progress` gets the sum of what the jobs tell. Raises what the first failed job raised, after all ended.
    """
    from multiprocessing import get_context
    from multiprocessing.connection import wait

    context = get_context("fork")
    ends, processes = list["Connection"](), []
    results: dict[int, Result] = {}
    failed: dict[int, BaseException] = {}
    done = [0] * len(shares)
    try:
        for share in shares:
            end, far_end = context.Pipe(duplex=False)
            ends.append(end)
            # a copy of this process has its open ends, too, and would keep itself from seeing that this one is gone
            process = context.Process(target=_work, args=(job, share, far_end, progress is not None, [*ends]))
            process.start()
            far_end.close()
            processes.append(process)
        while waiting := [end for n, end in enumerate(ends) if n not in results and n not in failed]:
            for ready in wait(waiting):
                n = next(k for k, end in enumerate(ends) if end is ready)
                kind, value = _received(ends[n], n)
                if kind == "made":
                    results[n] = value
                elif kind == "failed":
                    failed[n] = value
                elif progress is not None:
                    done[n] = value
                    progress(sum(done))
    finally:  # after an interruption nothing that they may still make is wanted
        for process in processes:
            if len(results) + len(failed) < len(shares):
                process.terminate()
            process.join()
    if failed:
        raise failed[min(failed)]
    return [results[n] for n in range(len(shares))]


def _received(end: "Connection", number: int) -> tuple[str, Any]:
    try:
        answer: tuple[str, Any] = end.recv()
    except EOFError:
        return "failed", ChildProcessError(f"worker {number + 1} ended before its work was done")
    return answer


def _work(
    job: Callable[[Share, Tell], Result],
    share: Share,
    end: "Connection",
    tells: bool,
    inherited: "Sequence[Connection]",
) -> None:
    """Run in the new process: do one share and send what became of it. It ends when the first process does."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the first process is interrupted too, and ends this one
    for other in inherited:
        other.close()
    first = os.getppid()

    def tell(count: int) -> None:
        if os.getppid() != first:
            os._exit(1)
        if tells:
            end.send(("told", count))

    try:
        answer: tuple[str, object] = ("made", job(share, tell))
    except BaseException as error:
        answer = ("failed", error)
    try:
        end.send(answer)
    except BrokenPipeError:
        os._exit(1)
    end.close()
