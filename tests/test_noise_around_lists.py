"""What people keep in a list and around it, counts, remarks, deadlines, codes, must not become events or move them; what would is
refused."""

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused

YEAR = ("--school-year", "2026:2027")
TERM = ("--from", "2026-09-07", "--until", "2026-09-18")


def starts(path: Path, *options: str) -> list[str]:
    return [one.split("/")[0] for one in built(path, *options)]


@pytest.mark.parametrize(
    ("text", "options", "events"),
    [
        ("Date,Event\nWe 9.9.,Knots\nTu 22.12.,Oars", YEAR, ["Knots 2026-09-09", "Oars 2026-12-22"]),
        ("Date,Event\n12 September 1830,Knots\n3 October 0915,Oars", YEAR, ["Knots 2026-09-12T18:30", "Oars 2026-10-03T09:15"]),
        ("Date,Event\nSu 11.10. 10am-10:30am,Knots\nSu 18.10. 10am-11am,Oars", YEAR, ["Knots 2026-10-11T10:00", "Oars 2026-10-18T10:00"]),
        ("Wk,Day,Event\n2,2026-09-19,Knots\n3,2026-09-22,Oars", (), ["Knots 2026-09-19", "Oars 2026-09-22"]),
        ("Week,Wk,Date,Event\n8,B,2026-10-28,Knots\n15,A,2026-12-15,Oars", (), ["Knots 2026-10-28", "Oars 2026-12-15"]),
        ("Day,Event\n24/09,Knots\n23/10,Oars\n\nSee www.saltmarsh.example\nEnd of list", YEAR, ["Knots 2026-09-24", "Oars 2026-10-23"]),
        ("Event,Date\nKnots,2026-09-24\nOars,2026-10-23\n\nPlease note: times are approximate,\nContact the office on 902 555 0100,\nLast updated 1 August 2026,", (), ["Knots 2026-09-24", "Oars 2026-10-23"]),
        ("Veranstaltung,Tag\nKnots,Di 06.10.2026\nOars,Sa 02.01.2027", (), ["Knots 2026-10-06", "Oars 2027-01-02"]),
        ("Activité,Jour\nKnots,je 10.12.2026\nOars,sa 19.12.2026", (), ["Knots 2026-12-10", "Oars 2026-12-19"]),
        ("Le,Activité\nmardi 8. septembre,Knots\nsamedi 12. septembre,Oars", YEAR, ["Knots 2026-09-08", "Oars 2026-09-12"]),
        ("Name,Birthday\nKnots,14 May 1955\nOars,3 Oct 2015", (*YEAR, "--from", "2026-09-01", "--until", "2027-08-31"), ["Knots: Birthday 2027-05-14", "Oars: Birthday 2026-10-03"]),
    ],
)  # fmt: skip
def test_dates_in_odd_company_are_read(
    text: str, options: tuple[str, ...], events: list[str], tmp_path: Path
) -> None:
    assert sorted(starts(csv_file(tmp_path, text), *options)) == sorted(events)


@pytest.mark.parametrize(
    ("text", "options", "said"),
    [
        ("Date,Event\n12 September 1830,Knots\n3 October 2015,Oars", YEAR, "its last figures may be an hour"),
        ("Date,Event,Booked\n2027-03-05,Knots,3/12\n2027-03-06,Oars,4/12", (), ""),
        ("Date,Event,Rehearsal\n2027-03-05,Knots,3/12\n2027-03-06,Oars,4/12", (), "write its month in letters"),
        ("Date,Event,Access from\n2027-03-05,Knots,14:00\n2027-03-06,Oars,15:00", (), "holds times and is none of those that say when"),
        ("Date,Event,Time\n2027-03-05,Knots,4pm/7pm\n2027-03-06,Oars,4pm", (), "from the first time to the second, or two times"),
        ("Date,Event\n2027-03-05,Race - postponed to 27 March\n2027-03-06,Oars", (), "not held on its date"),
        ("Date,Event\n2027-03-05,Race (moved to 27 March)\n2027-03-06,Oars", (), "not held on its date"),
        ("Date,Event\n2027-03-05,Race has moved to Friday\n2027-03-06,Oars", (), "not held on its date"),
    ],
)  # fmt: skip
def test_what_could_be_something_else_is_asked_about(
    text: str, options: tuple[str, ...], said: str, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, text)
    if not said:
        assert starts(source, *options) == ["Knots 2027-03-05", "Oars 2027-03-06"]
    else:
        assert said in " ".join(refused(source, *options).split())


@pytest.mark.parametrize("heading", ["Date entered", "Letters sent", "Date added", "Received", "Approved on"])
def test_days_on_which_books_were_kept_are_no_events(heading: str, tmp_path: Path) -> None:
    text = f"Date,Event,{heading}\n2027-03-05,Knots,2026-09-01\n2027-03-06,Oars,2026-09-02"
    source = csv_file(tmp_path, text)
    assert starts(source) == ["Knots 2027-03-05", "Oars 2027-03-06"]
    assert heading in nomarium("build", source, "-o", tmp_path / "o.ics").out


def test_the_weekday_of_a_row_is_not_that_of_its_deadline(tmp_path: Path) -> None:
    text = "Event,Day,Book by,Date\nKnots,Wed,2/6/2027,2/17/2027\nOars,Sat,3/16/2027,3/20/2027"
    events = starts(csv_file(tmp_path, text))
    assert sorted(events) == ["Knots 2027-02-17", "Knots: Book by 2027-02-06", "Oars 2027-03-20", "Oars: Book by 2027-03-16"]  # fmt: skip


@pytest.mark.parametrize(
    "heading", ["Length in minutes", "Duration in min", "Duration mins", "Length (minutes)"]
)
def test_a_heading_names_the_unit_of_a_length(heading: str, tmp_path: Path) -> None:
    text = f"Date,Event,Start,{heading}\n2027-03-05,Knots,9:00,45\n2027-03-06,Oars,14:00,180"
    assert built(csv_file(tmp_path, text)) == [
        "Knots 2027-03-05T09:00/2027-03-05T09:45", "Oars 2027-03-06T14:00/2027-03-06T17:00",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("title", "called"),
    [
        ("CANCELLED - Film: The Wreck", "Film: The Wreck"), ("Race - CANCELLED", "Race"), ("Race [CANCELLED]", "Race"),
        ("*** CANCELLED *** Race", "Race"), ("CANCELLED Race", "Race"), ("Race **CANCELLED**", "Race"),
        ("Race - cancelled due to wind", "Race - cancelled due to wind"), ("Race – has been cancelled", "Race"),
        ("Race cancelled", "Race"), ("Race: now cancelled", "Race"),
    ],
)  # fmt: skip
def test_titles_that_say_that_it_is_off(title: str, called: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f'Date,Event\n2027-03-05,"{title}"\n2027-03-06,Oars')
    nomarium("build", source, "-o", tmp_path / "o.csv")
    rows = (tmp_path / "o.csv").read_text("utf-8-sig").splitlines()
    assert called in rows[1] and "cancelled" in rows[1].casefold().replace(called.casefold(), "")


@pytest.mark.parametrize(
    "title", ["Debate: cancelled culture", "No refunds if cancelled", "Cancelled debts", "New members' evening",
              "Moved by music", "Race (moved to the hall)", "Race (rescheduled from 3 March)", "Race - new date 5 March"]
)  # fmt: skip
def test_titles_that_only_sound_so(title: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f'Date,Event\n2027-03-05,"{title}"\n2027-03-06,Oars')
    assert starts(source) == [f"{title} 2027-03-05", "Oars 2027-03-06"]
    assert (
        b"CANCELLED" not in (tmp_path / "out.ics").read_bytes() if (tmp_path / "out.ics").exists() else True
    )


KNOTS = ["Knots 2026-09-07T16:00/2026-09-07T17:00", "Knots 2026-09-14T16:00/2026-09-14T17:00"]
OARS = ["Oars 2026-09-08T18:00/2026-09-08T19:00", "Oars 2026-09-15T18:00/2026-09-15T19:00"]


@pytest.mark.parametrize(
    "text",
    [
        "When,Activity,Time\nMon,Knots,4pm-5pm\nTue,Oars,6pm-7pm",
        "Activity,When,From,To\nKnots,M,16:00,17:00\nOars,Tues,18:00,19:00",
        "Name,Time\nMonday,\nKnots,4pm-5pm\nTuesday,\nOars,6pm-7pm",
        "Club,Time,Enrolled\nMONDAYS,,\nKnots,4pm-5pm,12/20\nTUESDAYS,,\nOars,6pm-7pm,8/10",
        "Day,Event,Time,Enrollment\nMon,Knots,4pm-5pm,12/20\nTue,Oars,6pm-7pm,8/10",
        "Club,Day,Time,Section\nKnots,Mon,4pm-5pm,01\nOars,Tue,6pm-7pm,B",
        "Session,Time,Section\nMonday,,\nKnots,4pm-5pm,01\nTuesday,,\nOars,6pm-7pm,B",
        "Club,Day,Time,First class,Last class\nKnots,Mon,4pm-5pm,7 Sept 2026,14 Sept 2026\nOars,Tue,6pm-7pm,8 Sept 2026,15 Sept 2026",
        "Club,Time,First class,Last class\nMonday,,,\nKnots,4pm-5pm,7 Sept 2026,14 Sept 2026\nTuesday,,,\nOars,6pm-7pm,8 Sept 2026,15 Sept 2026",
    ],
)  # fmt: skip
def test_weekly_lists_as_clubs_keep_them(text: str, tmp_path: Path) -> None:
    assert sorted(built(csv_file(tmp_path, text), *TERM)) == [*KNOTS, *OARS]


def test_places_that_are_left_are_no_room(tmp_path: Path) -> None:
    text = (
        "Club,Time,Places,Venue\nMonday,,,\nKnots,16:00-17:00,20,Loft 1\nTuesday,,,\nOars,18:00-19:00,12,204"
    )
    assert sorted(built(csv_file(tmp_path, text), *TERM)) == [
        *(f"{one} @ Loft 1" for one in KNOTS), *(f"{one} @ 204" for one in OARS),
    ]  # fmt: skip


@pytest.mark.parametrize("heading", ["Day", "When"])
def test_a_weekday_written_once_is_asked_about_and_never_makes_days_of_weeks(
    heading: str, tmp_path: Path
) -> None:
    text = f"{heading},Club,Start,End,First day,Last day\nMondays,Knots,16:00,17:00,2026-09-07,2026-10-12\n,Oars,18:00,19:00,2026-09-07,2026-10-12"
    said = refused(csv_file(tmp_path, text))
    assert f'--fill-down "{heading}"' in said and "--spans" not in said
    assert len(built(tmp_path / "events.csv", "--fill-down", heading)) == 12


def test_a_deadline_is_not_the_day_of_what_has_a_day(tmp_path: Path) -> None:
    text = "Deadline,Day,Name\n7 Sept 2026,19 Sept 2026 7.30pm to 8.30pm,Knots\n23 Oct 2026,27 Oct 2026 9.30am to 10am,Oars"
    assert starts(csv_file(tmp_path, text)) == [
        "Knots 2026-09-19T19:30", "Knots: Deadline 2026-09-07", "Oars 2026-10-27T09:30", "Oars: Deadline 2026-10-23",
    ]  # fmt: skip


def test_back_is_the_end_of_what_departs(tmp_path: Path) -> None:
    text = "Trip,Departs,Back\nKnots,2026-09-19,2026-09-21\nOars,2026-10-27,2026-10-27"
    assert built(csv_file(tmp_path, text)) == ["Knots 2026-09-19/2026-09-22", "Oars 2026-10-27/2026-10-28"]


@pytest.mark.parametrize(
    "cells",
    [
        ("\u200bTue 6 October 2026", "9:00\u201110:00"), ("\ufeff6 October 2026 ", "\u200b9:00\u00a0\u2010 10:00"),
        ("\u200e6/\u200e10/\u200e2026", "9:00–10:00"),
    ],
)  # fmt: skip
def test_what_nobody_sees_in_a_cell_does_no_harm(cells: tuple[str, str], tmp_path: Path) -> None:
    text = f"Date,Time,Event\n{cells[0]},{cells[1]},Knots\n16/10/2026,11:00-12:00,Oars"
    assert built(csv_file(tmp_path, text))[0] == "Knots 2026-10-06T09:00/2026-10-06T10:00"


@pytest.mark.parametrize("heading", ['"Last\nupdated"', '"On\nwebsite"', '"Closing\ndate"'])
def test_a_heading_in_two_lines_is_one_heading(heading: str, tmp_path: Path) -> None:
    path = tmp_path / "events.csv"
    cells = ("N", "Y") if "web" in heading else ("3 Sept 2026", "4 Sept 2026")
    path.write_text(
        f"Event,Date,{heading}\nKnots,2026-10-06,{cells[0]}\nOars,2026-10-07,{cells[1]}\n", "utf-8"
    )
    events = starts(path)
    assert {"Knots 2026-10-06", "Oars 2026-10-07"} <= set(events)
    assert [one for one in events if "Closing" not in one] == ["Knots 2026-10-06", "Oars 2026-10-07"]


@pytest.mark.parametrize("heads", ['Home:,"""Away"""', "Home *,Away", "HOME,AWAY TEAM"])
def test_signs_around_headings_mean_nothing(heads: str, tmp_path: Path) -> None:
    text = f"Date,{heads}\n2026-10-06,Cove,Ashmere\n2026-10-07,Saltmarsh,Cove"
    assert starts(csv_file(tmp_path, text)) == ["Cove v Ashmere 2026-10-06", "Saltmarsh v Cove 2026-10-07"]


def test_the_days_of_a_meeting_are_no_numbers_to_dial(tmp_path: Path) -> None:
    text = "Event,Planning meeting,Rehearsal\nKnots,2026-12-02,2026-12-17\nOars,2026-10-20,2026-11-04"
    assert starts(csv_file(tmp_path, text)) == [
        "Knots: Planning meeting 2026-12-02", "Knots: Rehearsal 2026-12-17",
        "Oars: Planning meeting 2026-10-20", "Oars: Rehearsal 2026-11-04",
    ]  # fmt: skip


@pytest.mark.parametrize("sign", ["ditto", "Dito", "idem", '""""', "〃"])
def test_a_place_that_stands_for_the_one_above_is_refused(sign: str, tmp_path: Path) -> None:
    text = f"Date,Event,Where\n2026-11-03,Knots,Loft 2\n2026-11-04,Sails,{sign}\n"
    assert "Write into the cell what it stands for" in refused(csv_file(tmp_path, text))


@pytest.mark.parametrize(
    "title",
    [
        "Race postponed", "Race is postponed", "Race postponed until further notice", "Race ABANDONED", "Race, called off due to wind",
        "Race deferred indefinitely", "Race has been called off",
    ],
)  # fmt: skip
@pytest.mark.parametrize("form", ["list", "text"])
def test_a_title_that_says_it_is_put_off_is_not_held(title: str, form: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f'Date,Event\n2027-01-11,Supper\n2027-01-12,"{title}"\n')
    if form == "text":
        source = tmp_path / "notice.txt"
        source.write_text(f"Mon 11 January 2027: Supper\nTue 12 January 2027: {title}\n")
    built(source)
    (event,) = [one for one in events_in(source.with_suffix(".ics")) if one["SUMMARY"] != "Supper"]
    assert event["STATUS"] == "CANCELLED" and str(event["SUMMARY"]) in (title, "Race")


@pytest.mark.parametrize(
    "title",
    [
        "Race postponed to 9 September", "Race moved to Friday", "Race rescheduled to Friday 9 April", "Race delayed to 3pm",
        "Race put back to April", "Race brought forward to 8 Jan", "Race deferred to March",
    ],
)  # fmt: skip
def test_a_title_that_says_it_is_moved_stops_its_row(title: str, tmp_path: Path) -> None:
    assert "not held on its date" in refused(
        csv_file(tmp_path, f"Date,Event\n2027-01-11,Supper\n2027-01-12,{title}\n")
    )


@pytest.mark.parametrize(
    "title",
    [
        "Fair moved to hall", "Moved by music", "Race moved to 12 January", "We moved to Spain: a talk", "The postponed wedding",
        "Abandoned ship talk", "Changed for good", "New to yoga", "Talk on boats put back to sea", "Delayed for 2 weeks",
    ],
)  # fmt: skip
def test_words_of_moving_are_titles_where_no_day_or_time_follows(title: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Date,Event\n2027-01-11,Supper\n2027-01-12,{title}\n")
    assert f"{title} 2027-01-12/2027-01-13" in built(source)
    assert "STATUS:CANCELLED" not in source.with_suffix(".ics").read_text()


@pytest.mark.parametrize(
    ("note", "is_held"),
    [
        ("Cancelled - wind", False), ("cancelled (wind)", False), ("Cancelled by host", False), ("CANCELLED: bad weather", False),
        ("Cancelled due to the forecast of gales all day; the committee is sorry", False), ("entfällt", False), ("Rained off", False),
        ("Withdrawn by the club", False), ("Abandoned", False), ("Not running", False), ("abgesagt wegen Sturm", False),
        ("Cancelled if wet", True), ("Cancel by Friday for a refund", True), ("Off the main hall", True), ("e-tickets only", True),
        ("Abandoned at half time", True), ("Dropped by parents", True), ("Cancelled last year, back now", True), ("Cancelled: not yet decided", True),
    ],
)  # fmt: skip
def test_a_note_that_says_it_is_cancelled_and_why(note: str, is_held: bool, tmp_path: Path) -> None:
    built(
        source := csv_file(
            tmp_path, f'Date,Event,Notes\n2027-01-11,Supper,bring oars\n2027-01-12,Race,"{note}"\n'
        )
    )
    (event,) = [one for one in events_in(source.with_suffix(".ics")) if one["SUMMARY"] == "Race"]
    assert event["DESCRIPTION"] == note and (event.get("STATUS") != "CANCELLED") is is_held


@pytest.mark.parametrize(
    ("status", "expected"),
    [("Cancelled - wind", "CANCELLED"), ("CANX", "CANCELLED"), ("Not running", "CANCELLED"), ("Weather permitting", "TENTATIVE"), ("TBA", "TENTATIVE")],
)  # fmt: skip
def test_what_offices_write_under_status(status: str, expected: str, tmp_path: Path) -> None:
    built(
        source := csv_file(
            tmp_path, f"Date,Event,Status\n2027-01-11,Supper,confirmed\n2027-01-12,Race,{status}\n"
        )
    )
    assert [str(one["STATUS"]) for one in events_in(source.with_suffix(".ics"))] == ["CONFIRMED", expected]
