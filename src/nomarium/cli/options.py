"""The options of the commands, each declared once."""

from typing import Annotated

import typer

from nomarium.cli.panels import AGAIN, COLUMNS, DATES, FAULTY, FIRST, REPORT, SCHOOL, WRITING

Sources = Annotated[
    list[str] | None,
    typer.Argument(
        metavar="SOURCE…",
        help="Spreadsheets, calendars, a plan's folder, their addresses, or -",
        show_default=False,
    ),
]
Sheets = Annotated[
    list[str] | None,
    typer.Option(
        "--sheet",
        metavar="NAME",
        help="Read this sheet or named table only.",
        rich_help_panel=FIRST,
    ),
]
As = Annotated[
    str | None,
    typer.Option(
        "--as",
        metavar="LAYOUT",
        help="What the source is: events (a list), plan (the tables of a school year), timetable (classes on weekdays or labels without dates), grid (dates × times), planner (weeks × weekdays), day (times × places), month (a month drawn in cells), wall (a year drawn in cells), matrix (what happens × months), roster (names × dates) or text (lines). Found from the content when not given.",
        rich_help_panel=COLUMNS,
    ),
]
Columns = Annotated[
    list[str] | None,
    typer.Option(
        "--column",
        metavar="HEADING=FIELD",
        help="This heading means this field; HEADING= leaves it out.",
        rich_help_panel=FIRST,
    ),
]
Sets = Annotated[
    list[str] | None,
    typer.Option(
        "--set",
        metavar="FIELD=VALUE",
        help="The value where a row has none.",
        rich_help_panel=FIRST,
    ),
]
Recipe = Annotated[
    str | None,
    typer.Option(
        "--recipe",
        metavar="FILE",
        help="A saved reading, made by survey --save.",
        rich_help_panel=COLUMNS,
    ),
]
KeepExtra = Annotated[
    bool,
    typer.Option(
        "--keep-extra",
        help="Put columns with no field into the description as “Heading: value” lines.",
        rich_help_panel=COLUMNS,
    ),
]
Timezone = Annotated[
    str | None,
    typer.Option(
        "--timezone",
        metavar="ZONE",
        envvar="NOMARIUM_TIMEZONE",
        show_envvar=False,
        help="Where the times are, such as America/Halifax.",
        rich_help_panel=FIRST,
    ),
]
DateOrder = Annotated[
    str | None,
    typer.Option(
        "--date-order",
        metavar="dmy|mdy|ymd",
        envvar="NOMARIUM_DATE_ORDER",
        show_envvar=False,
        help="How 03/04/2026 is read, where nothing else settles it.",
        rich_help_panel=FIRST,
    ),
]
SchoolYear = Annotated[
    str | None,
    typer.Option(
        "--school-year",
        metavar="A:B",
        envvar="NOMARIUM_SCHOOL_YEAR",
        help="The window that dates without a year fall in: two dates, or two years (2026:2027 is August 2026 to July 2027).",
        rich_help_panel=DATES,
    ),
]
Languages = Annotated[
    list[str] | None,
    typer.Option(
        "--language",
        metavar="CODE",
        envvar="NOMARIUM_LANGUAGE",
        help="Month and weekday names in this language, such as fr. May be repeated.",
        rich_help_panel=DATES,
    ),
]
DefaultLength = Annotated[
    str | None,
    typer.Option(
        "--default-length",
        metavar="LENGTH",
        envvar="NOMARIUM_DEFAULT_LENGTH",
        help="Length of a timed event with no end; 1h when not given.",
        rich_help_panel=DATES,
    ),
]
FillDown = Annotated[
    list[str] | None,
    typer.Option(
        "--fill-down",
        metavar="HEADING",
        help="A blank cell in this column takes the value above it. May be repeated.",
        rich_help_panel=COLUMNS,
    ),
]
DayOne = Annotated[
    str | None,
    typer.Option(
        "--day-one",
        metavar="DATE",
        help="The date of week 1 day 1 of a programme, or of the one week of a timetable; a list with dates is moved so that its first is this one.",
        rich_help_panel=DATES,
    ),
]
Clock = Annotated[
    str | None,
    typer.Option(
        "--clock",
        metavar="12|24",
        help="How times without am or pm are read, where the table does not show it: 12 puts 1:00 to 6:59 into the afternoon.",
        rich_help_panel=DATES,
    ),
]
Spans = Annotated[
    str | None,
    typer.Option(
        "--spans",
        metavar="daily|whole",
        help="What a first day, a last day and times are: an event on each day, or one long event.",
        rich_help_panel=DATES,
    ),
]
Swapped = Annotated[
    str | None,
    typer.Option(
        "--swapped",
        metavar="yes|no",
        help="Whether days and months of a workbook's own dates were exchanged by another country's settings.",
        rich_help_panel=DATES,
    ),
]
HiddenRows = Annotated[
    str | None,
    typer.Option(
        "--hidden-rows",
        metavar="skip|read",
        help="What becomes of rows that a filter hides in a workbook; they are read, and told of.",
        rich_help_panel=COLUMNS,
    ),
]
SetCodes = Annotated[
    list[str] | None,
    typer.Option(
        "--set-code",
        metavar="CODE=TIMES",
        help="What a code in the cells of a roster or planner stands for, such as “E=7:00-15:00” or “H=Holiday”. May be repeated.",
        rich_help_panel=SCHOOL,
    ),
]
Weekdays = Annotated[
    list[str] | None,
    typer.Option(
        "--weekdays",
        metavar="CODE=DAYS",
        help="What a doubtful code of weekdays means, such as “TH=Thu”. May be repeated.",
        rich_help_panel=SCHOOL,
    ),
]
Tables = Annotated[
    list[str] | None,
    typer.Option(
        "--table",
        metavar="SHEET=TABLE",
        help="This sheet (or file) is this table of a plan: terms, days off, cycle, special days, bells, timetable, rotation, names, people, enrolments, lessons or events; SHEET= leaves it out. May be repeated.",
        rich_help_panel=SCHOOL,
    ),
]
CellPattern = Annotated[
    str | None,
    typer.Option(
        "--cell",
        metavar="PATTERN",
        help="What the parts of a drawn cell are, such as “class, room / teacher”; two forms: “class (room) or class”.",
        rich_help_panel=SCHOOL,
    ),
]
Terms = Annotated[
    list[str] | None,
    typer.Option(
        "--terms",
        metavar="FILE",
        help="A table of terms with their first and last days: a date may then be “Week 3 Term 2”, and weekdays without dates repeat in them.",
        rich_help_panel=SCHOOL,
    ),
]
Title = Annotated[
    str | None,
    typer.Option(
        "--title",
        metavar="TEMPLATE",
        help="The title from columns, such as “{Subject}: {Paper}”.",
        rich_help_panel=FIRST,
    ),
]
Json = Annotated[
    bool,
    typer.Option("--json", help="Print the same facts as one JSON document.", rich_help_panel=REPORT),
]
Ask = Annotated[
    bool,
    typer.Option(
        "--ask",
        help="On a terminal: put each question that a refusal would name an option for, and go on with the answers.",
        rich_help_panel=FAULTY,
    ),
]
Details = Annotated[
    bool,
    typer.Option("--details", help="Print every note, table and row of the account.", rich_help_panel=REPORT),
]
Output = Annotated[
    str,
    typer.Option(
        "--output",
        "-o",
        metavar="PATH",
        help="To .ics .json .csv .xlsx .html, a folder or -",
        show_default=False,
        rich_help_panel=FIRST,
    ),
]
SplitBy = Annotated[
    list[str] | None,
    typer.Option(
        "--split-by",
        metavar="FIELD[,FIELD]",
        help="One file for each teacher, class, room, audience ….",
        rich_help_panel=FIRST,
    ),
]
Name = Annotated[
    str | None,
    typer.Option(
        "--name",
        metavar="TEXT",
        help="The calendar's name; the source's file name when not given.",
        rich_help_panel=WRITING,
    ),
]
Color = Annotated[
    str | None,
    typer.Option(
        "--color",
        metavar="NAME",
        help="The calendar's colour, a CSS name such as teal.",
        rich_help_panel=WRITING,
    ),
]
WithPage = Annotated[
    bool,
    typer.Option(
        "--with-page",
        help="With a folder: a page for each calendar, and an index.html that leads to them.",
        rich_help_panel=WRITING,
    ),
]
BaseUrl = Annotated[
    str | None,
    typer.Option(
        "--base-url",
        metavar="URL",
        help="With --with-page: where the folder is to stand on the web, for links to subscribe.",
        rich_help_panel=WRITING,
    ),
]
Partial = Annotated[
    bool,
    typer.Option(
        "--partial",
        help="Write what could be read although some rows were rejected; the exit status stays 1.",
        rich_help_panel=FAULTY,
    ),
]
Rejects = Annotated[
    str | None,
    typer.Option(
        "--rejects",
        metavar="FILE",
        help="Put rejected rows, as they stood plus the reason, in this .csv or .xlsx: mend it and build it.",
        rich_help_panel=FAULTY,
    ),
]
Afresh = Annotated[
    bool,
    typer.Option(
        "--afresh",
        help="Do not carry over UIDs from an output that is already there.",
        rich_help_panel=AGAIN,
    ),
]
CancelRemoved = Annotated[
    bool,
    typer.Option(
        "--cancel-removed",
        help="Keep events that the output had and the source no longer has, as cancelled.",
        rich_help_panel=AGAIN,
    ),
]
Edited = Annotated[
    list[str] | None,
    typer.Option(
        "--edited",
        metavar="CALENDAR",
        help="The calendar as people have changed it since the last build: their changes stay, beside those of the source.",
        rich_help_panel=AGAIN,
    ),
]
Prefer = Annotated[
    str | None,
    typer.Option(
        "--prefer",
        metavar="source|edited",
        help="Whose change wins where source and people changed the same thing differently.",
        rich_help_panel=AGAIN,
    ),
]
Method = Annotated[
    str | None,
    typer.Option(
        "--method",
        metavar="request",
        help="Make a file of invitations to send: the events that have guests.",
        rich_help_panel=WRITING,
    ),
]
Each = Annotated[
    bool,
    typer.Option("--each", help="Every SOURCE is a job of its own, its calendar in the folder -o.", rich_help_panel=WRITING),
]  # fmt: skip
Scheduler = Annotated[
    str | None,
    typer.Option("--scheduler", metavar="ADDRESS", help="A Dask scheduler that does the jobs of --each, tcp://…", rich_help_panel=WRITING),
]  # fmt: skip
Workers = Annotated[
    int | None,
    typer.Option(
        "--workers",
        metavar="N",
        min=1,
        help="Write the meetings of a plan in this many processes. When not given: as many as there are processors, for plans with many thousand meetings. The files are the same.",
        show_default=False,
        rich_help_panel=WRITING,
    ),
]
DryRun = Annotated[
    bool,
    typer.Option("--dry-run", help="Do everything but the writing.", rich_help_panel=FIRST),
]
