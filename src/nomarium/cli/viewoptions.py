"""The options by which a calendar is drawn, and what they come to."""

import re
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Literal, NamedTuple, cast, get_args

import typer

from nomarium.cli.panels import FIRST, LOOK

if TYPE_CHECKING:
    from nomarium.pictures.paging import Kind

AsViewOrLayout = Annotated[
    list[str] | None,
    typer.Option(
        "--as",
        metavar="agenda|week|month|year",
        help="What to draw; agenda when not given (of a page, month). (A LAYOUT of the source may be given beside it.)",
        rich_help_panel=LOOK,
    ),
]
Output = Annotated[
    str | None,
    typer.Option(
        "--output",
        "-o",
        metavar="PATH",
        help="A picture (.png .svg .pdf) or a page (.html); a folder with --split-by.",
        rich_help_panel=FIRST,
    ),
]
ColorBy = Annotated[
    str | None,
    typer.Option(
        "--color-by",
        metavar="FIELD",
        help="Colour by category, class, teacher, room … or calendar; by the events' own colours when not given.",
        rich_help_panel=LOOK,
    ),
]
Days = Annotated[
    str | None,
    typer.Option(
        "--days",
        metavar="DAYS",
        help="The weekdays of a week or month, such as Mon-Fri; what the events need when not given.",
        rich_help_panel=LOOK,
    ),
]
Hours = Annotated[
    str | None,
    typer.Option(
        "--hours",
        metavar="FROM-UNTIL",
        help="The hours of a week, such as 8-16; what the events need when not given.",
        rich_help_panel=LOOK,
    ),
]
Heading = Annotated[
    str | None,
    typer.Option(
        "--heading",
        metavar="TEXT",
        help="What stands above; the calendar's name when not given.",
        rich_help_panel=LOOK,
    ),
]
Paper = Annotated[
    str,
    typer.Option("--paper", metavar="a4|letter", help="The size of a .pdf's pages.", rich_help_panel=LOOK),
]

Form = Literal["terminal", "png", "svg", "pdf", "html"]


class Looking(NamedTuple):
    """What is to be drawn, and where it goes."""

    kind: "Kind"
    form: Form
    output: str | None
    color_by: str
    """A field, `calendar`, or nothing: found from the events."""
    weekdays: frozenset[int]
    """The weekdays that are asked for; none is what the events need."""
    hours: tuple[int, int] | None
    heading: str
    paper: str
    split: tuple[str, ...]


def looking(
    kinds: list[str] | None,
    output: str | None,
    color_by: str | None,
    days: str | None,
    hours: str | None,
    heading: str | None,
    paper: str,
    split_by: list[str] | None,
) -> tuple[Looking, str | None]:
    """What the options come to, and the layout of the source that stands beside the view. Raises UsageError for the
    first that makes no sense."""
    from nomarium.cli.buildoptions import split_option
    from nomarium.cli.optionvalues import wrong

    split = split_option(split_by)
    form = _form(output, bool(split))
    kind, layout = _kind(kinds or [], "month" if form == "html" else "agenda")
    if paper.lower() not in ("a4", "letter"):
        raise wrong(f"--paper {paper} is no size of paper.", "Use a4 or letter.")
    asked = Looking(
        kind, form, output, _field(color_by), weekdays_option(days), _hours(hours), heading or "",
        paper.lower(), split,
    )  # fmt: skip
    if kind in ("agenda", "year") and (days or (hours and kind == "agenda")):
        option = "--days" if days else "--hours"
        raise wrong(f"{option} narrows a week or a month, and not the {kind}.", "Leave it out.")
    if hours and kind != "week":
        raise wrong(f"--hours narrows a week, and not the {kind}.", "Leave it out, or --as week.")
    return asked, layout


def _kind(texts: list[str], otherwise: "Kind") -> "tuple[Kind, str | None]":
    from nomarium.cli.optionvalues import wrong
    from nomarium.pictures.paging import Kind
    from nomarium.reading.options import Layout

    views = [text for text in texts if text in get_args(Kind)]
    layouts = [text for text in texts if text in get_args(Layout) and text not in views]
    for text in texts:
        if text not in views and text not in layouts:
            raise wrong(f"--as {text} is no view.", f"Use {', '.join(get_args(Kind))}.")
    if len(set(views)) > 1 or len(layouts) > 1:
        raise wrong(f"--as {' --as '.join(texts)}: one view at a time.", "Keep one of them.")
    return cast("Kind", views[0] if views else otherwise), layouts[0] if layouts else None


def _form(output: str | None, is_split: bool) -> Form:
    from nomarium.cli.optionvalues import wrong

    if output is None:
        return "terminal"
    if is_split:
        if Path(output).is_file():
            raise wrong(
                f"--split-by makes several pictures, and {output} is one file.", "Name a folder: -o posters/"
            )
        return "png"
    ending = Path(output).suffix.lower().removeprefix(".")
    if ending not in get_args(Form)[1:]:
        raise wrong(
            f"{output} does not say by its ending what it is to be.",
            "Name it like week.png, week.svg, week.pdf (a page a week) or year.html.",
        )
    if Path(output).is_dir():
        raise wrong(f"{output} is a folder.", "Name a file in it, or give --split-by.")
    if not Path(output).parent.is_dir():
        raise wrong(f"There is no folder {Path(output).parent}.", "Make it first.")
    return cast(Form, ending)


def _field(text: str | None) -> str:
    from nomarium.cli.optionvalues import field_option, wrong
    from nomarium.model.values import VALUE_FIELDS

    if text is None:
        return ""
    if text.strip().lower() == "calendar":
        return "calendar"
    field = field_option(text, "--color-by")
    if field not in VALUE_FIELDS:
        raise wrong(
            f"--color-by: events cannot be coloured by their {field}.",
            f"Use calendar, {', '.join(VALUE_FIELDS)}.",
        )
    return field


def weekdays_option(text: str | None) -> frozenset[int]:
    """The weekdays of --days; none when it is not given."""
    from nomarium.cli.optionvalues import wrong
    from nomarium.model.refusal import Refusal
    from nomarium.reading.cells.weekdaycodes import WeekdayCodes
    from nomarium.reading.cells.words import ENGLISH

    if text is None:
        return frozenset()
    days = WeekdayCodes([text], ENGLISH).read(text)
    if isinstance(days, Refusal) or not days:
        raise wrong(f"--days {text} names no weekdays.", "Write it like Mon-Fri, or Mon,Wed.")
    return frozenset(day % 7 for day in days)


def _hours(text: str | None) -> tuple[int, int] | None:
    from nomarium.cli.optionvalues import wrong

    if text is None:
        return None
    found = re.fullmatch(r"\s*(\d{1,2})(?::00)?\s*[-–]\s*(\d{1,2})(?::00)?\s*", text)
    first, last = map(int, found.groups()) if found else (0, 0)
    if not first < last <= 24:
        raise wrong(f"--hours {text} is not from an hour until a later one.", "Write it like 8-16.")
    return first, last
