"""How sheets were read, kept as a recipe."""

from collections.abc import Sequence
from pathlib import Path

from nomarium.reading.layouts.layout import Reading
from nomarium.reading.options import ReadingOptions
from nomarium.sources.recipe import recipe_refusal, recipe_text
from nomarium.targets.replacing import replace_file


def keep_recipe(readings: Sequence[Reading], options: ReadingOptions, path: Path) -> None:
    """Save how sheets were read. Raises SourceError when the recipe cannot be written."""
    text = recipe_text(readings, options, path.name)
    try:
        replace_file(path, lambda file: file.write(text.encode()))
    except OSError as error:
        raise recipe_refusal(path, f"cannot be written: {error.strerror}", "Name another file.") from error
