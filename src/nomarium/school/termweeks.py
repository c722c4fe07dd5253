"""Weeks by their number in a term: `Week 3 Term 2`, `Term 2 week 3`, `T2W3`, `Wk 3, Autumn`."""

import datetime as dt
import re
from collections.abc import Callable, Sequence

from nomarium.model.problem import Problem
from nomarium.model.refusal import Refusal
from nomarium.model.wording import listed
from nomarium.reading.options import ReadingOptions
from nomarium.school.planheads import plain
from nomarium.school.plantables import cut_table
from nomarium.school.yeartables import Dates, Term, read_year_rows
from nomarium.sheets.sheet import Sheet

TermWeek = Callable[[str], tuple[dt.date, dt.date] | Refusal | None]
"""The first and the last day of the week that a text names; None for any other text."""

_WEEK, _TERM = r"(?:week|wk|w)\.?\s*(?P<week>\d{1,2})", r"(?P<term>[^\d\s,].*?|(?:term|t)\s*\d{1,2})"
_FORMS = (rf"(?i){_WEEK}[\s,/–-]*(?:(?:of|in)\s+)?(?:the\s+)?{_TERM}", rf"(?i){_TERM}[\s,/–-]*{_WEEK}")


def term_week_reader(terms: Sequence[Term]) -> TermWeek:
    """What reads weeks of these terms. A week begins on Monday, and the first is that of the term's first day."""
    by_name = {plain(term.name): term for term in terms}
    numbered = {str(number): term for number, term in enumerate(terms, 1)}

    def read(text: str) -> tuple[dt.date, dt.date] | Refusal | None:
        matches = [match for form in _FORMS if (match := re.fullmatch(form, text.strip())) is not None]
        for match in matches:
            number = re.fullmatch(r"(?i)(?:term|t)\s*(\d{1,2})", match["term"].strip())
            name = plain(match["term"])
            term = by_name.get(name) or by_name.get(name.removesuffix("term"))
            term = term or (numbered.get(number[1]) if number is not None else None)
            if term is None:
                continue
            monday = (
                term.first - dt.timedelta(term.first.weekday()) + 7 * dt.timedelta(int(match["week"]) - 1)
            )
            if int(match["week"]) < 1 or monday > term.last:
                weeks = (term.last - term.first + dt.timedelta(term.first.weekday())).days // 7 + 1
                message = f"{term.name} has {weeks} weeks, and this is week {match['week']}."
                return Refusal("week-beyond", message, "Correct the week or the term.")
            return monday, monday + dt.timedelta(6)
        if matches:
            known = ", ".join(term.name for term in terms)
            return Refusal("term-unknown", f"“{text}” names no term that is known.", f"There are {known}.")
        return None

    return read


def in_terms(sheets: Sequence[Sheet], options: ReadingOptions) -> tuple[ReadingOptions, list[Problem]]:
    """The options with the terms that tables of names and dates hold, and what is wrong with these: their weeks can be
    named, and weekdays without dates repeat in them, within the window that was asked for."""
    tables, problems = {}, list[Problem]()
    for sheet in sheets:
        tables["terms"], found, _ = cut_table(sheet, "terms")
        problems += found
    dates = Dates(tables.values(), options)
    rows = read_year_rows(tables, dates)
    options = options._replace(term_week=term_week_reader(rows.terms))
    if rows.terms:
        first, last = min(term.first for term in rows.terms), max(term.last for term in rows.terms)
        taught = {
            day for term in rows.terms for day in range(term.first.toordinal(), term.last.toordinal() + 1)
        }
        options = options._replace(
            repeats_from=max(first, options.repeats_from or first),
            repeats_until=min(last, options.repeats_until or last),
            term_dates=tuple((term.name, term.first, term.last) for term in rows.terms),
            weeks_of=f", in the terms {listed([term.name for term in rows.terms])}",
            closed=frozenset(range(first.toordinal(), last.toordinal() + 1)) - taught,
        )
    return options, [*problems, *dates.problems, *rows.problems]
