"""Nomarium: spreadsheet timetables, day cycles, term dates and event lists into calendar files.

What a program may use is named in `__all__` and fetched when first asked for, so that importing the
package costs nothing; everything else is internal.
"""

TYPE_CHECKING = False  # typing's own is the same to a type checker; importing it is half of `--version`
if TYPE_CHECKING:
    from typing import Any

    from nomarium.building.build import build
    from nomarium.building.options import BuildOptions
    from nomarium.building.report import BuildReport
    from nomarium.model.account import Ledger
    from nomarium.model.errors import NomariumError, SourceError, UsageError
    from nomarium.model.event import Event, Person
    from nomarium.model.problem import Place, Problem
    from nomarium.reading.options import ReadingOptions
    from nomarium.sheets.opening import open_source
    from nomarium.sheets.sheet import Sheet

__all__ = (
    "BuildOptions", "BuildReport", "Event", "Ledger", "NomariumError", "Person", "Place", "Problem",
    "ReadingOptions", "Sheet", "SourceError", "UsageError", "build", "open_source",
)  # fmt: skip

_HOMES = {
    "nomarium.building.build": ("BuildOptions", "BuildReport", "build"),
    "nomarium.model.errors": ("NomariumError", "SourceError", "UsageError"),
    "nomarium.model.event": ("Event", "Person"),
    "nomarium.model.account": ("Ledger",),
    "nomarium.model.problem": ("Place", "Problem"),
    "nomarium.reading.options": ("ReadingOptions",),
    "nomarium.sheets.opening": ("open_source",),
    "nomarium.sheets.sheet": ("Sheet",),
}


def __getattr__(name: str) -> "Any":
    import importlib

    for module, names in _HOMES.items():
        if name in names:
            return getattr(importlib.import_module(module), name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
