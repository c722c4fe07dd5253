"""Why a date of a plan is what it is, and how each meeting on it came about, or why there is none.

Everything is worked out again from the plan: building pays nothing for it.
"""

import datetime as dt
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from nomarium.model.trail import Step
from nomarium.model.uids import lasting_uid
from nomarium.model.wording import WEEKDAYS, clock_text, counted, listed
from nomarium.school.bells import REGULAR
from nomarium.school.events import class_names, values_of
from nomarium.school.meetings import Meeting
from nomarium.school.plan import Plan
from nomarium.school.planheads import plain
from nomarium.school.timetable import Slot
from nomarium.school.year import NO_LABEL, SchoolDay
from nomarium.school.yeartables import DayOff, Special


class DateFacts(NamedTuple):
    """What a plan knows of a date."""

    is_school_day: bool
    label: str
    week: int | None
    term: str
    reasons: list[str]
    """Why, in sentences."""
    absent: bool = False
    """Whether they tell of a class that does not meet."""


def date_facts(plan: Plan, date: dt.date) -> DateFacts:
    """What a date is in the school year, and why."""
    day = _day_of(plan, date)
    reasons = list(_term_reasons(plan, date, day))
    reasons += [_off_said(off) for off in plan.rows.days_off if off.first <= date <= off.last]
    if day is None:
        if date.weekday() not in plan.settings.school_days and not plan.year.has_dates:
            taught = listed([WEEKDAYS[one] for one in plan.settings.school_days])
            reasons.append(f"{WEEKDAYS[date.weekday()]} is no school day: those are {taught}.")
        elif plan.year.has_dates and not reasons:
            reasons.append(f"Cycle has no row for {date}: it lists every school day by its date.")
        following = next((one for one in plan.year.days if one.date > date), None)
        if following is not None:
            reasons.append(f"The next school day is {_said(following.date)}{_labelled(following)}.")
        return DateFacts(False, "", None, "", reasons)
    reasons += [_special_said(one) for one in _specials_on(plan, date)]
    reasons += _label_reasons(plan, day)
    return DateFacts(True, day.label, day.week, day.term, reasons)


def _day_of(plan: Plan, date: dt.date) -> SchoolDay | None:
    return next((one for one in plan.year.days if one.date == date), None)


def _said(date: dt.date) -> str:
    return f"{WEEKDAYS[date.weekday()]} {date}"


def _labelled(day: SchoolDay) -> str:
    return f", {day.label}" if day.label else ""


def _term_reasons(plan: Plan, date: dt.date, day: SchoolDay | None) -> Iterator[str]:
    terms = sorted(plan.rows.terms, key=lambda term: term.first)
    inside = [term for term in terms if term.first <= date <= term.last]
    for term in inside:
        division = f" for {term.division}" if term.division else ""
        week = (
            f"; this is its week {day.week}"
            if day is not None and plain(day.term) == plain(term.name)
            else ""
        )
        yield f"{term.name or 'The term'} runs{division} from {term.first} to {term.last} ({term.item.called}){week}."
    if not inside and terms:
        before = [term for term in terms if term.last < date]
        after = [term for term in terms if term.first > date]
        parts = [f"{before[-1].name} ended on {before[-1].last}"] if before else []
        parts += [f"{after[0].name} begins on {after[0].first}"] if after else []
        yield f"{date} is outside every term: {', and '.join(parts)}."


def _off_said(off: DayOff) -> str:
    dates = str(off.first) if off.first == off.last else f"{off.first} to {off.last}"
    whom = f" for {off.division}" if off.division else ""
    effect = {"pass": "; the cycle goes on over it", "hold": "; the cycle waits"}.get(off.effect, "")
    return f"{off.name or 'A day without a name'}, {dates}, is a day off{whom} ({off.called}){effect}."


def _specials_on(plan: Plan, date: dt.date) -> list[Special]:
    return [one for one in plan.rows.specials if one.first <= date <= one.last]


def _special_said(special: Special) -> str:
    whom = f" for {special.division}" if special.division else ""
    does = []
    if special.label:
        none = plain(special.label) == NO_LABEL
        does.append(
            "it is outside the cycle, so without classes" if none else f"it has the label {special.label}"
        )
    if special.bells:
        does.append(f"the bells {special.bells} ring")
    effects = {
        "follow": "the cycle goes on from its label",
        "hold": "the cycle waits",
        "pass": "the cycle goes on over it",
    }
    does += [effects[special.effect]] if special.effect in effects else []
    name = f"{special.name} is" if special.name else "It is"
    return f"{name} a special day{whom} ({special.item.called}): {'; '.join(does) or 'nothing changes'}."


def _label_reasons(plan: Plan, day: SchoolDay) -> list[str]:
    """How the date came by its label."""
    if not plan.year.labels.names:
        return []
    if not day.label:
        return [] if not day.in_cycle else [f"{day.date} has no label, so no classes that meet by label."]
    if plan.year.has_dates:
        row = next((one for one in plan.rows.cycle if one.date == day.date), None)
        return [f"{day.date} is {day.label}: Cycle says so by its date ({row.item.called})."] if row else []
    if plan.year.moves == "by weekday":
        week = f" of week {day.week_label}" if day.week_label else ""
        return [f"{WEEKDAYS[day.date.weekday()]}{week} is {day.label}: the cycle moves by weekday."]
    if plan.year.moves == "each week":
        return [f"Its week is {day.label}: the cycle moves each week."]
    before = next((one for one in reversed(plan.year.days) if one.date < day.date and one.label), None)
    if before is None:
        return [f"The cycle begins here, with {day.label}."]
    if day.special is not None and day.special.label:
        return [f"The school day before, {_said(before.date)}, was {before.label}."]
    passed = [
        off.name
        for off in plan.rows.days_off
        if off.effect == "pass" and before.date < off.first < day.date and off.name
    ]
    over = f", and {listed(passed)} used up a label" if passed else ""
    return [f"It is {day.label}: the school day before, {_said(before.date)}, was {before.label}{over}."]


# -- meetings ----------------------------------------------------------------------------------------


def meetings_by_uid(plan: Plan, date: dt.date, identity_name: str) -> dict[str, tuple[int, Meeting]]:
    """The meetings of a date, each with its number, by the UID that its event has."""
    found, counts = dict[str, tuple[int, Meeting]](), dict[str, int]()
    for n, meeting in enumerate(plan.meetings):
        if meeting.day.date != date:
            continue
        code = plain(meeting.slot.code)
        counts[code] = counts.get(code, 0) + 1
        uid = lasting_uid(identity_name, "meeting", code, str(date.toordinal()), str(counts[code]))
        found[uid] = n, meeting
    return found


def meeting_steps(plan: Plan, number: int, meeting: Meeting) -> list[Step]:
    """The way from the cells of a plan to one meeting."""
    slot, day = meeting.slot, meeting.day
    cell = f"“{slot.cell}”: " if slot.cell else ""
    period = f", period {slot.period}" if slot.period else ""
    steps = [Step("timetable", str(slot.place), f"{cell}{slot.code} meets on {_days_said(slot)}{period}.")]
    if slot.terms or slot.first or slot.last:
        steps.append(Step("term", str(slot.place), f"{_limits_said(slot)}; {day.date} is within that."))
    steps.append(Step("label", "", _label_said(meeting)))
    steps += _bell_steps(meeting)
    steps += _name_steps(plan, slot)
    lesson = plan.lessons.get(number)
    if lesson is not None:
        steps.append(Step("lessons", "", f"This meeting's lesson is “{lesson.title}”."))
    return steps


def _days_said(slot: Slot) -> str:
    return slot.label or "every school day of the cycle"


def _limits_said(slot: Slot) -> str:
    parts = [f"only in {listed(slot.terms)}"] if slot.terms else []
    parts += [f"from {slot.first}"] if slot.first else []
    parts += [f"to {slot.last}"] if slot.last else []
    return f"{slot.code} meets {' '.join(parts)}"


def _label_said(meeting: Meeting) -> str:
    day, slot = meeting.day, meeting.slot
    if slot.label in WEEKDAYS:
        runs = "runs as" if day.runs_as is not None else "is"
        return f"{day.date} {runs} a {slot.label}, and a school day."
    if not meeting.label:
        return f"{day.date} is a school day."
    return f"{day.date} is {meeting.label}."


def _bell_steps(meeting: Meeting) -> Iterator[Step]:
    day, slot = meeting.day, meeting.slot
    if slot.own is not None:
        yield Step("time", str(slot.place), f"The row says its times itself: {_rung(meeting)}.")
        return
    special = day.special_of(slot.division)
    for bell in meeting.bells:
        schedule = bell.item.text("schedule") or REGULAR
        why = f", as {special.item.called} says" if special is not None and special.bells else ""
        of = " of ".join(filter(None, [f"the bells {schedule}{why}", bell.item.text("division")]))
        times = f"{clock_text(bell.start_secs)}–{clock_text(bell.end_secs)}"
        yield Step("bells", str(bell.item.place()), f"Period {bell.period} is {times} in {of}.")
    if len(meeting.bells) > 1:
        yield Step(
            "joined",
            "",
            f"{counted(len(meeting.bells), 'period')} follow each other and are one meeting, {_rung(meeting)}.",
        )


def _rung(meeting: Meeting) -> str:
    return f"{clock_text(meeting.start_secs)}–{clock_text(meeting.end_secs)}"


def _name_steps(plan: Plan, slot: Slot) -> Iterator[Step]:
    naming = plan.naming
    for kind, codes in (
        ("class", (slot.code,)),
        ("teacher", slot.teachers),
        ("room", (values_of(plan, slot)["room"],)),
    ):
        for code in codes:
            row = naming.of(kind, code) if code else None
            if row is not None and row.name and row.name != code:
                yield Step("names", str(row.item.place("name")), f"{code} is called {row.name}.")
            if row is not None and kind == "class" and row.room and not slot.room:
                yield Step(
                    "names", str(row.item.place("room")), f"Its room is {naming.name('room', row.room)}."
                )


# -- classes that do not meet ------------------------------------------------------------------------


def classes_like(plan: Plan, text: str) -> list[str]:
    """The codes (as compared) of classes whose code or name has a text in it."""
    wanted, names = text.casefold(), class_names(plan)
    slots = {plain(slot.code): slot for slot in plan.slots}
    return [
        key for key, slot in slots.items() if wanted in slot.code.casefold() or wanted in names[key].casefold() or wanted in slot.title.casefold()
    ]  # fmt: skip


def why_not(plan: Plan, date: dt.date, key: str) -> list[str]:
    """Why a class does not meet on a date, and the next date on which it does."""
    name, slots = class_names(plan)[key], [slot for slot in plan.slots if plain(slot.code) == key]
    day = _day_of(plan, date)
    reasons = [f"{name} does not meet on {_said(date)}."]
    if day is None:
        reasons.append("It is no school day.")
    else:
        rows: dict[object, list[Slot]] = {}
        for slot in slots:
            rows.setdefault((slot.place, slot.division, slot.terms, slot.first, slot.last), []).append(slot)
        reasons += dict.fromkeys(_hindrance(plan, day, group) for group in rows.values())
    dates = [meeting.day for meeting in plan.meetings if plain(meeting.slot.code) == key]
    later = next((one for one in dates if one.date > date), None)
    if later is not None:
        reasons.append(f"It meets next on {_said(later.date)}{_labelled(later)}.")
    elif dates:
        reasons.append(f"It met last on {_said(dates[-1].date)}.")
    else:
        reasons.append("It never meets.")
    return reasons


def _hindrance(plan: Plan, day: SchoolDay, slots: Sequence[Slot]) -> str:
    """What keeps a row of the timetable from meeting on a school day; `slots` are those of the row."""
    slot = slots[0]
    where = f"row {slot.place.row}" if slot.place.row else str(slot.place)
    if plain(slot.division) in day.closed:
        return f"{slot.division or 'Its division'} has no school then."
    own = next((one for one in day.division_specials if plain(one.division) == plain(slot.division)), None)
    special = own or day.special
    if not day.in_cycle or (own is not None and plain(own.label) == NO_LABEL):
        called = f" ({special.item.called})" if special is not None else ""
        return f"The date is outside the cycle: nobody has classes{called}."
    label = own.label if own is not None and own.label else day.label
    weekday = WEEKDAYS[day.weekday]
    here = [one for one in slots if not one.label or plain(one.label) in (plain(label), plain(weekday))]
    if not here:
        labels = listed(list(dict.fromkeys(one.label for one in slots)))
        return f"Its {where} is for {labels}, and the date is {label or weekday}."
    slot = here[0]
    if slot.terms and plain(day.term) not in {plain(term) for term in slot.terms}:
        return f"Its {where} is for {listed(slot.terms)} only, and the date is in {day.term}."
    if slot.first and day.date < slot.first:
        return f"Its {where} begins on {slot.first}."
    if slot.last and day.date > slot.last:
        return f"Its {where} ended on {slot.last}."
    if any(one.slot is slot and one.day is day for one in plan.not_met):
        bells = (
            f"the bells {special.bells}" if special is not None and special.bells else "the bells of the date"
        )
        return f"Its {where} is period {slot.period}, and {bells} have no such period."
    return f"Its {where} makes no meeting on this date."
