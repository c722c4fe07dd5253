"""Titles and notes from templates such as `{name} ({room})`."""

import re
from collections.abc import Mapping

_FIELD = r"\{([^{}\n]+)\}"
_GAP = "\0"
_SIGNS = r"[,;:/–—·|@\-]"


def names_in(template: str) -> list[str]:
    """The names that stand in curly brackets."""
    return re.findall(_FIELD, template)


def uses(template: str, field: str) -> bool:
    return f"{{{field}}}" in template


def filled(template: str, values: Mapping[str, str]) -> str:
    """A template with its fields filled in; an empty field takes the brackets or separator around it along,
    a line whose fields are all empty goes.

    >>> filled("{name} ({room}) – {teacher}", {"name": "Rigging", "teacher": "R. Finch"})
    'Rigging – R. Finch'
    """
    lines = []
    for line in template.split("\n"):
        names = re.findall(_FIELD, line)
        if names and not any(values.get(name) for name in names):
            continue
        lines.append(_line(line, values))
    return "\n".join(lines).strip()


def _line(template: str, values: Mapping[str, str]) -> str:
    text = re.sub(_FIELD, lambda match: values.get(match[1], "") or _GAP, template)
    if _GAP not in text:
        return " ".join(text.split(" ")).strip()
    text = re.sub(rf"\s+v\.?\s+{_GAP}|{_GAP}\s+v\.?\s+", "", text)  # one side alone
    text = re.sub(rf"\s*[(\[]\s*{_GAP}(?:\s*{_SIGNS}*\s*{_GAP})*\s*[)\]]", "", text)
    text = re.sub(rf"([(\[])\s*{_GAP}\s*{_SIGNS}+\s*", r"\1", text)
    text = re.sub(rf"\s*{_SIGNS}+\s*{_GAP}", "", text)
    text = re.sub(rf"^\s*{_GAP}\s*{_SIGNS}*\s*", "", text)
    text = re.sub(rf"{_GAP}\s*{_SIGNS}+\s*|\s*{_GAP}", "", text)
    return re.sub(r" {2,}", " ", text).strip()
