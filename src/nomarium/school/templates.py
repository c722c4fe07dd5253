"""What templates of meetings may hold."""

from nomarium.model.templates import names_in

FIELDS = ("class", "name", "title", "room", "teacher", "period", "label", "group", "term", "week", "lesson")


def unknown_fields(template: str) -> list[str]:
    """The fields of a template that do not exist."""
    return [name for name in names_in(template) if name not in FIELDS]
