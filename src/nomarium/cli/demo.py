"""`nomarium demo`: the demo school's lists, and the whole way from them to calendar files."""

import os
import shlex
import sys
from pathlib import Path
from typing import Annotated, NamedTuple

import typer

from nomarium.cli.panels import REPORT
from nomarium.cli.render import say
from nomarium.model.errors import NomariumError, UsageError

EXAMPLE = "Example: nomarium demo saltmarsh"


class Step(NamedTuple):
    """A command of the demo, and what it shows."""

    why: str
    command: str
    status: int = 0


STEPS = (
    Step("Look first: how would this list be read? Its dates are day first, and the weekdays bear it out.\n"
         "Every column is named with what it is taken for; nothing is written.", "survey launch-days.csv"),
    Step("Build it: each row becomes an event in Halifax time, and every row is accounted for.\n"
         "Built again from a changed list, the same events are updated.",
         "build launch-days.csv -o launch-days.ics --timezone America/Halifax"),
    Step("See it before others do: a month in the terminal; also an agenda, a week or a year.\n"
         "What has no room is counted, never cut without a sign.", "view launch-days.ics --as month --from 2026-10-01"),
    Step("What cannot be known is refused: these dates could be read two ways, and a date is missing.\n"
         "Nothing is written; each cell is named, with the option that settles it.",
         "build visitors.csv -o visitors.ics --timezone America/Halifax", 1),
    Step("A school year as a plan: terms, days off, a cycle of six days, bells, classes.\n"
         "Its own timetable, as a school has it, is read as well (--all shows one).", "survey year"),
    Step("A calendar for each teacher, with a page to look at for each and one that links them all:\n"
         "a folder for any web server.", "build year -o site/ --split-by teacher --with-page"),
    Step("A teacher's week for the wall of the staff room, as a picture.\n"
         "Also as .svg, or as .pdf with a page for each week.",
         "view year --as week --from 2026-11-09 --only \"teacher=R. Finch\" -o finch-week.png"),
    Step("How often does everybody meet? By term, as a table and as a chart.\n"
         "Classes that come short of others are marked.", "tally year --per term -o tally.png"),
)  # fmt: skip
"""What every demo shows: a command, two lines of why, its result."""

MORE = (
    Step("Is anybody in two places at once? Several sources are checked together.",
         "check year launch-days.csv harbour.ics --allow \"rfc-*\" --timezone America/Halifax"),
    Step("The list was corrected: what has changed, as a letter to those concerned.",
         "compare launch-days.ics launch-days-corrected.csv --timezone America/Halifax -o changes.html"),
    Step("For those who can only upload a file: one with the changes alone.",
         "compare launch-days.ics launch-days-corrected.csv --timezone America/Halifax -o changes.ics"),
    Step("Meanwhile people changed the calendar: an evening earlier, notes, a boat wash, a day off taken out. That stays.",
         "build launch-days-corrected.csv -o launch-days.ics --timezone America/Halifax --cancel-removed "
         "--edited launch-days-edited.ics"),
    Step("And if it was the wrong list: a file that takes it back.", "recall launch-days.ics -o take-back.ics"),
    Step("Why does a class not meet on that day?", "why year --on 2026-11-11 --event Lofting"),
    Step("One calendar for each group that should see it.",
         "build launch-days.csv -o calendars/ --split-by audience --timezone America/Halifax"),
    Step("French, semicolons, an older encoding, title rows above the table.", "survey evenements.csv"),
    Step("It needs no options.", "build evenements.csv -o evenements.ics --timezone America/Halifax"),
    Step("Ranges of dates in a text file.", "survey term-dates.txt"),
    Step("All-day events over many days.", "build term-dates.txt -o term-dates.ics"),
    Step("Every row quoted into one cell.", "survey visiting-builders.csv"),
    Step("With a place for each event that names none.",
         "build visiting-builders.csv -o visiting-builders.ics --set location=\"Main slip\""),
    Step("Records of the old office database: 19 columns, months first.", "survey office-records.csv"),
    Step("Its reminders, people and privacy come along.",
         "build office-records.csv -o office.ics --timezone America/Halifax --expect 3"),
    Step("A workbook: titles, merged dates, a total, a sheet that is no event list. Saved as a recipe.",
         "survey fixtures.xlsx --column Opponent=summary --save fixtures.toml"),
    Step("The recipe reads next month's workbook too.",
         "build fixtures.xlsx -o fixtures.ics --recipe fixtures.toml --timezone America/Halifax"),
    Step("A week drawn as a grid.", "survey boat-week.xlsx"),
    Step("Merged cells are long lessons.", "build boat-week.xlsx -o boat-week.ics --timezone America/Halifax"),
    Step("A month drawn in cells.", "survey april.xlsx"),
    Step("Its merged band is an event of several days.", "build april.xlsx -o april.ics --timezone America/Halifax"),
    Step("The programme of one day: its title says which.", "survey open-day.csv"),
    Step("Each column is a place; a dash or “free” is no event.",
         "build open-day.csv -o open-day.ics --timezone America/Halifax"),
    Step("A roster: its codes have their times in a key below; a calendar for each person.",
         "build yard-roster.csv -o people/ --split-by person --timezone America/Halifax"),
    Step("A wall planner: months across, days down.", "build year-planner.csv -o planner.ics --timezone America/Halifax"),
    Step("Committees by month: the days stand in the cells.", "build committees.csv -o committees.ics --timezone America/Halifax"),
    Step("Two tables side by side, each under its division.", "build two-divisions.csv -o tests.ics"),
    Step("Weeks down, weekdays across.", "build duty-planner.csv -o duty.ics --timezone America/Halifax"),
    Step("What people do before they publish: pick, call otherwise, say where places are.",
         "build fixtures.xlsx -o slip.ics --recipe fixtures.toml --only \"location=Main slip\" --title \"Race: {title}\" "
         "--places places.csv --timezone America/Halifax"),
    Step("A programme in weeks and days, counted from its first day.",
         "survey apprentice-programme.csv --day-one 2026-09-14"),
    Step("The dates follow from that.",
         "build apprentice-programme.csv -o programme.ics --day-one 2026-09-14 --timezone America/Halifax"),
    Step("With the order given, the rest can be written and the bad row kept for mending.",
         "build visitors.csv -o visitors.ics --timezone America/Halifax --date-order dmy --partial --rejects rejected.csv", 1),
    Step("Repeats in words, English and French; what was understood is echoed.",
         "build boat-launches.csv -o boat-launches.ics --timezone America/Halifax --until 2027-06-30 "
         "--days-off days-off.csv --public-holidays CA-NS"),
    Step("The same dates, kept as rules where a rule can say them.",
         "build boat-launches.csv -o boat-rules.ics --timezone America/Halifax --until 2027-06-30 "
         "--days-off days-off.csv --public-holidays CA-NS --repeats rule"),
    Step("A calendar file as the source: the way into a spreadsheet.",
         "build harbour.ics -o harbour.csv --from 2027-01-01 --until 2027-06-30"),
    Step("Public holidays are a calendar of their own.",
         "build --public-holidays CA-NS --from 2027-01-01 --until 2027-12-31 -o holidays.ics"),
    Step("Everything in one calendar.", "build year -o year.ics"),
    Step("A calendar for each teacher, …", "build year -o teachers/ --split-by teacher"),
    Step("… each class and each room.", "build year -o classes/ --split-by class"),
    Step("", "build year -o rooms/ --split-by room"),
    Step("What the school has: an export of class meetings, letter days, the daily schedule.", "survey school-export.xlsx"),
    Step("From there to a calendar for each teacher: one command.",
         "build school-export.xlsx -o staff/ --split-by teacher --timezone America/Halifax"),
    Step("A teacher's week as it hangs on the wall; the terms and their holidays beside it.",
         "build drawn-week.xlsx -o finch-week.ics --timezone America/Halifax"),
    Step("Evening classes on weekdays, without a date: the weeks are named on the command line.",
         "build evening-classes.csv -o evenings.ics --from 2026-09-14 --until 2026-12-11 --timezone America/Halifax --repeats rule"),
    Step("Several sources make one calendar.",
         "build launch-days.csv term-dates.txt fixtures.xlsx harbour.ics --column Opponent=summary -o everything.ics "
         "--timezone America/Halifax --name \"Saltmarsh School\" --color teal --reminder 30min"),
)  # fmt: skip
"""What `--all` shows as well."""


def demo(
    folder: Annotated[
        str, typer.Argument(metavar="[FOLDER]", help="Where to write the sample data.")
    ] = "saltmarsh",
    everything: Annotated[
        bool, typer.Option("--all", help="Run every example, not only the first few.", rich_help_panel=REPORT)
    ] = False,
) -> None:
    """Write the demo school's lists into a folder and show the way from them to calendars, in a few steps."""
    target = Path(folder)
    if target.exists() and not target.is_dir():
        say(f"{folder} is a file; name a folder.", sys.stderr)
        raise typer.Exit(2)
    target.mkdir(parents=True, exist_ok=True)
    write_samples(target)
    before = Path.cwd()
    os.chdir(target)
    os.environ["NOMARIUM_HISTORY"] = "off"  # what is built for show is nobody's history
    try:
        steps = (*STEPS, *MORE) if everything else STEPS
        failures = [step for step in steps if _run(step) != step.status]
    finally:
        os.chdir(before)
    more = "" if everything else f" {len(MORE)} more examples: nomarium demo {folder} --all"
    say(f"The demo school's lists and calendars are in {folder}.{more}")
    for step in failures:
        say(f"This did not end as it should: nomarium {step.command}", sys.stderr)
    raise typer.Exit(1 if failures else 0)


def write_samples(folder: Path) -> None:
    """Write the sample files into a folder."""
    from nomarium import samples
    from nomarium.samples.workbooks import WORKBOOKS

    source = Path(samples.__file__).parent
    (folder / "year").mkdir(exist_ok=True)
    for path in sorted((source / "year").glob("*.csv")):
        (folder / "year" / path.name).write_bytes(path.read_bytes())
    for path in sorted(source.iterdir()):
        if path.suffix in (".csv", ".txt", ".ics"):
            (folder / path.name).write_bytes(path.read_bytes())
    for name, write in WORKBOOKS.items():
        write(folder / name)


def _run(step: Step) -> int:
    """Show a command, run it in this process, and give its exit status."""
    from nomarium.cli.main import COMMANDS, application
    from nomarium.cli.render import say_problems

    if step.why:
        say("# " + step.why.replace("\n", "\n# "))
    say(f"$ nomarium {step.command}")
    sys.stdout.flush()
    arguments = shlex.split(step.command)
    try:
        status = application(tuple(c for c in COMMANDS if c == arguments[0]))(
            arguments, standalone_mode=False
        )
    except NomariumError as error:
        say_problems([error.problem])
        status = 2 if isinstance(error, UsageError) else 1
    sys.stderr.flush()
    say()
    return int(status or 0)
