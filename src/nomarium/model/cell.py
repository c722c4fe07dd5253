"""What stands in a cell."""

import datetime as dt

Cell = str | float | bool | dt.date | dt.datetime | dt.time | dt.timedelta
"""A cell's value; a blank cell is the empty text. Sources without types hold texts only."""
