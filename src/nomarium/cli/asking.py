"""Questions on the terminal: what a refusal names an option for, with what each answer would mean."""

import datetime as dt
import re
import sys
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Final, NamedTuple, get_args, get_origin

from nomarium.cli.asked import Asked, flag_of
from nomarium.cli.optionvalues import wrong
from nomarium.cli.render import problem_lines, say
from nomarium.model.errors import NomariumError
from nomarium.model.event import Event
from nomarium.model.problem import Problem
from nomarium.model.wording import counted

_MOST_QUESTIONS = 20
_SHOWN = 3
"""Events that show what an answer would mean."""
_NAMED = re.compile(r'--([a-z][a-z-]*)(?: (?:"([^"]*)"|([^\s,;()“”]+?)))?(?=[\s,;.:()]|$)')
_EXAMPLE = re.compile(
    r"\d{4}-\d\d-\d\d|\d{4}:\d{4}|\d{1,2}:\d\d-\d{1,2}:\d\d|…"
    r"|(?:^|=)(?:DATE|FILE|TITLE|TABLE|FIELD|CODE|ZONE|TEXT|FIRST:LAST)$|^HEADING="
)
"""What stands in a remedy for something that only the person knows."""


class Answer(NamedTuple):
    """An option that would settle a question."""

    flag: str
    """`--date-order`."""
    value: str
    """What would be given; nothing where the person must type it …"""
    example: str = ""
    """… and what that looks like."""

    @property
    def shown(self) -> str:
        text = self.value or self.example
        return f'{self.flag} "{text}"' if " " in text else f"{self.flag} {text}".rstrip()


_FIELDS: Final = {flag_of(kind): name for name, kind in Asked.__annotations__.items() if name != "sources"}
"""Option → the field of what a command line says."""


def answers_in(problem: Problem, today: dt.date) -> list[Answer]:
    """The options that a problem's remedy names."""
    found = list[Answer]()
    for match in _NAMED.finditer(problem.remedy):
        flag, value = f"--{match[1]}", match[2] or match[3] or ""
        if flag not in _FIELDS or _is_switch(flag):
            continue
        if flag == "--school-year":
            first = today.year - (today.month < 7)
            found += [Answer(flag, f"{year}:{year + 1}") for year in (first - 1, first, first + 1)]
        elif not value or _EXAMPLE.search(value):
            found.append(Answer(flag, "", value))
        elif _refused(Asked(), flag, value) is None:
            found.append(Answer(flag, value))
        else:  # a word of the sentence, and no value
            found.append(Answer(flag, ""))
    told = {(one.flag, one.value): one for one in sorted(found, key=lambda one: bool(one.example))}
    return [told[key] for key in dict.fromkeys((one.flag, one.value) for one in found)]


def _answers(problem: Problem, tried: "_Tried", today: dt.date) -> list[Answer]:
    """The options that settle a problem: those of its remedy, else those of a note about its column."""
    here = problem.place
    beside = [
        one
        for one in tried.notes
        if (one.place.file, one.place.sheet, one.place.column) == (here.file, here.sheet, here.column)
    ]
    return answers_in(problem, today) or [answer for one in beside for answer in answers_in(one, today)]


def _is_switch(flag: str) -> bool:
    return get_args(Asked.__annotations__[_FIELDS[flag]])[0] is bool


def with_answer(asked: Asked, flag: str, value: str) -> Asked:
    """What the command line would have said with this option, too."""
    name = _FIELDS[flag]
    takes_several = any(get_origin(one) is list for one in get_args(get_args(Asked.__annotations__[name])[0]))
    there = getattr(asked, name)
    return asked.but(**{name: [*(there or []), value] if takes_several else value})


class _Tried(NamedTuple):
    """What came of reading the sources."""

    problems: Sequence[Problem]
    notes: Sequence[Problem]
    events: Sequence[Event]
    event_count: int


def _tried(asked: Asked, row: int | None = None) -> _Tried:
    """Read the sources as asked; an option that makes no sense there is a problem like others. `row` is one whose event
    is to be seen."""
    try:
        with asked.taken(asked.reading(knows_days_off=True)) as taken:
            count, first = 0, dict[int, Event]()
            for event in taken.events():
                count += 1
                if len(first) < _SHOWN or event.row_number == row:
                    first.setdefault(event.row_number or -count, event)
            ordered = sorted(first, key=lambda number: (number != row, number))[:_SHOWN]
            return _Tried(taken.problems(), taken.notes(), [first[number] for number in ordered], count)
    except NomariumError as error:
        return _Tried([error.problem], [], [], 0)


def answered(asked: Asked, today: dt.date) -> Asked:
    """Ask until nothing is open that an option settles, or the person leaves a question; what is to be said then."""
    if not sys.stdin.isatty() or not sys.stdout.isatty():
        raise wrong(
            "--ask puts questions on a terminal, and this is none.", "Leave it out, and give the options."
        )
    left = set[tuple[str, str, str, str]]()
    given = list[Answer]()
    for _ in range(_MOST_QUESTIONS):
        tried = _tried(asked)
        open_ones = (one for one in tried.problems if _kind(one) not in left)
        asking = ((one, found) for one in open_ones if (found := _answers(one, tried, today)))
        problem, answers = next(asking, (None, []))
        if problem is None:
            break
        answer = _ask(asked, problem, answers, tried)
        if answer is None:
            left.add(_kind(problem))
            continue
        asked = with_answer(asked, answer.flag, answer.value)
        given.append(answer)
    if given:
        _offer_recipe(asked, given)
    return asked


def _kind(problem: Problem) -> tuple[str, str, str, str]:
    """What a question is about, whichever row it is asked of."""
    place = problem.place
    return problem.code, place.file, place.sheet, place.column


def _ask(asked: Asked, problem: Problem, answers: Sequence[Answer], tried: _Tried) -> Answer | None:
    """Put one question; None when it is left open."""
    from rich.prompt import Prompt

    same = sum(one.code == problem.code for one in tried.problems)
    say()
    for line in problem_lines(problem._replace(remedy="")):
        say(line)
    if same > 1:
        say(f"    ({counted(same, 'problem')} of this kind)")
    for number, answer in enumerate(answers, start=1):
        say(f"  {number}  {answer.shown}")
        for line in _meaning(asked, answer, problem) if answer.value else ("       (you type it)",):
            say(line)
    numbers = [str(number) for number in range(1, len(answers) + 1)]
    chosen = Prompt.ask(
        "Which? (Enter leaves it open)",
        choices=[*numbers, ""],
        default="",
        show_choices=False,
        show_default=False,
    )
    if not chosen:
        return None
    answer = answers[int(chosen) - 1]
    if answer.value:
        return answer
    like = f" (like {answer.example})" if answer.example else ""
    typed = Prompt.ask(f"{answer.flag}{like}", default="", show_default=False).strip()
    if not typed:
        return None
    refused = _refused(asked, answer.flag, typed)
    if refused is not None:
        for line in problem_lines(refused):
            say(line)
        return None
    return answer._replace(value=typed)


def _refused(asked: Asked, flag: str, typed: str) -> Problem | None:
    """What is wrong with an option as it was typed."""
    try:
        with_answer(asked, flag, typed).reading()
    except NomariumError as error:
        return error.problem
    return None


def _meaning(asked: Asked, answer: Answer, problem: Problem) -> Iterator[str]:
    """What an answer would mean for the first rows."""
    tried = _tried(with_answer(asked, answer.flag, answer.value), problem.place.row)
    for event in tried.events:
        row = f"row {event.row_number}: " if event.row_number else ""
        time = f" {event.start:%H:%M}" if isinstance(event.start, dt.datetime) else ""
        yield f"       {row}{event.first_day:%a} {event.first_day}{time}  {event.summary[:60]}"
    left = sum(one.code == problem.code for one in tried.problems)
    more = f", {counted(left, 'such problem')} left" if left else ""
    yield f"       {counted(tried.event_count, 'event')} in all{more}"


def _offer_recipe(asked: Asked, given: Sequence[Answer]) -> None:
    """Say what the answers are as options, and keep them for the next time when that is wanted."""
    from rich.prompt import Prompt

    say()
    say("Your answers as options: " + " ".join(answer.shown for answer in given))
    name = Prompt.ask(
        "Keep them as a recipe? (a file name, such as reading.toml; Enter: no)",
        default="",
        show_default=False,
    ).strip()
    if not name:
        return
    path = Path(name if name.endswith(".toml") else f"{name}.toml")
    from nomarium.cli.keeping import surveyed
    from nomarium.cli.outputs import check_outputs

    reading = asked.reading(knows_days_off=True)
    try:
        check_outputs({"--save": str(path)}, asked.named, asked.files_read(reading))
        _, unkept = surveyed(asked, reading, str(path))
    except NomariumError as error:
        for line in problem_lines(error.problem):
            say(line)
        return
    say(unkept.message if unkept else f"Kept in {path}: give --recipe {path} next time.")
