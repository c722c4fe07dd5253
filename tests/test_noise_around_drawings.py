"""What stands in and around drawn months, planners and rosters, as people draw them, is read as it is meant or asked about."""

from pathlib import Path

import pytest

from helpers import built, csv_file, refused

YEAR = ("--school-year", "2026:2027")


@pytest.mark.parametrize(
    ("cell", "event"),
    [
        ("9am 1st XI v Cove", "1st XI v Cove 2026-10-07T09:00/2026-10-07T10:00"),
        ("15:30-17:00 4x4 relay", "4x4 relay 2026-10-07T15:30/2026-10-07T17:00"),
        ("3.30pm 10K run", "10K run 2026-10-07T15:30/2026-10-07T16:30"),
        ("9:00 Year 7-9 gala", "Year 7-9 gala 2026-10-07T09:00/2026-10-07T10:00"),
        ("9:00 3 boats go out", "3 boats go out 2026-10-07T09:00/2026-10-07T10:00"),
        ("1st XI v Cove", "1st XI v Cove 2026-10-07/2026-10-08"),
        ("24 boats go out", "24 boats go out 2026-10-07/2026-10-08"),
    ],
)
def test_titles_that_begin_with_a_figure(cell: str, event: str, tmp_path: Path) -> None:
    planner = f"w/c,Mon,Tue,Wed,Thu,Fri\n5 Oct 2026,,,{cell},,\n12 Oct 2026,Oars,,,,"
    assert built(csv_file(tmp_path, planner)) == [event, "Oars 2026-10-12/2026-10-13"]
    month = f"October 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n5,6,7,8,9,10,11\n,,{cell},,,,\n12,13,14,15,16,17,18\nOars,,,,,,"
    assert built(csv_file(tmp_path, month, name="month.csv")) == [event, "Oars 2026-10-12/2026-10-13"]


def test_a_team_that_plays_on_the_day_of_its_number_keeps_its_name(tmp_path: Path) -> None:
    text = "October 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,,,1,2,3,4\n,,,1st XI v Cove,,,\n5,6,7,8,9,10,11\n,Oars,,,,,"
    assert built(csv_file(tmp_path, text)) == ["1st XI v Cove 2026-10-01/2026-10-02", "Oars 2026-10-06/2026-10-07"]  # fmt: skip


@pytest.mark.parametrize(
    "remark", ["Printed 3 August 2026", "Key: INSET = staff only", "Dates may change", "Please note: times may change"]
)  # fmt: skip
def test_remarks_below_a_month_are_on_no_day_of_it(remark: str, tmp_path: Path) -> None:
    text = f"October 2026,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n5,6,7,8,9,10,11\n,Oars,,,,,\n12,13,14,15,16,17,18\n,,,,,,\n{remark},,,,,,"
    assert built(csv_file(tmp_path, text)) == ["Oars 2026-10-06/2026-10-07"]


@pytest.mark.parametrize("form", ["Mon 1,", "Mon,1,"])
def test_the_days_of_a_month_one_a_row(form: str, tmp_path: Path) -> None:
    names = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
    held = {2: "11:30 Oars", 4: "Knots"}
    lines = [
        f"{form.replace('Mon', names[n % 7]).replace('1', str(n + 1))}{held.get(n + 1, '')}"
        for n in range(31)
    ]
    text = "\n".join([f"March 2027{',' * form.count(',')}", *lines])
    assert built(csv_file(tmp_path, text)) == [
        "Oars 2027-03-02T11:30/2027-03-02T12:30", "Knots 2027-03-04/2027-03-05",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("weeks", "monday"),
    [
        (("21-25 Sep", "28-2 Oct"), "2026-09-28"), (("21-25 Dec", "28-1 Jan"), "2026-12-28"),
        (('"Week 8\n26 Oct"', '"Week 9\n2 Nov"'), "2026-11-02"),
    ],
)  # fmt: skip
def test_weeks_of_a_planner_that_reach_into_the_next_month(
    weeks: tuple[str, str], monday: str, tmp_path: Path
) -> None:
    path = tmp_path / "planner.csv"
    path.write_text(
        f"Week beginning,Mon,Tue,Wed,Thu,Fri\n{weeks[0]},,Oars,,,\n{weeks[1]},Knots,,,,\n", "utf-8"
    )
    assert [one.split("/")[0] for one in built(path, *YEAR)][1] == f"Knots {monday}"


@pytest.mark.parametrize(
    ("titles", "events"),
    [
        (("9:00 Assembly", "Oars", "Knots"), ["Assembly 2027-03-05T09:00", "Oars 2027-03-06", "Knots 2027-03-07"]),
        (("Assembly at 9:00", "Oars", "Knots"), ["Assembly at 9:00 2027-03-05", "Oars 2027-03-06", "Knots 2027-03-07"]),
    ],
)  # fmt: skip
def test_titles_of_a_list_that_begin_with_their_time(
    titles: tuple[str, ...], events: list[str], tmp_path: Path
) -> None:
    rows = "\n".join(f"2027-03-{5 + n:02},{title}" for n, title in enumerate(titles))
    assert [one.split("/")[0] for one in built(csv_file(tmp_path, f"Date,Event\n{rows}"))] == events


ROTA = "Rota January 2027,,,\n,Mon,Tue,Wed,Thu,Fri\n,4,5,6,7,8\nQuill,E,,9-5,E,E\nOsei,,E,E,,9-5\n"


def test_numbers_of_days_below_weekdays_head_a_roster(tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, ROTA), "--set-code", "E=7:00-15:00")
    assert len(found) == 7 and found[0] == "Quill: E 2027-01-04T07:00/2027-01-04T15:00"
    assert "Quill 2027-01-06T09:00/2027-01-06T17:00" in found


@pytest.mark.parametrize("label", ["Staff on", "Total", "On duty", "No. needed"])
def test_how_many_are_there_is_nobodys_duty(label: str, tmp_path: Path) -> None:
    text = f"{ROTA}{label},3,4,1,2,5\nE = 7:00-15:00,,,,,\n"
    found = built(csv_file(tmp_path, text))
    assert len(found) == 7 and not any(one.startswith(label) for one in found)


def test_a_figure_alone_in_a_roster_is_asked_about(tmp_path: Path) -> None:
    said = refused(csv_file(tmp_path, ROTA.replace("9-5", "8")), "--set-code", "E=7:00-15:00")
    assert "could be an hour, a number of hours" in said and '--set-code "8=TITLE"' in said


def test_figures_of_other_cells_do_not_cut_the_hours_of_a_key(tmp_path: Path) -> None:
    text = "Rota January 2027,,,\n,Mon 4,Tue 5,Wed 6,Thu 7\nQuill,E,L,1,L\nOsei,L,E,E,1\nE = 7:00-15:00,,,,\nL = 13:00-21:00,,,,\n1 = Kitchen,,,,"
    found = built(csv_file(tmp_path, text))
    assert "Quill: L 2027-01-05T13:00/2027-01-05T21:00" in found and len(found) == 8


@pytest.mark.parametrize("duty", ["On duty", "Reader"])
def test_people_below_two_duties_may_be_a_roster(duty: str, tmp_path: Path) -> None:
    text = f"Day,{duty},Backup\n2026-11-03,A. Tern,R. Finch\n2026-11-06,A. Tern,Kit Moss\n2026-11-09,J. Oar,R. Finch"
    source = csv_file(tmp_path, text)
    assert "--as roster" in refused(source)
    assert built(source, "--as", "roster")[0] == f"{duty}: A. Tern 2026-11-03/2026-11-04"


def test_who_stands_in_is_no_title_beside_who_teaches(tmp_path: Path) -> None:
    text = "Date,Time,Cover,Deputy\n2026-11-03,9:00,A. Tern,R. Finch\n2026-11-06,9:00,J. Oar,Kit Moss"
    assert "No column of" in refused(csv_file(tmp_path, text))
