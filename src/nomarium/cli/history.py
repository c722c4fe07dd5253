"""`nomarium history`: what was built into a file and when, and an earlier state of it again."""

import os
import sqlite3
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, BinaryIO

import typer

from nomarium.cli import options as opt
from nomarium.cli.panels import FIRST
from nomarium.cli.render import rest_text, say, say_json, shortened
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from nomarium.history.record import Record, State

EXAMPLE = "Example: nomarium history year.ics --restore 2"


def history(
    output: Annotated[
        str | None,
        typer.Argument(
            metavar="[OUT]",
            help="A file or folder that builds wrote; all of them when not given.",
            show_default=False,
        ),
    ] = None,
    restore: Annotated[
        int | None,
        typer.Option(
            "--restore",
            metavar="N",
            min=1,
            help="Write the N-th last state back: 1 is the last, 2 the one before.",
            rich_help_panel=FIRST,
        ),
    ] = None,
    details: opt.Details = False,
    json: opt.Json = False,
) -> None:
    """List what was built into which files and when; an earlier state is OUT@2 wherever a calendar is taken."""
    from nomarium.cli.keptstates import record
    from nomarium.cli.optionvalues import wrong

    kept = record()
    if kept is None:
        raise wrong("NOMARIUM_HISTORY is off: no builds are kept.", "Unset it, or name a file.")
    if restore is not None and output is None:
        raise wrong(
            "--restore needs the file that is to be as it was.",
            "Name it: nomarium history year.ics --restore 2",
        )
    try:
        if output is None:
            _say_outputs(kept, details, json)
        elif restore is not None:
            _restore(kept, output, restore)
        else:
            _say_states(kept, output, details, json)
    except FileNotFoundError:
        if json:
            say_json({"outputs": []} if output is None else {"builds": []})
        else:
            say("Nothing has been built yet.")
        raise typer.Exit(0 if output is None else 1) from None
    except sqlite3.Error as error:
        raise SourceError(
            Problem(
                "history-broken",
                f"The history cannot be read: {error}.",
                "Remove it, or name another: NOMARIUM_HISTORY.",
            )
        ) from error


def _say_outputs(kept: "Record", details: bool, json: bool) -> None:
    found = kept.outputs()
    if json:
        say_json({"outputs": [one._asdict() for one in found]})
        return
    shown, rest = shortened(found, details)
    for one in shown:
        say(
            f"{_when(one.last)}  {counted(one.builds, 'state'):>10}  {counted(one.events, 'event'):>13}  {one.path}"
        )
    if rest:
        say(rest_text(rest, "output"))
    if not found:
        say("Nothing has been built yet.")


def _when(text: str) -> str:
    return text[:16].replace("T", " ")


def _say_states(kept: "Record", output: str, details: bool, json: bool) -> None:
    states = kept.states(os.path.realpath(output))
    if json:
        say_json({"builds": [_facts(n, state) for n, state in enumerate(states, start=1)]})
    if not states:
        if not json:
            say(f"No build has written {output}.")
        raise typer.Exit(1)
    if json:
        return
    shown, rest = shortened(list(enumerate(states, start=1)), details)
    for n, state in shown:
        changed = ", ".join(
            f"{count:,} {what}" for what, count in state.changes.items() if count and what != "unchanged"
        )
        again = f", the same again {_when(state.again)}" if state.again != state.written else ""
        say(
            f"@{n}  {_when(state.written)}{again}  {counted(state.events, 'event')}"
            + (f" ({changed})" if changed else "")
        )
        if details:
            for name, digest in state.sources:
                say(f"      from {name}" + (f"  {digest[:12]}" if digest else ""))
            if state.options:
                say(f"      {state.options}")
    if rest:
        say(rest_text(rest, "state"))


def _facts(n: int, state: "State") -> dict[str, object]:
    changes = state.changes
    return {
        "n": n, "when": state.written, "again": state.again, "sources": [{"name": name, "hash": digest} for name, digest in state.sources],
        "options": state.options, "events": state.events, "added": changes.get("new", 0),
        "removed": changes.get("removed", 0) + changes.get("cancelled", 0), "moved": changes.get("moved", 0), "changed": changes.get("changed", 0),
    }  # fmt: skip


def _put(content: bytes, file: BinaryIO) -> None:
    file.write(content)


def _restore(kept: "Record", output: str, number: int) -> None:
    from nomarium.cli.keptstates import keep_files
    from nomarium.targets.replacing import replace_file

    out = os.path.realpath(output)
    states, files = kept.states(out), kept.files(out, number)
    if not files:
        there = f"It has {counted(len(states), 'state')}." if states else "No build has written it."
        raise SourceError(
            Problem(
                "history-none",
                f"There is no {output}@{number}. {there}",
                "List them: nomarium history",
                Place(output),
            )
        )
    for name, content in files.items():
        path = Path(out, name) if name else Path(out)
        path.parent.mkdir(parents=True, exist_ok=True)
        replace_file(path, partial(_put, content))
    state = states[number - 1]
    keep_files(kept, Path(out), list(files), state)
    say(f"{output} is as it was on {_when(state.written)}: {counted(state.events, 'event')}.")
