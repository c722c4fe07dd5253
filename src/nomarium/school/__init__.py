"""The school year: terms, cycle, bells and timetable become dated meetings."""
