"""The Lessons table, poured in order onto the meetings of each class."""

from collections import defaultdict
from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem
from nomarium.model.wording import meant
from nomarium.school.meetings import Meeting
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table


class Lesson(NamedTuple):
    title: str
    notes: str
    meetings: int
    item: Item


def read_lessons(table: Table | None) -> tuple[dict[str, list[Lesson]], list[Problem]]:
    """The lessons of each class (compared form), in order."""
    found, problems = defaultdict[str, list[Lesson]](list), list[Problem]()
    for item in table.items if table else ():
        code, title, text = item.text("class"), item.text("title"), item.text("meetings")
        if not code or not title:
            field = "title" if code else "class"
            problems.append(
                item.problem(
                    "lesson-missing", field, f"The lesson has no {field}.", "Give it one, or take it out."
                )
            )
        elif text and (not text.isdecimal() or not int(text)):
            message = f"“{text}” is no number of meetings."
            problems.append(item.problem("lesson-meetings", "meetings", message, "Write 1, 2, 3 …"))
        else:
            found[plain(code)].append(Lesson(title, item.text("notes"), int(text or 1), item))
    return found, problems


def poured(
    lessons: dict[str, list[Lesson]], meetings: Sequence[Meeting], classes: dict[str, str]
) -> tuple[dict[int, Lesson], list[Problem], list[Problem]]:
    """The lesson of each meeting by its index; problems, and those of lessons for which no meeting is left.

    `classes` are the codes that there are, by compared form.
    """
    found: dict[int, Lesson] = {}
    at: dict[str, list[int]] = defaultdict(list)
    for n, meeting in enumerate(meetings if lessons else ()):
        at[plain(meeting.slot.code)].append(n)
    problems, left_over = list[Problem](), list[Problem]()
    for code, listed in lessons.items():
        if code not in classes:
            item = listed[0].item
            remedy = meant(item.text("class"), classes.values(), "Its classes are those of the Timetable.")
            problems.append(
                item.problem("class-unknown", "class", f"There is no class “{item.text('class')}”.", remedy)
            )
            continue
        free = iter(at.get(code, ()))
        for number, lesson in enumerate(listed):
            taken = [n for _, n in zip(range(lesson.meetings), free, strict=False)]
            found.update((n, lesson) for n in taken)
            if len(taken) < lesson.meetings:
                left = len(listed) - number
                message = (
                    f"{classes[code]} has {len(at.get(code, ()))} meetings: {left} lesson{'s' if left > 1 else ''} "
                    f"from “{lesson.title}” on {'have' if left > 1 else 'has'} no meeting left."
                )
                left_over.append(
                    lesson.item.problem(
                        "lessons-left-over",
                        "title",
                        message,
                        "Take lessons out, or let fewer meetings go to one.",
                    )
                )
                break
    return found, problems, left_over
