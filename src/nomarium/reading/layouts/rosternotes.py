"""What a roster tells of its codes, its sessions and what stands beside them."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Final

from nomarium.model.problem import Problem, note
from nomarium.model.wording import counted, listed
from nomarium.reading.columns.slotlengths import steps_told
from nomarium.reading.layouts.codes import Code, with_remark
from nomarium.reading.layouts.drawn import DrawnEntry
from nomarium.reading.layouts.rosterslots import Slot
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Sheet

_USUAL: Final = (
    (("pm", "aft", "nachm", "après", "tard"), "13:00-16:00"),
    (("eve", "night", "abend", "soir"), "18:00-21:00"),
)
"""Hours to propose for a part of the day."""


def remarks_told(sheet: Sheet, slots: Sequence[Slot], codes: Mapping[str, Code]) -> list[Problem]:
    """A note of the cells that have a sign or a remark beside their code, `E*`, `E (Moss)`."""
    remarked = [slot for slot in slots if slot.text.casefold() not in codes and with_remark(slot.text, codes)]
    if not remarked:
        return []
    first = remarked[0]
    more = f" (so in {counted(len(remarked), 'cell')}; this is the first)" if len(remarked) > 1 else ""
    message = f"“{first.text}” has the hours of the code in it{more}."
    return [note("roster-remark", message).at(sheet.place(first.row, first.column))]


def untimed_told(
    sheet: Sheet, slots: Sequence[Slot], entries: Sequence[DrawnEntry | Problem]
) -> list[Problem]:
    """A note of what stands beside rows or columns that say when, and does not: it lasts all day."""
    timed = {slot.label for slot in slots if slot.time is not NOTHING}
    untimed = [
        slot.label
        for slot, entry in zip(slots, entries, strict=True)
        if slot.label not in timed and isinstance(entry, DrawnEntry) and entry.time is NOTHING
    ]
    if not timed or not untimed:
        return []
    said = listed([f"“{label}”" for label in dict.fromkeys(untimed)])
    message = f"Others say when they are, and {said} not: what stands there lasts all day."
    return [note("slots-untimed", message, "If it does not, write its hours beside it.").at(sheet.place())]


def sessions_told(
    sheet: Sheet, slots: Sequence[Slot], entries: Sequence[DrawnEntry | Problem]
) -> Iterator[Problem]:
    """A note of the parts of a day that no one has given hours: what stands there lasts all day."""
    said = dict.fromkeys(
        slot.part or slot.label
        for slot, entry in zip(slots, entries, strict=True)
        if (slot.part or slot.is_session) and isinstance(entry, DrawnEntry) and entry.time is NOTHING
    )
    if said:
        message = f"Sessions without times are all-day events: {listed([*said])}."
        first = next(iter(said))
        hours = next((hours for words, hours in _USUAL if first.casefold().startswith(words)), "9:00-12:00")
        remedy = f'To give them times: --set-code "{first}={hours}".'
        yield note("session-timeless", message, remedy).at(sheet.place())


def overlaps_told(
    sheet: Sheet, entries: Sequence[DrawnEntry | Problem], options: ReadingOptions
) -> list[Problem]:
    """A note of starts that follow each other faster than what stands there lasts."""
    starts = {
        (str(entry.date.first), entry.time.start.secs)
        for entry in entries
        if isinstance(entry, DrawnEntry) and entry.time.start is not None and entry.time.end is None
    }
    return steps_told(sorted(starts), options, sheet.place())


def codes_told(
    sheet: Sheet, key: Mapping[str, Code], rows: set[int], timeless: Mapping[str, int], idle: int
) -> Iterator[Problem]:
    if key:
        named = listed(sorted(key))
        where = f"rows {min(rows)} to {max(rows)}" if len(rows) > 1 else f"row {min(rows)}"
        yield note("roster-key", f"What {named} stand{'s' if len(key) == 1 else ''} for is in {where}.").at(
            sheet.place(min(rows))
        )
    without = [code for code, count in timeless.items() if count]
    if without:
        count = sum(timeless.values())
        message = (
            f"Codes without times are all-day events: {listed(sorted(without))} ({counted(count, 'cell')})."
        )
        remedy = f'To give them times: --set-code "{sorted(without)[0]}=7:00-15:00".'
        yield note("code-timeless", message, remedy).at(sheet.place())
    if idle:
        message = f"{counted(idle, 'cell says', 'cells say')} that nothing happens (a dash, “off” …)."
        yield note("slots-idle", message).at(sheet.place())
