"""Dates, rules and zones worked out; knows no file form."""
