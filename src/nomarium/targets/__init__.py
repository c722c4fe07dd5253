"""Events to files: calendars, splits, tables, workbooks, rejected rows; each replaced whole."""
