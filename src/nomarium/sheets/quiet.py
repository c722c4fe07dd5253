"""Silence for a compiled library that writes to the standard error stream by itself when a damaged file makes it panic: what
becomes of that is said in our own words."""

import contextlib
import os
from collections.abc import Iterator


@contextlib.contextmanager
def quiet() -> Iterator[None]:
    """Everything that is written to the error stream below Python is lost meanwhile."""
    try:
        kept = os.dup(2)
    except OSError:  # there is none
        yield
        return
    nowhere = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, 2)
    os.close(nowhere)
    try:
        yield
    finally:
        os.dup2(kept, 2)
        os.close(kept)
