"""How sheets were read, kept as a recipe that reads them the same again."""

from collections.abc import Callable
from pathlib import Path

from nomarium.building.build import build
from nomarium.building.options import BuildOptions
from nomarium.building.report import BuildReport
from nomarium.cli.asked import Asked
from nomarium.cli.sources import calendar_name
from nomarium.model.problem import Problem, note
from nomarium.reading.options import ReadingOptions
from nomarium.sources.recipe import over_recipe, recipe_refusal, recipe_text, recipes_of, without_recipe
from nomarium.targets.replacing import replace_file


def surveyed(asked: Asked, reading: ReadingOptions, save: str | None) -> tuple[BuildReport, Problem | None]:
    """What a build of the sources would come to, with nothing written; and, where `save` names a file, the recipe in it, or a note
    that says why none was kept."""
    called = calendar_name(asked.named, "-")
    skipped = asked.skipping(reading)
    dry = BuildOptions(
        None,
        called,
        called,
        "19700101T000000Z",
        last_day=asked.window()[1],
        days_off=(skipped.days_off if skipped else None) or None,
    )

    def read(options: ReadingOptions) -> BuildReport:
        with asked.opened(options) as found:
            return build(found, options, dry)

    report = read(reading)
    unkept = _keep(report, reading, Path(save), read) if save else None
    report.problems += skipped.problems if skipped else ()
    return report, unkept


def _keep(
    report: BuildReport, options: ReadingOptions, path: Path, again: Callable[[ReadingOptions], BuildReport]
) -> Problem | None:
    """Save how sheets were read: the fullest recipe by which they are read the same `again`. None is kept, and a note says why,
    where none does that. Raises SourceError when the recipe cannot be written."""
    if not report.readings and not report.plans:
        return _not_kept("nothing was read as events or as a plan")
    bare, wanted = without_recipe(options), _essence(report)
    for recipe in recipes_of(report.readings, options, path.parent):
        if _essence(again(over_recipe(bare, recipe, path))) == wanted:
            break
    else:
        return _not_kept("by no recipe is it read the same again")
    text = recipe_text(recipe, path.name)
    try:
        replace_file(path, lambda file: file.write(text.encode(errors="backslashreplace")))
    except OSError as error:
        raise recipe_refusal(path, f"cannot be written: {error.strerror}", "Name another file.") from error
    return None


def _not_kept(why: str) -> Problem:
    return note("recipe-not-kept", f"No recipe was kept: {why}.", "Give the options themselves each time.")


def _essence(report: BuildReport) -> object:
    """What two readings of the same sheets have in common: how each was read, what became of its rows, and when its events are."""
    readings = [
        (one.sheet.name, one.layout, one.table and [(c.at, c.field) for c in one.table.columns if c.field])
        for one in report.readings
    ]
    ledgers = [(account.title, account.ledger.as_dict()) for account in report.accounts]
    faults = [(problem.code, problem.place, problem.cell) for problem in report.problems]
    return readings, ledgers, faults, report.event_count, report.span, len(report.plans)
