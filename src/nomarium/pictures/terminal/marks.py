"""Signs by which events are told apart where there are no colours."""

from collections.abc import Mapping, Sequence

from nomarium.pictures.lanes import Band
from nomarium.pictures.terminal.lines import Part, cut, width_of
from nomarium.pictures.wording import title_text

_SPINES = "▌┃║┆▐╏"


def spine(key: int) -> str:
    """The stroke at the side of an event: each colour has its own, so that they differ without colours, too."""
    return _SPINES[key % len(_SPINES)] if key >= 0 else "▌"


def band_parts(bands: Sequence[Band], days: int, column: int, keys: Mapping[str, int]) -> list[Part]:
    """One lane of long events over so many columns, each as wide as `column` with a stroke between them."""
    parts, at = list[Part](), 0
    width = days * (column + 1) - 1
    for band in sorted(bands, key=lambda one: one.first):
        left, right = band.first * (column + 1), (band.last + 1) * (column + 1) - 1
        key = keys.get(band.one.key, -1)
        end = "›" if band.goes_on else ""
        inner = right - left - 1 - len(end)
        text = cut(("‹" if band.began else "") + title_text(band.one.event), inner)
        rest = inner - width_of(text)
        parts += [Part(" " * (left - at)), Part(spine(key), key=key), Part(text)]
        parts.append(Part(" " + "─" * (rest - 1) if rest > 1 else " " * rest, "dim", key))
        parts.append(Part(end, key=key))
        at = right
    return [*parts, Part(" " * (width - at))]
