"""Which sheets are plans, before anything of them is read."""

from collections.abc import Sequence
from pathlib import PurePath

from nomarium.reading.options import ReadingOptions
from nomarium.school.plantables import cut_table, is_plan, plain, table_name
from nomarium.sheets.sheet import Sheet


def plans_in(sheets: Sequence[Sheet], options: ReadingOptions) -> tuple[list[list[Sheet]], list[Sheet]]:
    """The sheets that are plans, file by file, and the other sheets."""
    if options.layout not in (None, "plan"):
        return [], list(sheets)
    by_file: dict[str, list[Sheet]] = {}
    for sheet in sheets:
        if options.layout == "plan" and not sheet.name:  # a file for each table, named one by one
            named = sheet._replace(name=PurePath(sheet.file).stem)
            by_file.setdefault("", []).append(named)
        else:
            by_file.setdefault(sheet.file, []).append(sheet)
    plans, others = list[list[Sheet]](), list[Sheet]()
    for group in by_file.values():
        is_one = len(group) > 1 or bool(group[0].name)
        if options.layout == "plan" or (
            is_one and is_plan((sheet.name for sheet in group), not PurePath(group[0].file).suffix)
        ):
            plans.append(group)
        else:
            others += group
    return plans, others


def setting_of(sheets: Sequence[Sheet], name: str) -> str:
    """A setting of a plan as it stands, blank when there is none."""
    sheet = next((one for one in sheets if table_name(one.name) == "settings"), None)
    if sheet is None:
        return ""
    table, _, _ = cut_table(sheet, "settings")
    return next(
        (item.text("value") for item in table.items if plain(item.text("setting")) == plain(name)), ""
    )
