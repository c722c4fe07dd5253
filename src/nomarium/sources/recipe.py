"""Recipes: a saved way of reading one kind of spreadsheet, as TOML."""

import datetime as dt
import os
import tomllib
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any, get_args

from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem, column_letter
from nomarium.model.values import VALUE_FIELDS
from nomarium.model.wording import meant
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.headings import FIELDS
from nomarium.reading.layouts.layout import Reading
from nomarium.reading.options import Layout, ReadingOptions

_KINDS: dict[str, type | tuple[type, ...]] = {
    "sheets": list, "layout": str, "header_row": int, "timezone": str, "date_order": str,
    "languages": list, "school_year": list, "default_length_minutes": (int, float), "day_one": dt.date,
    "keep_extra": bool, "fill_down": list, "leave_out_rows_with": list,
    "clock": str, "spans": str, "swapped": str, "hidden_rows": str, "title": str, "codes": dict, "only": list, "leave_out": list,
    "people": list, "places": list, "terms": list, "without": list, "split_by": list, "columns": dict, "defaults": dict, "overrides": dict, "renamed": dict, "weekdays": dict, "tables": dict, "cell": str,
}  # fmt: skip
"""What a recipe may hold, and the TOML type of each."""

_CHOICES = {
    "date_order": ("dmy", "mdy", "ymd"), "layout": get_args(Layout), "clock": ("12", "24"),
    "spans": ("daily", "whole"), "hidden_rows": ("skip", "read"), "swapped": ("yes", "no"),
}  # fmt: skip

_HELD = (
    "sheets", "layout", "header_row", "zone", "date_order", "languages", "school_year", "default_length_secs", "day_one", "clock",
    "spans", "swapped", "hidden_rows", "title", "keep_extra", "fill_down", "left_out", "columns", "defaults", "codes", "weekdays",
    "tables", "cell", "only", "dropped", "overrides", "renamed", "people", "places", "terms",
)  # fmt: skip
"""The options that a recipe can hold."""
_FILES = ("people", "places", "terms")
Recipe = dict[str, Any]
"""What a recipe holds, by the names of `_KINDS`."""
_CALLED = {"title": "summary", "category": "categories"}
_HEAD = """\
# How to read one kind of spreadsheet, saved by: nomarium survey --save
# Use it with:  nomarium build SOURCE --recipe {name} -o OUT.ics
#
# [columns]   heading = field; an empty field leaves the column out
# [defaults]  field = the value where a row has none
# [codes]     a code in drawn cells = its times, or its name
# [overrides] field = the value in every row, whatever stands there
# [renamed]   a title or a class's code as it stands = what to call it
# only = ["status=confirmed"], leave_out = ["categories=Staff"]  events that are kept, or left out
# people = ["staff.csv"], places = ["places.csv"]  tables beside this file to join by name
# leave_out_rows_with = ["Rehearsal"]  rows that have such a cell are left out

"""


def recipe_text(recipe: Recipe, name: str) -> str:
    """A recipe as the text of a file of this name."""
    import tomli_w

    return _HEAD.format(name=name) + tomli_w.dumps(recipe)


def recipes_of(readings: Sequence[Reading], options: ReadingOptions, folder: Path) -> Iterator[Recipe]:
    """What a recipe file in a folder may hold for sheets that were read, the fullest first: tables that were drawn, turned or parted
    are found again by what says less of their columns and rows."""
    full = _recipe_of(readings, options)
    full |= {name: [os.path.relpath(one, folder) for one in full[name]] for name in _FILES if name in full}
    fields = {heading: field for heading, field in full["columns"].items() if field}
    distinct = [
        full["columns"],
        *(() if fields == full["columns"] else (fields,)),
        *(({},) if fields else ()),
    ]
    for columns in distinct:  # each is a whole reading to try
        for left in ((), ("header_row",)) if "header_row" in full else ((),):
            yield {key: value for key, value in (full | {"columns": columns}).items() if key not in left}
    for fewer in (("header_row", "layout"), ("header_row", "layout", "sheets")):
        yield {key: value for key, value in (full | {"columns": {}}).items() if key not in fewer}


def without_recipe(options: ReadingOptions) -> ReadingOptions:
    """The options without all that a recipe can hold."""
    nothing = ReadingOptions()
    return options._replace(**{name: getattr(nothing, name) for name in _HELD})


def _recipe_of(readings: Sequence[Reading], options: ReadingOptions) -> Recipe:
    """All that a recipe can hold of the readings of a survey."""
    recipe: Recipe = {}
    named = dict.fromkeys(reading.sheet.name for reading in readings if reading.sheet.name)
    if named:
        recipe["sheets"] = [*named]
    layouts = {reading.layout for reading in readings}
    if len(layouts) == 1:
        recipe["layout"] = layouts.pop()
    tables = [reading.table for reading in readings if reading.table]
    rows = {table.head.header_rows[0] if table.head.header_rows else 0 for table in tables}
    if len(rows) == 1:
        recipe["header_row"] = rows.pop()
    orders = {table.decisions.order for table in tables} - {""}
    if options.date_order or len(orders) == 1:
        recipe["date_order"] = options.date_order or orders.pop()
    if options.zone:
        recipe["timezone"] = options.zone
    found = {
        code for t in tables if t.decisions.language for code in t.decisions.lexicon.languages if code != "en"
    }
    if options.languages or found:
        recipe["languages"] = list(options.languages or sorted(found))
    if options.school_year:
        recipe["school_year"] = list(options.school_year)
    if options.default_length_secs:
        recipe["default_length_minutes"] = options.default_length_secs / 60
    if options.day_one:
        recipe["day_one"] = options.day_one
    for name in ("clock", "spans", "swapped", "hidden_rows", "title", "cell"):
        if getattr(options, name):
            recipe[name] = getattr(options, name)
    if options.keep_extra:
        recipe["keep_extra"] = True
    if options.fill_down:
        recipe["fill_down"] = list(options.fill_down)
    if options.left_out:
        recipe["leave_out_rows_with"] = list(options.left_out)
    recipe["columns"] = {
        column.heading or column_letter(column.at + table.sheet.first_column): column.field
        for table in tables
        for column in table.columns
        if column.twin_of is None
        and (column.heading or column.field)
        and not (column.field == "date" and table.sheet.dates_above)
        and not _goes_into_description(column, options)
    }
    if options.defaults:
        recipe["defaults"] = dict(options.defaults)
    recipe |= _edits_of(options)
    return recipe


def _goes_into_description(column: Column, options: ReadingOptions) -> bool:
    """Whether a column that is no field is kept in the description: a recipe that left it out would lose it."""
    return (options.keep_extra or column.is_kept) and column.is_ignored and column.how != "asked"


def _edits_of(options: ReadingOptions) -> Recipe:
    """What is to be done to events after they are read."""
    recipe: Recipe = {}
    for name, pairs in (("only", options.only), ("leave_out", options.dropped)):
        if pairs:
            recipe[name] = [f"{field}={value}" for field, value in pairs]
    for name in ("people", "places", "terms"):
        if getattr(options, name):
            recipe[name] = list(getattr(options, name))
    for name, table in (
        ("codes", options.codes),
        ("weekdays", options.weekdays),
        ("tables", options.tables),
        ("overrides", options.overrides),
        ("renamed", options.renamed),
    ):
        if table:
            recipe[name] = dict(table)
    return recipe


def with_recipe(options: ReadingOptions, path: Path) -> ReadingOptions:
    """The options with a recipe's under them: what the command line says beats the recipe.

    Raises SourceError when the file is no recipe.
    """
    return over_recipe(options, _load(path), path)


def over_recipe(options: ReadingOptions, recipe: Recipe, path: Path) -> ReadingOptions:
    """The options over what a recipe at this path holds."""
    minutes = recipe.get("default_length_minutes")
    window = recipe.get("school_year") or []
    return options._replace(
        sheets=options.sheets or tuple(recipe.get("sheets", ())),
        layout=options.layout or recipe.get("layout"),
        header_row=recipe.get("header_row"),
        zone=options.zone or recipe.get("timezone"),
        date_order=options.date_order or recipe.get("date_order", ""),
        languages=options.languages or tuple(recipe.get("languages", ())),
        school_year=options.school_year or ((window[0], window[1]) if len(window) == 2 else None),
        default_length_secs=options.default_length_secs or (round(minutes * 60) if minutes else None),
        day_one=options.day_one or recipe.get("day_one"),
        clock=options.clock or recipe.get("clock", ""),
        spans=options.spans or recipe.get("spans", ""),
        swapped=options.swapped or recipe.get("swapped", ""),
        hidden_rows=options.hidden_rows or recipe.get("hidden_rows", ""),
        title=options.title or recipe.get("title", ""),
        keep_extra=options.keep_extra or recipe.get("keep_extra", False),
        fill_down=options.fill_down or tuple(recipe.get("fill_down", ())),
        left_out=tuple(recipe.get("leave_out_rows_with", ())),
        columns=recipe.get("columns", {}) | dict(options.columns),
        defaults=recipe.get("defaults", {}) | dict(options.defaults),
        codes=recipe.get("codes", {}) | dict(options.codes),
        weekdays=recipe.get("weekdays", {}) | dict(options.weekdays),
        tables=recipe.get("tables", {}) | dict(options.tables),
        cell=options.cell or recipe.get("cell", ""),
        only=options.only or _pairs(recipe, "only"),
        dropped=options.dropped or _pairs(recipe, "leave_out"),
        overrides=recipe.get("overrides", {}) | dict(options.overrides),
        renamed=recipe.get("renamed", {}) | dict(options.renamed),
        from_recipe=frozenset(
            [name for name, asked in (("only", options.only), ("leave_out", options.dropped)) if not asked]
            + [old for old in recipe.get("renamed", {}) if old not in options.renamed]
        ),
        people=options.people or _beside(path, recipe.get("people", ())),
        places=options.places or _beside(path, recipe.get("places", ())),
        terms=options.terms or _beside(path, recipe.get("terms", ())),
        without=_beside(path, recipe.get("without", ())),
        split_by=tuple(recipe.get("split_by", ())),
        recipe_name=path.name,
    )


def _pairs(recipe: Recipe, name: str) -> tuple[tuple[str, str], ...]:
    """Fields and values, written `field=value`."""
    parted = [[part.strip() for part in text.partition("=")] for text in recipe.get(name, ())]
    return tuple((_CALLED.get(field, field), value) for field, _, value in parted)


def _beside(path: Path, names: Sequence[str]) -> tuple[str, ...]:
    """Files that a recipe names, from where it is."""
    return tuple(str(path.parent / name) for name in names)


def _load(path: Path) -> Recipe:
    try:
        recipe = tomllib.loads(path.read_text("utf-8"))
    except FileNotFoundError as error:
        raise recipe_refusal(
            path, "is not there", "Save one with: nomarium survey SOURCE --save recipe.toml"
        ) from error
    except (OSError, ValueError, RecursionError) as error:
        raise recipe_refusal(
            path, f"is no recipe: {error}", "Mend it, or save it anew with survey --save."
        ) from error
    for key, value in recipe.items():
        if key not in _KINDS:
            remedy = meant(key, _KINDS, f"A recipe may hold {', '.join(_KINDS)}.")
            raise recipe_refusal(path, f"has an unknown entry “{key}”", remedy)
        is_list_of_others = (
            isinstance(value, list)
            and key != "school_year"
            and not all(isinstance(one, str) for one in value)
        )
        is_yes_or_no = key == "header_row" and isinstance(value, bool)
        if not isinstance(value, _KINDS[key]) or is_yes_or_no or is_list_of_others:
            raise recipe_refusal(
                path, f"has “{key}” in a form that it cannot have", "Compare it with a fresh one."
            )
    for table in ("columns", "defaults", "overrides", "renamed", "codes", "weekdays", "tables"):
        for name, value in recipe.get(table, {}).items():
            field = value if table == "columns" else name if table in ("defaults", "overrides") else ""
            if not isinstance(value, str) or (field and field not in FIELDS and table != "columns"):
                raise recipe_refusal(
                    path, f"has “{name}” in [{table}], which cannot be used", "Mend that line."
                )
    _check_values(path, recipe)
    return recipe


def _check_values(path: Path, recipe: Recipe) -> None:
    from nomarium.reckoning.zones import zone_named

    for name in ("only", "leave_out"):
        for field, _ in _pairs(recipe, name):
            if field not in VALUE_FIELDS:
                remedy = meant(field, VALUE_FIELDS, f"Pick by one of {', '.join(VALUE_FIELDS)}.")
                raise recipe_refusal(path, f"picks by “{field}” in “{name}”, which is no field", remedy)

    for name, known in _CHOICES.items():
        if recipe.get(name, known[0]) not in known:
            message = f"has the {name.replace('_', ' ')} “{recipe[name]}”"
            raise recipe_refusal(path, message, f"Use {', '.join(known[:-1])} or {known[-1]}.")
    zone = recipe.get("timezone")
    if zone is not None and zone_named(zone) is None:
        raise recipe_refusal(path, f"has the time zone “{zone}”, which does not exist", "Use an IANA name.")
    window = recipe.get("school_year", [])
    if window and (len(window) != 2 or not all(isinstance(day, dt.date) for day in window)):
        raise recipe_refusal(
            path, "has a school_year that is not two dates", "Write [2026-08-01, 2027-07-31]."
        )


def recipe_refusal(path: Path, what: str, remedy: str) -> SourceError:
    return SourceError(
        Problem("recipe-unusable", f"The recipe {path.name} {what}.", remedy, Place(path.name))
    )
