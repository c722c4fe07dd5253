"""Calendars as lines of text."""
