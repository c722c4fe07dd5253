"""The year of a plan: labels worked out by hand for every way in which a cycle moves."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import events_in, nomarium

TERM = "Name,First day,Last day\nAutumn,2026-09-07,2026-09-25"  # three weeks, Monday to Friday
ABC = "Label\nA\nB\nC"


def folder(path: Path, tables: dict[str, str]) -> Path:
    """A plan as a folder of CSV files."""
    path = path / "year"
    path.mkdir(exist_ok=True)
    for name, text in tables.items():
        (path / f"{name}.csv").write_text(text + "\n", "utf-8")
    return path


def settings(**values: str) -> str:
    return "Setting,Value\nShow labels,yes\n" + "\n".join(
        f'{key.replace("_", " ")},"{value}"' for key, value in values.items()
    )


def labels_of(path: Path, tables: dict[str, str]) -> str:
    """What the banners of a plan say: day of the month and label, `7A 8B …` (days of October from 100 on)."""
    out = path / "out.ics"
    outcome = nomarium("build", folder(path, {"settings": settings(), **tables}), "-o", out)
    assert outcome.status == 0, outcome.text
    days = []
    for event in events_in(out):
        if "TRANSP" in event and event["TRANSP"] == "TRANSPARENT":
            day = event.decoded("DTSTART")
            days.append(f"{day.day + (day.month - 9) * 100}{str(event['SUMMARY']).removeprefix('Day ')}")
    return " ".join(days)


WEEK1, WEEK2, WEEK3 = "7 8 9 10 11", "14 15 16 17 18", "21 22 23 24 25"


def said(days: str, labels: str) -> str:
    """Days and labels side by side; a dot is a day without."""
    pairs = zip(days.split(), labels, strict=True)
    return " ".join(f"{day}{label}" for day, label in pairs if label != ".")


ALL = f"{WEEK1} {WEEK2} {WEEK3}"
OFF = "Name,First day,Last day,Cycle\n"
SPECIAL = "Date,Label,Cycle,Name\n"

YEARS: dict[str, tuple[dict[str, str], str]] = {
    "each school day": ({}, said(ALL, "ABCABCABCABCABC")),
    "a day off holds the label": ({"days-off": OFF + "Storm,2026-09-09,,"}, said("7 8 10 11 14", "ABCAB") + " 15C 16A 17B 18C 21A 22B 23C 24A 25B"),
    "a day off that passes uses its label up": ({"days-off": OFF + "Storm,2026-09-09,,pass"}, said("7 8 10 11 14", "ABABC") + " 15A 16B 17C 18A 21B 22C 23A 24B 25C"),
    "days off that disagree hold": ({"days-off": OFF + "Storm,2026-09-09,,pass\nFog,2026-09-09,,"}, said("7 8 10 11 14", "ABCAB") + " 15C 16A 17B 18C 21A 22B 23C 24A 25B"),
    "each weekday: a closed day loses its label": (
        {"settings": settings(Cycle_moves="each weekday"), "days-off": OFF + "Storm,2026-09-09,2026-09-10,"},
        said("7 8 11 14 15 16 17 18", "ABBCABCA") + " 21B 22C 23A 24B 25C"),
    "each weekday: hold makes a closure wait": (
        {"settings": settings(Cycle_moves="each weekday"), "days-off": OFF + "Storm,2026-09-09,2026-09-10,hold"},
        said("7 8 11 14 15 16 17 18", "ABCABCAB") + " 21C 22A 23B 24C 25A"),
    "each week": ({"settings": settings(Cycle_moves="each week")}, said(ALL, "AAAAABBBBBCCCCC")),
    "each week: a week without school holds": (
        {"settings": settings(Cycle_moves="each week"), "days-off": OFF + "Break,2026-09-14,2026-09-18,"},
        said(f"{WEEK1} {WEEK3}", "AAAAABBBBB")),
    "each week: a week that passes": (
        {"settings": settings(Cycle_moves="each week"), "days-off": OFF + "Break,2026-09-14,2026-09-18,pass"},
        said(f"{WEEK1} {WEEK3}", "AAAAACCCCC")),
    "by weekday": (
        {"settings": settings(Cycle_moves="by weekday"), "cycle": "Label,Weekday\nA,Monday\nB,Wed\nC,vendredi\nA,Thu".replace("vendredi", "Fri")},
        said(ALL, "A.BACA.BACA.BAC")),
    "by weekday with weeks": (
        {"settings": settings(Cycle_moves="by weekday"), "cycle": "Label,Weekday,Week\nX,Mon,A\nY,Mon,B\nZ,Tue,"},
        said(ALL, "XZ...YZ...XZ...")),
    "by weekday, the first week is B": (
        {"settings": settings(Cycle_moves="by weekday", First_label="B"), "cycle": "Label,Weekday,Week\nX,Mon,A\nY,Mon,B\nZ,Tue,"},
        said(ALL, "YZ...XZ...YZ...")),
    "first label": ({"settings": settings(First_label="C")}, said(ALL, "CABCABCABCABCAB")),
    "starts on a date": ({"settings": settings(Cycle_starts="2026-09-09")}, said(ALL, "..ABCABCABCABCA")),
    "starts on a Saturday: the next school day": ({"settings": settings(Cycle_starts="2026-09-12")}, said(ALL, ".....ABCABCABCA")),
    "restarts each week": ({"settings": settings(Cycle_restarts="each week")}, said(ALL, "ABCABABCABABCAB")),
    "restarts each month": (
        {"settings": settings(Cycle_restarts="each month"), "terms": "Name,First day,Last day\nAutumn,2026-09-29,2026-10-02"},
        "29A 30B 101A 102B"),
    "restarts each term": (
        {"settings": settings(Cycle_restarts="each term"), "terms": "Name,First day,Last day\nOne,2026-09-07,2026-09-08\nTwo,2026-09-14,2026-09-15"},
        "7A 8B 14A 15B"),
    "two stretches of one term are one": (
        {"settings": settings(Cycle_restarts="each term"), "terms": "Name,First day,Last day\nOne,2026-09-07,2026-09-08\none,2026-09-14,2026-09-15"},
        "7A 8B 14C 15A"),
    "between terms nothing is counted": (
        {"terms": "Name,First day,Last day\nOne,2026-09-07,2026-09-08\nTwo,2026-09-14,2026-09-15"}, "7A 8B 14C 15A"),
    "a special label: what follows is after it": ({"special-days": SPECIAL + "2026-09-09,A,,"}, said(ALL, "ABABCABCABCABCA")),
    "a special label that holds": ({"special-days": SPECIAL + "2026-09-09,A,hold,"}, said(ALL, "ABACABCABCABCAB")),
    "a special label that passes": ({"special-days": SPECIAL + "2026-09-09,B,pass,"}, said(ALL, "ABBABCABCABCABC")),
    "none holds": ({"special-days": SPECIAL + "2026-09-09,none,,"}, said(ALL, "AB.CABCABCABCAB")),
    "none that passes": ({"special-days": SPECIAL + "2026-09-09,none,pass,"}, said(ALL, "AB.ABCABCABCABC")),
    "hold without a label: it comes again": ({"special-days": "Date,Cycle,Bells\n2026-09-09,hold,", "bells": ""}, said(ALL, "ABCCABCABCABCAB")),
    "a name follows the label": ({"special-days": SPECIAL + "2026-09-09,,,Fair"}, said(ALL, "ABCABCABCABCABC").replace("9C", "9C – Fair")),
    "a special Saturday is a school day": ({"special-days": SPECIAL + "2026-09-12,,,"}, said("7 8 9 10 11 12 14", "ABCABCA") + " 15B 16C 17A 18B 21C 22A 23B 24C 25A"),
    "six-day weeks": ({"settings": settings(School_days="Mon-Sat"), "terms": "Name,First day,Last day\nA,2026-09-11,2026-09-15"}, "11A 12B 14C 15A"),
    "a week from Sunday": (
        {"settings": settings(School_days="Sun-Thu", Cycle_moves="each week"), "terms": "Name,First day,Last day\nA,2026-09-10,2026-09-14"},
        "10A 13B 14B"),
    "over New Year": (
        {"settings": settings(Cycle_moves="each week"), "terms": "Name,First day,Last day\nWinter,2026-12-31,2027-01-05"},
        "331A -799A -796B -795B"),
    "every date fixed": ({"cycle": "Date,Label\n2026-09-08,A\n2026-09-10,B\n2026-09-12,A", "terms": TERM}, "8A 10B 12A"),
    "every date fixed, no terms": ({"cycle": "Date,Label\n2026-09-08,A\n2026-09-10,B", "terms": ""}, "8A 10B"),
    "figures are called days": ({"cycle": "Label\n1\n2\n3"}, said(ALL, "123123123123123")),
    "each weekday, a special label on": (
        {"settings": settings(Cycle_moves="each weekday"), "special-days": SPECIAL + "2026-09-08,A,,"}, said(ALL, "AABCABCABCABCAB")),
    "a range of special days": (
        {"special-days": "Date,Last day,Label\n2026-09-08,2026-09-09,none"}, said(ALL, "A..BCABCABCABCA")),
}  # fmt: skip


@pytest.mark.parametrize("name", YEARS)
def test_labels_fall_as_worked_out_by_hand(name: str, tmp_path: Path) -> None:
    tables, expected = YEARS[name]
    tables = {key: text for key, text in {"terms": TERM, "cycle": ABC, **tables}.items() if text}
    assert labels_of(tmp_path, tables) == expected


REFUSED = {
    "special on a day off": ({"special-days": SPECIAL + "2026-09-09,A,,", "days-off": OFF + "Storm,2026-09-09,,"},
                             ["special-days", "row 2", "is a day off, Storm (Days off row 2)"]),
    "special outside every term": ({"special-days": SPECIAL + "2026-10-09,A,,"}, ["outside every term", "Autumn (Terms row 2)"]),
    "special with an unknown label": ({"special-days": SPECIAL + "2026-09-09,Q,,"}, ["no label “Q”", "A, B, C"]),
    "an unknown effect": ({"special-days": SPECIAL + "2026-09-09,A,folow,"}, ["“folow”", "Did you mean follow?"]),
    "an effect where a week moves": ({"settings": settings(Cycle_moves="each week"), "special-days": SPECIAL + "2026-09-09,A,hold,"}, ["Leave the cell blank"]),
    "restart against the week": ({"settings": settings(Cycle_moves="each week", Cycle_restarts="each month")}, ["cannot restart each month"]),
    "an unknown setting": ({"settings": "Setting,Value\nCycle move,each week"}, ["no setting “Cycle move”", "Did you mean Cycle moves?"]),
    "an unknown value": ({"settings": settings(Cycle_moves="every school day")}, ["“every school day”", "Did you mean each school day?"]),
    "an unknown zone": ({"settings": settings(Time_zone="Halifax")}, ["America/Halifax"]),
    "an unknown first label": ({"settings": settings(First_label="Z")}, ["no label “Z”"]),
    "a term that ends before it starts": ({"terms": "Name,First day,Last day\nA,2026-09-25,2026-09-07"}, ["before it starts on 2026-09-25"]),
    "overlapping terms": ({"terms": TERM + "\nWinter,2026-09-20,2026-12-01"}, ["overlaps Autumn (Terms row 2)"]),
    "a date that is none": ({"days-off": OFF + "Storm,2026-09-31,,"}, ["days-off", "row 2", "2026-09-31"]),
    "dates that can be read two ways": ({"terms": "Name,First day,Last day\nA,05/09/2026,06/10/2026"}, ["--date-order"]),
    "a label twice": ({"cycle": ABC + "\nA"}, ["label A is in row 2 already"]),
    "an unknown field of a template": ({"settings": settings(Event_title="{nmae}")}, ["{nmae}", "Did you mean {name}?"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_a_bad_year_is_refused_with_its_row(name: str, tmp_path: Path) -> None:
    tables, says = REFUSED[name]
    out = tmp_path / "out.ics"
    outcome = nomarium(
        "build", folder(tmp_path, {"settings": settings(), "terms": TERM, "cycle": ABC, **tables}), "-o", out
    )
    assert outcome.status == 1
    assert [part for part in says if part not in outcome.err] == []
    assert not out.exists()


def test_everything_wrong_is_found_in_one_go(tmp_path: Path) -> None:
    tables = {
        "settings": settings(Cycle_moves="now and then", Time_zone="Nowhere"), "terms": TERM + "\nX,2026-10-40,2026-11-01",
        "cycle": ABC + "\nB", "days-off": OFF + "Storm,2026-09-09,,perhaps", "bells": "Period,Start,End\n1,9:00,8:00",
        "timetable": "Class,Label,Period\nKN1,Q,1\nRG2,A,9", "names": "Code,Name,Kind\nKN1,Knots,thing",
        "people": "Name,Email\nR. Finch,nowhere", "lessons": "Class,Title,Meetings\nKN1,Bowline,some",
    }  # fmt: skip
    for command in (["build", "-o", str(tmp_path / "x.ics")], ["survey"], ["tally"]):
        source = folder(tmp_path, tables)
        outcome = nomarium(command[0], source, *command[1:])
        assert outcome.status == 1
        for sheet in tables:
            assert f"sheet “{sheet}”" in outcome.text, (command, sheet)
