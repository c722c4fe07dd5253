"""Titles that are made from a template, with what they are made from: `--title` is the last thing that is done."""

from collections.abc import Mapping
from typing import Self

from nomarium.model.templates import filled


class TitleParts(str):
    """A title that a template makes; it carries the title as it is without it, and the texts of its row."""

    template: str
    values: Mapping[str, str]
    """Name in the template → the text of its cell; `title` is the title without the template."""

    def __new__(cls, template: str, values: Mapping[str, str]) -> Self:
        self = super().__new__(cls, filled(template, values))
        self.template, self.values = template, values
        return self

    @property
    def bare(self) -> str:
        """The title as it is without the template."""
        return self.values.get("title", "")

    def called(self, title: str) -> "TitleParts":
        """The same with another title to begin with."""
        return TitleParts(self.template, {**self.values, "title": title})


def followed(title: str, by: str) -> str:
    """A title with a heading behind it, `Sails: Deadline`, without the signs around that."""
    by = by.replace("_", " ").strip(" :*†'\"“”") or by
    if isinstance(title, TitleParts):
        return TitleParts(f"{title.template}: {by}", title.values)
    return f"{title}: {by}"
