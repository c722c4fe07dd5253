"""The year: which dates are school days, with which label, in which week of which term.

One pure function from the rows of the year's tables to a list of school days; nothing of classes or
clock times is in it.
"""

import datetime as dt
from collections import defaultdict
from typing import NamedTuple

from nomarium.model.problem import Problem
from nomarium.school.codes import Codes, natural, weekday_of
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item
from nomarium.school.settings import Settings
from nomarium.school.yeardays import YearDay, misplaced
from nomarium.school.yeartables import CycleRow, DayOff, Special, Term, YearRows

_DAY = dt.timedelta(days=1)
NO_LABEL = "none"


class SchoolDay(NamedTuple):
    """A date on which somebody has school."""

    date: dt.date
    label: str
    """Blank on a day without one."""
    term: str
    week: int
    """Its number among the weeks of the term that have school, from 1."""
    week_label: str
    """The label of its week, where weeks have one."""
    special: Special | None = None
    """The special day of the whole school that it is."""
    division_specials: tuple[Special, ...] = ()
    in_cycle: bool = True
    """False on a school day outside the cycle (label `none`): no classes."""
    closed: frozenset[str] = frozenset()
    """Divisions (as compared) that have no school on it; blank: those without a division."""
    runs_as: int | None = None
    """The weekday, 0 for Monday, whose classes a special day has; None: its own."""

    @property
    def weekday(self) -> int:
        """The weekday whose classes it has, 0 for Monday."""
        return self.date.weekday() if self.runs_as is None else self.runs_as

    def special_of(self, division: str) -> Special | None:
        """The special day that holds for a division: its own before the school's."""
        own = next((one for one in self.division_specials if plain(one.division) == plain(division)), None)
        return own or self.special


class Year(NamedTuple):
    """The school year worked out."""

    days: list[SchoolDay]
    labels: Codes
    label_names: dict[str, str]
    """The Name of each label that has one."""
    moves: str
    problems: list[Problem]
    first: dt.date | None = None
    last: dt.date | None = None
    """The last day of the last term."""
    has_dates: bool = False
    """Whether the school fixes every date itself."""
    weeks: tuple[str, ...] = ()
    """A and B, where weeks have labels beside the days'."""


def make_year(rows: YearRows, settings: Settings, divisions: frozenset[str], starts: dt.date | None) -> Year:
    """Work out the year. `divisions` are those that have classes (compared form; blank: classes without a
    division), `starts` is the date of `Cycle starts`."""
    return _YearMaker(rows, settings, divisions, starts).make()


class _YearMaker:
    def __init__(
        self, rows: YearRows, settings: Settings, divisions: frozenset[str], starts: dt.date | None
    ) -> None:
        self.rows, self.settings, self.starts = rows, settings, starts
        self.divisions = divisions or frozenset([""])
        self.problems: list[Problem] = []
        cycle = rows.cycle
        self.by_date = {row.date: row for row in cycle if row.date is not None}
        self.moves = self._moves(cycle)
        names = [row.label for row in cycle]
        if self.by_date:  # dates say nothing of an order of labels, and A-D means one
            is_run = all(len(name) < 3 for name in names)
            names = sorted(dict.fromkeys(names), key=natural) if is_run else list(dict.fromkeys(names))
        self.labels = Codes("label", names, [(row.name, row.label) for row in cycle if row.name])
        self.order = self.labels.names
        self.weeks = (
            tuple(dict.fromkeys(row.week for row in cycle if row.week)) if self.moves == "by weekday" else ()
        )
        self.first_index, self.first_week = self._first_label()

    def _moves(self, cycle: list[CycleRow]) -> str:
        tied = [row for row in cycle if row.weekday is not None]
        moves = self.settings.moves or (
            "by weekday" if tied and len(tied) == len(cycle) and not self.by_date else "each school day"
        )
        if moves == "by weekday" and not self.by_date:
            for row in cycle:
                if row.weekday is None:
                    message = "The cycle moves by weekday, and this label has no weekday."
                    self.problems.append(
                        row.item.problem("weekday-missing", "weekday", message, "Give it one.")
                    )
        return moves

    def _first_label(self) -> tuple[int, int]:
        item = self.settings.first_label
        if item is None:
            return 0, 0
        text = item.text("value")
        label = self.labels.find(text)
        week = Codes("week", self.weeks).find(text.removeprefix("Week ").removeprefix("week "))
        if week is not None:
            return 0, self.weeks.index(week)
        if label is None:
            self.problems.append(self.labels.unknown(text).problem(item.place("value"), text))
            return 0, 0
        return self.order.index(label), 0

    # -- who has school when --------------------------------------------------------------------------

    def _terms_of(self, division: str) -> list[Term]:
        """The terms of a division: its own, and of the school's those whose name is not among them."""
        own = [term for term in self.rows.terms if plain(term.division) == division]
        if not division:
            return own or self.rows.terms
        names = {plain(term.name) for term in own}
        return own + [term for term in self.rows.terms if not term.division and plain(term.name) not in names]

    def _days_off_of(self, division: str) -> list[DayOff]:
        return [one for one in self.rows.days_off if plain(one.division) in ("", division)]

    def make(self) -> Year:
        spans = [(term.first, term.last) for term in self.rows.terms]
        if not spans and self.by_date:
            spans = [(min(self.by_date), max(self.by_date))]
        names = {row.label: row.name for row in self.rows.cycle if row.name}
        year = Year(
            [], self.labels, names, self.moves, self.problems, has_dates=bool(self.by_date), weeks=self.weeks
        )
        if not spans:
            return year
        first, last = min(span[0] for span in spans), max(span[1] for span in spans)
        if (last - first).days > 3_700:
            reaching = [(term.last, term.item) for term in self.rows.terms]
            reaching = reaching or [(date, row.item) for date, row in self.by_date.items()]
            item = max(reaching, key=lambda one: one[0])[1]
            field = "last" if self.rows.terms else "date"
            message = f"The {'terms' if self.rows.terms else 'dates'} span from {first} to {last}."
            self.problems.append(item.problem("year-too-long", field, message, "Correct the dates."))
            return year
        days = self._days(first, last)
        labelled = self._labelled(days)
        return year._replace(days=self._numbered(labelled), first=first, last=last)

    def _days(self, first: dt.date, last: dt.date) -> list[YearDay]:
        """Every date that a term covers, open or closed."""
        terms = {division: self._terms_of(division) for division in self.divisions}
        offs = {
            division: self._spread(self._days_off_of(division), first, last) for division in self.divisions
        }
        specials = self._specials()
        taught = set(self.settings.school_days)
        found = []
        for ordinal in range(first.toordinal(), last.toordinal() + 1):
            date = dt.date.fromordinal(ordinal)
            here = specials.get(date, [])
            extra = any(not one.is_range for one in here) or date in self.by_date
            if self.by_date and not self.rows.terms:
                if date in self.by_date:
                    found.append(YearDay(date, "", True, True, [], here, frozenset()))
                continue
            if date.weekday() not in taught and not extra:
                continue
            term, closed, off = "", set(), list[DayOff]()
            for division in self.divisions:
                own = next((one for one in terms[division] if one.first <= date <= one.last), None)
                term = term or (own.name if own else "")
                division_off = offs[division].get(date, [])
                off += division_off
                if own is None or division_off:
                    closed.add(division)
            if not term:
                continue
            if date.weekday() not in taught and here and all(one.division for one in here):
                closed |= self.divisions - {plain(one.division) for one in here}
            is_open = closed != self.divisions
            found.append(YearDay(date, term, is_open, date.weekday() in taught, off, here, frozenset(closed)))
        self.problems += misplaced(found, self.rows)
        return found

    def _spread(self, rows: list[DayOff], first: dt.date, last: dt.date) -> dict[dt.date, list[DayOff]]:
        """Date → the rows that are about it, between two dates."""
        found = defaultdict[dt.date, list[DayOff]](list)
        for row in rows:
            begin = max(row.first, first).toordinal()
            for day in range(begin, min(row.last, last).toordinal() + 1):
                found[dt.date.fromordinal(day)].append(row)
        return found

    def _specials(self) -> dict[dt.date, list[Special]]:
        found = defaultdict[dt.date, list[Special]](list)
        for row in self.rows.specials:
            is_known = self.labels.find(row.label) is not None or self._runs_as(row) is not None
            if row.label and plain(row.label) != NO_LABEL and not is_known:
                self.problems.append(self._no_such_label(row.item, row.label))
                continue
            if self.moves in ("each week", "by weekday") and row.effect and not self.by_date:
                message = f"A cycle that moves {self.moves} does not change by a special day: it has that label on its date only."
                self.problems.append(
                    row.item.problem("cycle-effect", "cycle", message, "Leave the cell blank.")
                )
                continue
            for n in range(min((row.last - row.first).days, 3_700) + 1):
                date = row.first + n * _DAY
                twin = next((one for one in found[date] if plain(one.division) == plain(row.division)), None)
                if twin is not None:
                    message = f"{date} is a special day in row {twin.item.number} already."
                    self.problems.append(
                        row.item.problem("special-twice", "first", message, "Keep one row a date.")
                    )
                    break
                found[date].append(row)
        return found

    def _runs_as(self, special: Special | None) -> int | None:
        """The weekday whose classes a special day of the whole school has, where there is no cycle."""
        is_such = special is not None and not self.labels.names and not special.division
        return weekday_of(special.label) if special is not None and is_such else None

    def _no_such_label(self, item: Item, label: str) -> Problem:
        refusal = self.labels.unknown(label)
        remedy = f"{refusal.remedy} (Cycle lists {', '.join(self.order) or 'no labels'}; `none` is a day outside the cycle.)"
        return refusal._replace(remedy=remedy).problem(item.place("label"), label)

    # -- labels ---------------------------------------------------------------------------------------

    def _labelled(self, days: list[YearDay]) -> list[tuple[YearDay, str, str]]:
        """Each open day with its label and the label of its week."""
        if self.by_date:
            return [(day, self._special_label(day, self._dated(day)), "") for day in days if day.is_open]
        if not self.rows.cycle:
            return [(day, "", "") for day in days if day.is_open]
        if self.moves in ("each week", "by weekday"):
            return self._by_week(days)
        return self._by_day(days)

    def _dated(self, day: YearDay) -> str:
        row = self.by_date.get(day.date)
        return row.label if row else ""

    def _special_label(self, day: YearDay, label: str) -> str:
        special = day.special
        if special is None or not special.label:
            return label
        return "" if plain(special.label) == NO_LABEL else self.labels.find(special.label) or ""

    def _by_day(self, days: list[YearDay]) -> list[tuple[YearDay, str, str]]:
        """A cycle that moves each school day, or each weekday, open or closed."""
        each_weekday = self.moves == "each weekday"
        size = len(self.order)
        index, begun = self.first_index, False
        mark: object = None
        found = []
        for day in days:
            counts = day.is_open or self._uses_label(day, each_weekday)
            if not counts:
                continue
            if self.starts and day.date < self.starts:
                found += [(day, self._special_label(day, ""), "")] if day.is_open else []
                continue
            if not begun and not day.is_open:
                continue  # the cycle starts on a day with school
            if not day.is_taught and day.special is None:  # one division's Saturday moves nothing
                found.append((day, "", ""))
                continue
            here = self._restart_mark(day)
            if begun and here != mark:
                index = self.first_index
            mark, begun = here, True
            would_be = index
            special = day.special
            if special is None or not day.is_open:
                index = (index + 1) % size
            elif plain(special.label) == NO_LABEL:
                index = (index + 1) % size if special.effect == "pass" else index
                found.append((day, "", ""))
                continue
            else:
                given = self.order.index(self.labels.find(special.label) or "") if special.label else would_be
                after = {"": given + 1, "follow": given + 1, "hold": would_be, "pass": would_be + 1}
                index = after[special.effect] % size
                found.append((day, self.order[given], ""))
                continue
            if day.is_open:
                found.append((day, self.order[would_be], ""))
        return found

    def _uses_label(self, day: YearDay, each_weekday: bool) -> bool:
        """Whether a closed day uses its label up."""
        if not day.is_taught:
            return False
        effects = {one.effect for one in day.off}
        if each_weekday:
            return "hold" not in effects
        return effects == {"pass"}

    def _restart_mark(self, day: YearDay) -> object:
        """What stays the same as long as the cycle does not restart."""
        restarts = self.settings.restarts
        if restarts == "each term":
            return plain(day.term)
        if restarts == "each month":
            return day.date.year, day.date.month
        return self._week_of(day.date) if restarts == "each week" else None

    def _week_of(self, date: dt.date) -> int:
        """The ordinal of the first day of a date's week."""
        return date.toordinal() - (date.weekday() - self.settings.week_start) % 7

    def _by_week(self, days: list[YearDay]) -> list[tuple[YearDay, str, str]]:
        """A cycle whose labels, or A and B weeks, last a week each."""
        order = self.order if self.moves == "each week" else (self.weeks or ("",))
        index = self.first_index if self.moves == "each week" else self.first_week
        first_index = index
        begin = self._week_of(self.starts) if self.starts else 0
        weeks = defaultdict[int, list[YearDay]](list)
        for day in days:
            weeks[self._week_of(day.date)].append(day)
        found = []
        term, begun = "", False
        for week, members in sorted(weeks.items()):
            open_days = [day for day in members if day.is_open]
            if week < begin:
                found += [(day, self._special_label(day, ""), "") for day in open_days]
                continue
            if not open_days:
                effects = {one.effect for day in members for one in day.off}
                index += effects == {"pass"}
                continue
            if self.settings.restarts == "each term" and begun and plain(open_days[0].term) != term:
                index = first_index
            term, begun = plain(open_days[-1].term), True
            week_label = order[index % len(order)]
            index += 1
            for day in open_days:
                if self.starts and day.date < self.starts:
                    label = ""
                else:
                    label = (
                        week_label if self.moves == "each week" else self._weekday_label(day.date, week_label)
                    )
                found.append((day, self._special_label(day, label), week_label))
        return found

    def _weekday_label(self, date: dt.date, week: str) -> str:
        rows = [row for row in self.rows.cycle if row.weekday == date.weekday() and row.week in ("", week)]
        return rows[0].label if rows else ""

    def _numbered(self, labelled: list[tuple[YearDay, str, str]]) -> list[SchoolDay]:
        """The school days with their numbers of the week."""
        numbers: dict[str, dict[int, int]] = defaultdict(dict)
        found = []
        for day, label, week_label in labelled:
            weeks = numbers[plain(day.term)]
            number = weeks.setdefault(self._week_of(day.date), len(weeks) + 1)
            special = day.special
            in_cycle = not (special is not None and plain(special.label) == NO_LABEL)
            own = tuple(one for one in day.specials if one.division)
            runs_as = self._runs_as(special)
            found.append(
                SchoolDay(
                    day.date,
                    label,
                    day.term,
                    number,
                    week_label,
                    special,
                    own,
                    in_cycle,
                    day.closed,
                    runs_as,
                )
            )
        return found
