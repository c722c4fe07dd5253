"""Recipes: what one says holds, what the command line says beats it, and what only the recipe asked for is no mistake."""

import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, workbook
from nomarium.reading.options import ReadingOptions
from nomarium.sources.recipe import with_recipe

_DAY = dt.date(2026, 9, 7)
# key of the recipe, what it says, the option, what that makes of it, what the command line says instead
SAID: list[tuple[str, str, str, object, object]] = [
    ("sheets", '["Clubs"]', "sheets", ("Clubs",), ("Trips",)),
    ("layout", '"grid"', "layout", "grid", "month"),
    ("layout", '"text"', "layout", "text", "events"),
    ("timezone", '"America/Halifax"', "zone", "America/Halifax", "Europe/Paris"),
    ("date_order", '"dmy"', "date_order", "dmy", "mdy"),
    ("languages", '["fr"]', "languages", ("fr",), ("de",)),
    ("school_year", "[2026-09-01, 2027-06-30]", "school_year", (dt.date(2026, 9, 1), dt.date(2027, 6, 30)), (_DAY, _DAY)),
    ("default_length_minutes", "45", "default_length_secs", 2700, 600),
    ("day_one", "2026-09-07", "day_one", _DAY, dt.date(2026, 9, 14)),
    ("clock", '"12"', "clock", "12", "24"),
    ("spans", '"daily"', "spans", "daily", "whole"),
    ("swapped", '"yes"', "swapped", "yes", "no"),
    ("hidden_rows", '"skip"', "hidden_rows", "skip", "read"),
    ("title", '"{Class}: {title}"', "title", "{Class}: {title}", "{title}"),
    ("keep_extra", "true", "keep_extra", True, None),
    ("fill_down", '["Date"]', "fill_down", ("Date",), ("Day",)),
    ("cell", '"class, room"', "cell", "class, room", "class"),
    ("only", '["status=confirmed"]', "only", (("status", "confirmed"),), (("location", "Loft 1"),)),
    ("leave_out", '["category=Staff"]', "dropped", (("categories", "Staff"),), (("summary", "Talk"),)),
]  # fmt: skip


@pytest.mark.parametrize(("key", "text", "option", "value", "instead"), SAID, ids=[one[0] for one in SAID])
def test_a_recipe_holds_where_the_command_line_says_nothing(
    key: str, text: str, option: str, value: object, instead: object, tmp_path: Path
) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text(f"{key} = {text}\n", "utf-8")
    assert getattr(with_recipe(ReadingOptions(), recipe), option) == value
    if instead is not None:
        assert getattr(with_recipe(ReadingOptions()._replace(**{option: instead}), recipe), option) == instead
    recipe.write_text("", "utf-8")
    for given in (
        ReadingOptions(),
        *([ReadingOptions()._replace(**{option: instead})] if instead is not None else []),
    ):
        assert getattr(with_recipe(given, recipe), option) == getattr(given, option)


@pytest.mark.parametrize(
    "table", ["columns", "codes", "weekdays", "tables", "renamed", "defaults", "overrides"]
)
def test_tables_of_a_recipe_are_beaten_entry_by_entry(table: str, tmp_path: Path) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text(f'[{table}]\nlocation = "location"\nsummary = "summary"\n', "utf-8")
    given = ReadingOptions()._replace(**{table: {"summary": "notes", "url": "date"}})
    found = getattr(with_recipe(given, recipe), table)
    assert dict(found) == {"location": "location", "summary": "notes", "url": "date"}


def test_files_that_a_recipe_names_are_beside_it(tmp_path: Path) -> None:
    recipe = tmp_path / "r.toml"
    recipe.write_text(
        'people = ["staff.csv"]\nplaces = ["lofts.csv"]\nterms = ["terms.csv"]\nwithout = ["old.ics"]\n',
        "utf-8",
    )
    found = with_recipe(ReadingOptions(), recipe)
    named = [*found.people, *found.places, *found.terms, *found.without]
    assert named == [str(tmp_path / name) for name in ("staff.csv", "lofts.csv", "terms.csv", "old.ics")]
    assert with_recipe(ReadingOptions()._replace(people=("p.csv",)), recipe).people == ("p.csv",)


def test_what_a_recipe_asks_for_in_vain_is_a_note_and_what_the_command_line_does_a_problem(
    tmp_path: Path,
) -> None:
    source = csv_file(tmp_path, "Date,Title\n2026-09-07,Regatta")
    recipe = tmp_path / "r.toml"
    recipe.write_text('cell = "class, room"\n', "utf-8")
    told = nomarium("build", source, "-o", tmp_path / "o.ics", "--recipe", recipe)
    assert (told.status, "--cell is of no use" in told.out) == (0, True), told.text
    asked = nomarium("build", source, "-o", tmp_path / "p.ics", "--cell", "class, room")
    assert (asked.status, "--cell is of no use" in asked.err) == (1, True), asked.text


KEPT = {
    "a list": "Date,Title,Room\n2026-09-07,Regatta,Loft 1\n2026-09-08,Tide,Loft 2",
    "a list whose other column is left out": "Date,Title,Ref,Cost\n2026-09-07,Regatta,7,12\n2026-09-08,Tide,8,9",
    "titles made of who comes": "Date,Start,Opponent,Venue\n2026-09-07,10:00,Kilnhead,Home\n2026-09-14,10:00,Perrin,Away",
    "two lists side by side": "Date,Title,,Date,Title\n2026-09-07,Regatta,,2026-10-07,Sail\n2026-09-08,Tide,,2026-10-08,Oar",
    "a list on its side": "Title,Regatta,Tide\nDate,2026-09-07,2026-09-08\nRoom,Loft 1,Loft 2",
    "a grid": "Time,Mon 7 Sept 2026,Tue 8 Sept 2026\n9:00,Knots,Tar\n10:00,Oak,",
    "a roster": "Name,7 Sept 2026,8 Sept 2026,9 Sept 2026\nQuill,E,L,\nPerrin,L,,E\n\nE = 7:00-15:00\nL = 15:00-22:00",
    "figures day first": "Date,Title\n07/09/2026,Regatta\n28/09/2026,Tide",
}


@pytest.mark.parametrize("kind", KEPT)
def test_a_kept_recipe_reads_the_same_again(kind: str, tmp_path: Path) -> None:
    source, recipe = csv_file(tmp_path, KEPT[kind]), tmp_path / "kept" / "r.toml"
    recipe.parent.mkdir()
    wanted = built(source)
    survey = nomarium("survey", source, "--save", recipe)
    assert f"--recipe {recipe}" in survey.out.splitlines()[-1], survey.text
    assert built(source, "--recipe", recipe) == wanted


def test_a_recipe_of_lines_and_of_a_plan_is_kept_too(tmp_path: Path) -> None:
    notice = tmp_path / "notice.txt"
    notice.write_text(
        "Autumn 2026\nSaturday 12 September 10.00 Regatta\nSunday 13 September 14.00 Tide\n", "utf-8"
    )
    timetable = csv_file(tmp_path, ",Mon,Tue\n9:00-10:00,Knots (Quill),Tar (Perrin)", name="week.csv")
    dates = ("--from", "2026-09-07", "--until", "2026-09-18")
    for source, asked in ((notice, ()), (timetable, ("--cell", "class (teacher)"))):
        options = dates if source is timetable else ()
        wanted = built(source, *asked, *options)
        assert nomarium("survey", source, *asked, *options, "--save", tmp_path / "r.toml").status == 0
        assert built(source, "--recipe", tmp_path / "r.toml", *options) == wanted


def test_files_that_a_kept_recipe_names_are_found_from_where_it_is(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Date,Title,Organizer\n2026-09-07,Regatta,Quill")
    people = csv_file(tmp_path, "Name,Email\nQuill,quill@saltmarsh.example", name="people.csv")
    recipe = tmp_path / "kept" / "r.toml"
    recipe.parent.mkdir()
    assert nomarium("survey", source, "--people", people, "--save", recipe).status == 0
    built(source, "--recipe", recipe)
    assert "quill@saltmarsh.example" in source.with_suffix(".ics").read_text("utf-8")


def test_where_nothing_is_read_no_recipe_is_kept_and_a_note_says_so(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Name,Colour\nA,red\nB,blue")
    survey = nomarium("survey", source, "--save", tmp_path / "r.toml")
    assert "No recipe was kept: nothing was read as events or as a plan." in survey.out
    assert not (tmp_path / "r.toml").exists()
    assert "--recipe" not in survey.out


def test_a_sheet_that_is_named_twice_is_read_once(tmp_path: Path) -> None:
    source = workbook(tmp_path, [["Date", "Title", "", "Date", "Title"], ["2026-09-07", "Regatta", "", "2026-09-08", "Tide"],
                                 ["2026-09-14", "Sail", "", "2026-09-15", "Oar"]])  # fmt: skip
    wanted = built(source)
    assert len(wanted) == 4
    assert built(source, "--sheet", "Events", "--sheet", "events") == wanted
    assert nomarium("survey", source, "--save", tmp_path / "r.toml").status == 0
    assert built(source, "--recipe", tmp_path / "r.toml") == wanted
