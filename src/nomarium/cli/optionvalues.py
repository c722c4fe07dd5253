"""What the texts of options mean; what makes no sense is a UsageError, which names the option."""

import datetime as dt
from pathlib import Path
from typing import cast, get_args

from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem
from nomarium.reading.options import Clock, HiddenRows, Layout, Order, ReadingOptions, Spans, Swapped

_NO_EDITS = ReadingOptions()


def edits_asked(
    only: list[str] | None = None,
    leave_out: list[str] | None = None,
    override: list[str] | None = None,
    rename: list[str] | None = None,
    people: list[str] | None = None,
    places: list[str] | None = None,
) -> ReadingOptions:
    """What is to be done to events after they are read. Raises UsageError for the first that makes no sense."""
    return ReadingOptions(
        only=_pairs(only or [], "--only"),
        dropped=_pairs(leave_out or [], "--leave-out"),
        overrides=_overrides(override or []),
        renamed=_renamed(rename or []),
        people=tuple(people or ()),
        places=tuple(places or ()),
    )


def meanings_asked(
    options: ReadingOptions,
    set_code: list[str] | None,
    weekdays: list[str] | None,
    table: list[str] | None,
    cell: str | None,
) -> ReadingOptions:
    """The options with what codes, sheets and the parts of cells mean. Raises UsageError for what makes no sense."""
    return options._replace(
        codes=_codes(set_code or [], "--set-code", "its times", "E=7:00-15:00"),
        weekdays=_codes(weekdays or [], "--weekdays", "its weekdays", "TH=Thu"),
        tables=_tables(table or []),
        cell=_cell(cell or ""),
    )


def reading_options(
    *,
    sheet: list[str] | None = None,
    layout: str | None = None,
    column: list[str] | None = None,
    set_: list[str] | None = None,
    keep_extra: bool = False,
    timezone: str | None = None,
    date_order: str | None = None,
    school_year: str | None = None,
    language: list[str] | None = None,
    default_length: str | None = None,
    fill_down: list[str] | None = None,
    day_one: str | None = None,
    clock: str | None = None,
    spans: str | None = None,
    swapped: str | None = None,
    hidden_rows: str | None = None,
    terms: list[str] | None = None,
    title: str | None = None,
    edits: ReadingOptions = _NO_EDITS,
    first: dt.date | None = None,
    until: dt.date | None = None,
    knows_days_off: bool = False,
    recipe: str | None = None,
) -> ReadingOptions:
    """The reading options of a command line, over those of a recipe. Raises UsageError for the first that makes no
    sense, SourceError for a recipe that cannot be used."""
    options = edits._replace(
        sheets=tuple(sheet or ()),
        layout=_layout(layout),
        columns=_columns(column or []),
        defaults=_defaults(set_ or []),
        keep_extra=keep_extra,
        zone=zone_option(timezone) if timezone else None,
        date_order=_order(date_order),
        school_year=school_year_option(school_year) if school_year else None,
        languages=tuple(code for text in language or () for code in text.replace(",", " ").split()),
        default_length_secs=length_option(default_length, "--default-length") if default_length else None,
        fill_down=tuple(fill_down or ()),
        day_one=date_option(day_one, "--day-one") if day_one else None,
        clock=cast(Clock, _choice(clock, "--clock", get_args(Clock)[1:])),
        spans=cast(Spans, _choice(spans, "--spans", get_args(Spans)[1:])),
        swapped=cast(Swapped, _choice(swapped, "--swapped", get_args(Swapped)[1:])),
        hidden_rows=cast(HiddenRows, _choice(hidden_rows, "--hidden-rows", get_args(HiddenRows)[1:])),
        terms=tuple(terms or ()),
        title=title or "",
        repeats_from=first,
        repeats_until=until,
        knows_days_off=knows_days_off,
    )
    if recipe is None:
        return options
    from nomarium.sources.recipe import with_recipe

    return with_recipe(options, Path(recipe))


def _layout(text: str | None) -> Layout | None:
    if text is None:
        return None
    for layout in get_args(Layout):
        if text == layout:
            known: Layout = layout
            return known
    raise wrong(f"--as {text} is no layout.", f"Use {', '.join(get_args(Layout))}.")


def _order(text: str | None) -> Order:
    order = (text or "").strip().lower()
    for one in get_args(Order):
        if order == one:
            known: Order = one
            return known
    raise wrong(f"--date-order {text} is no order.", "Use dmy (day first), mdy (month first) or ymd.")


def _choice(text: str | None, option: str, known: tuple[str, ...]) -> str:
    if text is None or text in known:
        return text or ""
    raise wrong(f"{option} {text} is not one of its answers.", f"Use {' or '.join(known)}.")


def _columns(texts: list[str]) -> dict[str, str]:
    columns: dict[str, str] = {}
    for text in texts:
        heading, sign, field = text.rpartition("=")
        if not sign or not heading:
            raise wrong(f"--column {text} has no “=”.", 'Write it like --column "Opponent=summary".')
        known = field_option(field, "--column") if field.strip() else ""
        if columns.setdefault(heading.strip(), known) != known:
            raise wrong(f"--column says two things of “{heading.strip()}”.", "Keep one of them.")
    return columns


def _defaults(texts: list[str]) -> dict[str, str]:
    return _fields_with_values(texts, "--set")


def _fields_with_values(texts: list[str], option: str) -> dict[str, str]:
    """Fields and the values that an option gives them, each of which must be one that its cells can have."""
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.memo import value_memo
    from nomarium.reading.cells.moments import ROLES

    values: dict[str, str] = {}
    for text in texts:
        name, sign, value = (part.strip() for part in text.partition("="))
        if not sign:
            raise wrong(f"{option} {text} has no “=”.", f'Write it like {option} location="Main slip".')
        field = field_option(name, option)
        read = value_memo(field, value)[""] if field not in ROLES else None
        if isinstance(read, Refusal):
            raise wrong(f"{option} {text}: {read.message}", read.remedy)
        if values.setdefault(field, value) != value:
            raise wrong(
                f"{option} gives {field} twice, “{values[field]}” and “{value}”.", "Keep one of them."
            )
    return values


def _pairs(texts: list[str], option: str) -> tuple[tuple[str, str], ...]:
    """Fields with values by which events are picked; a value may be blank."""
    from nomarium.model.values import VALUE_FIELDS

    pairs = []
    for text in texts:
        name, sign, value = text.partition("=")
        if not sign:
            raise wrong(f"{option} {text} has no “=”.", f"Write it like {option} categories=Race.")
        field = field_option(name, option)
        if field not in VALUE_FIELDS:
            remedy = "For dates there are --from and --until."
            if field not in ("date", "start", "end", "when", "time", "end-date"):
                remedy = f"Pick by one of {', '.join(VALUE_FIELDS)}."
            raise wrong(f"{option}: events cannot be picked by their {field}.", remedy)
        pairs.append((field, value.strip()))
    return tuple(pairs)


def _overrides(texts: list[str]) -> dict[str, str]:
    found = _fields_with_values(texts, "--override")
    for field in found:
        if field == "uid":
            raise wrong("--override uid: two events cannot share one.", "Leave it out.")
    return found


def _codes(texts: list[str], option: str, what: str, example: str) -> dict[str, str]:
    """Codes and what each means, as an option says them."""
    codes: dict[str, str] = {}
    for text in texts:
        code, sign, said = (part.strip() for part in text.partition("="))
        if not sign or not code or not said:
            message = f"{option} {text} has no “=” between a code and {what}."
            raise wrong(message, f'Write it like {option} "{example}".')
        if codes.setdefault(code, said) != said:
            raise wrong(f"{option} says two things of “{code}”.", "Keep one of them.")
    return codes


def _cell(pattern: str) -> str:
    """A pattern of a drawn cell's parts."""
    if not pattern:
        return ""
    from nomarium.school.cellpatterns import PARTS, alternatives, repeated_part, unknown_parts

    strange, twice = unknown_parts(pattern), repeated_part(pattern)
    if strange or twice or not all("class" in one for one in alternatives(pattern)):
        what = f"“{strange[0]}” is no part of a cell" if strange else "it has no class"
        what = f"it names “{twice}” twice" if twice and not strange else what
        raise wrong(
            f"--cell {pattern}: {what}.",
            f'Write it like --cell "class, room / teacher"; parts are {", ".join(PARTS)}.',
        )
    return pattern


def _tables(texts: list[str]) -> dict[str, str]:
    """Sheets and the table of a plan that each is; nothing for one that is left out."""
    if not texts:
        return {}
    from nomarium.school.plantables import TITLES, table_name

    tables: dict[str, str] = {}
    for text in texts:
        sheet, sign, said = (part.strip() for part in text.rpartition("="))
        name = table_name(said) if said else ""
        if not sign or not sheet or name is None:
            known = ", ".join(title.lower() for title in TITLES.values())
            raise wrong(
                f"--table {text} names no table of a plan.",
                f'Write it like --table "Sheet1=bells"; tables are {known}.',
            )
        if tables.setdefault(sheet, name) != name:
            raise wrong(f"--table says two things of “{sheet}”.", "Keep one of them.")
    return tables


def _renamed(texts: list[str]) -> dict[str, str]:
    found: dict[str, str] = {}
    for text in texts:
        old, sign, new = (part.strip() for part in text.partition("="))
        if not sign or not old:
            raise wrong(f"--rename {text} has no “=” after a title.", 'Write it like --rename "A1=Rigging".')
        if not new:
            raise wrong(
                f"--rename {text} has no new title.", f'To leave it out: --leave-out "summary={old}".'
            )
        if found.setdefault(old, new) != new:
            raise wrong(f"--rename calls “{old}” both “{found[old]}” and “{new}”.", "Keep one of them.")
    return found


def field_option(text: str, option: str) -> str:
    """A field's name, as `docs/reading-tables.md` lists them."""
    from nomarium.reading.columns.headings import FIELDS, near_field

    name = text.strip().lower().replace("_", "-").replace(" ", "-")
    name = {"title": "summary", "category": "categories"}.get(name, name)  # what everybody calls them
    if name in FIELDS:
        return name
    near = near_field(text)
    remedy = f"Did you mean {near}?" if near else f"The fields are {', '.join(FIELDS)}."
    raise wrong(f"{option}: there is no field “{text.strip()}”.", remedy)


def zone_option(text: str) -> str:
    """An IANA zone name that exists."""
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.memo import read_zone

    name = read_zone(text)
    if isinstance(name, Refusal):
        raise wrong(name.message, name.remedy)
    return name


def length_option(text: str, option: str) -> int:
    """A length in seconds; a number alone is refused."""
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.lengths import read_length

    secs = read_length(text)
    if isinstance(secs, Refusal):
        raise wrong(f"{option}: {secs.message}", secs.remedy)
    return secs


def date_option(text: str, option: str) -> dt.date:
    """A date about which nothing is open."""
    from nomarium.reading.cells.dates import Days, read_days
    from nomarium.reading.cells.words import ENGLISH

    days = read_days(text, ENGLISH)
    if isinstance(days, Days) and not days.rest and days.last is None and len(days.first.readings) == 1:
        date = days.first.readings[0].date() if days.first.readings[0].year else None
        if date is not None:
            return date
    raise wrong(f"{option} {text} is not a whole date.", "Write it like 2027-04-12.")


def window_options(first: str | None, last: str | None) -> tuple[dt.date | None, dt.date | None]:
    """The dates of --from and --until."""
    from_day = date_option(first, "--from") if first else None
    until_day = date_option(last, "--until") if last else None
    if from_day and until_day and until_day < from_day:
        raise wrong(f"--until {until_day} is before --from {from_day}.", "Swap them.")
    return from_day, until_day


def school_year_option(text: str) -> tuple[dt.date, dt.date]:
    """Two dates, two months or two years parted by a colon."""
    first, sign, last = (part.strip() for part in text.partition(":"))
    if not sign:
        raise wrong(
            f"--school-year {text} has no “:”.",
            "Write it like 2026-09-01:2027-06-30, or 2026:2027.",
        )
    if first.isdigit() and last.isdigit() and len(first) == len(last) == 4:
        if first == last:
            return dt.date(int(first), 1, 1), dt.date(int(last), 12, 31)
        window = dt.date(int(first), 8, 1), dt.date(int(last), 7, 31)
    else:
        window = date_option(first, "--school-year"), date_option(last, "--school-year")
    if window[1] <= window[0]:
        raise wrong(f"--school-year {text} ends before it begins.", "Swap its dates.")
    return window


def wrong(message: str, remedy: str) -> UsageError:
    return UsageError(Problem("usage", message, remedy))
