"""Sheets of a workbook that are beside the others: pages about these, and old or unfinished ones."""

import re
from collections.abc import Sequence
from itertools import islice
from typing import Final

from nomarium.model.problem import Problem
from nomarium.model.wording import listed
from nomarium.reading.layouts.layout import NotRead, Reading, not_read
from nomarium.reading.options import ReadingOptions
from nomarium.sheets.sheet import Sheet, cell_text

_ABOUT: Final = (
    r"(?i)\W*(?:read[ -]?me(?: first)?|instructions?|guidance|help|how to\b.*|about(?: this\b.*)?|legend|key|anleitung|hinweise|lisez[ -]?moi|mode d.emploi|"
    r"instrucciones|ayuda)\W*"
)
"""Names of sheets that say how to use the others."""
_BESIDE: Final = (
    r"(?i)\(\s*old\s*\)|[\s_-]old\W*$|^old$|^old (?:events?|lists?|dates|data|version|timetable|calendar)\b|\barchived?$|^archived?\b|\bback[ -]?up\b|^copy of\b|[\s_(-]copy\W*\d*\W*$|"
    r"\b(?:obsolete|superseded|do not use|don.t use|unused)\b|^(?:examples?|samples?|templates?|drafts?)\b|\b(?:examples?|samples?|templates?|drafts?)\W*$|"
    r"^(?:cancelled|canceled|declined|rejected|deleted|removed|done|completed|finished|past(?: events?)?|ignore|scratch|postponed|replaced|not used|previous(?: years?)?|last year|copy|temp|tmp|raw(?: data)?|"
    r"waiting list|wait ?list|wish ?list|ideas?|maybe|possible|proposed|tentative|provisional|unconfirmed|not confirmed|to be confirmed|tb[ac])\W*$|"
    r"[\s_-]v(?:ersion)?\.? ?\d+\W*$|"
    r"^(?:change ?log|changes|audit(?: log)?|summary|overview|dashboard|stat(?:istic)?s|totals?|index|pivot(?: table)?)\W*\d*\W*$|"
    r"^(?:archiv|alt|vorlage|beispiel|entwurf|exemple|mod[eè]le|brouillon|ancien(?:ne)?s?|ejemplo|plantilla|borrador|antiguo)\b"
)
"""Names of sheets that hold what was, what is not meant, or what sums the others up."""
_SECOND: Final = r"\s*\(\d\)$"
"""What a program writes behind the name of a sheet's copy."""

_HEAD_ROWS: Final = 12
"""Rows from the top of a sheet in which its headings are looked for."""

Looked = Sequence[tuple[Sheet, Reading | NotRead]]


def without_pages_about(looked_at: Looked, options: ReadingOptions) -> list[tuple[Sheet, Reading | NotRead]]:
    """What sheets are read as, those called as instructions are passed over beside others whose rows are read."""
    asked = {name.casefold() for name in options.sheets}
    tables = {
        one.file for one, reading in looked_at if isinstance(reading, Reading) and reading.layout != "text"
    }
    found: list[tuple[Sheet, Reading | NotRead]] = []
    for sheet, reading in looked_at:
        is_about = isinstance(reading, Reading) and reading.layout == "text" and sheet.file in tables
        if is_about and sheet.name.casefold() not in asked and re.fullmatch(_ABOUT, sheet.name):
            message = f"{sheet.title} is called as a page about the others is."
            reading = not_read(sheet, "no-lines", "it is about the others, by its name", "text-none", message)
        found.append((sheet, reading))
    return found


def is_like_others(unread: NotRead, readings: Sequence[Reading]) -> bool:
    """Whether a sheet with rows has the headings of another of its workbook that is read: one month of several, say."""
    if unread.why in ("blank", "no-rows"):
        return False
    heads = {
        tuple(filter(None, map(str.strip, one.table.headings)))
        for one in readings
        if one.table is not None and one.table.head.header_rows and one.sheet.file == unread.sheet.file
    }
    heads = {one for one in heads if len(one) > 1}
    top = list(islice(unread.sheet.rows(), _HEAD_ROWS)) if heads else []
    return any(tuple(filter(None, map(cell_text, row))) in heads for _, row in top[:-1])


def doubtful_sheets(readings: Sequence[Reading], options: ReadingOptions) -> list[Problem]:
    """A problem of each sheet that is called old, a copy or an example, beside others of its workbook that are read too."""
    if options.sheets:
        return []
    found = []
    for reading in readings:
        sheet = reading.sheet
        others = [
            one.sheet.name
            for one in readings
            if one.sheet.file == sheet.file and one.sheet.name != sheet.name
        ]
        is_copy = re.search(_SECOND, sheet.name) and re.sub(_SECOND, "", sheet.name) in others
        others = list(dict.fromkeys(name for name in others if not re.search(_BESIDE, name)))
        if others and (is_copy or re.search(_BESIDE, sheet.name)):
            message = f"By its name “{sheet.name}” is not meant, and it would be read beside {listed([f'“{name}”' for name in others])}."
            named = " ".join(f'--sheet "{name}"' for name in others)
            remedy = f'Say which are meant: {named}; with it: {named} --sheet "{sheet.name}".'
            found.append(Problem("sheet-doubt", message, remedy, sheet.place()))
    return found
