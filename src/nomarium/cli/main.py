"""The command line: finds the command, imports only what it needs, turns trouble into an exit status."""

import importlib
import os
import sys
from importlib.util import find_spec
from pathlib import Path

import typer
from typer.core import TyperCommand, TyperOption

from nomarium._version import VERSION
from nomarium.cli.panels import REPORT
from nomarium.cli.render import say, say_json, say_problems
from nomarium.model.errors import NomariumError, UsageError

COMMANDS = (
    "survey",
    "build",
    "view",
    "why",
    "check",
    "compare",
    "recall",
    "history",
    "publish",
    "watch",
    "free",
    "tally",
    "starter",
    "demo",
)
"""In the order in which a scheduler meets them; each is the module of that name here."""

_CRASHED = 70
"""The exit status for a fault of the program itself, as sysexits.h has it (EX_SOFTWARE)."""
_INTERRUPTED = 130
"""The exit status after Ctrl-C, as shells have it: 128 and the number of SIGINT."""


def application(names: tuple[str, ...] = COMMANDS) -> typer.Typer:
    """The application with these commands; importing one costs what it needs, so only those asked for."""
    app = typer.Typer(
        name="nomarium",
        add_completion=False,
        pretty_exceptions_enable=False,
        rich_markup_mode="rich",
        no_args_is_help=True,
        context_settings={"help_option_names": ["-h", "--help"]},
        help="Turn spreadsheets, school years and calendar files into calendar files, with every row accounted for.",
        epilog="Look first (survey), then build. `nomarium demo FOLDER` shows the whole way on made-up data.",
    )
    app.callback()(_top)
    for name in names:
        module = importlib.import_module(f"nomarium.cli.{name}")
        app.command(name, cls=_Command, epilog=module.EXAMPLE)(getattr(module, name))
    return app


class _Command(TyperCommand):
    """A command whose --help stands with the options about what is said, and not in a panel of its own before all."""

    def get_help_option(self, ctx: typer.Context) -> TyperOption | None:  # type: ignore[override]
        option = super().get_help_option(ctx)  # its own context is no public type
        if option is not None:
            option.rich_help_panel = REPORT
        return option


def _top(
    version: bool = typer.Option(False, "--version", help="Print the version.", is_eager=True),
) -> None:
    if version:
        say(f"nomarium {VERSION}")
        raise typer.Exit()


def run(arguments: list[str]) -> None:
    """Run a command line and end the process: 0 done, 1 problems in the input, 2 wrong use."""
    wanted = tuple(name for name in COMMANDS if name == (arguments[0] if arguments else ""))
    _use_utf8()
    use_own_zones()
    try:
        status = application(wanted or COMMANDS)(arguments, prog_name="nomarium", standalone_mode=True)
    except NomariumError as error:
        if "--json" in arguments:
            say_json({"problems": [error.problem]})
        else:
            say_problems([error.problem])
        status = 2 if isinstance(error, UsageError) else 1
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        status = 1
    except SystemExit as end:  # how the library ends every command
        if end.code == _INTERRUPTED:
            say("Stopped; nothing was replaced.", sys.stderr)
        raise
    except OSError as error:
        name = f"{error.filename}: " if error.filename else ""
        say(f"{name}{error.strerror or error}. Nothing was replaced.", sys.stderr)
        status = 1
    except MemoryError:
        say("There is not enough memory for this. Nothing was replaced.", sys.stderr)
        status = 1
    except Exception as error:  # the last guard: a fault of this program, never a traceback
        from nomarium.cli.crash import report_crash

        say(report_crash(error, arguments), sys.stderr)
        status = _CRASHED
    sys.exit(status)


def use_own_zones() -> None:
    """Let time zones come from the tzdata package, so that one input gives the same bytes on every machine.

    Said before anything needs a zone, it also spares a start the search for the system's own (PEP 615).
    """
    tzdata = find_spec("tzdata")
    if tzdata is not None and tzdata.submodule_search_locations:
        os.environ.setdefault("PYTHONTZPATH", str(Path(tzdata.submodule_search_locations[0], "zoneinfo")))


def _use_utf8() -> None:
    """Reports hold names from anywhere: a narrow terminal encoding must not end a run."""
    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(errors="replace")
