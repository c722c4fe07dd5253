"""Lines of text: `Fri 14 April: Marketing webinar, 10–11am, Sail loft`; a date over lines with times; a month over days; an event over
the lines of a paragraph. Each becomes a row of a list, which is read as any other."""

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence, Set
from functools import partial
from itertools import chain, pairwise
from typing import Final

from nomarium.model.cell import Cell
from nomarium.model.limits import MOST_LINES
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.longtext import without_long_lines
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon, fold
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.asides import (
    lines_about_letters,
    mail_heads,
    ticked_off,
    with_headings_marked,
    without_quotes,
)
from nomarium.reading.layouts.barelines import titled_days
from nomarium.reading.layouts.cards import cards_in
from nomarium.reading.layouts.columnlines import table_of_lines
from nomarium.reading.layouts.diarycolumns import with_months_beside
from nomarium.reading.layouts.drawnlines import drawing_of_lines
from nomarium.reading.layouts.eventrow import EventRow, with_whole_names
from nomarium.reading.layouts.fewlines import (
    apart_at_dates,
    are_dates_first,
    event_of_few_lines,
    under_its_title,
)
from nomarium.reading.layouts.labelledlines import (
    is_title_and_day,
    labelled,
    least_labels,
    may_stand_over,
    most_over,
    parts_of,
    with_labels_together,
)
from nomarium.reading.layouts.layout import NotRead, Reading, Top, not_read
from nomarium.reading.layouts.leftopen import OF_WEEK
from nomarium.reading.layouts.linedoubts import doubt_of, says_nothing
from nomarium.reading.layouts.lineforms import with_plain_signs
from nomarium.reading.layouts.linelanguages import lexicon_of_lines
from nomarium.reading.layouts.linelist import as_list
from nomarium.reading.layouts.lineplaces import with_places_told
from nomarium.reading.layouts.linesections import with_sections
from nomarium.reading.layouts.linesfound import Found, lost_figures
from nomarium.reading.layouts.linetimes import time_in, with_leading_clocks, with_whole_halves
from nomarium.reading.layouts.oneevent import with_title_of_poster
from nomarium.reading.layouts.programmes import forward_through_days, heads_of_programmes, is_diary, with_ends
from nomarium.reading.layouts.takinglines import Taking
from nomarium.reading.layouts.textlines import (
    HEADING,
    TextLine,
    is_sentence,
    paragraphs_of,
    text_line,
)
from nomarium.reading.layouts.timesbelow import with_times_below
from nomarium.reading.layouts.timesinlist import at_each_time
from nomarium.reading.layouts.titledlines import Titled, titles_over
from nomarium.reading.layouts.undatedweeks import on_weekdays, weekday_lines
from nomarium.reading.layouts.wrappedlines import unwrapped
from nomarium.sheets.sheet import Row, Sheet, cell_text

_LOOKED_AT: Final = 500
"""Lines at which it is looked whether they are rows of a table."""
_SCHOOL_YEAR: Final = r"\b20\d\d\s*[-–/]\s*(?:20)?\d\d\b|(?i:\ball (?:dates|days|events)\b.*\b20\d\d\b)"
"""What says the year of all days, wherever it stands."""


def look(top: Top) -> Reading | NotRead:
    """Read text line by line, or say why it has no events."""
    sheet = top.sheet
    if sheet.read_lines is None and top.is_one_column:
        sheet = sheet._replace(read_lines=partial(_one_cell_rows, sheet))
    if sheet.read_lines is None:
        message = f"{sheet.title} is no text: --as text is for lines of text."
        return not_read(sheet, "no-lines", "it is no text", "text-none", message, "Leave --as out.")
    lines, too_long = without_long_lines(list(sheet.read_lines()))
    if top.options.layout != "text" and _are_records(lines):
        message = f"The lines of {sheet.title} are rows of a table, parted by commas, and do not read as one by themselves."
        remedy = "Read them as a table: --as events; or line by line all the same: --as text."
        return not_read(sheet, "no-lines", "its lines are rows of a table", "text-table", message, remedy)
    if len(lines) > MOST_LINES:
        message = f"{len(lines):,} lines of text are in {sheet.file}, and {MOST_LINES:,} are read at most."
        remedy = "Save the part that has the events as a file of its own."
        return not_read(sheet, "no-lines", "it is too long", "source-beyond", message, remedy)
    lexicon = lexicon_of_lines(lines, top)
    as_table: Reading | NotRead | None = None
    if top.options.layout is None:
        as_table = table_of_lines(top, lines, lexicon) or drawing_of_lines(top, lines)
        if isinstance(as_table, NotRead) or (as_table is not None and not _is_in_doubt(as_table)):
            return as_table
    weekly = weekday_lines(sheet, lines, lexicon, top.options)
    if isinstance(weekly, NotRead):
        return weekly
    heads = {number for number, _ in sheet.heads}
    dated = lines if weekly is None else weekly.lines
    found = _read(dated, heads, lexicon, "date" in top.options.defaults, sheet.said_above)
    found.refused.extend(too_long)
    if weekly is not None:
        found = on_weekdays(found, weekly, {number: cell_text(row[0]) for number, row in lines if row})
    if as_table is not None and (found.refused or not found.rows):
        return as_table  # its columns are known, and what it lacks can be said of them
    if not found.rows and found.refused:
        number, text, why = found.refused[0]
        problem = why.problem(sheet._replace(unit="line").place(number), text)
        return NotRead(
            sheet, "no-lines", f"no line of it is an event, and line {number} is “{text}”", problem
        )
    if not found.rows:
        message, remedy = (
            f"No line of {sheet.title} has a date or a time.",
            "Check that this is the right file.",
        )
        if any(str(row[0]).lstrip().startswith(">") for _, row in lines if row):
            message = f"{message} Lines that begin with “>” are quotations, and are not read."
            remedy = "If events are in them, take their “>” away, and build again."
        return not_read(sheet, "undated", "no line has a date or a time", "text-none", message, remedy)
    return as_list(top, sheet, found, lexicon, weekly)


def _is_in_doubt(reading: Reading) -> bool:
    """Whether lines may say more than they do as rows of a table: it is not read whole, or some of its rows have no date of
    their own, which lines have from those above them."""
    columns = reading.table.columns if reading.table is not None else ()
    return bool(reading.problems) or any(c.field in ("date", "when") and c.blank for c in columns)


def _one_cell_rows(sheet: Sheet) -> Iterator[Row]:
    for number, row in sheet.rows():
        yield number, [next((cell_text(cell) for cell in row if cell != ""), "")]


def _are_records(lines: Sequence[Row]) -> bool:
    """Whether most lines have the same number of commas, two or more, with no space behind any: a table, and no text."""
    texts = [text for _, row in lines[:_LOOKED_AT] if row and (text := cell_text(row[0]).strip())]
    counts = Counter(text.count(",") for text in texts if not re.search(r",\s", text))
    commas, count = max(counts.items(), key=lambda one: (one[0] > 1, one[1]), default=(0, 0))
    return commas > 1 and count > 1 and count * 3 >= len(texts) * 2


def _read(
    lines: Sequence[Row], heads: Set[int], lexicon: Lexicon, has_date: bool, sent: Sequence[tuple[int, str]]
) -> Found:
    """The rows that lines come to; those of `heads` date tables, and no lines. `sent`: when the message was."""
    texts = [(number, with_plain_signs(cell_text(row[0])) if row else "") for number, row in lines]
    plain = with_headings_marked(list(without_quotes(texts)))
    whole, ticked = [*sent, *plain], ticked_off(plain)
    of_letters = lines_about_letters(plain, lexicon) | mail_heads(plain) | ticked.keys()
    plain = [(number, "" if number in of_letters or number in heads else text) for number, text in plain]
    as_written, beside = dict(plain), with_months_beside(plain, lexicon)
    plain = [(number, beside.get(number, text)) for number, text in plain]
    plain = with_leading_clocks(with_whole_halves(unwrapped(plain, lexicon)))
    weeks = sum(OF_WEEK.match(text.strip()) is not None for _, text in plain)
    paragraphs = _paragraphs(plain, {number: _indent(row) for number, row in lines}, lexicon)
    every = list(chain.from_iterable(paragraphs))
    cards, of_cards = cards_in(every)
    if cards:
        paragraphs = [[line for line in some if line.number not in of_cards] for some in paragraphs]
        paragraphs = [some for some in paragraphs if some]
        every = list(chain.from_iterable(paragraphs))
    heads = heads_of_programmes(every)
    taking = Taking(lexicon, has_date, sent[0][1] if sent else "", weeks == 1, heads, is_diary(every))
    taking.asides += [(n, text) for n, text in ticked.items() if any(map(str.isdigit, text))]
    marked = frozenset(number for number, text in plain if HEADING.match(text))
    _take_all(with_labels_together(paragraphs), marked, taking)
    rows = [*cards.items(), *taking.rows]
    taking.refused = _as_times_of_all(taking.refused, rows)
    taking.refused = [
        (n, as_written[n].strip() if n in beside else text, why) for n, text, why in taking.refused
    ]
    refused = {number for number, _, _ in taking.refused}
    untaken = [(number, text) for number, text in plain if number not in refused]
    rows += _of_bare_days(taking, untaken, rows, lexicon)
    rows = with_title_of_poster(rows, every)
    text_of = dict(whole)
    idle = {n for n, (_, cells) in enumerate(rows) if says_nothing(str(cells[2]), lexicon)} | _places_alone(
        rows
    )
    taking.refused += [(rows[n][0], text_of.get(rows[n][0], ""), linerefusals.NO_TITLE) for n in sorted(idle)]
    rows = sorted((row for n, row in enumerate(rows) if n not in idle), key=lambda row: row[0])
    rows = with_sections(rows, paragraphs, lexicon)
    rows, lost = _with_their_figures(rows, every, {number for number, _, _ in taking.refused})
    taking.refused += lost
    rows, forward = forward_through_days(with_places_told(with_whole_names(rows), every))
    ended = list(with_ends(rows, taking.under))
    has_open_ends = any(before[1] != after[1] for before, after in zip(rows, ended, strict=True))
    taken = {row[0] for row in rows} | {number for number, _, _ in taking.refused}
    first = min((row[0] for row in rows), default=0)
    left = ((number, text) for number, text in whole if text.strip() and number not in taken)
    above = [one for one in left if one[0] < first or one[0] in of_letters or re.search(_SCHOOL_YEAR, one[1])]
    said = {str(cell) for _, cells in rows for cell in cells}
    loose = [one for one in taking.loose if one[0] not in taken and one[1] not in said]
    notes = sum(bool(cell_text(row[0])) and number not in taken for number, row in lines if row)
    return Found(
        ended, notes, _sample(ended), has_open_ends, taking.refused, above, taking.timed, taking.asides, loose, forward,
        sent[0][1] if taking.follows_message else "",
    )  # fmt: skip


def _as_times_of_all(
    refused: Sequence[tuple[int, str, Refusal]], rows: Sequence[Row]
) -> list[tuple[int, str, Refusal]]:
    """What is refused, a time alone above days of which none says one as that of them all: `9.30–12.30, Shed 2` over a course."""
    first = min((number for number, _ in rows), default=0)
    are_open = len(rows) > 1 and not any(cells[1] or time_in(str(cells[0]))[0] for _, cells in rows)
    return [
        (n, text, linerefusals.OF_ALL_TIMES)
        if are_open and n < first and why is linerefusals.UNDATED and re.match(r"\W*\d", text)
        else (n, text, why)
        for n, text, why in refused
    ]


def _of_bare_days(
    taking: Taking, untaken: Sequence[tuple[int, str]], rows: Sequence[Row], lexicon: Lexicon
) -> list[Row]:
    """The rows of lines that say a day and nothing else, with the titles beside them; one without is refused."""
    found: list[Row] = []
    for line, title, place in titled_days(taking.bare_headings, untaken, rows, lexicon):
        if title:
            what = title.strip(" :")
            of_title = EventRow(line.date, line.time, what, place, repeat=line.repeat, without=line.without)
            found.append((line.number, of_title))
        elif line.number not in taking.dating:
            taking.refused.append((line.number, line.text, linerefusals.EMPTY))
    return found


def _places_alone(rows: Sequence[Row]) -> set[int]:
    """The rows whose title is the place of another one, `Sun 4 Oct 15:00 Sail loft` below `Harbour songs … Sail loft`: they say
    where, and not what."""
    places = {fold(str(cells[3])) for _, cells in rows if cells[3]}
    return {
        n
        for n, (_, cells) in enumerate(rows)
        if not cells[3] and is_place(str(cells[2])) and fold(str(cells[2])) in places
    }


def _indent(row: Sequence[Cell]) -> int:
    """The blanks before a line: how far in it begins may say what it goes on with."""
    text = row[0].expandtabs() if row and isinstance(row[0], str) else ""
    return len(text) - len(text.lstrip())


def _paragraphs(
    lines: Sequence[tuple[int, str]], indents: Mapping[int, int], lexicon: Lexicon
) -> list[list[TextLine]]:
    found = [
        [text_line(number, text, lexicon)._replace(indent=indents.get(number, 0)) for number, text in some]
        for some in paragraphs_of(lines)
    ]
    marked = {number for number, text in lines if HEADING.match(text)}
    return apart_at_dates(with_times_below(found, lexicon), marked)


def _with_their_figures(
    rows: Sequence[Row], lines: Sequence[TextLine], refused: Set[int]
) -> tuple[list[Row], list[tuple[int, str, Refusal]]]:
    """The rows that have every figure of their line, and the lines of others: what of a line is in no event would be lost.
    Of prose, and of a line of which a part is refused, nothing is asked."""
    texts = {one.number: one.text for one in lines if not is_sentence(one._replace(is_bullet=False))}
    of_line: dict[int, list[Row]] = {}
    for row in rows:
        of_line.setdefault(row[0], []).append(row)
    lost = {
        number: figures
        for number, made in of_line.items()
        if number not in refused and (figures := lost_figures(texts.get(number, ""), made))
    }
    why = {number: linerefusals.lost(figures) for number, figures in lost.items()}
    return [row for row in rows if row[0] not in lost], [(n, texts[n].strip(), one) for n, one in why.items()]


def _take_all(paragraphs: Sequence[list[TextLine]], marked: frozenset[int], taking: Taking) -> None:
    """Take lines paragraph by paragraph: what one of them says together, else what each line says. `marked` are the lines that
    the text itself marks as headings."""
    lexicon = taking.lexicon
    following_of = {one.number: after for one, after in pairwise(chain.from_iterable(paragraphs))}
    least = least_labels(paragraphs)
    most = most_over(paragraphs, least)
    titled = titles_over(paragraphs, marked, lexicon)
    dates_first = are_dates_first(paragraphs)
    last: list[TextLine] = []
    for n, read in ((n, part) for n, some in enumerate(paragraphs) for part in parts_of(some, least, most)):
        alone = last if len(last) == 1 and may_stand_over(last[0]) else []
        last = read
        if any(line.number in titled for line in read):
            _take_titled(read, titled, taking, following_of)
            continue
        following = following_of.get(read[-1].number)
        heads_times = following is not None and bool(following.time) and not following.date
        over = labelled(read, lexicon, least) or (
            labelled([*alone, *read], lexicon, least) if alone else None
        )
        over = over or (labelled(read, lexicon, 1) if n and is_title_and_day(read) else None)
        over = over or (
            None
            if heads_times
            else under_its_title(event_of_few_lines(read, lexicon, alone, dates_first=dates_first), alone)
        )
        if over is not None:
            taking.take_event(over, next((line for line in read if line.date), None))
            last = []
            continue
        for line in read:
            for one in at_each_time(line, lexicon) or [line]:
                taking.take(one, following_of.get(line.number))
    taking.close()


def _take_titled(
    lines: Sequence[TextLine],
    titled: Mapping[int, Titled],
    taking: Taking,
    following_of: Mapping[int, TextLine],
) -> None:
    """Take the lines of a paragraph of which some have their title over them."""
    used = {
        lines[n + 1].number
        for n, line in enumerate(lines[:-1])
        if (at := titled.get(line.number)) and at.uses_next
    }
    for line in lines:
        over = titled.get(line.number)
        if over is not None and (doubt := doubt_of(line, taking.lexicon)) is not None:
            taking.refuse(line, doubt)
        elif over is not None:
            taking.rows.append(
                (
                    line.number,
                    EventRow(
                        line.date, line.time, over.title, over.place, repeat=line.repeat, without=line.without
                    ),
                )
            )
        elif line.number not in used:
            taking.take(line, following_of.get(line.number))


def _sample(rows: Sequence[Row]) -> str:
    """How the first line is read, in words."""
    if not rows:
        return ""
    date, time, title, place, *_ = [str(cell) for cell in rows[0][1]]
    parts = [("date", date), ("time", time), ("title", title), ("place", place)]
    return "has the " + ", the ".join(f"{name} “{text}”" for name, text in parts if text)
