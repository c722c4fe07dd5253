"""The Settings table of a plan."""

from collections.abc import Callable
from typing import NamedTuple

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import meant
from nomarium.reading.cells.choices import read_yes_no
from nomarium.reading.cells.lengths import read_length
from nomarium.reading.cells.memo import read_zone
from nomarium.reading.cells.words import fold
from nomarium.reading.options import Order
from nomarium.school.codes import weekday_of
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.school.templates import FIELDS, unknown_fields

MOVES = ("each school day", "each weekday", "each week", "by weekday")
RESTARTS = ("never", "each term", "each month", "each week")
NAMES = (
    "Calendar name", "Time zone", "Date order", "School days", "Cycle moves", "Cycle starts", "First label",
    "Cycle restarts", "Event title", "Event notes", "Join periods", "Join gap", "Show labels", "Show weeks",
    "Show days off",
)  # fmt: skip


class Settings(NamedTuple):
    """What holds for the whole plan; `items` are the rows that say so, for messages."""

    calendar_name: str = ""
    zone: str | None = None
    date_order: Order = ""
    school_days: tuple[int, ...] = (0, 1, 2, 3, 4)
    """Taught weekdays, 0 is Monday, in the order of the week."""
    moves: str = ""
    """One of MOVES, or nothing when no setting says so: then the first, or as the Cycle table shows."""
    starts: Item | None = None
    """The row that says on which date the cycle starts; None: on the first school day."""
    first_label: Item | None = None
    restarts: str = "never"
    title: str = "{name}"
    notes: str = ""
    join: bool = True
    join_gap_secs: int = 600
    show_labels: bool = False
    show_weeks: bool = False
    show_days_off: bool = False
    restarts_item: Item | None = None

    @property
    def week_start(self) -> int:
        """The weekday on which a week begins: the first school day when that is a weekend day, else Monday."""
        first = self.school_days[0]
        return first if first >= 5 else 0


def read_settings(table: Table | None) -> tuple[Settings, list[Problem]]:
    """Read the table. An unknown setting or value is a problem with the nearest right word."""
    settings, problems = Settings(), list[Problem]()
    known = {plain(name): name for name in NAMES}
    seen: dict[str, Item] = {}
    for item in table.items if table else ():
        name = known.get(plain(item.text("setting")))
        if name is None:
            problems.append(_unknown(item, "setting", "There is no setting", NAMES))
            continue
        if not item.text("value"):
            continue
        if name in seen:
            message = f"{name} is set twice, in rows {seen[name].number} and {item.number}."
            problems.append(item.problem("setting-twice", "setting", message, "Keep one of them."))
            continue
        seen[name] = item
        read = _read(name, item, settings)
        if isinstance(read, Problem):
            problems.append(read)
        else:
            settings = read
    if settings.moves == "each week" and settings.restarts in ("each month", "each week"):
        item = seen["Cycle restarts"]
        message = f"A cycle that moves each week cannot restart {settings.restarts}."
        problems.append(item.problem("setting-clash", "value", message, "Restart it never or each term."))
    return settings, problems


def _read(name: str, item: Item, settings: Settings) -> Settings | Problem:
    """The settings with one more."""
    if name in _SWITCHES:
        answer = read_yes_no(item.cells["value"])
        if isinstance(answer, bool):
            return Settings(**(settings._asdict() | {_SWITCHES[name]: answer}))
        message = f"{name} is yes or no, not “{item.text('value')}”."
        return item.problem("setting-value", "value", message, "Write yes or no.")
    return _READERS[name](item, settings)


def _calendar_name(item: Item, settings: Settings) -> Settings:
    return settings._replace(calendar_name=item.text("value"))


def _time_zone(item: Item, settings: Settings) -> Settings | Problem:
    text = item.text("value")
    zone = read_zone(text)
    if isinstance(zone, Refusal):
        return zone.problem(item.place("value"), text)
    return settings._replace(zone=zone)


def _date_order(item: Item, settings: Settings) -> Settings | Problem:
    text = plain(item.text("value")).replace("/", "")
    found = _ORDERS.get(text.replace("dd", "d").replace("mm", "m").replace("yyyy", "y"))
    if found is None:
        return _unknown(item, "value", "There is no order", ("dmy", "mdy", "ymd"))
    return settings._replace(date_order=found)


def _school_days(item: Item, settings: Settings) -> Settings | Problem:
    days = read_school_days(item.text("value"))
    if days is None:
        message = f"“{item.text('value')}” is no list of weekdays."
        return item.problem(
            "setting-value", "value", message, "Write it like Mon-Fri, Sun-Thu or Mon, Tue, Thu."
        )
    return settings._replace(school_days=days)


def _cycle_moves(item: Item, settings: Settings) -> Settings | Problem:
    word = _one_of(item, MOVES)
    return settings._replace(moves=word) if word else _unknown(item, "value", "Cycle moves cannot be", MOVES)


def _cycle_restarts(item: Item, settings: Settings) -> Settings | Problem:
    word = _one_of(item, RESTARTS)
    if word is None:
        return _unknown(item, "value", "Cycle restarts cannot be", RESTARTS)
    return settings._replace(restarts=word, restarts_item=item)


def _one_of(item: Item, choices: tuple[str, ...]) -> str | None:
    return {plain(choice): choice for choice in choices}.get(plain(item.text("value")))


def _cycle_starts(item: Item, settings: Settings) -> Settings:
    if plain(item.text("value")) in ("thefirstschoolday", "firstschoolday"):
        return settings
    return settings._replace(starts=item)


def _first_label(item: Item, settings: Settings) -> Settings:
    return settings._replace(first_label=item)


def _event_title(item: Item, settings: Settings) -> Settings | Problem:
    return _wrong_template(item) or settings._replace(title=item.text("value"))


def _event_notes(item: Item, settings: Settings) -> Settings | Problem:
    return _wrong_template(item) or settings._replace(notes=item.text("value").replace("\\n", "\n"))


def _wrong_template(item: Item) -> Problem | None:
    unknown = unknown_fields(item.text("value"))
    if not unknown:
        return None
    fields = [f"{{{one}}}" for one in FIELDS]
    remedy = meant(f"{{{unknown[0]}}}", fields, f"Use {', '.join(fields)}.", 0.6)
    return item.problem("template-field", "value", f"There is no field {{{unknown[0]}}}.", remedy)


def _join_gap(item: Item, settings: Settings) -> Settings | Problem:
    text = item.text("value")
    secs = read_length(text, 60)
    if isinstance(secs, Refusal):
        return secs.problem(item.place("value"), text)
    return settings._replace(join_gap_secs=secs)


_ORDERS: dict[str, Order] = {
    "dmy": "dmy", "mdy": "mdy", "ymd": "ymd", "dayfirst": "dmy", "monthfirst": "mdy", "yearfirst": "ymd",
}  # fmt: skip
_SWITCHES = {
    "Join periods": "join", "Show labels": "show_labels", "Show weeks": "show_weeks", "Show days off": "show_days_off",
}  # fmt: skip
"""Settings that are yes or no, and the field of each."""
_READERS: dict[str, Callable[[Item, Settings], Settings | Problem]] = {
    "Calendar name": _calendar_name, "Time zone": _time_zone, "Date order": _date_order, "School days": _school_days,
    "Cycle moves": _cycle_moves, "Cycle starts": _cycle_starts, "First label": _first_label,
    "Cycle restarts": _cycle_restarts, "Event title": _event_title, "Event notes": _event_notes, "Join gap": _join_gap,
}  # fmt: skip


def _unknown(item: Item, field: str, what: str, known: tuple[str, ...]) -> Problem:
    text = item.text(field)
    remedy = meant(fold(text), known, f"Use one of {', '.join(known)}.", 0.4)
    code = "setting-unknown" if field == "setting" else "setting-value"
    return item.problem(code, field, f"{what} “{text}”.", remedy)


def read_school_days(text: str) -> tuple[int, ...] | None:
    """Weekdays of a list or a range, in order.

    >>> read_school_days("Sun-Thu")
    (6, 0, 1, 2, 3)
    """
    import re

    found: list[int] = []
    for part in re.split(r"[,;/&+]|\band\b", text):
        ends = [
            weekday_of(end) for end in re.split(r"\s*(?:-|–|—|\bto\b|\bthrough\b)\s*", part.strip()) if end
        ]
        if not ends or None in ends or len(ends) > 2:
            return None
        first, last = ends[0], ends[-1]
        assert first is not None
        assert last is not None
        found += [(first + n) % 7 for n in range((last - first) % 7 + 1)]
    return tuple(dict.fromkeys(found)) or None
