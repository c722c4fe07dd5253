"""One event, three states of it, field by field: what the source changed, what people changed, and what both did."""

from collections.abc import Sequence
from types import MappingProxyType
from typing import Final, Literal, NamedTuple

from nomarium.history.settling.fields import (
    FIELDS,
    Field,
    digest_of,
    is_edit,
    is_plainly_same,
    value_of,
    with_field,
    with_replies,
)
from nomarium.history.settling.marks import NO_MARKS, Marks
from nomarium.model.entry import Entry
from nomarium.model.event import Event

Prefer = Literal["", "source", "edited"]
OF_A_DATE: Final = tuple(field for field in FIELDS if field != "repeat")
"""What one date of a series can have of its own."""


class Clash(NamedTuple):
    """A field that source and people changed differently."""

    field: Field
    base: Entry | None
    """What says it as it was; None where of that only a digest is known …"""
    source: Entry
    edited: Entry
    is_first: bool
    """… or nothing, so that one cannot even tell who changed it."""


class Choice(NamedTuple):
    """An event as it is settled."""

    event: Event
    marks: Marks
    kept: Sequence[Field]
    """What it has from the calendar."""
    refused: Sequence[Field]
    """What the calendar has otherwise, and the source was preferred in."""
    clashes: Sequence[Clash]


def chosen(
    given: Entry | None, marks: Marks, source: Entry, edited: Entry, prefer: Prefer, fields: Sequence[Field] = FIELDS,
    fills: bool = False,
) -> Choice:  # fmt: skip
    """Settle one event. `given` is what the calendar was given by the last build, `marks` what of it the source did not say;
    None when that is not known. `fills`: what one side leaves blank is taken from the other."""
    event = source.event
    if is_plainly_same(source, edited):
        marks = NO_MARKS._replace(refused=marks.refused) if marks.refused else NO_MARKS
        return Choice(event, marks, (), (), ())
    base, refused = dict[Field, str](), dict(marks.refused)
    kept, overruled, clashes = list[Field](), list[Field](), list[Clash]()
    for field in fields:
        if not is_edit(field, source, edited):
            continue
        mine = digest_of(value_of(field, source))
        before, says = _before_and_after(field, given, marks, edited)
        if _is_settled(field, says, given, marks, edited):
            continue
        if says == before or (fills and not value_of(field, edited)):
            refused[field] = says  # until the calendar has been brought up to date that is no edit
            continue
        if before == mine or prefer == "edited" or (fills and not value_of(field, source)):
            event = with_field(event, field, edited)
            base[field] = mine
            refused.pop(field, None)
            kept.append(field)
        elif prefer == "source":
            refused[field] = says
            overruled.append(field)
        else:
            known = given if field not in marks.base else None
            clashes.append(Clash(field, known, source, edited, given is None))
    event = with_replies(event, edited)
    if "location" in kept:
        event = _in_its_room(event)
    found = NO_MARKS._replace(base=MappingProxyType(base), refused=MappingProxyType(refused))
    return Choice(event, found, tuple(kept), tuple(overruled), clashes)


def is_changed(given: Entry, marks: Marks, now: Entry, fields: Sequence[Field] = FIELDS) -> bool:
    """Whether a source says another thing than at the last build."""
    if not marks.base and is_plainly_same(given, now):
        return False
    for field in fields:
        value = value_of(field, now)
        if field in marks.base:
            if marks.base[field] != digest_of(value):
                return True
        elif value != value_of(field, given):
            return True
    return False


def has_edits(given: Entry, marks: Marks, edited: Entry, fields: Sequence[Field] = FIELDS) -> bool:
    """Whether people have something otherwise than the source had it."""
    for field in fields:
        if field == "status" and given.event.details.status == "CANCELLED":  # withdrawn by a build
            continue
        before, says = _before_and_after(field, given, marks, edited)
        if says != before and not _is_settled(field, says, given, marks, edited):
            return True
    return False


def _is_settled(field: Field, says: str, given: Entry | None, marks: Marks, edited: Entry) -> bool:
    """Whether a calendar that has not been brought up to date since says what was decided against then."""
    if given is None or edited.event.details.sequence >= given.event.details.sequence:
        return False
    return marks.refused.get(field) == says


def _before_and_after(
    field: Field, given: Entry | None, marks: Marks, edited: Entry
) -> tuple[str | None, str]:
    """What the source said of a field at the last build, and what the calendar says now, as digests."""
    if given is None:
        return None, digest_of(value_of(field, edited))
    is_as_given = not is_edit(field, given, edited)  # however it is spelled
    says = digest_of(value_of(field, given if is_as_given else edited))
    return marks.base.get(field) or digest_of(value_of(field, given)), says


def _in_its_room(event: Event) -> Event:
    """An event that people put elsewhere is in that room."""
    facets = event.details.facets
    if not any(name == "room" for name, _ in facets):
        return event
    moved = tuple((name, event.location if name == "room" else value) for name, value in facets)
    return event._replace(details=event.details._replace(facets=moved))
