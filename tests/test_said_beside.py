"""Lines above and below a list that say something of all its rows: it is heard, told, or asked about."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused

TIMED = "Date,Time,Event\n11/01/2027,9:00,Regatta\n12/01/2027,3:30,Knots\n13/01/2027,4:30,Supper\n"
LONG = "Date,Event\n11/01/2027,Regatta\n12/01/2027,Knots\n13/01/2027,Supper\n"


def both(folder: Path, line: str, table: str) -> list[Path]:
    """A table with a line above it, and the same with the line below."""
    return [
        csv_file(folder, f'"{line}"\n{table}', "above.csv"),
        csv_file(folder, f'{table}"{line}"\n', "below.csv"),
    ]


@pytest.mark.parametrize(
    ("line", "zone"),
    [
        ("All times UTC", "UTC"), ("Times are GMT", "GMT"), ("All times shown in UTC.", "UTC"), ("Time zone: Europe/London", "Europe/London"),
        ("Timezone - America/Halifax", "America/Halifax"), ("Europe/Paris", "Europe/Paris"), ("(all times BST)", "Europe/London"),
    ],
)  # fmt: skip
def test_the_zone_of_times_is_given_or_asked_about(line: str, zone: str, tmp_path: Path) -> None:
    for source in both(tmp_path, line, TIMED):
        assert "says that the times are" in (
            refused(source) if zone in ("UTC", "GMT") else nomarium("survey", source).text
        )
        assert "and --timezone is Asia/Tokyo" in refused(source, "--timezone", "Asia/Tokyo")
        assert len(built(source, "--timezone", zone)) == 3
        source.with_suffix(".ics").unlink()
    for source in both(tmp_path, line, LONG):
        assert len(built(source)) == 3, "days have no zone"


@pytest.mark.parametrize("line", ["All times pm", "All times are p.m.", "Start times: pm"])
def test_times_that_are_all_in_one_half_are_asked_about(line: str, tmp_path: Path) -> None:
    for source in both(tmp_path, line, TIMED):
        assert "Time (pm)" in refused(source)
    meant = csv_file(tmp_path, TIMED.replace("Time", "Time (pm)"))
    assert built(meant)[0].startswith("Regatta 2027-01-11T21:00")


@pytest.mark.parametrize(
    "line",
    ["CANCELLED", "*** Cancelled ***", "Cancelled due to gales", "All cancelled", "All events have been cancelled", "Postponed until further notice", "ABGESAGT"],
)  # fmt: skip
def test_what_is_off_as_a_whole_is_asked_about(line: str, tmp_path: Path) -> None:
    for source in both(tmp_path, line, LONG):
        assert "and what it is about would be held" in refused(source)
        built(source, "--set", "status=cancelled")
        assert {str(one["STATUS"]) for one in events_in(source.with_suffix(".ics"))} == {"CANCELLED"}
        source.with_suffix(".ics").unlink()


@pytest.mark.parametrize(
    "line",
    [
        "Provisional",
        "DRAFT",
        "Provisional dates",
        "Draft - not confirmed",
        "Dates to be confirmed",
        "All dates are provisional",
    ],
)
def test_what_is_not_settled_is_told(line: str, tmp_path: Path) -> None:
    for source in both(tmp_path, line, LONG):
        assert len(built(source)) == 3
        assert "--set status=tentative" in nomarium("survey", source).text


@pytest.mark.parametrize(
    ("line", "advice"),
    [
        ("Teacher: R. Finch", "teacher=R. Finch"), ("Audience: Journeymen", "audience=Journeymen"), ("Category: Trips", "categories=Trips"),
        ("Length: 90 minutes", "duration=90 minutes"), ("Reminder: 1 day before", "reminder=1 day before"),
    ],
)  # fmt: skip
def test_what_a_label_above_says_is_told_with_its_option(line: str, advice: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f'"{line}"\n{TIMED}')
    assert f'--set "{advice}"' in nomarium("survey", source).text
    assert len(built(source, "--set", advice)) == 3
    assert f'--set "{advice}"' not in nomarium("survey", source, "--set", advice).text


@pytest.mark.parametrize(
    "line", ["Cancelled classes are refunded", "Subject to change", "All times local", "Contact: 902 555 0100", "EST 1987", "EAT", "CAT", "MEET", "Draft beer festival list", "Cutter Bay/Quay"]
)  # fmt: skip
def test_other_lines_are_remarks(line: str, tmp_path: Path) -> None:
    for source in both(tmp_path, line, TIMED):
        outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
        assert (
            outcome.status == 0
            and "stands by itself" not in outcome.text
            and "does not say it" not in outcome.text
        )


DRAWN = {
    "a grid": ',Mon 11 Jan 2027,Tue 12 Jan 2027\n9:00-10:00,Knots,Tar\n10:00-11:00,Oars,Sails\n',
    "a roster": "Rota,Mon 11 Jan 2027,Tue 12 Jan 2027\nFinch,9-12,13-16\nOsei,13-16,9-12\n",
    "a month": "January 2027,,,,,,\nMon,Tue,Wed,Thu,Fri,Sat,Sun\n,,,,1,2,3\n4,5,6,7,8,9,10\n9am Fair,,9am Race,,,,\n11,12,13,14,15,16,17\n18,19,20,21,22,23,24\n25,26,27,28,29,30,31\n",
    "a text": "Mon 11 January 2027: Fair, 2pm\nTue 12 January 2027: Race, 3pm\n",
}  # fmt: skip


@pytest.mark.parametrize("name", DRAWN)
def test_lines_above_drawings_and_among_texts_are_heard(name: str, tmp_path: Path) -> None:
    source = tmp_path / ("notice.txt" if name == "a text" else "drawn.csv")
    source.write_text(f"CANCELLED\n{DRAWN[name]}")
    assert "what it is about would be held" in refused(source)
    built(source, "--set", "status=cancelled")
    assert {str(one["STATUS"]) for one in events_in(source.with_suffix(".ics"))} == {"CANCELLED"}
    source.with_suffix(".ics").unlink()
    source.write_text(f"Spring (all times UTC)\n{DRAWN[name]}")
    assert "the times are UTC" in refused(source)
    assert built(source, "--timezone", "UTC")
    source.with_suffix(".ics").unlink()
    source.write_text(f"Provisional\n{DRAWN[name]}")
    assert "--set status=tentative" in nomarium("survey", source).text and built(source)


def test_a_cancelled_cell_of_a_drawing_is_its_own(tmp_path: Path) -> None:
    source = csv_file(tmp_path, DRAWN["a month"].replace("16,17\n", "16,17\nCancelled,,,,,,\n"))
    built(source)
    assert sum(one.get("STATUS") == "CANCELLED" for one in events_in(source.with_suffix(".ics"))) == 1


def test_lines_above_the_tables_of_a_plan_are_heard(tmp_path: Path) -> None:
    folder = tmp_path / "year"
    folder.mkdir()
    csv_file(folder, "Name,First day,Last day\nSpring,2027-01-11,2027-01-22\n", "terms.csv")
    table = "Class,Day,Time,Room\nKnots,Mon,9:00-10:00,L1\nTar,Tue,11:00-12:00,L2\n"
    csv_file(folder, f"CANCELLED\n{table}", "timetable.csv")
    assert "--override status=cancelled" in refused(folder)
    out = tmp_path / "o.ics"
    assert nomarium("build", folder, "-o", out, "--override", "status=cancelled").status == 0
    assert out.read_text().count("STATUS:CANCELLED") == 4
    csv_file(folder, f"All times UTC\n{table}", "timetable.csv")
    assert "the times are UTC" in refused(folder, "--timezone", "America/Halifax")
    assert nomarium("build", folder, "-o", out, "--timezone", "UTC").status == 0
    csv_file(folder, table, "timetable.csv")
    assert "no such list" in nomarium("build", folder, "-o", out, "--set", "status=cancelled").text
    assert "no such list" not in nomarium("build", folder, "-o", out).text
