"""Options that several commands take, each declared once, and what their texts mean."""

import datetime as dt
from typing import Annotated

import typer

from nomarium.model.errors import UsageError
from nomarium.model.problem import Problem
from nomarium.reading.options import Layout, ReadingOptions

READING, EVENTS, WRITING, REPORT = "Reading the source", "The events", "Writing", "Reporting"

Sources = Annotated[
    list[str] | None,
    typer.Argument(
        metavar="SOURCE…",
        help="Spreadsheets (.csv .tsv .txt .xlsx .xlsm .xlsb .xls .ods), a folder that holds a plan, calendar files (.ics, jCal), an http(s) address of one, or - for standard input.",
        show_default=False,
    ),
]
Sheets = Annotated[
    list[str] | None,
    typer.Option(
        "--sheet",
        metavar="NAME",
        help="Read this sheet (or named table) only; may be repeated.",
        rich_help_panel=READING,
    ),
]
As = Annotated[
    str | None,
    typer.Option(
        "--as",
        metavar="LAYOUT",
        help="What the source is: events (a list), plan (the tables of a school year), grid (dates × times) or month (a month drawn in cells). Found from the content when not given.",
        rich_help_panel=READING,
    ),
]
Columns = Annotated[
    list[str] | None,
    typer.Option(
        "--column",
        metavar="HEADING=FIELD",
        help="This heading means this field; HEADING= leaves the column out. May be repeated.",
        rich_help_panel=READING,
    ),
]
Sets = Annotated[
    list[str] | None,
    typer.Option(
        "--set",
        metavar="FIELD=VALUE",
        help="The value where a row has none. May be repeated.",
        rich_help_panel=READING,
    ),
]
Recipe = Annotated[
    str | None,
    typer.Option(
        "--recipe",
        metavar="FILE",
        help="A saved reading, made by survey --save.",
        rich_help_panel=READING,
    ),
]
KeepExtra = Annotated[
    bool,
    typer.Option(
        "--keep-extra",
        help="Put columns with no field into the description as “Heading: value” lines.",
        rich_help_panel=READING,
    ),
]
Timezone = Annotated[
    str | None,
    typer.Option(
        "--timezone",
        metavar="ZONE",
        envvar="NOMARIUM_TIMEZONE",
        help="IANA zone of the times, such as America/Halifax. Without one, times float.",
        rich_help_panel=READING,
    ),
]
DateOrder = Annotated[
    str | None,
    typer.Option(
        "--date-order",
        metavar="dmy|mdy|ymd",
        envvar="NOMARIUM_DATE_ORDER",
        help="How dates in figures are read, where the column itself does not settle it.",
        rich_help_panel=READING,
    ),
]
SchoolYear = Annotated[
    str | None,
    typer.Option(
        "--school-year",
        metavar="A:B",
        envvar="NOMARIUM_SCHOOL_YEAR",
        help="The window that dates without a year fall in: two dates, or two years (2026:2027 is August 2026 to July 2027).",
        rich_help_panel=READING,
    ),
]
Languages = Annotated[
    list[str] | None,
    typer.Option(
        "--language",
        metavar="CODE",
        envvar="NOMARIUM_LANGUAGE",
        help="Month and weekday names in this language, such as fr. May be repeated.",
        rich_help_panel=READING,
    ),
]
DefaultLength = Annotated[
    str | None,
    typer.Option(
        "--default-length",
        metavar="LENGTH",
        envvar="NOMARIUM_DEFAULT_LENGTH",
        help="Length of a timed event with no end; 1h when not given.",
        rich_help_panel=READING,
    ),
]
FillDown = Annotated[
    list[str] | None,
    typer.Option(
        "--fill-down",
        metavar="HEADING",
        help="A blank cell in this column takes the value above it. May be repeated.",
        rich_help_panel=READING,
    ),
]
DayOne = Annotated[
    str | None,
    typer.Option(
        "--day-one",
        metavar="DATE",
        help="The date of week 1 day 1, for a programme in relative days.",
        rich_help_panel=READING,
    ),
]
From = Annotated[
    str | None,
    typer.Option(
        "--from",
        metavar="DATE",
        help="Keep only events that touch this day or a later one.",
        rich_help_panel=EVENTS,
    ),
]
Until = Annotated[
    str | None,
    typer.Option(
        "--until",
        metavar="DATE",
        help="Keep only events to this day (inclusive); a repeat without an end stops here.",
        rich_help_panel=EVENTS,
    ),
]
DaysOffFiles = Annotated[
    list[str] | None,
    typer.Option(
        "--days-off",
        metavar="FILE",
        help="Repeats skip these dates: a table of names with dates or ranges, or a calendar file. May be repeated.",
        rich_help_panel=EVENTS,
    ),
]
PublicHolidayCodes = Annotated[
    list[str] | None,
    typer.Option(
        "--public-holidays",
        metavar="CODE",
        help="Repeats skip the public holidays of a country or region, such as NZ or CA-NS. May be repeated.",
        rich_help_panel=EVENTS,
    ),
]
Json = Annotated[
    bool,
    typer.Option("--json", help="Print the same facts as one JSON document.", rich_help_panel=REPORT),
]


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
    until: dt.date | None = None,
    knows_days_off: bool = False,
) -> ReadingOptions:
    """The reading options of a command line. Raises UsageError for the first that makes no sense."""
    return ReadingOptions(
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
        repeats_until=until,
        knows_days_off=knows_days_off,
    )


def _layout(text: str | None) -> Layout | None:
    if text is None:
        return None
    if text not in ("events", "plan", "grid", "month"):
        raise _wrong(f"--as {text} is no layout.", "Use events, plan, grid or month.")
    return text  # type: ignore[return-value]


def _order(text: str | None) -> str:
    order = (text or "").strip().lower()
    if order not in ("", "dmy", "mdy", "ymd"):
        raise _wrong(f"--date-order {text} is no order.", "Use dmy (day first), mdy (month first) or ymd.")
    return order


def _columns(texts: list[str]) -> dict[str, str]:
    columns = {}
    for text in texts:
        heading, sign, field = text.rpartition("=")
        if not sign or not heading:
            raise _wrong(f"--column {text} has no “=”.", 'Write it like --column "Opponent=summary".')
        columns[heading.strip()] = field_option(field, "--column") if field.strip() else ""
    return columns


def _defaults(texts: list[str]) -> dict[str, str]:
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.memo import value_memo
    from nomarium.reading.cells.moments import ROLES

    defaults = {}
    for text in texts:
        name, sign, value = text.partition("=")
        if not sign:
            raise _wrong(f"--set {text} has no “=”.", 'Write it like --set location="Main slip".')
        field = field_option(name, "--set")
        read = value_memo(field, value)[""] if field not in ROLES else None
        if isinstance(read, Refusal):
            raise _wrong(f"--set {text}: {read.message}", read.remedy)
        defaults[field] = value.strip()
    return defaults


def field_option(text: str, option: str) -> str:
    """A field's name, as `docs/reading-tables.md` lists them."""
    from nomarium.reading.columns.headings import FIELDS, near_field

    name = text.strip().lower().replace("_", "-").replace(" ", "-")
    if name in FIELDS or (name == "person" and option == "--split-by"):
        return name
    near = near_field(text)
    remedy = f"Did you mean {near}?" if near else f"The fields are {', '.join(FIELDS)}."
    raise _wrong(f"{option}: there is no field “{text.strip()}”.", remedy)


def zone_option(text: str) -> str:
    """An IANA zone name that exists."""
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.memo import read_zone

    name = read_zone(text)
    if isinstance(name, Refusal):
        raise _wrong(name.message, name.remedy)
    return name


def length_option(text: str, option: str) -> int:
    """A length in seconds; a number alone is refused."""
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.lengths import read_length

    secs = read_length(text)
    if isinstance(secs, Refusal):
        raise _wrong(f"{option}: {secs.message}", secs.remedy)
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
    raise _wrong(f"{option} {text} is not a whole date.", "Write it like 2027-04-12.")


def window_options(first: str | None, last: str | None) -> tuple[dt.date | None, dt.date | None]:
    """The dates of --from and --until."""
    from_day = date_option(first, "--from") if first else None
    until_day = date_option(last, "--until") if last else None
    if from_day and until_day and until_day < from_day:
        raise _wrong(f"--until {until_day} is before --from {from_day}.", "Swap them.")
    return from_day, until_day


def school_year_option(text: str) -> tuple[dt.date, dt.date]:
    """Two dates, two months or two years parted by a colon."""
    first, sign, last = (part.strip() for part in text.partition(":"))
    if not sign:
        raise _wrong(
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
        raise _wrong(f"--school-year {text} ends before it begins.", "Swap its dates.")
    return window


def _wrong(message: str, remedy: str) -> UsageError:
    return UsageError(Problem("usage", message, remedy))
