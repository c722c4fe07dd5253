"""Which characters a text file's bytes mean."""

import codecs
import re
from pathlib import Path
from typing import Final, NamedTuple

from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem, note

_BLOCK = 1 << 20
_BOMS = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF32_LE, "utf-32"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)
_OLDER: Final = ("cp1252", "cp1250", "iso8859_2", "mac_roman", "cp850", "cp852")
"""The likeliest first."""
_LABELS: Final = {
    "cp1252": "Windows-1252",
    "cp1250": "Windows-1250",
    "iso8859_2": "ISO 8859-2",
    "mac_roman": "Mac Roman",
}
_LAST_OF_ASCII: Final = 0x7F
_MOST_LINES: Final = 2_000
"""Lines with other octets than ASCII that are looked at."""
_MOST_ACCENTS: Final = 0.35
"""Letters with accents of all letters, at most; where there are more, it is another writing."""
_CAPITALS: Final = "À-ÖØ-ÞĄĆĘŁŃŚŹŻČĎĚŇŘŠŤŮŽŐŰŸŒ"
_ODD: Final = rf"(?<=[^\W\d_])(?:[^\w\s'’.,;:!?/()&+\-–—\"“”«»]|[¹²³ªº¼½¾])(?=[^\W\d_])|(?<=[^\W\d_])[{_CAPITALS}](?=[a-zà-ÿ])|(?<=[a-zà-ÿ])[{_CAPITALS}]|[\x80-\x9f]|(?<![^\W\d_])[„”“‘’¤¢£¥§¨©®¯°±²³´µ¶·¸¹º¼½¾¿×÷](?=[a-z]{{2}})"
"""A sign within a word, a capital with an accent within one, a control, a sign that begins one."""


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
    """One of the older encodings with an octet a character: Windows-1252, unless another one makes better words of it."""
    data = path.read_bytes()
    encoding = _likeliest(data[:_BLOCK])
    label, why = _LABELS.get(encoding, encoding), "its bytes are not UTF-8"
    if encoding != "cp1252":
        why = "its bytes are not UTF-8, and make the best words so"
    message = f"Read as {label} text, because {why}."
    remedy = "If accents look wrong, save the file as UTF-8."
    return TextKind(
        encoding,
        (note("encoding-older", message, remedy).at(Place(name)),),
        data.count(b'"') % 2 == 1,
    )


def _likeliest(data: bytes) -> str:
    """The encoding in which the fewest characters stand in words where no language has them: signs between letters, and capitals
    with accents before small letters, `Wêz³y`, `DŽbut`. Where most letters are of another writing, what its statistics say."""
    lines = [line for line in data.splitlines() if any(octet > _LAST_OF_ASCII for octet in line)][
        :_MOST_LINES
    ]
    texts = {one: text for one in _OLDER if (text := _decoded(b"\n".join(lines), one)) is not None}
    first = next(iter(texts.values()), "")
    letters = sum(map(str.isalpha, first))
    if not texts or sum(one.isalpha() and not one.isascii() for one in first) > _MOST_ACCENTS * letters:
        from charset_normalizer import from_bytes

        best = from_bytes(data).best()
        return best.encoding if best else "latin-1"
    return min(texts, key=lambda one: len(re.findall(_ODD, texts[one])))


def _decoded(data: bytes, encoding: str) -> str | None:
    try:
        return data.decode(encoding)
    except UnicodeDecodeError:
        return None
