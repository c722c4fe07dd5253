"""What a cell says about repeating: a phrase with its bounds (from, until, for, except), or a rule."""

import datetime as dt
import re
from collections.abc import Callable
from typing import NamedTuple

from nomarium.model.limits import LONGEST_LIST, LONGEST_PHRASE
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal, too_long
from nomarium.reading.cells.dates import Day, Days, read_days
from nomarium.reading.cells.repeatanchors import Bounds, anchored
from nomarium.reading.cells.repeatclauses import (
    Months,
    months_alone,
    months_as_days,
    without_months,
    without_range,
    without_times,
)
from nomarium.reading.cells.repeatphrases import (
    FORMS,
    WEEKDAYS,
    WORKDAYS,
    numbers_of,
    rule_of_phrase,
    signs_of,
)
from nomarium.reading.cells.times import Times
from nomarium.reading.cells.weekdaypairs import with_days_apart
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reckoning.rules import RuleFault, parse_rule

_NOT_AT_ALL = frozenset(
    "no none never once non nein n 0 false - – jamais aucun aucune x".split()
) | {"does not repeat", "do not repeat", "doesn't repeat", "no repeat", "not repeated", "ne se repete pas", "one off",
     "one-off", "just once", "une fois"}  # fmt: skip


Cycle = Callable[[str], Callable[[dt.date], list[dt.date]] | None]


class Repeat(NamedTuple):
    """What a cell says about repeating; its dates are still open until the table settles them."""

    rule: Rule
    """Without an end of its own unless the cell is a rule."""
    first: Day | None = None
    last: Day | None = None
    times: int | None = None
    span: tuple[int, str] | None = None
    """(6, "week"): how long it goes on from its first date."""
    left_out: tuple[Days, ...] = ()
    on_school_days: bool = False
    needs_days_off: bool = False
    """Whether it says that holidays are left out, so that somebody must say when they are."""
    text: str = ""
    clock: Times | None = None
    """The times that it names."""
    months: Months | None = None
    """The months in which it is held."""
    dates: Callable[[dt.date], list[dt.date]] | None = None
    """The dates from the row's date on, where no rule can say them: phrases about a school year."""
    nth: tuple[int, ...] = ()
    """Which dates of a weekday in a month it may be, -1 the last, where another cell says the weekday."""


_UNTIL = (
    r"(?i)[\s,;(]*(?<!\w)(?:and\s+)?(?:until|till|til|up to(?: and including)?|through|thru|to|ending(?: on)?|ends?(?: on)?|"
    r"finishing(?: on)?|jusqu['’]au|jusqu['’]à|jusqu['’]a|et jusqu['’]au|prenant fin le|au|bis|hasta|tot)(?!\w)\s*"
)
_FROM = (
    r"(?i)[\s,;(]*(?<!\w)(?:from|starting(?: on| from)?|starts?(?: on)?|beginning(?: on)?|begins?(?: on)?|commencing(?: on)?|as of|since|"
    r"à partir du|a partir du|à compter du|a compter du|dès le|des le|depuis le|du|ab)(?!\w)\s*"
)
_EXCEPT = r"(?i)[\s,;(]*(?<!\w)(?:except(?:ing)?(?: for| on)?|no (?:class(?:es)?|lessons?|sessions?|meetings?|practice|rehearsals?)(?: on)?|exc(?:l|luding)?\.?|but not(?: on)?|not(?: on)?|without|skipping|sauf|excepté|hormis)(?!\w)\s*(?:le |les |the )?"
_HOLIDAYS = (
    r"(?:(?:during|in|on|pendant)\s+)?(?:the\s+|les?\s+)?(?:public |school |bank |statutory |national )?"
    r"(?:holidays?|days? off|breaks?|vacations?|jours? fériés?|jours? feries?|vacances(?: scolaires)?|congés?|conges?)\)?$"
)
_COUNT = (
    r"(?i)[\s,;(]*(?<!\w)(?:x\s?(?P<x>\d{1,3})(?!\w)|(?:for |pendant |durant )?(?P<n>\d{1,3}|[a-zà-ÿ]+)\s*"
    r"(?:times|occurrences|occasions|sessions|meetings|fois|séances|seances|rencontres|(?<=\d)x(?!\w)))"
    r"(?!\s+(?:a|an|per|each|every|par)\s)(?:\s+(?:in all|in total|en tout|au total))?\)?"
)
_COUNTED_DAYS = (
    r"(?i)^\s*(?P<n>\d{1,2}|[a-zà-ÿ]+)(?P<x>)\s+(?:x\s+)?(?=(?:mon|tues|wednes|thurs|fri|satur|sun)days\b)"
)
_SO_MANY = (
    rf"{_COUNTED_DAYS}(?=\w++(?!.*\b(?:a|per|each|every|in|of)\b|"
    r"\s*(?:[&,/]|and)\s*\w+days))"
)
"""How many of one weekday, `Six Tuesdays`, and not which of each month."""
_SPAN = (
    r"(?i)[\s,;(]*(?<!\w)(?:(?:for|over|pendant|durant|pour)\s+(?:the next |les |the )?|(?<=[,;(])|(?<=[,;(] )|^)(?P<n>\d{1,3}|[a-zà-ÿ]+)\s+"
    r"(?P<unit>school days?|days?|jours?|weeks?|semaines?|months?|mois|years?|ans?|années?|annees?)\)?(?!\w)(?!\s+(?:a|an|per|each|every|par|in)\s)"
)
_ENDS = r"(?i)\b(?:until|till|bis|jusqu['’]au)\b"
_DAY_BEFORE_END = r"(?i)\bthe \d{1,2}(?:st|nd|rd|th)? (?:until|till)\b"
"""A day of each month before an end, `on the 5th until 31 January`: no range of days."""
_UNITS = {"d": "day", "j": "day", "w": "week", "s": "week", "m": "month", "y": "year", "a": "year"}
_SMALL = {
    word: number
    for number, words in enumerate(
        "|one un une|two deux|three trois|four quatre|five cinq|six|seven sept|eight huit|nine neuf|ten dix|"
        "eleven onze|twelve douze|thirteen treize|fourteen quatorze|fifteen quinze|sixteen seize".split("|")
    )
    for word in words.split()
}
_WEEKDAY = r"(?:mon|tue|tues|wed|weds|thu|thur|thurs|fri|sat|sun|lun|mar|mer|jeu|ven|sam|dim)[a-zé]*\.?"
_RANGE = rf"(?i)\b({_WEEKDAY})\s*(?:-|–|to|through|thru|au|à|a)\s*({_WEEKDAY})(?!\s*\d)"
_PLAN_ONLY = r"\b(?:[A-F][- ]?[Ww]eeks?|[Ww]eeks? [A-F]\b|[Ss]emaine [A-F]\b)|(?i:\bevery day \d+\b(?![:.h]\d|\s?[ap]\.?m)|(?:cycle )?day \d+\b(?![:.h]\d|\s?[ap]\.?m)|jour \d+\b|\bterm(?:ly)?\b)"


def read_repeat(text: str, lexicon: Lexicon, cycle: Cycle | None = None) -> Repeat | Refusal | None:
    """What a cell says about repeating; None when it says that nothing repeats. `cycle` reads phrases
    about a school year.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> read_repeat("every other Tuesday", ENGLISH).rule.interval
    2
    """
    found = _read_repeat(text, lexicon, cycle)
    if not isinstance(found, Refusal) or found.why != "unlike":
        return found
    from nomarium.reading.cells.repeatlanguages import in_english  # few phrases come here

    doubt: Refusal | None = None
    for said, names in in_english(text):
        other = _read_repeat(said, lexicon.extended(names), cycle)
        if isinstance(other, Repeat):
            return other._replace(text=text)
        if isinstance(other, Refusal) and other.why != "unlike":
            doubt = doubt or other._replace(message=other.message.replace(said, text))
    return doubt or found


def _read_repeat(text: str, lexicon: Lexicon, cycle: Cycle | None) -> Repeat | Refusal | None:
    if long := too_long(text, LONGEST_PHRASE):
        return long
    text = " ".join(text.split()).strip(" .;")
    if fold(text) in _NOT_AT_ALL:
        return None
    if re.match(r"(?i)(?:RRULE:)?\s*(?:[A-Z-]+=[^;]*;)*\s*FREQ\s*=", text):
        return _of_rule(text)
    lexicon = _with_french(lexicon)
    core, clauses = _without_clauses(text, lexicon)
    if isinstance(clauses, Refusal):
        return clauses
    counting = re.match(_COUNTED_DAYS, core)
    if counting is not None and _number(counting["n"]):
        message = f"“{text}” says how many weekdays, and not which of a month or a week."
        return Refusal("repeat-unread", message, FORMS)
    dates = cycle(core) if cycle is not None else None
    if dates is not None:
        return clauses._replace(dates=dates, text=text)
    bounds = Bounds(clauses.first, clauses.times, clauses.span, clauses.clock is not None)
    on_a_date = anchored(core, bounds, lexicon)
    if on_a_date is not None:
        rule, first = on_a_date
        return _counting_days(clauses._replace(rule=rule, first=first, text=text))
    found = rule_of_phrase(core, lexicon)
    if isinstance(found, Refusal):
        if found.why == "unlike" and re.search(_PLAN_ONLY, text):
            message = f"“{text}” speaks of a cycle or of terms, which only a plan describes."
            remedy = "Build it from a plan (docs/plan.md), or write the repeat in weekdays and dates."
            return Refusal("repeat-needs-plan", message, remedy)
        return found._replace(message=found.message.replace("{}", f"“{text}”"))
    rule, on_school_days = found
    if clauses.rule.weekdays:  # except Sundays: the other days of the week
        if rule.freq not in ("DAILY", "WEEKLY") or rule.interval > 1:
            message = f"“{text}” leaves out weekdays of a repeat that is not daily or weekly."
            return Refusal("repeat-unread", message, FORMS)
        kept = set(rule.weekdays or [(0, day) for day in range(7)]) - set(clauses.rule.weekdays)
        rule = rule._replace(freq="WEEKLY", weekdays=tuple(sorted(kept)))
    if clauses.months is not None and not rule.months and rule.freq != "YEARLY":
        rule = rule._replace(months=clauses.months.held)
    return _counting_days(clauses._replace(rule=rule, on_school_days=on_school_days, text=text))


def _counting_days(repeat: Repeat) -> Repeat:
    """A repeat with its days counted: ten days of school are ten meetings, counted before days off are skipped."""
    rule, span = repeat.rule, repeat.span
    is_daily = rule.freq == "DAILY" or (rule.freq == "WEEKLY" and rule.weekdays == WORKDAYS)
    if span is None or span[1] != "day" or not is_daily:
        return repeat
    step = rule.interval if rule.freq == "DAILY" else 1
    return repeat._replace(times=-(-span[0] // step), span=None)


def _of_rule(text: str) -> Repeat | Refusal:
    rule = parse_rule(text)
    if isinstance(rule, RuleFault):
        return Refusal("rule-impossible", rule.message, f"Correct {rule.part}, or write the repeat in words.")
    return Repeat(rule, text=text)


def _with_french(lexicon: Lexicon) -> Lexicon:
    from nomarium.reading.cells.words import lexicon_of

    french = lexicon_of("fr")
    return lexicon.extended(french) if french else lexicon


# -- clauses: from, until, for, except ------------------------------------------------------------------


def _without_clauses(text: str, lexicon: Lexicon) -> tuple[str, Repeat | Refusal]:
    """The phrase without what bounds it, and a repeat that holds the bounds."""
    found = Repeat(Rule("DAILY"))
    text = re.sub(_RANGE, lambda match: _weekday_list(match, lexicon), text)
    counted = re.match(_SO_MANY, text)
    if counted is None or _number(counted["n"]) is None:
        counted = re.search(_COUNT, text)
    if counted and (number := _number(counted["n"] or counted["x"])):
        found = found._replace(times=number)
        text = text[: counted.start()] + " " + text[counted.end() :]
    text, without = _without_exceptions(text, found, lexicon)
    if isinstance(without, Refusal):
        return text, without
    found = without
    text, clock = without_times(text)
    found = found._replace(clock=clock or found.clock)
    text, months = without_months(months_as_days(text, lexicon), lexicon)
    if months is not None:
        found = found._replace(
            months=months._replace(left_out=found.months.left_out if found.months else frozenset())
        )
    text, until_day = (
        _date_clause(text, _UNTIL, lexicon) if re.search(_DAY_BEFORE_END, text) else (text, None)
    )
    if until_day is not None:
        found = found._replace(last=until_day.first)
    text, range_of_days = without_range(text, lexicon)
    if range_of_days is not None:
        found = found._replace(first=range_of_days.first, last=range_of_days.last)
    for pattern, is_first in ((_FROM, True), (_UNTIL, False)):
        text, days = _date_clause(text, pattern, lexicon)
        if days is None:
            continue
        if is_first:
            found = found._replace(first=days.first, last=days.last)
        elif days.last is None:
            found = found._replace(last=days.first)
    lasting = next((one for one in re.finditer(_SPAN, text) if _number(one["n"])), None)
    if lasting and (number := _number(lasting["n"])):
        unit = "day" if lasting["unit"].lower().startswith("school") else _UNITS[lasting["unit"][0].lower()]
        found = found._replace(span=(number, unit))
        text = text[: lasting.start()] + " " + text[lasting.end() :]
    if range_of_days is None:
        text, range_of_days = without_range(text, lexicon)  # 19 Sept - 10 Oct (4 weeks)
        if range_of_days is not None:
            found = found._replace(first=range_of_days.first, last=range_of_days.last)
    if found.times is not None and found.span is not None:
        remedy = "Keep the one that is meant: a last date, a number of times, or a length of time."
        return text, Refusal("repeat-ends-twice", "The repeat says in two ways when it ends.", remedy)
    return text.strip(" ,;()"), found


def _without_exceptions(text: str, found: Repeat, lexicon: Lexicon) -> tuple[str, Repeat | Refusal]:
    """The phrase without what it leaves out, and the repeat with that: holidays, months, weekdays or days."""
    excepted = re.search(_EXCEPT, text)
    if excepted is None:
        return text, found
    rest, behind = text[excepted.end() :], ""
    if "(" in excepted[0]:
        rest, _, behind = rest.partition(")")
    elif (until := re.search(_ENDS, rest)) and not re.search(_ENDS, text[: excepted.start()]):
        rest, behind = rest[: until.start()].strip(), rest[until.start() :]  # except 12 Oct until 2 Nov
    text = f"{text[: excepted.start()]} {behind}".strip()
    rest, clock = without_times(rest)
    found = found._replace(clock=clock)
    if re.fullmatch(f"(?i){_HOLIDAYS}", rest):
        found = found._replace(needs_days_off=True)
    elif without := months_alone(rest, lexicon):
        found = found._replace(months=Months(1, 12, without))
    elif weekdays := _weekdays_alone(rest, lexicon):
        found = found._replace(rule=Rule("DAILY", weekdays=tuple((0, day) for day in weekdays)))
    else:
        listed = read_day_list(rest, lexicon)
        if isinstance(listed, Refusal):
            return text, listed
        found = found._replace(left_out=listed)
    return text, found


def _weekdays_alone(text: str, lexicon: Lexicon) -> tuple[int, ...]:
    """The weekdays of a text that holds nothing else."""
    signs = signs_of(text, lexicon)
    return numbers_of("W", signs) if isinstance(signs, str) and re.fullmatch(WEEKDAYS, signs) else ()


def _date_clause(text: str, pattern: str, lexicon: Lexicon) -> tuple[str, Days | None]:
    """The text without its first clause of this kind whose words are followed by a date."""
    for match in re.finditer(pattern, text):
        days = read_days(re.sub(r"(?i)^(?:the|le|on)\s+", "", text[match.end() :]), lexicon)
        if isinstance(days, Days):
            return f"{text[: match.start()]} {days.rest}".strip(), days
    return text, None


def _weekday_list(match: re.Match[str], lexicon: Lexicon) -> str:
    ends = [lexicon.weekday(fold(word)) for word in match.groups()]
    if ends[0] is None or ends[1] is None:
        return match[0]
    names = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
    count = (ends[1] - ends[0]) % 7 + 1
    return ", ".join(names[(ends[0] + n) % 7] for n in range(count))


def _number(text: str) -> int | None:
    return int(text) if text.isdecimal() else _SMALL.get(fold(text))


def read_day_list(text: str, lexicon: Lexicon) -> tuple[Days, ...] | Refusal:
    """Days and ranges of days, parted by semicolons, lines, commas or “and”.

    >>> from nomarium.reading.cells.words import ENGLISH
    >>> len(read_day_list("6, 13 and 20 May 2027; 3 June", ENGLISH))
    4
    """
    if long := too_long(text, LONGEST_LIST):
        return long
    found: list[Days] = []
    for part in re.split(r"[;\n]", text):
        if part.strip():
            days = _days_of_part(part.strip(), lexicon)
            if isinstance(days, Refusal):
                return days
            found += days
    return tuple(found)


_ORDINAL = r"\d{1,2}(?:st|nd|rd|th)?"
_MONTH_FIRST = (
    rf"(?i)(?<!\d)(?<!\d )(?P<month>[^\W\d_]{{3,}}\.?)\s+(?P<days>{_ORDINAL}(?:(?:\s*,\s*{_ORDINAL})+(?:\s*,?\s*(?:&|\+|\band\b)\s*{_ORDINAL}|\s*,\s*{_ORDINAL})"
    rf"|\s*(?:&|\+|\band\b)\s*{_ORDINAL}|(?:/{_ORDINAL}){{2,4}}))(?:\s*,?\s*(?P<year>\d{{4}}))?(?![\d./:-])"
)
"""Several days behind the name of their month, `Dec 11 & 12`; of `Sept 5, 26` the second may be a year."""


def _days_first(match: re.Match[str], lexicon: Lexicon) -> str:
    """Days behind the name of their month, each before it."""
    if fold(match["month"]).strip(".") not in lexicon.months:
        return match[0]
    end = " ".join(filter(None, (match["month"], match["year"])))
    return ", ".join(f"{day} {end}" for day in re.findall(r"\d{1,2}", match["days"]))


def _days_of_part(part: str, lexicon: Lexicon) -> list[Days] | Refusal:
    whole = read_days(part, lexicon)
    if isinstance(whole, Days) and not whole.rest:
        return [whole]
    part = with_days_apart(part, lexicon)
    part = re.sub(_MONTH_FIRST, lambda match: _days_first(match, lexicon), part)
    pieces = [piece for piece in re.split(r"\s*(?:,|&|\+|\band\b|\bet\b|\bund\b|\by\b)\s*", part) if piece]
    if len(pieces) < 2:
        rest = (
            f"“{whole.rest}” after the date is not understood." if isinstance(whole, Days) else whole.message
        )
        return Refusal("date-unread", rest, "Write dates like 2027-04-12, parted by semicolons.")
    found: list[Days] = []
    carried: Days | None = None
    for piece in reversed(pieces):  # “6, 13 and 20 May”: the month said last holds for the days before it
        days = read_days(piece, lexicon)
        bare = re.fullmatch(r"(?:([^\W\d_]+)\.?\s+)?(\d{1,2})(?:st|nd|rd|th|er|e)?", piece)
        weekday = lexicon.weekdays.get(fold(bare[1])) if bare and bare[1] else None
        if bare and bare[1] and weekday is None:
            bare = None
        if bare and carried is not None and isinstance(days, Refusal):
            readings = tuple(one._replace(day=int(bare[2])) for one in carried.first.readings)
            days = Days(Day(tuple(one for one in readings if one.date(2000)), weekday))
            if not days.first.readings:
                return Refusal(
                    "date-impossible", f"There is no day {piece} in that month.", "Check the dates."
                )
        if isinstance(days, Refusal) or days.rest:
            why = (
                days.message
                if isinstance(days, Refusal)
                else f"“{days.rest}” after the date is not understood."
            )
            return Refusal("date-unread", why, "Write dates like 2027-04-12, parted by semicolons.")
        found.insert(0, days)
        carried = days
    return found
