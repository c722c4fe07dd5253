"""`nomarium watch`: build again whenever a source is saved, or a feed has changed."""

import inspect
from typing import Annotated

import typer

from nomarium.cli.asked import flag_of
from nomarium.cli.build import build
from nomarium.cli.panels import FIRST

EXAMPLE = "Example: nomarium watch events.xlsx -o events.ics --timezone America/Halifax"

Every = Annotated[
    str,
    typer.Option("--every", metavar="LENGTH", help="How often addresses are asked whether they have changed.", rich_help_panel=FIRST),
]  # fmt: skip
_NOT_HERE = ("--json", "--ask", "--dry-run", "--details")
"""Options of a build that make no sense when nobody looks at each one."""


def watch(every: str = "15m", **values: object) -> None:
    """Build at once, then again whenever a source is saved or a feed has changed, until Ctrl-C. A build that is refused leaves what
    is there, says why, and the watch goes on."""
    from nomarium.cli.watching import keep_watch

    keep_watch(every, values, build)


def _with_options_of_build() -> None:
    """Let the command have every option of a build, each declared there."""
    taken = inspect.signature(build).parameters.values()
    kinds = [one for one in taken if flag_of(one.annotation) not in _NOT_HERE]
    kinds.insert(
        2, inspect.Parameter("every", inspect.Parameter.KEYWORD_ONLY, default="15m", annotation=Every)
    )
    watch.__signature__ = inspect.Signature(kinds)  # type: ignore[attr-defined]  # what typer looks at
    watch.__annotations__ = {one.name: one.annotation for one in kinds}


_with_options_of_build()
