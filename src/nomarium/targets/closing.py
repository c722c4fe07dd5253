"""What most targets do alike: they need not know where events stand, and remove what they wrote on the way."""

from collections.abc import Callable
from typing import TYPE_CHECKING, Self

from nomarium.model.problem import Place

if TYPE_CHECKING:
    from nomarium.targets.target import PlainTarget


class Closing:
    """Closed at the end of a `with` block."""

    def begin(self, place: Callable[[int], Place]) -> None:
        """The events of another source begin, whose rows stand at these places."""

    @property
    def plain(self) -> "PlainTarget | None":
        """Most need the events themselves."""
        return None

    def close(self) -> None:
        """Remove what was written on the way."""

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()
