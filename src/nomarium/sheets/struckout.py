"""What is crossed out in a workbook: people leave it in sight and mean that it does not hold.

The library that reads workbooks gives values without their looks, so the markup is looked through for them
(ECMA-376 part 1, 18.4.10 and 18.8.22; OpenDocument 1.3, 20.387 and 20.390).
"""

import re
import zipfile
from collections.abc import Mapping, Sequence
from html import unescape
from typing import TYPE_CHECKING, Final, NamedTuple

from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import counted

if TYPE_CHECKING:
    from xml.etree.ElementTree import Element

_STRIKE: Final = re.compile(rb'<(?:\w+:)?strike\b(?!\s+val="(?:0|false)")')
_BEGINS: Final = rb"<(?:\w+:)?%s(?=[\s/>])"
"""How an element begins, whatever its prefix: markup is cut there, so that what is never ended costs no more than any other."""
_FONT_NUMBER: Final = re.compile(rb'\bfontId="(\d{1,6})"')
_BLOCK: Final = 1 << 20
_TEXT: Final = re.compile(rb"<(?:\w+:)?t(?:\s[^>]*)?>([^<]*)</(?:\w+:)?t>")
_STYLE_NUMBER: Final = re.compile(rb'\bs="(\d{1,6})"')
_SHARED: Final = re.compile(rb"<v>(\d{1,9})</v>")
_MOST_SHOWN: Final = 5
_LONGEST_SHOWN: Final = 60


class Struck(NamedTuple):
    """What tells the cells of an .xlsx workbook that are crossed out, wholly or in part."""

    styles: frozenset[int]
    """Numbers of cell formats whose font is crossed out."""
    texts: Mapping[int, str]
    """What is left of shared strings of which words are crossed out, by their number."""


def struck_in(archive: zipfile.ZipFile) -> Struck | None:
    """What is crossed out in an .xlsx workbook; None, as a rule, where nothing can be."""
    looks, texts = (_with_strikes(archive, f"xl/{part}.xml") for part in ("styles", "sharedStrings"))
    styles, left = _struck_styles(looks), _texts_left(texts)
    return Struck(styles, left) if styles or left else None


def _with_strikes(archive: zipfile.ZipFile, part: str) -> bytes:
    """A part of the workbook, if it speaks of crossing out: the strings of a large one are not held for nothing."""
    if part not in archive.namelist():
        return b""
    with archive.open(part) as file:
        end = b""
        while block := file.read(_BLOCK):
            if b"strike" in end + block:
                return archive.read(part)
            end = block[-len(b"strike") :]
    return b""


def _each(name: bytes, markup: bytes) -> list[bytes]:
    """The elements of a name, each as far as the next one begins."""
    return re.split(_BEGINS % name, markup)[1:]


def _section(name: bytes, markup: bytes) -> bytes:
    """What the first element of a name holds."""
    return next(iter(_each(name, markup)), b"").partition(b"/%s>" % name)[0].partition(b":%s>" % name)[0]


def _struck_styles(looks: bytes) -> frozenset[int]:
    struck = {n for n, font in enumerate(_each(b"font", _section(b"fonts", looks))) if _STRIKE.search(font)}
    used = (_FONT_NUMBER.search(one) for one in _each(b"xf", _section(b"cellXfs", looks)))
    return frozenset(n for n, font in enumerate(used) if font and int(font[1]) in struck)


def _texts_left(shared: bytes) -> dict[int, str]:
    return {n: text_left(one) for n, one in enumerate(_each(b"si", shared)) if _STRIKE.search(one)}


def text_left(markup: bytes) -> str:
    """The text of those runs of a string that are not crossed out."""
    runs = (run for run in _each(b"r", markup) if not _STRIKE.search(run))
    text = "".join(unescape(one.decode("utf-8", "replace")) for run in runs for one in _TEXT.findall(run))
    return " ".join(text.split())


def left_of(attributes: bytes, content: bytes, struck: Struck) -> str | None:
    """What is left of a cell of an .xlsx workbook; None for one of which nothing is crossed out."""
    style = _STYLE_NUMBER.search(attributes)
    if style and int(style[1]) in struck.styles:
        return ""
    if b't="s"' in attributes and (number := _SHARED.search(content)):
        return struck.texts.get(int(number[1]))
    return text_left(content) if b"<is" in content and _STRIKE.search(content) else None


_STYLES: Final = "{urn:oasis:names:tc:opendocument:xmlns:style:1.0}"
STYLE: Final = f"{_STYLES}style"
_OASIS_TEXT: Final = "{urn:oasis:names:tc:opendocument:xmlns:text:1.0}"


def struck_style(style: "Element") -> str:
    """The name of a style of an OpenDocument file whose text is crossed out; nothing for another one."""
    for looks in style.iter(f"{_STYLES}text-properties"):
        kinds = (looks.get(f"{_STYLES}text-line-through-{part}", "none") for part in ("style", "type"))
        if any(kind != "none" for kind in kinds):
            return style.get(f"{_STYLES}name", "")
    return ""


def text_left_of(element: "Element", struck: frozenset[str]) -> str:
    """The text of an element of an OpenDocument file but for what is crossed out."""
    if element.get(f"{_OASIS_TEXT}style-name") in struck:
        return ""
    parts = [element.text or ""]
    for child in element:
        parts += [text_left_of(child, struck), child.tail or ""]
    return "".join(parts)


def struck_note(what: str, texts: Sequence[str], place: Place) -> Problem:
    """That these texts, or cells called by their names, are crossed out and not read; `what` is one of them."""
    shown = ", ".join(
        text if len(text) <= _LONGEST_SHOWN else f"{text[:_LONGEST_SHOWN]} …" for text in texts[:_MOST_SHOWN]
    )
    more = f" and {len(texts) - _MOST_SHOWN} more" if len(texts) > _MOST_SHOWN else ""
    verb = "is" if len(texts) == 1 else "are"
    message = f"{counted(len(texts), what)} {verb} crossed out and not read: {shown}{more}."
    return note("crossed-out", message, "If it is to be read, take the line through it away.").at(place)
