"""What each line of a text comes to, under the month and the date that stand over it: rows of a list, a refusal, or a note."""

import re
from collections.abc import Set
from typing import Final, Literal

from nomarium.model.refusal import Refusal
from nomarium.reading.cells.placewords import is_place
from nomarium.reading.cells.words import Lexicon
from nomarium.reading.layouts import linerefusals
from nomarium.reading.layouts.aboutlines import says_about
from nomarium.reading.layouts.asides import (
    IDLE,
    heading_of,
    heads_list,
    heads_slots,
    is_aside,
    may_title,
    says_its_paper,
    says_nothing_on,
)
from nomarium.reading.layouts.barelines import edge_of, heads_programme, labels_day
from nomarium.reading.layouts.eventrow import EventRow
from nomarium.reading.layouts.leftopen import FROM_NOW, OF_ALL, TO_FOLLOW, left_open, why_asked
from nomarium.reading.layouts.linedoubts import doubt_of, of_those_below
from nomarium.reading.layouts.lineplaces import heads_place, may_be_place_below, says_when_and_where
from nomarium.reading.layouts.linerows import at_same_time, row_of, says_half_of_day
from nomarium.reading.layouts.linetimes import time_in
from nomarium.reading.layouts.listeddates import listed_dates
from nomarium.reading.layouts.mentions import mentions_day, without_mention
from nomarium.reading.layouts.monthlines import (
    SENT,
    after_message,
    goes_into_next,
    in_month,
    month_alone,
    month_in,
    month_of,
    runs_on,
)
from nomarium.reading.layouts.openends import is_open
from nomarium.reading.layouts.programmes import is_after_midnight
from nomarium.reading.layouts.sentences import said_by_sentences, sentence_of_list
from nomarium.reading.layouts.textlines import (
    TextLine,
    is_sentence,
)
from nomarium.reading.layouts.weekdaylines import begins_with_weekday, is_of_week, names_week, on_weekday
from nomarium.reading.rows.opendays import has_several_days
from nomarium.sheets.sheet import Row

_DAY_AND_SIGN: Final = re.compile(
    r"(?i)\s*(?:(?:from|du|vom|von|dal|del)\s+)?\d{1,2}(?:st|nd|rd|th|er|\.)?(?:\s*(?:[–-]|\b(?:to|au|bis|al)\b)\s*\d{1,2}(?:st|nd|rd|th|\.)?)?\s*[:–—-]\s*[^\W\d]"
)


class Taking:
    """Takes line after line, under the month and the date that stand over it."""

    def __init__(
        self,
        lexicon: Lexicon,
        has_date: bool,
        sent: str,
        is_one_week: bool,
        heads: Set[int] = frozenset(),
        is_diary: bool = False,
    ) -> None:
        """`sent`: when the message was, `11 September 2026`; a weekday and a day are on or after it, until a title names a month.
        `heads`: the lines that date a programme below them. `is_diary`: days stand over lists of what is on in them. `is_one_week`: one line alone names a week by its number; it is an entry, and heads nothing."""
        self.lexicon, self._has_date, self._heads, self._is_diary = lexicon, has_date, heads, is_diary
        self._month = self._date = ""
        self._over, self._over_at, self._is_of_week = "", 0, False
        """The date above, in whose week lines may name a weekday; and whether it names a week."""
        self._said_by: TextLine | None = None
        """The line of an event that says this date, where no heading does."""
        self._sent = sent
        self._titled = SENT if sent else ""
        self.follows_message = False
        """Whether days without a month are those after the message was sent."""
        self._week: Row | None = None
        """What was made of a line that names a week: nothing, where weekdays stand below it."""
        self._has_titled_days = False
        """Whether days with their weekdays were found in the month that a title names: then others are days of it, too."""
        """The month that a title over the lines names."""
        self._text_at = self._titled_at = 0
        self._last_text: TextLine | None = None
        """The number of the last line that is no event, and of the last title that a time alone had."""
        self._title_reaches = -1
        """The last of the lines, right below each other, that stand under a title of theirs."""
        self._place, self._seen, self._opens = "", 0, True
        """The place that heads lines with times; the number of the line before, and whether this one opens a paragraph."""
        self._waiting: TextLine | None = None
        """A time alone, whose title may be on the line below."""
        self._is_one_week = is_one_week
        self.rows: list[Row] = []
        self.under: set[int] = set()
        """Lines with a time whose date is that of a line above them."""
        self.refused: list[tuple[int, str, Refusal]] = []
        self.dating: set[int] = set()
        """Lines in whose week or days others name a weekday."""
        self.headings: dict[int, TextLine] = {}
        """Lines that date those below them."""
        self.timed: list[tuple[int, str]] = []
        self.loose: list[tuple[int, str]] = []
        """Lines without a time under a date that dates those below it."""
        self.asides: list[tuple[int, str]] = []
        """Lines that have a date or a time, and are taken for no event."""

    def take(self, line: TextLine, following: TextLine | None) -> None:
        """What a line comes to: a row, some rows, a refusal, what it says of those below it, or a note."""
        lexicon = self.lexicon
        self._opens, self._seen = line.number - 1 != self._seen, line.number
        if self._opens:
            self._place = ""
        if (self._waiting is not None and self._gives_title(line)) or self._gives_place(line):
            return
        if (labelled := labels_day(line, following, lexicon)) is not None:
            self._stand_over(labelled)
            return
        if (named := month_alone(line.text, lexicon)) is not None:
            self._month, self._date, self._over, self._said_by = named, "", "", None
            return
        dated = self._dated_from_above(line) if not line.date or goes_into_next(line, lexicon) else None
        if dated == "taken":
            return
        line, is_day = (dated, True) if dated is not None else (without_mention(line, self._date), False)
        line = at_same_time(line, self.rows[-1] if self.rows else None)
        if following is not None and self._month and in_month(following, self._month, lexicon) is not None:
            following = None  # it has a date of its own
        if not is_day and is_sentence(line):
            self._take_sentences(line)
        elif line.is_bullet and line.date and (entry := sentence_of_list(line, lexicon)) is not None:
            self.rows += [entry] if entry != "past" else []
            self.asides += [(line.number, line.text)] if entry == "past" else []
        elif (not self.rows and says_its_paper(line)) or is_aside(
            line, following if self._is_under_date else None
        ):
            if names_week(line.date) or heads_slots(line, following):
                self._stand_over(line)  # Bulletin, week of 7 December; Agenda, 3 May over 10:00 Welcome
            self.asides.append((line.number, line.text))
        elif self._date and self._is_below_slot(line) and mentions_day(line, self._date):
            self.refuse(line, linerefusals.OTHER_DAY)
        elif not self.rows and heads_list(line, following):
            self.refuse(line, linerefusals.OF_LIST)
        elif line.date and not is_day and (listed := listed_dates(line.text, lexicon)) is not None:
            self.rows.append(
                row_of(line._replace(rest=listed.title, time=listed.time), listed.dates, lexicon)
            )
        elif line.date and (edge := edge_of(line, self._last_text)) is not None:
            self.rows.append(edge)
        elif (doubt := self._doubt_of(line, following)) is not None:
            self.refuse(line, doubt)
        elif not line.time and (is_day or line.date) and says_nothing_on(line):
            self.asides.append((line.number, line.text))  # Wed Plank --; Wed 10 March: nothing
        elif line.date and (heads_programme(line, following) or line.number in self._heads):
            self._stand_over(line)
        elif line.date and not any(map(str.isalpha, line.rest)) and "?" not in line.rest:
            self.headings[line.number] = line  # when, and nothing else
        elif line.date:
            self._take_dated(line)
        elif line.time and any(map(str.isalnum, line.rest)):
            self._take_timed(line)
        elif line.time:
            self._take_time(line)
        else:
            self._take_undated(line, following)

    def take_event(self, row: Row, dated: TextLine | None) -> None:
        """An event that several lines say, one of them with several days of which others below may name one."""
        self.rows.append(row)
        if dated is not None and has_several_days(dated.date):
            self._over, self._over_at, self._is_of_week = dated.date, dated.number, False

    @property
    def bare_headings(self) -> dict[int, TextLine]:
        """The lines that date those below them and are no notes themselves."""
        told = {number for number, _ in self.asides}
        return {n: line for n, line in self.headings.items() if n not in told}

    def _take_undated(self, line: TextLine, following: TextLine | None) -> None:
        """What a line without a date and a time comes to."""
        lexicon = self.lexicon
        if self._is_under_date and IDLE.fullmatch(line.text):
            self.asides.append((line.number, line.text))
            self.dating |= {max(self.headings, default=0)}
        elif line.is_bullet and self._is_under_date and self._is_diary:
            self.rows.append(row_of(line, self._date, lexicon))
            self.under.add(line.number)
        elif self._date and says_half_of_day(line):
            self.rows.append(row_of(line, self._date, lexicon))
        elif (doubt := self._left_open(line, following)) is not None:
            self.refuse(line, doubt)
        elif FROM_NOW.search(line.text):
            if re.search(r":\s+\w", line.text) and not is_sentence(line):
                self.refuse(line, linerefusals.FROM_NOW)  # Reminder: photos tomorrow
            else:
                self.asides.append((line.number, line.text))
        elif self.rows and TO_FOLLOW.search(line.text) and not (self._is_under_date or is_sentence(line)):
            self.refuse(line, linerefusals.UNREAD)  # Appointment 4: to be arranged
        elif self._date and self._opens and heads_place(line, following):
            self._place = line.text.strip(" :")
        elif says_about(line.text):
            if self._text_at == line.number - 1:
                self._text_at = line.number  # what stands above it goes on as the title of what stands below
        else:
            if self._is_under_date:
                self.loose.append((line.number, line.text))
            self._titled = month_in(line.text, lexicon) or self._titled
            self._text_at, self._last_text = line.number, line

    @property
    def _is_under_date(self) -> bool:
        """Whether a date stands over the lines here, and not just one of an event."""
        return bool(self._date) and self._said_by is None

    def _is_below_slot(self, line: TextLine) -> bool:
        """Whether a line stands right below one of a programme, whose date is that of a line above it."""
        return bool(self.rows) and self.rows[-1][0] == line.number - 1 and line.number - 1 in self.under

    def _stand_over(self, line: TextLine) -> None:
        """A line that dates those below it; several days leave open of which of them a time is."""
        self._date = "" if has_several_days(line.date) else line.date
        self.headings[line.number], self._said_by = line, None
        self._over, self._over_at, self._is_of_week = line.date, line.number, names_week(line.date)
        if self._titled == SENT:
            self._titled = month_of(line.date, self.lexicon) or SENT

    def _take_dated(self, line: TextLine) -> None:
        """A line that says an event with its date, and may date those below it, too."""
        if is_open(line, self.lexicon) and not (
            line.time or line.has_time
        ):  # its title says from when, and it dates no line below it
            self.rows.append((line.number, EventRow(line.date, "", line.text.strip(" ."))))
            self._date = ""
            return
        self.rows.append(self._under_its_title(line, row_of(line, line.date, self.lexicon)))
        day = time_in(line.date)[1] if line.has_time else line.date
        self._date = "" if line.repeat or has_several_days(day) else day
        self._said_by = line
        is_within = self._is_of_week and begins_with_weekday(line.text, self.lexicon)  # Tue & Thu
        if (not self._date and not is_within) or names_week(line.date):
            self._over, self._over_at, self._is_of_week = line.date, line.number, is_of_week(line)
            self._week = self.rows[-1] if self._is_of_week and not line.time else None

    def _under_its_title(self, line: TextLine, row: Row) -> Row:
        """A row whose title is the name of a place, `2 December, 4pm, Loft 2`, with the line right above it as its title; so are those
        right below it."""
        number, cells = row
        above = self._last_text
        if line.number - 1 not in (self._text_at, self._title_reaches) or above is None:
            return row
        if self._title_reaches == line.number - 1:
            self._title_reaches = line.number  # the lines right below it, whatever they say themselves
        if not says_when_and_where(line, row) or above.is_bullet or not may_title(above):
            return row
        self._title_reaches = line.number
        return number, EventRow(*map(str, cells))._replace(title=above.text.strip(" :"), place=str(cells[2]))

    def _doubt_of(self, line: TextLine, following: TextLine | None) -> Refusal | None:
        own = doubt_of(line, self.lexicon) if line.date or line.time else None
        return own or of_those_below(line, following, self._opens)

    def _left_open(self, line: TextLine, following: TextLine | None) -> Refusal | None:
        """Why a line that has no date and no time may all the same be an event; None for a note."""
        follows_time = bool(self.rows) and line.number - 1 == self.rows[-1][0] in self.under
        heads = not self._is_one_week and following is not None and bool(following.date or following.time)
        return left_open(line, self.lexicon, follows_time, heads, self._opens)

    def _dated_from_above(self, line: TextLine) -> TextLine | Literal["taken"] | None:
        """A line with the day that its number has in the month above it, or its weekday in the week above it."""
        is_in_week = not line.date and bool(self._over) and begins_with_weekday(line.text, self.lexicon)
        on = on_weekday(line, self._over, self.lexicon, self._is_of_week) if is_in_week else None
        if on is None or not (
            self._is_of_week and on.is_numbered
        ):  # Mon 30, Tue 1 under a week of two months
            day = self._in_month_above(line)
            if day is not None:
                return day
        if not is_in_week:
            return None
        self.dating |= {self._over_at} if on is not None else set()
        if on is not None and self._week is not None and self._week in self.rows:
            self.rows.remove(self._week)  # Notices for the week beginning 6 September, over its days
        if on is not None and on.is_clear and not on.rest:
            self._date, self.headings[line.number], self._said_by = on.date, line._replace(date=on.date), None
            return "taken"
        if on is not None and (on.is_clear or self._is_of_week):
            time, rest = time_in(on.rest)
            return line._replace(date=on.date, time=time, rest=rest)
        if line.time:
            self.refuse(line, linerefusals.WEEKDAY)
            return "taken"
        return None

    def _in_month_above(self, line: TextLine) -> TextLine | None:
        """A line that begins with a day of the month above it, of a title's month, or of the month of the line above."""
        goes_on = self._has_titled_days and _DAY_AND_SIGN.match(line.text) is not None
        later = runs_on(line, self._said_by, self.lexicon) if self._said_by is not None else None
        for month, needs_weekday in ((self._month, False), (self._titled, not goes_on)):
            if not month or (month == SENT and later is not None):
                continue  # the line right above is nearer than the date of the message
            if (day := in_month(line, month, self.lexicon, needs_weekday)) is not None:
                self._has_titled_days = self._has_titled_days or not self._month
                if month == SENT:
                    self.follows_message = True
                    return day._replace(date=after_message(day.date, self._sent))
                return day
        return later

    def _take_timed(self, line: TextLine) -> None:
        if not self._goes_on(line):
            self.refuse(line, linerefusals.OF_ALL_TIMES if OF_ALL.search(line.text) else linerefusals.BELOW)
        elif not self._date and not self._has_date:
            self.refuse(line, linerefusals.OF_ALL_TIMES if OF_ALL.search(line.text) else linerefusals.UNDATED)
        elif is_after_midnight(line, self.rows[-1] if self.rows else None, self._date):
            self.refuse(line, linerefusals.NIGHT)
        else:
            self.under.add(line.number)
            number, row = row_of(line, self._date, self.lexicon)
            event = EventRow(*map(str, row))
            if not event.place and (over := self._over_heading(event.title)) is not None:
                event = event._replace(title=over, place=event.title)
            self.rows.append((number, event if event.place else event._replace(place=self._place)))

    def _take_time(self, line: TextLine) -> None:
        """A time by itself is that of the event on the line above; under a date it waits for the line below."""
        above = self._said_by
        number, row = self.rows[-1] if self.rows else (0, ("",) * 2)
        if above is None and self._date and self._text_at != line.number - 1:
            self._waiting = line
        elif above is None or not number == above.number == line.number - 1 or row[1] or above.has_time:
            self.refuse(line, linerefusals.TIME_ALONE)
        else:
            self.rows[-1] = number, EventRow(*map(str, row))._replace(time=line.time)

    def _gives_title(self, line: TextLine) -> bool:
        """Whether a line is the title of the time alone above it."""
        waiting, self._waiting = self._waiting, None
        if waiting is None:
            return False
        if line.date or line.time or not any(map(str.isalpha, line.text)) or is_sentence(line):
            self.refuse(waiting, linerefusals.TIME_ALONE)
            return False
        self.under.add(line.number)
        over = self._over_heading(line.text)
        if over is not None:  # a poster: what, on which day, at what time, where
            self.rows.append((line.number, EventRow(self._date, waiting.time, over, line.text)))
            return True
        self.rows.append(row_of(line._replace(time=waiting.time), self._date, self.lexicon))
        self._titled_at = line.number
        return True

    def _over_heading(self, below: str) -> str | None:
        """The title right above the line with the date, where what stands first below it, and with its time, is a place."""
        above, at = self._last_text, max(self.headings, default=0)
        is_first = not self.rows or self.rows[-1][0] < at
        if above is None or above.number != at - 1 or not is_first or not is_place(below):
            return None
        return above.text.strip(" :") if may_title(above) else None

    def _gives_place(self, line: TextLine) -> bool:
        """Whether a line is the place of the event right above it, which has none."""
        is_below = bool(self.rows) and line.number - 1 in (self._titled_at, self.rows[-1][0])
        if not is_below or not may_be_place_below(line):
            return False
        number, row = self.rows[-1]
        if row[3]:
            return False
        self.rows[-1] = number, EventRow(*map(str, row))._replace(place=line.text)
        return True

    def close(self) -> None:
        """Refuse a time that no line below has taken."""
        if self._waiting is not None:
            self.refuse(self._waiting, linerefusals.TIME_ALONE)

    def _goes_on(self, line: TextLine) -> bool:
        """Whether a line under one that is an event goes on with its day: it begins with its time, or stands further in."""
        above = self._said_by
        return above is None or line.indent > above.indent or line.text.startswith(line.time)

    def _take_sentences(self, line: TextLine) -> None:
        said = said_by_sentences(line, self.lexicon, heading_of(self._last_text))
        self.rows += said.rows
        self.timed += [(line.number, text) for text in said.timed if said.rows]
        self.refused += [(line.number, text, linerefusals.PROSE) for text in said.doubtful]
        is_told = bool(said.rows or said.doubtful)
        self.asides += [(line.number, text) for text in said.past if is_told]
        if not is_told and line.time and (why := why_asked(line.text)) is not None:
            self.refuse(line, why)
        elif not is_told and line.time:
            self.timed.append((line.number, line.text))
        elif not is_told and line.date:
            self.asides.append((line.number, line.text))

    def refuse(self, line: TextLine, why: Refusal) -> None:
        self.refused.append((line.number, line.text, why))
