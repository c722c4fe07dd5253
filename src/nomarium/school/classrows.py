"""The rows of a Timetable as schools write them, made the rows that the form has: what is written once a group in every
row of it, free periods apart, times of their own read."""

import re
from collections.abc import Collection, Iterable, Sequence
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.model.wording import WEEKDAYS, counted, listed
from nomarium.reading.cells.weekdaycodes import WeekdayCodes, words_of_weekdays
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.headings import normal
from nomarium.reading.columns.weekdaycolumn import UNSETTLED, days_and_time
from nomarium.reading.layouts.codes import is_idle
from nomarium.reading.layouts.namedslots import is_break
from nomarium.reading.options import ReadingOptions
from nomarium.school.bells import Bell
from nomarium.school.drawnheads import day_and_week, days_named
from nomarium.school.owntimes import own_bells
from nomarium.school.planheads import plain
from nomarium.school.plantables import Item, Table
from nomarium.sheets.sheet import cell_text

_GROUPED = ("class", "label", "week", "teacher", "group", "room", "term", "division")
"""Columns that may be written once over the rows of a group."""
_EVERY = frozenset(
    ("all", "every", "everyday", "daily", "alllabels", "alldays", "everylabel", "tous", "alle")
)
_LETTER = r"(?i)(?<!\w)[b-df-hj-tv-xz](?!\w)"
"""A letter alone that is no word of a language."""
_IN_BRACKETS = r"\(([^()]*)\)"
_UNSETTLED = frozenset(map(plain, UNSETTLED)) - {""}
_FREE = frozenset(("free", "freeperiod", "free period", "none", "off", "libre", "frei", "vrij"))


class ClassRows(NamedTuple):
    """The rows of a Timetable that are classes."""

    items: list[Item]
    bells: dict[int, Bell]
    """By the identity of a row: the times that it has of its own."""
    weekdays: WeekdayCodes | None
    """What the labels say, where all of them are weekdays."""
    problems: list[Problem]
    notes: list[Problem]


def class_rows(table: Table, options: ReadingOptions, has_cycle: bool, has_bells: bool = False) -> ClassRows:
    """Settle the rows of a Timetable. `has_cycle`: labels are known, and `A` or `F` may be one of them. `has_bells`: bare numbers
    behind days, `Tue 1-2`, are periods."""
    problems, notes = list[Problem](), list[Problem]()
    items = _with_groups(table.items, options, problems, notes)
    items = [_in_building(_in_section(item)) for item in _with_weeks(items)]
    items = _taught(_without_numbers(items), notes)
    are_periods = has_bells or not all(
        days_and_time(text)[1] for item in items if (text := item.text("meets"))
    )
    items = [_with_time_apart(item, are_periods) for item in items]
    items = _in_english(_settled(items, notes))
    items = items if has_cycle else _with_days_in_brackets(items, options)
    texts = [text for item in items if (text := item.text("label") or item.text("meets"))]
    codes = WeekdayCodes(texts, ENGLISH, options.weekdays)
    are_weekdays = _are_days(codes, texts) and not (has_cycle and all(len(text) == 1 for text in texts))
    bells = own_bells(items, options, problems, notes)
    return ClassRows(items, bells, codes if are_weekdays else None, problems, notes)


def _with_days_in_brackets(items: Sequence[Item], options: ReadingOptions) -> list[Item]:
    """Rows whose Meets cells say periods and codes of weekdays, `1(M,W) 2(F)`, with the names of these."""
    within = [days for item in items for days in re.findall(_IN_BRACKETS, item.text("meets"))]
    codes = WeekdayCodes(within, ENGLISH, options.weekdays)
    if not codes.are_days:
        return list(items)

    def named(match: re.Match[str]) -> str:
        days = codes.read(match[1])
        return match[0] if isinstance(days, Refusal) else f"({', '.join(WEEKDAYS[day] for day in days)})"

    return [
        item._replace(cells={**item.cells, "meets": re.sub(_IN_BRACKETS, named, item.text("meets"))})
        if item.text("meets")
        else item
        for item in items
    ]


def _in_english(items: Sequence[Item]) -> list[Item]:
    """Rows whose labels are weekdays of another language (`Mo, Mi`), with those by their English names."""
    texts = {text for item in items if (text := item.text("label"))}
    words = words_of_weekdays(texts)
    if (
        not words
        or len(words) > 14
        or words <= ENGLISH.weekdays.keys()
        or any(re.search(_LETTER, text) for text in texts)
    ):
        return list(items)
    from nomarium.reading.cells.languages import weekday_lexicon

    lexicon = weekday_lexicon(words)
    codes = WeekdayCodes(texts, lexicon) if lexicon is not None else None
    named: dict[str, str] = {}
    for text in texts if codes is not None else ():
        days = codes.read(text) if codes is not None else ()
        if isinstance(days, Refusal):
            return list(items)
        named[text] = ", ".join(WEEKDAYS[day] for day in days)
    return [
        item._replace(cells={**item.cells, "label": named[item.text("label")]})
        if item.text("label") in named
        else item
        for item in items
    ]


def _are_days(codes: WeekdayCodes, texts: Sequence[str]) -> bool:
    """Whether all labels name weekdays, or could: a doubtful code is refused as one."""
    read = [codes.read(text) for text in texts]
    return bool(read) and all(not isinstance(one, Refusal) or one.why == "several" for one in read)


def _titled(part: list[Item], continued: Collection[int]) -> list[Item]:
    """Rows of which those that have their class from above (`continued`), and no title, have its title, too."""
    found = list[Item]()
    above: Cell = ""
    for n, item in enumerate(part):
        own = item.cells.get("title", "")
        if n in continued and not cell_text(own) and cell_text(above):
            item = item._replace(cells={**item.cells, "title": above})
        above = item.cells.get("title", "") if n not in continued else above
        found.append(item)
    return found


def _with_groups(
    items: Sequence[Item], options: ReadingOptions, problems: list[Problem], notes: list[Problem]
) -> list[Item]:
    """Rows in which a cell that is written once over a group stands in every row of it."""
    found = list(items)
    asked = {normal(heading) for heading in options.fill_down}
    for number, part in _tables(found):
        continued: list[int] = []  # rows that have their class from above
        of_day: list[int] = []  # and their weekday
        for field in _GROUPED:
            column = part[0].table.columns.get(field)
            if column is None:
                continue
            heading = part[0].table.headings.get(field, "")
            merged = _merged_over(part[0].table, column)
            blank = [n for n, item in enumerate(part) if not item.text(field)]
            covered = [n for n in blank if part[n].number in merged]
            how = "asked" if normal(heading) in asked else _how_grouped(part, field, blank)
            if how == "doubtful" and len(covered) < len(blank):
                problems.append(_doubtful(part[blank[0]], field, heading))
            fills = blank if how in ("asked", "group") else covered
            with_class = [n for n in blank if n in continued] if not how else []
            is_with_class = bool(with_class) and (
                field in ("label", "week") or with_class == continued or blank == of_day
            )
            fills = with_class if is_with_class else fills  # written once with the class, also right of it
            if not fills or len(blank) == len(part):
                continue
            above = ""
            for n, item in enumerate(part):
                if n in fills and above:
                    part[n] = item._replace(cells={**item.cells, field: above})
                above = part[n].text(field) or ("" if is_with_class and n not in continued else above)
            continued = fills if field == "class" else continued
            of_day = fills if field == "label" and is_with_class else of_day
            if how != "asked":
                message = f"“{heading}” is written once a group: {counted(len(fills), 'row has', 'rows have')} it from above."
                notes.append(note("group-once", message).at(part[fills[0]].place(field)))
        found[number : number + len(part)] = _titled(part, continued)
    return found


def _with_weeks(items: Sequence[Item]) -> Sequence[Item]:
    """Rows whose labels all name a week beside their day, `Mon A`, `Week B Tuesday`, with these in their own cells."""
    said = [day_and_week(item.text("label")) for item in items]
    if not said or any(item.text("week") for item in items) or not all(week for _, week in said):
        return items
    cells = zip(items, said, strict=True)
    return [item._replace(cells={**item.cells, "label": day, "week": week}) for item, (day, week) in cells]


def _in_section(item: Item) -> Item:
    """A row whose course and section stand in two columns, or in three (`RIG`, `101`, `02`): the section tells the classes
    of a course apart."""
    course, number, section = item.text("class"), item.text("number"), item.text("section")
    if re.fullmatch(r"\d[\w.-]*", number) and course.isalpha():
        course = f"{course} {number}"
        item = item._replace(cells={**item.cells, "class": course})
    else:
        section = section or number
    if not section or not course or plain(section) == plain(course):
        return item
    is_code = re.search(r"[^\W\d_]", section) is not None and re.search(r"\d", section) is not None
    code = section if is_code else f"{course} {section}"
    return item._replace(cells={**item.cells, "class": code, "title": item.text("title") or course})


def _in_building(item: Item) -> Item:
    """A row whose building and room stand in two columns: the place is both."""
    building, room = item.text("building"), item.text("room")
    return item._replace(cells={**item.cells, "room": f"{building} {room}".strip()}) if building else item


def _tables(items: Sequence[Item]) -> Iterable[tuple[int, list[Item]]]:
    """The rows sheet by sheet, with the index of the first of each."""
    start = 0
    while start < len(items):
        end = start
        while end < len(items) and items[end].table.sheet is items[start].table.sheet:
            end += 1
        yield start, list(items[start:end])
        start = end


def _merged_over(table: Table, column: int) -> set[int]:
    """The numbers of rows whose cell of a column is under a merged one, but for its first."""
    at = column + table.sheet.first_column
    return {
        row + 1
        for area in table.sheet.merged
        if area.first_column <= at <= area.last_column
        for row in range(area.first_row + 1, area.last_row + 1)
    }


def _how_grouped(part: Sequence[Item], field: str, blank: Sequence[int]) -> str:
    """What blank cells of a column mean: `group`, `doubtful`, or nothing: they are blank."""
    if not blank or len(blank) == len(part):
        return ""
    columns = part[0].table.columns
    at, class_at = columns[field], columns.get("class", -1)
    timed = [columns[name] for name in ("label", "period", "start", "time", "meets") if name in columns]
    if field == "class":
        is_left = all(at < other for other in timed)
        if not is_left or 0 in blank:
            return ""
        is_group = len(blank) > 1 or _are_groups(part, blank) or _is_blank_with_it(part, blank)
        return "group" if is_group else "doubtful"
    if at > class_at or 0 in blank:
        return ""
    return "group" if _are_groups(part, blank) else "doubtful" if field in ("label", "week") else ""


def _is_blank_with_it(part: Sequence[Item], blank: Sequence[int]) -> bool:
    """Whether what else says whose a class is, its teacher or title, is blank in just the rows without one."""
    columns, blanks = part[0].table.columns, set(blank)
    return any(
        name in columns and all(bool(item.text(name)) != (n in blanks) for n, item in enumerate(part))
        for name in ("teacher", "title")
    )


def _are_groups(part: Sequence[Item], blank: Sequence[int]) -> bool:
    """Whether most filled cells have rows without one below them."""
    sizes = list[int]()
    blanks = set(blank)
    for n in range(len(part)):
        if n in blanks:
            sizes[-1] += 1
        else:
            sizes.append(1)
    return sum(size > 1 for size in sizes) * 2 >= len(sizes)


def _doubtful(item: Item, field: str, heading: str) -> Problem:
    message = "The cell is blank: it could be the one above, or no matter which."
    remedy = f'If one written once holds for the rows below it: --fill-down "{heading}". For every label write all.'
    return item.problem("group-doubtful", field, message, remedy)


def _taught(items: Sequence[Item], notes: list[Problem]) -> list[Item]:
    """The rows that have a class: a dash, or nothing beside a day and a time, is a free period."""
    found, free = list[Item](), list[Item]()
    for item in items:
        code = item.text("class")
        is_timed = any(item.text(field) for field in ("period", "start", "time", "meets"))
        is_free = (
            (is_idle(code) or plain(code) in _FREE)
            if code
            else is_timed and not item.text("title") and _is_right(item) and not _is_of_a_day(item)
        )
        (free if is_free else found).append(item)
    for item in free:
        item.table.account.ledger.events -= 1
        item.table.account.ledger.notes += 1
    if free:
        message = (
            f"{counted(len(free), 'row is a free period', 'rows are free periods')}: nothing is taught then."
        )
        notes.append(note("slots-free", message).at(free[0].place("class")))
    every = [
        item
        for item in found
        if not item.text("label") and not item.text("meets") and "label" in item.table.columns
    ]
    every += [item for item in found if plain(item.text("label")) in _EVERY]
    if every and len(every) < len(found):
        count = counted(len(every), "row has", "rows have")
        notes.append(
            note("label-every", f"{count} no label: the class meets on every one.").at(
                every[0].place("label")
            )
        )
    return [
        item._replace(cells={**item.cells, "label": ""}) if plain(item.text("label")) in _EVERY else item
        for item in found
    ]


def _without_numbers(items: Sequence[Item]) -> list[Item]:
    """The rows without the numbers of their slots, 1 to 42, beside the day and period of each."""
    periods = [item.text("period") for item in items]
    are_numbers = len(items) > 1 and periods == [str(n) for n in range(1, len(items) + 1)]
    if not are_numbers or not all(item.text("meets") for item in items):
        return list(items)
    return [item._replace(cells={**item.cells, "period": ""}) for item in items]


def _is_of_a_day(item: Item) -> bool:
    """Whether a row says a day where its time or its period stands: the classes below it are that day's, and no period is free."""
    said = [text for field in ("time", "start") if (text := item.text(field))]
    is_no_time = any(not any(map(str.isdigit, text)) and not is_break(text) for text in said)
    return is_no_time or bool(days_named(item.text("period"), frozenset(), ENGLISH))


def _is_right(item: Item) -> bool:
    """Whether the class stands right of the day and the time: then a blank one is a free period."""
    columns = item.table.columns
    return any(
        columns[field] < columns.get("class", -1)
        for field in ("label", "period", "start", "time", "meets")
        if field in columns
    )


_BARE_HOURS = r"[\d\s–-]+"


def _with_time_apart(item: Item, are_periods: bool) -> Item:
    """A row whose weekdays and time stand in one cell (`MWF 9:00-9:50`), with both in cells of their own. Numbers alone, as in
    `Tue 1-2`, are no hours where they `are_periods`."""
    for field in ("meets", "label"):
        text = item.text(field)
        days, time = days_and_time(text) if text else ("", "")
        if are_periods and re.fullmatch(_BARE_HOURS, time):
            continue
        if time and not item.text("time") and not item.text("start"):
            return item._replace(cells={**item.cells, field: "", "label": days, "time": time})
    days = item.text("meets")
    if days and (item.text("time") or item.text("start")) and not item.text("label"):
        return item._replace(cells={**item.cells, "meets": "", "label": days})
    return item


def _settled(items: Sequence[Item], notes: list[Problem]) -> list[Item]:
    """The rows whose days or times are known; those that say `TBA` are left out, by name."""
    found, open_ones = list[Item](), list[Item]()
    for item in items:
        said = [
            plain(item.text(field))
            for field in ("label", "meets", "time", "start", "period")
            if item.text(field)
        ]
        (open_ones if said and any(one in _UNSETTLED for one in said) else found).append(item)
    for item in open_ones:
        item.table.account.ledger.events -= 1
        item.table.account.ledger.notes += 1
    if open_ones:
        shown = listed([f"{item.text('class')} (row {item.number})" for item in open_ones[:5]])
        more = f" and {len(open_ones) - 5} more" if len(open_ones) > 5 else ""
        message = f"Left out, for nothing says yet when they meet: {shown}{more}."
        notes.append(note("days-unsettled", message).at(open_ones[0].place("class")))
    return found


def in_weeks(rows: ClassRows, items: Sequence[Item | None]) -> ClassRows:
    """The rows with others in their places, each with its own times; None: none. Where the labels are those of A and B
    weeks, they are weekdays no more."""
    pairs = [(old, new) for old, new in zip(rows.items, items, strict=True) if new is not None]
    bells = {id(new): bell for old, new in pairs if (bell := rows.bells.get(id(old))) is not None}
    is_same = all(old is new for old, new in pairs)
    return rows._replace(
        items=[new for _, new in pairs], bells=bells, weekdays=rows.weekdays if is_same else None
    )
