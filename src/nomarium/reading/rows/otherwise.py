"""Cells of dates and times that are neither: several days or times, or a phrase that says when something repeats."""

import datetime as dt
import re
from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from nomarium.model.cell import Cell
from nomarium.model.limits import LONGEST_PHRASE
from nomarium.model.problem import Problem, note
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import DayReading
from nomarium.reading.cells.fourfigures import hours_with_colons
from nomarium.reading.cells.memo import FieldValue
from nomarium.reading.cells.moments import certain
from nomarium.reading.cells.repeatclauses import Months, without_times
from nomarium.reading.cells.repeatphrases import may_say_repeat
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.times import Times
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.columns.clocks import times_in_their_halves
from nomarium.reading.columns.decisions import Decisions, resolve_day
from nomarium.reading.rows.repeating import bounds_of, repeated
from nomarium.reading.rows.several import several_days
from nomarium.reading.rows.showings import showings, times_each
from nomarium.reading.rows.when import NOTHING, Blame, Part, Said, When, settle
from nomarium.reading.rows.whenreader import WhenReader
from nomarium.sheets.sheet import cell_text

_OFTEN = r"(?i)\b(?:every|each|weekly|fortnightly|monthly|alternate|chaque|tous|toutes|month|mois|(?:mon|tues|wednes|thurs|fri|satur|sun)days|(?:lun|mar|mercre|jeu|vendre|same)dis|dimanches)\b"
_TWO_ENDS = Refusal(
    "repeat-ends-twice", "The row has a last day, and its repeat another end.", "Make them agree, or leave one blank."
)  # fmt: skip
_BACKWARDS = Refusal(
    "repeat-ends-early",
    "The repeat ends before it starts.",
    "Correct one of the dates, or give both their year.",
)
_LONGEST_UNDATED = 330
"""Days of a repeat whose first day has no year; one that is nearly a year is written the wrong way round."""
_DOTTED = r"(?<![\d.])(?:1?\d|2[0-3])\.[0-5]\d(?![.\d])"
_SEVERAL = note("several-dates", "Several days in one cell are an event each.")
_TIMES = note("several-times", "Several times in one cell are an event each.")


class Otherwise(NamedTuple):
    """What such a row comes to: the dates of its events, or why there are none."""

    whens: tuple[When, ...] = ()
    blame: Blame | None = None
    notes: tuple[Problem, ...] = ()


def said_otherwise(row: Sequence[Cell], field: str, reader: WhenReader) -> Otherwise | None:
    """When the events of a row are whose cell of this field is no date; None when it says nothing of that kind."""
    at = reader.at.get(field, -1)
    cell = row[at] if at >= 0 else ""
    if not isinstance(cell, str) or not 0 < len(cell) <= LONGEST_PHRASE:
        return None
    if field not in ("date", "when"):
        return _at_each(row, at, reader) if field in ("time", "start") else None
    decisions = reader.reading.decisions
    whole = hours_with_colons(cell.strip())
    text, times = without_times(whole)
    is_of_one = (
        text[:5] == whole[:5] and text[-5:] == whole[-5:] and times is not None
    )  # it stands between dates
    is_no_list = is_of_one or _may_list_times(text, decisions.lexicon)
    days = None if is_no_list else several_days(text, decisions)
    if days is None:
        said = _in_a_term(row, at, field, reader) or _repeating(row, at, field, reader)
        return said or _shown(row, at, field, reader)
    if isinstance(days, Refusal):
        return Otherwise(blame=Blame(field, days))
    if (blame := _lasts_on(row, reader)) is not None:
        return Otherwise(blame=blame)
    whens, notes = list[When](), [_SEVERAL]
    for day in days:
        when = _on(row, at, day, reader, times)
        if isinstance(when, Blame) and times is None and when.field in ("time", "start"):
            dated = [*row[:at], day.isoformat(), *row[at + 1 :]]
            each = _at_each(dated, reader.at[when.field], reader)
            if each is not None and each.blame is None:
                whens += each.whens
                notes = [_SEVERAL, *each.notes]
                continue
        if isinstance(when, Blame):
            return Otherwise(blame=when)
        whens.append(when)
    return Otherwise(tuple(whens), None, tuple(notes))


def _lasts_on(row: Sequence[Cell], reader: WhenReader) -> Blame | None:
    """What is wrong with a row of several days that says a last day too, and not how it repeats until then."""
    ends_at = reader.at.get("end-date", -1)
    if ends_at < 0 or reader.parts["end-date"][row[ends_at]].first is None:
        return None
    if reader.weekdays(row) or any(cell_text(row[n]) for n in reader.repeat_at if n < len(row)):
        return None
    message = "The row names several days, and a last day: it is open whether each of them lasts until then."
    return Blame(
        "end-date",
        Refusal("date-conflict", message, "Give each day a row of its own, or clear the last day."),
    )


def counted_again(whens: Sequence[When], counts: object) -> Blame | None:
    """What is wrong with a cell that says how often, beside one that names each day: it is to say the same, and is no repeat of
    each of these days."""
    if len(whens) < 2 or not isinstance(counts, Repeat) or counts.times == len(whens):
        return None
    message = (
        f"The row names {len(whens)} days, and another cell says that it takes place {counts.times} times."
    )
    return Blame(
        "repeat-times", Refusal("repeat-ends-twice", message, "Make them agree, or leave one blank.")
    )


def _at_each(row: Sequence[Cell], at: int, reader: WhenReader) -> Otherwise | None:
    """A row whose time is several, `14:00 & 17:00`: at each of them, where no other cell says one end for all, and no two
    are together. `7:30pm & 8pm` may be when the doors open and when it begins."""
    ends_at = reader.at.get("end", -1)
    times, doubt = times_each(cell_text(row[at]), reader.reading.decisions)
    if doubt is not None:
        return Otherwise(blame=Blame(reader.fields[at], doubt))
    if times and ends_at >= 0 and cell_text(row[ends_at]):
        message = "The row begins at several times, and its end is said in another cell."
        return Otherwise(
            blame=Blame("start", Refusal("time-conflict", message, "Give each time a row of its own."))
        )
    whens = [reader.of([*row[:at], time, *row[at + 1 :]]) for time in times]
    blame = next((one for one in whens if isinstance(one, Blame)), None)
    found = tuple(one for one in whens if isinstance(one, When))
    if not times or any(one.end > other.start for one, other in pairwise(found)):
        return None
    return Otherwise(found, blame, (_TIMES,))


def _may_list_times(text: str, lexicon: Lexicon) -> bool:
    """Whether figures beside a named month are as likely a time as a day: `5 June 2.30 & 7.30`."""
    if re.search(_DOTTED, text) is None:
        return False
    return any(word in lexicon.months for word in re.findall(r"[^\W\d_]{3,}", fold(text)))


def _shown(row: Sequence[Cell], at: int, field: str, reader: WhenReader) -> Otherwise | None:
    """A row whose date is several, each with times of its own."""
    found = showings(cell_text(row[at]), reader.reading.decisions)
    if found is None:
        return None
    if isinstance(found, Refusal):
        return Otherwise(blame=Blame(field, found))
    whens = [_on(row, at, day, reader, times) for day, times in found]
    blame = next((one for one in whens if isinstance(one, Blame)), None)
    return Otherwise(tuple(one for one in whens if isinstance(one, When)), blame, (_SEVERAL,))


def when_untitled(row: Sequence[Cell], blame: Blame, reader: WhenReader) -> When | Blame:
    """When a row without a title is, whose cell is no date and says several days or a repeat; or what is wrong with that.
    The cell itself is not at fault then."""
    said = said_otherwise(row, blame.field, reader)
    if said is None or said.blame is not None:
        return (said and said.blame) or blame
    says_more = len(said.whens) > 1 or said.whens[0].recurrence is not None
    return said.whens[0] if says_more else blame


def _in_a_term(row: Sequence[Cell], at: int, field: str, reader: WhenReader) -> Otherwise | None:
    """A row whose date is a week of a term: all seven days of it, or the one that a column of weekdays names."""
    term_week = reader.reading.options.term_week
    week = term_week(cell_text(row[at])) if term_week is not None else None
    if week is None or isinstance(week, Refusal):
        return None if week is None else Otherwise(blame=Blame(field, week))
    weekday = reader.days.one(row) if reader.days is not None else None
    if weekday is not None:
        when = _on(row, at, week[0] + dt.timedelta(weekday), reader, None)
        return Otherwise(blame=when) if isinstance(when, Blame) else Otherwise((when,))
    when = _on(row, at, week[0], reader, None)
    if isinstance(when, Blame):
        return Otherwise(blame=when)
    if isinstance(when.start, dt.datetime):
        message = "The row names a week and a time, and not the day."
        return Otherwise(
            blame=Blame(field, Refusal("week-dayless", message, "Give the day in a column “Day”."))
        )
    return Otherwise((when._replace(end=week[1] + dt.timedelta(1), notes=(*when.notes, "week-span")),))


def _on(row: Sequence[Cell], at: int, day: dt.date, reader: WhenReader, times: Times | None) -> When | Blame:
    """When a row is on another day, at the times that its cell names."""
    on_day = [*row]
    on_day[at] = day.isoformat()
    when = reader.of(on_day)
    if isinstance(when, Blame) or times is None or times.start is None:
        return when
    if isinstance(when.start, dt.datetime):
        message = "The row says its time twice: among its days, and in a column of its own."
        return Blame("date", Refusal("time-conflict", message, "Leave one of them out."))
    settled = times_in_their_halves(cell_text(row[at]), times, reader.reading.decisions.clock)
    if isinstance(settled, Refusal):
        return Blame("date", settled)
    part = Part(day, None, settled.start, settled.end)
    said = Said(date=part, zone_name=reader.zone_name, zone=reader.zone)
    return settle(said, reader.reading.options.length_secs)


def _repeating(row: Sequence[Cell], at: int, field: str, reader: WhenReader) -> Otherwise | None:
    """A row whose date is a phrase, `Mondays 4pm, 7 Sept – 28 Sept`."""
    options, decisions = reader.reading.options, reader.reading.decisions
    text = cell_text(row[at])
    if options.cycle is None and not may_say_repeat(text, decisions.lexicon):
        return None
    repeat = read_repeat(text, decisions.lexicon, options.cycle)
    if isinstance(repeat, Refusal) and re.match(_OFTEN, text):
        return Otherwise(blame=Blame(field, repeat))
    if not isinstance(repeat, Repeat):
        return None
    repeat = _in_its_months(repeat)
    if not says_often(repeat):
        return None
    begin = first_day(repeat, decisions, options.repeats_from)
    if begin is None:
        message = f"“{repeat.text}” says how it repeats, and not from when."
        remedy = "Say so in the cell (from 7 September 2026), or for all with --from DATE."
        return Otherwise(blame=Blame(field, Refusal("repeat-undated", message, remedy)))
    if isinstance(begin, Refusal):
        return Otherwise(blame=Blame(field, begin))
    ends_at = reader.at.get("end-date", -1)
    last = reader.parts["end-date"][row[ends_at]] if ends_at >= 0 else NOTHING
    if last.refusal is not None:
        return Otherwise(blame=Blame("end-date", last.refusal))
    if last.first is not None:  # the last day of its weeks, and not of its first date
        if repeat.last is not None or repeat.times is not None or repeat.span is not None:
            return Otherwise(blame=Blame("end-date", _TWO_ENDS))
        repeat = repeat._replace(last=certain(last.first))
        row = [*row[:ends_at], "", *row[ends_at + 1 :]]
    when = _on(row, at, begin, reader, None)
    if isinstance(when, Blame):
        return Otherwise(blame=when)
    values: dict[str, FieldValue] = {
        "repeat": repeat._replace(first=None), "timezone": reader.zone_of(row)
    }  # fmt: skip
    found = repeated(when, values, decisions, bounds_of(options))
    if isinstance(found, Blame):
        return Otherwise(blame=Blame(field, found.refusal))
    if not decisions.has_unread:  # a part of the table had shown none: it is looked at as a whole
        message = "It repeats, as no row before it did."
        return Otherwise(blame=Blame(field, Refusal("repeat-late", message)))
    notes = found.notes
    if repeat.rule.interval > 1 and repeat.first is None and repeat.months is None:
        message = (
            f"Nothing in “{repeat.text}” says which of them: it is counted from {begin}, which --from says."
        )
        notes = (
            *notes,
            note("repeat-counted", message, "If it is another: “from 14 January 2027” in the cell."),
        )
    return Otherwise((found.when._replace(recurrence=found.recurrence),), None, notes)


def _in_its_months(repeat: Repeat) -> Repeat:
    """`Every Tuesday in December` in a column of dates: in the next December, and not in each."""
    rule = repeat.rule
    is_bounded = any((repeat.first, repeat.last, repeat.times, repeat.span, repeat.months))
    if rule.freq != "YEARLY" or not rule.weekdays or not rule.months or is_bounded:
        return repeat
    months = Months(rule.months[0], rule.months[-1])
    if months.held != rule.months:
        return repeat
    is_weekly = not rule.positions and not any(number for number, _ in rule.weekdays)
    return repeat._replace(months=months, rule=rule._replace(freq="WEEKLY" if is_weekly else "MONTHLY"))


def says_often(repeat: Repeat) -> bool:
    """Whether a phrase says that something happens again: not “Monday”, and not “7 September”."""
    if repeat.rule.weekdays and repeat.rule.freq in ("MONTHLY", "YEARLY"):
        return True  # 2nd Tuesday
    if repeat.rule.freq == "YEARLY" or (repeat.rule.freq == "DAILY" and repeat.first is None):
        return False
    bounded = repeat.first is not None or repeat.last is not None or repeat.months is not None
    return bounded or re.search(_OFTEN, repeat.text) is not None


def first_day(repeat: Repeat, decisions: Decisions, from_day: dt.date | None) -> dt.date | Refusal | None:
    """Where a repeat begins: at its own first day, else that of its months, else where the command line says."""
    if repeat.first is not None:
        begin = resolve_day(repeat.first._replace(readings=_in_year_of(repeat)), decisions)
        return _BACKWARDS if isinstance(begin, dt.date) and _runs_backwards(repeat, begin) else begin
    if repeat.months is not None and decisions.window is not None:
        low, high = decisions.window
        years = [
            year for year in range(low.year, high.year + 1) if dt.date(year, repeat.months.first, 28) >= low
        ]
        return dt.date(years[0], repeat.months.first, 1) if years else from_day
    return from_day


def _runs_backwards(repeat: Repeat, begin: dt.date) -> bool:
    """Whether a repeat begins a year before its last day only because its days are written the wrong way round, `13 October to
    6 October 2026`."""
    end = repeat.last.readings[0].date() if repeat.last is not None and repeat.last.readings[0].year else None
    has_one_year = len(re.findall(r"\b(?:19|20)\d\d\b", repeat.text)) == 1
    return (
        end is not None and has_one_year and end.year > begin.year and (end - begin).days > _LONGEST_UNDATED
    )


def _in_year_of(repeat: Repeat) -> tuple[DayReading, ...]:
    """The first day of a range in the year that only its last day names: the same, or the one before."""
    assert repeat.first is not None
    year = repeat.last.readings[0].year if repeat.last is not None else None
    if year is None or repeat.last is None or repeat.first.readings[0].year is not None:
        return repeat.first.readings
    last = repeat.last.readings[0]
    return tuple(
        one._replace(year=year - ((one.month, one.day) > (last.month, last.day)))
        for one in repeat.first.readings
    )
