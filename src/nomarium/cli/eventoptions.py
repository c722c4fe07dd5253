"""The options about what becomes of the events that were read, each declared once."""

from typing import Annotated

import typer

from nomarium.cli.panels import FAULTY, FIRST, REPEATS, WINDOW

Only = Annotated[
    list[str] | None,
    typer.Option(
        "--only",
        metavar="FIELD=VALUE",
        help="Keep only events with this value; * is any text.",
        rich_help_panel=FIRST,
    ),
]
LeaveOut = Annotated[
    list[str] | None,
    typer.Option(
        "--leave-out",
        metavar="FIELD=VALUE",
        help="Leave out events with this value; they are counted. May be repeated.",
        rich_help_panel=WINDOW,
    ),
]
Override = Annotated[
    list[str] | None,
    typer.Option(
        "--override",
        metavar="FIELD=VALUE",
        help="The value of every event, whatever stands there; FIELD= empties it. May be repeated.",
        rich_help_panel=WINDOW,
    ),
]
Rename = Annotated[
    list[str] | None,
    typer.Option(
        "--rename",
        metavar="OLD=NEW",
        help="Call the events or classes of this title or code so. May be repeated.",
        rich_help_panel=WINDOW,
    ),
]
People = Annotated[
    list[str] | None,
    typer.Option(
        "--people",
        metavar="FILE",
        help="A table of names and e-mail addresses: those who are invited get theirs.",
        rich_help_panel=WINDOW,
    ),
]
Places = Annotated[
    list[str] | None,
    typer.Option(
        "--places",
        metavar="FILE",
        help="A table of places with their addresses, coordinates or links: events there get them.",
        rich_help_panel=WINDOW,
    ),
]
Without = Annotated[
    list[str] | None,
    typer.Option(
        "--without",
        metavar="CALENDAR",
        help="Leave out what this calendar file holds already, by UID, else by title and time. May be repeated.",
        rich_help_panel=WINDOW,
    ),
]
From = Annotated[
    str | None,
    typer.Option(
        "--from",
        metavar="DATE",
        help="Keep only events that touch this day or a later one.",
        rich_help_panel=WINDOW,
    ),
]
Until = Annotated[
    str | None,
    typer.Option(
        "--until",
        metavar="DATE",
        help="Keep only events to this day (inclusive); a repeat without an end stops here.",
        rich_help_panel=WINDOW,
    ),
]
Repeats = Annotated[
    str,
    typer.Option(
        "--repeats",
        metavar="dated|rule",
        help="Expand repeats into dated events, or keep a rule with its exceptions where a rule can say it.",
        rich_help_panel=REPEATS,
    ),
]
DaysOffFiles = Annotated[
    list[str] | None,
    typer.Option(
        "--days-off",
        metavar="FILE",
        help="Repeats skip these dates: a table of names with dates or ranges, or a calendar file. May be repeated.",
        rich_help_panel=REPEATS,
    ),
]
PublicHolidayCodes = Annotated[
    list[str] | None,
    typer.Option(
        "--public-holidays",
        metavar="CODE",
        help="Repeats skip the public holidays of a country or region, such as NZ or CA-NS. May be repeated.",
        rich_help_panel=REPEATS,
    ),
]
ShowHolidays = Annotated[
    bool,
    typer.Option(
        "--show-holidays",
        help="Add the public holidays as all-day events, too.",
        rich_help_panel=REPEATS,
    ),
]
MergeDuplicates = Annotated[
    bool,
    typer.Option(
        "--merge-duplicates",
        help="Write events that say the same, under whatever UIDs, once.",
        rich_help_panel=WINDOW,
    ),
]
Reminder = Annotated[
    str | None,
    typer.Option(
        "--reminder",
        metavar="LENGTH",
        help="A display alarm this long before each event that has none.",
        rich_help_panel=WINDOW,
    ),
]
Expect = Annotated[
    int | None,
    typer.Option(
        "--expect",
        metavar="N",
        min=0,
        help="Fail if the number of events is not N.",
        rich_help_panel=FAULTY,
    ),
]
