"""Limits: how much of anything is read or made, so that no file can take the machine with it. Each refusal names its limit;
docs/limits.md lists them."""

from typing import Final

MOST_DATES: Final = 50_000
"""Dates of one event that repeats: an event every hour for five years has 43,824."""
LONGEST_CELL: Final = 200
"""Characters of a cell that is read as a date, a time or a length."""
LONGEST_ZONE: Final = 64
"""Characters of the name of a time zone: the longest of the database has 32."""
LONGEST_PHRASE: Final = 400
"""Characters of a cell that is read as a repeat in words."""
LONGEST_LOOK: Final = 1_000
"""Characters of a cell by which it is found out what a table and its columns are."""
LONGEST_LIST: Final = 4_000
"""Characters of a cell that is read as a list of days."""
LONGEST_LENGTH_SECS: Final = 36_525 * 86_400
"""How long an event, or the time before it at which a reminder comes, may be: a hundred years."""
MOST_CELLS: Final = 28_000_000
"""Rows times columns of one sheet of a workbook: its reader holds them all."""
MOST_BLANK_ROWS: Final = 1_000
"""Blank rows one after another that are counted; more of a run are passed over."""
MOST_COLUMNS: Final = 1_000
"""Columns of a sheet that hold something."""
MOST_UNPACKED_OCTETS: Final = 1 << 29
"""Octets that the parts of a workbook may unpack to, all together."""
MOST_RATIO: Final = 200
"""How many times its packed size a part of a workbook may unpack to, where it is larger than `SMALL_PART_OCTETS`."""
SMALL_PART_OCTETS: Final = 1 << 24
MOST_READER_OCTETS: Final = 1 << 30
"""Memory that the reading of a workbook of the old kinds may take beyond what is there before."""
LONGEST_LINE: Final = 8_000
"""Characters of a line of text that is read: a page and a half. Of one with a hundred signs without a space, `LONGEST_LOOK`."""
MOST_LINES: Final = 50_000
"""Lines of a text that is read line by line: more than a thousand pages."""
MOST_MAIL_PARTS: Final = 200
"""Parts of a mail that hold other parts."""
MOST_PAGES: Final = 500
"""Pages of a PDF."""
LONGEST_READER_SECS: Final = 30
"""How long the reading of a PDF may take."""
MOST_FETCHED_OCTETS: Final = 50 << 20
"""Octets of an answer from an address, unpacked."""
LONGEST_FETCH_SECS: Final = 60.0
"""How long an answer may take in all, however steadily it drips."""
MOST_TABLE_ROWS: Final = 10_000
"""Rows of a plan's tables that are about the year: Terms, Cycle, Bells and the like."""
MOST_AT_ONCE: Final = 20
"""Other classes in one place, or with one teacher, at one time with which a class is told to clash."""
