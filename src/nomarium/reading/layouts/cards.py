"""Cards: events one after the other, each in the same few lines, `14 Nov`, `Craft fair`, `10:00 – 16:00`, `Main hall`, as pages
list them."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Final

from nomarium.reading.cells.placewords import is_place
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.textlines import TextLine, is_sentence
from nomarium.reading.layouts.weekdaylines import names_week

_LEAST: Final = 2
_SHORTEST: Final = 3
_LONGEST: Final = 6
_SIGNS: Final = " ·•|,;:–—-"
"""What parts a time from the place behind it."""
_TITLED: Final = 2
"""Lines of a card that are its date and its title."""


def cards_in(lines: Sequence[TextLine]) -> tuple[Mapping[int, EventRow], frozenset[int]]:
    """The event of each card, by the number of its date, and all numbers of their lines. A card begins with a date that stands
    alone, and says below it what, when, and perhaps where; all are of the same form."""
    dates = [n for n, line in enumerate(lines) if line.date]
    if len(dates) < _LEAST or any(any(map(str.isalpha, lines[n].rest)) for n in dates):
        return {}, frozenset()
    if any(names_week(lines[n].date) for n in dates):
        return {}, frozenset()  # its days stand below it
    if titled := _titled_cards(lines, dates):
        return {card[1].number: _event_of_titled(card) for card in titled}, frozenset(
            line.number for card in titled for line in card
        )
    loose = _loose_cards(lines, dates)
    if loose:
        return {one[0].number: _event_of_loose(one) for one in loose}, frozenset(
            line.number for one in loose for line in one
        )
    size = dates[1] - dates[0]
    if not _SHORTEST <= size <= _LONGEST or any(b - a != size for a, b in pairwise(dates)):
        return {}, frozenset()
    cards = [lines[at : at + size] for at in dates]
    forms = {tuple(map(_kind, card[1:])) for card in cards}
    form = forms.pop()
    if forms or form.count("time") != 1 or form[0] != "text" or not _ends_card(cards, form):
        return {}, frozenset()
    found = {card[0].number: _event_of(card) for card in cards}
    return found, frozenset(line.number for card in cards for line in card)


def _titled_cards(lines: Sequence[TextLine], dates: Sequence[int]) -> list[Sequence[TextLine]]:
    """Cards of which each has its title right above its date, and its time right below, alone or before a place: `Knot night`,
    `Friday 11 December`, `7pm – 9pm · Sail loft`; nothing where one has not."""
    if dates[0] == 0 or any(b - a < _SHORTEST or b - a > _LONGEST + 1 for a, b in pairwise(dates)):
        return []
    ends = [*(n - 1 for n in dates[1:]), min(dates[-1] + _SHORTEST, len(lines))]
    cards = [lines[n - 1 : end] for n, end in zip(dates, ends, strict=True)]
    are_whole = all(
        len(card) >= _SHORTEST and _kind(card[0]) == "text" and not is_place(card[0].text)
        and not card[1].time and not card[1].has_time and bool(card[2].time)
        for card in cards
    )  # fmt: skip
    beside = [card[2].rest.strip(_SIGNS) for card in cards if are_whole]
    placed = sum(not text or is_place(text) for text in beside)
    others = [line for card in cards for line in card[3:]]
    return cards if placed * 2 > len(cards) and not any(line.time for line in others) else []


def _event_of_titled(card: Sequence[TextLine]) -> EventRow:
    title, date, timed, *others = card
    said = [text for line in others if any(map(str.isalpha, text := line.text))]
    beside = timed.rest.strip(_SIGNS)
    place = beside if is_place(beside) else ""
    notes = ", ".join([*([beside] if beside and not place else []), *said])
    return EventRow(
        date.date, timed.time, title.text.strip(" :"), place, notes, repeat=date.repeat, without=date.without
    )


def _loose_cards(lines: Sequence[TextLine], dates: Sequence[int]) -> list[Sequence[TextLine]]:
    """Cards of which each has its title right below its date, and below that one line with a time or none, `Carol concert` over
    `6.30pm, St Anne's church`; nothing where a line is of another kind."""
    longest = max(b - a for a, b in pairwise(dates))
    cards = [lines[a:b] for a, b in zip(dates, [*dates[1:], dates[-1] + longest], strict=True)]
    timed = [sum(bool(line.time) for line in card[1:]) for card in cards]
    if longest > _LONGEST or max(timed) > 1 or sum(timed) * 2 < len(cards):
        return []
    are_titled = all(
        len(card) > 1 and _kind(card[1]) == "text" and not is_place(card[1].text) for card in cards
    )
    others = [line for card in cards for line in card[1:]]
    is_plain = not any(line.is_bullet or line.date or is_sentence(line) for line in others)
    follow = all(
        card[2].time for card, count in zip(cards, timed, strict=True) if count and len(card) > _TITLED
    )
    return cards if are_titled and is_plain and follow else []


def _event_of_loose(card: Sequence[TextLine]) -> EventRow:
    date, title, *others = card
    timed = next((line for line in others if line.time), None)
    rest = (
        [timed.rest, *(line.text for line in others if line is not timed)]
        if timed
        else [line.text for line in others]
    )
    said = [text for text in rest if any(map(str.isalpha, text))]
    place = next((text for text in said if is_place(text)), "")
    notes = ", ".join(text for text in said if text != place)
    time, what = timed.time if timed else "", title.text.strip(" :")
    return EventRow(date.date, time, what, place, notes, repeat=date.repeat, without=date.without)


def _kind(line: TextLine) -> str:
    """What a line below a date is: a time alone, a text, or neither."""
    if line.time and not any(map(str.isalpha, line.rest)):
        return "time"
    return "other" if line.time or is_sentence(line) or not any(map(str.isalpha, line.text)) else "text"


def _ends_card(cards: Sequence[Sequence[TextLine]], form: Sequence[str]) -> bool:
    """Whether what stands right above the next date is of its card: a time, or mostly names of places; no title of the next."""
    if "other" in form:
        return False
    places = sum(is_place(card[-1].text) for card in cards)
    return form[-1] == "time" or places * 2 > len(cards)


def _event_of(card: Sequence[TextLine]) -> EventRow:
    time = next(line.time for line in card[1:] if _kind(line) == "time")
    title, *rest = [line.text for line in card[1:] if _kind(line) == "text"]
    place = rest.pop() if rest and is_place(rest[-1]) else ""
    day = card[0]
    return EventRow(day.date, time, title, place, ", ".join(rest), repeat=day.repeat, without=day.without)
