"""A timetable in parts under its days, duties of a week, dates that name their bells, exams with sessions; open ends and months of repeats."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused, workbook

BELLS = "Period,Start,End\n1,09:00,09:50\n2,10:00,10:50"
TERM = "Name,First day,Last day\nAutumn,2026-11-30,2026-12-11"


def plan(folder: Path, tables: dict[str, str]) -> Path:
    source = folder / "year"
    source.mkdir()
    for name, rows in tables.items():
        (source / f"{name}.csv").write_text(rows + "\n", "utf-8")
    return source


PLANS: dict[str, tuple[dict[str, str], list[str]]] = {
    "the order of blocks on a sheet called after the bells": (
        {"bell schedule": ",Mon,Tue\n9:00-9:50,A,B\n10:00-10:50,B,A", "classes": "Class,Block,Teacher\nKnots,A,Quill\nTar,B,Perrin",
         "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-11-30T10:00/2026-11-30T10:50",
         "Tar 2026-12-01T09:00/2026-12-01T09:50", "Knots 2026-12-01T10:00/2026-12-01T10:50"],
    ),
    "ages and levels in brackets are of the name": (
        {"timetable": ",Mon,Tue\n9:00-9:50,Knots (5-7),Tar (beginners)\n10:00-10:50,Oak (Loft 1),Knots (adults)", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Knots (5-7) 2026-11-30T09:00/2026-11-30T09:50", "Oak 2026-11-30T10:00/2026-11-30T10:50 @ Loft 1",
         "Tar (beginners) 2026-12-01T09:00/2026-12-01T09:50", "Knots (adults) 2026-12-01T10:00/2026-12-01T10:50"],
    ),
    "what most look like rooms beside what none does": (
        {"timetable": ",Mon,Tue\n9:00-9:50,Kn (Quill) B12,Ta (Perrin) B4\n10:00-10:50,Oa (Finch) DS,Kn (Quill) B12", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Kn 2026-11-30T09:00/2026-11-30T09:50 @ B12", "Oa 2026-11-30T10:00/2026-11-30T10:50 @ DS",
         "Ta 2026-12-01T09:00/2026-12-01T09:50 @ B4", "Kn 2026-12-01T10:00/2026-12-01T10:50 @ B12"],
    ),
    "parts under their days, with their headings again": (
        {"timetable": "MONDAY,,\nTime,Class,Room\n9.00 - 10.15,Knots,Loft 1\n1.00 - 2.30,Oak,Shed 3\n,,\nTUESDAY,,\nTime,Class,Room\n9.00 - 10.15,Tar,Shed 2",
         "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-04"},
        ["Knots 2026-11-30T09:00/2026-11-30T10:15 @ Loft 1", "Oak 2026-11-30T13:00/2026-11-30T14:30 @ Shed 3", "Tar 2026-12-01T09:00/2026-12-01T10:15 @ Shed 2"],
    ),
    "parts under their days, with the headings once": (
        {"timetable": "Period,Class\nMonday,\n1,Knots\n2,Oak\nWednesday,\n2,Tar", "bells": BELLS, "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-04"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Oak 2026-11-30T10:00/2026-11-30T10:50", "Tar 2026-12-02T10:00/2026-12-02T10:50"],
    ),
    "dates that name their bells, classes with a column a label": (
        {"rotation 2026-27": "Date,Cycle day,Schedule\n2026-12-07,Keel,Regular\n2026-12-08,Rib,Late start\n2026-12-09,No school,\n2026-12-10,Keel,Regular",
         "regular bells": BELLS, "late start bells": "Period,Start,End\n1,10:00,10:30\n2,10:40,11:10", "master": "Course,Keel,Rib,Teacher\nKnots,1,2,Quill\nTar,2,1,Perrin"},
        ["Knots 2026-12-07T09:00/2026-12-07T09:50", "Tar 2026-12-07T10:00/2026-12-07T10:50", "Tar 2026-12-08T10:00/2026-12-08T10:30",
         "Knots 2026-12-08T10:40/2026-12-08T11:10", "Knots 2026-12-10T09:00/2026-12-10T09:50", "Tar 2026-12-10T10:00/2026-12-10T10:50"],
    ),
    "blocks that only the drawn week knows": (
        {"week": ",Mon,Tue\n9:00-9:50,Red,Blue\n10:00-10:50,Blue,Red", "courses": "Colour,Course,Room\nRed,Knots,Loft 1\nBlue,Tar,Shed 2",
         "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50 @ Loft 1", "Tar 2026-11-30T10:00/2026-11-30T10:50 @ Shed 2",
         "Tar 2026-12-01T09:00/2026-12-01T09:50 @ Shed 2", "Knots 2026-12-01T10:00/2026-12-01T10:50 @ Loft 1"],
    ),
    "letter days by months side by side": (
        {"calendar 26-27": "NOVEMBER,,DECEMBER,\nDate,Day,Date,Day\nThu 26,1,Tue 1,2\nFri 27,2,Wed 2,1\nMon 30,1,Thu 3,PD\n,,Fri 4,2",
         "classes": ",Day 1,Day 2\n9:00-10:00,Knots,Tar"},
        ["Knots 2026-11-26T09:00/2026-11-26T10:00", "Tar 2026-11-27T09:00/2026-11-27T10:00", "Knots 2026-11-30T09:00/2026-11-30T10:00",
         "Tar 2026-12-01T09:00/2026-12-01T10:00", "Knots 2026-12-02T09:00/2026-12-02T10:00", "Tar 2026-12-04T09:00/2026-12-04T10:00"],
    ),
    "letter days by months one below the other": (
        {"calendar": "2026-2027,,\nDecember,,\nTue,1,A\nWed,2,B\nThu,3,A\nJanuary,,\nMon,11,B\nTue,12,A\nWed,13,B", "classes": ",A,B\n9:00-10:00,Knots,Tar"},
        ["Knots 2026-12-01T09:00/2026-12-01T10:00", "Tar 2026-12-02T09:00/2026-12-02T10:00", "Knots 2026-12-03T09:00/2026-12-03T10:00",
         "Tar 2027-01-11T09:00/2027-01-11T10:00", "Knots 2027-01-12T09:00/2027-01-12T10:00", "Tar 2027-01-13T09:00/2027-01-13T10:00"],
    ),
    "weeks by the numbers behind their weekdays": (
        {"week": ",Mon 1,Tue 1,Wed 1,Mon 2,Tue 2,Wed 2\n1 9:00-9:50,Knots,,Tar,Oak,Knots,", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-09"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-12-02T09:00/2026-12-02T09:50",
         "Oak 2026-12-07T09:00/2026-12-07T09:50", "Knots 2026-12-08T09:00/2026-12-08T09:50"],
    ),
    "the order of the blocks of each day in a cell": (
        {"days": "Day,Order\nDay 1,A B C\nDay 2,B C A\nDay 3,C-A-B", "classes": "Block,Class\nA,Knots\nB,Tar\nC,Oak",
         "bells": "Period,Start,End\n1,9:00,9:50\n2,10:00,10:50\n3,11:00,11:50", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-02"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-11-30T10:00/2026-11-30T10:50", "Oak 2026-11-30T11:00/2026-11-30T11:50",
         "Tar 2026-12-01T09:00/2026-12-01T09:50", "Oak 2026-12-01T10:00/2026-12-01T10:50", "Knots 2026-12-01T11:00/2026-12-01T11:50",
         "Oak 2026-12-02T09:00/2026-12-02T09:50", "Knots 2026-12-02T10:00/2026-12-02T10:50", "Tar 2026-12-02T11:00/2026-12-02T11:50"],
    ),
    "weeks with their numbers and dates": (
        {"teaching": "Week,Starting\nWeek 1,30/11/2026\nWeek 2,07/12/2026\nReading week,14/12/2026\nWeek 3,21/12/2026",
         "classes": "Class,Day,Start,End,Weeks\nKnots,Mon,9:00,10:00,1-3\nTar,Tue,9:00,10:00,odd\nOak,Wed,9:00,10:00,2"},
        ["Knots 2026-11-30T09:00/2026-11-30T10:00", "Knots 2026-12-07T09:00/2026-12-07T10:00", "Knots 2026-12-21T09:00/2026-12-21T10:00",
         "Tar 2026-12-01T09:00/2026-12-01T10:00", "Tar 2026-12-22T09:00/2026-12-22T10:00", "Oak 2026-12-09T09:00/2026-12-09T10:00"],
    ),
    "weeks A and B of a short list": (
        {"weeks": "W/C,Week\n2026-11-30,B\n2026-12-07,A\n2026-12-14,B", "timetable": "Week,Day,Period,Class\nA,Mon,1,Knots\nB,Mon,2,Tar", "bells": BELLS},
        ["Tar 2026-11-30T10:00/2026-11-30T10:50", "Knots 2026-12-07T09:00/2026-12-07T09:50", "Tar 2026-12-14T10:00/2026-12-14T10:50"],
    ),
    "bells for several days beside a break": (
        {"bell times": ",Mon/Tue,Wed\nP1,08:40-09:30,08:40-09:20\nBreak,09:30-09:50,09:20-09:40\nP2,09:50-10:40,09:40-10:20",
         "classes": "Class,Mon,Tue,Wed\nKnots,P1,,P2\nTar,P2,P1,", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-02"},
        ["Knots 2026-11-30T08:40/2026-11-30T09:30", "Tar 2026-11-30T09:50/2026-11-30T10:40", "Tar 2026-12-01T08:40/2026-12-01T09:30", "Knots 2026-12-02T09:40/2026-12-02T10:20"],
    ),
    "duties of a week": (
        {"duties": "Duty,Mon,Tue\nGate 8:15-8:40,Quill,Perrin\nBreak 10:25-10:45,Perrin,–", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Gate: Quill 2026-11-30T08:15/2026-11-30T08:40", "Break: Perrin 2026-11-30T10:25/2026-11-30T10:45", "Gate: Perrin 2026-12-01T08:15/2026-12-01T08:40"],
    ),
    "dates under a title, with their bells and what is on": (
        {"calendar": "DECEMBER 2026,,,\nDate,Cycle,Event,Bell\n2026-12-07,Keel,,Regular\n2026-12-08,Rib,Assembly,Assembly\n2026-12-09,Keel,,Regular",
         "timetable": "Class,Keel,Rib\nKnots,1,2", "bells": "Schedule,Period,Start,End\nRegular,1,9:00,10:00\nRegular,2,10:10,11:00\nAssembly,1,9:30,10:20\nAssembly,2,10:30,11:20"},
        ["Knots 2026-12-07T09:00/2026-12-07T10:00", "Knots 2026-12-08T10:30/2026-12-08T11:20", "Knots 2026-12-09T09:00/2026-12-09T10:00"],
    ),
    "groups over the classes that they have": (
        {"timetable": "Day,Period,7A,7B\nMon,1,Knots,Tar\nTue,2,Oak,", "bells": BELLS, "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-01"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-11-30T09:00/2026-11-30T09:50", "Oak 2026-12-01T10:00/2026-12-01T10:50"],
    ),
    "days with their times over rooms, and the end of the day": (
        {"rooms": "Room,Mon 9-10,Mon 10-11,Tue 9-10,Tue 10-11\nLoft 1,Knots (Quill),Oak (Perrin),,Knots (Quill)\nShed 2,Tar (Dory),,Tar (Dory),Oak (Perrin)",
         "dates": "Term starts,2026-11-30\nTerm ends,2026-12-01"},
        [f"{n} 2026-{d}T{a}:00/2026-{d}T{b}:00 @ {r}" for n, d, a, b, r in (
            ("Knots", "11-30", "09", "10", "Loft 1"), ("Oak", "11-30", "10", "11", "Loft 1"), ("Knots", "12-01", "10", "11", "Loft 1"),
            ("Tar", "11-30", "09", "10", "Shed 2"), ("Tar", "12-01", "09", "10", "Shed 2"), ("Oak", "12-01", "10", "11", "Shed 2"))],
    ),
    "a line that is the end of the day": (
        {"timetable": ",Monday,Tuesday\n08:45,Knots,Tar\n09:45,Oak,Knots\n10:45,BREAK,BREAK\n11:00,Tar,Oak\n12:00,End,End", "terms": "Name,First day,Last day\nA,2026-11-30,2026-11-30"},
        ["Knots 2026-11-30T08:45/2026-11-30T09:45", "Oak 2026-11-30T09:45/2026-11-30T10:45", "Tar 2026-11-30T11:00/2026-11-30T12:00"],
    ),
    "slots that name their day and period": (
        {"quill": "Slot,Class,Room\nDay 1 Period 1,Knots,L1\nDay 1 Period 2,Free,\nDay 2 Period 2,Tar,S2", "bells": "Period 1,8:45,9:35\nPeriod 2,9:40,10:30", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-02"},
        ["Knots 2026-11-30T08:45/2026-11-30T09:35 @ L1", "Tar 2026-12-01T09:40/2026-12-01T10:30 @ S2", "Knots 2026-12-02T08:45/2026-12-02T09:35 @ L1"],
    ),
    "letter days of two weeks": (
        {"classes": "Code,Name,Meets\nRIG,Rigging,A1 B2\nTAR,Tar,A2 B1", "letter days": "Date,Letter\n2026-11-30,A\n2026-12-01,B\n2026-12-02,A", "times": "Block,Begin,Finish\n1,8:45,9:45\n2,9:50,10:50"},
        [f"{n} 2026-{d}T{'08:45' if p == 1 else '09:50'}/2026-{d}T{'09:45' if p == 1 else '10:50'}" for n, d, p in (
            ("Rigging", "11-30", 1), ("Tar", "11-30", 2), ("Tar", "12-01", 1), ("Rigging", "12-01", 2), ("Rigging", "12-02", 1), ("Tar", "12-02", 2))],
    ),
    "timetables A and B beside the weeks of the year": (
        {"year plan": "Week,Date,Mon,Tue,Wed,Thu,Fri\n1,30 Nov 2026,A,A,A,A,A\n2,7 Dec 2026,B,B,PD,B,B", "timetable A": "Period,Mon,Tue\n1 (9-10),Knots,Tar\n2 (10-11),Tar,Knots",
         "timetable B": "Period,Mon,Tue\n1 (9-10),Oak,Knots\n2 (10-11),Knots,Oak"},
        [f"{n} 2026-{d}T{h}:00/2026-{d}T{h + 1:02}:00" if h > 9 else f"{n} 2026-{d}T09:00/2026-{d}T10:00" for n, d, h in (
            ("Knots", "11-30", 9), ("Tar", "11-30", 10), ("Tar", "12-01", 9), ("Knots", "12-01", 10), ("Oak", "12-07", 9), ("Knots", "12-07", 10), ("Knots", "12-08", 9), ("Oak", "12-08", 10))],
    ),
    "a term in French that is short": (
        {"emploi du temps": "Horaire,Lundi,Mardi,Mercredi\n8h30-9h25,Voilerie,Bois,\n9h30-10h25,Bois,Voilerie,", "calendrier": "Trimestre,Début,Fin\nAutomne,2026-11-30,2026-12-01"},
        ["Voilerie 2026-11-30T08:30/2026-11-30T09:25", "Bois 2026-11-30T09:30/2026-11-30T10:25", "Bois 2026-12-01T08:30/2026-12-01T09:25", "Voilerie 2026-12-01T09:30/2026-12-01T10:25"],
    ),
    "dates that name one of several schedules": (
        {"schedule": "Period,Regular,Early release\n1,8:30-9:20,8:30-9:00\n2,9:25-10:15,9:05-9:35", "classes": "Period,Class,Days\n1,Knots,M W F\n2,Tar,M-F",
         "special dates": "Date,Schedule\n2026-12-02,Early release", "year": "Quarter,First,Last\nQ2,2026-12-01,2026-12-02"},
        ["Tar 2026-12-01T09:25/2026-12-01T10:15", "Knots 2026-12-02T08:30/2026-12-02T09:00", "Tar 2026-12-02T09:05/2026-12-02T09:35"],
    ),
    "dates before their names, and whose a drawing is": (
        {"week": "Teacher: Quill,,\nPeriod,Day 1,Day 2\n1,Knots,\nTeacher: Perrin,,\nPeriod,Day 1,Day 2\n1,Tar,Tar", "bells": BELLS,
         "term": "Autumn,2026-11-30,2026-12-02", "off": "2026-12-01,PD day"},
        ["Knots 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-11-30T09:00/2026-11-30T09:50", "Tar 2026-12-02T09:00/2026-12-02T09:50"],
    ),
    "initials of teachers, and half a term by its number": (
        {"apprentices": ",,Mon,Tue\nLesson 1,8:40,Knots (Q),Tar (P)\nLesson 2,9:40,Tar (P),Knots (Q)\nFinish,10:40,,", "teachers": "Initial,Teacher\nQ,Quill\nP,Perrin",
         "dates": "Autumn half-term 2,30 Nov 2026,1 Dec 2026\nINSET,4 Dec 2026,4 Dec 2026", "settings": "Setting,Value\nTime zone,"},
        ["Knots 2026-11-30T08:40/2026-11-30T09:40", "Tar 2026-11-30T09:40/2026-11-30T10:40", "Tar 2026-12-01T08:40/2026-12-01T09:40", "Knots 2026-12-01T09:40/2026-12-01T10:40"],
    ),
    "days of weeks A and B in German, beside their dates": (
        {"kalender": "Datum,Woche,Anlass\n2026-11-30,A,\n2026-12-07,B,", "stundenplan": "Stunde,Zeit,Montag A,Montag B,Dienstag A,Dienstag B,Mittwoch A,Mittwoch B\n1,08:00-08:45,Takeln,Holz,,Takeln,Holz,\n2,08:50-09:35,Holz,Takeln,,,,Holz"},
        ["Takeln 2026-11-30T08:00/2026-11-30T08:45", "Holz 2026-11-30T08:50/2026-11-30T09:35", "Holz 2026-12-02T08:00/2026-12-02T08:45", "Holz 2026-12-07T08:00/2026-12-07T08:45",
         "Takeln 2026-12-07T08:50/2026-12-07T09:35", "Takeln 2026-12-08T08:00/2026-12-08T08:45", "Holz 2026-12-09T08:50/2026-12-09T09:35"],
    ),
    "key dates in Spanish": (
        {"horarios": "Hora,Lunes,Martes,Miércoles\n8:00 a 8:50,Nudos,Madera,Velas\nRECREO,,,\n9:20 a 10:10,Velas,Nudos,", "calendario": "Evento,Inicio,Fin\nInicio de clases,2026-11-30,\nFeriado,2026-12-01,\nFin de clases,2026-12-02,"},
        ["Nudos 2026-11-30T08:00/2026-11-30T08:50", "Velas 2026-11-30T09:20/2026-11-30T10:10", "Velas 2026-12-02T08:00/2026-12-02T08:50"],
    ),
    "a sheet for each day, and the dates of the days": (
        {"a day": "Period,Start,End,Class\n1,9:00,10:00,Knots", "b day": "Period,Start,End,Class\n1,9:00,10:00,Oak", "calendar": "Date,Day\n2027-01-11,A\n2027-01-12,B\n2027-01-13,B"},
        ["Knots 2027-01-11T09:00/2027-01-11T10:00", "Oak 2027-01-12T09:00/2027-01-12T10:00", "Oak 2027-01-13T09:00/2027-01-13T10:00"],
    ),
    "numbers behind days are periods where there are bells": (
        {"classes": "Class,Pattern\nKnots,Mon 1+2; Thu 2\nTar,Tue 1-2", "bells": "Period,Start,End\n1,9:00,9:50\n2,9:50,10:40", "term": "Spring,2027-01-11,2027-01-15"},
        ["Knots 2027-01-11T09:00/2027-01-11T10:40", "Tar 2027-01-12T09:00/2027-01-12T10:40", "Knots 2027-01-14T09:50/2027-01-14T10:40"],
    ),
    "key dates in one cell each, and a day that has another's classes": (
        {"timetable": "Day,Time,Class\nMon,9-10,Knots\nTue,10-11,Tar", "term dates": "Term starts 11 January 2027\nMonday classes meet on Tuesday 12 January 2027\nTerm ends 12 January 2027"},
        ["Knots 2027-01-11T09:00/2027-01-11T10:00", "Knots 2027-01-12T09:00/2027-01-12T10:00"],
    ),
    "days side by side with columns of their own": (
        {"schedule": "Day 1,,,Day 2,,\nTime,Class,Room,Time,Class,Room\n8:30-9:20,Knots,L1,8:30-9:20,Tar,S2\n9:25-10:15,Oak,S3,,,", "calendar": "Date,Day type\n2027-01-11,Day 1\n2027-01-12,Day 2\n2027-01-13,No school\n2027-01-14,Day 1"},
        ["Knots 2027-01-11T08:30/2027-01-11T09:20 @ L1", "Oak 2027-01-11T09:25/2027-01-11T10:15 @ S3", "Tar 2027-01-12T08:30/2027-01-12T09:20 @ S2",
         "Knots 2027-01-14T08:30/2027-01-14T09:20 @ L1", "Oak 2027-01-14T09:25/2027-01-14T10:15 @ S3"],
    ),
    "days side by side with nothing over their times": (
        {"week": "Monday,,Tuesday,\n8:45-9:35,Knots,9:00-10:00,Tar\n,,10:15-11:15,Oak", "term": "Spring,2027-01-11,2027-01-12"},
        ["Knots 2027-01-11T08:45/2027-01-11T09:35", "Tar 2027-01-12T09:00/2027-01-12T10:00", "Oak 2027-01-12T10:15/2027-01-12T11:15"],
    ),
    "bells side by side for lists of days": (
        {"bells": "Mon Tue,,,Wednesday,,\nPeriod,Start,End,Period,Start,End\n1,8:30,9:20,1,9:30,10:10\n2,9:25,10:15,2,10:15,10:55", "timetable": "Class,Period,Days\nKnots,1,Mon-Wed",
         "terms": "Term,Dates\nWinter,11 Jan 2027 - 13 Jan 2027"},
        ["Knots 2027-01-11T08:30/2027-01-11T09:20", "Knots 2027-01-12T08:30/2027-01-12T09:20", "Knots 2027-01-13T09:30/2027-01-13T10:10"],
    ),
    "exams beside the times of their sessions": (
        {"exams": "Date,Session,Paper,Room\n2026-12-07,AM,Knots 1,Loft\n2026-12-07,PM,Tar 1,Shed", "sessions": "Session,Start,End\nAM,9:00,11:00\nPM,13:30,15:00"},
        ["Knots 1 2026-12-07T09:00/2026-12-07T11:00 @ Loft", "Tar 1 2026-12-07T13:30/2026-12-07T15:00 @ Shed"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", PLANS)
def test_tables_of_a_school(kind: str, tmp_path: Path) -> None:
    tables, events = PLANS[kind]
    options = ("--cell", "class (teacher)") if "(Q)" in "".join(tables.values()) else ()
    assert sorted(built(plan(tmp_path, tables), "--as", "plan", *options)) == sorted(events)


WEEKS = 'Class,Day,Start,End,Weeks\nKnots,Mon,9:00,10:00,"1, 3"'
ASKED = {
    "numbers with a hole": ({"weeks": "Week,Date\n1,2026-11-30\n2,2026-12-07\n4,2026-12-21"}, "its numbers do not go up by one from 1"),
    "a holiday beside a week": ({"weeks": "Week,Date,Notes\n1,2026-11-30,\n2,2026-12-07,\n3,2026-12-14,Mon holiday"}, "“Mon holiday” beside week 3"),
    "terms beside them": (
        {"weeks": "Week,Date\n1,2026-11-30\n2,2026-12-07\n3,2026-12-21", "terms": "Name,First day,Last day\nA,2026-11-30,2026-12-24"},
        "both weeks and terms could count them",
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", ASKED)
def test_weeks_that_do_not_count_what_classes_name_are_asked_about(kind: str, tmp_path: Path) -> None:
    tables, said = ASKED[kind]
    source = plan(tmp_path, {**tables, "classes": WEEKS})
    assert said in refused(source, "--as", "plan", "--from", "2026-11-30", "--until", "2026-12-24")


def test_every_row_of_parts_is_accounted_for(tmp_path: Path) -> None:
    source = plan(tmp_path, PLANS["parts under their days, with their headings again"][0])
    said = nomarium("build", source, "-o", tmp_path / "o.ics", "--as", "plan", "--details").out
    assert "3 used + 1 blank + 3 notes" in said
    assert "a line that is a day (Monday and Tuesday)" in said


@pytest.mark.parametrize("line", ["Keel,,", "Keel,,\n"])
def test_a_line_that_is_no_time_is_no_free_period(line: str, tmp_path: Path) -> None:
    rows = f"Time,Class,Room\n{line.strip()}\n9.00 - 10.15,Knots,Loft 1\n10.30 - 11.30,Oak,Shed 3"
    source = plan(tmp_path, {"timetable": rows, "terms": TERM})
    assert "“Keel”" in refused(source, "--as", "plan")


def test_bells_of_labels_without_dates_are_asked_about(tmp_path: Path) -> None:
    tables = {
        "cycle": "Label,Bells\nKeel,Regular\nRib,Late start",
        "bells": BELLS,
        "timetable": "Class,Label,Period\nKnots,Keel,1",
        "terms": TERM,
    }
    assert "The table names bells, and no date on which they ring." in refused(plan(tmp_path, tables), "--as", "plan")  # fmt: skip


def test_a_weekly_roster_of_duties_needs_its_weeks(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Duty,Time,Mon,Tue\nGate,8:15-8:40,Quill,Perrin")
    assert "--from 2026-09-07" in refused(source)
    assert built(source, "--from", "2026-12-07", "--until", "2026-12-08") == [
        "Gate: Quill 2026-12-07T08:15/2026-12-07T08:40",
        "Gate: Perrin 2026-12-08T08:15/2026-12-08T08:40",
    ]


def test_a_timetable_that_is_not_read_is_not_left_out_silently(tmp_path: Path) -> None:
    more = {"Lesson timetable": [["Knots", "mornings", "Quill"], ["Tar", "evenings from 19:00", "Perrin"]]}
    source = workbook(tmp_path, [["Date", "Event"], ["2026-12-07", "Trials"]], more=more)
    said = refused(source)
    assert "only Events could be read and not “Lesson timetable”" in said
    assert '--sheet "Events"' in said
    assert built(source, "--sheet", "Events") == ["Trials 2026-12-07/2026-12-08"]


def test_weekdays_without_weeks_are_not_left_out_silently(tmp_path: Path) -> None:
    more = {
        "Squads": [["Squad", "Monday", "Tuesday"], ["Minnows", "4-5pm", "5-6pm"], ["Sharks", "6-7pm", ""]]
    }
    source = workbook(tmp_path, [["Date", "Event"], ["2026-12-07", "Gala"]], more=more)
    said = refused(source)
    assert "not “Squads”" in said
    assert "--from FIRST --until LAST" in said
    found = built(source, "--from", "2026-12-07", "--until", "2026-12-08")
    assert sorted(found) == ["Gala 2026-12-07/2026-12-08", "Minnows 2026-12-07T16:00/2026-12-07T17:00",
                             "Minnows 2026-12-08T17:00/2026-12-08T18:00", "Sharks 2026-12-07T18:00/2026-12-07T19:00"]  # fmt: skip


LISTS: dict[str, tuple[str, list[str]]] = {
    "open ends and times in words": (
        "Date,Time,Event\n2026-12-07,10am till late,Jumble\n2026-12-08,half past 8,Board\n2026-12-09,a quarter to 11 am,Choir\n2026-12-10,6pm - dusk,Rowing",
        ["Jumble 2026-12-07T10:00/2026-12-07T11:00", "Board 2026-12-08T08:30/2026-12-08T09:30", "Choir 2026-12-09T10:45/2026-12-09T11:45",
         "Rowing 2026-12-10T18:00/2026-12-10T19:00"],
    ),
    "a number of places is no place": ("Date,Course,Places\n2026-12-07,Knots,12\n2026-12-08,Tar,8", ["Knots 2026-12-07/2026-12-08", "Tar 2026-12-08/2026-12-09"]),
    "an empty booking is no event": ("Date,Booked by,Hours\n2026-12-07,Choir,6-8pm\n2026-12-08,(empty),", ["Choir 2026-12-07T18:00/2026-12-07T20:00"]),
    "repeats within a month": (
        'When,What\n"Tuesdays in Dec except 29 Dec, 19.00",Choir\n2nd Thursday of January 6pm,Board',
        ["Board 2027-01-14T18:00/2027-01-14T19:00", *(f"Choir 2026-12-{day}T19:00/2026-12-{day}T20:00" for day in ("01", "08", "15", "22"))],
    ),
    "times that are called after their dates": (
        "Booking,Hirer,Arrive,Arrive time,Depart,Depart time\nB1,Tern,05/12/2026,14:00,07/12/2026,10:00\nB2,Gull,13/12/2026,15:30,13/12/2026,18:00",
        ["Gull 2026-12-13T15:30/2026-12-13T18:00", "Tern 2026-12-05T14:00/2026-12-07T10:00"],
    ),
    "rows that are only counted, without headings": (
        '"Session 1","Mon 7 Dec","9am","Ropes"\n"Session 2","Mon 7 Dec","1pm","Spars"', ["Ropes 2026-12-07T09:00/2026-12-07T10:00", "Spars 2026-12-07T13:00/2026-12-07T14:00"],
    ),
    "sessions across whose times stand below": (
        "Date,Session 1,Session 2\n7 Dec 2026,Knots,Tar\n8 Dec 2026,Oak,\nSession 1 = 9-10.30; Session 2 = 11-12.30,,",
        ["Knots 2026-12-07T09:00/2026-12-07T10:30", "Oak 2026-12-08T09:00/2026-12-08T10:30", "Tar 2026-12-07T11:00/2026-12-07T12:30"],
    ),
    "halves across whose times stand above": (
        '"AM 9.00-12.00, PM 1.00-4.00",,\nDate,AM,PM\n7 Dec 2026,Knots,Tar\n8 Dec 2026,Oak,Sail',
        ["Knots 2026-12-07T09:00/2026-12-07T12:00", "Oak 2026-12-08T09:00/2026-12-08T12:00", "Sail 2026-12-08T13:00/2026-12-08T16:00", "Tar 2026-12-07T13:00/2026-12-07T16:00"],
    ),
    "rows that name a half whose times stand below": (
        "Date,Session,What\n7 Dec 2026,AM,Knots\n8 Dec 2026,PM,Tar\n,,\nAM = 9-12; PM = 1-4,,", ["Knots 2026-12-07T09:00/2026-12-07T12:00", "Tar 2026-12-08T13:00/2026-12-08T16:00"],
    ),
    "days of a course, each at its times": (
        "Course,Day 1,Day 2,Times\nCaulking,12 Jan 2027,13 Jan 2027,9-4\nSpars,19 Jan 2027,,9-4",
        ["Caulking 2027-01-12T09:00/2027-01-12T16:00", "Caulking 2027-01-13T09:00/2027-01-13T16:00", "Spars 2027-01-19T09:00/2027-01-19T16:00"],
    ),
    "a drawn month that is named below it": (
        "Sun,Mon,Tue,Wed,Thu,Fri,Sat\n,,1,2,3,4,5\n,,Knots 6pm,,,Fair,\n6,7,8,9,10,11,12\n,Board 7pm,,,,,\nDecember 2026,,,,,,",
        ["Board 2026-12-07T19:00/2026-12-07T20:00", "Fair 2026-12-04/2026-12-05", "Knots 2026-12-01T18:00/2026-12-01T19:00"],
    ),
    "days counted in German": ("Name;von;bis;Tage\nQuill;21.12.2026;31.12.2026;7", ["Quill 2026-12-21/2027-01-01"]),
    "an open end in a column of ends": ("Date,Start,End,What\n2026-12-07,18:30,open end,Fair", ["Fair 2026-12-07T18:30/2026-12-07T19:30"]),
    "months that run to December": (
        "What,Repeat,Date\nChoir,every Tuesday Nov–Dec,2026-11-24", [f"Choir {day}/{end}" for day, end in (
            ("2026-11-24", "2026-11-25"), ("2026-12-01", "2026-12-02"), ("2026-12-08", "2026-12-09"), ("2026-12-15", "2026-12-16"), ("2026-12-22", "2026-12-23"), ("2026-12-29", "2026-12-30"))],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", LISTS)
def test_rows_of_lists(kind: str, tmp_path: Path) -> None:
    rows, events = LISTS[kind]
    source = tmp_path / "list.csv"
    source.write_text(rows + "\n", "utf-8")
    options = ("--column", "Hirer=summary") if "Hirer" in rows else ()
    assert sorted(built(source, "--school-year", "2026:2027", *options)) == sorted(events)


def test_a_month_without_a_name_is_no_week_by_any_advice(tmp_path: Path) -> None:
    rows = "Sun,Mon,Tue,Wed,Thu,Fri,Sat\n,,1,2,3,4,5\n,,Knots,,,Fair,\n6,7,8,9,10,11,12"
    source = csv_file(tmp_path, rows)
    assert "nothing says which month it is" in refused(source)
    assert "nothing says which month it is" in refused(source, "--day-one", "2026-11-29")


def test_a_time_beside_several_dates_is_of_one_of_them(tmp_path: Path) -> None:
    rows = "Event,Last met,Next meeting,Time\nSafety,3 Nov 2026,8 Dec 2026,10:00"
    source = csv_file(tmp_path, rows)
    said = refused(source)
    assert "says a time, and not of which date" in said
    assert '--column "Next meeting=date"' in said
    assert built(source, "--column", "Next meeting=date", "--column", "Last met=") == [
        "Safety 2026-12-08T10:00/2026-12-08T11:00"
    ]


def test_the_times_in_the_heads_of_a_roster_that_was_asked_for(tmp_path: Path) -> None:
    rows = "Date,Lesson 1 (9:00-9:50),Duty\nMon 7 Dec 2026,Knots,Dory\nTue 8 Dec 2026,Oak,Quill"
    assert built(csv_file(tmp_path, rows), "--as", "roster") == [
        "Lesson 1: Knots 2026-12-07T09:00/2026-12-07T09:50",
        "Duty: Dory 2026-12-07/2026-12-08",
        "Lesson 1: Oak 2026-12-08T09:00/2026-12-08T09:50",
        "Duty: Quill 2026-12-08/2026-12-09",
    ]


CANCELLED = {
    "a list": "Date,Event\n5 Dec 2026,Trials – POSTPONED\n6 Dec 2026,Race (postponed)\n7 Dec 2026,Talk - cancelled\n8 Dec 2026,Fair CANCELLED\n9 Dec 2026,Oak Annulled",
    "a month": "December 2026,,,,,,\nSun,Mon,Tue,Wed,Thu,Fri,Sat\n,,1,2,3,4,5\n,,,,,,Trials – POSTPONED\n6,7,8,9,10,11,12\nRace (postponed),Talk - cancelled,Fair CANCELLED,Oak Annulled,,,",
    "a grid": "Time,5 Dec 2026,6 Dec 2026,7 Dec 2026,8 Dec 2026,9 Dec 2026\n9:00,Trials – POSTPONED,Race (postponed),Talk - cancelled,Fair CANCELLED,Oak Annulled",
}


@pytest.mark.parametrize("kind", CANCELLED)
def test_words_behind_a_title_cancel_it(kind: str, tmp_path: Path) -> None:
    source = tmp_path / "events.csv"
    source.write_text(CANCELLED[kind] + "\n", "utf-8")
    said = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert said.status == 0, said.text
    found = {str(event["SUMMARY"]): str(event.get("STATUS", "")) for event in events_in(tmp_path / "o.ics")}
    assert found == {
        "Trials – POSTPONED": "CANCELLED", "Race (postponed)": "CANCELLED", "Talk": "CANCELLED", "Fair": "CANCELLED", "Oak Annulled": "",
    }  # fmt: skip
    assert "4 rows" in said.text


@pytest.mark.parametrize(
    ("rows", "options"),
    [
        ("Time,7 Dec 2026,8 Dec 2026\n9:00,Knots,Oak\n9:30,|,Tar\n10:00,Break,Break", ()),
        (',Mon,Tue\n9:00,Knots,Tar\n10:00,"""",Oak', ("--from", "2026-12-07", "--until", "2026-12-08")),
        ("Date,Time,Event\n7 Dec 2026,14:00,Knots\n8 Dec 2026,14:00,ditto", ()),
    ],
)
def test_a_sign_for_the_cell_above_is_no_title(rows: str, options: tuple[str, ...], tmp_path: Path) -> None:
    source = tmp_path / "week.csv"
    source.write_text(rows + "\n", "utf-8")
    assert "row 3" in refused(source, *options)


def test_weeks_on_sheets_of_their_own_are_each_in_the_week_that_they_name(tmp_path: Path) -> None:
    weeks = {
        f"Week {n}": [
            [f"Date: {day} January 2027"],
            ["", "Mon", "Tue"],
            ["AM", "Forge", "Loft"],
            ["PM", "Loft", "Forge"],
        ]
        for n, day in ((1, 11), (2, 18))
    }
    source = workbook(tmp_path, [], more=weeks)
    assert sorted({one.split(" ")[2] for one in built(source)}) == [
        f"2027-01-{a}/2027-01-{b}" for a, b in ((11, 12), (12, 13), (18, 19), (19, 20))
    ]


def test_repeats_in_a_column_of_notes_are_asked_about(tmp_path: Path) -> None:
    rows = 'What,When,Notes\nBoard,7 Dec 2026 7pm,bring keys\nChoir,"Tue 8 Dec 2026, 7:30 PM",weekly until 15 Dec'
    source = csv_file(tmp_path, rows)
    said = refused(source)
    assert "“weekly until 15 Dec” in the column “Notes” says how a row repeats" in said
    assert len(built(source, "--column", "Notes=description")) == 2
    source = csv_file(tmp_path, rows.replace("bring keys", ""), "again.csv")
    assert built(source, "--column", "Notes=repeat") == [
        "Board 2026-12-07T19:00/2026-12-07T20:00",
        "Choir 2026-12-08T19:30/2026-12-08T20:30",
        "Choir 2026-12-15T19:30/2026-12-15T20:30",
    ]


def test_a_day_without_service_in_a_roster_is_counted(tmp_path: Path) -> None:
    rows = "Date,Reader,Greeter\n6 Dec 2026,Quill,Perrin\n27 Dec 2026,NO SERVICE,"
    said = nomarium("build", csv_file(tmp_path, rows), "-o", tmp_path / "o.ics", "--as", "roster")
    assert "2 entries read = 2 events" in said.out or "3 entries read = 2 events" in said.out
    assert "1 cell says that nothing happens" in said.out


def test_open_ends_and_times_in_words_in_lines(tmp_path: Path) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(
        "Open weekend\n\nSat 5 December 2026, 10am till late: Jumble, Slip 2\nSun 6 December 2026, 10am till dusk (Slip 1): Rowing\n"
        "Mon 7 December 2026, half past 8: Board\nSat 12 December 2026, 10am till late Winter fair\n",
        "utf-8",
    )
    assert built(source) == [
        "Jumble 2026-12-05T10:00/2026-12-05T11:00 @ Slip 2",
        "Rowing 2026-12-06T10:00/2026-12-06T11:00 @ Slip 1",
        "Board 2026-12-07T08:30/2026-12-07T09:30",
        "Winter fair 2026-12-12T10:00/2026-12-12T11:00",
    ]
    assert "The end is not known yet" in nomarium("build", source, "-o", tmp_path / "o.ics").out


@pytest.mark.parametrize(
    "text",
    [
        "Monday,,,\n09:00,Knots,Loft 1,Quill\n09:30,Tar,Loft 2,Moss\n10:30,Break,,\nTuesday,,,\n09:00,Oak,Shed,Barr",
        "Day,Time,Lesson,Room,Teacher\nMonday,,,,\n,09:00,Knots,Loft 1,Quill\n,09:30,Tar,Loft 2,Moss\nTuesday,,,,\n,09:00,Oak,Shed,Barr",
    ],
    ids=["without headings", "in a column of their own"],
)
def test_days_in_rows_of_their_own_over_classes(text: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, text)
    window = ("--from", "2026-09-07", "--until", "2026-09-11")
    assert built(source, *window) == [
        "Knots 2026-09-07T09:00/2026-09-07T10:00 @ Loft 1",
        "Tar 2026-09-07T09:30/2026-09-07T10:30 @ Loft 2",
        "Oak 2026-09-08T09:00/2026-09-08T10:00 @ Shed",
    ]
    said = nomarium("build", source, "-o", tmp_path / "x.ics", *window).text
    assert "last 60 minutes, and “Knots” so runs on into “Tar”" in " ".join(said.split())
    assert built(source, *window, "--default-length", "30m")[0].endswith("T09:30 @ Loft 1")
