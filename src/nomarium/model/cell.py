"""What stands in a cell."""

import datetime as dt

Cell = str | float | bool | dt.date | dt.datetime | dt.time | dt.timedelta
"""A cell's value; a blank cell is the empty text. Sources without types hold texts only."""

FAULT_TEXTS = frozenset(
    "#n/a #ref! #value! #name? #div/0! #null! #num! #spill! #calc! #error! err:502 err:504 err:508 err:509 err:511".split()
)
"""Error values of spreadsheets, as they show them, folded."""
