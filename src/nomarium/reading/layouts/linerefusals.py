"""Why a line of text that says when is no event."""

from typing import Final

from nomarium.model.refusal import Refusal

NUMBERED: Final = Refusal(
    "text-week", "The line names a week by its number, and nothing says from when the weeks are counted.",
    "Write the dates of that week: “26–30 October: Half term”.",
)  # fmt: skip
HOUR: Final = Refusal(
    "text-hour", "The line begins with a number, right below one with a time: it may be an hour, or count something.",
    "Write an hour like 11:00, or 11am.",
)  # fmt: skip
PROSE: Final = Refusal(
    "text-prose",
    "It is a sentence with a date or a time: what of it is the title, and what the place, cannot be told.",
    "Write it as one line of a list: “Fri 16 April 2027: Open day, 10–11am, Sail loft”, or take it out.",
)
UNDATED: Final = Refusal(
    "text-undated", "The line has a time, and neither it nor a line above it has a date.",
    "Write the date on a line above it; for one day, say it for all: --set date=2027-04-12.",
)  # fmt: skip
BELOW: Final = Refusal(
    "text-undated", "The line has a time and no date, and stands below an event with a date of its own: it may be of that day, or of another.",
    "Write its date on the line.",
)  # fmt: skip
TIME_ALONE: Final = Refusal(
    "text-empty", "The line says a time, and not of what.", "Write the time on the line of its event."
)
OTHER_DAY: Final = Refusal(
    "text-several", "The line is one of a programme, and names another day: it may be held then, or speak of it.",
    "Take the day out of the line, or write it first.",
)  # fmt: skip
OF_LIST: Final = Refusal(
    "text-several", "The line stands over a list, and names a date: it may be the title of the list, or an event.",
    "Take the date out of it, or write it as a line of the list.",
)  # fmt: skip
NIGHT: Final = Refusal(
    "text-night", "It is earlier than the line above it: it may be on the next day.",
    "Write its date on a line above it, or its time as it is meant.",
)  # fmt: skip
WEEKDAY: Final = Refusal(
    "text-weekday", "The line begins with a weekday, and the date above it does not tell for sure which day that is.",
    "Write its date on the line.",
)  # fmt: skip
OF_ALL_TIMES: Final = Refusal(
    "text-of-all", "It says a time for events of other lines.",
    "Give it to those that say none, --set start=19:30, say, and take the line out.",
)  # fmt: skip
NO_WEEK: Final = Refusal(
    "text-weekday", "The line begins with a weekday, and no line above it says of which week.",
    "Write its date on the line.",
)  # fmt: skip
UNREAD: Final = Refusal(
    "text-unread",
    "It seems to hold a date or a time, and none can be read in it.",
    "Correct it, or take the line out.",
)
FROM_NOW: Final = Refusal(
    "text-undated", "The line says its day only as counted from when it was written.", "Write its date on the line.",
)  # fmt: skip
OF_MONTH: Final = Refusal(
    "text-weekday", "The line names a weekday by its number in a month, and not its date.", "Write its date on the line.",
)  # fmt: skip
REPEATED: Final = Refusal(
    "text-repeats", "The line says that it is held again and again, which a line of text cannot say here.",
    "Put it into a table with a column Repeat (“every Tuesday until 15 December”), or write each date.",
)  # fmt: skip
FROM_ANOTHER: Final = Refusal(
    "text-undated", "The line says its day or its time only as counted from those of another.", "Write its date and its time on the line.",
)  # fmt: skip
NO_TITLE: Final = Refusal(
    "text-empty",
    "The line says when, and nothing of it says what.",
    "Write the title on the line: “Mon 7 June 2027: Inset day”.",
)
EMPTY: Final = Refusal(
    "text-empty", "The date stands alone, and no line under it has a time: what is on that day cannot be told.",
    "Write the date and the title on one line: “Mon 7 June 2027: Inset day”.",
)  # fmt: skip


def lost(figures: str) -> Refusal:
    """`figures` of a line are in no event."""
    message = f"What “{figures}” means beside its event cannot be told."
    return Refusal(
        "text-unread",
        message,
        "Write the line as “Fri 16 April 2027: Open day, 10–11am, Sail loft”, or take the figure out.",
    )
