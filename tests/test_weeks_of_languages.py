"""One week under a title, whatever language its weekdays and its title are in: drawn, on its side, a roster, a menu and a list."""

from __future__ import annotations

import csv
from itertools import product
from pathlib import Path

import pytest

from helpers import nomarium

Rows = list[list[str]]
WEEKS = {
    "en": ("Mon Tue Wed Thu Fri", ["Week 41, 2026", "Week ending Friday 9 October 2026", "Monday 5 - Friday 9 October 2026"]),
    "fr": ("Lundi Mardi Mercredi Jeudi Vendredi", ["Semaine du 5 octobre 2026", "Semaine du 5 au 9 octobre 2026", "Semaine 41 - 2026"]),
    "de": ("Mo Di Mi Do Fr", ["Woche vom 5. Oktober 2026", "Speiseplan KW 41 2026", "Dienstplan vom 5.10.2026 bis 9.10.2026"]),
    "es": ("Lunes Martes Miércoles Jueves Viernes", ["Semana del 5 de octubre de 2026", "Del 5 al 9 de octubre de 2026"]),
    "it": ("Lun Mar Mer Gio Ven", ["Settimana dal 5 ottobre 2026", "Dal 5 al 9 ottobre 2026"]),
    "nl": ("maandag dinsdag woensdag donderdag vrijdag", ["Week van 5 oktober 2026", "5 t/m 9 oktober 2026", "Week of 5 October 2026"]),
    "pt": ("Segunda Terça Quarta Quinta Sexta", ["Semana de 5 a 9 de outubro de 2026"]),
    "sv": ("mån tis ons tor fre", ["Vecka 41 2026", "5-9 oktober 2026"]),
    "da": ("mandag tirsdag onsdag torsdag fredag", ["Uge 41 2026"]),
    "fi": ("ma ti ke to pe", ["Viikko 41/2026", "5.-9. lokakuuta 2026"]),
}  # fmt: skip
DAYS = [f"2026-10-{day:02d}" for day in range(5, 10)]
FIRST, SECOND = "Knots Sails Oars Charts Ropes".split(), "Oars Ropes Knots Sails Charts".split()


def drawn(weekdays: list[str], form: str) -> tuple[Rows, set[tuple[str, ...]]]:
    timed = {
        (title, day, start, end)
        for titles, start, end in ((FIRST, "09:00", "10:00"), (SECOND, "10:00", "11:00"))
        for title, day in zip(titles, DAYS, strict=True)
    }
    if form in ("drawn", "on its side"):
        rows = [["", *weekdays], ["9:00-10:00", *FIRST], ["10:00-11:00", *SECOND]]
        return ([list(one) for one in zip(*rows, strict=True)] if form == "on its side" else rows), timed
    if form == "a roster":
        duties = {
            (f"{name}: {title}", day)
            for name, titles in (("A. Moss", FIRST), ("B. Fern", SECOND))
            for title, day in zip(titles, DAYS, strict=True)
        }
        return [["", *weekdays], ["A. Moss", *FIRST], ["B. Fern", *SECOND]], duties
    if form == "a menu":
        return [[day, title] for day, title in zip(weekdays, FIRST, strict=True)], {
            *zip(FIRST, DAYS, strict=True)
        }
    listed = [
        ["Day", "Time", "Event"],
        *([day, "10:00-11:00", title] for day, title in zip(weekdays, SECOND, strict=True)),
    ]
    return listed, {one for one in timed if one[2] == "10:00"}


FORMS = ("drawn", "on its side", "a roster", "a menu", "a list")


@pytest.mark.parametrize(
    ("language", "title", "form"),
    [(code, title, form) for code, (_, titles) in WEEKS.items() for title, form in product(titles, FORMS)],
)
def test_a_week_under_its_title(language: str, title: str, form: str, tmp_path: Path) -> None:
    rows, expected = drawn(WEEKS[language][0].split(), form)
    source, out = tmp_path / "week.csv", tmp_path / "out.csv"
    with source.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file).writerows([[title], *rows])
    outcome = nomarium("build", source, "-o", out, "--timezone", "America/Halifax")
    assert outcome.status == 0, outcome.text
    with out.open(encoding="utf-8-sig") as file:
        found = {
            tuple(filter(None, (row["Title"], row["Date"], row.get("Start"), row.get("End"))))
            for row in csv.DictReader(file)
        }
    assert found == expected


@pytest.mark.parametrize("title", ["Week 54, 2026", "Half term week 41, 2026?", "From 5 October 2026"])
def test_titles_that_say_no_one_week(title: str, tmp_path: Path) -> None:
    source = tmp_path / "week.csv"
    rows = [[title], *drawn("Mon Tue Wed Thu Fri".split(), "drawn")[0]]
    source.write_text("\n".join(",".join(f'"{cell}"' for cell in row) for row in rows), "utf-8")
    outcome = nomarium("build", source, "-o", tmp_path / "out.csv", "--timezone", "America/Halifax")
    assert outcome.status == 1 and not (tmp_path / "out.csv").exists()


@pytest.mark.parametrize("cell", ["3.2 m", "2.9m", "4.3 g", "3.10 d", "5.5 M"])
def test_measures_are_no_days(cell: str, tmp_path: Path) -> None:
    source, out = tmp_path / "races.csv", tmp_path / "out.csv"
    source.write_text(
        f"Race,Date,Tide\nGull,2026-10-05,{cell}\nTern,2026-10-14,{cell}\nHeron,2026-10-20,{cell}\n", "utf-8"
    )
    assert nomarium("build", source, "-o", out).status == 0
    assert sorted(line.partition(",")[0] for line in out.read_text("utf-8-sig").splitlines()[1:]) == [
        "Gull",
        "Heron",
        "Tern",
    ]


CLASSES = {
    "French": "Cours,Jour / Heure,Salle\nKnots,Lundi 9h-10h,Loft 2\nSails,Mardi et jeudi 10h30-12h,Loft 1",
    "German": "Kurs,Tag,Zeit\nKnots,montags,9:00-10:00\nSails,dienstags und donnerstags,10:30-12:00",
    "Finnish": "Kurssi,Päivä,Aika\nKnots,maanantai,9.00-10.00\nSails,tiistai ja torstai,10.30-12.00",
    "English with stops": "Class,Day / Time,Room\nKnots,Mon. 9:00-10:00,Loft 2\nSails,Tue. & Thu. 10:30-12:00,Loft 1",
    "Dutch": "Les,Dag en tijd,Lokaal\nKnots,maandag 9:00-10:00,Loft 2\nSails,dinsdag en donderdag 10:30-12:00,Loft 1",
}  # fmt: skip


@pytest.mark.parametrize("language", CLASSES)
def test_weekdays_with_their_times_in_languages(language: str, tmp_path: Path) -> None:
    source, out = tmp_path / "classes.csv", tmp_path / "out.csv"
    source.write_text(CLASSES[language] + "\n", "utf-8")
    outcome = nomarium(
        "build",
        source,
        "-o",
        out,
        "--from",
        "2026-10-05",
        "--until",
        "2026-10-09",
        "--timezone",
        "America/Halifax",
    )
    assert outcome.status == 0, outcome.text
    with out.open(encoding="utf-8-sig") as file:
        found = sorted((row["Title"], row["Date"], row["Start"], row["End"]) for row in csv.DictReader(file))
    assert found == [
        ("Knots", "2026-10-05", "09:00", "10:00"),
        ("Sails", "2026-10-06", "10:30", "12:00"),
        ("Sails", "2026-10-08", "10:30", "12:00"),
    ]
