"""What becomes of each file of `tests/ugly`: its events and its messages, word for word."""

from __future__ import annotations

from pathlib import Path

import pytest

from ugly_files import FILES, told, told_file


@pytest.mark.parametrize("source", FILES, ids=lambda path: path.stem)
def test_an_ugly_file_is_read_or_refused_as_before(source: Path) -> None:
    expected = told_file(source).read_text("utf-8")
    assert told(source, expected.splitlines()[0]) == expected
