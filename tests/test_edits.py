"""What people do to events before they publish them: pick, give anew, call otherwise, join, take out."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused

CLASSES = """
    Title,Date,Start,End,Location,Category,Teacher,Guests
    Rigging,2026-09-07,9:00,10:00,Kiln yard,Class,R. Finch,Ann Dory
    Knots,2026-09-08,9:00,10:00,Loft 2,Class,M. Roe,Ann Dory; Bo Reed
    Regatta,2026-09-12,,,Main slip,Race,,
    Rigging,2026-09-14,9:00,10:00,Kiln yard,Class,R. Finch,
    Staff tea,2026-09-15,16:00,17:00,Loft 2,,M. Roe,Cy Ling
    """
PICKS = {
    "one value, as codes match": (["--only", "category=CLASS"], ["Rigging", "Knots", "Rigging"]),
    "values of one field are alternatives": (["--only", "title=knots", "--only", "title=regatta"], ["Knots", "Regatta"]),
    "fields must all hold": (["--only", "category=Class", "--only", "teacher=r_finch"], ["Rigging", "Rigging"]),
    "any text": (["--only", "location=*o*2"], ["Knots", "Staff tea"]),
    "without a value": (["--only", "categories="], ["Staff tea"]),
    "what is left out goes, whatever is kept": (["--only", "category=Class", "--leave-out", "title=Rig*"], ["Knots"]),
    "each option leaves out": (["--leave-out", "category=Race", "--leave-out", "teacher=*Roe"], ["Rigging", "Rigging"]),
    "before values are filled in": (["--only", "category=", "--set", "category=Class"], ["Staff tea"]),
    "before titles are made": (["--only", "title=Knots", "--title", "{Teacher}: {title}"], ["M. Roe: Knots"]),
    "before values are given anew": (["--only", "location=Main-slip", "--override", "location=Quay"], ["Regatta"]),
    "a title by its old name": (["--leave-out", "category=Class", "--rename", "staff TEA=Tea"], ["Regatta", "Tea"]),
    "renamed, then in the template": (
        ["--only", "teacher=R. Finch", "--rename", "Rigging=Rope", "--title", "{title} ({teacher})"], ["Rope (R. Finch)"] * 2,
    ),
    "the old title in the new one": (["--only", "title=Knots", "--rename", "Knots=Class: {title}"], ["Class: Knots"]),
}  # fmt: skip


@pytest.mark.parametrize("name", PICKS)
def test_events_are_picked_and_named(name: str, tmp_path: Path) -> None:
    arguments, expected = PICKS[name]
    source = csv_file(tmp_path, CLASSES)
    assert [event.rpartition(" 2026")[0] for event in built(source, *arguments)] == expected
    said = nomarium("build", source, "-o", tmp_path / "b.ics", *arguments).out
    assert f"5 rows read = {len(expected)} event" in said and f"{5 - len(expected)} left out" in said


UNMET = {
    "a value that nothing has": (["--only", "teacher=R. Finsh"], ["teacher=R. Finsh meets nothing", "Did you mean R. Finch?"]),
    "one to leave out": (["--leave-out", "category=Regattas"], ["meets nothing", "“Class”, “Race”"]),
    "without, where all have one": (["--only", "location="], ["every event has one"]),
    "a title that nothing has": (["--rename", "Splicing=Splices"], ["“Splicing”", 'Correct --rename "Splicing=Splices"']),
    "a field of the title that is always blank": (["--title", "{period} {title}"], ["“period”", "no event has any"]),
    "a heading that is not there": (["--title", "{Paper} {title}"], ["“Paper”", "The headings are"]),
    "a title of blanks": (["--title", "{Guests}"], ["by the columns that its title is made of", "row 4"]),
    "nothing left": (["--only", "category=Class", "--leave-out", "category=Class"], ["no event to write", "--only and --leave-out"]),
}  # fmt: skip


@pytest.mark.parametrize("name", UNMET)
def test_what_meets_nothing_is_a_problem(name: str, tmp_path: Path) -> None:
    arguments, said = UNMET[name]
    text = refused(csv_file(tmp_path, CLASSES), *arguments)
    for words in said:
        assert words.casefold() in text.casefold()


MEANINGLESS = {
    "a date": (["--only", "date=2026-09-07"], "--from and --until"),
    "no field": (["--only", "colour=red"], "color"),
    "no value": (["--leave-out", "category"], "no “=”"),
    "no new title": (["--rename", "Knots="], '--leave-out "summary=Knots"'),
    "one title twice": (["--rename", "Knots=A", "--rename", "Knots=B"], "both “A” and “B”"),
    "one value twice": (["--set", "location=A", "--set", "location=B"], "twice"),
    "one heading twice": (["--column", "Guests=attendees", "--column", "Guests=description"], "two things"),
    "an identity for all": (["--override", "uid=1"], "cannot share"),
    "a value that cannot be": (["--override", "status=perhaps"], "confirmed, tentative or cancelled"),
    "two splits": (["--split-by", "teacher", "--split-by", "location"], "--split-by teacher,location"),
    "three fields": (["--split-by", "teacher,location,categories"], "by one field or by two"),
    "a table to take out": (["--without", "events.csv"], "no calendar file"),
}  # fmt: skip


@pytest.mark.parametrize("name", MEANINGLESS)
def test_options_that_make_no_sense_are_refused(
    name: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    arguments, said = MEANINGLESS[name]
    monkeypatch.chdir(tmp_path)
    outcome = nomarium("build", csv_file(tmp_path, CLASSES), "-o", tmp_path / "out.ics", *arguments)
    assert outcome.status == 2 and said in outcome.err and not (tmp_path / "out.ics").exists()


OVERRIDES = {
    "a place": (["location=Quay"], "Rigging 2026-09-07T09:00/2026-09-07T10:00 @ Quay"),
    "no place": (["location="], "Rigging 2026-09-07T09:00/2026-09-07T10:00"),
    "the date of every row": (["date=2026-10-01"], "Rigging 2026-10-01T09:00/2026-10-01T10:00 @ Kiln yard"),
    "the start": (["start=8:30"], "Rigging 2026-09-07T08:30/2026-09-07T10:00 @ Kiln yard"),
    "the title": (["title=Busy"], "Busy 2026-09-07T09:00/2026-09-07T10:00 @ Kiln yard"),
    "the room": (["room=Loft 9"], "Rigging 2026-09-07T09:00/2026-09-07T10:00 @ Kiln yard"),
}  # fmt: skip


@pytest.mark.parametrize("name", OVERRIDES)
def test_a_value_holds_for_every_row_whatever_stands_there(name: str, tmp_path: Path) -> None:
    given, expected = OVERRIDES[name]
    source = csv_file(tmp_path, "\n".join(CLASSES.strip("\n").splitlines()[:2]))
    assert built(source, *(part for one in given for part in ("--override", one))) == [expected]


def test_cells_under_an_override_need_not_be_readable(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Title,Date,Status,Guests,RSVP\nA,2026-09-07,who knows,Ann,yes\nB,2026-09-08,tentative,,yes"
    )
    assert "who knows" in refused(source)
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--override", "status=confirmed")
    assert outcome.status == 0 and "“who knows” is read past" in outcome.out and "names nobody" in outcome.out
    assert [event["STATUS"] for event in events_in(tmp_path / "o.ics")] == ["CONFIRMED", "CONFIRMED"]
    assert refused(
        csv_file(tmp_path, "Title,When\nA,2026-09-07 9:00", "w.csv"), "--override", "date=2027-01-04"
    )


def test_people_and_places_are_joined_by_name(tmp_path: Path) -> None:
    people = csv_file(
        tmp_path,
        "Name,Email\nann dory,ann@saltmarsh.example\nBo Reed,bo@saltmarsh.example\nCy Ling,",
        "p.csv",
    )
    places = csv_file(
        tmp_path,
        'Place,Address,Coordinates,Link\nKiln-yard,4 Brick Lane,"44.65; -63.57",https://kiln.example',
        "q.csv",
    )
    source = csv_file(tmp_path, CLASSES)
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics", "--people", people, "--places", places)
    assert outcome.status == 0, outcome.text
    assert (
        "no address for 1 name: “Cy Ling”" in outcome.out
        and "no row for 2 names: “Loft 2” and “Main slip”" in outcome.out
    )
    rigging, knots, *_ = events_in(tmp_path / "o.ics")
    assert (rigging["LOCATION"], rigging["X-NOMARIUM-ROOM"], rigging["URL"]) == (
        "Kiln yard, 4 Brick Lane",
        "Kiln yard",
        "https://kiln.example",
    )
    assert (rigging["GEO"].latitude, rigging["GEO"].longitude) == (44.65, -63.57)
    assert (
        knots["ATTENDEE"] == ["mailto:ann@saltmarsh.example", "mailto:bo@saltmarsh.example"]
        and knots["LOCATION"] == "Loft 2"
    )
    twice = csv_file(tmp_path, "Name,Email\nAnn,a@x.example\nANN,b@x.example", "t.csv")
    assert "two addresses" in refused(source, "--people", twice)


def test_links_to_join_by_are_known_from_headings_and_cells(tmp_path: Path) -> None:
    text = "Title,Date,Start,Staff,RSVP,Join here\nA,2026-09-07,9:00,a@x.example,yes,https://loft.example/1\nB,2026-09-08,9:00,a@x.example,no,Dial in: +1 902 555 0142"
    built(csv_file(tmp_path, text))
    first, second = events_in(tmp_path / "events.ics")
    assert (first["CONFERENCE"], second["CONFERENCE"]) == ("https://loft.example/1", "tel:+19025550142")
    assert (first["ATTENDEE"].params.get("RSVP"), second["ATTENDEE"].params.get("RSVP")) == ("TRUE", None)
    assert nomarium("build", tmp_path / "events.ics", "-o", tmp_path / "t.csv").status == 0
    assert "RSVP,Conference" in (tmp_path / "t.csv").read_text("utf-8-sig")
    assert built(tmp_path / "t.csv") and "CONFERENCE;VALUE=URI:tel:" in (tmp_path / "t.ics").read_text()
    meets = csv_file(tmp_path, "Meet,Date\nHarbour race,2026-09-12\nSpring race,2026-09-13", "meets.csv")
    assert built(meets) == ["Harbour race 2026-09-12/2026-09-13", "Spring race 2026-09-13/2026-09-14"]


HELD = {
    "one for one": ("A,2026-09-07,9:00\nA,2026-09-07,9:00\nB,2026-09-07,9:00", [], ["A", "B"]),
    "another time is another event": ("A,2026-09-07,9:30\nA,2026-09-07,9:00", [], ["A"]),
    "floating against a zone": ("A,2026-09-07,9:00\nB,2026-09-07,9:00", ["--timezone", "America/Halifax"], ["B"]),
}  # fmt: skip


@pytest.mark.parametrize("name", HELD)
def test_what_a_calendar_holds_is_not_written_again(name: str, tmp_path: Path) -> None:
    rows, arguments, expected = HELD[name]
    built(csv_file(tmp_path, "Title,Date,Start\nA,2026-09-07,9:00", "held.csv"), *arguments)
    found = built(csv_file(tmp_path, f"Title,Date,Start\n{rows}"), "--without", tmp_path / "held.ics")
    assert [event[0] for event in found] == expected


def test_a_wrong_import_is_taken_out_of_an_export_by_uid_first(tmp_path: Path) -> None:
    def vevent(uid: str) -> str:
        return f"BEGIN:VEVENT\nUID:{uid}\nDTSTAMP:20260901T000000Z\nDTSTART:20260907T090000\nSUMMARY:A\nEND:VEVENT\n"

    both, wrong = tmp_path / "export.ics", tmp_path / "wrong.ics"
    both.write_text(f"BEGIN:VCALENDAR\nVERSION:2.0\n{vevent('by-hand')}{vevent('imported')}END:VCALENDAR\n")
    wrong.write_text(f"BEGIN:VCALENDAR\nVERSION:2.0\n{vevent('imported')}END:VCALENDAR\n")
    assert nomarium("build", both, "--without", wrong, "-o", tmp_path / "clean.ics").status == 0
    assert [event["UID"] for event in events_in(tmp_path / "clean.ics")] == ["by-hand"]
    outcome = nomarium("build", both, "--without", both, "-o", tmp_path / "none.ics")
    assert outcome.status == 1 and "2 events left out" in outcome.out and not (tmp_path / "none.ics").exists()


def test_dates_of_a_series_are_taken_out_one_by_one(tmp_path: Path) -> None:
    built(csv_file(tmp_path, "Title,Date\nA,2026-09-14", "held.csv"))
    weekly = csv_file(tmp_path, "Title,Date,Repeat\nA,2026-09-07,weekly until 28 September 2026")
    assert len(built(weekly, "--without", tmp_path / "held.ics")) == 3
    nomarium(
        "build", weekly, "-o", tmp_path / "r.ics", "--repeats", "rule", "--without", tmp_path / "held.ics"
    )
    (event,) = events_in(tmp_path / "r.ics")
    assert event["EXDATE"].dts[0].dt.isoformat() == "2026-09-14"


SERIES = """BEGIN:VCALENDAR
VERSION:2.0
BEGIN:VEVENT
UID:s
DTSTAMP:20260901T000000Z
DTSTART;TZID=America/Halifax:20260907T090000
RRULE:FREQ=WEEKLY;COUNT=3
SUMMARY:Watch
END:VEVENT
BEGIN:VEVENT
UID:s
DTSTAMP:20260901T000000Z
RECURRENCE-ID:20260914T120000Z
DTSTART;TZID=America/Halifax:20260914T100000
SUMMARY:Drill
END:VEVENT
END:VCALENDAR
"""


@pytest.mark.parametrize(
    ("arguments", "expected"),
    [
        (["--leave-out", "title=Drill"], ["Watch 2026-09-07", "Watch 2026-09-21"]),
        (["--only", "title=Drill"], ["Drill 2026-09-14"]),
        (["--rename", "Drill=Boat drill"], ["Watch 2026-09-07", "Boat drill 2026-09-14", "Watch 2026-09-21"]),
        (["--override", "title=Busy"], ["Busy 2026-09-07", "Busy 2026-09-14", "Busy 2026-09-21"]),
        (["--day-one", "2026-09-08"], ["Watch 2026-09-08", "Drill 2026-09-15", "Watch 2026-09-22"]),
    ],
)
def test_a_series_of_a_calendar_is_edited_date_by_date(
    arguments: list[str], expected: list[str], tmp_path: Path
) -> None:
    (tmp_path / "s.ics").write_text(SERIES)
    outcome = nomarium("build", tmp_path / "s.ics", "-o", tmp_path / "o.ics", *arguments)
    assert outcome.status == 0, outcome.text
    found = events_in(tmp_path / "o.ics")
    assert sorted(f"{event['SUMMARY']} {event.decoded('DTSTART'):%Y-%m-%d}" for event in found) == sorted(
        expected
    )


PLAN = {
    "terms": "Name,First day,Last day\nAutumn,2026-09-07,2026-09-11", "cycle": "Label\nA\nB",
    "bells": "Period,Start,End\n1,9:00,10:00\n2,10:00,11:00",
    "timetable": "Class,Label,Period,Teacher,Room\nKN1,A,1,RF,Loft\nRG2,B,2,OT,Slip", "settings": "Setting,Value\nShow labels,yes",
    "names": "Code,Name,Kind\nKN1,Knots,class\nRF,R. Finch,teacher",
}  # fmt: skip


def plan(folder: Path) -> Path:
    (folder / "year").mkdir()
    for name, text in PLAN.items():
        csv_file(folder / "year", text, f"{name}.csv")
    return folder / "year"


@pytest.mark.parametrize(
    ("arguments", "expected"),
    [
        (["--only", "class=kn1"], {"Knots": 3, "Day A": 3, "Day B": 2}),
        (["--only", "teacher=RF"], {"Knots": 3, "Day A": 3, "Day B": 2}),
        (["--leave-out", "class=RG2", "--leave-out", "title=Day*"], {"Knots": 3}),
        (["--rename", "KN1=Bowlines", "--leave-out", "title=Day*"], {"Bowlines": 3, "RG2": 2}),
        (
            ["--title", "{teacher}: {title}", "--leave-out", "title=Day*"],
            {"R. Finch: Knots": 3, "OT: RG2": 2},
        ),
    ],
)
def test_classes_are_known_by_code_and_by_name(
    arguments: list[str], expected: dict[str, int], tmp_path: Path
) -> None:
    outcome = nomarium("build", plan(tmp_path), "-o", tmp_path / "o.ics", *arguments)
    assert outcome.status == 0, outcome.text
    titles = [str(event["SUMMARY"]) for event in events_in(tmp_path / "o.ics")]
    assert {title: titles.count(title) for title in titles} == expected


def test_a_plan_has_no_dates_and_no_columns_to_override(tmp_path: Path) -> None:
    source = plan(tmp_path)
    for arguments, said in (
        (["--override", "date=2026-10-01"], "rows of lists"),
        (["--title", "{Paper}"], "no columns"),
    ):
        outcome = nomarium("build", source, "-o", tmp_path / "o.ics", *arguments)
        assert outcome.status == 1 and said in outcome.err


def test_a_split_by_two_fields_is_a_folder_of_folders(tmp_path: Path) -> None:
    source, out = csv_file(tmp_path, CLASSES), tmp_path / "out"
    outcome = nomarium("build", source, "-o", out, "--split-by", "teacher,location")
    assert outcome.status == 0 and "(R. Finch / Kiln yard)" in outcome.out
    names = sorted(path.relative_to(out).as_posix() for path in out.rglob("*.ics"))
    assert names == ["m-roe/loft-2.ics", "no-teacher/main-slip.ics", "r-finch/kiln-yard.ics"]
    again = nomarium(
        "build",
        csv_file(tmp_path, CLASSES.replace("Main slip", "Quay")),
        "-o",
        out,
        "--split-by",
        "teacher,location",
    )
    assert "4 unchanged" in again.out and "no longer made: no-teacher/main-slip.ics" in again.out


def test_a_recipe_holds_all_of_it(tmp_path: Path) -> None:
    csv_file(tmp_path, "Name,Email\nAnn Dory,ann@saltmarsh.example", "people.csv")
    source, recipe = csv_file(tmp_path, CLASSES), tmp_path / "r.toml"
    arguments = [
        "--only",
        "category=Class",
        "--leave-out",
        "teacher=M. Roe",
        "--override",
        "location=Quay",
        "--rename",
        "Rigging=Rope",
    ]
    assert nomarium("survey", source, *arguments, "--title", "{title}!", "--save", recipe).status == 0
    text = recipe.read_text()
    recipe.write_text(
        'people = ["people.csv"]\nsplit_by = ["teacher", "location"]\n'
        + text.replace("\n[renamed]\n", '\n[renamed]\n"Gone" = "Away"\n')
    )
    outcome = nomarium("build", source, "-o", tmp_path / "out", "--recipe", recipe)
    assert outcome.status == 0, outcome.text
    assert "“Gone”" in outcome.out, "an entry that meets nothing is told"
    found = events_in(tmp_path / "out" / "r-finch" / "quay.ics")
    assert [str(event["SUMMARY"]) for event in found] == ["Rope!", "Rope!"] and found[0][
        "ATTENDEE"
    ].startswith("mailto:ann")
    for entry, said in (
        ('only = ["colour=red"]', "color"),
        ("people = [1]", "in a form"),
        ("[overrides]\nfoo = 1", "foo"),
    ):
        recipe.write_text(entry)
        assert said in refused(source, "--recipe", recipe)


def test_rows_that_a_recipe_leaves_out_in_vain_are_told(tmp_path: Path) -> None:
    (tmp_path / "r.toml").write_text('leave_out_rows_with = ["Regatta", "Gone"]\n')
    outcome = nomarium(
        "build", csv_file(tmp_path, CLASSES), "-o", tmp_path / "o.ics", "--recipe", tmp_path / "r.toml"
    )
    assert "No row has “Gone”" in outcome.out and "1 left out" in outcome.out


@pytest.mark.parametrize(
    ("by", "line"),
    [("title", "Rigging"), ("categories", "Class"), ("location", "Kiln yard"), ("attendees", "Bo Reed")],
)
def test_a_tally_is_by_any_field(by: str, line: str, tmp_path: Path) -> None:
    outcome = nomarium("tally", csv_file(tmp_path, CLASSES), "--by", by, "--leave-out", "title=Staff*")
    assert outcome.status == 0 and line in outcome.out and "Staff tea" not in outcome.out


def test_an_untouched_starter_plan_is_no_plan(tmp_path: Path) -> None:
    for target in (tmp_path / "year.xlsx", tmp_path / "year"):
        nomarium("starter", "plan", "-o", target)
        outcome = nomarium("build", target, "-o", tmp_path / "o.ics")
        assert (
            outcome.status == 1
            and "examples of the starter plan" in outcome.out
            and "Days off" in outcome.out
        )
        assert "no event to write" in outcome.err
    terms = tmp_path / "year" / "terms.csv"
    terms.write_text(terms.read_text("utf-8-sig").replace("2026-12-18", "2026-12-11"))
    outcome = nomarium("build", tmp_path / "year", "-o", tmp_path / "o.ics")
    assert outcome.status == 0 and "Terms," not in outcome.out.split("nothing else: ")[1].split(".")[0]


def test_an_event_that_people_moved_elsewhere_is_in_that_room(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Start,Room\nKnots,2026-09-07,9:00,Loft 1")
    built(source)
    given = source.with_suffix(".ics")
    edited = tmp_path / "edited.ics"
    edited.write_text(given.read_text("utf-8").replace("LOCATION:Loft 1", "LOCATION:Shed"), "utf-8")
    assert nomarium("build", source, "-o", given, "--edited", edited).status == 0
    (event,) = events_in(given)
    assert (event["LOCATION"], event["X-NOMARIUM-ROOM"]) == ("Shed", "Shed")
