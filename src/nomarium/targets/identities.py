"""Who is who among the events of a build: lasting UIDs, and rows that say the same again.

A UID is a digest of the calendar's name, the event's summary, its first date and its occurrence
(1 for the first event of that summary and date, 2 for the next …), in the form of a UUID of
version 8 (RFC 9562, 5.8). Nothing about times, rooms or notes is in it, so those may change.
"""

from _blake2 import blake2b  # hashlib's own wrapper costs as much again for texts this short

from nomarium.model.event import Event
from nomarium.model.uids import uuid_of


class Identities:
    """Hands out UIDs in stream order and notices rows that say the same again.

    Holds one dictionary entry for each event, about 8 MB per 100,000: the identity's digest, and a
    16-bit mark of the content. Two different events of one title and one date are taken for the
    same about once in 65,536 such pairs; that only costs a needless note.
    """

    def __init__(self, calendar_name: str) -> None:
        self._named = blake2b(f"{calendar_name}\0".encode("utf-8", "replace"), digest_size=16)
        self._marks: dict[int, int] = {}
        # one shared number object a mark, so that a million events keep no mark objects of their own
        self._shared_marks = [0] * 65_536
        self._repeats: dict[int, list[int]] = {}
        self.repeated_rows: list[int] = []
        """Row numbers of events that equal an earlier one in every field."""
        self.repeated_uids: list[tuple[int, str]] = []
        """(row number, uid) of events whose own uid an earlier event already has."""

    def uid_of(self, event: Event, body: str) -> str:
        """The event's own UID, or one made from its identity and occurrence. `body` is its text."""
        identity = ""
        uid = event[6].uid
        if not uid:
            identity = f"{event[0]}\0{event[1].toordinal()}"
            digest = self._named.copy()
            digest.update(identity.encode("utf-8", "replace"))
            uid = uuid_of(digest.hexdigest())
        key, mark = hash(uid), hash(body) & 0xFFFF
        if key in self._marks:
            return self._uid_of_repeat(event, key, body, self._marks[key] == mark, identity)
        shared = self._shared_marks
        shared[mark] = self._marks[key] = shared[mark] or mark
        return uid

    def handed_over(self) -> list[int]:
        """The marks so far as keys and values in turn, for `take_over` in another process."""
        return [number for pair in self._marks.items() for number in pair]

    def take_over(self, marks: list[int]) -> None:
        """Know the events that another process made; none of them may be known here already."""
        values, shared = iter(marks), self._shared_marks
        for key, mark in zip(values, values, strict=True):
            shared[mark] = self._marks[key] = shared[mark] or mark

    def _uid_of_repeat(self, event: Event, key: int, body: str, like_first: bool, identity: str) -> str:
        if event.details.uid:
            self.repeated_uids.append((event.row_number, event.details.uid))
            return event.details.uid
        later = self._repeats.setdefault(key, [])
        content = hash(body)
        if like_first or content in later:
            self.repeated_rows.append(event.row_number)
        later.append(content)
        digest = self._named.copy()
        digest.update(f"{identity}\0{len(later) + 1}".encode("utf-8", "replace"))
        return uuid_of(digest.hexdigest())
