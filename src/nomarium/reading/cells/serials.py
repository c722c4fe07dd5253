"""Dates as spreadsheets count them."""

import datetime as dt


def from_serial(value: float, counts_1904: bool = False) -> dt.datetime | None:
    """The date-time of a spreadsheet's serial number, to the second, or None outside 1950 to 2149.

    >>> from_serial(46489.375)
    datetime.datetime(2027, 4, 12, 9, 0)
    """
    days = value + 1462 if counts_1904 else value
    if not 18_264 <= days < 91_312:
        return None
    return dt.datetime(1899, 12, 30) + dt.timedelta(seconds=round(days * 86_400))
