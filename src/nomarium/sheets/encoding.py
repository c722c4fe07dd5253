"""Which characters a text file's bytes mean."""

import codecs
from pathlib import Path
from typing import NamedTuple

from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem, note

_BLOCK = 1 << 20
_BOMS = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF32_LE, "utf-32"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)
_UNUSED_IN_1252 = b"\x81\x8d\x8f\x90\x9d"


class TextKind(NamedTuple):
    """How a text file is to be decoded."""

    encoding: str
    notes: tuple[Problem, ...] = ()
    odd_quotes: bool = False
    """Whether the number of double quotes is odd: one may open a field and never close it."""


def text_kind(path: Path, name: str) -> TextKind:
    """Find a file's encoding: a byte order mark, else UTF-8, UTF-16 without a mark, Windows-1252.

    Raises SourceError when the bytes are no text.
    """
    with path.open("rb") as file:
        head = file.read(4096)
        for mark, encoding in _BOMS:
            if head.startswith(mark):
                return TextKind(encoding, (), _odd_quotes(path))
        if b"\0" in head:
            return TextKind(_utf16_without_mark(head, name))
        file.seek(0)
        decoder = codecs.getincrementaldecoder("utf-8")()
        quotes = 0
        try:
            while block := file.read(_BLOCK):
                decoder.decode(block)
                quotes += block.count(b'"')
            decoder.decode(b"", final=True)
        except UnicodeDecodeError:
            return _legacy(path, name)
    return TextKind("utf-8", (), quotes % 2 == 1)


def _odd_quotes(path: Path) -> bool:
    with path.open("rb") as file:
        return sum(block.count(b'"') for block in iter(lambda: file.read(_BLOCK), b"")) % 2 == 1


def _utf16_without_mark(head: bytes, name: str) -> str:
    even, odd = head[0::2].count(0), head[1::2].count(0)
    if max(even, odd) > len(head) // 4 and min(even, odd) < len(head) // 40 + 1:
        return "utf-16-le" if odd > even else "utf-16-be"
    raise SourceError(
        Problem(
            "source-not-text",
            f"{name} is not a spreadsheet and not text: it holds bytes that no text has.",
            "Save the table as .xlsx or .csv and build that.",
            Place(name),
        )
    )


def _legacy(path: Path, name: str) -> TextKind:
    """One of the older encodings with an octet a character: Windows-1252 unless its gaps are used."""
    data = path.read_bytes()
    encoding, why = "cp1252", "its bytes are not UTF-8"
    if any(octet in data for octet in _UNUSED_IN_1252):
        from charset_normalizer import from_bytes

        best = from_bytes(data[:_BLOCK]).best()
        encoding = best.encoding if best else "latin-1"
        why = "its bytes are neither UTF-8 nor Windows-1252"
    label = "Windows-1252" if encoding == "cp1252" else encoding
    message = f"Read as {label} text, because {why}."
    remedy = "If accents look wrong, save the file as UTF-8."
    return TextKind(
        encoding,
        (note("encoding-older", message, remedy).at(Place(name)),),
        data.count(b'"') % 2 == 1,
    )
