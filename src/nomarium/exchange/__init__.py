"""Calendars and tables over the network."""
