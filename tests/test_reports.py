"""One screen: what reports say first, what they only count, and what --details and --json have all the same."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest

from helpers import csv_file, nomarium
from nomarium.cli.demo import write_samples
from nomarium.cli.panels import TEN
from nomarium.cli.render import MOST_LINES, SHOWN_LINES

LABELS = "Keel Rib Plank Deck Mast Sail".split()


@pytest.fixture(scope="module")
def school(tmp_path_factory: pytest.TempPathFactory) -> Path:
    folder = tmp_path_factory.mktemp("school")
    write_samples(folder)
    return folder


@pytest.fixture(scope="module")
def big_plan(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A plan of 300 classes, 60 teachers and 8 bell schedules."""
    folder = tmp_path_factory.mktemp("big") / "plan"
    folder.mkdir()
    tables = {
        "terms": ["Name,First day,Last day", "Autumn,2026-09-08,2026-12-18", "Winter,2027-01-05,2027-03-26"],
        "cycle": ["Label", *LABELS],
        "bells": ["Schedule,Period,Start,End", *(f"{name},{n},{8 + n}:00,{8 + n}:50" for name in ("Regular", *LABELS, "Fog") for n in range(1, 6))],
        "timetable": [
            "Class,Label,Period,Teacher",
            *(f"C{n}-{k},{LABELS[(n + k) % 6]},{k},T{n}" for n in range(60) for k in range(1, 6)),
        ],
        "settings": ["Setting,Value", "Time zone,America/Halifax"],
    }  # fmt: skip
    for name, lines in tables.items():
        (folder / f"{name}.csv").write_text("\n".join(lines) + "\n")
    return folder


def lines_at(text: str, width: int = 100) -> int:
    """How many lines of a terminal a text takes."""
    return sum(max(-(-len(line) // width), 1) for line in text.splitlines())


SCREENS = {
    "survey": ["survey"],
    "build": ["build", "-o", "o.ics"],
    "a calendar for each": ["build", "-o", "each/", "--split-by", "teacher"],
    "tally": ["tally"],
    "tally by teacher": ["tally", "--by", "teacher", "--per", "term"],
}


@pytest.mark.parametrize("name", SCREENS)
def test_a_report_of_a_plan_of_any_size_fits_a_screen(
    name: str, big_plan: Path, school: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    command, *options = SCREENS[name]
    monkeypatch.setenv("COLUMNS", "100")
    for plan in (big_plan, school / "year"):
        monkeypatch.chdir(plan.parent)
        outcome = nomarium(command, plan.name, *options)
        assert outcome.status == 0, outcome.text
        assert lines_at(outcome.out) <= 24, outcome.out
        assert " 0 " not in re.sub(
            r"[^\n]*│[^\n]*", "", next((line for line in outcome.out.splitlines() if "read =" in line), "")
        )


def test_long_tables_are_counted_and_details_have_them(
    big_plan: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    short = nomarium("build", big_plan, "-o", "each/", "--split-by", "teacher")
    assert short.out.count(".ics  (") == SHOWN_LINES
    assert f"… and {60 - SHOWN_LINES} more files (--details)" in short.out
    whole = nomarium("build", big_plan, "-o", "each/", "--split-by", "teacher", "--details")
    assert whole.out.count(".ics  (") == 60
    tally = nomarium("tally", big_plan)
    assert "… and 290 more lines (--details)" in tally.out
    assert len(nomarium("tally", big_plan, "--details").out.splitlines()) > 300
    survey = nomarium("survey", big_plan)
    assert "300 classes with their meetings:" in survey.out and "more classes (--details)" in survey.out
    assert "C59-5" in nomarium("survey", big_plan, "--details").out
    assert SHOWN_LINES < MOST_LINES


def test_parts_that_are_nothing_are_not_printed_and_json_has_them(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Event\n2026-10-05,A\n2026-10-06,B\n")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    assert "2 rows read = 2 events\n" in outcome.out
    facts = json.loads(nomarium("build", source, "-o", tmp_path / "o.ics", "--json").out)
    assert facts["ledger"] == {"read": 2, "events": 2, "blank": 0, "notes": 0, "left_out": 0, "rejected": 0}


def test_a_plan_has_a_line_for_each_table_with_more_than_used_rows(school: Path, tmp_path: Path) -> None:
    outcome = nomarium("build", school / "year", "-o", tmp_path / "y.ics")
    ledgers = [line for line in outcome.out.splitlines() if "read =" in line]
    assert [re.sub(r"^.*(year, )", r"\1", line) for line in ledgers] == [
        "year, Timetable: 11 rows read = 10 used + 1 left out", "77 rows read = 76 used + 1 left out",
    ]  # fmt: skip
    assert nomarium("build", school / "year", "-o", tmp_path / "y.ics", "--details").out.count("read =") == 12


def test_of_many_notes_the_first_of_each_kind_is_printed_with_their_number(tmp_path: Path) -> None:
    rows = "\n".join([*(f"2026-11-{n:02},TBC,,Day {n}" for n in range(2, 9)), "2026-12-01,11pm,1am,Night"])
    source = csv_file(tmp_path, f"Date,Start,End,Event\n{rows}\n")
    outcome = nomarium("build", source, "-o", tmp_path / "o.ics")
    facts = json.loads(nomarium("build", source, "-o", tmp_path / "o.ics", "--json").out)
    codes = [one["code"] for one in facts["notes"]]
    printed = [line for line in outcome.out.splitlines() if line.startswith("note:") and "float" not in line]
    assert len(codes) > 5
    assert len(printed) == len(set(codes))
    for code in set(codes):
        more = codes.count(code) - 1
        assert not more or sum(f"(and {more} more of this kind: --details)" in line for line in printed) >= 1
    every = nomarium("build", source, "-o", tmp_path / "o.ics", "--details")
    assert sum(line.startswith("note:") and "float" not in line for line in every.out.splitlines()) == len(
        codes
    )


def test_months_of_a_tally_have_their_names_and_the_year_once(
    school: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("COLUMNS", "100")
    lines = nomarium("tally", school / "year").out.splitlines()
    at = next(n for n, line in enumerate(lines) if "Sep Oct Nov Dec" in line)
    assert lines[at - 1].split() == ["2026", "2027"]
    assert lines[at].split()[:11] == [
        "Class",
        "Sep",
        "Oct",
        "Nov",
        "Dec",
        "Jan",
        "Feb",
        "Mar",
        "Apr",
        "May",
        "Jun",
    ]
    assert not any("…" in line for line in lines), "nothing is cut at 100 columns"
    assert any(line.startswith("Days of each label: Keel 31, Rib 29") for line in lines)


def test_a_column_of_ends_whose_cells_are_times_is_called_times(school: Path) -> None:
    facts = json.loads(nomarium("survey", school / "launch-days.csv", "--json").out)
    how = {column["heading"]: column["how"] for column in facts["sheets"][0]["columns"]}
    assert how["Start"] == how["End"] == "times"
    assert how["Date"].startswith("dates, day first")


def test_a_survey_shows_ten_of_many_columns_used_ones_first(school: Path) -> None:
    outcome = nomarium("survey", school / "office-records.csv")
    assert "… and 9 more columns (--details)" in outcome.out
    assert "Record" not in outcome.out, "a column that is not used can wait"
    assert "Remarks" in nomarium("survey", school / "office-records.csv", "--details").out


def panels_of(text: str) -> dict[str, list[str]]:
    panels: dict[str, list[str]] = {}
    name = ""
    for line in text.splitlines():
        if match := re.match(r"╭─ (.*?) ─", line):
            name = match[1]
            panels[name] = []
        elif line.startswith("│") and (flag := re.match(r"│ \*? *(--[a-z-]+)", line)):
            panels[name].append(flag[1])
    return panels


def test_help_begins_with_the_ten_options_that_most_people_need_each_in_a_line(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    monkeypatch.setenv("COLUMNS", "100")
    monkeypatch.setenv("TERMINAL_WIDTH", "100")
    text = nomarium("build", "--help").out
    panels = panels_of(text)
    first, *others = [name for name in panels if name != "Arguments"]
    assert tuple(panels[first]) == TEN
    body = text[text.index(first) :]
    assert body[: body.index("╰")].count("\n") - 1 == len(TEN), "a line each"
    assert all(name.startswith(("When ", "Which ", "What ")) for name in others), (
        "the others stand under a question"
    )
    assert len(others) == len(set(others))


def test_every_command_with_a_source_has_the_same_reading_options() -> None:
    from nomarium.cli.asked import Asked, flag_of

    flags = {flag_of(kind) for kind in Asked.__annotations__.values()} - {"SOURCE"}
    assert len(flags) > 30
    for command in ("survey", "build", "view", "why", "check", "tally"):
        text = nomarium(command, "--help").out
        assert [flag for flag in flags if not re.search(rf"{flag}\b", text)] == [], command


def test_several_sources_and_days_off_hold_in_a_tally(school: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.chdir(school)
    both = nomarium("tally", "launch-days.csv", "harbour.ics", "--by", "title", "--details")
    assert "Harbour open day" in both.out and "Tide walk" in both.out

    def total(*options: str) -> int:
        facts = json.loads(
            nomarium(
                "tally", "boat-launches.csv", "--by", "title", "--until", "2027-06-30", "--json", *options
            ).out
        )
        return sum(line[1] if isinstance(line, list) else line["meetings"] for line in facts["lines"])

    with_all = total("--days-off", "launch-days.csv")
    assert 0 < total("--days-off", "days-off.csv") != with_all
    assert nomarium("tally").status == 2
