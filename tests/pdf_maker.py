"""PDF files made by hand (ISO 32000-1): texts and lines at their places, in points from the upper left corner."""

from __future__ import annotations

import zlib
from collections.abc import Sequence

Mark = tuple[float, float, str] | tuple[float, float, float, float]
"""A text at a place, upwards where it begins with `^`, or a line from one place to another."""
HEIGHT = 842


def pdf(*pages: Sequence[Mark], size: int = 10, rotate: int = 0, packed: bool = False) -> bytes:
    """A document of A4 pages."""
    kids = " ".join(f"{3 + 2 * n} 0 R" for n in range(len(pages)))
    fonts = "<< /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >> >> >>"
    objects = ["<< /Type /Catalog /Pages 2 0 R >>", f"<< /Type /Pages /Kids [{kids}] /Count {len(pages)} >>"]
    streams = []
    for n, marks in enumerate(pages):
        turned = f" /Rotate {rotate}" if rotate else ""
        objects += [
            f"<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 {HEIGHT}] /Resources {fonts} /Contents {4 + 2 * n} 0 R{turned} >>", "",
        ]  # fmt: skip
        streams.append("\n".join(_drawn(mark, size) for mark in marks).encode("cp1252", "replace"))
    body = b"%PDF-1.4\n"
    places = []
    for number, text in enumerate(objects, 1):
        places.append(len(body))
        data = text.encode()
        if not text:
            stream = streams[(number - 4) // 2]
            kind = b" /Filter /FlateDecode" if packed else b""
            stream = zlib.compress(stream) if packed else stream
            data = b"<< /Length %d%s >>\nstream\n" % (len(stream), kind) + stream + b"\nendstream"
        body += b"%d 0 obj\n" % number + data + b"\nendobj\n"
    table = "".join(f"{place:010} 00000 n \n" for place in places)
    end = f"xref\n0 {len(places) + 1}\n0000000000 65535 f \n{table}trailer\n<< /Size {len(places) + 1} /Root 1 0 R >>\nstartxref\n{len(body)}\n%%EOF"
    return body + end.encode()


def _drawn(mark: Mark, size: int) -> str:
    if len(mark) == 3:
        x, y, text = mark
        escaped = str(text).replace("\\", "\\\\").replace("(", "\\(").replace(")", "\\)")
        way = "0 1 -1 0" if escaped.startswith("^") else "1 0 0 1"
        return f"BT /F {size} Tf {way} {x} {HEIGHT - y} Tm ({escaped.removeprefix('^')}) Tj ET"
    x0, y0, x1, y1 = mark
    return f"{x0} {HEIGHT - y0} m {x1} {HEIGHT - y1} l S"


def table(
    rows: Sequence[Sequence[str]],
    columns: Sequence[float],
    top: float = 100,
    step: float = 18,
    ruled: bool = False,
) -> list[Mark]:
    """The marks of a table; a cell of several lines takes a line of type each."""
    marks: list[Mark] = []
    levels = [top - 12]
    y = top
    for row in rows:
        lines = [cell.split("\n") for cell in row]
        for x, cell in zip(columns, lines, strict=False):
            marks += [(x + 3, y + 12 * n, line) for n, line in enumerate(cell) if line]
        y += step + 12 * (max(map(len, lines)) - 1)
        levels.append(y - 12)
    if ruled:
        right = 560.0
        marks += [(columns[0], level, right, level) for level in levels]
        marks += [(x, levels[0], x, levels[-1]) for x in (*columns, right)]
    return marks
