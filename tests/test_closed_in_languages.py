"""Lines beside what repeats that say when nothing is held, in the words and the languages in which people write them."""

from __future__ import annotations

import csv
import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium

ONE_DAY = [
    "No class 12 October", "(no class 12 Oct)", "12 October: no class", "12 Oct - no class", "Skip 12 October", "Market day 12 October – no classes",
    "Pas de cours le 12 octobre 2026", "Sauf le 12 octobre 2026", "Congé le 12 octobre 2026", "Relâche : 12 octobre 2026",
    "Fermé le 12 octobre 2026", "Kein Kurs am 12. Oktober 2026", "Außer am 12. Oktober 2026", "Ferien: 12. Oktober 2026",
    "Geschlossen am 12. Oktober 2026", "Sin clase el 12 de octubre de 2026", "Excepto el 12 de octubre de 2026",
    "Cerrado el 12 de octubre de 2026", "Niente lezione il 12 ottobre 2026", "Tranne il 12 ottobre 2026", "Chiuso il 12 ottobre 2026",
    "Geen les op 12 oktober 2026", "Behalve op 12 oktober 2026", "Gesloten op 12 oktober 2026", "Ingen lektion 12 oktober 2026",
    "Ingen undervisning den 12. oktober 2026", "Sem aula em 12 de outubro de 2026",
]  # fmt: skip
TWO_WEEKS = [
    "Reading weeks (26 Oct - 6 Nov): no classes", "Vacances du 26 octobre au 6 novembre 2026", "Pas de cours du 26 octobre au 6 novembre 2026",
    "Herbstferien: 26.10. - 6.11.2026", "Ferien vom 26. Oktober bis 6. November 2026", "Vacaciones del 26 de octubre al 6 de noviembre de 2026",
    "Vakantie van 26 oktober t/m 6 november 2026", "Vacanze dal 26 ottobre al 6 novembre 2026",
    "Efterårsferie 26. oktober - 6. november 2026", "Höstlov 26 oktober - 6 november 2026", "Férias de 26 de outubro a 6 de novembro de 2026",
]  # fmt: skip
TABLES = {
    "weekdays": "Day,Time,Class\nMonday,9:00-10:30,Knots\nWednesday,13:00-14:00,Oars",
    "repeats": "Title,Date,Start,End,Repeat,Until\nKnots,2026-10-05,9:00,10:30,weekly,2026-11-23\nOars,2026-10-07,13:00,14:00,weekly,2026-11-18",
    "a drawn week": ",Mon,Tue,Wed\n9:00-10:30,Knots,,\n13:00-14:00,,,Oars",
}


@pytest.mark.parametrize("table", TABLES)
@pytest.mark.parametrize("line", [*ONE_DAY, *TWO_WEEKS])
def test_nothing_is_held_when_a_line_says_so(line: str, table: str, tmp_path: Path) -> None:
    off = (dt.date(2026, 10, 12),) * 2 if line in ONE_DAY else (dt.date(2026, 10, 26), dt.date(2026, 11, 6))
    source, out = tmp_path / "classes.csv", tmp_path / "out.csv"
    source.write_text(f'{TABLES[table]}\n\n"{line}"\n', "utf-8")
    bounds = () if table == "repeats" else ("--from", "2026-10-05", "--until", "2026-11-23")
    outcome = nomarium("build", source, "-o", out, "--timezone", "America/Halifax", *bounds)
    assert outcome.status == 0, outcome.text
    with out.open(encoding="utf-8-sig") as file:
        held = {(row["Title"], row["Date"]) for row in csv.DictReader(file) if row["Start"]}
    days = [dt.date(2026, 10, 5) + dt.timedelta(n) for n in range(50)]
    named = {0: "Knots", 2: "Oars"}
    assert held == {
        (named[day.weekday()], str(day))
        for day in days
        if day.weekday() in named and not off[0] <= day <= off[1]
    }


def test_a_week_off_is_the_whole_week(tmp_path: Path) -> None:
    found = built(
        csv_file(tmp_path, f"{TABLES['weekdays']}\n\nWeek of 12 October off"),
        "--from",
        "2026-10-05",
        "--until",
        "2026-10-21",
    )
    assert sorted(one.partition("T")[0] for one in found) == [
        "Knots 2026-10-05",
        "Knots 2026-10-19",
        "Oars 2026-10-07",
        "Oars 2026-10-21",
    ]


@pytest.mark.parametrize(
    ("line", "title", "days"),
    [
        ("Höstlov 26 oktober - 6 november 2026", "Höstlov", "2026-10-26/2026-11-07"),
        ("Ausfahrt 26. Oktober - 6. November 2026", "Ausfahrt", "2026-10-26/2026-11-07"),
        ("Sortie du 26 octobre au 6 novembre 2026", "Sortie", "2026-10-26/2026-11-07"),
        ("Regata 26 de octubre de 2026", "Regata", "2026-10-26/2026-10-27"),
        ("Game of 4 Mars bars 26 October 2026", "Game of 4 Mars bars", "2026-10-26/2026-10-27"),
    ],
)
def test_a_line_in_another_language_than_its_table_says_all_its_days(
    line: str, title: str, days: str, tmp_path: Path
) -> None:
    assert f"{title} {days}" in built(
        csv_file(tmp_path, f"Title,Date\nKnots,2026-10-05\nOars,2026-10-14\n{line}")
    )
