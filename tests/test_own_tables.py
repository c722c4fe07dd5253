"""A school's own tables: exports, drawn weeks, labels without a cycle, read as they stand."""

import csv
import datetime as dt
from pathlib import Path
from typing import Any

import pytest

from helpers import built, csv_file, nomarium, refused, workbook

Rows = list[list[object]]
TERM: Rows = [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-09-11"]]
BELLS: Rows = [["Period", "Start", "End"], [1, "8:30", "9:30"], [2, "9:40", "10:40"], [3, "1:00", "2:00"]]


def at(day: int, start: str, end: str) -> str:
    return f"2026-09-{day:02}T{start}/2026-09-{day:02}T{end}"


FIRST, SECOND, THIRD = ("08:30", "09:30"), ("09:40", "10:40"), ("13:00", "14:00")


def plan_book(folder: Path, sheets: dict[str, Rows], merged: tuple[str, ...] = ()) -> Path:
    """A workbook of these sheets; the merged areas are those of the first."""
    first, *rest = sheets
    source = workbook(folder, sheets[first], merged, "school.xlsx", {name: sheets[name] for name in rest})
    import openpyxl

    book = openpyxl.load_workbook(source)
    book["Events"].title = first
    book.save(source)
    return source


DATED = [["Date", "Day", "Letter"]] + [
    [f"2026-09-{7 + n:02}", "", "ABC"[n % 3]] for n in (0, 1, 2, 3, 4, 7, 8, 9)
]
READ: dict[str, tuple[dict[str, Rows], list[str], list[str]]] = {
    "rooms under each weekday, one below the other": (
        {"Rooms": [["Monday", "P1", "P2"], ["L1", "Joinery", "Sails"], ["L2", "Rigging", ""], ["Tuesday", "P1", "P2"], ["L1", "", "Joinery"], ["L2", "Sails", ""]],
         "Bells": [["Period", "Start", "End"], ["P1", "8:30", "9:30"], ["P2", "9:40", "10:40"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(7, *FIRST)} @ L2", f"Sails {at(7, *SECOND)} @ L1", f"Sails {at(8, *FIRST)} @ L2", f"Joinery {at(8, *SECOND)} @ L1"], [],
    ),
    "rooms under each weekday that stands alone over its times": (
        {"Rooms": [["Monday"], ["Room", "8:30-9:30", "9:40-10:40"], ["L1", "Joinery", "Sails"], [""], ["Tuesday"], ["Room", "8:30-9:30", "9:40-10:40"], ["L1", "", "Joinery"], ["Wednesday"]],
         "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Sails {at(7, *SECOND)} @ L1", f"Joinery {at(8, *SECOND)} @ L1"], [],
    ),
    "labels with their word, of which few come back": (
        {"Timetable": [["Period", "Time", "Day 1", "Day 2"], [1, "8:30-9:30", "Joinery", "Sails"]],
         "Calendar": [["Date", "Day"], ["2026-09-07", "Day 1"], ["2026-09-09", "Day 2"], ["2026-09-10", "Day 1"]]},
        [f"Joinery {at(7, *FIRST)}", f"Sails {at(9, *FIRST)}", f"Joinery {at(10, *FIRST)}"], ["Calendar is taken for Cycle"],
    ),
    "dates on a sheet that is called by the first letters of a bell schedule": (
        {"Bells": [["Period", "Regular", "Minimum day"], [1, "8:30-9:30", "8:30-9:00"]], "Min days": [["Date"], ["2026-09-08"]],
         "Classes": [["Class", "Period", "Days"], ["Joinery", 1, "Mon, Tue"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Joinery {at(8, '08:30', '09:00')}"], ["dates under the name of a bell schedule"],
    ),
    "bells of two divisions beside one another, each with its periods": (
        {"Bells": [["Apprentices", "", "", "", "Journeymen"], ["Period", "Start", "End", "", "Period", "Start", "End"], ["1", "8:30", "9:30", "", "1", "8:45", "9:35"]],
         "Timetable": [["Class", "Division", "Label", "Period"], ["Joinery", "Apprentices", "Mon", "1"], ["Rigging", "Journeymen", "Mon", "1"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Rigging {at(7, '08:45', '09:35')}"], [],
    ),
    "periods with weekdays in brackets under an unknown heading; a section left of its course": (
        {"Schedule": [["Section", "Course", "Pattern of the week", "Room"], ["101", "Joinery", "1(M,W) 2(F)", "L1"], ["102", "Rigging", "2(T,Th)", "R1"]], "Bells": BELLS, "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(8, *SECOND)} @ R1", f"Joinery {at(9, *FIRST)} @ L1", f"Rigging {at(10, *SECOND)} @ R1", f"Joinery {at(11, *SECOND)} @ L1"], [],
    ),
    "rooms under each weekday": (
        {"Classes": [["Class", "Time", "Mon", "Tue", "Wed"], ["Joinery", "8:30-9:30", "L1", "", "Sail loft"], ["Rigging", "9:40-10:40", "", "R2", ""]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(8, *SECOND)} @ R2", f"Joinery {at(9, *FIRST)} @ Sail loft"], [],
    ),
    "a column a week": (
        {"TT": [["Day", "Period", "Week A", "Week B"], ["Mon", 1, "Joinery (L1)", "Rigging"], ["Tue", 2, "", "Joinery (L1)"]], "Bells": BELLS,
         "Weeks": [["Week beginning", "Week"], ["2026-09-07", "A"], ["2026-09-14", "B"]]},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(14, *FIRST)}", f"Joinery {at(15, *SECOND)} @ L1"], ["a room, a group or a week"],
    ),
    "from one period to another": (
        {"Timetable": [["Class", "Day", "From period", "To period"], ["Joinery", "Mon", 1, 2], ["Rigging", "Tue", 3, 3]], "Bells": BELLS, "Terms": TERM},
        [f"Joinery {at(7, '08:30', '10:40')}", f"Rigging {at(8, *THIRD)}"], [],
    ),
    "duties across, weekdays down": (
        {"Supervision": [["", "Gate (8:20-8:40)", "Break (10:40-11:00)"], ["Mon", "Quill", "Bell"], ["Tue", "", "Quill"]], "Terms": TERM},
        [f"Gate: Quill {at(7, '08:20', '08:40')}", f"Break: Bell {at(7, '10:40', '11:00')}", f"Break: Quill {at(8, '10:40', '11:00')}"], ["duties with a column a weekday"],
    ),
    "days by their number, where a calendar calls them D1": (
        {"September 2026": [["Mon", "Tue", "Wed", "Thu", "Fri"], ["7 D1", "8 D2", "9 D3", "10 D1", "11 D2"], ["14 D3", "15 D1", "16 D2", "17 D3", "18 D1"]], "Timetable": [["Class", "Day", "Period"], ["Joinery", 1, 1]], "Bells": BELLS},
        [f"Joinery {at(day, *FIRST)}" for day in (7, 10, 15, 18)], [],
    ),
    "sheets called after weeks by a short word": (
        {"Wk A": [["", "Mon", "Tue"], [1, "Joinery", ""]], "Wk B": [["", "Mon", "Tue"], [1, "", "Rigging"]], "Bells": BELLS,
         "Cal": [["Week", "Starting"], ["A", "2026-09-07"], ["B", "2026-09-14"]], "Terms": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-09-18"]]},
        [f"Joinery {at(7, *FIRST)}", f"Rigging {at(15, *FIRST)}"], [],
    ),
    "the days of a rotation under its name": (
        {"Rotation": [["Date", "Day", "Cycle day"], ["2026-09-07", "Mon", 1], ["2026-09-08", "Tue", 2], ["2026-09-09", "Wed", 1]], "Sections": [["Course", "Days", "Per"], ["Joinery", "1", 1], ["Rigging", "2", 2]], "Bells": BELLS},
        [f"Joinery {at(7, *FIRST)}", f"Rigging {at(8, *SECOND)}", f"Joinery {at(9, *FIRST)}"], [],
    ),
    "a table that goes on beside itself": (
        {"Timetable": [["Class", "Day", "Period", "", "Class", "Day", "Period"], ["Joinery", "Mon", 1, "", "Rigging", "Tue", 2]], "Bells": BELLS, "Terms": TERM,
         "Days off": [["Holiday", "Date", "Holiday", "Date"], ["Fair", "2026-09-10", "Inset", "2026-09-08"]]},
        [f"Joinery {at(7, *FIRST)}"], [],
    ),
    "rooms beside each weekday": (
        {"Timetable": [["Class", "Mon", "Room", "Wed", "Room"], ["Joinery", "8:30-9:30", "L1", "9:40-10:40", "L2"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Joinery {at(9, *SECOND)} @ L2"], [],
    ),
    "bells of one weekday beside all others": (
        {"Bells": [["Period", "Start", "End", "Wed start", "Wed end"], [1, "8:30", "9:30", "9:40", "10:40"]], "Timetable": [["Class", "Day", "Period"], ["Joinery", "Mon, Wed", 1]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Joinery {at(9, *SECOND)}"], [],
    ),
    "several days and times in a cell": (
        {"Timetable": [["Class", "Times", "Room"], ["Joinery", "Mon 8:30-9:30, Wed 9:40-10:40", "L1"], ["Rigging", "Tue/Thu 13:00-14:00", ""]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(8, *THIRD)}", f"Joinery {at(9, *SECOND)} @ L1", f"Rigging {at(10, *THIRD)}"], [],
    ),
    "a sheet a weekday, with a row a group": (
        {"Monday": [["Form", 1, 2], ["7A", "Joinery", ""], ["7B", "", "Rigging"]], "Tuesday": [["Form", 1, 2], ["7A", "", "Joinery"]], "Bells": BELLS, "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Rigging {at(7, *SECOND)}", f"Joinery {at(8, *SECOND)}"], [],
    ),
    "a week in another language with periods and times beside the days": (
        {"Stundenplan": [["Stunde", "Zeit", "Mo", "Di", "Mi", "Do", "Fr"], ["1", "8:30-9:30", "Mathe", "", "", "", "Sport"], ["Pause", "9:30-9:40"], ["2", "9:40-10:40", "", "Kunst"]], "Terms": TERM},
        [f"Mathe {at(7, *FIRST)}", f"Kunst {at(8, *SECOND)}", f"Sport {at(11, *FIRST)}"], ["No classes are in Pause"],
    ),
    "a day that runs as another weekday": (
        {"Timetable": [["Class", "Day", "Period"], ["Joinery", "Mon", 1], ["Rigging", "Wed", 2]], "Bells": BELLS, "Terms": TERM, "Changes": [["Date", "Runs as"], ["2026-09-09", "Monday"]]},
        [f"Joinery {at(7, *FIRST)}", f"Joinery {at(9, *FIRST)}"], ["Changes is taken for Special days"],
    ),
    "periods in Roman figures across": (
        {"Timetable": [["Day", "I", "II"], ["Monday", "Joinery", "Rigging"], ["Tuesday", "", "Sails"]], "Bells": [["Period", "Start", "End"], ["I", "8:30", "9:30"], ["II", "9:40", "10:40"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Rigging {at(7, *SECOND)}", f"Sails {at(8, *SECOND)}"], [],
    ),
    "two weeks by the day that they begin": (
        {"Weeks": [["W/c", "Week"], ["2026-09-07", "B"], ["2026-09-14", "A"], ["2026-09-21", "B"], ["2026-09-28", "A"]], "Timetable": [["Week", "Day", "Period", "Class"], ["A", "Mon", 1, "Joinery"], ["B", "Tue", 2, "Rigging"]], "Bells": BELLS},
        [f"Rigging {at(8, *SECOND)}", f"Joinery {at(14, *FIRST)}", f"Rigging {at(22, *SECOND)}", f"Joinery {at(28, *FIRST)}"], ["Weeks is taken for Cycle"],
    ),
    "groups under each day, and times left of them": (
        {"Week": [["Time", "Monday", "", "Tuesday", ""], ["", "7A", "7B", "7A", "7B"], ["8:30-9:30", "Maths", "English", "Art", ""]], "Terms": TERM},
        [f"English {at(7, *FIRST)}", f"Maths {at(7, *FIRST)}", f"Art {at(8, *FIRST)}"], ["is taken for the group of their classes"],
    ),
    "Dutch terms and holidays": (
        {"Rooster": [["Uur", "Tijd", "Ma", "Di", "Wo"], ["1", "8:30-9:30", "Wiskunde", "", "Gym"]], "Periodes": [["Periode", "Van", "Tot"], ["Herfst", "2026-09-07", "2026-09-18"]], "Vakanties": [["Vakantie", "Van", "Tot"], ["Vrij", "2026-09-14", "2026-09-15"]]},
        [f"Wiskunde {at(7, *FIRST)}", f"Gym {at(9, *FIRST)}", f"Gym {at(16, *FIRST)}"], ["Vakanties is taken for Days off"],
    ),
    "bells of some days beside those of another, without a heading": (
        {"Times": [["", "Mon-Thu", "Fri"], ["1", "8:30-9:30", "9:40-10:40"], ["2", "9:40-10:40", "13:00-14:00"]], "Timetable": [["Class", "Mon", "Fri"], ["Joinery", "1", "1"]], "Terms": TERM},
        [f"Joinery {at(7, *FIRST)}", f"Joinery {at(11, *SECOND)}"], [],
    ),
    "codes with their rooms behind them": (
        {"Timetable": [["Period", "Mon", "Tue"], ["1", "JOI L1", "RIG R1"]], "Codes": [["Code", "Subject"], ["JOI", "Joinery"], ["RIG", "Rigging"]], "Bells": BELLS, "Terms": TERM},
        [f"Joinery {at(7, *FIRST)} @ L1", f"Rigging {at(8, *FIRST)} @ R1"], ["Codes is taken for Names"],
    ),
    "days with their periods in one heading each": (
        {"Staff": [["Name", "Mon 1", "Mon 2", "Tue 1", "Tue 2"], ["Amaro", "Knots", "Sails", "", "Knots"], ["Bell", "", "Art", "Art", ""]], "Bells": BELLS, "Terms": TERM},
        [f"Knots {at(7, *FIRST)}", f"Art {at(7, *SECOND)}", f"Sails {at(7, *SECOND)}", f"Art {at(8, *FIRST)}", f"Knots {at(8, *SECOND)}"], ["is taken for the teacher of their classes"],
    ),
    "dates on a sheet that is called as bells are": (
        {"Bells": [["Period", "Normal", "", "Early closing", ""], ["", "Start", "End", "Start", "End"], [1, "8:30", "9:30", "8:30", "9:00"]],
         "Early closing days": [["Date", "Reason"], ["8 September 2026", "Launch"]],
         "Classes": [["Class", "Days", "Period"], ["Knots", "Mon, Tue", 1]], "Terms": TERM},
        [f"Knots {at(7, *FIRST)}", f"Knots {at(8, '08:30', '09:00')}"], ["is taken for Special days"],
    ),
    "bells whose days are written once": (
        {"Bells": [["Day", "Period", "Start", "End"], ["Mon, Tue", 1, "8:30", "9:30"], ["", 2, "9:40", "10:40"], ["Wed", 1, "9:40", "10:40"], ["", 2, "13:00", "14:00"]],
         "Classes": [["Class", "Days", "Period"], ["Knots", "Mon, Wed", 2]], "Terms": TERM},
        [f"Knots {at(7, *SECOND)}", f"Knots {at(9, *THIRD)}"], ["“Day” is written once a group"],
    ),
    "bells of labels one below the other": (
        {"Bell schedule": [["Regular (Keel, Rib)"], ["P1", "8:30", "9:25"], ["P2", "9:30", "10:25"], ["Short (Plank)"], ["P1", "8:30", "9:05"], ["P2", "9:10", "9:45"]],
         "Cycle": [["Label"], ["Keel"], ["Rib"], ["Plank"]], "Timetable": [["Class", "Day", "Period"], ["Knots", "Rib", "P2"], ["Sails", "Plank", "P2"]], "Terms": TERM},
        [f"Knots {at(8, '09:30', '10:25')}", f"Sails {at(9, '09:10', '09:45')}", f"Knots {at(11, '09:30', '10:25')}"], [],
    ),
    "bells of a weekday below the others, each under its headings": (
        {"Bells": [["Regular"], ["Period", "Time"], ["P1", "8:30 - 9:25"], [], ["Friday"], ["Period", "Time"], ["P1", "8:45 - 9:15"]],
         "Timetable": [["Class", "Day", "Period"], ["Knots", "Thu", "P1"], ["Sails", "Fri", "P1"]], "Terms": TERM},
        [f"Knots {at(10, '08:30', '09:25')}", f"Sails {at(11, '08:45', '09:15')}"], [],
    ),
    "an export beside letter days and a daily schedule": (
        {"Class meetings": [["Course", "Section", "Letter days", "Block", "Room"], ["Rigging", "RG1", "A, C", 1, "Loft 2"], ["Steam", "ST1", "B", 3, "Shed"]],
         "Letter days": DATED, "MS daily schedule": [["Block", "Starts", "Ends"], *BELLS[1:]]},
        [f"Rigging {at(7, *FIRST)} @ Loft 2", f"Steam {at(8, *THIRD)} @ Shed", f"Rigging {at(9, *FIRST)} @ Loft 2", f"Rigging {at(10, *FIRST)} @ Loft 2",
         f"Steam {at(11, *THIRD)} @ Shed", f"Steam {at(14, *THIRD)} @ Shed", f"Rigging {at(15, *FIRST)} @ Loft 2", f"Rigging {at(16, *FIRST)} @ Loft 2"],
        ["Class meetings is taken for Timetable", "Letter days is taken for Cycle", "MS daily schedule is taken for Bells"],
    ),
    "classes with times of their own, written once a group": (
        {"Classes": [["Class", "Day", "Start", "End", "Room"], ["Knots", "Monday", "9:00", "9:50", "Loft"], ["", "Wednesday", "1:00", "1:50", "Loft"], ["free", "Friday", "9:00", "9:50", ""]],
         "Term dates": TERM},
        [f"Knots {at(7, '09:00', '09:50')} @ Loft", f"Knots {at(9, '13:00', '13:50')} @ Loft"],
        ["“Class” is written once a group: 1 row", "1 row is a free period", "Times from 1:00 to 6:59 are in the afternoon"],
    ),
    "labels that are a run, written once a group": (
        {"Timetable": [["Day", "Period", "Class"], ["Day 1", 1, "Knots"], ["", 2, "Steam"], ["Day 2", 1, "-"], ["", 2, "Knots"]], "Bell times": BELLS, "Terms": TERM},
        [f"Knots {at(7, *FIRST)}", f"Steam {at(7, *SECOND)}", f"Knots {at(8, *SECOND)}", f"Knots {at(9, *FIRST)}", f"Steam {at(9, *SECOND)}", f"Knots {at(10, *SECOND)}",
         f"Knots {at(11, *FIRST)}", f"Steam {at(11, *SECOND)}"],
        ["The cycle is 1 to 2, as the labels show", "“Day” is written once a group: 2 rows"],
    ),
    "codes of weekdays": (
        {"Courses": [["Course", "Meets", "Room"], ["RIG 1", "MWF 9:00-9:50", "Loft"], ["RIG 2", "TTh 1:00-2:15", "Shed"], ["RIG 3", "TBA", ""]], "Terms": TERM},
        [f"RIG 1 {at(7, '09:00', '09:50')} @ Loft", f"RIG 2 {at(8, '13:00', '14:15')} @ Shed", f"RIG 1 {at(9, '09:00', '09:50')} @ Loft", f"RIG 2 {at(10, '13:00', '14:15')} @ Shed",
         f"RIG 1 {at(11, '09:00', '09:50')} @ Loft"],
        ["RIG 3 (row 4)"],
    ),
    "weeks A and B beside weekdays": (
        {"Timetable": [["Week", "Day", "Period", "Class"], ["A", "Monday", 1, "Knots"], ["B", "Monday", 1, "Steam"], ["all", "Friday", 1, "Sails"]], "Bells": BELLS,
         "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-18"]]},
        [f"Knots {at(7, *FIRST)}", f"Sails {at(11, *FIRST)}", f"Steam {at(14, *FIRST)}", f"Sails {at(18, *FIRST)}"],
        ["The weeks A and B take turns, as the column Week shows; the first week is A"],
    ),
    "weeks A and B of the plan's own cycle": (
        {"Timetable": [["Week", "Day", "Period", "Class"], ["A", "Mon", 1, "Knots"], ["B", "Mon", 1, "Steam"], ["both", "Fri", 1, "Sails"], ["A, B", "Mon", 2, "Oars"]],
         "Cycle": [["Label", "Weekday", "Week"], *([f"{week} {day[:3]}", day, f"Week {week}"] for week in "AB" for day in ("Monday", "Friday"))],
         "Bells": BELLS, "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-18"]]},
        [f"Knots {at(7, *FIRST)}", f"Oars {at(7, *SECOND)}", f"Sails {at(11, *FIRST)}", f"Steam {at(14, *FIRST)}", f"Oars {at(14, *SECOND)}", f"Sails {at(18, *FIRST)}"], [],
    ),
    "a Saturday that a class names": (
        {"Classes": [["Class", "Day", "Time"], ["Knots", "Mo Sa", "9:00-9:50"]], "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-12"]]},
        [f"Knots {at(7, '09:00', '09:50')}", f"Knots {at(12, '09:00', '09:50')}"], ["Saturday is a school day too"],
    ),
    "a drawn week with breaks, dashes and rooms": (
        {"Week": [["Time", "Monday", "Tuesday"], ["8:45-9:30", "Knots\nLoft 2", "-"], ["9:30", "Break", "Break"], ["9:45-10:30", "Sails\nShed 4", "Knots\nLoft 2"], ["1:00-1:45", "", "Choir\nHall"]],
         "Terms": TERM},
        [f"Knots {at(7, '08:45', '09:30')} @ Loft 2", f"Sails {at(7, '09:45', '10:30')} @ Shed 4", f"Knots {at(8, '09:45', '10:30')} @ Loft 2", f"Choir {at(8, '13:00', '13:45')} @ Hall"],
        ["No classes are in Break", "1 cell says that nothing is taught", "The parts of a cell are class, room", "1:00-1:45 in the afternoon"],
    ),
    "a turned week with the times in its headings": (
        {"Sheet1": [["", "1 (8:45–9:30)", "Lunch", "2 (1:00–1:45)"], ["Mon", "Knots", "", "Sails"], ["Tue", "", "", "Knots"]], "Terms": TERM},
        [f"Knots {at(7, '08:45', '09:30')}", f"Sails {at(7, '13:00', '13:45')}", f"Knots {at(8, '13:00', '13:45')}"], ["No classes are in Lunch"],
    ),
    "a row a teacher and the whole week across": (
        {"Teachers": [["", "Monday", "", "Tuesday", ""], ["Teacher", 1, 2, 1, 2], ["M. Quill", "Knots", "", "", "Sails"], ["O. Tern", "", "Steam", "Steam", ""]], "Bells": BELLS, "Terms": TERM},
        [f"Knots {at(7, *FIRST)}", f"Steam {at(7, *SECOND)}", f"Steam {at(8, *FIRST)}", f"Sails {at(8, *SECOND)}"], [],
    ),
    "weeks below one another": (
        {"Weeks": [["Week A"], ["", "Mon", "Tue"], ["9:00-10:00", "Knots", ""], [], ["Week B"], ["", "Mon", "Tue"], ["9:00-10:00", "Steam", "Sails"]],
         "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-18"]]},
        [f"Knots {at(7, '09:00', '10:00')}", f"Steam {at(14, '09:00', '10:00')}", f"Sails {at(15, '09:00', '10:00')}"], [],
    ),
    "weeks side by side": (
        {"Both": [["9A", "", "", "9B", "", ""], ["", "Mon", "Tue", "", "Mon", "Tue"], ["9:00-10:00", "Knots", "", "9:00-10:00", "", "Sails"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')}", f"Sails {at(8, '09:00', '10:00')}"], [],
    ),
    "rooms on lines of their own": (
        {"Quill": [["Period", "Time", "Mon", "Tue"], [1, "8:45-9:30", "Knots", "Sails"], ["", "", "Loft 2", "Shed"]], "Terms": TERM},
        [f"Knots {at(7, '08:45', '09:30')} @ Loft 2", f"Sails {at(8, '08:45', '09:30')} @ Shed"], [],
    ),
    "weeks side by side whose periods stand once": (
        {"TT": [["Week A", "", "", "Week B"], ["", "Mon", "Tue", "Mon", "Tue"], ["9:00-10:00", "Knots", "", "Steam", "Sails"]], "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-18"]]},
        [f"Knots {at(7, '09:00', '10:00')}", f"Steam {at(14, '09:00', '10:00')}", f"Sails {at(15, '09:00', '10:00')}"], [],
    ),
    "sheets called after groups are no rooms": (
        {"App 1": [["", "Mon", "Tue"], ["9:00-10:00", "Knots", "Sails"]], "App 2": [["", "Mon", "Tue"], ["9:00-10:00", "Rigging", "Knots"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')}", f"Rigging {at(7, '09:00', '10:00')}", f"Knots {at(8, '09:00', '10:00')}", f"Sails {at(8, '09:00', '10:00')}"],
        ["App 1 and App 2", "the group of their classes"],
    ),
    "a class on the sheets of two teachers is one in a room, and two in two": (
        {"Ms Quill": [["", "Mon", "Tue"], ["9:00-10:00", "Knots (Loft 1)", "Sails (Loft 1)"]], "Mr Finch": [["", "Mon", "Tue"], ["9:00-10:00", "Knots (loft 1)", "Sails (Shed 2)"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')} @ Loft 1", f"Sails {at(8, '09:00', '10:00')} @ Loft 1", f"Sails {at(8, '09:00', '10:00')} @ Shed 2"], [],
    ),
    "sheets called after rooms": (
        {"Loft 1": [["", "Mon", "Tue"], ["9:00-10:00", "Knots", ""]], "B12": [["", "Mon", "Tue"], ["9:00-10:00", "", "Sails"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')} @ Loft 1", f"Sails {at(8, '09:00', '10:00')} @ B12"], [],
    ),
    "a signature below a remark is no room": (
        {"Week": [["", "Mon", "Tue"], ["9:00-10:00", "Knots", "Sails"], ["Subject to change", "", ""], ["", "", "M. Quill"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')}", f"Sails {at(8, '09:00', '10:00')}"], [],
    ),
    "initials below classes are teachers": (
        {"Week": [["", "Mon", "Tue"], ["9:00-10:00", "RIG\nMQ", "STM\nOT"]], "Terms": TERM},
        [f"RIG {at(7, '09:00', '10:00')}", f"STM {at(8, '09:00', '10:00')}"], ["class, teacher"],
    ),
    "rooms below the classes of a turned week": (
        {"Week": [["", "1", "2"], ["Mon", "Knots", "Sails"], ["", "Loft", "Shed"], ["Tue", "", "Knots"], ["", "", "Loft"]], "Bells": BELLS, "Terms": TERM},
        [f"Knots {at(7, *FIRST)} @ Loft", f"Sails {at(7, *SECOND)} @ Shed", f"Knots {at(8, *SECOND)} @ Loft"], ["class, room"],
    ),
    "two columns a weekday": (
        {"Week": [["", "Mon", "", "Tue", ""], ["", "Class", "Room", "Class", "Room"], ["9:00-10:00", "Knots", "Loft", "Sails", "Shed"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')} @ Loft", f"Sails {at(8, '09:00', '10:00')} @ Shed"], ["class, room"],
    ),
    "times under weekdays": (
        {"Classes": [["Class", "Mon", "Tue"], ["Knots", "9:00-9:50", ""], ["Sails", "", "1:00-1:50"]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '09:50')}", f"Sails {at(8, '13:00', '13:50')}"], [],
    ),
    "periods under weekdays": (
        {"Classes": [["Class", "Mon", "Tue"], ["Knots", 1, "2, 3"]], "Bells": BELLS, "Terms": TERM},
        [f"Knots {at(7, *FIRST)}", f"Knots {at(8, *SECOND)}", f"Knots {at(8, *THIRD)}"], [],
    ),
    "ticked weekdays": (
        {"Classes": [["Class", "Mon", "Tue", "Wed", "Period"], ["Knots", "x", "", "x", 1]], "Bells": BELLS, "Terms": TERM}, [f"Knots {at(7, *FIRST)}", f"Knots {at(9, *FIRST)}"], [],
    ),
    "lengths and terms of the whole year": (
        {"Classes": [["Class", "Term", "Day", "Start", "Length"], ["Knots", "Full year", "Mon", "9:00", "50 min"]], "Terms": TERM}, [f"Knots {at(7, '09:00', '09:50')}"], [],
    ),
    "a date without a label": (
        {"Classes": [["Class", "Letter day", "Time"], ["Knots", "A", "9:00-9:50"]],
         "Letter days": [["Date", "Letter"], *[[f"2026-09-{7 + n:02}", letter] for n, letter in enumerate(["A", "", "A", "B", "B"])], ["2026-09-14", "B"]]},
        [f"Knots {at(7, '09:00', '09:50')}", f"Knots {at(9, '09:00', '09:50')}"], ["A date without a label has no classes"],
    ),
    "lines that say only when they begin, teachers in brackets": (
        {"Week": [["", "Mon", "Tue"], ["P1 8:45", "Knots (M. Quill) - L2", ""], ["P2 9:40", "", "Sails (O. Tern) - S4"], ["Break 10:35", "", ""]], "Terms": TERM},
        [f"Knots {at(7, '08:45', '09:40')} @ L2", f"Sails {at(8, '09:40', '10:35')} @ S4"], ["class, teacher, room", "last until the next one"],
    ),
    "a drawn week in French": (
        {"Horaire": [["", "Lundi", "Mardi", "Mercredi", "Jeudi"], ["8h30-9h30", "Nœuds", "", "", "Voile"]], "Terms": TERM},
        [f"Nœuds {at(7, '08:30', '09:30')}", f"Voile {at(10, '08:30', '09:30')}"], [],
    ),
    "a drawn week whose times a workbook holds": (
        {"Week": [["Start", "End", "Mon", "Tue"], [dt.time(8, 45), dt.time(9, 30), "Knots", ""], [dt.time(1, 0), dt.time(1, 45), "", "Sails"]], "Terms": TERM},
        [f"Knots {at(7, '08:45', '09:30')}", f"Sails {at(8, '13:00', '13:45')}"], ["in the afternoon"],
    ),
    "terms and holidays in one table": (
        {"Classes": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]],
         "Calendar": [["Event", "Start", "End"], ["Term 1", "2026-09-07", "2026-09-25"], ["Half term", "2026-09-14", "2026-09-18"], ["Term 2", "2026-10-05", "2026-10-09"]]},
        [f"Knots {day}T09:00/{day}T09:50" for day in ("2026-09-07", "2026-09-21", "2026-10-05")], ["holidays are days off"],
    ),
    "holidays whose dates stand in one cell": (
        {"Classes": [["Class", "Day", "Time"], ["Knots", "Mo Tu", "9:00-9:50"]], "School holidays": [["Holiday", "Dates"], ["Fair", "7 Sept 2026"], ["Race days", "9 Sept 2026 - 10 Sept 2026"]], "Terms": TERM},
        [f"Knots {at(8, '09:00', '09:50')}"], ["School holidays is taken for Days off"],
    ),
    "labels by date under a heading of their own": (
        {"Classes": [["Class", "Letter day", "Time"], ["Knots", "A", "9:00-9:50"]], "Calendar": [["Date", "A/B"], *[[f"2026-09-{7 + n:02}", "AB"[n % 2]] for n in range(5)], ["2026-09-14", "B"]]},
        [f"Knots {at(day, '09:00', '09:50')}" for day in (7, 9, 11)], ["a date a row"],
    ),
    "shortened headings": (
        {"Export": [["crse", "crse title", "days", "beg time", "end time", "rm", "instr"], ["RG1", "Rigging", "MW", "9:00", "9:50", "L2", "Quill"]], "Terms": TERM},
        [f"Rigging {at(7, '09:00', '09:50')} @ L2", f"Rigging {at(9, '09:00', '09:50')} @ L2"], [],
    ),
    "a course in three columns": (
        {"Export": [["Ref", "Subj", "Crse", "Sec", "Days", "Time", "Location"], [7, "RIG", "101", "01", "M", "9:00-9:50", "L2"], [8, "RIG", "101", "02", "T", "9:00-9:50", "L2"]],
         "Terms": TERM},
        [f"RIG 101 {at(7, '09:00', '09:50')} @ L2", f"RIG 101 {at(8, '09:00', '09:50')} @ L2"], ["2 classes"],
    ),
    "weekdays in a pattern, times in columns of their own": (
        {"Export": [["Course number", "Meeting Pattern", "Start Time", "End Time", "Bldg/Room", "Instructor Name"], ["RG1", "MW", "9:00", "9:50", "L2", "Quill"]], "Terms": TERM},
        [f"RG1 {at(7, '09:00', '09:50')} @ L2", f"RG1 {at(9, '09:00', '09:50')} @ L2"], [],
    ),
    "terms whose headings say nothing": (
        {"Classes": [["Class", "Day", "Time", "Bldg", "Room"], ["Knots", "Mon", "9:00-9:50", "Loft", 2]],
         "Semester": [["Semester", "Classes begin", "Classes end"], ["Fall", "2026-09-07", "2026-10-02"]]},
        [f"Knots {day}T09:00/{day}T09:50 @ Loft 2" for day in ("2026-09-07", "2026-09-14", "2026-09-21", "2026-09-28")], ["Semester is taken for Terms"],
    ),
    "one class twice a day in a drawn week": (
        {"Week": [["", "Mon", "Tue"], ["9:00-10:00", "Knots", "Sails"], ["11:00-12:00", "Knots", ""]], "Terms": TERM},
        [f"Knots {at(7, '09:00', '10:00')}", f"Knots {at(7, '11:00', '12:00')}", f"Sails {at(8, '09:00', '10:00')}"], [],
    ),
}  # fmt: skip


WEEK = ["Week", "Day", "Period", "Class"]


@pytest.mark.parametrize(
    ("rows", "cycle", "says"),
    [
        ([["A", "Mon", 1, "Knots"], ["C", "Mon", 1, "Steam"]], [], "the plan has no cycle of weeks"),
        ([["A", "Mon", 1, "Knots"]], [], "the plan has no cycle of weeks"),
        ([["A", "Keel", 1, "Knots"]], [["Keel", "", ""], ["Rib", "", ""]], "the plan has no cycle of weeks"),
        ([["odd", "Mon", 1, "Knots"], ["even", "Mon", 1, "Steam"]], [], "“odd” says in which weeks"),
        (
            [["C", "Mon", 1, "Knots"]],
            [["A Mon", "Monday", "A"], ["B Mon", "Monday", "B"]],
            "the cycle's weeks are A and B",
        ),
        (
            [["B", "Tue", 1, "Knots"]],
            [["A Mon", "Monday", "A"], ["B Mon", "Monday", "B"], ["A Tue", "Tuesday", "A"]],
            "no day of week B of the cycle",
        ),
    ],
)
def test_a_class_of_weeks_that_nothing_counts_is_refused(
    tmp_path: Path, rows: Rows, cycle: Rows, says: str
) -> None:
    sheets: dict[str, Rows] = {"Timetable": [WEEK, *rows], "Bells": BELLS, "Terms": TERM}
    if cycle:
        sheets["Cycle"] = [["Label", "Weekday", "Week"], *cycle]
    assert says in refused(plan_book(tmp_path, sheets))


@pytest.mark.parametrize("heading", ["Not on", "Frequency", "Cancelled", "No classes on"])
def test_a_column_of_a_timetable_that_would_say_on_which_dates_is_not_passed_over(
    tmp_path: Path, heading: str
) -> None:
    timetable: Rows = [["Class", "Day", "Period", heading], ["Knots", "Mon", 1, "14 Sept 2026"]]
    source = plan_book(tmp_path, {"Timetable": timetable, "Bells": BELLS, "Terms": TERM})
    assert f"The column “{heading}” says on which dates classes are held" in refused(source)
    assert built(source, "--column", f"{heading}=") == [f"Knots {at(7, *FIRST)}"]


@pytest.mark.parametrize("name", READ)
def test_a_schools_own_workbook_is_read(name: str, tmp_path: Path) -> None:
    sheets, expected, said = READ[name]
    source, target = plan_book(tmp_path, sheets), tmp_path / "o.ics"
    assert built(source) == expected
    out = nomarium("build", source, "-o", target).text
    assert [part for part in said if part not in out] == [], out


def test_a_merged_cell_of_a_drawn_week_is_one_meeting(tmp_path: Path) -> None:
    rows: Rows = [["", "Mon", "Tue"], ["9:00-9:45", "Lofting", "Knots"], ["10:00-10:45", "", "Sails"]]
    source = plan_book(tmp_path, {"Week": rows, "Terms": TERM}, ("B2:B3",))
    lofting = f"Lofting {at(7, '09:00', '10:45')}"
    assert built(source) == [lofting, f"Knots {at(8, '09:00', '09:45')}", f"Sails {at(8, '10:00', '10:45')}"]


def test_the_names_of_drawn_sheets_say_whose_they_are(tmp_path: Path) -> None:
    week: Rows = [["", "Mon", "Tue"], ["9:00-10:00", "Knots", "Sails"]]
    source = plan_book(
        tmp_path, {"M. Quill": week, "O. Tern": [week[0], ["9:00-10:00", "", "Steam"]], "Terms": TERM}
    )
    outcome = nomarium("build", source, "-o", f"{tmp_path}/out/", "--split-by", "teacher")
    assert (outcome.status, sorted(one.name for one in (tmp_path / "out").iterdir())) == (
        0,
        ["m-quill.ics", "o-tern.ics"],
    )


def test_the_title_of_a_drawn_sheet_says_what_its_name_is(tmp_path: Path) -> None:
    def drawn(name: str, what: str) -> Rows:
        return [
            [f"Class {name}", "", ""],
            ["Time", "Mon", "Tue"],
            ["8:45-9:40", what, "Hull"],
            ["9:45-10:40", "", what],
        ]

    sheets = {"A1": drawn("A1", "Knots"), "A2": drawn("A2", "Ropes"), "Terms": TERM}
    target = tmp_path / "o.csv"
    assert nomarium("build", plan_book(tmp_path, sheets), "-o", target).status == 0
    rows = list(csv.DictReader(target.read_text("utf-8-sig").splitlines()))
    assert {row.get("Location") or "" for row in rows} == {""}
    assert {row["Audience"] for row in rows if row["Title"] == "Knots"} == {"Class A1"}


def test_the_heading_over_names_says_what_they_are(tmp_path: Path) -> None:
    drawn: Rows = [["", "Monday", "", "Tuesday", ""], ["Form", 1, 2, 1, 2], ["A1", "Knots", "Hull", "", "Sails"], ["A2", "Hull", "Knots", "Sails", ""]]  # fmt: skip
    target = tmp_path / "o.csv"
    source = plan_book(tmp_path, {"Timetable": drawn, "Bells": BELLS, "Terms": TERM})
    assert nomarium("build", source, "-o", target).status == 0
    rows = list(csv.DictReader(target.read_text("utf-8-sig").splitlines()))
    assert {row.get("Location") or "" for row in rows} == {""}
    assert {row["Audience"] for row in rows} == {"A1", "A2"}


def test_a_drawn_week_alone_needs_only_its_weeks(tmp_path: Path) -> None:
    source = csv_file(tmp_path, ",Monday,Tuesday\n9:00-9:50,Rigging,Lofting\n10:00-10:50,,Rigging")
    assert "--from 2026-09-07 --until 2026-12-18, or --terms FILE; for one week only, --day-one" in refused(
        source
    )
    expected = [
        f"Rigging {at(7, '09:00', '09:50')}",
        f"Lofting {at(8, '09:00', '09:50')}",
        f"Rigging {at(8, '10:00', '10:50')}",
    ]
    assert built(source, "--from", "2026-09-07", "--until", "2026-09-11") == expected
    assert (
        built(source, "--from", "2026-08-31", "--until", "2026-09-13", "--public-holidays", "CA-NS")[-2:]
        == expected[1:]
    )


@pytest.mark.parametrize("name", ["Timetable", "Our timetable", "Sheet1"])
def test_lines_with_names_are_those_of_a_drawn_week_whatever_the_sheet_is_called(
    name: str, tmp_path: Path
) -> None:
    week: Rows = [
        ["Lesson", "Times", "Mon", "Tue"],
        ["Clubs", "8:30-9:30", "Oars", "Sails"],
        [1, "9:40-10:40", "Sails", "Oars"],
    ]
    assert sorted(built(plan_book(tmp_path, {name: week, "Terms": TERM}))) == sorted(
        [
            f"Oars {at(7, *FIRST)}",
            f"Sails {at(7, *SECOND)}",
            f"Sails {at(8, *FIRST)}",
            f"Oars {at(8, *SECOND)}",
        ]
    )


def test_a_lone_date_on_a_sheet_of_remarks_stops_no_plan(tmp_path: Path) -> None:
    remarks: Rows = [["About this workbook"], ["2026-09-01"], ["Ask the office"]]
    source = plan_book(
        tmp_path,
        {
            "Classes": [*ONE_CLASS[:1], ["Joinery", 1, "Mon"]],
            "Bells": BELLS,
            "Terms": TERM,
            "Remarks": remarks,
        },
    )
    assert built(source) == [f"Joinery {at(7, *FIRST)}"]


def test_trips_beside_classes_are_no_terms(tmp_path: Path) -> None:
    sheets: dict[str, Rows] = {
        "Classes": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]],
        "Terms": TERM,
        "Trips": [["Trip", "Leaves", "Returns"], ["Long voyage", "2026-10-05", "2026-11-18"]],
    }
    source = plan_book(tmp_path, sheets)
    assert built(source) == [f"Knots {at(7, '09:00', '09:50')}"]
    assert (
        "“Trips” is no part of a plan: it is passed over"
        in nomarium("build", source, "-o", tmp_path / "o.ics").text
    )


def test_several_sources_are_one_plan(tmp_path: Path) -> None:
    classes = csv_file(
        tmp_path, "Class,Day,Block,Room\nKnots,Day 1,A,Loft\nSteam,Day 2,B,Shed", "classes.csv"
    )
    bells = csv_file(tmp_path, "Block,Start,End\nA,8:30,9:30\nB,9:40,10:40", "bells.csv")
    terms = csv_file(tmp_path, "Term,From,To\nAutumn,7 Sept 2026,9 Sept 2026", "term-dates.csv")
    expected = [
        f"Knots {at(7, *FIRST)} @ Loft",
        f"Steam {at(8, *SECOND)} @ Shed",
        f"Knots {at(9, *FIRST)} @ Loft",
    ]
    assert built(classes, bells, terms, "--as", "plan") == expected
    assert built(classes, bells, "--as", "plan", "--terms", terms) == expected


SHORT = [["Period", "Regular", "Half day"], [1, "8:30-9:30", "8:30-9:00"]]
ONE_CLASS = [["Class", "Period", "Days"], ["Joinery", 1, "Mon, Tue"]]
REFUSED: dict[str, tuple[dict[str, Rows], list[str]]] = {
    "dates without a word of what they are": (
        {"Bells": SHORT, "Short": [["Date"], ["2026-09-08"]], "Classes": ONE_CLASS, "Terms": TERM}, ["“Short” holds dates", '--table "Short=daysoff"'],
    ),
    "an event that speaks of bells that ring on no date": (
        {"Bells": SHORT, "Diary": [["Date", "What"], ["2026-09-08", "Fair (half day)"]], "Classes": ONE_CLASS, "Terms": TERM}, ["“Fair (half day)” has a date", "Special days"],
    ),
    "a special day that says nothing": (
        {"Bells": SHORT, "Special days": [["Date"], ["2026-09-08"]], "Classes": ONE_CLASS, "Terms": TERM}, ["does not say what is special"],
    ),
    "a hole in the run of labels": (
        {"Timetable": [["Day", "Period", "Class"], ["Day 1", 1, "Knots"], ["Day 2", 1, "Sails"], ["Day 4", 1, "Steam"]], "Bells": BELLS, "Terms": TERM},
        ["3 is missing from the run", "table Cycle"],
    ),
    "labels that are no run": (
        {"Timetable": [["Day", "Period", "Class"], ["Red", 1, "Knots"], ["Blue", 1, "Sails"]], "Bells": BELLS, "Terms": TERM}, ["“Red” is a label", "table Cycle"],
    ),
    "labels that fall": (
        {"Timetable": [["Class", "Label", "Time"], ["Knots", "9-5", "9:00-9:50"], ["Sails", "Day 2", "9:00-9:50"]], "Terms": TERM}, ["row 2, column B", "“9-5” is a label", "table Cycle"],
    ),
    "labels beyond the longest cycle": (
        {"Timetable": [["Class", "Label", "Time"], ["Knots", "25-30", "9:00-9:50"], ["Sails", "Day 2", "9:00-9:50"]], "Terms": TERM}, ["“25-30” is a label", "table Cycle"],
    ),
    "a label that is blank now and then": (
        {"Timetable": [["Day", "Period", "Class"], ["Day 1", 1, "Knots"], ["Day 2", 1, "Sails"], ["", 2, "Steam"], ["Day 3", 1, "Choir"], ["Day 4", 1, "Choir"]], "Bells": BELLS, "Terms": TERM},
        ["row 4, column A", '--fill-down "Day"'],
    ),
    "names under each weekday": (
        {"Classes": [["Class", "Time", "Mon", "Tue"], ["Knots", "9:00-9:50", "Quill", ""], ["Sails", "9:00-9:50", "", "Bell"]], "Terms": TERM}, ["The column “Mon” says which classes", "a column Day"],
    ),
    "two columns of one heading": (
        {"Timetable": [["Class", "Day", "Period", "Room", "Room"], ["Knots", "Mon", 1, "L1", "L2"]], "Bells": BELLS, "Terms": TERM}, ["Two columns are headed “Room”"],
    ),
    "weeks in brackets behind classes": (
        {"TT": [["", "Mon", "Tue"], ["8:45-9:40", "Knots (A) / Sails (B)", "Maths"], ["9:45-10:40", "PE", "Knots (wk A)"]], "Terms": TERM}, ["seems to name a week", "called Week A and Week B"],
    ),
    "no dates at all": ({"Timetable": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]], "Bells": BELLS}, ["from when to when", "--from", "--terms FILE"]),
    "a code that could be two things": ({"Timetable": [["Class", "Day", "Time"], ["Knots", "TH", "9:00-9:50"]], "Terms": TERM}, ["row 2, column B", '--weekdays "TH=Thu"']),
    "a time that is none": ({"Timetable": [["Class", "Day", "Time"], ["Knots", "Mon", "soon"]], "Terms": TERM}, ["row 2, column C", "“soon”"]),
    "holidays that cannot be read": (
        {"Classes": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]], "Holidays": [["Days", "Of"], ["Fair", "soon"]], "Terms": TERM}, ["Holidays", "Days off"],
    ),
    "a sheet called as holidays that has none": (
        {"Classes": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]], "School closures": [["See the wall", ""], ["by the door", "please"]], "Terms": TERM},
        ["School closures is called as Days off would be", '--table "School closures="'],
    ),
    "terms beside a sheet of weekdays that nothing reads": ({"Stuff": [["Who", "9am", "10am", "11am"], ["Mon", "Knots", "", "x"]], "Terms": TERM}, ["only Terms could be read", "“Stuff”"]),
    "a part of cells that may be a room or a teacher": (
        {"Week": [["", "Mon", "Tue"], ["9:00-9:50", "Knots\n(Quill)", "Sails\n(Harrow)"], ["11:00-11:50", "", "Knots\n(Quill)"]], "Terms": TERM},
        ["“Quill” may be a room or a teacher", "“Sails (Harrow)”", 'A teacher: --cell "class (teacher)"', "1 problem."],
    ),
    "terms beside classes whose headings say nothing": (
        {"Export": [["Offering", "Wkdays", "In", "Out"], ["Rigging", "MW", "9:00", "9:50"]], "Terms": TERM}, ["only Terms could be read", "“Export”", '--column "HEADING=class"'],
    ),
    "terms beside a master schedule without days": (
        {"Master": [["Period", "Quill", "Tern"], ["1 (8:30-9:30)", "Knots", "Steam"], ["2 (9:40-10:40)", "Sails", ""]], "Terms": TERM},
        ["only Terms could be read", "“Master”"],
    ),
    "classes in a row that no period heads": (
        {"Week": [["", "Mon", "Tue"], ["9:00-10:00", "Knots", "Sails"], [], ["", "Steam", "Choir"]], "Terms": TERM}, ["row 4, column B", "“Steam”", "No line says in which period"],
    ),
    "a part on a line of its own that may be a room or a teacher": (
        {"Week": [["", "Mon", "Tue"], ["9:00-9:50", "Knots\nQuill", "Sails\nHarrow"]], "Terms": TERM},
        ["“Quill” may be a room or a teacher", 'A room: --cell "class room"'],
    ),
    "a period without bells": ({"Week": [["", "Mon", "Tue"], ["P1", "Knots", "Sails"]], "Terms": TERM}, ["Bells"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_what_a_schools_own_workbook_leaves_open_is_refused(name: str, tmp_path: Path) -> None:
    sheets, said = REFUSED[name]
    out = refused(plan_book(tmp_path, sheets))
    assert [part for part in said if part not in out] == [], out


def test_headings_of_a_plan_mean_what_is_said(tmp_path: Path) -> None:
    sheets: dict[str, Rows] = {
        "Export": [["Offering", "Wkdays", "In", "Out"], ["Rigging", "MW", "9:00", "9:50"]],
        "Terms": TERM,
        "Launches": [["What", "Date"], ["Launch", "2026-09-08"]],
    }
    source = plan_book(tmp_path, sheets)
    asked = [
        "--table",
        "Launches=events",
        "--column",
        "Offering=class",
        "--column",
        "In=start",
        "--column",
        "Out=end",
    ]
    expected = [
        f"Rigging {at(7, '09:00', '09:50')}",
        f"Rigging {at(9, '09:00', '09:50')}",
        "Launch 2026-09-08/2026-09-09",
    ]
    said = refused(source, *asked, "--column", "Rooms=room")
    assert "names a heading “Rooms”, and no sheet of the plan has it" in said
    assert built(source, *asked) == expected


UNMET = {
    "--table": ("Sheet9=bells", "no source has such a sheet"),
    "--weekdays": ("TH=Thu", "no cell has it"),
    "--cell": ("class, room", "nothing is read as a drawn week"),
}


@pytest.mark.parametrize("option", UNMET)
def test_an_option_that_meets_nothing_is_refused(option: str, tmp_path: Path) -> None:
    value, said = UNMET[option]
    sheets: dict[str, Rows] = {
        "Classes": [["Class", "Day", "Time"], ["Knots", "Mon", "9:00-9:50"]],
        "Terms": TERM,
    }
    assert said in refused(plan_book(tmp_path, sheets), option, value)
    listed = csv_file(tmp_path, "Event,Date\nLaunch,2026-09-07")
    assert said in refused(listed, option, value)


def test_a_pattern_of_cells_names_parts_that_there_are(tmp_path: Path) -> None:
    for pattern, said in (("class, rom", "“rom” is no part of a cell"), ("room", "it has no class"), ("class teacher teacher", "it names “teacher” twice")):  # fmt: skip
        outcome = nomarium("build", csv_file(tmp_path, "a,b"), "-o", tmp_path / "o.ics", "--cell", pattern)
        assert (outcome.status, said in outcome.text) == (2, True), outcome.text


def test_options_settle_what_sheets_and_cells_are(tmp_path: Path) -> None:
    sheets: dict[str, Rows] = {
        "Week": [["", "Mon", "Tue"], ["9:00-10:00", "MQ Knots L2", "OT Sails S4"]],
        "Notes": [["Name", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-09-08"]],
    }
    source = plan_book(tmp_path, sheets)
    options: list[Any] = ["--table", "Notes=terms", "--cell", "teacher class room"]
    assert built(source, *options) == [
        f"Knots {at(7, '09:00', '10:00')} @ L2",
        f"Sails {at(8, '09:00', '10:00')} @ S4",
    ]
    left_out = built(
        source,
        "--table",
        "Notes=",
        "--cell",
        "teacher class room",
        "--from",
        "2026-09-08",
        "--until",
        "2026-09-08",
    )
    assert left_out == [f"Sails {at(8, '09:00', '10:00')} @ S4"]


ROTATION: Rows = [["", "Day 1", "Day 2"], [1, "A", "B"], [2, "B", "C"]]
BLOCKS: dict[str, tuple[dict[str, Rows], list[str]]] = {
    "a drawn rotation, with a block that is nobody's": (
        {"Classes": [["Class", "Block", "Room"], ["Knots", "A", "Loft"], ["Steam", "Block B", "Shed"]], "Rotation": ROTATION, "Bells": BELLS, "Terms": [TERM[0], ["T", "2026-09-07", "2026-09-08"]]},
        [f"Knots {at(7, *FIRST)} @ Loft", f"Steam {at(7, *SECOND)} @ Shed", f"Steam {at(8, *FIRST)} @ Shed", f"C {at(8, *SECOND)}"],
    ),
    "a rotation whose lines are the periods in their order": (
        {"Classes": [["Class", "Block"], ["Knots", "A"], ["Steam", "B"]], "Rotation": [["Day 1", "Day 2"], ["A", "B"], ["B", "A"]], "Bells": BELLS, "Terms": [TERM[0], ["T", "2026-09-07", "2026-09-08"]]},
        [f"Knots {at(7, *FIRST)}", f"Steam {at(7, *SECOND)}", f"Steam {at(8, *FIRST)}", f"Knots {at(8, *SECOND)}"],
    ),
    "courses by their codes, and a calendar of the days": (
        {"Courses": [["Code", "Section", "Title", "Block"], ["WD10", 1, "Wood", "A"], ["WD10", 2, "Wood", "B"]], "Rotation": [ROTATION[0], [1, "A", "B"]], "Bells": BELLS,
         "Calendar": [["Date", "Day"], *[[f"2026-09-{day:02}", number] for day, number in ((7, 2), (8, 1), (9, 2), (10, 1), (11, 2), (14, 1))]]},
        [f"Wood {at(day, *FIRST)}" for day in (7, 8, 9, 10, 11, 14)],
    ),
    "a rotation as a list": (
        {"Classes": [["Class", "Block"], ["Knots", "A"], ["Steam", "B, C"]], "Bells": BELLS, "Terms": [TERM[0], ["T", "2026-09-07", "2026-09-08"]],
         "Block schedule": [["Label", "Period", "Block"], ["Day 1", 1, "A"], ["Day 1", 2, "B"], ["Day 2", 1, "C"], ["Day 2", 2, "A"]]},
        [f"Knots {at(7, *FIRST)}", f"Steam {at(7, *SECOND)}", f"Steam {at(8, *FIRST)}", f"Knots {at(8, *SECOND)}"],
    ),
    "a rotation alone, its blocks named": (
        {"Rotation": [["Period", "Day 1", "Day 2"], ["1 (8:30-9:30)", "A", "B"]], "Names": [["Code", "Name"], ["A", "Knots"], ["B", "Steam"]], "Terms": [TERM[0], ["T", "2026-09-07", "2026-09-08"]]},
        [f"Knots {at(7, *FIRST)}", f"Steam {at(8, *FIRST)}"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", BLOCKS)
def test_blocks_that_rotate(name: str, tmp_path: Path) -> None:
    sheets, expected = BLOCKS[name]
    assert built(plan_book(tmp_path, sheets)) == expected


def test_persons_are_those_who_are_enrolled_and_who_teach(tmp_path: Path) -> None:
    sheets: dict[str, Rows] = {
        "Classes": [
            ["Class", "Day", "Time", "Teacher"],
            ["Knots", "Mon", "9:00-9:50", "Quill"],
            ["Steam", "Tue", "9:00-9:50", "Quill"],
        ],
        "Terms": TERM,
        "Enrolments": [["Student", "Class"], ["Wren", "Knots"], ["Lark", "Knots, Steam"]],
    }
    outcome = nomarium("build", plan_book(tmp_path, sheets), "-o", f"{tmp_path}/out/", "--split-by", "person")
    counts = {one.stem: one.read_text().count("BEGIN:VEVENT") for one in (tmp_path / "out").iterdir()}
    assert (outcome.status, counts) == (0, {"wren": 1, "lark": 2, "quill": 2})
    sheets["Enrolments"].append(["Wren", "Knot"])
    assert "No class has the code “Knot”" in refused(plan_book(tmp_path, sheets))


def test_classes_on_weekdays_may_be_rules(tmp_path: Path) -> None:
    sheets: dict[str, Rows] = {
        "Classes": [["Class", "Day", "Time"], ["Knots", "MW", "9:00-9:50"]],
        "Terms": [TERM[0], ["Autumn", "2026-09-07", "2026-09-18"], ["Winter", "2026-09-28", "2026-10-02"]],
    }
    source, target = plan_book(tmp_path, sheets), tmp_path / "rule.ics"
    outcome = nomarium("build", source, "-o", target, "--repeats", "rule")
    assert (outcome.status, target.read_text().count("BEGIN:VEVENT")) == (0, 1), outcome.text
    assert (
        built(target)
        == built(source)
        == [
            f"Knots {day}T09:00/{day}T09:50"
            for day in ("2026-09-07", "2026-09-09", "2026-09-14", "2026-09-16", "2026-09-28", "2026-09-30")
        ]
    )


def test_a_survey_says_what_each_sheet_was_taken_for(tmp_path: Path) -> None:
    sheets, _, _ = READ["an export beside letter days and a daily schedule"]
    out = nomarium("survey", plan_book(tmp_path, sheets)).out
    for part in (
        "Letter days",
        "a date a row, and few labels that come back",
        "MS daily schedule",
        "Next: nomarium build",
    ):
        assert part in out


def test_a_starter_of_a_drawn_week_builds_when_it_is_filled_and_nothing_before(tmp_path: Path) -> None:
    import openpyxl

    source = tmp_path / "week.xlsx"
    assert nomarium("starter", "timetable", "-o", source).status == 0
    assert "Left out, for they hold the examples" in refused(source)
    book = openpyxl.load_workbook(source)
    book["Timetable"]["C2"] = "Lofting\nMould loft"
    book["Terms"]["B2"], book["Terms"]["C2"] = "2026-09-08", "2026-09-08"
    book.save(source)
    assert built(source) == [
        f"Lofting {at(8, '08:30', '09:30')} @ Mould loft",
        f"Steam {at(8, '09:35', '10:35')} @ Steam shed",
    ]


def test_sheets_for_teachers_are_the_timetable_when_they_are_filled(tmp_path: Path) -> None:
    import openpyxl

    plan = tmp_path / "plan"
    plan.mkdir()
    tables = {
        "people": "Name,Email\nQuill,\nTern,",
        "bells": "Period,Start,End\n1,8:30,9:30\n2,9:40,10:40",
        "cycle": "Label\nKeel\nRib",
        "terms": "Name,First day,Last day\nAutumn,2026-09-07,2026-09-08",
    }
    for name, text in tables.items():
        csv_file(plan, text, f"{name}.csv")
    assert nomarium("starter", "timetable", "--plan", plan, "-o", tmp_path / "sheets").status == 0
    sheets = sorted((tmp_path / "sheets").iterdir()) if (tmp_path / "sheets").exists() else []
    assert [one.name for one in sheets] == ["quill.xlsx", "tern.xlsx"]
    book = openpyxl.load_workbook(sheets[0])
    assert [cell.value for cell in book.active[1]][1:] == ["Keel", "Rib"]
    assert book.active["A3"].value == "2 (9:40-10:40)"
    book.active["C3"] = "Knots\nLoft"
    book.save(sheets[0])
    assert built(plan, *sheets, "--as", "plan") == [f"Knots {at(8, *SECOND)} @ Loft"]
