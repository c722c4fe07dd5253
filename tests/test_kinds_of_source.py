"""Texts and tables that people send round: programmes, weeks, bookings, exams, fixtures; each as a person reads it, or refused."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, events_in, nomarium, plain, refused

_YEAR = ["--school-year", "2026:2027"]

READ: dict[str, tuple[str, list[str]]] = {
    "a programme under a title with the date of the evening": (
        "Parents' evening, Thursday 12 November 2026\n\nDoors            18:15\nOpening words    18:30   Main hall\nTour             18:45   Sail loft\nClose            20:00",
        ["Doors 2026-11-12T18:15/2026-11-12T18:30", "Opening words 2026-11-12T18:30/2026-11-12T18:45 @ Main hall", "Tour 2026-11-12T18:45/2026-11-12T20:00 @ Sail loft", "Close 2026-11-12T20:00/2026-11-12T21:00"],
    ),
    "headings over groups of lines are their categories": (
        "ARRIVALS\nMon 7 Dec 10:40 Kilnhead crew\n\nDEPARTURES\nMon 7 Dec 16:00 Heron crew",
        ["Kilnhead crew 2026-12-07T10:40/2026-12-07T11:40", "Heron crew 2026-12-07T16:00/2026-12-07T17:00"],
    ),
    "a week by its first and last day": (
        "Week 16-20 November 2026\n\nMon - Assembly, 9.00\nFri - INSET\nWeek 23-27 November: Mock exams",
        ["Assembly 2026-11-16T09:00/2026-11-16T10:00", "INSET 2026-11-20/2026-11-21", "Mock exams 2026-11-23/2026-11-28"],
    ),
    "what begins and ends stands above": (
        "Autumn term\n  Starts Mon 7 September\n  Half term Mon 26 – Fri 30 October\n  Ends Fri 18 December",
        ["Autumn term starts 2026-09-07/2026-09-08", "Half term 2026-10-26/2026-10-31", "Autumn term ends 2026-12-18/2026-12-19"],
    ),
    "deadlines, and days behind their month before a time": (
        "Oak (by 4 December)\nTar: 15 January at the latest\nShow: Dec 10, 11 & 12, 7pm\nSubject: Board meeting 14 January 2027",
        ["Deadline: Oak 2026-12-04/2026-12-05", "Deadline: Tar 2027-01-15/2027-01-16", "Board meeting 2027-01-14/2027-01-15",
         *(f"Show 2026-12-{day}T19:00/2026-12-{day}T20:00" for day in (10, 11, 12))],
    ),
    "short German weekdays behind figures": (
        "Kalender Dezember 2026\n\n1.12. Di  Elternabend 19:30\n11.12. Fr Konzert 18 Uhr Aula\n7.-9.12.  Projekttage",
        ["Elternabend 2026-12-01T19:30/2026-12-01T20:30", "Konzert 2026-12-11T18:00/2026-12-11T19:00 @ Aula", "Projekttage 2026-12-07/2026-12-10"],
    ),
    "days of a French month without its year": (
        "Calendrier décembre\nmardi 1er : réunion parents 18h\nvendredi 4 : fête\ndu 7 au 9 : sorties",
        ["réunion parents 2026-12-01T18:00/2026-12-01T19:00", "fête 2026-12-04/2026-12-05", "sorties 2026-12-07/2026-12-10"],
    ),
    "a poster with its title above the day and its place below the time": (
        "Invitation\n\n60 years of the school\nSaturday, 15 May 2027\nfrom 2 pm until late\nMain slip and boathouse\nRSVP by 1 May 2027",
        ["60 years of the school 2027-05-15T14:00/2027-05-15T15:00 @ Main slip and boathouse", "RSVP 2027-05-01/2027-05-02"],
    ),
    "labels, of which one is longer": (
        "Training course: First aid\nDates: 11 and 12 January 2027\nTimes: 9.30am - 4.30pm\nPlace: Room 4",
        ["First aid 2027-01-11T09:30/2027-01-11T16:30 @ Room 4", "First aid 2027-01-12T09:30/2027-01-12T16:30 @ Room 4"],
    ),
    "scores are no times, and places in brackets are whole": (
        "Fri 4 Dec: Match v Kilnhead (won 3-2)\nSlip rota (8 December 2026, 4pm, Chart room)",
        ["Match v Kilnhead (won 3-2) 2026-12-04/2026-12-05", "Slip rota 2026-12-08T16:00/2026-12-08T17:00 @ Chart room"],
    ),
    "rooms over their times, under a title with the day": (
        "Room bookings Tuesday 8 December 2026\n\nRoom 1\n09:00-10:00 Finance\n10:30-12:00 Slip users\n\nRoom 2\n09:30-11:00 Training\n\n14:00-15:00 Interviews",
        ["Finance 2026-12-08T09:00/2026-12-08T10:00 @ Room 1", "Slip users 2026-12-08T10:30/2026-12-08T12:00 @ Room 1",
         "Training 2026-12-08T09:30/2026-12-08T11:00 @ Room 2", "Interviews 2026-12-08T14:00/2026-12-08T15:00"],
    ),
    "days of one month in German figures": (
        "Sa/So 12./13.12.: Markt\nPapier: 5.1., 2.2. und 2.3.",
        ["Markt 2026-12-12/2026-12-13", "Markt 2026-12-13/2026-12-14", "Papier 2027-01-05/2027-01-06", "Papier 2027-02-02/2027-02-03", "Papier 2027-03-02/2027-03-03"],
    ),
    "shifts of two people, and hours that name what is on": (
        "Volunteer shifts Sat 12 Dec\n9-11: Finch, Bell\n11-1: Osei, Quill\n1-3: Amaro\nThurs 24 Dec\n11.30pm Midnight service",
        ["Finch, Bell 2026-12-12T09:00/2026-12-12T11:00", "Osei, Quill 2026-12-12T11:00/2026-12-12T13:00", "Amaro 2026-12-12T13:00/2026-12-12T15:00",
         "Midnight service 2026-12-24T23:30/2026-12-25T00:30"],
    ),
    "a poster with the place between the day and the title": (
        "Thursday 10th December 2026\nThe Sail Loft\n7.30pm\n\nAN EVENING OF SEA SONGS\nwith the Quayside Choir\n\nTickets £5 from the office",
        ["AN EVENING OF SEA SONGS with the Quayside Choir 2026-12-10T19:30/2026-12-10T20:30 @ The Sail Loft"],
    ),
    "counted Sundays behind German days, and two days before one month": (
        "6.12. Nikolaus\n13.12. 3. Advent, Konzert 17 Uhr\n25./26.12. Weihnachten",
        ["Nikolaus 2026-12-06/2026-12-07", "3. Advent 2026-12-13T17:00/2026-12-13T18:00", "Weihnachten 2026-12-25/2026-12-26", "Weihnachten 2026-12-26/2026-12-27"],
    ),
    "questions as labels": (
        "Class of '27 reunion\nWhen? Saturday 5 June 2027\nWhat time? 6pm till 11pm\nWhere? The Sail Loft\nHow much? £20",
        ["Class of '27 reunion 2027-06-05T18:00/2027-06-05T23:00 @ The Sail Loft"],
    ),
    "places below the events of a day": (
        "SAT NOV 28\nCraft fair 10-3\nQuayside hall\n\nSUN NOV 29\nAdvent service, 10.30am",
        ["Craft fair 2026-11-28T10:00/2026-11-28T15:00 @ Quayside hall", "Advent service 2026-11-29T10:30/2026-11-29T11:30"],
    ),
    "Spanish days under a month, hours with an h": (
        "Calendario de diciembre\nLunes 7: reunión, 18:00, aula 3\nViernes 11: concierto (19:30 h) en el patio\nDel 21 de diciembre al 7 de enero: vacaciones",
        ["reunión 2026-12-07T18:00/2026-12-07T19:00 @ aula 3", "concierto 2026-12-11T19:30/2026-12-11T20:30 @ patio", "vacaciones 2026-12-21/2027-01-08"],
    ),
    "Portuguese hours and days from one to another": (
        "Agenda de dezembro de 2026\nSegunda-feira, 7 de dezembro, 18h30: reunião\nSexta, 11/12, das 14h às 17h: feira\n24 a 31 de dezembro: férias",
        ["reunião 2026-12-07T18:30/2026-12-07T19:30", "feira 2026-12-11T14:00/2026-12-11T17:00", "férias 2026-12-24/2027-01-01"],
    ),
    "times behind their events, under the day of a trip": (
        "Bus times for the trip on 20 November\n\nDepart school 7.45\nLunch 12.30\nBack at school approx. 16.30",
        ["Depart school 2026-11-20T07:45/2026-11-20T08:45", "Lunch 2026-11-20T12:30/2026-11-20T16:30", "Back at school 2026-11-20T16:30/2026-11-20T17:30"],
    ),
    "halves of the day are no titles": (
        "Mon 11 Jan  am  Joinery 1     1h 30m   Hall\n            pm  Ropework      45m      Loft\nTue 12 Jan  am  Drawing       2h       Hall",
        ["Joinery 1 (am) 2027-01-11/2027-01-12 @ Hall", "Ropework (pm) 2027-01-11/2027-01-12 @ Loft", "Drawing (am) 2027-01-12/2027-01-13 @ Hall"],
    ),
    "a class of some weeks, with a day left out": (
        "Choir rehearsals\nTuesdays 7-9pm, Loft 1, from 6 October to 20 October (not 13 October)",
        ["Choir rehearsals 2026-10-06T19:00/2026-10-06T21:00 @ Loft 1", "Choir rehearsals 2026-10-20T19:00/2026-10-20T21:00 @ Loft 1"],
    ),
    "a dash below a weekday, and a week that its days use up": (
        "Week of November 9\n\nMONDAY\nAssembly 8:20\n\nTHURSDAY\n-\n\nFRIDAY\nLaunch day!",
        ["Assembly 2026-11-09T08:20/2026-11-09T09:20", "Launch day! 2026-11-13/2026-11-14"],
    ),
    "a day's first event says its date and time, the others below only theirs": (
        "Mon 2 Nov 08.00 Safety walk\n          10.00 Delivery of oak\n          14.30 Visit",
        ["Safety walk 2026-11-02T08:00/2026-11-02T09:00", "Delivery of oak 2026-11-02T10:00/2026-11-02T11:00", "Visit 2026-11-02T14:30/2026-11-02T15:30"],
    ),
    "an interval of ISO 8601": (
        "2026-11-11/2026-11-13 Conference\n2026-11-16T09:00 Retro", ["Conference 2026-11-11/2026-11-14", "Retro 2026-11-16T09:00/2026-11-16T10:00"],
    ),
    "a heading with a colon is no title of the dated line below it": (
        "After half term:\nMonday 2 November: back to school", ["back to school 2026-11-02/2026-11-03"],
    ),
    "days run on in the month of the line above": (
        "1st Nov - All Saints, 10.30am\n8th - Remembrance, 10.50am\n15th - Supper\nSun 22 Craft fair, 10am",
        ["All Saints 2026-11-01T10:30/2026-11-01T11:30", "Remembrance 2026-11-08T10:50/2026-11-08T11:50", "Supper 2026-11-15/2026-11-16", "Craft fair 2026-11-22T10:00/2026-11-22T11:00"],
    ),
    "labels in the plural": (
        "Course: Rigging\nDates: 11, 18 November 2026\nTimes: 9.30am to 4.30pm\nVenue: Rib shed",
        ["Rigging 2026-11-11T09:30/2026-11-11T16:30 @ Rib shed", "Rigging 2026-11-18T09:30/2026-11-18T16:30 @ Rib shed"],
    ),
    "fixtures in columns have two sides": (
        "Round  Date       Home        Away        Time\n1      14/11/26   Kilnhead    Saltmarsh   14:00\n2      21/11/26   Saltmarsh   Quayside    13:30",
        ["Kilnhead v Saltmarsh 2026-11-14T14:00/2026-11-14T15:00", "Saltmarsh v Quayside 2026-11-21T13:30/2026-11-21T14:30"],
    ),
    "hours behind a German date are no year": (
        "9.11. 8-10 Uhr Segelkunde, Raum 4\n10.11. 10-12 Uhr Knoten, Raum 2\n16.11. 8-10 Uhr Segelkunde, Raum 4",
        ["Segelkunde 2026-11-09T08:00/2026-11-09T10:00 @ Raum 4", "Knoten 2026-11-10T10:00/2026-11-10T12:00 @ Raum 2", "Segelkunde 2026-11-16T08:00/2026-11-16T10:00 @ Raum 4"],
    ),
    "short weekdays of German beside words of English": (
        "Mo, 16. Nov.: 18 Uhr Vorstandssitzung\nDo, 19. Nov.: ab 17 Uhr Laternenbau",
        ["Vorstandssitzung 2026-11-16T18:00/2026-11-16T19:00", "Laternenbau 2026-11-19T17:00/2026-11-19T18:00"],
    ),
    "a week of meals by short weekdays": (
        "Mensa-Plan 16.11.–20.11.\nMo: Suppe\nDi: Fisch\nMi: Nudeln",
        ["Mensa-Plan 2026-11-16/2026-11-21", "Suppe 2026-11-16/2026-11-17", "Fisch 2026-11-17/2026-11-18", "Nudeln 2026-11-18/2026-11-19"],
    ),
    "events that are counted before a weekday are no ranges": (
        "Inset 2 - Wednesday 2nd September\nInset 3 - Friday 23rd October", ["Inset 2 2026-09-02/2026-09-03", "Inset 3 2026-10-23/2026-10-24"],
    ),
    "Italian hours": (
        "Lunedì 30 novembre\nore 9.00 Collegio docenti\nore 15.30 - 17.00 Consiglio 1A",
        ["Collegio docenti 2026-11-30T09:00/2026-11-30T10:00", "Consiglio 1A 2026-11-30T15:30/2026-11-30T17:00"],
    ),
    "days in figures behind a counted title": (
        "Menu week 1 - 30/11, 11/1\nMenu week 2 - 7/12, 4/1",
        ["Menu week 1 2026-11-30/2026-12-01", "Menu week 2 2026-12-07/2026-12-08", "Menu week 2 2027-01-04/2027-01-05", "Menu week 1 2027-01-11/2027-01-12"],
    ),
    "the same time, inclusive days, and what a bracket says beside its date": (
        "Wednesday 2nd December, 9:30 - 12:30 First aid (part 1)\nWednesday 9th December, same time First aid (part 2)\nHalf term: 15–19 February (inclusive).\nBudget (deadline 31 January 2027)",
        ["First aid (part 1) 2026-12-02T09:30/2026-12-02T12:30", "First aid (part 2) 2026-12-09T09:30/2026-12-09T12:30", "Budget (deadline) 2027-01-31/2027-02-01", "Half term 2027-02-15/2027-02-20"],
    ),
    "Uhr behind leading times": (
        "Programm 5. Dezember\n10.00 Uhr: Begrüßung\n10.30–12 Uhr: Workshops\n13.30 Uhr: Abschluss",
        ["Begrüßung 2026-12-05T10:00/2026-12-05T10:30", "Workshops 2026-12-05T10:30/2026-12-05T12:00", "Abschluss 2026-12-05T13:30/2026-12-05T14:30"],
    ),
    "halves of the day of one letter": (
        "Saturday, December 5\n8:00a - Load in\n9:30a-11:30a - Rehearsal\n12p - Lunch\n7p - Show",
        ["Load in 2026-12-05T08:00/2026-12-05T09:30", "Rehearsal 2026-12-05T09:30/2026-12-05T11:30", "Lunch 2026-12-05T12:00/2026-12-05T13:00", "Show 2026-12-05T19:00/2026-12-05T20:00"],
    ),
    "a number behind a date that counts what is on": (
        "Sonntag, 6.12., 2. Advent\n17:00 Singen, Kirche", ["Singen 2026-12-06T17:00/2026-12-06T18:00 @ Kirche"],
    ),
    "days parted by a slash, before their month": (
        "Sat/Sun 5/6 Dec Jumble\n12/13 Dec   Lay-up weekend\nw/e 20 Dec...Berths due",
        ["Jumble 2026-12-05/2026-12-06", "Jumble 2026-12-06/2026-12-07", "Lay-up weekend 2026-12-12/2026-12-13", "Lay-up weekend 2026-12-13/2026-12-14", "Berths due 2026-12-14/2026-12-21"],
    ),
    "two days behind their month": (
        "Performance: Dec 11 and 12 @ 7pm", ["Performance 2026-12-11T19:00/2026-12-11T20:00", "Performance 2026-12-12T19:00/2026-12-12T20:00"],
    ),
    "titles beside one place are no surnames": (
        "Concert    Fri 4/12   19:30   Aula\nConcert    Sat 5/12   19:30   Aula\nMatinee    Sun 6/12   15:00   Aula",
        ["Concert 2026-12-04T19:30/2026-12-04T20:30 @ Aula", "Concert 2026-12-05T19:30/2026-12-05T20:30 @ Aula", "Matinee 2026-12-06T15:00/2026-12-06T16:00 @ Aula"],
    ),
    "Spanish hours and places": (
        "Lunes 9 de noviembre: reunión de padres a las 18:00 en el aula 3\nMartes 10 de noviembre: excursión (8:30 a 14:00)",
        ["reunión de padres 2026-11-09T18:00/2026-11-09T19:00 @ aula 3", "excursión 2026-11-10T08:30/2026-11-10T14:00"],
    ),
    "a French week with its days and hours": (
        "Semaine du 9 au 13 novembre 2026\nlundi : sortie au musée, 8h15\nmercredi : conseil à 18h\nvendredi : photo (9h)",
        ["sortie au musée 2026-11-09T08:15/2026-11-09T09:15", "conseil 2026-11-11T18:00/2026-11-11T19:00", "photo 2026-11-13T09:00/2026-11-13T10:00"],
    ),
    "a slip's number before a dash is no hour": (
        "15/11 – Junior regatta – Slip 1 – 9:00\n22/11 – Senior regatta – Slip 2 – 9:00",
        ["Junior regatta 2026-11-15T09:00/2026-11-15T10:00 @ Slip 1", "Senior regatta 2026-11-22T09:00/2026-11-22T10:00 @ Slip 2"],
    ),
    "what follows a dash in small letters is no place, nor who speaks, nor a count": (
        "Wed 11 Nov   Remembrance – two minutes' silence 11am\nThu 12 Nov 9.30 Lofting (R. Amaro)\nFri 13 Nov 10.15 Examinations, week 1\nSat 14 Nov 7pm Film (12A)",
        ["Remembrance 2026-11-11T11:00/2026-11-11T12:00", "Lofting (R. Amaro) 2026-11-12T09:30/2026-11-12T10:30", "Examinations 2026-11-13T10:15/2026-11-13T11:15", "Film (12A) 2026-11-14T19:00/2026-11-14T20:00"],
    ),
    "all day, and when one leaves and is back": (
        "Tuesday 17th November\n All day - Year 9 trip (leave 8.15, back 16.00)\n12.30 Lunch",
        ["Year 9 trip 2026-11-17T08:15/2026-11-17T16:00", "Lunch 2026-11-17T12:30/2026-11-17T13:30"],
    ),
    "weekdays of a range before its days": ("Mon-Fri 16-20 Nov: Work experience\nSat 21 Nov: Fair", ["Work experience 2026-11-16/2026-11-21", "Fair 2026-11-21/2026-11-22"]),
    "On is no Wednesday of another language": (
        "Closures\nFrom 23/11/2026 to 27/11/2026 - repairs\nOn 30/11/2026 - inspection", ["repairs 2026-11-23/2026-11-28", "inspection 2026-11-30/2026-12-01"],
    ),
    "a month that is like a weekday": ("Rentrée : mardi 1er septembre 2026\nHiver : du 20 février au 8 mars", ["Rentrée 2026-09-01/2026-09-02", "Hiver 2027-02-20/2027-03-09"]),
    "all day in Japanese": ("11月16日(月) 10:00 会議\n11月17日(火) 終日 研修", ["会議 2026-11-16T10:00/2026-11-16T11:00", "研修 2026-11-17/2026-11-18"]),
    "what minutes set for a day to come": ("Minutes, 4 November 2026\n3. Open day: agreed for Saturday 27 March 2027, 10am to 4pm.", ["Open day 2027-03-27T10:00/2027-03-27T16:00"]),
    "days over lists: what has no time is on that day": (
        "Mon 23 Nov\n- Assembly: safety\n- 12.30 Chess club\n\nTue 24 Nov\n- Fire drill\n- 16.00 Staff meeting",
        ["Assembly: safety 2026-11-23/2026-11-24", "Chess club 2026-11-23T12:30/2026-11-23T13:30", "Fire drill 2026-11-24/2026-11-25", "Staff meeting 2026-11-24T16:00/2026-11-24T17:00"],
    ),
    "a weekday, hours of four figures and dashes in columns": (
        "2 Nov   Mon   0830   Safety talk   Hall\n3 Nov   Tue   1015   First aid     Room 4\n4 Nov   Wed   ----   Holiday       -",
        ["Safety talk 2026-11-02T08:30/2026-11-02T09:30 @ Hall", "First aid 2026-11-03T10:15/2026-11-03T11:15 @ Room 4", "Holiday 2026-11-04/2026-11-05"],
    ),
    "Dutch labels": (
        "Ledenvergadering\nDatum: donderdag 19 november 2026\nTijd: 20.00 uur\nLocatie: Clubhuis", ["Ledenvergadering 2026-11-19T20:00/2026-11-19T21:00 @ Clubhuis"],
    ),
    "the title above a line that says when and where": (
        "Agenda\nSlip committee\nWednesday 2 December 2026, 4pm, Loft 2\n1. Apologies\n2. Minutes\n3. Crane\n4. Close", ["Slip committee 2026-12-02T16:00/2026-12-02T17:00 @ Loft 2"],
    ),
    "a course that starts on a day for some weeks": (
        "Rigging course\nTutor: J. Bell\nEvery Thursday 6pm to 8pm, starting 12 November 2026 for 2 weeks\nLoft 1",
        ["Rigging course 2026-11-12T18:00/2026-11-12T20:00 @ Loft 1", "Rigging course 2026-11-19T18:00/2026-11-19T20:00 @ Loft 1"],
    ),
    "weeks by their last days": ("Duty manager\nw/e 13 Nov: Amaro\nweek ending 20 Nov: Bell", ["Amaro 2026-11-07/2026-11-14", "Bell 2026-11-14/2026-11-21"]),
    "weekdays in brackets, and before a dash": (
        "17.11. (Di.) 19:30 Elternbeirat, Mensa\n19.11. (Do.) Vorlesetag", ["Elternbeirat 2026-11-17T19:30/2026-11-17T20:30 @ Mensa", "Vorlesetag 2026-11-19/2026-11-20"],
    ),
    "a weekday parted from its date, and all day in brackets": (
        "Tue - 17 Nov - Choir 4pm\nWed - 18 Nov - Trip (all day)", ["Choir 2026-11-17T16:00/2026-11-17T17:00", "Trip 2026-11-18/2026-11-19"],
    ),
    "a place and a time in brackets before who speaks": (
        "Nov 18 (12:10-12:50, Long Room) - P. Lind\nNov 25 (12:10-12:50, Loft 1) - B. Osei", ["P. Lind 2026-11-18T12:10/2026-11-18T12:50 @ Long Room", "B. Osei 2026-11-25T12:10/2026-11-25T12:50 @ Loft 1"],
    ),
    "when a page was posted, and hours from one to another in words": (
        "14.11.2026: Flohmarkt, 10 bis 16 Uhr\nPosted on 2 November 2026 by Hana", ["Flohmarkt 2026-11-14T10:00/2026-11-14T16:00"],
    ),
    "days behind their month": (
        "Nov 16, 18, 20 - Safety course, 9-12\nNov 24 - Fair", [*(f"Safety course 2026-11-{day}T09:00/2026-11-{day}T12:00" for day in (16, 18, 20)), "Fair 2026-11-24/2026-11-25"],
    ),
    "a poster whose date and times stand first; noon": (
        "Sunday 15th November 2026, 4pm-6pm\nSing! at the Boathouse\nFree entry\nOrganised by the Keel and Rib Club", ["Sing! at the Boathouse 2026-11-15T16:00/2026-11-15T18:00"],
    ),
    "noon in figures and words": (
        "Thursday, 19 November 2026\nLunch: 12:00 noon\nSpeaker: 12:30 p.m.", ["Lunch 2026-11-19T12:00/2026-11-19T12:30", "Speaker 2026-11-19T12:30/2026-11-19T13:30"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_a_text_is_read_as_a_person_reads_it(kind: str, tmp_path: Path) -> None:
    text, events = READ[kind]
    source = tmp_path / "notice.txt"
    source.write_text(text + "\n", "utf-8")
    ran = nomarium("build", source, "-o", tmp_path / "out.ics", *_YEAR)
    assert ran.status == 0, ran.text
    assert sorted(map(plain, events_in(tmp_path / "out.ics"))) == sorted(events)


def test_headings_over_groups_of_lines_are_their_categories(tmp_path: Path) -> None:
    text = "ARRIVALS\nMon 7 Dec: Kilnhead\n\nDEPARTURES\nMon 7 Dec: Heron\nTue 8 Dec: Tern\n\nAND SO ON\nnothing\nWed 9 Dec: Fair\n"
    source = tmp_path / "notice.txt"
    source.write_text(text, "utf-8")
    built(source, *_YEAR)
    found = {str(event["SUMMARY"]): event.get("CATEGORIES") for event in events_in(tmp_path / "notice.ics")}
    assert {title: list(said.cats) if said else [] for title, said in found.items()} == {
        "Kilnhead": ["ARRIVALS"], "Heron": ["DEPARTURES"], "Tern": ["DEPARTURES"], "Fair": [],
    }  # fmt: skip


REFUSED = {
    "a day in brackets, of which a sentence speaks": ("Next PTA meeting is on 14/01/2027 at 19:00 (online). Minutes of the last meeting (12/11/2026) are attached.", "line 1", "Minutes of the last"),
    "what is for a day, and said below it": ("Cover for Tuesday 8 December\nP1 Joinery - Amaro\nP2 Drawing - Bell", "line 1", "The date stands alone"),
    "a day that counts from when it was written": ("Mon 14 Dec 2026: Fair\nReminder: photos tomorrow!", "line 2", "only as counted from when it was written"),
    "the same in French": ("Le 7 décembre : dentiste\nJeudi prochain : piscine", "line 2", "only as counted from when it was written"),
    "a sentence that repeats, with an hour like a date": ("The club meets on the first Tuesday of each month at 7.30 pm.\nOctober 6: Caulking", "line 1", "It is a sentence"),
    "a date with TBC between others": ("Sat 24 Oct   Regatta\nSat 31 Oct  TBC\nSat 7 Nov   Old Boys", "line 2", "The date stands alone"),
    "a weekday of no week": ("Next week:\nMonday: swimming\n\nMonday 2 November: back", "line 2", "no line above it says of which week"),
    "a time of the day that a sentence spoke of": ("The lunch will be on Friday 18 December at 12.30pm. We break up that day at 3pm.", "line 1", "It is a sentence"),
    "what is refused is no title": ("- Thursdays, 19:00, Loft 2\n- 5, 12 and 19 November\n\nSat 21 Nov Fair", "line 2", "The date stands alone"),
    "weekdays of an exhibition": ("Exhibition 3 – 20 December 2026, Tue–Sun 10–17\nOpening: Thu 3 December, 18:00", "line 1", "again and again"),
    "hours of four figures among words": ("Ferry timetable 4 December\nDep Quayside 0815 arr Kilnhead 0840", "line 2", "none can be read"),
    "the usual time": ("Wed 2 December 9.30 First aid\nWed 9 December, usual time, First aid", "line 2", "time is that of another"),
    "two dates in German": ("Arbeitseinsatz: 28.11.2026 und 5.12.2026, jeweils 9 Uhr\n2.12.2026 Sitzung", "line 1", "more than one date"),
    "a time zone": ("Thu Nov 19 2026 9:00 AM EST - Webinar", "line 1", "in which time zone"),
    "two shifts on a line": ("Mon 9 Nov  Early: Amaro   Late: Bell", "line 1", "more than one date or time"),
    "times below two days": ("Visit (Tuesday 17 and Wednesday 18 November)\nTuesday\n8.30 arrive\nWednesday\n9.00 paperwork", "line 3", "neither it nor a line above it has a date"),
    "a month whose day is to come": ("September 7th     Term begins\nOctober (tbc)     Harvest festival", "line 2", "It seems to hold a date"),
    "a week of a month in words": ("First week of November: launch of the Tern\nSat 5 December: Fair", "line 1", "It seems to hold a date"),
    "a weekday is no title": ("17 November\nWednesday\n18 November\nVisit", "line 1", "nothing of it says what"),
    "a time whose day counts from today": ("Reminder: the safety training is this Thursday at 2pm in Loft 1.\n19 Nov: open evening", "line 1", "only as counted from when it was written"),
    "a sentence with a day and no month": ("The council meets Thursday, November 19th at 12:05.\nYearbook photos are Friday the 20th starting at 8:45.", "line 2", "It is a sentence"),
    "a word that begins, and no title": ("Sat 14 November: Race\n\nstarting Monday 16 November", "line 3", "nothing of it says what"),
    "days in figures one after the other": ("10/11 Tue 18.00 Act 1\n19/11, 20/11, 21/11 at 19.30", "line 2", "more than one date"),
}  # fmt: skip


@pytest.mark.parametrize("kind", REFUSED)
def test_a_text_in_doubt_is_refused_by_line(kind: str, tmp_path: Path) -> None:
    text, where, says = REFUSED[kind]
    source = tmp_path / "notice.txt"
    source.write_text(text + "\n", "utf-8")
    ran = nomarium("build", source, "-o", tmp_path / "out.ics", *_YEAR)
    assert ran.status == 1 and where in ran.err and says in ran.err, ran.text


def built_of(folder: Path, table: str) -> list[str]:
    source = folder / "fixtures.csv"
    source.write_text(table + "\n", "utf-8")
    return built(source)


SIDES = {
    "home and away": ("Date,Home,Away\n2026-11-14,Kilnhead,Saltmarsh", ["Kilnhead v Saltmarsh"]),
    "teams by number, one of them free": ("Date,Team 1,Team 2\n2026-11-14,Reds,Blues\n2026-11-21,Greens,bye", ["Reds v Blues"]),
    "an opponent, and whose ground": ("Date,Opponent,Home/Away\n2026-11-14,Kilnhead,H\n2026-11-21,Quayside,A", ["Kilnhead (H)", "Quayside (A)"]),
    "teams of one school, each with its opponent": (
        "Team,Opponent,Date,Home or Away\nU14,Quayside,2026-11-21,Away\nU16,Old Boys,2026-11-21,Home", ["U14 v Quayside (Away)", "U16 v Old Boys (Home)"],
    ),
    "sides of an event that has a name": ("Date,Event,Home,Away\n2026-11-14,Cup,Reds,Blues\n2026-11-21,League,Blues,Reds", ["Cup: Reds v Blues", "League: Blues v Reds"]),
    "titles that name the sides": ("Date,Event,Home,Away\n2026-11-14,Reds v Blues,Reds,Blues\n2026-11-21,Blues v Reds,Blues,Reds", ["Reds v Blues", "Blues v Reds"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", SIDES)
def test_two_sides_make_a_title(kind: str, tmp_path: Path) -> None:
    table, titles = SIDES[kind]
    assert [line.rpartition(" ")[0] for line in built_of(tmp_path, table)] == titles


def test_intervals_of_iso_8601_in_a_column_of_dates(tmp_path: Path) -> None:
    table = "Date,Title\n2026-11-11/2026-11-13,a\n2026-11-11/13,b\n2026-11-30/12-02,c\n2026-11-11T09:00/2026-11-11T10:00,d\n"
    assert built_of(tmp_path, table) == [
        "a 2026-11-11/2026-11-14", "b 2026-11-11/2026-11-14", "c 2026-11-30/2026-12-03", "d 2026-11-11T09:00/2026-11-11T10:00",
    ]  # fmt: skip


TABLES: dict[str, tuple[str, list[str], list[str]]] = {
    "parts of the day with dashes and a room": (
        "Date,Room,AM,PM\n2026-11-09,L1,Joinery,-\n2026-11-09,L2,Ropes,Rigging", [],
        ["Joinery (AM) 2026-11-09/2026-11-10 @ L1", "Ropes (AM) 2026-11-09/2026-11-10 @ L2", "Rigging (PM) 2026-11-09/2026-11-10 @ L2"],
    ),
    "parts of the day with their hours": (
        "Date,Morning 9-12,Afternoon 1-4\n2026-11-09,Joinery,\n2026-11-10,-,Rigging", [],
        ["Joinery 2026-11-09T09:00/2026-11-09T12:00", "Rigging 2026-11-10T13:00/2026-11-10T16:00"],
    ),
    "numbered courts are no headings of a list": (
        "Tournament: 21 November 2026,,\nTime,Court 1,Court 2\n09:00,Heron,Gull\n09:45,Tern,", [],
        ["Heron 2026-11-21T09:00/2026-11-21T09:45 @ Court 1", "Gull 2026-11-21T09:00/2026-11-21T09:45 @ Court 2", "Tern 2026-11-21T09:45/2026-11-21T10:30 @ Court 1"],
    ),
    "days on which there is no class": (
        "Class,Starts,Ends,Day,Time,No class\nKnots,2026-09-14,2026-10-05,Monday,4-5pm,21 Sep", [],
        ["Knots 2026-09-14T16:00/2026-09-14T17:00", "Knots 2026-09-28T16:00/2026-09-28T17:00", "Knots 2026-10-05T16:00/2026-10-05T17:00"],
    ),
    "a week with its times in the cells": (
        "Group,Mon,Tue\nJuniors,16:00-17:00,-\nSeniors,,5.30pm Rowing (Loft 1)", ["--from", "2026-11-02", "--until", "2026-11-10"],
        ["Juniors 2026-11-02T16:00/2026-11-02T17:00", "Juniors 2026-11-09T16:00/2026-11-09T17:00",
         "Seniors: Rowing 2026-11-03T17:30/2026-11-03T18:30 @ Loft 1", "Seniors: Rowing 2026-11-10T17:30/2026-11-10T18:30 @ Loft 1"],
    ),
    "a day of the week without groups, hours of the afternoon": (
        "Monday,Tuesday\n9-12 Ropes,1-4 Oars", ["--from", "2026-11-02", "--until", "2026-11-03"], ["Ropes 2026-11-02T09:00/2026-11-02T12:00", "Oars 2026-11-03T13:00/2026-11-03T16:00"],
    ),
    "days under a month in the title, beside their weekdays": (
        "November 2026,,\nDay,Date,What\nMon,9,Safety talk\nMon,16,First aid", [], ["Safety talk 2026-11-09/2026-11-10", "First aid 2026-11-16/2026-11-17"],
    ),
    "days and times under a month in the title": (
        "November 2026,,\nDate,Time,What\n9,10:00,Safety talk\n16,14:00,First aid", [], ["Safety talk 2026-11-09T10:00/2026-11-09T11:00", "First aid 2026-11-16T14:00/2026-11-16T15:00"],
    ),
    "headings that say what happens, over its times": (
        "Day,Date,Morning prayer,Evensong\nSun,2026-11-15,10:30,18:30\nSun,2026-11-22,10:30,-", [],
        ["Morning prayer 2026-11-15T10:30/2026-11-15T11:30", "Evensong 2026-11-15T18:30/2026-11-15T19:30", "Morning prayer 2026-11-22T10:30/2026-11-22T11:30"],
    ),
    "lists side by side under months": (
        "Dates for 2027,,\nJan,Feb,Mar\n4 Term,1 Talk,8 Exams\n,15-19 Half term,", [],
        ["Term 2027-01-04/2027-01-05", "Talk 2027-02-01/2027-02-02", "Exams 2027-03-08/2027-03-09", "Half term 2027-02-15/2027-02-20"],
    ),
    "rows that are halves of the day": (
        "Session,Mon 11/1/2027,Tue 12/1/2027,Wed 13/1/2027\nAM,Maths,English,\nPM,,,Art", [],
        ["Maths (AM) 2027-01-11/2027-01-12", "English (AM) 2027-01-12/2027-01-13", "Art (PM) 2027-01-13/2027-01-14"],
    ),
    "months with their years in a repeat": (
        'When,What\n"Every Tuesday in November 2026, 4-5pm",Chess\n"First Friday of each month, Dec 2026 - Jan 2027",Coffee', [],
        [*(f"Chess 2026-11-{day:02}T16:00/2026-11-{day:02}T17:00" for day in (3, 10, 17, 24)), "Coffee 2026-12-04/2026-12-05", "Coffee 2027-01-01/2027-01-02"],
    ),
    "a programme under its date, without headings": (
        "Saturday 14 November 2026,,\n9.00,Registration,\n10.15,Race,", [], ["Registration 2026-11-14T09:00/2026-11-14T10:00", "Race 2026-11-14T10:15/2026-11-14T11:15"],
    ),
    "a roster of the week in its title": (
        "\"Rota, week of 16 November 2026\",,\n,Mon,Tue\nGate,Amaro,Bell\nSlip,Okoro,Amaro", [],
        ["Gate: Amaro 2026-11-16/2026-11-17", "Gate: Bell 2026-11-17/2026-11-18", "Slip: Okoro 2026-11-16/2026-11-17", "Slip: Amaro 2026-11-17/2026-11-18"],
    ),
    "a half of the day before its time": (
        "Date,Time,Paper\n2027-01-11,AM 9:00,Joinery\n2027-01-11,PM 1:30,Ropework", [], ["Joinery 2027-01-11T09:00/2027-01-11T10:00", "Ropework 2027-01-11T13:30/2027-01-11T14:30"],
    ),
    "a week with sums of hours, and evenings on the clock of twelve": (
        "Employee,Mon,Tue,Hours\nAmaro,9-5,off,8\nBell,off,12-8,8", ["--from", "2026-11-16", "--until", "2026-11-17"],
        ["Amaro 2026-11-16T09:00/2026-11-16T17:00", "Bell 2026-11-17T12:00/2026-11-17T20:00"],
    ),
    "until, beside a repeat and an end": (
        "Title,Begin Date,Begin Time,Finish Date,Finish Time,Repeat every,Until\nChoir,2026-11-17,19:00,2026-11-17,21:00,week,2026-11-24", [],
        ["Choir 2026-11-17T19:00/2026-11-17T21:00", "Choir 2026-11-24T19:00/2026-11-24T21:00"],
    ),
    "the way there and back, under headings of two rows": (
        ",Out,,Back,\nEvent,Date,Time,Date,Time\nTrip,2026-11-16,8:00,2026-11-16,16:00\nCamp,2026-11-18,9:00,2026-11-20,15:00", [],
        ["Trip 2026-11-16T08:00/2026-11-16T16:00", "Camp 2026-11-18T09:00/2026-11-20T15:00"],
    ),
    "two days in figures in a cell are no times": (
        'Title,Date\nMenu,"7/12, 9/12"\nFair,"30/11, 14/12"', ["--school-year", "2026:2027"],
        ["Fair 2026-11-30/2026-12-01", "Menu 2026-12-07/2026-12-08", "Menu 2026-12-09/2026-12-10", "Fair 2026-12-14/2026-12-15"],
    ),
    "hours under “When”, beside weekdays, are no days of March": (
        "Club,Day,When,Where\nChess,Mondays,3.15-4.15,Loft 2\nChoir,Tue & Thu,12.30-1.00,Hall", ["--from", "2026-11-30", "--until", "2026-12-02"],
        ["Chess 2026-11-30T15:15/2026-11-30T16:15 @ Loft 2", "Choir 2026-12-01T12:30/2026-12-01T13:00 @ Hall"],
    ),
    "dates under their years": (
        "Holiday,2026,2027\nNew Year's Day,,1 Jan\nLabour Day,7 Sep,6 Sep", [],
        ["New Year's Day 2027-01-01/2027-01-02", "Labour Day 2026-09-07/2026-09-08", "Labour Day 2027-09-06/2027-09-07"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", TABLES)
def test_a_table_is_read_as_a_person_reads_it(kind: str, tmp_path: Path) -> None:
    table, options, events = TABLES[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert sorted(built(source, *options)) == sorted(events)


REFUSED_TABLES = {
    "a second column of times beside one of spans": ("Exam,Date,Reporting time,Exam time\nDrawing,2027-01-11,8:30,9:00 - 12:00", "Reporting time=description"),
    "a week with times in its cells, of no weeks": ("Group,Mon,Tue\nJuniors,16:00-17:00,\nSeniors,,17:30", "nothing says from when to when they repeat"),
    "sunrise and sunset beside an event": ("Date,Sunrise,Sunset,Event\n2026-11-16,07:20,16:41,Regatta", "“Sunrise” holds times"),
    "days of no month": ("Date,What\n9,Safety\n16,Aid", "nothing in it says of which month"),
}  # fmt: skip


@pytest.mark.parametrize("kind", REFUSED_TABLES)
def test_a_table_in_doubt_is_refused(kind: str, tmp_path: Path) -> None:
    table, says = REFUSED_TABLES[kind]
    source = tmp_path / "table.csv"
    source.write_text(table + "\n", "utf-8")
    assert says in refused(source)


def test_cards_of_a_page_and_its_footer(tmp_path: Path) -> None:
    cards = "".join(
        f"<div><span>{day}</span> <span>Nov</span><div><b>{title}</b><br>{time}<br>{place}</div></div>"
        for day, title, time, place in (
            ("14", "Craft fair", "10:00 – 16:00", "Main hall"),
            ("21", "Quiz night", "19:30", "Loft 2"),
        )
    )
    page = tmp_path / "page.html"
    page.write_text(
        f"<html><body><h1>What's on</h1>{cards}<footer>Sat 5 Dec 2026: closed</footer></body></html>", "utf-8"
    )
    assert built(page, *_YEAR) == [
        "Craft fair 2026-11-14T10:00/2026-11-14T16:00 @ Main hall",
        "Quiz night 2026-11-21T19:30/2026-11-21T20:30 @ Loft 2",
    ]


def test_a_page_says_that_an_event_is_cancelled(tmp_path: Path) -> None:
    page = tmp_path / "page.html"
    page.write_text(
        '<html><head><script type="application/ld+json">[{"@type":"Event","name":"Talk","startDate":"2026-11-19","eventStatus":"https://schema.org/EventCancelled"},'
        '{"@type":"Event","name":"Fair","startDate":"2026-11-21"}]</script></head><body></body></html>',
        "utf-8",
    )
    assert nomarium("build", page, "-o", tmp_path / "out.ics").status == 0
    assert [event.get("STATUS") for event in events_in(tmp_path / "out.ics")] == ["CANCELLED", None]


OLDER = [
    ("cp1252", "Événement,Date\nL’été à la «cale» 25 €,2026-10-05", "L’été à la «cale» 25 €"), ("mac_roman", "Titre,Date\nFête du port à l’Épée,2026-10-05", "Fête du port à l’Épée"),
    ("cp1250", "Tytuł,Data\nWęzły i żagle,2026-10-05", "Węzły i żagle"), ("iso8859_2", "Tytuł,Data\nPoczątek święta,2026-10-05", "Początek święta"),
    ("cp1251", "Событие,Дата\nУроки узлов,2026-10-05", "Уроки узлов"), ("shift_jis", "行事,日付\n入学式の練習,2026-10-05", "入学式の練習"),
    ("cp850", "Titel,Datum\nÜbung für Größere,2026-10-05", "Übung für Größere"),
]  # fmt: skip


@pytest.mark.parametrize(("encoding", "table", "title"), OLDER)
def test_older_encodings_are_known_by_their_words(
    encoding: str, table: str, title: str, tmp_path: Path
) -> None:
    source, out = tmp_path / "list.csv", tmp_path / "out.csv"
    source.write_bytes(f"{table}\n".encode(encoding))
    outcome = nomarium("build", source, "-o", out)
    assert outcome.status == 0 and "because its bytes are not UTF-8" in outcome.text
    assert title in out.read_text("utf-8-sig")
