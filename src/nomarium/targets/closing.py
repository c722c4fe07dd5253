"""Targets that remove what they wrote on the way when a `with` block ends."""

from typing import Self


class Closing:
    """Closed at the end of a `with` block."""

    def close(self) -> None:
        """Remove what was written on the way."""

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()
