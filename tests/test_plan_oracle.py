"""Years and timetables made up by chance, against a second, slow reckoning of section “How the cycle moves”.

The reckoning here goes date by date over plain dictionaries and shares nothing with the program.
"""

from __future__ import annotations

import datetime as dt
from typing import NamedTuple

from hypothesis import given, settings
from hypothesis import strategies as st

from nomarium.reading.options import ReadingOptions
from nomarium.school.plan import Plan, read_plan
from nomarium.sheets.sheet import Sheet

LABELS = "ABCDE"
MONDAY = dt.date(2026, 9, 7)
TAUGHT = {"Mon-Fri": {0, 1, 2, 3, 4}, "Mon-Sat": {0, 1, 2, 3, 4, 5}, "Sun-Thu": {6, 0, 1, 2, 3}}


class Chance(NamedTuple):
    """What chance made up: days count from MONDAY."""

    moves: str
    restarts: str
    taught: str
    label_count: int
    first_label: int
    terms: list[tuple[int, int]]
    off: dict[int, str]
    """Effect of each day off: blank, hold or pass."""
    specials: dict[int, tuple[str, str]]
    """Label (or none) and effect."""
    starts: int | None


@st.composite
def chances(draw: st.DrawFn) -> Chance:
    moves = draw(st.sampled_from(["each school day", "each weekday", "each week"]))
    by_week = moves == "each week"
    restarts = draw(
        st.sampled_from(
            ["never", "each term"] if by_week else ["never", "each term", "each month", "each week"]
        )
    )
    taught = draw(st.sampled_from(list(TAUGHT)))
    first_end = draw(st.integers(6, 40))
    gap = draw(st.integers(1, 16))
    terms = [(0, first_end), (first_end + gap, first_end + gap + draw(st.integers(3, 30)))]
    days = [n for a, b in terms for n in range(a, b + 1) if weekday(n) in TAUGHT[taught]]
    # a day off that uses its label up, on the first days of a stretch that begins again, could be reckoned two ways
    effects = ["", "hold", "pass"] if restarts == "never" else ["", "hold"]
    off = {n: draw(st.sampled_from(effects)) for n in draw(st.sets(st.sampled_from(days), max_size=9))}
    count = draw(st.integers(2, len(LABELS)))
    open_days = [n for n in days if n not in off]
    specials: dict[int, tuple[str, str]] = {}
    if open_days:
        for n in draw(st.sets(st.sampled_from(open_days), max_size=5)):
            label = draw(st.sampled_from([*LABELS[:count], "none"]))
            specials[n] = (
                label,
                ""
                if by_week
                else draw(
                    st.sampled_from(
                        ["", "follow", "hold", "pass"] if label != "none" else ["", "hold", "pass"]
                    )
                ),
            )
    starts = draw(st.sampled_from([None, None, None, *open_days])) if restarts == "never" else None
    return Chance(moves, restarts, taught, count, draw(st.integers(0, count - 1)), terms, off, specials, starts)  # fmt: skip


def day(n: int) -> dt.date:
    return MONDAY + dt.timedelta(days=n)


def weekday(n: int) -> int:
    return day(n).weekday()


def plan_of(tables: dict[str, str]) -> Plan:
    """A plan read from tables written as text."""
    sheets = []
    for name, text in tables.items():
        rows = [line.split(",") for line in text.strip().splitlines()]
        sheets.append(Sheet("year", name, lambda rows=rows: enumerate(rows, 1)))
    return read_plan(sheets, ReadingOptions())


def tables_of(chance: Chance) -> dict[str, str]:
    terms = "\n".join(f"T{n},{day(a)},{day(b)}" for n, (a, b) in enumerate(chance.terms, 1))
    off = "\n".join(f"Off {n},{day(n)},{effect}" for n, effect in chance.off.items())
    specials = "\n".join(f"{day(n)},{label},{effect}" for n, (label, effect) in chance.specials.items())
    said = f"Cycle moves,{chance.moves}\nCycle restarts,{chance.restarts}\nSchool days,{chance.taught}\nFirst label,{LABELS[chance.first_label]}"
    if chance.starts is not None:
        said += f"\nCycle starts,{day(chance.starts)}"
    return {
        "settings": f"Setting,Value\n{said}",
        "terms": f"Name,First day,Last day\n{terms}",
        "days off": f"Name,First day,Cycle\n{off}",
        "special days": f"Date,Label,Cycle\n{specials}",
        "cycle": "Label\n" + "\n".join(LABELS[: chance.label_count]),
    }


def week_of(n: int, taught: str) -> int:
    """The number of a week: from Sunday where that is the first of the school days, else from Monday."""
    return (n + (1 if taught == "Sun-Thu" else 0)) // 7


def said(chance: Chance, n: int, otherwise: str) -> str:
    """The label that a special day gives a date, or what it has otherwise."""
    label = chance.specials.get(n, ("", ""))[0]
    return {"": otherwise, "none": ""}.get(label, label)


def reckoned(chance: Chance) -> dict[dt.date, str]:
    """The label of every school day; blank outside the cycle."""
    if chance.moves == "each week":
        return reckoned_by_weeks(chance)
    found: dict[dt.date, str] = {}
    at, stretch = chance.first_label, None
    started = False
    for term, (first, last) in enumerate(chance.terms):
        for n in range(first, last + 1):
            if weekday(n) not in TAUGHT[chance.taught]:
                continue
            closed = n in chance.off
            started = started or (not closed and n >= (chance.starts or 0))  # the first school day from there
            if not started:
                if not closed:
                    found[day(n)] = said(chance, n, "")
                continue
            counts = not closed or (
                chance.off[n] != "hold" if chance.moves == "each weekday" else chance.off[n] == "pass"
            )
            now = {
                "never": 0,
                "each term": term,
                "each month": day(n).month,
                "each week": week_of(n, chance.taught),
            }[chance.restarts]
            if counts and stretch != now:
                if stretch is not None:
                    at = chance.first_label
                stretch = now
            if closed:
                at += counts
                continue
            label, effect = chance.specials.get(n, ("", ""))
            if not label:
                found[day(n)] = LABELS[at % chance.label_count]
                at += 1
            elif label == "none":
                found[day(n)] = ""
                at += effect == "pass"
            else:
                found[day(n)] = label
                if effect in ("", "follow"):
                    at = LABELS.index(label) + 1
                elif effect == "pass":
                    at += 1
    return found


def reckoned_by_weeks(chance: Chance) -> dict[dt.date, str]:
    found: dict[dt.date, str] = {}
    at, last_term = chance.first_label - 1, None
    days = [(term, n) for term, (a, b) in enumerate(chance.terms) for n in range(a, b + 1)]
    days = [(term, n) for term, n in days if weekday(n) in TAUGHT[chance.taught]]
    started = chance.starts is None
    for week in sorted({week_of(n, chance.taught) for _, n in days}):
        inside = [(term, n) for term, n in days if week_of(n, chance.taught) == week]
        opened = [(term, n) for term, n in inside if n not in chance.off]
        if not started and not any(n >= (chance.starts or 0) for _, n in inside):
            found |= {day(n): said(chance, n, "") for _, n in opened}
            continue
        if not opened:
            if started and all(chance.off[n] == "pass" for _, n in inside):
                at += 1
            continue
        started = True
        at += 1
        if chance.restarts == "each term" and opened[0][0] != last_term and last_term is not None:
            at = chance.first_label
        last_term = opened[-1][0]
        for _, n in opened:
            is_before = chance.starts is not None and n < chance.starts
            found[day(n)] = said(chance, n, "" if is_before else LABELS[at % chance.label_count])
    return found


@settings(max_examples=200, deadline=None)
@given(chances())
def test_every_label_is_as_reckoned(chance: Chance) -> None:
    plan = plan_of(tables_of(chance))
    assert not plan.problems, plan.problems
    assert {one.date: one.label for one in plan.year.days} == reckoned(chance)


class Timetable(NamedTuple):
    """A timetable made up by chance, over two weeks of labels A, B, C."""

    bells: dict[tuple[str, str, str], dict[str, tuple[int, int]]]
    """Start and end in minutes by period, by schedule, label and division (blank: all)."""
    rows: list[tuple[str, str, str, str, str]]
    """Class, label (blank: all), period, room, division."""
    short: set[int]
    """Days on which the schedule Short rings."""
    join: bool
    gap: int


PERIODS = ("1", "2", "3", "4")
BELL_SETS = [
    ("", "", ""),
    ("", "B", ""),
    ("", "", "Jr"),
    ("", "C", "Jr"),
    ("Short", "", ""),
    ("Short", "", "Jr"),
]
ROOMS = ("Loft", "Shed")


@st.composite
def timetables(draw: st.DrawFn) -> Timetable:
    bells = {}
    for key in [
        BELL_SETS[0],
        *draw(st.sets(st.sampled_from(BELL_SETS[1:4]))),
        BELL_SETS[4],
        *draw(st.sets(st.sampled_from(BELL_SETS[5:]))),
    ]:
        at, made = draw(st.integers(450, 500)), {}
        for period in PERIODS if not key[0] else sorted(draw(st.sets(st.sampled_from(PERIODS), min_size=1))):
            length = draw(st.integers(20, 60))
            made[period] = (at, at + length)
            at += length + draw(st.integers(0, 20))
        bells[key] = made
    rows = draw(
        st.lists(
            st.tuples(st.sampled_from(["K1", "R2", "S3"]), st.sampled_from(["", "A", "B", "C"]), st.sampled_from(PERIODS),
                      st.sampled_from(ROOMS)), min_size=1, max_size=10, unique_by=lambda row: (row[0], row[2])))  # fmt: skip
    division = {code: draw(st.sampled_from(["", "Jr"])) for code in ("K1", "R2", "S3")}
    if not any(division[row[0]] for row in rows):
        bells = {key: made for key, made in bells.items() if not key[2]}
    return Timetable(
        bells, [(*row, division[row[0]]) for row in rows], draw(st.sets(st.sampled_from([0, 2, 3, 8]))),
        draw(st.booleans()), draw(st.integers(0, 15)),
    )  # fmt: skip


def clock(minutes: int) -> str:
    return f"{minutes // 60}:{minutes % 60:02}"


def timetable_plan(made: Timetable) -> Plan:
    bells = "\n".join(
        ",".join((*key, period, clock(start), clock(end)))
        for key, periods in made.bells.items() for period, (start, end) in periods.items()
    )  # fmt: skip
    tables = {
        "settings": f"Setting,Value\nJoin periods,{'yes' if made.join else 'no'}\nJoin gap,{made.gap} min",
        "terms": f"Name,First day,Last day\nT,{day(0)},{day(11)}",
        "cycle": "Label\nA\nB\nC",
        "special days": "Date,Bells\n" + "\n".join(f"{day(n)},Short" for n in made.short),
        "bells": "Schedule,Label,Division,Period,Start,End\n" + bells,
        "timetable": "Class,Label,Period,Room,Division\n" + "\n".join(",".join(row) for row in made.rows),
    }
    return plan_of(tables)


Occasion = tuple[dt.date, int, int, str, str]


def met(made: Timetable) -> tuple[list[Occasion], int]:
    """Every meeting (date, start and end in minutes, class, room), and how many a short day left out."""
    found: list[Occasion] = []
    left_out = 0
    school_days = [n for n in range(12) if weekday(n) < 5]
    for count, n in enumerate(school_days):
        label, schedule = "ABC"[count % 3], "Short" if n in made.short else ""
        today: list[Occasion] = []
        for code, on, period, room, division in made.rows:
            if on not in ("", label):
                continue
            # the label's rows before the division's, each replacing the whole set behind it
            keys = [
                (schedule, label, division),
                (schedule, label, ""),
                (schedule, "", division),
                (schedule, "", ""),
            ]
            ringing = next(made.bells[key] for key in keys if key in made.bells)
            if period in ringing:
                today.append((day(n), *ringing[period], code, room))
            else:
                left_out += 1
        today.sort(key=lambda one: (one[3], one[4], one[1]))
        for one in today:
            last = found[-1] if found else None
            follows = last is not None and (last[0], last[3], last[4]) == (one[0], one[3], one[4])
            if last is not None and follows and made.join and one[1] - last[2] <= made.gap:
                found[-1] = (last[0], last[1], one[2], last[3], last[4])
            else:
                found.append(one)
    return sorted(found), left_out


@settings(max_examples=150, deadline=None)
@given(timetables())
def test_every_meeting_is_as_reckoned(made: Timetable) -> None:
    plan = timetable_plan(made)
    assert not plan.problems, plan.problems
    got = [
        (one.day.date, one.start_secs // 60, one.end_secs // 60, one.slot.code, one.slot.room)
        for one in plan.meetings
    ]
    expected, left_out = met(made)
    assert sorted(got) == expected
    assert len(plan.not_met) == left_out


FORMS = ("list", "ranges", "meets", "meets by period", "labels across", "periods across", "personal grids")
Slots = dict[tuple[str, str], tuple[str, str]]
"""Class and room by label and period."""


def written(slots: Slots, form: str) -> dict[str, str]:
    """The same timetable in one of the forms that a plan may have."""
    if form == "list":
        rows = [f"{code},{label},{period},{room}" for (label, period), (code, room) in slots.items()]
        return {"timetable": "Class,Label,Period,Room\n" + "\n".join(rows)}
    if form == "ranges":  # one row a class, room and period: its labels as a list with semicolons
        held: dict[tuple[str, str, str], list[str]] = {}
        for (label, period), (code, room) in slots.items():
            held.setdefault((code, period, room), []).append(label)
        rows = [
            f"{code},{'; '.join(labels)},{period},{room}" for (code, period, room), labels in held.items()
        ]
        return {"timetable": "Class,Label,Period,Room\n" + "\n".join(rows)}
    if form.startswith("meets"):
        meets: dict[tuple[str, str], list[tuple[str, str]]] = {}
        for slot, (code, room) in slots.items():
            meets.setdefault((code, room), []).append(slot)
        by_period = form == "meets by period"
        rows = [
            f"{code},{' '.join(f'{period}({label})' if by_period else label + period for label, period in at)},{room}"
            for (code, room), at in meets.items()
        ]
        return {"timetable": "Class,Meets,Room\n" + "\n".join(rows)}
    labels, across = list("ABC"), form == "labels across"
    heads, sides = (labels, PERIODS) if across else (PERIODS, labels)

    def cell(head: str, side: str, room_too: bool) -> str:
        code, room = slots.get((head, side) if across else (side, head), ("", ""))
        return f"{code} @ {room}" if code and room_too else code

    if form == "personal grids":  # a grid for each room: its name is the sheet's
        grids = {}
        for name in sorted({room for _, room in slots.values()}):
            mine = {slot: held for slot, held in slots.items() if held[1] == name}
            lines = [f",{','.join(PERIODS)}"] + [
                ",".join([label, *(mine.get((label, period), ("", ""))[0] for period in PERIODS)])
                for label in labels
            ]
            grids[f"Timetable - {name}"] = "\n".join(lines)
        return grids | {"names": "Code,Name,Kind\n" + "\n".join(f"{room},{room},room" for room in ROOMS)}
    lines = ["," + ",".join(heads)]
    lines += [",".join([side, *(cell(head, side, True) for head in heads)]) for side in sides]
    return {"timetable": "\n".join(lines)}


@settings(max_examples=150, deadline=None)
@given(
    st.dictionaries(
        st.tuples(st.sampled_from("ABC"), st.sampled_from(PERIODS)),
        st.tuples(st.sampled_from(["KN1", "Rigging", "S-3"]), st.sampled_from(ROOMS)),
        min_size=2,
    ),
    st.booleans(),
)
def test_every_form_of_a_timetable_makes_the_same_meetings(slots: Slots, join: bool) -> None:
    common = {
        "settings": f"Setting,Value\nJoin periods,{'yes' if join else 'no'}",
        "terms": f"Name,First day,Last day\nT,{day(0)},{day(8)}",
        "cycle": "Label\nA\nB\nC",
        "bells": "Period,Start,End\n1,8:30,9:20\n2,9:25,10:15\n3,10:40,11:30\n4,11:35,12:25",
    }
    made = {}
    for form in FORMS:
        plan = plan_of({**common, **written(slots, form)})
        assert not plan.problems, (form, plan.problems)
        made[form] = sorted(
            (one.day.date, one.start_secs, one.end_secs, one.slot.code, one.slot.room)
            for one in plan.meetings
        )
    assert made["list"] and all(found == made["list"] for found in made.values())
