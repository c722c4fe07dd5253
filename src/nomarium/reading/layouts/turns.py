"""Names that take turns at posts: what shows that a table is a rota, and no list."""

import re
from collections.abc import Iterable, Sequence
from itertools import islice
from typing import Final

from nomarium.model.cell import Cell
from nomarium.reading.cells.people import BETWEEN_NAMES
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import fold
from nomarium.reading.columns.column import Column
from nomarium.reading.columns.daycells import looks_like_date
from nomarium.reading.columns.head import TableHead
from nomarium.reading.columns.headings import match_exactly
from nomarium.reading.layouts.layout import NotRead, not_read
from nomarium.reading.options import ReadingOptions
from nomarium.reading.rows.when import NOTHING
from nomarium.sheets.sheet import Row, Sheet, cell_text

DUTY: Final = r"\b(?:on[- ]?call|duty|duties|stand-?by|reserve|cover|backup|lead|readers?|stewards?|drivers?|ushers?|wardens?|servers?|cooks?|lookout|watch|keyholder)\b"
"""Headings of posts, of which two side by side are held by the same people in turns."""
_ROTA = r"\b(?:rotas?|rosters?|rostering|duty list|list of duties|duties|dienstplan|dienstliste|tableau de service|planning des permanences)\b"
"""What the line over a table calls one of people who take turns."""
_LONGEST_TITLE = 100
_SIDES = frozenset(
    "home away team opponent opponents host visitor visitors player side origin destination departs arrives departure arrival via".split()
)
"""Headings of two that meet, or of where a way begins and ends."""
_COLOURS = frozenset(("white", "black"))
"""Sides of a board where both play; one of them alone is the colour of something."""
_EVENTS = frozenset(
    "events trips visits fixtures matches games clubs meetings assemblies exams tests concerts performances rehearsals socials activities workshops "
    "celebrations parties services competitions races birthdays outings excursions sorties reunions termine ausfluge veranstaltungen excursiones eventos".split()
)
"""Headings of what is on, of which a calendar may have several columns."""
_WHAT_HAPPENS = frozenset("topic topics activity activities lesson lessons theme themes event events".split())
_OF_OTHER_ROWS = frozenset("previous next last related linked parent type kind no number of id".split())
"""Words by which such a heading is about something else than what is on then."""
_LONGEST_ANSWER = 3
_LONGEST_ENTRY = 40
_TIMED_WORDS = r"(?i)(?<![\d.:])\d{1,2}(?:[:.]\d\d)?\s?[ap]\.?m\b|(?<![\d.:])\d{1,2}:\d\d(?![\d:])"


_PEOPLE = frozenset(
    "staff teachers students pupils learners apprentices journeymen parents families children boys girls".split()
)
"""Headings of those for whom something is on."""
OF_PEOPLE: Final = frozenset(("organizer", "attendee", "teacher", "person"))
"""Fields whose headings are as well those of posts, `Lead` beside `Second`."""
_LEAST_TURNS, _LEAST_POSTS = 3, 2
_GROUP: Final = r"(?:juniors?|seniors?|minis|cadets?|infants|adults|beginners|improvers|intermediates?|advanced|(?:group|team|set|year|class|form|track|strand|squad|stage|level) ?(?:\d{1,2}|[a-z]))"
"""Names and other posts from which on a table is a rota."""


def is_called_rota(sheet: Sheet, above: Iterable[Row]) -> bool:
    """Whether a sheet's name, or a line of words over its headings (`above`, or over its table), calls it a rota."""
    texts = [sheet.name, *(text for _, text in sheet.said_above)]
    texts += [cell_text(cell) for _, row in above for cell in row]
    return any(re.search(_ROTA, fold(text)) for text in texts if len(text) <= _LONGEST_TITLE)


def rotating_posts(
    sheet: Sheet,
    head: TableHead,
    columns: Sequence[Column],
    rows: Sequence[Sequence[Cell]],
    options: ReadingOptions,
) -> NotRead | None:
    """Why a table is a rota: what could be its titles are hours, or stand under other headings, too, that nothing uses: names take
    turns at posts, one of which has the heading of a title, `Workshop` beside `Kitchen` and `Bins`."""
    title = next((c for c in columns if c.field == "summary" and c.how in ("heading", "content")), None)
    if title is None or options.title or options.keep_extra or not title.heading:
        return None
    said = f'say what they are: --column "{title.heading}=summary".'
    if (other := _another_like(title, columns)) is not None:
        message = f"What happens stands under “{other.heading}” and under “{title.heading}” of {sheet.title}: it is no list."
        return _rota(sheet, "several columns say what happens", message, said)
    match = match_exactly(title.heading)
    if match is not None and match.is_weak and (other := _of_place_or_group(columns)) is not None:
        message = f"“{title.heading}” may be one of the places or groups of {sheet.title}, as “{other.heading}” is: it is no list."
        return _rota(sheet, "its headings are places or groups", message, said)
    if title.how == "content" and _are_hours(rows, title.at):
        message = f"Hours stand under “{title.heading}” of {sheet.title}: it is no list."
        return _rota(sheet, "hours stand where its titles could", message, said)
    if title.how == "content" and (other := _beside_in_rota(sheet, head, columns, title)) is not None:
        message = f"{sheet.title} is called a rota, and names stand under “{title.heading}” and under “{other.heading}”: it is no list."
        return _rota(sheet, "it is called a rota", message, said)
    if (other := _with_same_names(columns, rows, title)) is None:
        return None
    message = f"The same names stand under “{title.heading}” and under “{other.heading}” of {sheet.title}: it is no list."
    said = f'say what the others are: --column "{other.heading}=".'
    return _rota(sheet, "names take turns under its headings", message, said)


def _rota(sheet: Sheet, reason: str, message: str, said: str) -> NotRead:
    remedy = f"Read it as a roster: --as roster; or {said}"
    return not_read(sheet, "no-titles", reason, "summary-column-missing", message, remedy)


def _are_hours(rows: Sequence[Sequence[Cell]], at: int) -> bool:
    """Whether half of what stands in a column at least are hours from one to another, `1pm-6pm`, or nothing."""
    from nomarium.reading.layouts.codes import hours_in, is_idle  # few titles are guessed

    texts = [text for row in rows if at < len(row) and (text := cell_text(row[at])) and not is_idle(text)]
    return bool(texts) and sum(hours_in(text).end is not None for text in texts) * 2 >= len(texts)


def _beside_in_rota(sheet: Sheet, head: TableHead, columns: Sequence[Column], title: Column) -> Column | None:
    """The first column of words that nothing uses beside what was taken for titles, in a table that is called a rota."""
    if not is_called_rota(sheet, islice(sheet.rows(), head.rows_above)):
        return None
    others = (c for c in _unused(columns) if any(map(str.isalpha, "".join(c.samples))))
    return next((c for c in others if c is not title and c.heading), None)


def _of_place_or_group(columns: Sequence[Column]) -> Column | None:
    """The first of two columns or more that nothing uses whose heading is a place or a group: what is on stands under each."""
    others = [c for c in _unused(columns) if c.heading and not c.blank]
    named = (c for c in others if is_place(c.heading) or re.fullmatch(_GROUP, fold(c.heading)))
    return next(named, None) if len(others) > 1 else None


def _unused(columns: Sequence[Column]) -> list[Column]:
    return [c for c in columns if c.is_ignored and c.how != "asked" and c.filled and not c.is_kept]


def _with_same_names(
    columns: Sequence[Column], rows: Sequence[Sequence[Cell]], title: Column
) -> Column | None:
    """The first column that nothing uses, or beside a guessed title one of people, that has names of the column of titles; None
    where too few of them are."""
    others = _unused(columns)
    if title.how == "content":
        others += [c for c in columns if c.field in OF_PEOPLE and c.how != "asked" and c.filled]
    words = _words_of(rows, title.at) if others else set()
    are_codes = bool(words) and all(len(word) < 4 and word.isupper() for word in words)
    if len(words) < (2 if are_codes else _LEAST_TURNS):
        return None
    held = {c.at: words & _words_of(rows, c.at) for c in others}
    shared = [c for c in others if held[c.at]]
    again = set().union(*held.values())
    if title.how != "content":
        is_rota = len(shared) >= (1 if are_codes else _LEAST_POSTS) and len(again) * 3 >= len(words) * 2
    else:
        is_rota = len(again) >= max(2, len(words) / 3)
    return shared[0] if is_rota and shared else None


def _another_like(title: Column, columns: Sequence[Column]) -> Column | None:
    """The column beside that of titles that says what happens as that does: `Hall` and `Loft`, `Staff` and `Students`, `Event` and
    `Event 2`."""
    others = [c for c in columns if c is not title and c.how != "asked" and c.filled]
    again = next((c for c in others if c.is_ignored and _bare(c.heading) == _bare(title.heading)), None)
    again = again or _also_timed(title, others)
    again = again or next((c for c in others if _is_of_events(c) or _is_headed_so(c)), None)
    if again is not None or title.how != "content":
        return again
    if is_place(title.heading):
        return next((c for c in others if c.field in ("location", "") and is_place(c.heading)), None)
    is_of_people = fold(title.heading) in _PEOPLE
    return next((c for c in others if is_of_people and fold(c.heading) in _PEOPLE), None)


def _is_of_events(column: Column) -> bool:
    """Whether a column that nothing uses is headed by what is on, `Sports fixtures`, `Trips`, and says it for some rows only."""
    if not column.is_ignored or column.is_kept or not column.blank:
        return False
    return not _EVENTS.isdisjoint(re.findall(r"[^\W\d_]+", fold(column.heading)))


def _is_headed_so(column: Column) -> bool:
    """Whether the heading of a column that nothing uses says whose topic or activity stands there, `Y7 topic`, in most rows."""
    words = re.findall(r"[^\W_]+", fold(column.heading))
    is_more = len(words) > 1 and words[-1] in _WHAT_HAPPENS and _OF_OTHER_ROWS.isdisjoint(words)
    are_words = sum(len(text) > _LONGEST_ANSWER for text in column.samples) * 2 > len(column.samples)
    return column.is_ignored and not column.is_kept and column.filled > column.blank and is_more and are_words


def _also_timed(title: Column, others: Sequence[Column]) -> Column | None:
    """The column that nothing uses and whose cells hold times among words, as those of the title do: `2pm v Bay` beside `8pm BBQ`."""
    if not any(map(_holds_timed_words, title.samples)):
        return None
    return next(
        (c for c in others if c.is_ignored and c.heading and any(map(_holds_timed_words, c.samples))), None
    )


def _holds_timed_words(text: str) -> bool:
    return (
        len(text) < _LONGEST_ENTRY
        and re.search(_TIMED_WORDS, text) is not None
        and re.search(r"[^\W\d_]{3}", text) is not None
    )


def _bare(heading: str) -> str:
    """A heading without its number, folded."""
    return fold(heading).rstrip("0123456789").rstrip()


def _words_of(rows: Sequence[Sequence[Cell]], at: int) -> set[str]:
    texts = {cell_text(row[at]) for row in rows if at < len(row)}
    return {word for text in texts for word in re.split(BETWEEN_NAMES, text) if any(map(str.isalpha, word))}


def share_words(
    head: Sequence[Cell], body: Sequence[Row], columns: Sequence[int], is_called_rota: bool
) -> bool:
    """Whether the columns draw on the same few words, which say nothing without their headings: codes and hours, or people,
    most of whom stand in several of three columns or more; one does, where it is called a rota. Two teams that meet are
    none of these."""
    from nomarium.reading.layouts.codes import has_key, hours_in, is_code, is_idle

    called = {fold(cell_text(head[n])).split(" ")[0] for n in columns}
    if called & _SIDES or called >= _COLOURS:
        return False
    seen: dict[str, set[int]] = {}
    count = codes = 0
    for _, row in body:
        for n in columns:
            text = cell_text(row[n]) if n < len(row) else ""
            if text and not is_idle(text) and not looks_like_date(row[n]):
                is_timed = hours_in(text) is not NOTHING
                for word in ["hours"] if is_timed else re.split(BETWEEN_NAMES, text):
                    seen.setdefault(word, set()).add(n)
                    codes += is_timed or is_code(row[n])
                    count += 1
    shared = sum(len(where) > 1 for where in seen.values())
    if codes * 5 >= count * 4:
        return bool(seen) and (has_key(body, seen.keys()) or shared * 2 > len(seen))
    are_posts = all(re.search(DUTY, fold(cell_text(head[n]))) for n in columns)
    if is_called_rota:
        return shared > 0
    return (len(columns) > 2 or are_posts) and shared * 3 >= len(seen) * 2 and len(seen) * 5 <= count * 3
