"""Weekdays without dates: codes as courses write them, lists that repeat in the weeks that somebody names."""

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.weekdaycodes import WeekdayCodes
from nomarium.reading.cells.words import ENGLISH

CODES: list[tuple[str, dict[str, str]]] = [
    ("letters run together", {"MWF": "024", "TTh": "13", "TR": "13", "MTWRF": "01234", "W": "2", "Sa": "5"}),
    ("pairs of letters", {"TuTh": "13", "Mo We Fr": "024", "SuTTh": "613", "TUTH": "13"}),
    (
        "names with marks between",
        {"Mon/Wed": "02", "Tues, Thurs": "13", "Monday & Thursday": "03", "Mondays": "0"},
    ),
    ("ranges", {"M-F": "01234", "Mon to Thu": "0123", "weekdays": "01234", "M-W-F": "024"}),
    ("words in front", {"every Tuesday": "1", "Weekly on Fri": "4"}),
    ("the second T of a run is Thursday", {"MTWTF": "01234"}),
    ("TH beside TTh", {"TH": "3", "TTh": "13"}),
    ("TH where R is Thursday", {"TH": "3", "TR": "13"}),
    ("TH beside a run that can only hold Th", {"TH": "3", "MTWTHF": "01234"}),
    ("TH where H is Thursday", {"TH": "13", "MTWHF": "01234"}),
    ("MTH beside TTh", {"MTH": "03", "TTh": "13"}),
    ("small letters", {"mwf": "024", "tth": "13"}),
]


@pytest.mark.parametrize("cells", [cells for _, cells in CODES], ids=[name for name, _ in CODES])
def test_codes_of_weekdays(cells: dict[str, str]) -> None:
    codes = WeekdayCodes(cells, ENGLISH)
    assert {text: codes.read(text) for text in cells} == {
        text: tuple(map(int, days)) for text, days in cells.items()
    }
    assert codes.are_days


@pytest.mark.parametrize("text", ["TH", "MTH", "SU", "THF"])
def test_a_code_that_could_be_two_things_is_refused(text: str) -> None:
    read = WeekdayCodes([text, "MWF"], ENGLISH).read(text)
    assert isinstance(read, Refusal)
    assert f'--weekdays "{text}=' in read.remedy
    asked = WeekdayCodes([text, "MWF"], ENGLISH, {text: "Thu"}).read(text)
    assert asked == (3,)


def test_letters_are_weekdays_only_where_every_cell_is_one() -> None:
    assert not WeekdayCodes(["A", "B", "F"], ENGLISH).are_days
    assert WeekdayCodes(["M", "W", "F"], ENGLISH).are_days


WEEK = ["--from", "2026-09-07", "--until", "2026-09-13"]


def at(day: int, start: str, end: str) -> str:
    return f"2026-09-{day:02}T{start}/2026-09-{day:02}T{end}"


LISTS: dict[str, tuple[str, list[str], list[str]]] = {
    "weekdays and times": (
        "Club,Day,Time,Venue\nKnots,Monday,15:45-16:45,Loft\nRowing,Mon/Wed,7am-8am,Slip", WEEK,
        [f"Rowing {at(7, '07:00', '08:00')} @ Slip", f"Knots {at(7, '15:45', '16:45')} @ Loft", f"Rowing {at(9, '07:00', '08:00')} @ Slip"],
    ),
    "codes and times in one cell": (
        "Course,Meets,Room\nRIG 101,TTh 9:00-9:50,Loft\nLOFT 110,TR 1:00-2:15,Shed", WEEK,
        [f"RIG 101 {at(8, '09:00', '09:50')} @ Loft", f"LOFT 110 {at(8, '13:00', '14:15')} @ Shed",
         f"RIG 101 {at(10, '09:00', '09:50')} @ Loft", f"LOFT 110 {at(10, '13:00', '14:15')} @ Shed"],
    ),
    "weekdays and times under When": (
        "Club,When,Where\nKnots,Mon 3.45 - 4.45,Loft\nSails,Tues & Thurs 3.30-5,Shed", WEEK,
        [f"Knots {at(7, '15:45', '16:45')} @ Loft", f"Sails {at(8, '15:30', '17:00')} @ Shed", f"Sails {at(10, '15:30', '17:00')} @ Shed"],
    ),
    "first and last class": (
        "Course,Days,Time,First class,Last class\nRIG 101,TTh,9:00-9:50,2026-09-08,2026-09-15", [],
        [f"RIG 101 {at(day, '09:00', '09:50')}" for day in (8, 10, 15)],
    ),
    "ticked weekdays": (
        "Course,Mon,Tue,Wed,Start,End\nRIG 101,x,,x,9:00,9:50\nLOFT 110,,✓,,9:00,9:50", WEEK,
        [f"RIG 101 {at(7, '09:00', '09:50')}", f"LOFT 110 {at(8, '09:00', '09:50')}", f"RIG 101 {at(9, '09:00', '09:50')}"],
    ),
    "a weekday written once over its rows": (
        "Day,Start,End,Class\nMonday,9:00,9:50,Knots\n,10:00,10:50,Sails\nTuesday,9:00,9:50,Steam\n,10:00,10:50,-", WEEK,
        [f"Knots {at(7, '09:00', '09:50')}", f"Sails {at(7, '10:00', '10:50')}", f"Steam {at(8, '09:00', '09:50')}"],
    ),
    "halves of the day behind weekdays": (
        "Day,Time,Class\nTues eve,7 - 9,Knots\nThursday mornings,10-1,Sails\nFri (pm),13:30-14:00,Steam", WEEK,
        [f"Knots {at(8, '19:00', '21:00')}", f"Sails {at(10, '10:00', '13:00')}", f"Steam {at(11, '13:30', '14:00')}"],
    ),
    "halves of the day before times": (
        "Class,Day and time\nKnots,Tues eve 7-9\nSails,Thursday mornings 9.30", WEEK,
        [f"Knots {at(8, '19:00', '21:00')}", f"Sails {at(10, '09:30', '10:30')}"],
    ),
    "bare hours": (
        "Day,Start,End,Class\nMonday,9,11,Knots\nTuesday,10,10.30,Sails", WEEK,
        [f"Knots {at(7, '09:00', '11:00')}", f"Sails {at(8, '10:00', '10:30')}"],
    ),
    "halves of the day beside dates, and weeks counted": (
        "CLASS,DAY,TIME,STARTS,WKS\nKnots,Tues eve,7 - 9,2026-09-08,2\nSails,Sat,10am-1pm,2026-09-12,1", [],
        [f"Knots {at(8, '19:00', '21:00')}", f"Knots {at(15, '19:00', '21:00')}", f"Sails {at(12, '10:00', '13:00')}"],
    ),
    "in French": (
        "Activité,Jour,Heure\nNœuds,lundi,17h-18h\nVoile,mardi et jeudi,16h30-18h", WEEK,
        [f"Nœuds {at(7, '17:00', '18:00')}", f"Voile {at(8, '16:30', '18:00')}", f"Voile {at(10, '16:30', '18:00')}"],
    ),
    "in German": ("Verein,Tag,Zeit\nKnoten,montags,17-18 Uhr\nSegel,Di und Do,16.00-17.30 Uhr", WEEK,
        [f"Knoten {at(7, '17:00', '18:00')}", f"Segel {at(8, '16:00', '17:30')}", f"Segel {at(10, '16:00', '17:30')}"]),
}  # fmt: skip


@pytest.mark.parametrize("name", LISTS)
def test_lists_of_weekdays_repeat_in_the_weeks_that_are_named(name: str, tmp_path: Path) -> None:
    text, options, expected = LISTS[name]
    assert sorted(built(csv_file(tmp_path, text), *options)) == sorted(expected)


def test_terms_say_which_weeks_and_days_off_are_skipped(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Club,Day,Time\nKnots,Monday,9:00-10:00")
    terms = csv_file(
        tmp_path,
        "Name,First day,Last day\nAutumn,2026-09-07,2026-09-22\nWinter,2026-10-05,2026-10-12",
        "t.csv",
    )
    off = csv_file(tmp_path, "Name,Date\nFair,2026-09-14", "off.csv")
    days = [f"Knots 2026-{day}T09:00/2026-{day}T10:00" for day in ("09-07", "09-21", "10-05", "10-12")]
    assert built(source, "--terms", terms, "--days-off", off) == days
    rule = nomarium(
        "build", source, "-o", tmp_path / "r.ics", "--terms", terms, "--days-off", off, "--repeats", "rule"
    )
    assert (rule.status, (tmp_path / "r.ics").read_text().count("BEGIN:VEVENT")) == (0, 1), rule.text


REFUSED = {
    "weeks that nobody names": ("Club,Day,Time\nKnots,Monday,9:00", [], ["--from", "--until", "--terms"]),
    "weeks without an end": ("Club,Day,Time\nKnots,Monday,9:00", ["--from", "2026-09-07"], ["Give --until too"]),
    "a code that could be two things": ("Course,Days,Time\nA,MWF,9:00\nB,TH,9:00", WEEK, ["row 3, column B", '--weekdays "TH=Thu"']),
    "the same beside dates": ("Course,Days,Time,Start date,End date\nA,TH,9:00,2026-09-07,2026-09-20", [], ["row 2, column B", '--weekdays "TH=Thu"']),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_weekdays_that_nothing_settles_are_refused(name: str, tmp_path: Path) -> None:
    text, options, said = REFUSED[name]
    out = refused(csv_file(tmp_path, text), *options)
    assert [part for part in said if part not in out] == [], out


def test_rows_whose_days_are_not_settled_are_left_out_by_name(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Course,Days,Time\nRIG 101,M,9:00-9:50\nDISS,TBA,TBA")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *WEEK)
    assert outcome.status == 0
    assert "row 3 (DISS)" in outcome.text
    assert "2 rows read = 1 event + 1 note" in outcome.text


def test_a_row_whose_weekday_cannot_be_read_is_refused_and_the_others_stay(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Club,Day & time\nKnots,Mon 3.45-4.45\nChoir,lunchtimes\nSails,Wed 3.45-4.45\nGlue,Fri 4-5"
    )
    said = refused(source, *WEEK)
    assert "row 3, column B “Day & time”: “lunchtimes”" in said
    assert "“lunchtimes” names no weekday" in said
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *WEEK, "--partial")
    assert "4 rows read = 3 events + 1 rejected" in outcome.text


def test_a_survey_of_weekdays_leads_to_the_same_calendar(tmp_path: Path) -> None:
    source, recipe = csv_file(tmp_path, "Course,Days,Time\nRIG 101,TTh,9:00-9:50"), tmp_path / "r.toml"
    survey = nomarium("survey", source, *WEEK, "--save", recipe)
    assert "--from 2026-09-07 --until 2026-09-13" in survey.out
    assert built(source, "--recipe", recipe, *WEEK) == [
        f"RIG 101 {at(day, '09:00', '09:50')}" for day in (8, 10)
    ]


@pytest.mark.parametrize(
    ("code", "meaning", "days"),
    [
        ("TH", "Tue Thu", [8, 10, 15, 17]),
        ("TH", "Thu", [10, 17]),
        ("S", "Sat Sun", [12, 13]),
        ("QQ", "Mon Fri", [7, 11, 14, 18]),
    ],
)
def test_what_a_code_of_weekdays_is_asked_to_mean_holds_beside_a_first_and_a_last_day(
    code: str, meaning: str, days: list[int], tmp_path: Path
) -> None:
    source = csv_file(
        tmp_path, f"Course,Days,Time,First,Last\nKnots,{code},9:00-9:50,2026-09-07,2026-09-18\n"
    )
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--weekdays", f"{code}={meaning}")
    assert outcome.status == 0, outcome.text
    assert sorted(event["DTSTART"].dt.day for event in events_in(tmp_path / "o.ics")) == days


def test_a_slot_with_nothing_right_of_its_time_is_a_free_period_and_is_told(tmp_path: Path) -> None:
    rows = [
        "Day,Period,Time,Class,Room",
        "Monday,1,8:30-9:20,Knots,L1",
        "Monday,2,9:25-10:15,,",
        "Tuesday,1,8:30-9:20,Tar,L2",
    ]
    source = csv_file(tmp_path, "\n".join(rows))
    told = nomarium(
        "build", source, "-o", tmp_path / "o.ics", "--from", "2026-09-07", "--until", "2026-09-12"
    )
    assert (told.status, "1 row is a free period" in told.out) == (0, True), told.text
    assert "3 rows read = 2 events + 1 note" in told.out
    left = csv_file(
        tmp_path,
        "Class,Day,Time,Room\nKnots,Monday,8:30-9:20,L1\n,Monday,9:25-10:15,\nTar,Tuesday,8:30-9:20,L2",
        name="left.csv",
    )
    assert "--fill-down" in refused(left, "--from", "2026-09-07", "--until", "2026-09-12")


@pytest.mark.parametrize(
    ("cells", "rooms"),
    [
        (["MWF 0900-0950 LOFT 1", "TR 1300-1415 SHED B"], ["LOFT 1", "SHED B"]),
        (["Mon/Wed 9:00 am - 9:50 am, Loft 1", "Tue 1:00 pm - 2:15 pm @ Shed B"], ["Loft 1", "Shed B"]),
    ],
)
def test_a_place_behind_the_time_of_a_meeting_is_its_own(
    cells: list[str], rooms: list[str], tmp_path: Path
) -> None:
    rows = "\n".join(f'C{n},"{cell}"' for n, cell in enumerate(cells))
    source = csv_file(tmp_path, f"Course,Meeting\n{rows}\nC9,TBA")  # and one that is open yet
    found = built(source, "--from", "2026-09-07", "--until", "2026-09-12")
    assert [*dict.fromkeys(event.rpartition(" @ ")[2] for event in found)] == rooms


LINES = {
    "under their weekdays": "Mondays\n6pm - 7pm Knots, Loft 1\n8pm Shanties\n\nTUESDAY:\n10am - 12 noon Sail repair (Shed 2)\n",
    "behind their weekdays": "Monday 6pm - 7pm Knots, Loft 1\nMon: 8pm Shanties\nTuesday 10am - 12 noon Sail repair, Shed 2\n",
    "with their weeks above them": "Weekly classes, 7 September 2026 – 2 October 2026\n\nMonday\n6pm - 7pm Knots, Loft 1\n8pm Shanties\nTuesday\n10am - 12 noon Sail repair, Shed 2\nNo classes 14 September – 2 October.\n",
}  # fmt: skip


@pytest.mark.parametrize("kind", LINES)
def test_lines_of_text_under_weekdays_repeat_in_their_weeks(kind: str, tmp_path: Path) -> None:
    source = tmp_path / "classes.txt"
    source.write_text(LINES[kind], "utf-8")
    options = () if "weeks above" in kind else ("--from", "2026-09-07", "--until", "2026-09-11")
    assert built(source, *options) == [
        "Knots 2026-09-07T18:00/2026-09-07T19:00 @ Loft 1", "Shanties 2026-09-07T20:00/2026-09-07T21:00",
        "Sail repair 2026-09-08T10:00/2026-09-08T12:00 @ Shed 2",
    ]  # fmt: skip
    told = nomarium("build", source, "-o", tmp_path / "o.ics", "--afresh", *options)
    filled = sum(bool(line) for line in LINES[kind].splitlines())
    assert f"{filled} rows read = 3 events" in told.out


def test_lines_under_weekdays_ask_for_their_weeks_and_go_on_no_one_day(tmp_path: Path) -> None:
    source = tmp_path / "classes.txt"
    source.write_text(LINES["under their weekdays"], "utf-8")
    assert "nothing says from when to when they repeat" in refused(source)
    assert "--set date puts what is under each on one day" in refused(source, "--set", "date=2026-09-07")
    of_a_day = tmp_path / "day.txt"
    of_a_day.write_text("Saturday\n9.30am Race\n2pm Prizes\n", "utf-8")
    assert len(built(of_a_day, "--set", "date=2026-09-12")) == 2


def test_a_weekday_in_a_message_is_no_weekly_one(tmp_path: Path) -> None:
    message = tmp_path / "m.eml"
    heads = "From: t@saltmarsh.example\nTo: a@saltmarsh.example\nSubject: Rehearsals\nDate: Thu, 10 Sep 2026 09:00:00 -0300\n"
    message.write_text(f"{heads}\nMonday 7pm Rehearsal, Loft 1\nWednesday 7pm Sectional, Loft 2\n", "utf-8")
    assert "Monday 7pm Rehearsal" in refused(message, "--from", "2026-09-01", "--until", "2026-12-01")
    assert "on one day" in refused(message, "--set", "date=2026-09-14")
