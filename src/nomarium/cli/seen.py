"""What `view` has found to draw."""

from collections.abc import Sequence
from typing import NamedTuple

from nomarium.model.problem import Problem
from nomarium.pictures.names import Names
from nomarium.pictures.shown import Show


class Seen(NamedTuple):
    """Everything that was found to draw."""

    show: Show
    names: Names
    weekdays: frozenset[int]
    beside: Sequence[str]
    """What is not in the picture, each in a line."""
    problems: Sequence[Problem]
    notes: Sequence[Problem]
    parts: Sequence[tuple[str, Show]] = ()
    """Of a split: each value and what belongs to it."""
