"""Who is who among the events of a build: lasting UIDs, and rows that say the same again.

A UID is a digest of the calendar's name, the event's summary, its first date and its occurrence
(1 for the first event of that summary and date, 2 for the next …), in the form of a UUID of
version 8 (RFC 9562, 5.8). Nothing about times, rooms or notes is in it, so those may change.
"""

from _blake2 import blake2b  # hashlib's own wrapper costs as much again for texts this short
from array import array
from itertools import cycle

from nomarium.model.event import Event
from nomarium.model.uids import uuid_of

_KEY = (1 << 60) - 1
"""As much of a hash as Python keeps in an integer of two digits: a third takes half as much again."""


class Identities:
    """Hands out UIDs in stream order and notices rows that say the same again.

    Holds for each event the digest of its identity and 32 bits of its content's hash, about 8 MB per 100,000. Two
    different events of one title and one date are taken for the same about once in 250 million such pairs, and
    that only costs a needless note.
    """

    def __init__(self, calendar_name: str) -> None:
        self._named = blake2b(f"{calendar_name}\0".encode("utf-8", "replace"), digest_size=16)
        self._marks: dict[int, int] = {}
        """Identity → the low 16 bits of its number among them: the contents at all numbers that end so are few."""
        self._contents = array("I")
        """The content of the first event of each identity, in their order."""
        self._add_content = self._contents.append
        self._next_mark = cycle(range(65_536)).__next__  # gives the same objects again and again
        self._counts: dict[int, int] = {}
        """Identity → how many events it has, where it has several."""
        self._said_again: set[int] = set()
        """The contents of those after the first, each with its identity."""
        self.repeated_rows: list[int] = []
        """Row numbers of events that equal an earlier one in every field."""
        self.repeated_uids: list[tuple[int, str]] = []
        """(row number, uid) of events whose own uid an earlier event already has."""

    def uid_of(self, event: Event, body: str) -> str:
        """The event's own UID, or one made from its identity and occurrence. `body` is its text."""
        uid = event[6].uid
        if not uid:
            return self.uid_made(event[0], event[1].toordinal(), body, event[7])
        key = hash(uid) & _KEY
        if key in self._marks:
            self.repeated_uids.append((event.row_number, uid))
        else:
            self._marks[key] = self._next_mark()
            self._add_content(hash(body) & 0xFFFFFFFF)
        return uid

    def uid_made(self, summary: str, first_day: int, body: str, row_number: int) -> str:
        """The UID of an event that has none of its own, from its summary, its first day (an ordinal) and its occurrence."""
        identity = f"{summary}\0{first_day}"
        digest = self._named.copy()
        digest.update(identity.encode("utf-8", "replace"))
        h = digest.hexdigest()
        uid = f"{h[:8]}-{h[8:12]}-8{h[13:16]}-a{h[17:20]}-{h[20:]}"  # what uuid_of does, without the call
        key = hash(uid) & _KEY
        if key in self._marks:
            return self._uid_of_repeat(key, body, identity, row_number)
        self._marks[key] = self._next_mark()
        self._add_content(hash(body) & 0xFFFFFFFF)
        return uid

    def handed_over(self) -> tuple[list[int], list[int]]:
        """The identities so far and the content of each, for `take_over` in another process."""
        return [*self._marks], [*self._contents]

    def take_over(self, marks: tuple[list[int], list[int]]) -> None:
        """Know the events that another process made; none of them may be known here already."""
        for key, content in zip(*marks, strict=True):
            self._marks[key] = self._next_mark()
            self._add_content(content)

    def _uid_of_repeat(self, key: int, body: str, identity: str, row_number: int) -> str:
        content = hash(body)
        said = hash((key, content)) & _KEY
        if said in self._said_again or content & 0xFFFFFFFF in self._contents[self._marks[key] :: 65_536]:
            self.repeated_rows.append(row_number)
        self._said_again.add(said)
        count = self._counts[key] = self._counts.get(key, 1) + 1
        digest = self._named.copy()
        digest.update(f"{identity}\0{count}".encode("utf-8", "replace"))
        return uuid_of(digest.hexdigest())
