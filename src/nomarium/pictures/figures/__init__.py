"""Calendars as pictures: laid out here in plain shapes, put on paper by Matplotlib."""
