"""The inks that events are drawn in: told apart by hue, by how dark they are, and by the stroke at their side."""

from typing import Final, NamedTuple


class Ink(NamedTuple):
    """A colour on white paper, and the one that takes its place on a dark screen."""

    light: str
    dark: str


INKS: Final = (
    Ink("#17507c", "#6fb1e0"), Ink("#b4532a", "#f09a6c"), Ink("#2e8b74", "#6fd0b5"), Ink("#6d3a74", "#c795d0"),
    Ink("#c7931e", "#e8c163"), Ink("#56616b", "#aab6c1"), Ink("#8f1f3d", "#ee8aa2"), Ink("#5f7d1d", "#b0cf63"),
    Ink("#2f9fc4", "#7fd6f2"), Ink("#7a5230", "#cfa47c"),
)  # fmt: skip
"""Neighbours differ in hue and in lightness, so that a grey print tells them apart, too."""
PLAIN: Final = Ink("#3d4a57", "#b9c4cf")
"""The ink of events that are coloured by nothing."""


def ink_of(key: int) -> Ink:
    """The ink of a key's number; -1 is none."""
    return INKS[key % len(INKS)] if key >= 0 else PLAIN
