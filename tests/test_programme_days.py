"""Programmes of several days and halves of days, times and days that rows leave to what stands around them, and rosters whose dates say
a half of their day: each is read right, or asked about."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused

OCTOBER = ("--from", "2026-10-05", "--until", "2026-10-16")
WINTER = ("--from", "2026-12-01", "--until", "2027-01-10")
SQUADS = "Squad,Day,Start,Finish\nJuniors,Tue,4.30pm,6pm\nMasters,Sat,8am,10am\n"
GRID = ",Mon,Tue,Wed\n9:00-10:00,Choir,Oars,Sails\n10:00-11:00,Knots,Choir,Sails\n"

READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "halves of a day alone in their rows": (
        "Saturday 9 January 2027\nTime,Event\nMorning\n9:00,Talk\nAfternoon\n1:00,Lunch\nEvening\n7:00,Dinner\n9:00,Dance", (),
        ["Talk 09T09:00", "Lunch 09T13:00", "Dinner 09T19:00", "Dance 09T21:00"],
    ),
    "a half of the day among the slots of a day sheet": (
        "Saturday 9 January 2027,,\nTime,Hall,Loft\n9:00,Talk,Tour\nEvening,,\n7:00,Dinner,\n9:00,Dance,Film", (),
        ["Talk 09T09:00", "Tour 09T09:00", "Dinner 09T19:00", "Dance 09T21:00", "Film 09T21:00"],
    ),
    "dates among the slots of a day sheet": (
        "Lessons,Lane 1,Lane 2\nSaturday 9 January 2027,,\n9:00,Crabs,Seals\n9:30,Seals,\nSaturday 16 January 2027,,\n9:00,Crabs,\n9:30,,Squad", (),
        ["Crabs 09T09:00", "Seals 09T09:00", "Seals 09T09:30", "Crabs 16T09:00", "Squad 16T09:30"],
    ),
    "which --set date does not outweigh": (
        "Lessons,Lane 1,Lane 2\nSaturday 9 January 2027,,\n9:00,Crabs,Seals\nSaturday 16 January 2027,,\n9:00,Crabs,", ("--set", "date=2027-01-30"),
        ["Crabs 09T09:00", "Seals 09T09:00", "Crabs 16T09:00"],
    ),
    "a date, and three columns without headings": (
        "9 January 2027,,\n9:00,Registration,Foyer\n9:30,Welcome,Hall\n10:00,Talk,Hall", (), ["Registration 09T09:00", "Welcome 09T09:30", "Talk 09T10:00"],
    ),
    "a time written once": (
        "9 January 2027,,\n9:00,Registration,Foyer\n,Tea,Loft\n10:00,Talk,Hall", ("--fill-down", "A"),
        ["Registration 09T09:00", "Tea 09T09:00", "Talk 09T10:00"],
    ),
    "and not across a new day": (
        "9 January 2027,,\n9:00,Registration,Foyer\n,Tea,Loft\n10 January 2027,,\n9:00,Walk,Quay\n,Swim,Slip\n11:00,Talk,Hall", ("--fill-down", "A"),
        ["Registration 09T09:00", "Tea 09T09:00", "Walk 10T09:00", "Swim 10T09:00", "Talk 10T11:00"],
    ),
    "halves of dates over a roster": (
        "Volunteer,Sat 9 Jan 2027 am,Sat 9 Jan 2027 pm,Sun 10 Jan 2027 am\nPell,Gate,Teas,\nQuist,,Gate,Teas", ("--set-code", "am=9:00-12:00"),
        ["Pell: Gate (am) 09T09:00", "Pell: Teas (pm) 09", "Quist: Gate (pm) 09", "Quist: Teas (am) 10T09:00"],
    ),
    "halves of dates beside one": (
        "When,Loft,Shed\nSat 9 Jan 2027 (am),Pell,Quist\nSat 9 Jan 2027 (pm),Moss,\nSun 10 Jan 2027 (am),,Barr", ("--as", "roster", "--set-code", "pm=13:00-16:00"),
        ["Pell (am) 09", "Quist (am) 09", "Moss (pm) 09T13:00", "Barr (am) 10"],
    ),
    "halls of a roster": ("Room,Mon 11 Jan 2027,Tue 12 Jan 2027\nHall,Maths 1,\nLoft,,French", (), ["Maths 1 11", "French 12"]),
    "classes of several years on their weekdays": (
        "Week beginning,Monday (Whole school),Wednesday (Yr 7-8)\n4 January 2027,Head,Mr Pell\n11 January 2027,Deputy,", ("--as", "roster"),
        ["Whole school: Head 04", "Yr 7-8: Mr Pell 06", "Whole school: Deputy 11"],
    ),
    "lists of times in a cell": (
        "Show,Date,Time\nKeelson,9 Jan 2027,2.30 and 7.30pm\nPlanks,10 Jan 2027,10 & 2pm\nOars,11 Jan 2027,\"11am, noon and 3pm\"", (),
        ["Keelson 09T14:30", "Keelson 09T19:30", "Planks 10T10:00", "Planks 10T14:00", "Oars 11T11:00", "Oars 11T12:00", "Oars 11T15:00"],
    ),
    "spans of time in a cell": (
        "Call,Date,Time\nChorus,9 Jan 2027,2-5 & 6-8\nCast,10 Jan 2027,3-4", (), ["Chorus 09T14:00", "Chorus 09T18:00", "Cast 10T15:00"],
    ),
    "lists of times in a roster": (
        "Event,9 Jan 2027,10 Jan 2027\nTours,\"11:00, 13:00\",14:00\nTrips,,\"10am, 12 noon and 3pm\"", (),
        ["Tours 09T11:00", "Tours 09T13:00", "Tours 10T14:00", "Trips 10T10:00", "Trips 10T12:00", "Trips 10T15:00"],
    ),
    "strokes from one time to another": (
        "Name,9 Jan 2027,10 Jan 2027\nPell,07:00/15:00,OFF\nQuist,OFF,15:00/23:00", (), ["Pell 09T07:00", "Quist 10T15:00"],
    ),
    "a pool is where, and a round is what": (
        "Gala,Start,Date,Pool\nRound 1,6pm,9 Jan 2027,Lido\nRound 2,5pm,10 Jan 2027,Baths", (), ["Round 1 09T18:00 @ Lido", "Round 2 10T17:00 @ Baths"],
    ),
    "an exam's extra time is no time of day": (
        "Exam,Date,Start,Length,Extra time\nMaths,11 Jan 2027,9:00,1h30,1h52\nFrench,12 Jan 2027,13:30,45 mins,56 mins\nArt,13 Jan 2027,9:00,1:45,2:11", (),
        ["Maths 11T09:00", "French 12T13:30", "Art 13T09:00"],
    ),
    "sessions that begin when it is said": (
        "Exam,Date,Session,Length\nMaths,11 Jan 2027,am,1h30\nFrench,12 Jan 2027,pm,45 mins", ("--set-code", "am=9:00", "--set-code", "pm=13:30"),
        ["Maths 11T09:00", "French 12T13:30"],
    ),
}  # fmt: skip


def _short(events: list[str]) -> set[str]:
    """Events of January 2027 without their ends and their month."""
    return {
        one.split("/")[0].replace("2027-01-", "") + (" @" + one.split(" @")[1] if "@" in one else "")
        for one in events
    }


@pytest.mark.parametrize("kind", READ)
def test_what_stands_around_rows_says_when_they_are(kind: str, tmp_path: Path) -> None:
    table, options, expected = READ[kind]
    found = _short(built(csv_file(tmp_path, table), *options))
    if not any("@" in one for one in expected):
        found = {one.split(" @")[0] for one in found}
    assert found == set(expected)


ASKED: dict[str, tuple[str, tuple[str, ...], str]] = {
    "a row without a time between others": (
        "9 January 2027,,\nTime,Event,Where\n9:00,Registration,Foyer\n,Tea,Loft\n10:00,Talk,Hall", (), "“Tea” has no time, and stands between rows of its day",
    ),
    "so below a date that is filled down": (
        "Date,Time,Event\n9 Jan 2027,9:00,Registration\n,,Tea\n,10:00,Talk", ("--fill-down", "Date"), '--fill-down "Time"',
    ),
    "Day 2 in a list": ("Conference 9 January 2027\nTime,Event\n9:00,Talk\n9:30,Tour\nDay 2\n9:00,Panel\n10:00,Walk", (), "“Day 2”"),
    "a second day in a list of one date": ("Time,Event\n9:00,Talk\n9:30,Tour\nSECOND DAY\n9:00,Panel\n10:00,Walk", ("--set", "date=2027-01-09"), "row 4"),
    "Day 2 in a day sheet": ("Conference 9 January 2027,,\nTime,Hall,Loft\n9:00,Talk,Tour\n9:30,Walk,\nDay 2,,\n9:00,Panel,\n9:30,Row,Sail", (), "says no date"),
    "a weekday in a day sheet": (
        "Lessons,Lane 1,Lane 2\nSaturday,,\n9:00,Crabs,Seals\n9:30,Seals,\nSunday,,\n9:00,Crabs,\n9:30,,Squad", ("--set", "date=2027-01-09"), "“Sunday”",
    ),
    "a stroke among lone times": ("Event,Date,Time\nShow,9 Jan 2027,14:00 / 19:30\nTalk,10 Jan 2027,11:00", (), "Write it like 14:00–19:30, or like 14:00 & 19:30"),
    "a stroke among lone times of a roster": ("Film,9 Jan 2027,10 Jan 2027\nKeel,18:00,14:00/19:30\nRib,20:15,", (), "or two times"),
    "a stroke behind dates": ("Show,When\nKeel,Sat 9 Jan 2027 14:00/19:30\nRib,Sun 10 Jan 2027 19:30", (), "or two times"),
    "figures in a roster": ("Event,9 Jan 2027,10 Jan 2027\nTours,\"11, 1 & 3\",10am\nTrips,10 and 2,11am", (), "“10 and 2” could be hours"),
    "spans whose half of the day is open": ("Call,Date,Time\nChorus,9 Jan 2027,2-5 & 6-8\nCast,10 Jan 2027,9am", (), "2:00 could be in the morning or in the afternoon"),
    "lengths of sessions": ("Exam,Date,Session,Length\nMaths,11 Jan 2027,am,1h30\nFrench,12 Jan 2027,pm,45 mins", (), '--set-code "am=TIME" --set-code "pm=TIME"'),
    "spans that follow each other in the evening": ("Bar,Fri 8 Jan 2027,,Sat 9 Jan 2027,\n,6-9,9-12,6-9,9-12\nPell,X,,,X\nQuist,,X,X,", (), "begins at 18:00 and the one that follows it at 9:00"),
    "so in headings": ("Date,Shift 1 (6-9),Shift 2 (9-12)\nFri 8 Jan 2027,Pell,Quist\nSat 9 Jan 2027,Oakes,Pell", (), "in which half of the day they are is open"),
    "a match put off among scores": ("Date,Opponent,Result\n9 Jan 2027,Rib,3-1\n16 Jan 2027,Mast,P-P", (), "says that rows are not held"),
}  # fmt: skip


@pytest.mark.parametrize("kind", ASKED)
def test_what_rows_leave_open_is_asked_about(kind: str, tmp_path: Path) -> None:
    table, options, said = ASKED[kind]
    assert said in refused(csv_file(tmp_path, table), *options)


def test_a_row_without_a_time_of_a_list_with_dates_is_told(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        "Date,Time,Event\n9 Jan 2027,9:00,Talk\n9 Jan 2027,,Book fair\n9 Jan 2027,11:00,Tea\n10 Jan 2027,,Rest",
    )
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert outcome.status == 0
    assert "between rows of the same day that have a time, and last all day: “Book fair”" in outcome.text


def test_strokes_are_told(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Event,Date,Time\nTalk,9 Jan 2027,09:00/10:00\nTour,9 Jan 2027,10:00/12:00")
    said = nomarium("build", source, "-o", tmp_path / "out.ics").text
    assert "Times with a stroke between are from the first to the second" in said


MONTHLY: dict[str, tuple[str, list[str]]] = {
    "how often": ("Clinic,Day,Frequency,Time\nEyes,Tue,1st & 3rd,9-12\nEars,Fri,last,2-4\n", ["Eyes 10-06", "Eyes 10-20", "Eyes 11-03", "Ears 10-30"]),
    "of the month": ("Clinic,Day,Frequency,Time\nEyes,Thu,2nd of the month,9-12\nEars,Fri,last of month,2-4", ["Eyes 10-08", "Ears 10-30"]),
    "weeks": ("Clinic,Day,Weeks,Time\nEyes,Tue,1st & 3rd,9-12\nEars,Thu,2nd,2-4\nFeet,Fri,every,9-1", ["Eyes 10-06", "Eyes 10-20", "Eyes 11-03", "Ears 10-08", *(f"Feet {day}" for day in ("10-02", "10-09", "10-16", "10-23", "10-30"))]),
    "weeks alone": ("Group,Weekday,Weeks,Time\nRig,Tuesday,2nd,9-12\nSail,Thurs,3rd,2-4", ["Rig 10-13", "Sail 10-15"]),
    "weeks in French": ("Group,Day,Frequency,Time\nRig,mardi,2e,14:00-15:00\nSail,jeudi,weekly,14:00-15:00", ["Rig 10-13", *(f"Sail {day}" for day in ("10-01", "10-08", "10-15", "10-22", "10-29"))]),
}  # fmt: skip


@pytest.mark.parametrize("kind", MONTHLY)
def test_which_weeks_of_a_month_stand_beside_the_weekday(kind: str, tmp_path: Path) -> None:
    table, expected = MONTHLY[kind]
    source = csv_file(tmp_path, table)
    found = {
        one.split("T")[0].replace("2026-", "")
        for one in built(source, "--from", "2026-10-01", "--until", "2026-11-04", "--language", "fr")
    }
    assert found == set(expected)
    assert (
        " is read as every month on the "
        in nomarium(
            "survey", source, "--from", "2026-10-01", "--until", "2026-11-04", "--language", "fr"
        ).text
    )


CLOSED: dict[str, tuple[str, int]] = {
    "what is trained": ("Training,,,\n" + SQUADS + "NB: no training 19 Dec – 3 Jan,,,", 7),
    "two days": ("Saltmarsh rowing 2026,,,\n" + SQUADS + "No rowing on 22 December or 2 January,,,", 10),
    "in the title": ("Training (not 22 Dec),,,\n" + SQUADS + "* not 26 December,,,", 10),
    "except, in the title": (
        "Training - Tuesdays and Saturdays except 22 December and 26 December,,,\n" + SQUADS,
        10,
    ),
    "what all rows are": ("Club,Day,Start\nChess,Tue,4pm\nChess,Sat,4pm\nNo chess 22 December,,", 11),
    "nothing about them": (SQUADS + "No parking on 22 December,,,", 12),
}


@pytest.mark.parametrize("kind", CLOSED)
def test_a_line_that_names_what_is_not_held_leaves_it_out(kind: str, tmp_path: Path) -> None:
    table, count = CLOSED[kind]
    assert len(built(csv_file(tmp_path, table), *WINTER)) == count


@pytest.mark.parametrize(
    ("table", "options"),
    [
        (SQUADS + "No juniors 22 Dec,,,", WINTER),
        (GRID + "No choir 6 October,,,", OCTOBER),
        (GRID + "No music 6 October,,,", OCTOBER),
        ("What,When\nChoir,\"Mondays 7pm, 7 Sept 2026 - 14 Dec 2026\"\nBand,\"Tuesdays 7pm, 8 Sept 2026 - 15 Dec 2026\"\nNo choir on 26 October,", ()),
    ],
)  # fmt: skip
def test_a_line_about_some_of_the_rows_is_asked_about(
    table: str, options: tuple[str, ...], tmp_path: Path
) -> None:
    assert "says when something is not held, and not for sure what" in refused(
        csv_file(tmp_path, table), *options
    )


@pytest.mark.parametrize(
    "table",
    [
        ",Mon,Tue,Wed\nRegistration,AP,BQ,CL\n9.00,Knots,Oars,Sails\n10.00,Oars,Knots,Oars",
        "Break duty,Mon,Tue,Wed\nYard,AP,BQ,CL\nLoft,CL,AP,BQ\nGate (8.15–8.35),BQ,CL,AP",
        ",Mon,Tue,Wed\nBefore school,,Rowing,\n9.00,Knots,Oars,Sails\n10.00,Oars,Knots,Oars\nAfter school,,,Chess",
    ],
)  # fmt: skip
def test_named_lines_of_a_drawn_week_without_a_time_are_asked_about(table: str, tmp_path: Path) -> None:
    assert "No line says in which period, or at which time, this is." in refused(
        csv_file(tmp_path, table), *OCTOBER
    )


def test_a_second_row_of_headings_of_a_drawn_week_is_told(tmp_path: Path) -> None:
    table = ",Mon,Tue\n{}\n9.00,Knots,Oars\n10.00,Oars,Knots"
    for line, said in (
        (",Pell,Quist", "Not used, above the classes: “Pell” and “Quist”"),
        ("Room,L1,L2", "“L1” and “L2”"),
    ):
        source = csv_file(tmp_path, table.format(line))
        assert said in nomarium("build", source, "-o", tmp_path / "out.ics", *OCTOBER).text
    assert len(built(csv_file(tmp_path, table.format("Day of cycle,Keel,Rib")), *OCTOBER)) == 8


@pytest.mark.parametrize("head", ["Day,Time,Pupil,Form", "Day,Time,Class,Room", "Day,Time,Group,Teacher"])
def test_a_list_of_lessons_with_forms_is_no_drawn_week(head: str, tmp_path: Path) -> None:
    names = {
        "Form": ("A Barr,7K", "B Moss,7R"),
        "Room": ("7K,L1", "7R,L1"),
        "Teacher": ("7K,Pell", "7R,Quist"),
    }[head.rsplit(",")[-1]]
    table = f"{head}\nMon,9.00-9.20,{names[0]}\nMon,9.20-9.40,{names[1]}\nTue,9.00-9.20,{names[0]}"
    found = built(csv_file(tmp_path, table), *OCTOBER)
    assert len(found) == 6 and found[0].split(" @")[0].endswith("T09:00/2026-10-05T09:20")


def test_am_and_pm_behind_the_times_of_a_meeting_are_no_room(tmp_path: Path) -> None:
    table = "Section,Schedule\nKN101-01,MWF 9:00 AM - 9:50 AM\nOA202-01,TTh 1:00 PM - 2:15 PM\n"
    found = built(csv_file(tmp_path, table), *OCTOBER)
    assert len(found) == 10 and not any("@" in one for one in found)
    placed = built(
        csv_file(tmp_path, table.replace("AM\n", "AM LOFT 1\n").replace("PM\n", "PM SHED 2\n")), *OCTOBER
    )
    assert {one.split(" @ ")[1] for one in placed} == {"LOFT 1", "SHED 2"}


def test_a_time_before_its_period_and_what_follows_a_break_make_no_short_lessons(tmp_path: Path) -> None:
    table = (
        ",Mon,Tue\n8.40 Reg,AP,BQ\n9.00 P1,Knots,Oars\n10.00 P2,Oars,Knots\n11.00 Break,,\n11.20 P3,Sails,Tar"
    )
    found = built(csv_file(tmp_path, table), "--from", "2026-10-05", "--until", "2026-10-05")
    times = [(one.split(" ")[0], one.split(" ")[1].replace("2026-10-05T", "")) for one in found]
    assert times == [
        ("AP", "08:40/09:00"),
        ("Knots", "09:00/10:00"),
        ("Oars", "10:00/11:00"),
        ("Sails", "11:20/12:20"),
    ]


SECTIONS = {
    "French": ("lundi 5 octobre 2026", "mercredi 7 octobre 2026", "lundi 2 novembre 2026"),
    "German": ("Montag, 5. Oktober 2026", "Mittwoch, 7. Oktober 2026", "Montag, 2. November 2026"),
    "Swedish": ("måndag 5 oktober 2026", "onsdag 7 oktober 2026", "måndag 2 november 2026"),
    "Finnish": (
        "maanantai 5. lokakuuta 2026",
        "keskiviikko 7. lokakuuta 2026",
        "maanantai 2. marraskuuta 2026",
    ),
    "English": ("Monday 5 October 2026", "Wednesday 7 October 2026", "Monday 2 November 2026"),
}


@pytest.mark.parametrize("end", ["", ":"])
@pytest.mark.parametrize("language", SECTIONS)
def test_days_above_their_rows_in_languages_and_with_colons(language: str, end: str, tmp_path: Path) -> None:
    """A month that English has, too, must not make the rows of the others remarks above the table."""
    first, second, third = (f'"{day}{end}",' for day in SECTIONS[language])
    table = f"{first}\n9:00-10:00,Knots\n10:30-11:00,Sails\n{second}\n13:00-14:30,Oars\n{third}\n18:00-20:00,Supper"
    found = built(csv_file(tmp_path, table))
    assert [one.split("/")[0] for one in found] == [
        "Knots 2026-10-05T09:00",
        "Sails 2026-10-05T10:30",
        "Oars 2026-10-07T13:00",
        "Supper 2026-11-02T18:00",
    ]


@pytest.mark.parametrize("heading", ["", "Time,Event\n"])
def test_timed_rows_above_the_first_day_are_no_remarks(heading: str, tmp_path: Path) -> None:
    table = f"{heading}9:00,Assembly\n10:00,Chapel\n5 October 2026,\n11:00,Talk\n12:00,Lunch"
    assert "holds dates" in refused(csv_file(tmp_path, table))
