"""survey, recipes, starter, demo and the command line itself."""

from __future__ import annotations

import http.server
import json
import os
import shutil
import subprocess
import sys
import threading
from pathlib import Path

import openpyxl
import pytest

from helpers import built, csv_file, events_in, nomarium, plain, refused, workbook
from nomarium.cli.main import COMMANDS

LIST = "Date,Start,Event,Where\n13/04/2027,9:00,Launch,Slip 1\n05/04/2027,,Open day,"


def test_survey_says_how_each_column_is_read_and_what_to_run_next(tmp_path) -> None:
    outcome = nomarium("survey", csv_file(tmp_path, LIST), "--timezone", "America/Halifax")
    assert outcome.status == 0
    for part in (
        "headings in row 1; data from row 2 on",
        "day first: row 2 is",
        "what the event is called",
        "Launch | Open day",
        "2 rows read = 2 events",
        "--timezone America/Halifax",
    ):
        assert part in outcome.out
    assert not (tmp_path / "events.ics").exists()


def test_survey_in_json_has_the_same_facts(tmp_path) -> None:
    facts = json.loads(nomarium("survey", csv_file(tmp_path, LIST), "--json").out)
    (sheet,) = facts["sheets"]
    assert (sheet["date_order"], sheet["header_rows"]) == ("dmy", [1])
    assert [column["field"] for column in sheet["columns"]] == ["date", "start", "summary", "location"]
    assert facts["ledger"] == {"read": 2, "events": 2, "blank": 0, "notes": 0, "left_out": 0, "rejected": 0}


def test_survey_of_a_doubtful_table_names_the_option_that_settles_it(tmp_path) -> None:
    outcome = nomarium("survey", csv_file(tmp_path, "Date,Event\n04/05/2027,A"))
    assert outcome.status == 1
    assert "--date-order …    (… is dmy or mdy)" in outcome.out


def test_a_recipe_is_obeyed_and_complains_when_the_sheet_no_longer_fits(tmp_path) -> None:
    source = csv_file(tmp_path, "Fixtures\nDate,Opponent,Cox\n13/04/2027,Gulls,Ann")
    recipe = tmp_path / "fixtures.toml"
    surveyed = nomarium(
        "survey",
        source,
        "--save",
        recipe,
        "--column",
        "Opponent=summary",
        "--column",
        "Cox=",
        "--set",
        "location=Slip",
    )
    assert surveyed.status == 0, surveyed.text
    later = csv_file(tmp_path, "Fixtures\nDate,Opponent,Cox\n04/05/2027,Crabs,Ann", "may.csv")
    assert built(later, "--recipe", recipe) == ["Crabs 2027-05-04/2027-05-05 @ Slip"]
    assert built(later, "--recipe", recipe, "--set", "location=Bay") == ["Crabs 2027-05-04/2027-05-05 @ Bay"]
    changed = csv_file(tmp_path, "Fixtures\nDate,Against,Cox\n04/05/2027,Crabs,Ann", "june.csv")
    assert "The recipe fixtures.toml names a heading “Opponent”" in refused(changed, "--recipe", recipe)


def test_a_recipe_may_rename_and_leave_out(tmp_path) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text('leave_out_rows_with = ["Rehearsal"]\n[renamed]\nMtg = "Meeting"\n')
    source = csv_file(tmp_path, "Date,Title,Kind\n2027-04-05,Mtg,Staff\n2027-04-06,Play,Rehearsal")
    assert built(source, "--recipe", recipe) == ["Meeting 2027-04-05/2027-04-06"]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("colums = 3", "Did you mean columns?"),
        ('timezone = "Moon/Base"', "does not exist"),
        ("columns = ", "is no recipe"),
        ('header_row = "three"', "in a form that it cannot have"),
        ('date_order = "ydm"', "Use dmy, mdy or ymd"),
    ],
)
def test_a_recipe_that_cannot_be_used_says_why(tmp_path, text: str, says: str) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text(text)
    assert says in refused(csv_file(tmp_path, LIST), "--recipe", recipe)


@pytest.mark.parametrize("ending", ["xlsx", "csv"])
def test_a_starter_is_read_as_it_stands_and_its_examples_are_left_out(tmp_path, ending: str) -> None:
    path = tmp_path / f"start.{ending}"
    assert nomarium("starter", "events", "-o", path).status == 0
    empty = nomarium("build", path, "-o", tmp_path / "o.ics")
    assert empty.status == 1
    assert "2 rows read = 2 left out" in empty.out
    if ending == "csv":
        with path.open("a", encoding="utf-8") as file:
            file.write("Launch,2027-06-05,11:00,12:00,,no,Slip\r\n")
    else:
        book = openpyxl.load_workbook(path)
        assert {rule.formula1 for rule in book["Events"].data_validations.dataValidation} >= {'"yes,no"'}
        book["Events"].append(["Launch", "2027-06-05", "11:00", "12:00", None, "no", "Slip"])
        book.save(path)
    outcome = nomarium("build", path, "-o", tmp_path / "o.ics")
    assert outcome.status == 0, outcome.text
    assert [plain(e) for e in events_in(tmp_path / "o.ics")] == [
        "Launch 2027-06-05T11:00/2027-06-05T12:00 @ Slip"
    ]
    assert nomarium("starter", "events", "-o", path).status == 2


def test_the_demo_shows_ten_steps_at_most_and_all_of_them_when_asked(tmp_path) -> None:
    few = nomarium("demo", tmp_path / "few")
    assert few.status == 0, few.err
    assert few.out.count("\n$ nomarium ") + few.out.startswith("$ ") <= 10
    assert len(few.out.splitlines()) < 200
    outcome = nomarium("demo", tmp_path / "school", "--all")
    assert outcome.status == 0, outcome.err
    assert outcome.out.count("$ nomarium survey") >= 8
    made = {path.name for path in (tmp_path / "school").glob("*.ics")}
    assert {"launch-days.ics", "evenements.ics", "boat-week.ics", "april.ics", "everything.ics"} <= made


USAGE = {
    "window": (["--from", "2027-05-01", "--until", "2027-04-01"], "before --from"),
    "field": (["--column", "Event=titel"], "Did you mean summary?"),
    "no equals sign": (["--column", "Event"], "has no “=”"),
    "default": (["--set", "status=perhaps"], "not a known status"),
    "zone": (["--timezone", "Halifax"], "Did you mean America/Halifax?"),
    "order": (["--date-order", "ydm"], "no order"),
    "language": (["--language", "qqq"], "no language"),
    "colour": (["--color", "teel"], "Did you mean teal?"),
    "split": (["--split-by", "audience"], "makes several files"),
    "length": (["--default-length", "90"], "no unit"),
    "year": (["--school-year", "2027"], "has no “:”"),
    "layout": (["--as", "pie"], "no layout"),
    "sheet of a text file": (["--sheet", "X"], "has none"),
}


@pytest.mark.parametrize("name", USAGE)
def test_a_wrong_command_line_ends_with_2_and_says_what_is_right(tmp_path, name: str) -> None:
    options, says = USAGE[name]
    outcome = nomarium("build", csv_file(tmp_path, LIST), "-o", tmp_path / "o.ics", *options)
    assert (outcome.status, says in outcome.text) == (2, True), outcome.text
    assert not (tmp_path / "o.ics").exists()


def test_outputs_that_make_no_sense_are_refused(tmp_path) -> None:
    source = csv_file(tmp_path, LIST)
    assert (
        "cannot be split by summary"
        in nomarium("build", source, "-o", tmp_path / "x", "--split-by", "summary").err
    )
    for output, options in ((tmp_path, []), (tmp_path / "o.doc", []), (tmp_path / "no" / "o.ics", []),
                            (tmp_path / "o.ics", ["--split-by", "audience"])):  # fmt: skip
        assert nomarium("build", source, "-o", output, *options).status == 2


SOURCES = {
    "UTF-8 with a mark": ("events.csv", LIST.encode("utf-8-sig")),
    "UTF-16": ("events.csv", LIST.replace(",", "\t").encode("utf-16")),
    "UTF-16 without a mark": ("events.csv", LIST.encode("utf-16-le")),
    "Windows-1252": ("events.csv", LIST.replace("Launch", "Launché").encode("cp1252")),
    "pipes": ("events.txt", LIST.replace(",", "|").encode()),
    "old Mac line ends": ("events.csv", LIST.replace("\n", "\r").encode()),
    "a declared delimiter": ("events.csv", ("sep=;\n" + LIST.replace(",", ";")).encode()),
    "whole rows in quotes": ("events.csv", "\n".join(f'"{line}"' for line in LIST.splitlines()).encode()),
    "text named as a workbook": ("events.xlsx", LIST.encode()),
}


@pytest.mark.parametrize("name", SOURCES)
def test_bytes_to_cells(tmp_path, name: str) -> None:
    file, data = SOURCES[name]
    (tmp_path / file).write_bytes(data)
    lines = built(tmp_path / file)
    assert [line.replace("é", "") for line in lines] == [
        "Launch 2027-04-13T09:00/2027-04-13T10:00 @ Slip 1",
        "Open day 2027-04-05/2027-04-06",
    ]


UNREADABLE = {
    "missing.csv": (None, "There is no file"),
    "empty.csv": (b"", "is empty"),
    "blank.csv": (b"\n\n", "is empty"),
    "picture.xlsx": (b"\x89PNG\r\n", "is a picture"),
    "page.xls": (b"<html><table><tr><td>x<td>y<tr><td>1<td>2</table>", "holds dates"),
    "noise.csv": (bytes(range(256)) * 4, "not text"),
    "cut.xlsx": (b"PK\x03\x04" + b"x" * 99, "cut short or damaged"),
    "calendar.ics": (b"BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n", "no event to write"),
    "old.xls": (b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + b"\0" * 600, "cannot be read as a workbook"),
}


@pytest.mark.parametrize("name", UNREADABLE)
def test_a_source_that_cannot_be_read_is_one_clear_problem(tmp_path, name: str) -> None:
    data, says = UNREADABLE[name]
    if data is not None:
        (tmp_path / name).write_bytes(data)
    said = nomarium("build", tmp_path / name, "-o", tmp_path / "out.ics")
    assert (said.status, says in said.err) == (1, True), said.text
    assert "is a folder" in nomarium("survey", tmp_path).err


def test_an_opendocument_workbook_with_merged_and_faulty_cells(tmp_path) -> None:
    """Written by hand: one merged date over two rows, and one error value."""
    import zipfile

    ns = 'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:calcext="urn:org:documentfoundation:names:experimental:calc:xmlns:calcext:1.0"'
    text = '<table:table-cell office:value-type="string"{}><text:p>{}</text:p></table:table-cell>'
    date = '<table:table-cell office:value-type="date" office:date-value="2027-04-05" table:number-rows-spanned="2"><text:p>5</text:p></table:table-cell>'
    rows = [
        text.format("", "Date") + text.format("", "Title"),
        date + text.format("", "A"),
        "<table:covered-table-cell/>" + text.format("", "B"),
        text.format("", "6 April 2027") + text.format(' calcext:value-type="error"', "#N/A"),
    ]
    body = "".join(f"<table:table-row>{row}</table:table-row>" for row in rows)
    content = f'<?xml version="1.0"?><office:document-content {ns}><office:body><office:spreadsheet><table:table table:name="S">{body}</table:table></office:spreadsheet></office:body></office:document-content>'
    path = tmp_path / "events.ods"
    with zipfile.ZipFile(path, "w") as archive:
        archive.writestr("mimetype", "application/vnd.oasis.opendocument.spreadsheet")
        archive.writestr(
            "META-INF/manifest.xml",
            '<?xml version="1.0"?><manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0"/>',
        )
        archive.writestr("content.xml", content)
    outcome = nomarium("build", path, "-o", tmp_path / "o.ics", "--partial")
    assert "row 4, column B “Title”" in outcome.err
    assert [plain(e) for e in events_in(tmp_path / "o.ics")] == [
        "A 2027-04-05/2027-04-06",
        "B 2027-04-05/2027-04-06",
    ]


def test_a_named_table_of_a_workbook(tmp_path) -> None:
    path = workbook(tmp_path, [["Notes"], [], ["x", "Date", "Title"], ["y", "2027-04-05", "A"]])
    book = openpyxl.load_workbook(path)
    book["Events"].add_table(openpyxl.worksheet.table.Table(displayName="Launches", ref="B3:C4"))
    book.save(path)
    assert built(path, "--sheet", "Launches") == ["A 2027-04-05/2027-04-06"]


def test_standard_streams() -> None:
    program = [sys.executable, "-m", "nomarium"]
    run = subprocess.run(
        [*program, "build", "-", "-o", "-"], input=LIST.encode(), capture_output=True, check=False
    )
    assert run.returncode == 0, run.stderr
    assert run.stdout.startswith(b"BEGIN:VCALENDAR\r\n")
    assert b"2 rows read = 2 events" in run.stderr
    version = subprocess.run([*program, "--version"], capture_output=True, check=True, text=True)
    assert version.stdout.startswith("nomarium 0.")


def test_an_address_is_fetched_and_a_failure_told(tmp_path) -> None:
    csv_file(tmp_path, LIST)

    class Quiet(http.server.SimpleHTTPRequestHandler):
        def __init__(self, *args, **kwargs) -> None:
            super().__init__(*args, directory=str(tmp_path), **kwargs)

        def log_message(self, *args: object) -> None:
            pass

    with http.server.ThreadingHTTPServer(("127.0.0.1", 0), Quiet) as server:
        threading.Thread(target=server.serve_forever, daemon=True).start()
        address = f"http://127.0.0.1:{server.server_port}"
        outcome = nomarium("build", f"{address}/events.csv", "-o", tmp_path / "o.ics")
        assert "Wrote 2 events" in outcome.out, outcome.text
        assert "404" in nomarium("build", f"{address}/no.csv", "-o", tmp_path / "o.ics").err
        server.shutdown()
    assert nomarium("build", "ftp://saltmarsh.example/x.csv", "-o", tmp_path / "o.ics").status == 1


def test_a_setting_of_the_environment_is_under_the_options(tmp_path, monkeypatch) -> None:
    monkeypatch.setenv("NOMARIUM_DATE_ORDER", "mdy")
    monkeypatch.setenv("NOMARIUM_DEFAULT_LENGTH", "30 min")
    source = csv_file(tmp_path, "Date,Start,Title\n04/05/2027,9:00,A")
    assert built(source) == ["A 2027-04-05T09:00/2027-04-05T09:30"]
    assert built(source, "--date-order", "dmy") == ["A 2027-05-04T09:00/2027-05-04T09:30"]


def test_extra_columns_are_reported_or_kept_in_the_description(tmp_path) -> None:
    source = csv_file(tmp_path, "Date,Title,Boat,Notes\n2027-04-05,A,Petrel,Tide")
    built(source, "--keep-extra")
    assert events_in(source.with_suffix(".ics"))[0]["DESCRIPTION"] == "Tide\nBoat: Petrel"
    assert "not used" in nomarium("survey", source).out


@pytest.mark.parametrize("command", COMMANDS)
def test_every_command_has_help_with_an_example(command: str) -> None:
    outcome = nomarium(command, "--help")
    assert outcome.status == 0
    assert f"Example: nomarium {command}" in " ".join(outcome.out.split())


def test_the_help_of_the_program_names_every_command() -> None:
    out = nomarium("--help").out
    assert [command for command in COMMANDS if command not in out] == []


def test_an_unwritable_folder_is_told_and_leaves_nothing(tmp_path) -> None:
    if os.geteuid() == 0:
        target = Path("/proc/nomarium.ics")  # nobody can write there, not even root
    else:
        (tmp_path / "closed").mkdir(mode=0o500)
        target = tmp_path / "closed" / "o.ics"
    outcome = nomarium("build", csv_file(tmp_path, LIST), "-o", target)
    assert outcome.status == 1
    assert "Nothing was replaced" in outcome.err
    shutil.rmtree(tmp_path / "closed", ignore_errors=True)


def test_floating_times_are_told_and_whole_days_are_not(tmp_path) -> None:
    timed = nomarium("build", csv_file(tmp_path, LIST), "-o", tmp_path / "o.ics")
    assert "Times float" in timed.out
    days = nomarium("build", csv_file(tmp_path, "Date,Title\n2027-04-05,A"), "-o", tmp_path / "o.ics")
    assert "Times float" not in days.out


@pytest.mark.parametrize(
    "rows",
    ["2026-09-07,,All day\n2026-09-08,9:00,Timed", "2026-09-08,9:00,Timed\n2026-09-07,,All day"],
)
def test_the_last_day_is_the_last_that_an_event_touches(tmp_path, rows: str) -> None:
    """An all-day event ends, in the file, on the day on which a timed one still happens."""
    outcome = nomarium("build", csv_file(tmp_path, f"Date,Start,Title\n{rows}"), "-o", tmp_path / "out.ics")
    assert "Wrote 2 events from 2026-09-07 to 2026-09-08" in outcome.text


def test_zones_are_the_packages_own_unless_the_environment_says_otherwise(tmp_path) -> None:
    script = (
        "from nomarium.cli.main import run\n"
        "try: run(['build', 'none.csv', '-o', 'x.ics'])\n"
        "except SystemExit: pass\n"
        "import zoneinfo; print(zoneinfo.TZPATH)"
    )
    unset = {name: value for name, value in os.environ.items() if name != "PYTHONTZPATH"}
    for environment, expected in (
        (unset, "tzdata"),
        ({**unset, "PYTHONTZPATH": str(tmp_path)}, str(tmp_path)),
    ):
        told = subprocess.run(
            [sys.executable, "-c", script],
            capture_output=True,
            text=True,
            check=True,
            env=environment,
            cwd=tmp_path,
        )
        assert expected in told.stdout.splitlines()[-1]
