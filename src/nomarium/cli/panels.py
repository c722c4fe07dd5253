"""The panels in which help shows options, each named by the question that it answers."""

from typing import Final

FIRST: Final = "What most people need"
LOOK: Final = "How it is drawn"
WINDOW: Final = "Which dates, which events, and what they say"
DATES: Final = "When a date or a time is doubtful"
COLUMNS: Final = "When a column or a sheet is not found, or means something else"
SCHOOL: Final = "When it is a school's own timetable, or a roster"
REPEATS: Final = "When something repeats"
FAULTY: Final = "When rows cannot be read"
WRITING: Final = "What the files are called, and what they hold"
SERVER: Final = "When it goes to a calendar server"
AGAIN: Final = "When it is built again"
REPORT: Final = "What is said about it"

PANELS: Final = (FIRST, LOOK, WINDOW, DATES, COLUMNS, SCHOOL, REPEATS, FAULTY, WRITING, SERVER, AGAIN, REPORT)
"""In the order in which help shows them."""

TEN: Final = ("--output", "--timezone", "--sheet", "--column", "--set", "--title", "--only", "--date-order", "--split-by",
              "--dry-run")  # fmt: skip
"""The options of the first panel, in the order in which a person meets the need for them."""
