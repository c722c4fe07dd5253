"""What addresses answered, kept, so that a feed is asked only whether it has changed (RFC 9110, 13.1)."""

import json
import os
from _blake2 import blake2b
from pathlib import Path
from typing import Final, NamedTuple

MOST_FEEDS: Final = 50
"""Answers that are kept; the oldest go first."""


class Kept(NamedTuple):
    """An answer that is there, and what to ask with."""

    headers: dict[str, str]
    content: Path


class FeedCache:
    """A folder of answers. One that cannot be written or read is as if it were not there."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder

    def _stem(self, address: str) -> Path:
        # the address may hold a secret: its digest alone is written down
        return self._folder / blake2b(address.encode("utf-8", "replace"), digest_size=16).hexdigest()

    def kept(self, address: str) -> Kept | None:
        """What an address answered, if it said how to ask whether that has changed."""
        stem = self._stem(address)
        try:
            said = json.loads(stem.with_suffix(".json").read_text("utf-8"))
            headers = {"If-None-Match": said.get("etag", ""), "If-Modified-Since": said.get("modified", "")}
            headers = {name: text for name, text in headers.items() if text}
        except (OSError, ValueError, AttributeError):
            return None
        content = stem.with_suffix(".body")
        return Kept(headers, content) if headers and content.is_file() else None

    def keep(self, address: str, content: bytes, etag: str, modified: str) -> None:
        """Keep an answer that says how to ask for it again; forget what was there otherwise."""
        stem = self._stem(address)
        try:
            if not etag and not modified:
                stem.with_suffix(".json").unlink(missing_ok=True)
                stem.with_suffix(".body").unlink(missing_ok=True)
                return
            self._folder.mkdir(parents=True, exist_ok=True, mode=0o700)
            stem.with_suffix(".json").unlink(missing_ok=True)
            self._put(stem.with_suffix(".body"), content)
            self._put(stem.with_suffix(".json"), json.dumps({"etag": etag, "modified": modified}).encode())
            self._forget_oldest()
        except OSError:
            return

    def _put(self, path: Path, content: bytes) -> None:
        part = path.with_name(f"{path.name}.{os.getpid()}")
        part.write_bytes(content)
        part.replace(path)

    def _forget_oldest(self) -> None:
        kept = sorted(self._folder.glob("*.json"), key=lambda path: path.stat().st_mtime)
        for path in kept[:-MOST_FEEDS]:
            path.unlink(missing_ok=True)
            path.with_suffix(".body").unlink(missing_ok=True)
