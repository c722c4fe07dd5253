"""A calendar that people have changed as the target: takes every event of the sources first, settles them with the changes,
then writes what comes of it."""

import datetime as dt
from typing import TYPE_CHECKING, NamedTuple

from nomarium.history.revisions import key_of
from nomarium.history.settling import settle as settling
from nomarium.history.settling.choices import Prefer
from nomarium.history.settling.identity import joined
from nomarium.history.settling.marks import gone_texts, marks_text
from nomarium.history.settling.units import Units, as_written
from nomarium.ical.lines import recurrence_id, with_original
from nomarium.ical.octets import folded
from nomarium.reckoning.window import Window
from nomarium.targets.collected import CollectedTarget
from nomarium.targets.identities import Identities
from nomarium.targets.replacing import WrittenFile
from nomarium.targets.target import Settled

if TYPE_CHECKING:
    from nomarium.targets.calendars import CalendarTarget


class Edited(NamedTuple):
    """What a build is settled with."""

    units: Units
    """What people made of the calendar."""
    given: Units | None
    """What the last build wrote; None where that is not known."""
    name: str
    """How messages call the calendar."""
    prefer: Prefer = ""
    option: str = ""
    """What a remedy must say before --prefer."""


class SettledTarget(CollectedTarget):
    """Stands before a calendar target."""

    def __init__(
        self, inner: "CalendarTarget", identities: Identities, edited: Edited, window: Window
    ) -> None:
        super().__init__(identities)
        self._inner = inner
        self._edited = edited
        self._window = window
        self.changes = inner.changes

    def settle(self) -> settling.Outcome:
        """Settle everything that has come, and hand it on; to be asked once, after the last event."""
        edited = self._edited
        found = settling.settle(edited.given, edited.units, self.coming, edited.prefer, self._window)
        for one in found.written:
            self._inner.write_settled(_ready(one))
        self._inner.keep_gone(gone_texts(found.gone))
        return found

    @property
    def knows_some(self) -> bool:
        """Whether the changed calendar has an event of the source or of the last build."""
        given, edited = self._edited.given, self._edited.units.by_uid
        ours = {one.uid: one for one in self.coming}
        known = {} if given is None else given.by_uid
        is_met = any(uid in ours or uid in known or (given and uid in given.gone) for uid in edited)
        return is_met or bool(joined(ours, known, edited))

    @property
    def span(self) -> tuple[dt.date, dt.date] | None:
        """First and last local date of the events."""
        return self._inner.span or super().span

    def finish(self) -> list[WrittenFile]:
        """Write the files."""
        return self._inner.finish()

    def kept_files(self) -> list[str]:
        """Files of an earlier build that this one did not make."""
        return self._inner.kept_files()

    def close(self) -> None:
        """Remove what was written on the way."""
        self._inner.close()


def _ready(one: settling.Settled) -> Settled:
    """A settled event as a calendar file takes it."""
    event, key = as_written(one.event), one.uid
    if one.original is not None:
        key = key_of(one.uid, recurrence_id(one.original, event)[1])
        event = with_original(event, one.original)
    text = marks_text(one.marks)
    base = folded(f"X-NOMARIUM-BASE:{text}") if text else ""
    return Settled(event, one.uid, key, one.sequence, base, one.is_moved, one.last_start, one.calendars)
