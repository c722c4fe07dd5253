"""`build --each`: every source a job of its own, one after another, in processes, or on other machines."""

import contextlib
import os
import re
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Executor, ProcessPoolExecutor
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple, Protocol, cast

from nomarium.building.many import run_jobs
from nomarium.cli.asked import Asked
from nomarium.cli.buildreport import facts_of
from nomarium.cli.keptstates import keep_state
from nomarium.cli.main import use_own_zones
from nomarium.cli.onebuild import Said, one_build
from nomarium.cli.optionvalues import wrong
from nomarium.cli.render import as_json, problem_lines, say, say_json
from nomarium.cli.sources import calendar_name
from nomarium.model.errors import NomariumError
from nomarium.model.wording import counted
from nomarium.targets.replacing import WrittenFile

if TYPE_CHECKING:
    from nomarium.model.problem import Problem


_FILES = ("recipe", "days_off", "people", "places", "terms")
"""Options of reading that name files."""


class Job(NamedTuple):
    """One source and where its calendar goes."""

    source: str
    """As messages name it."""
    output: str
    asked: Asked
    said: Said
    environment: dict[str, str]
    """What of the environment a build looks at, which is another one on another machine."""


class Done(NamedTuple):
    """What came of a job: plain values, for it may have been done elsewhere."""

    source: str
    output: str
    is_written: bool
    event_count: int
    files: list[WrittenFile]
    changes: dict[str, int]
    facts: dict[str, object]
    said: list[str]
    """What there is to say of it: its problems, or what was written."""
    is_well: bool


class _Client(Protocol):
    """What of a Dask client is needed: an executor of the standard kind, and no more."""

    def __enter__(self) -> object: ...

    def __exit__(self, *ending: object) -> object: ...

    def get_executor(self) -> Executor: ...


def do_job(job: Job) -> Done:
    """Build one source, and print nothing: other jobs may be done in the same process. Whatever keeps it from being built is
    what there is to say of it."""
    os.environ.update(job.environment)
    use_own_zones()
    try:
        report = one_build(job.output, job.asked, job.said)
    except NomariumError as error:
        return _failed(job, [error.problem], problem_lines(error.problem))
    except OSError as error:
        return _failed(job, [], [f"{error.filename or job.source}: {error.strerror or error}"])
    lines = [line for problem in report.problems for line in problem_lines(problem)]
    if not lines:
        verb = "wrote" if report.is_written else "would write"
        changed = ", ".join(f"{count:,} {what}" for what, count in report.changes.items() if count)
        since = f" (since the last build: {changed})" if changed else ""
        lines = [f"{verb} {counted(report.event_count, 'event')} to {job.output}{since}"]
    return Done(
        job.source, job.output, report.is_written, report.event_count, list(report.files), report.changes, _plain(facts_of(report)),
        lines, not report.problems,
    )  # fmt: skip


def _plain(facts: dict[str, object]) -> dict[str, object]:
    return {name: as_json(value) for name, value in facts.items()}


def _failed(job: Job, problems: "list[Problem]", lines: list[str]) -> Done:
    facts: dict[str, object] = {"problems": as_json(problems), "written": False}
    return Done(job.source, job.output, False, 0, [], {}, facts, lines, False)


def build_each(output: str, asked: Asked, said: Said, scheduler: str | None, json: bool) -> int:
    """Build every source by itself and say what came of each; the exit status."""
    jobs = _jobs(output, asked, said, is_elsewhere=scheduler is not None)
    done = list[Done]()
    with _executor(said.workers, scheduler) as executor:
        for one in run_jobs(do_job, jobs, executor):
            done.append(one)
            told = keep_state(one.output, one, [one.source], asked.but(sources=None).said())
            if not json:
                _say(one)
                if told:
                    say(told)
    failed = [one for one in done if not one.is_well]
    if json:
        say_json(
            {
                "jobs": [
                    {"source": one.source, "output": one.output, "ok": one.is_well, **one.facts}
                    for one in done
                ]
            }
        )
    else:
        events = sum(one.event_count for one in done if one.is_written)
        text = f"{counted(len(done) - len(failed), 'source')} of {len(done):,} built, with {counted(events, 'event')}, into {output}"
        say(f"{text}; refused: {', '.join(one.source for one in failed)}" if failed else text)
    return 1 if failed else 0


def _say(one: Done) -> None:
    if one.is_well:
        say(f"{one.source}: {one.said[0]}")
        return
    say(f"{one.source}: refused")
    for line in one.said:
        say(f"    {line}")


def _jobs(output: str, asked: Asked, said: Said, is_elsewhere: bool) -> list[Job]:
    """A job for each source, its calendar in the folder, called as the source is. Raises UsageError where that cannot be."""
    if not asked.named:
        raise wrong("There is no SOURCE to build from.", "Name spreadsheets, plans or calendar files.")
    folder = Path(output)
    if (
        output == "-"
        or folder.is_file()
        or folder.suffix.lower() in (".ics", ".json", ".csv", ".xlsx", ".html")
    ):
        raise wrong(
            f"--each makes a calendar of each source, and {output} is one file.",
            "Give a folder: -o calendars/",
        )
    for option, value in (("--rejects", said.rejects), ("--edited", said.edited), ("--name", said.name)):
        if value:
            raise wrong(
                f"{option} is about one calendar, and --each makes several.", "Build that one by itself."
            )
    if "-" in asked.named:
        raise wrong("Standard input cannot be one of several jobs.", "Save it as a file first.")
    folder.mkdir(parents=True, exist_ok=True)
    inside = said._replace(workers=1)
    names = _names(asked.named)
    environment = {
        name: value for name, value in os.environ.items()
        if name == "SOURCE_DATE_EPOCH" or (name.startswith("NOMARIUM_") and name not in ("NOMARIUM_PASSWORD", "NOMARIUM_USER"))
    }  # fmt: skip
    jobs = []
    for source, name in zip(asked.named, names, strict=True):
        target = str(folder / name if said.split_by else folder / f"{name}.ics")
        one = asked.but(sources=[source])
        if is_elsewhere:  # in another working folder
            target, one = _absolute(target), one.but(sources=[_absolute(source)], **_absolute_files(asked))
            inside = inside._replace(without=[_absolute(path) for path in said.without or ()] or None)
        jobs.append(Job(source, target, one, inside, environment))
    return jobs


def _absolute(name: str) -> str:
    return name if "://" in name else str(Path(name).absolute())


def _absolute_files(asked: Asked) -> dict[str, object]:
    """The files that reading options name, wherever the job is done."""
    found: dict[str, object] = {}
    for option in _FILES:
        value = getattr(asked, option)
        if isinstance(value, list):
            found[option] = [_absolute(one) for one in value]
        elif value:
            found[option] = _absolute(value)
    return found


def _names(sources: Sequence[str]) -> list[str]:
    """What the calendar of each source is called: as it is; those of one name with their folder's before it."""
    plain = [calendar_name([source], "-") for source in sources]
    often = Counter(name.casefold() for name in plain)
    named = []
    for source, name in zip(sources, plain, strict=True):
        parent = "" if "://" in source else Path(source).resolve().parent.name
        named.append(f"{parent}-{name}" if often[name.casefold()] > 1 and parent else name)
    again = Counter(name.casefold() for name in named)
    numbers = Counter[str]()
    found = []
    for name in named:
        key = name.casefold()
        numbers[key] += 1
        found.append(f"{name}-{numbers[key]}" if again[key] > 1 else name)
    return found


@contextlib.contextmanager
def _executor(workers: int | None, scheduler: str | None) -> "Iterator[Executor | None]":
    """Who does the jobs: this process, several on this machine, or those of a scheduler."""
    if scheduler is not None:
        with _cluster(scheduler) as executor:
            yield executor
    elif workers is not None and workers > 1:
        with ProcessPoolExecutor(max_workers=workers) as pool:
            yield pool
    else:
        yield None


@contextlib.contextmanager
def _cluster(address: str) -> Iterator[Executor]:
    if not re.fullmatch(r"(?:tcp|tls|ucx|ws|wss)://[^\s/]+(?:/.*)?", address):
        raise wrong(
            f"--scheduler {address} is no address of a scheduler.", "Write it like tcp://10.0.0.5:8786."
        )
    try:
        from distributed import Client
    except ImportError:
        raise wrong("--scheduler needs the package distributed.", "pip install nomarium[cluster]") from None
    try:
        client: _Client = cast("Callable[..., _Client]", Client)(address, timeout=10)
    except (OSError, TimeoutError) as error:
        raise wrong(
            f"No scheduler answers at {address}.", "Check the address, and that it runs: dask scheduler."
        ) from error
    with client:
        yield client.get_executor()
