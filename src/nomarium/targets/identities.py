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
        self._repeats: dict[int, tuple[int, set[int]]] = {}
        """Identity → how many events it has, and the contents of those after the first."""
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
            h = digest.hexdigest()
            uid = f"{h[:8]}-{h[8:12]}-8{h[13:16]}-a{h[17:20]}-{h[20:]}"  # what uuid_of does, without the call
        key, marks = hash(uid), self._marks
        if key in marks:
            return self._uid_of_repeat(event, key, body, identity)
        marks[key] = self._next_mark()
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

    def _uid_of_repeat(self, event: Event, key: int, body: str, identity: str) -> str:
        if event.details.uid:
            self.repeated_uids.append((event.row_number, event.details.uid))
            return event.details.uid
        content = hash(body)
        count, contents = self._repeats.get(key) or (1, set[int]())
        if content in contents or content & 0xFFFFFFFF in self._contents[self._marks[key] :: 65_536]:
            self.repeated_rows.append(event.row_number)
        contents.add(content)
        self._repeats[key] = count + 1, contents
        digest = self._named.copy()
        digest.update(f"{identity}\0{count + 1}".encode("utf-8", "replace"))
        return uuid_of(digest.hexdigest())
