"""What most targets do alike: they need not know where events stand, and remove what they wrote on the way."""

from collections.abc import Callable
from typing import Self

from nomarium.model.problem import Place


class Closing:
    """Closed at the end of a `with` block."""

    def begin(self, place: Callable[[int], Place]) -> None:
        """The events of another source begin, whose rows stand at these places."""

    def close(self) -> None:
        """Remove what was written on the way."""

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()
