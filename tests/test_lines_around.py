"""Lines above, below and among the rows of a table: what happens on days of their own is an event, or told; never lost, and never
another event than it says."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused

LIST = "Date,Event,Time\n5 Oct 2026,Launch,2pm\n12 Oct 2026,Race,10am\n"
OF_LIST = ["Launch 2026-10-05T14:00/2026-10-05T15:00", "Race 2026-10-12T10:00/2026-10-12T11:00"]
COURSE = "Date,Topic\nTue 6 Oct 2026,Bowline\nTue 13 Oct 2026,Clove hitch\nTue 20 Oct 2026,Reef knot\n"
OF_COURSE = ["Bowline 2026-10-06/2026-10-07", "Clove hitch 2026-10-13/2026-10-14", "Reef knot 2026-10-20/2026-10-21"]  # fmt: skip
PLANNER = "Week,Mon,Tue,Wed,Thu,Fri\n5 Oct 2026,Oars,,Sails,,\n12 Oct 2026,,Race,,,\n"
OF_PLANNER = ["Oars 2026-10-05/2026-10-06", "Sails 2026-10-07/2026-10-08", "Race 2026-10-13/2026-10-14"]
MONTH = (
    "October 2026,,,,,,\n{}Mon,Tue,Wed,Thu,Fri,Sat,Sun\n,,,1,2,3,4\n,,,Oars,,,\n5,6,7,8,9,10,11\n,Race,,,,,\n"
)
OF_MONTH = ["Oars 2026-10-01/2026-10-02", "Race 2026-10-06/2026-10-07"]
ROSTER = "Name,5 Oct 2026,6 Oct\nFinch,9-5,off\n"
OF_ROSTER = ["Finch 2026-10-05T09:00/2026-10-05T17:00"]
CLOSED = "School closed 2026-10-26/2026-10-31"
CHOIR = ["Choir 2026-10-06T16:00/2026-10-06T17:00", "Choir 2026-10-13T16:00/2026-10-13T17:00"]

EVENTS: dict[str, tuple[str, list[str]]] = {
    "no school, under a title": ("Dates,,\nSchool closed 26-30 October 2026,,\n" + LIST, [*OF_LIST, CLOSED]),
    "no school, and no title": ("School closed 26-30 October 2026,,\n" + LIST, [*OF_LIST, CLOSED]),
    "its year is that of the table": ("Dates,,\nSchool closed 26-30 October,,\n" + LIST, [*OF_LIST, CLOSED]),
    "a day below in the year of the table": (LIST + "School closed 26-30 October,,", [*OF_LIST, CLOSED]),
    "a meeting under a title": (
        "Choir,,\nAGM: Monday 19 October 2026 7pm,,\n" + LIST,
        [*OF_LIST, "AGM 2026-10-19T19:00/2026-10-19T20:00"],
    ),
    "a repeat above": ("Club,,\nChoir every Tuesday 4pm from 6 to 13 October 2026,,\n" + LIST, [*OF_LIST, *CHOIR]),
    "a repeat below": (LIST + "Choir every Tuesday 4pm from 6 October to 13 October 2026,,", [*OF_LIST, *CHOIR]),
    "a repeat with dates that it leaves out": (
        LIST + "Choir every Tuesday 4pm from 6 October to 20 October 2026 (not 20 October),,",
        [*OF_LIST, *CHOIR],
    ),
    "how often, before what": (
        LIST + "Every Tuesday from 6 October to 13 October 2026: Choir,,",
        [*OF_LIST, "Choir 2026-10-06/2026-10-07", "Choir 2026-10-13/2026-10-14"],
    ),
    "a repeat in French": (
        LIST + "Chorale tous les mardis à 16 h du 6 octobre au 13 octobre 2026,,",
        [*OF_LIST, *(one.replace("Choir", "Chorale") for one in CHOIR)],
    ),
    "above a planner": ("School closed 26-30 October 2026,,,,,\n" + PLANNER, [*OF_PLANNER, CLOSED]),
    "below a planner": (PLANNER + "School closed 26-30 October,,,,,", [*OF_PLANNER, CLOSED]),
    "a repeat below a planner": (
        PLANNER + "Choir every Tuesday 4pm from 6 October to 13 October 2026,,,,,", [*OF_PLANNER, *CHOIR],
    ),
    "above a month": (MONTH.format("Fair on 12 December,,,,,,\n"), [*OF_MONTH, "Fair 2026-12-12/2026-12-13"]),
    "below a month, in none of its days": (
        MONTH.format("") + "Clocks go back Sunday 25 October,,,,,,\nNext month: fair on 14 November,,,,,,",
        [*OF_MONTH, "Clocks go back 2026-10-25/2026-10-26", "Next month: fair 2026-11-14/2026-11-15"],
    ),
    "an entry of the last week stays on its day": (
        MONTH.format("") + "Reef knots for all,,,,,,", [*OF_MONTH, "Reef knots for all 2026-10-05/2026-10-06"],
    ),
    "each day of a range with hours": (
        LIST + "Camp 19-20 October 9am-3pm,,",
        [*OF_LIST, "Camp 2026-10-19T09:00/2026-10-19T15:00", "Camp 2026-10-20T09:00/2026-10-20T15:00"],
    ),
    "below a roster": (ROSTER + "School closed 26-30 October,,", [*OF_ROSTER, CLOSED]),
}  # fmt: skip


@pytest.mark.parametrize("kind", EVENTS)
def test_a_line_with_a_day_of_its_own_is_an_event(kind: str, tmp_path: Path) -> None:
    text, events = EVENTS[kind]
    assert sorted(built(csv_file(tmp_path, text))) == sorted(events)


CONTEXT: dict[str, tuple[str, list[str]]] = {
    "from when to when all of it is": ("Knots,\nAutumn 2026: 6 October - 20 October,\n" + COURSE, OF_COURSE),
    "a term around all of it": ("Knots,\nTerm: 7 September to 18 December 2026,\n" + COURSE, OF_COURSE),
    "how often its rows are held, above": ("Knots,\nTuesdays 6 October to 20 October 2026,\n" + COURSE, OF_COURSE),
    "how often its rows are held, below": (COURSE + "Course runs every Tuesday from 6 October to 20 October 2026,", OF_COURSE),
    "how often, without days": ("Knots,\nHeld on Tuesdays in Loft 2,\n" + COURSE, OF_COURSE),
    "when it was made": ("Knots,\nIssued 1 September 2026,\n" + COURSE, OF_COURSE),
    "who has agreed to it, and when": (COURSE + "Approved by the governors 12 March 2026,", OF_COURSE),
    "the week of a roster": (
        "Rota week beginning Monday 5 October 2026,,\nName,Mon,Tue\nFinch,9-5,off",
        ["Finch 2026-10-05T09:00/2026-10-05T17:00"],
    ),
    "the day of a programme": (
        "Programme for Saturday 5 December 2026,,\nTime,Main slip,Loft\n10:00,Oars,Sails\n11:00,Race,Knots",
        ["Oars 2026-12-05T10:00/2026-12-05T11:00", "Sails 2026-12-05T10:00/2026-12-05T11:00",
         "Race 2026-12-05T11:00/2026-12-05T12:00", "Knots 2026-12-05T11:00/2026-12-05T12:00"],
    ),
}  # fmt: skip


@pytest.mark.parametrize("kind", CONTEXT)
def test_a_line_that_says_when_all_of_it_is_makes_no_event_and_no_noise(kind: str, tmp_path: Path) -> None:
    text, events = CONTEXT[kind]
    source = csv_file(tmp_path, text)
    assert [one.partition(" @")[0] for one in built(source)] == events
    said = nomarium("build", source, "-o", tmp_path / "again.ics").text
    assert (
        "the table and is no event" not in said
        and "in it is an event" not in said
        and "how often" not in said
    )


TOLD: dict[str, tuple[str, str]] = {
    "the title names a day": ("Choir - AGM Monday 19 October 2026 7pm,,\n" + LIST, "AGM Monday 19 October 2026 7pm” stands above"),
    "until when to write": ("Choir,,\nSubscription due 1 October 2026,,\n" + LIST, "Subscription due 1 October 2026” stands above"),
    "since when there is a club": ("Choir (founded 3 May 1922),,\n" + LIST, "founded 3 May 1922)” stands above"),
    "what the table has already": ("Dates,,\nRace day: 12 October 2026,,\n" + LIST, "Race day: 12 October 2026” stands above"),
    "how often, above, without days": ("Choir,,\nRehearsals Tuesdays 7.30pm,,\n" + LIST, "“Rehearsals Tuesdays 7.30pm” says how often"),
    "how often, below, without days": (LIST + "Every Tuesday: rehearsal 7.30pm,,", "“Every Tuesday: rehearsal 7.30pm” says how often"),
}  # fmt: skip


@pytest.mark.parametrize("kind", TOLD)
def test_what_may_be_an_event_and_makes_none_is_told(kind: str, tmp_path: Path) -> None:
    text, said = TOLD[kind]
    source = csv_file(tmp_path, text)
    assert built(source) == OF_LIST
    assert said in nomarium("build", source, "-o", tmp_path / "again.ics").text


@pytest.mark.parametrize(
    "line",
    [
        "Every Tuesday from 6 October to 15 December 2026: rehearsal in Loft 2 at 19.30 or 20.30",
        "Chorale le mardi, ou tous les mercredis, 6/10/2026 - 15/12/2026",
        "Choir Tuesday 4pm 6 October - 15 December 2026",
        "Choir: Tuesdays 4pm-5pm until 15 December",
        "Fair moved from 14 November to 21 November",
        "Choir every Tuesday from 13 October to 6 October 2026",
    ],
)
def test_a_repeat_that_is_not_understood_is_never_one_long_event(line: str, tmp_path: Path) -> None:
    assert "row 4" in refused(csv_file(tmp_path, LIST + f'"{line}",,'))


def test_a_line_that_is_called_off_is_cancelled(tmp_path: Path) -> None:
    built(csv_file(tmp_path, LIST + "Fair 14 November - cancelled,,"))
    fair = next(one for one in events_in(tmp_path / "events.ics") if str(one["SUMMARY"]) == "Fair")
    assert str(fair["STATUS"]) == "CANCELLED"


def test_a_line_is_given_what_set_gives(tmp_path: Path) -> None:
    text = "Dates,,\nSchool closed 26-30 October 2026,,\n" + LIST + "Fair 14 November 2026,,"
    built(csv_file(tmp_path, text), "--set", "location=Quay", "--set", "categories=School")
    events = events_in(tmp_path / "events.ics")
    assert {str(one["LOCATION"]) for one in events} == {"Quay"}
    assert len([one for one in events if "CATEGORIES" in one]) == 4


ZONED = {
    "in the column of dates": 'Date,Event\n"Mondays 4pm, 7 Sept 2026 – 14 Sept 2026",Oars',
    "in a column of its own": "Date,Event,Repeat\n7 Sept 2026,Oars,Mondays 4pm until 14 Sept",
    "in a line": LIST + '"Oars on Mondays 4pm, 7 Sept 2026 – 14 Sept 2026",,',
}


@pytest.mark.parametrize("kind", ZONED)
def test_a_time_that_a_repeat_says_is_in_the_zone_of_all_others(kind: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, ZONED[kind])
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics", "--timezone", "America/Halifax")
    assert outcome.status == 0 and "float" not in outcome.text
    oars = [
        one["DTSTART"] for one in events_in(tmp_path / "out.ics") if str(one["SUMMARY"]).startswith("Oars")
    ]
    assert [one.params["TZID"] for one in oars] == ["America/Halifax"] * 2
    assert [one.dt.isoformat() for one in oars] == ["2026-09-07T16:00:00-03:00", "2026-09-14T16:00:00-03:00"]


def test_a_row_with_a_zone_of_its_own_has_the_time_of_its_repeat_there(tmp_path: Path) -> None:
    text = "Date,Event,Repeat,Time zone\n7 Sept 2026,Oars,Mondays 4pm until 14 Sept,Europe/Paris"
    source = csv_file(tmp_path, text)
    assert nomarium("build", source, "-o", tmp_path / "out.ics", "--timezone", "America/Halifax").status == 0
    assert {one["DTSTART"].params["TZID"] for one in events_in(tmp_path / "out.ics")} == {"Europe/Paris"}


OARS = "Oars 2026-{0}T09:00/2026-{0}T10:00"
REPEATING = {
    "a first and a last class": "Class,Day,Time,Start date,End date\nOars,Mon,9-10am,19 Oct 2026,2 Nov 2026\n{}",
    "a phrase among dates": 'Class,Dates,Times\nOars,"Mondays 19 Oct - 2 Nov 2026",9-10am\n{}',
    "how often in a column": "Class,Date,Time,Repeat\nOars,19 Oct 2026,9-10am,weekly until 2 Nov 2026\n{}",
    "a line above": "Courses,,,\n{}\nClass,Date,Time,Repeat\nOars,19 Oct 2026,9-10am,weekly until 2 Nov 2026",
}


@pytest.mark.parametrize("kind", REPEATING)
@pytest.mark.parametrize(
    "line",
    ["No classes 26-30 October", "There are no sessions on 26 October", "No classes week of 26 October"],
)
def test_rows_that_repeat_are_not_held_when_a_line_says_so(kind: str, line: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, REPEATING[kind].format(line))
    events = [one for one in built(source) if one.startswith("Oars")]
    assert events == [OARS.format("10-19"), OARS.format("11-02")]
    assert "Nothing is held on the days" in nomarium("build", source, "-o", tmp_path / "again.ics").text


@pytest.mark.parametrize("kind", REPEATING)
def test_a_holiday_is_an_event_and_takes_out_what_repeats(kind: str, tmp_path: Path) -> None:
    events = built(csv_file(tmp_path, REPEATING[kind].format("Half term 26-30 October")))
    assert sorted(events) == sorted(
        ["Half term 2026-10-26/2026-10-31", OARS.format("10-19"), OARS.format("11-02")]
    )


@pytest.mark.parametrize(
    "line", ["Christmas fair", "Half term camp", "Staff day trip", "Break-up party", "Easter concert"]
)
def test_what_is_held_on_a_day_called_after_a_holiday_closes_nothing(line: str, tmp_path: Path) -> None:
    for text, more in (
        (REPEATING["how often in a column"], ()),
        ("Class,Day,Time\nOars,Mon,9-10am\n{}", ("--from", "2026-10-19", "--until", "2026-11-02")),
    ):
        events = built(csv_file(tmp_path, text.format(f"{line} 26 October 2026")), *more)
        assert OARS.format("10-26") in events and f"{line} 2026-10-26/2026-10-27" in events


def test_lines_of_text_close_what_repeats(tmp_path: Path) -> None:
    text = "Oars every Monday 9-10am from 19 October to 2 November 2026\nNo sessions 26-30 October\n"
    assert built(csv_file(tmp_path, text, "courses.txt")) == [OARS.format("10-19"), OARS.format("11-02")]


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("Staff meeting Monday 12 October 3.30pm", "stands beside the table and is no event"),
        ("Staff meeting every Monday 3.30pm", "says how often something is held, and is no event"),
    ],
)
def test_a_line_beside_a_drawn_week_that_is_no_class_is_told(line: str, said: str, tmp_path: Path) -> None:
    week = f"Time,Mon,Tue,Wed\n9:00-10:00,Oars,,Sails\n{line},,,"
    options = ("--from", "2026-10-05", "--until", "2026-10-16")
    outcome = nomarium("build", csv_file(tmp_path, week), "-o", tmp_path / "out.ics", *options)
    assert outcome.status == 0 and f"“{line}” {said}" in outcome.text


@pytest.mark.parametrize("line", ["If wet: Monday 19 October", "In case of storm, 19 October"])
def test_a_day_in_reserve_is_told_and_no_event(line: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, LIST + f'"{line}",,')
    assert built(source) == OF_LIST
    assert (
        f"“{line}” stands beside the table and is no event"
        in nomarium("build", source, "-o", tmp_path / "a.ics").text
    )
    text = csv_file(tmp_path, f"Sat 17 October 2026: Fair, 10am-2pm\n{line}\n", "fair.txt")
    assert "a day in reserve" in refused(text)


def test_a_place_above_a_drawing_is_told(tmp_path: Path) -> None:
    text = "Bookings,,,\nRoom: Sail loft,,Week of 5 October 2026,\nTime,Mon,Tue,Wed\n9-10,Choir,,Scouts\n10-11,Choir,Knots,"
    outcome = nomarium("build", csv_file(tmp_path, text), "-o", tmp_path / "out.ics")
    assert (
        "Above the table stands “Room: Sail loft”" in outcome.text
        and '--set "location=Sail loft"' in outcome.text
    )
    outcome = nomarium(
        "build", tmp_path / "events.csv", "-o", tmp_path / "out.ics", "--set", "location=Sail loft"
    )
    assert "Above the table" not in outcome.text
    assert {str(one["LOCATION"]) for one in events_in(tmp_path / "out.ics")} == {"Sail loft"}
