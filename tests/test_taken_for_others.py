"""What can be taken for something else: nights, names, verses, prices, lists of days. Each is read as a person reads it, or refused."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused, workbook
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.memo import TextMemo
from nomarium.reading.cells.times import Times, read_times
from nomarium.reading.cells.verses import is_verse
from nomarium.reading.cells.words import ENGLISH
from nomarium.reading.columns.datelists import days_in
from nomarium.reading.layouts.slots import Line, after_midnight, line_ends, time_of
from test_own_tables import plan_book

WEEK = ("--from", "2026-09-07", "--until", "2026-09-08")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "times under headings run forward through each row": (
        "Date,Matins,Dawn,Vespers,Late\n7 Sep 2026,5:52,7:31,5:25,7:01", (),
        ["Dawn 2026-09-07T07:31/2026-09-07T08:31", "Late 2026-09-07T19:01/2026-09-07T20:01", "Matins 2026-09-07T05:52/2026-09-07T06:52",
         "Vespers 2026-09-07T17:25/2026-09-07T18:25"],
    ),
    "times under the headings of titles, two in a cell, and the place of all": (
        "Date,Get-in,Show,Venue\n7 Sep 2026,9am,2.30pm & 7.30pm,Hall", (),
        ["Get-in 2026-09-07T09:00/2026-09-07T10:00 @ Hall", "Show 2026-09-07T14:30/2026-09-07T15:30 @ Hall", "Show 2026-09-07T19:30/2026-09-07T20:30 @ Hall"],
    ),
    "nights of a grid are on the next morning": (
        "Time,Mon 7 Sep 2026,Tue 8 Sep 2026\n18:00,A,B\n22:00,C,\n00:30,,D\n2:00,E,", (),
        ["A 2026-09-07T18:00/2026-09-07T22:00", "B 2026-09-08T18:00/2026-09-08T22:00", "C 2026-09-07T22:00/2026-09-08T00:30", "D 2026-09-09T00:30/2026-09-09T02:00",
         "E 2026-09-08T02:00/2026-09-08T06:00"],
    ),
    "nights of a programme": (
        "Saturday 12 September 2026,,\nTime,Hall,Loft\n20:00,A,B\n22:00,C,\n00:00,,D", (),
        ["A 2026-09-12T20:00/2026-09-12T22:00 @ Hall", "B 2026-09-12T20:00/2026-09-12T22:00 @ Loft", "C 2026-09-12T22:00/2026-09-13T00:00 @ Hall",
         "D 2026-09-13T00:00/2026-09-13T02:00 @ Loft"],
    ),
    "a shift over midnight in a drawn week": (
        "Shift,Mon,Tue\n15:00-23:00,A,B\n23:00-07:00,B,A", WEEK,
        ["A 2026-09-07T15:00/2026-09-07T23:00", "A 2026-09-08T23:00/2026-09-09T07:00", "B 2026-09-07T23:00/2026-09-08T07:00", "B 2026-09-08T15:00/2026-09-08T23:00"],
    ),
    "classes of a programme with dots for times": (
        "Evening of 12 November 2026,,\nSlot,7A,8A\n4.00,Quill,\n4.10,Barr,Osei", (),
        ["Barr (7A) 2026-11-12T16:10/2026-11-12T16:20", "Osei (8A) 2026-11-12T16:10/2026-11-12T16:20", "Quill (7A) 2026-11-12T16:00/2026-11-12T16:10"],
    ),
    "nights that begin by the 24-hour clock, over the rows of a grid": (
        "Time,Mon 7 Sep 2026,Tue 8 Sep 2026\n07:30-20:00,A,B\n19:30-8:00,C,D", (),
        ["A 2026-09-07T07:30/2026-09-07T20:00", "B 2026-09-08T07:30/2026-09-08T20:00", "C 2026-09-07T19:30/2026-09-08T08:00", "D 2026-09-08T19:30/2026-09-09T08:00"],
    ),
    "such nights in the key of a roster": (
        "Ward,7 Sep 2026,8 Sep 2026\nOsei,LD,N\nBarr,N,LD\nLD = 0730-2000; N = 1930-0800,,", (),
        ["Barr: LD 2026-09-08T07:30/2026-09-08T20:00", "Barr: N 2026-09-07T19:30/2026-09-08T08:00", "Osei: LD 2026-09-07T07:30/2026-09-07T20:00",
         "Osei: N 2026-09-08T19:30/2026-09-09T08:00"],
    ),
    "late shifts beside nights by the 24-hour clock": (
        ",Early 7-3,Late 3-11,Night 22:30-7:30\nMon 7 Sep 2026,Osei,Barr,Lund\nTue 8 Sep 2026,Barr,Lund,Osei", (),
        ["Barr 2026-09-07T15:00/2026-09-07T23:00", "Barr 2026-09-08T07:00/2026-09-08T15:00", "Lund 2026-09-07T22:30/2026-09-08T07:30", "Lund 2026-09-08T15:00/2026-09-08T23:00",
         "Osei 2026-09-07T07:00/2026-09-07T15:00", "Osei 2026-09-08T22:30/2026-09-09T07:30"],
    ),
    "a key in one cell, and one in two columns": (
        "Rota,7 Sep 2026,8 Sep 2026\nOsei,Early,Late\nBarr,N,Early\n\"Early 7-3, Late 3-11\",,\nN,Night 22:30-7:30,", (),
        ["Barr: Early 2026-09-08T07:00/2026-09-08T15:00", "Barr: N (Night) 2026-09-07T22:30/2026-09-08T07:30", "Osei: Early 2026-09-07T07:00/2026-09-07T15:00",
         "Osei: Late 2026-09-08T15:00/2026-09-08T23:00"],
    ),
    "numbers that count are no times": ("No,Title,Date\n1.,A,12 Sep 2026\n2.,B,13 Sep 2026", (), ["A 2026-09-12/2026-09-13", "B 2026-09-13/2026-09-14"]),
    "nor are those with parts": ("No,Title,Date\n1.10,A,12 Sep 2026\n1.20,B,13 Sep 2026", (), ["A 2026-09-12/2026-09-13", "B 2026-09-13/2026-09-14"]),
    "two days beside their two weekdays": (
        "Date,Event\nMon-Fri 7-11 Sept 2026,A\nSat/Sun 12/13 Sept 2026,B\nSat & Sun 19 & 20 Sept 2026,C", (),
        ["A 2026-09-07/2026-09-12", "B 2026-09-12/2026-09-13", "B 2026-09-13/2026-09-14", "C 2026-09-19/2026-09-20", "C 2026-09-20/2026-09-21"],
    ),
    "two days with a slash between": (
        "Date,Event\n26/27 September 2026,A\nSat 3rd/Sun 4th October 2026,B\n17 October/18 October 2026,C", (),
        ["A 2026-09-26/2026-09-27", "A 2026-09-27/2026-09-28", "B 2026-10-03/2026-10-04", "B 2026-10-04/2026-10-05", "C 2026-10-17/2026-10-18", "C 2026-10-18/2026-10-19"],
    ),
    "years in rows of their own": (
        "What,When\n2026,\nRegatta,Sat 12 Sep 7pm\nCruise,28-30 Oct\nBall,28 Dec – 3 Jan\n2027,\nReturn,15/1", (),
        ["Ball 2026-12-28/2027-01-04", "Cruise 2026-10-28/2026-10-31", "Regatta 2026-09-12T19:00/2026-09-12T20:00", "Return 2027-01-15/2027-01-16"],
    ),
    "years with their terms": (
        "Event,Date\nAutumn Term 2026,\nInset,1 Sept\nSpring Term 2027,\nInset,4 Jan\nSummer Term 2027,\nSports day,18 June", (),
        ["Inset 2026-09-01/2026-09-02", "Inset 2027-01-04/2027-01-05", "Sports day 2027-06-18/2027-06-19"],
    ),
    "a year over the table, and the next in a row of its own": (
        "Autumn Term 2026,\nInset,1 Sept\nCarols,18 Dec\nSpring Term 2027,\nInset,4 Jan", (),
        ["Carols 2026-12-18/2026-12-19", "Inset 2026-09-01/2026-09-02", "Inset 2027-01-04/2027-01-05"],
    ),
    "all day under a heading of lengths": (
        "Date,Start,Length,Session\n12 Sep 2026,09:00,1h30,A\n13 Sep 2026,,all day,B", (), ["A 2026-09-12T09:00/2026-09-12T10:30", "B 2026-09-13/2026-09-14"],
    ),
    "names with numbers down a roster": (
        "Vehicle,Mon 7 Sep 2026,Tue 8 Sep 2026\nVan 1,Quill,\nVan 2,,Osei", (), ["Van 1: Quill 2026-09-07/2026-09-08", "Van 2: Osei 2026-09-08/2026-09-09"],
    ),
    "names with numbers in a column": ("Date,Vehicle,Trip\n18/09/2026,Van 1,Harbour\n19/09/2026,Van 2,Museum", (), ["Harbour 2026-09-18/2026-09-19", "Museum 2026-09-19/2026-09-20"]),
    "prices under a heading of titles": ("Date,Race,Start,Entry\n7 Sep 2026,Harbour 10k,9.30,£12", (), ["Harbour 10k 2026-09-07T09:30/2026-09-07T10:30"]),
    "results with colons": ("Date,Event,Result\n7 Sep 2026,A v B,21:15", (), ["A v B 2026-09-07/2026-09-08"]),
    "days listed under what happens": (
        "Collections 2027,,\nRoad,Refuse,Garden\nSlip Lane,\"4 Jan, 18 Jan\",5 Jan\nLoft Street,6 Jan,-", (),
        ["Loft Street: Refuse 2027-01-06/2027-01-07", "Slip Lane: Garden 2027-01-05/2027-01-06", "Slip Lane: Refuse 2027-01-04/2027-01-05",
         "Slip Lane: Refuse 2027-01-18/2027-01-19"],
    ),
    "days listed under terms": (
        "Meetings 2026-27,,\nPanel,Autumn,Spring\nSail,\"9 Sep, 7 Oct\",20 Jan\nSlip,30 Sep,\"27 Jan & 24 Mar\"", (),
        ["Sail 2026-09-09/2026-09-10", "Sail 2026-10-07/2026-10-08", "Sail 2027-01-20/2027-01-21", "Slip 2026-09-30/2026-10-01", "Slip 2027-01-27/2027-01-28",
         "Slip 2027-03-24/2027-03-25"],
    ),
    "days listed beside a date": (
        "Concert,Rehearsals,Performance\nSea songs,\"3, 10 and 17 Nov 2026\",2026-11-20", (),
        ["Sea songs: Performance 2026-11-20/2026-11-21", "Sea songs: Rehearsals 2026-11-03/2026-11-04", "Sea songs: Rehearsals 2026-11-10/2026-11-11",
         "Sea songs: Rehearsals 2026-11-17/2026-11-18"],
    ),
    "tables headed again under another label": (
        "Terms 2026/27,,\nAutumn,Starts,Ends\nFirst half,3 September,23 October\nSpring,Starts,Ends\nFirst half,5 January,12 February", (),
        ["First half 2026-09-03/2026-10-24", "First half 2027-01-05/2027-02-13"],
    ),
    "a key of several codes in a row, below a roster with notes": (
        "Date,Slip,Loft,Notes\nMon 7 Sep 2026,QU,OS,New\nTue 8 Sep 2026,OS,QU,\n,,,\nQU = Quill,,OS = Osei,", (),
        ["OS (Osei) 2026-09-07/2026-09-08 @ Loft", "OS (Osei) 2026-09-08/2026-09-09 @ Slip", "QU (Quill) 2026-09-07/2026-09-08 @ Slip", "QU (Quill) 2026-09-08/2026-09-09 @ Loft"],
    ),
    "a key of pairs behind its word": (
        "Date,Slip,Loft\nMon 7 Sep 2026,QU,OS\nTue 8 Sep 2026,OS,QU\nKey,QU,Quill\nKey,OS,Osei", (),
        ["OS (Osei) 2026-09-07/2026-09-08 @ Loft", "OS (Osei) 2026-09-08/2026-09-09 @ Slip", "QU (Quill) 2026-09-07/2026-09-08 @ Slip", "QU (Quill) 2026-09-08/2026-09-09 @ Loft"],
    ),
    "hours below a roster, and weekdays that settle its dates": (
        "Date,Day,Early,Night\n7/9/26,Mon,Quill,Osei\n8/9/26,Tue,Osei,Quill\n,,0700-1500,2300-0700", (),
        ["Osei 2026-09-07T23:00/2026-09-08T07:00", "Osei 2026-09-08T07:00/2026-09-08T15:00", "Quill 2026-09-07T07:00/2026-09-07T15:00", "Quill 2026-09-08T23:00/2026-09-09T07:00"],
    ),
    "a week that names the month of numbers": (
        "Name,Mon,Tue,Wed,Thu,Fri\nw/c 07/09/2026,7,8,9,10,11\nQuill,E,,L,,\nOsei,,E,,,", (), ["Osei: E 2026-09-08/2026-09-09", "Quill: E 2026-09-07/2026-09-08", "Quill: L 2026-09-09/2026-09-10"],
    ),
    "pairs of days with a comma among ranges": ("2026,Sep,Oct\nQuill,7-9,2\nOsei,\"1,2\",", (), [
        "Osei 2026-09-01/2026-09-02", "Osei 2026-09-02/2026-09-03", "Quill 2026-09-07/2026-09-10", "Quill 2026-10-02/2026-10-03"]),
    "one slot a day, one day below the other": (
        "Time,Stage,Barn\nSaturday 12 September 2026,,\n12:00,A,\n13:00,,B\nSunday 13 September 2026,,\n12:00,C,D", (),
        ["A 2026-09-12T12:00/2026-09-12T13:00 @ Stage", "B 2026-09-12T13:00/2026-09-12T14:00 @ Barn", "C 2026-09-13T12:00/2026-09-13T13:00 @ Stage", "D 2026-09-13T12:00/2026-09-13T13:00 @ Barn"],
    ),
    "halves of the day beside the times": (
        "Title,Date,Start Time,AM/PM,End Time,AM/PM\nChoir,7 Sep 2026,7:30,PM,9:00,PM\nRopes,8 Sep 2026,11:30,A.M.,1:00,P.M.", (),
        ["Choir 2026-09-07T19:30/2026-09-07T21:00", "Ropes 2026-09-08T11:30/2026-09-08T13:00"],
    ),
    "hours over noon beside evenings": (
        "Event,Date,Times\nCamp,7 Sep 2026,9-4\nShow,18 Sep 2026,7.30pm", (), ["Camp 2026-09-07T09:00/2026-09-07T16:00", "Show 2026-09-18T19:30/2026-09-18T20:30"],
    ),
    "how often and every how many": (
        "Title,Date,Repeat,Interval,Until\nChoir,7 Sep 2026,Weekly,2,21 Sep 2026\nRopes,8 Sep 2026,Daily,1,9 Sep 2026", (),
        ["Choir 2026-09-07/2026-09-08", "Choir 2026-09-21/2026-09-22", "Ropes 2026-09-08/2026-09-09", "Ropes 2026-09-09/2026-09-10"],
    ),
    "rooms with numbers beside weekdays are no weeks": (
        ",Mon,Tue\nLoft 1,Quill,\nLoft 2,Barr,Lund", ("--day-one", "2026-09-07"),
        ["Loft 1: Quill 2026-09-07/2026-09-08", "Loft 2: Barr 2026-09-07/2026-09-08", "Loft 2: Lund 2026-09-08/2026-09-09"],
    ),
    "numbers below a heading of teams are no weeks": (
        "Team,Mon,Tue\n1,Quill,\n2,Barr,Lund", ("--day-one", "2026-09-07"),
        ["Team 1: Quill 2026-09-07/2026-09-08", "Team 2: Barr 2026-09-07/2026-09-08", "Team 2: Lund 2026-09-08/2026-09-09"],
    ),
    "weeks by their words": (
        ",Mon,Tue\nSemaine 1,Quill,\nSemaine 2,Barr,Lund", ("--day-one", "2026-09-07"),
        ["Barr 2026-09-14/2026-09-15", "Lund 2026-09-15/2026-09-16", "Quill 2026-09-07/2026-09-08"],
    ),
    "a drawn week of times for one week, and classes called as weekdays are": (
        "Time,Mon,Tue\n9:00-10:00,FR,MA\n10:00-11:00,SO,FR", ("--day-one", "2026-09-07"),
        ["FR 2026-09-07T09:00/2026-09-07T10:00", "FR 2026-09-08T10:00/2026-09-08T11:00", "MA 2026-09-08T09:00/2026-09-08T10:00", "SO 2026-09-07T10:00/2026-09-07T11:00"],
    ),
    "classes called as weekdays in several rows, the first of them full": (
        ",Mon,Tue,Wed\nTern,FR,TH,MA\nHeron,,DI,DI\nGull,SO,,FR", ("--day-one", "2026-09-07"),
        ["Gull: FR 2026-09-09/2026-09-10", "Gull: SO 2026-09-07/2026-09-08", "Heron: DI 2026-09-08/2026-09-09", "Heron: DI 2026-09-09/2026-09-10",
         "Tern: FR 2026-09-07/2026-09-08", "Tern: MA 2026-09-09/2026-09-10", "Tern: TH 2026-09-08/2026-09-09"],
    ),
    "numbers of heats and classes are no hours": (
        "Date,Time,Slip 1,Slip 2,Hall\n12 Sep 2026,9:00,1. Heat,,9. Klasse\n12 Sep 2026,14:15,,2. Heat,Lunch", (),
        ["1. Heat 2026-09-12T09:00/2026-09-12T10:00 @ Slip 1", "2. Heat 2026-09-12T14:15/2026-09-12T15:15 @ Slip 2",
         "9. Klasse 2026-09-12T09:00/2026-09-12T10:00 @ Hall", "Lunch 2026-09-12T14:15/2026-09-12T15:15 @ Hall"],
    ),
    "a word for noon in the hall is what is on there": (
        "Date,Time,Slip 1,Halle\n12 Sep 2026,9:00,Start,Kaffee\n12 Sep 2026,13:00,Mittag,Mittag", (),
        ["Kaffee 2026-09-12T09:00/2026-09-12T10:00 @ Halle", "Mittag 2026-09-12T13:00/2026-09-12T14:00 @ Halle",
         "Mittag 2026-09-12T13:00/2026-09-12T14:00 @ Slip 1", "Start 2026-09-12T09:00/2026-09-12T10:00 @ Slip 1"],
    ),
    "times without a heading between dates and places": (
        ",,Slip 1,Slip 2,Hall\n11 Sep 2026,14:30,Setting up,,\n,16:00,,Measuring,Registration", ("--fill-down", "A"),
        ["Measuring 2026-09-11T16:00/2026-09-11T17:00 @ Slip 2", "Registration 2026-09-11T16:00/2026-09-11T17:00 @ Hall",
         "Setting up 2026-09-11T14:30/2026-09-11T15:30 @ Slip 1"],
    ),
    "times right of the dates of a roster": (
        ",Mon 7 Sep 2026,Tue 8 Sep 2026,Time\nEarly,Ann,Bo,7:00\nLate,Bo,Ann,14:00", (),
        ["Early: Ann 2026-09-07T07:00/2026-09-07T08:00", "Early: Bo 2026-09-08T07:00/2026-09-08T08:00",
         "Late: Ann 2026-09-08T14:00/2026-09-08T15:00", "Late: Bo 2026-09-07T14:00/2026-09-07T15:00"],
    ),
    "one day above times and what is on": ("Saturday 12 September 2026\nTime,Act\n20:00,Band\n22:30,Dance", (), ["Band 2026-09-12T20:00/2026-09-12T21:00", "Dance 2026-09-12T22:30/2026-09-12T23:30"]),
    "hours under the halves of a day, one of them blank": (
        "Date,Early,Late,Night\nSat 12 Sep 2026,7-3,3-11,11-7\nSun 13 Sep 2026,7-3,,11-7", (),
        ["Early 2026-09-12T07:00/2026-09-12T15:00", "Early 2026-09-13T07:00/2026-09-13T15:00", "Late 2026-09-12T15:00/2026-09-12T23:00",
         "Night 2026-09-12T23:00/2026-09-13T07:00", "Night 2026-09-13T23:00/2026-09-14T07:00"],
    ),
    "dates over columns of times": (
        "Open week,,,\nMon 7 Sept,,Tue 8 Sept 2026,\nTime,What,Time,What\n9.00,Knots,9.30,Sails\n1.30,Tar,,", (),
        ["Knots 2026-09-07T09:00/2026-09-07T10:00", "Sails 2026-09-08T09:30/2026-09-08T10:30", "Tar 2026-09-07T13:30/2026-09-07T14:30"],
    ),
    "tracks called by letters": (
        "Track,A,B\n9:00,Tar,\n9:30,Oars,Hulls", ("--set", "date=2026-09-12"),
        ["Hulls 2026-09-12T09:30/2026-09-12T10:00 @ B", "Oars 2026-09-12T09:30/2026-09-12T10:00 @ A", "Tar 2026-09-12T09:00/2026-09-12T09:30 @ A"],
    ),
    "weekdays with times of four figures": (
        "Title,Days,Start,End\nKnots,M,930,1045\nTar,T,1300,1415", WEEK, ["Knots 2026-09-07T09:30/2026-09-07T10:45", "Tar 2026-09-08T13:00/2026-09-08T14:15"],
    ),
    "sections of a course are classes": (
        "Course,Section,Meets,Room\nBOAT 101,A,M 9-9.50,L 1\nBOAT 101,B,T 10-11,L 2", WEEK,
        ["BOAT 101 2026-09-07T09:00/2026-09-07T09:50 @ L 1", "BOAT 101 2026-09-08T10:00/2026-09-08T11:00 @ L 2"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_what_could_be_something_else_is_read_as_a_person_reads_it(kind: str, tmp_path: Path) -> None:
    table, options, events = READ[kind]
    source = csv_file(tmp_path, table)
    assert sorted(built(source, *options)) == sorted(events)


REFUSED: dict[str, tuple[str, tuple[str, ...], str]] = {
    "the first time could be in the morning or later": ("Date,Prep,Party\n7 Sep 2026,5.30,7.30", (), "5:30 could be in the morning or in the afternoon"),
    "the last time of a row is in the night": ("Date,Prep,Party\n7 Sep 2026,18:00,00:30", (), "it may be on the next day"),
    "a night under the day of its section": (
        "Time,Act\nSaturday 12 September 2026,\n20:00,Band\n00:30,Close\nSunday 13 September 2026,\n11:00,Choir", (), "holds for no time after midnight below an evening",
    ),
    "a night under a date over columns": ("Sat 12 Sep 2026,,Sun 13 Sep 2026,\n20:00,A,9:00,B\n0:30,C,10:00,D", (), "it may be on the next day"),
    "a night below a date that is written once": (
        "Date,Time,Act\n12 Sep 2026,20:00,A\n,22:00,B\n,00:30,C", ("--fill-down", "Date"), "row 4, column A “Date”\n    The row has no date.\n    → Give it a date: one that stands above",
    ),
    "a night of a timetable": ("Time,Mon,Tue\n18:00,A,B\n22:00,B,A\n0:30,C,", WEEK, "a timetable's day ends at midnight"),
    "times of an evening without their half of the day": ("Date,Event,Time\n7 Sep 2026,Quiz night,8:00\n8 Sep 2026,Sale,2:30", (), "8:00 could be in the morning or in the evening"),
    "one time among evenings": ("Date,Event,Time\n7 Sep 2026,Talk,7:30pm\n8 Sep 2026,Slides,8:00", (), "8:00 could be in the morning or in the evening"),
    "people come before it starts": ("Date,Event,Start,Report by\n7 Sep 2026,Gala,18:00,17:00\n8 Sep 2026,Final,17:45,16:45", (), "“Report by” holds times"),
    "people come before it starts, with dots": ("Date,Match,KO,Meet\n7 Sep 2026,A v B,2.30,1.45", (), "“Meet” holds times"),
    "times under the heading of a title alone": ("Date,Show\n7 Sep 2026,7.30", (), "says what each event is called"),
    "times under the heading of places": ("What,Start,Local\nA,2026-09-07 12:00,09:00\nB,2026-09-18 12:00,09:00", (), "“Local” holds times"),
    "an interval of what cannot be counted": ("Title,Date,Repeat,Interval,Until\nChoir,7 Sep 2026,Fortnightly,2,21 Oct 2026", (), "“Interval” may say when rows are held"),
    "days of a weekend that head the dates of a list": ("Saturday,Sunday,Event\n12/9/2026,13/9/2026,Show\n19/9/2026,,Race", (), "it is no list"),
    "times without a heading right of places": (
        "Date,Slip 1,Slip 2,Hall,\n11 Sep 2026,Setting up,,Tea,9:15\n12 Sep 2026,,Measuring,Registration,10:30", (), "column E may say when",
    ),
    "times under another heading beside places": (
        "Date,Muster,Slip 1,Slip 2,Hall\n11 Sep 2026,14:30,Setting up,,Tea\n12 Sep 2026,16:00,,Measuring,Registration", (), "head it “Time”",
    ),
    "times without a heading right of the dates of a roster": (
        ",Mon 7 Sep 2026,Tue 8 Sep 2026,\nEarly,Ann,Bo,7:00\nLate,Bo,Ann,14:00", (), "column D may say when",
    ),
    "a date written once below no heading is called by its letter": (
        ",,Slip 1,Slip 2,Hall\n11 Sep 2026,14:30,Setting up,,\n,16:00,,Measuring,Registration", (), '--fill-down "A"',
    ),
    "a week where a name should stand": ("Name,Mon,Tue,Wed\nw/c 07/09/2026,7,8,9\nQuill,E,,L\nOsei,E,L,", ("--day-one", "2026-09-07"), "names a week, where a name"),
    "numbers that nothing heads beside weekdays are no weeks": (",Mon,Tue\n1,Knots,Tar\n2,Tar,Knots", ("--day-one", "2026-09-07"), "There is no period “1”"),
    "what is on, with its time, under several headings": (
        "Date,Training,Match,Social\n1 Sep 2026,6pm,v Bay 2pm,8pm BBQ\n5 Sep 2026,7pm,2pm v Harbour,", (), "--as roster",
    ),
    "what is on under a heading of trips beside that of events": (
        "Date,Events,Trips\nMon 7 Sep 2026,Term begins,\nTue 8 Sep 2026,Photos,Y8 to the quay", (), "What happens stands under “Trips” and under “Events”",
    ),
    "rooms with dots that run through a day": ("Date,Activity,Rooms\n2 Nov 2026,Swim,4.10\n3 Nov 2026,Row,4.20\n4 Nov 2026,Sail,5.10", (), "“Rooms” holds times"),
    "a remark that changes the time": ("Date,Time,Event,Notes\n7 Sep 2026,9:00,Knots,now 15:00", (), "“now 15:00” says that the row is not held"),
    "a case number is no date": ("Time,Case,Parties\n10.00,2026/114,Quill v Osei\n10.30,2026/140,Lund v Moss", (), "→ Say which: --set date="),
    "a cell that cannot be a time is quoted as it stands": ("Date,Event,Start\n7 Sep 2026,A,Starts\n8 Sep 2026,B,9:00", (), "“Starts” is not a time"),
}  # fmt: skip


@pytest.mark.parametrize("kind", REFUSED)
def test_what_is_open_is_refused(kind: str, tmp_path: Path) -> None:
    table, options, said = REFUSED[kind]
    assert said in refused(csv_file(tmp_path, table), *options)


LINES: dict[str, tuple[str, list[str]]] = {
    "verses": ("Readings\n6 September 2026 John 3:16-21\n13 September 2026 Luke 4:14", ["John 3:16-21 2026-09-06/2026-09-07", "Luke 4:14 2026-09-13/2026-09-14"]),
    "a title over several dates": (
        "Open days\n- Saturday 3 October 2026, 10am to 2pm\n- Saturday 7 November 2026, 10am to 2pm\n\nConcert\nSat 24 October 2026 7.30pm",
        ["Concert 2026-10-24T19:30/2026-10-24T20:30", "Open days 2026-10-03T10:00/2026-10-03T14:00", "Open days 2026-11-07T10:00/2026-11-07T14:00"],
    ),
    "several days of a month among others": (
        "INSET days: 1 and 2 September 2026, 4 January 2027\nOpen mornings: Sat 3 and Sat 10 October 2026, 10am",
        ["INSET days 2026-09-01/2026-09-02", "INSET days 2026-09-02/2026-09-03", "INSET days 2027-01-04/2027-01-05", "Open mornings 2026-10-03T10:00/2026-10-03T11:00",
         "Open mornings 2026-10-10T10:00/2026-10-10T11:00"],
    ),
    "what is to be done by a day, and where": ("Fair\n12 September 2026\nBook at the office by 7 September 2026.", ["Deadline: Book at the office 2026-09-07/2026-09-08", "Fair 2026-09-12/2026-09-13"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", LINES)
def test_lines_that_could_be_something_else(kind: str, tmp_path: Path) -> None:
    text, events = LINES[kind]
    source = tmp_path / "lines.txt"
    source.write_text(text + "\n", "utf-8")
    assert sorted(built(source)) == sorted(events)


def test_a_workbook_s_own_times_run_forward_too(tmp_path: Path) -> None:
    import datetime as dt

    rows = [["Date", "Matins", "Vespers"], [dt.datetime(2026, 9, 7), dt.time(8), dt.time(5, 30)]]
    assert built(workbook(tmp_path, rows)) == [
        "Matins 2026-09-07T08:00/2026-09-07T09:00", "Vespers 2026-09-07T17:30/2026-09-07T18:30",
    ]  # fmt: skip


def test_one_week_of_a_plan_that_nothing_else_dates(tmp_path: Path) -> None:
    week = [["Period", "Mon", "Tue"], ["1", "Knots", ""], ["2", "", "Tar"]]
    bells = [["Period", "Start", "End"], ["1", "9:00", "9:50"], ["2", "10:00", "10:50"]]
    source = plan_book(tmp_path, {"Timetable": week, "Bells": bells})
    assert built(source, "--day-one", "2026-09-07") == [
        "Knots 2026-09-07T09:00/2026-09-07T09:50",
        "Tar 2026-09-08T10:00/2026-09-08T10:50",
    ]
    terms = [["Term", "First day", "Last day"], ["Autumn", "2026-09-07", "2026-12-18"]]
    source = plan_book(tmp_path, {"Timetable": week, "Bells": bells, "Terms": terms})
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics", "--day-one", "2026-09-07")
    assert outcome.status == 2 and "its terms say when" in outcome.text


EVENTS = [["Date", "Event"], ["2026-09-07", "Knots"]]


def test_pages_about_a_workbook_are_passed_over(tmp_path: Path) -> None:
    about = {
        "Read me": [
            ["Updated 1 September 2026"],
            ["Send it to the office by 4 September 2026"],
            ["Questions by 2 September 2026"],
        ]
    }
    assert built(workbook(tmp_path, EVENTS, more=about)) == ["Knots 2026-09-07/2026-09-08"]
    named = {"Dates": about["Read me"]}
    assert len(built(workbook(tmp_path, EVENTS, more=named))) > 1


@pytest.mark.parametrize(
    "name",
    [
        "2025-26 (old)",
        "Copy of Events",
        "Archive 2025",
        "Example",
        "Events - draft",
        "Events (2)",
        "Cancelled",
        "Done",
        "Change log",
        "Summary",
        "Postponed",
        "Waiting list",
        "Provisional",
        "Events v2",
        "Raw data",
    ],
)
def test_sheets_that_are_beside_the_others_are_asked_for(name: str, tmp_path: Path) -> None:
    source = workbook(tmp_path, EVENTS, more={name: [["Date", "Event"], ["2025-09-08", "Tar"]]})
    assert f'→ Say which are meant: --sheet "Events"; with it: --sheet "Events" --sheet "{name}".' in refused(
        source
    )
    assert built(source, "--sheet", "Events") == ["Knots 2026-09-07/2026-09-08"]
    assert len(built(source, "--sheet", "Events", "--sheet", name)) == 2


@pytest.mark.parametrize(
    "name", ["Old Hall", "Sampler course", "Templeton", "Photocopying", "History", "Tests", "Group (2)"]
)
def test_sheets_of_like_names_are_read(name: str, tmp_path: Path) -> None:
    source = workbook(tmp_path, EVENTS, more={name: [["Date", "Event"], ["2025-09-08", "Tar"]]})
    assert len(built(source)) == 2


def test_a_place_above_a_table_is_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Booking form,\nRoom:,Loft 1\nDate,Event\n7 Sep 2026,Knots")
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert outcome.status == 0 and 'If it is that of all: --set "location=Loft 1".' in outcome.text
    assert built(source, "--set", "location=Loft 1") == ["Knots 2026-09-07/2026-09-08 @ Loft 1"]


def test_an_event_above_a_table_of_others(tmp_path: Path) -> None:
    rows = (
        "Event:,Open day\nDate:,3 October 2026\n\nTask,Who,By\nPosters,Osei,18/09/2026\nTent,Quill,11/09/2026"
    )
    assert "“Event: Open day” and “Date: 3 October 2026”" in refused(csv_file(tmp_path, rows))
    rows = "Event: Regatta,\nDate: 12 September 2026,\nTime,Activity\n9:00,Race"
    assert built(csv_file(tmp_path, rows)) == ["Race 2026-09-12T09:00/2026-09-12T10:00"]


@pytest.mark.parametrize(
    ("text", "secs"),
    [("Van 1", None), ("von 9", None), ("U 11", None), ("A 5", None), ("De 1", None), ("at 7", 25_200), ("um 9", 32_400), ("van 9 tot 11", 32_400), ("à 9", 32_400), ("u 9", 32_400)],
)  # fmt: skip
def test_a_name_with_its_number_is_no_time(text: str, secs: int | None) -> None:
    times = read_times(text)
    assert (times.start.secs if isinstance(times, Times) and times.start else None) == secs


@pytest.mark.parametrize(
    ("before", "time", "is_one"),
    [("1 Cor.", "13:4", True), ("Reading: Mark", "4:35-41", True), ("Mark", "3:45-4:15", False), ("Ruth", "4:30", False), ("Psalm", "9.15", True), ("Launch", "3:16", False),
     ("John", "3:15-20", True), ("John", "3:15-4", False)],
)  # fmt: skip
def test_chapters_and_verses(before: str, time: str, is_one: bool) -> None:
    assert is_verse(before, time) is is_one


@pytest.mark.parametrize(
    ("text", "moves"),
    [("New time: 4pm", True), ("changed to 10.30", True), ("new date 12 Oct", True), ("Later start 10:00", True), ("delayed to 10", True), ("Changed to Loft 2", False),
     ("now in Room 4", False), ("now 15 places", False), ("new members welcome", False)],
)  # fmt: skip
def test_remarks_that_move_a_row(text: str, moves: bool) -> None:
    assert isinstance(TextMemo(str)[text], Refusal) is moves


def test_lines_of_a_day_past_midnight() -> None:
    times = [time_of(text) for text in ("18:00", "22:00", "0:30", "2:00", "7:00")]
    assert after_midnight(times) == [False, False, True, True, True]
    assert [end.secs if end else None for end in line_ends(times[:3])] == [79_200, 1_800, 16_200]
    assert after_midnight([time_of(text) for text in ("9:00", "1:00", "20:00")]) == [False, False, False]
    assert Line(0, "2:00", times[3]).time.start is not None


@pytest.mark.parametrize(
    ("cell", "count"),
    [
        ("4 Jan, 18 Jan", 2),
        ("6, 13 and 20 May", 3),
        ("7 Sep 2026", 1),
        ("4 boats", 0),
        (4.0, 0),
        ("Loft 2, Shed 3", 0),
    ],
)
def test_how_many_days_a_cell_lists(cell: str | float, count: int) -> None:
    assert days_in(cell, ENGLISH) == count


def test_the_chart_of_a_tally_names_its_terms(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Class,Day,Start,End\nKnots,Mon,9:00,10:00", "week.csv")
    terms = csv_file(
        tmp_path,
        "Term,First day,Last day\nAutumn,2026-09-07,2026-09-18\nSpring,2027-01-04,2027-01-15",
        "terms.csv",
    )
    chart = tmp_path / "tally.svg"
    outcome = nomarium("tally", source, "--terms", terms, "--per", "term", "-o", chart)
    assert outcome.status == 0, outcome.text
    drawn = chart.read_text("utf-8")
    assert "<!-- Autumn -->" in drawn and "<!-- Spring -->" in drawn and "no term" not in drawn


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        (
            "Date,Start,Paper\n10/05/2027,09:00,Hulls (1h30)\n13/05/2027,10:00,Sails (45 min)\n14/05/2027,,Fair (2 h)\n14/05/2027,14:00,Swim (50m)",
            ["2027-05-10T09:00/2027-05-10T10:30", "2027-05-13T10:00/2027-05-13T10:45", "2027-05-14/2027-05-15", "2027-05-14T14:00/2027-05-14T15:00"],
        ),
        (
            "Date,AM (9.00),PM (1.30)\nMon 10 May 2027,Hulls (1h30),Sails (2h)\nTue 11 May 2027,-,Oars (1h)",
            ["2027-05-10T09:00/2027-05-10T10:30", "2027-05-10T13:30/2027-05-10T15:30", "2027-05-11T13:30/2027-05-11T14:30"],
        ),
        (
            "Time,Mon 10 May 2027,Tue 11 May 2027\n9.00,Hulls (1h30),Oars (5h)\n13.30,Sails (1h45m),",
            ["2027-05-10T09:00/2027-05-10T10:30", "2027-05-10T13:30/2027-05-10T15:15", "2027-05-11T09:00/2027-05-11T13:30"],
        ),
    ],
)  # fmt: skip
def test_a_length_in_brackets_behind_a_title_is_no_time_and_that_of_its_event(
    text: str, expected: list[str], tmp_path: Path
) -> None:
    found = sorted(built(csv_file(tmp_path, text)), key=lambda line: line.rsplit(" ", 1)[1])
    assert [line.rsplit(" ", 1)[1] for line in found] == expected


def test_figures_of_a_clock_are_not_dropped_unseen(tmp_path: Path) -> None:
    shifts = csv_file(tmp_path, "Date,Shift,Name\n07/09/2026,0800-1600,Moss")
    assert "holds times and is none of those that say when" in refused(shifts, "--date-order", "dmy")


def test_weeks_counted_between_two_days_of_a_name_are_asked_about(tmp_path: Path) -> None:
    courses = csv_file(tmp_path, "Course,Start,End,Weeks\nKnots,14/09/2026,30/11/2026,10")
    assert "how often a row is held between its first and its last day" in refused(courses)
    assert built(courses, "--column", "Weeks=") == ["Knots 2026-09-14/2026-12-01"]


def test_weekdays_within_a_week_say_on_which_of_its_days(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Course,Day(s),Times,Start date,End date\nKnots,Tue and Thu,09:00-10:30,09/14/2026,09/18/2026\nTar,Tue,10:00-10:50,09/07/2026,09/18/2026\n"
        "Charts,Wed,15:00-16:50,09/14/2026,09/18/2026\nBoats,Fri,9:00-15:00,09/11/2026,09/13/2026",
    )
    found = [f"{line.split()[0]} {line.split()[1][8:10]}" for line in built(source)]
    assert sorted(found) == [
        "Boats 11",
        "Boats 12",
        "Boats 13",
        "Charts 16",
        "Knots 15",
        "Knots 17",
        "Tar 08",
        "Tar 15",
    ]
    wrong = csv_file(
        tmp_path,
        "Course,Day,Time,From,To\nKnots,Mon & Fri,9:00-10:30,15/09/2026,17/09/2026\nTar,Tue,9:00-9:50,08/09/2026,22/09/2026",
        "b.csv",
    )
    refused(wrong)


def test_what_counts_seats_beside_places_is_no_slot(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, '"Rooms, Mon 7 Sep 2026",,,\nRoom,Seats,9:00,10:00\nLoft 1,20,Knots,\nLoft 2,12,,Oars'
    )
    assert built(source) == [
        "Knots 2026-09-07T09:00/2026-09-07T10:00 @ Loft 1",
        "Oars 2026-09-07T10:00/2026-09-07T11:00 @ Loft 2",
    ]
    assert "Not used: the column “Seats”." in nomarium("build", source, "-o", tmp_path / "x.ics").text
