"""Calendars and counts as pictures."""
