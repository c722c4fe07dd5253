"""What stands beside a date, said in other languages: how long, all day, birthdays, when it was entered, first and last days, totals."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused

MINUTES = ["Dauer (Min.)", "Dauer in Minuten", "Minuten", "Durée en minutes", "Duración (min)", "Minutos", "Durata in minuti", "Minuti", "Duur (min)",
           "Aantal minuten", "Duração (min)", "Längd (min)", "Minuter", "Czas trwania (min)", "Minuty"]  # fmt: skip
HOURS = ["Dauer (Std.)", "Stunden", "Anzahl Stunden", "Durée (h)", "Nombre d'heures", "Duración en horas", "Durata (ore)", "Duur in uren", "Uren",
         "Duração (h)", "Längd (tim)", "Timmar", "Czas trwania (godz.)"]  # fmt: skip
DAYS = ["Tage", "Anzahl Tage", "Dauer (Tage)", "Jours", "Nombre de jours", "Días", "N.º de días", "Giorni", "Durata (giorni)", "Aantal dagen", "Dias",
        "Antal dagar", "Liczba dni", "Dni"]  # fmt: skip


@pytest.mark.parametrize(
    ("heading", "first", "second"),
    [
        *((heading, "90", "45") for heading in MINUTES),
        *((heading, "1,5", "0,75") for heading in HOURS),
    ],
)
def test_lengths_of_languages_end_events(heading: str, first: str, second: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;Beginn;{heading}\nRopes;05.10.2026;14:00;{first}\nKnots;26.10.2026;15:00;{second}\n"
    assert built(csv_file(tmp_path, table)) == [
        "Ropes 2026-10-05T14:00/2026-10-05T15:30",
        "Knots 2026-10-26T15:00/2026-10-26T15:45",
    ]


@pytest.mark.parametrize("heading", DAYS)
def test_lengths_in_days_of_languages(heading: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;{heading}\nRopes;05.10.2026;3\nKnots;26.10.2026;1\n"
    assert built(csv_file(tmp_path, table)) == ["Ropes 2026-10-05/2026-10-08", "Knots 2026-10-26/2026-10-27"]


@pytest.mark.parametrize(
    "heading",
    ["Erstellt am", "Zuletzt geändert", "Stand", "Créé le", "Dernière modification", "Fecha de creación", "Ultima modifica", "Aangemaakt op", "Gewijzigd op",
     "Criado em", "Senast ändrad", "Zmieniono"],
)  # fmt: skip
def test_dates_of_bookkeeping_in_languages_are_no_events(heading: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;{heading}\nRopes;05.10.2026;01.09.2026\nKnots;26.10.2026;15.09.2026\n"
    assert built(csv_file(tmp_path, table)) == ["Ropes 2026-10-05/2026-10-06", "Knots 2026-10-26/2026-10-27"]


@pytest.mark.parametrize(
    "heading",
    ["Geburtstag", "geboren am", "Date de naissance", "Né(e) le", "Fecha de nacimiento", "Data di nascita", "Geboortedatum", "Data de nascimento", "Födelsedag",
     "Data urodzenia"],
)  # fmt: skip
def test_birthdays_of_languages_come_back_every_year(heading: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Name;{heading}\nAnna;12.03.1985\nBert;26.10.1991\n")
    assert heading in refused(source)
    assert (
        nomarium(
            "build", source, "-o", tmp_path / "out.ics", "--from", "2027-01-01", "--until", "2027-12-31"
        ).status
        == 0
    )
    found = sorted(str(event["DTSTART"].dt) for event in events_in(tmp_path / "out.ics"))
    assert found == ["2027-03-12", "2027-10-26"]


@pytest.mark.parametrize(
    "headings",
    ["Wochentag;Erster Termin;Letzter Termin;Zeit", "Jour;Première séance;Dernière séance;Horaire", "Día;Primera clase;Última clase;Hora",
     "Giorno;Prima lezione;Ultima lezione;Orario", "Giorno;Dal;Al;Ora", "Dag;Eerste les;Laatste les;Tijd"],
)  # fmt: skip
def test_first_and_last_days_of_languages_make_weeks(headings: str, tmp_path: Path) -> None:
    weekday = {"W": "Montag", "J": "lundi", "D": "maandag", "G": "lunedì"}[
        "J" if headings[:2] == "Jo" else headings[0]
    ]
    weekday = "lunes" if headings.startswith("Día") else weekday
    table = f"Titel;{headings}\nRopes;{weekday};05.10.2026;19.10.2026;14:00-15:00\n"
    days = ("05", "12", "19")
    assert built(csv_file(tmp_path, table)) == [
        f"Ropes 2026-10-{day}T14:00/2026-10-{day}T15:00" for day in days
    ]


@pytest.mark.parametrize(
    ("heading", "yes"),
    [("Ganztägig", "ja"), ("Toute la journée", "oui"), ("Todo el día", "sí"), ("Tutto il giorno", "sì"), ("Dia inteiro", "sim"), ("Heldag", "ja"), ("Cały dzień", "tak")],
)  # fmt: skip
def test_all_day_columns_of_languages(heading: str, yes: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;Start;{heading}\nRopes;05.10.2026;14:00;{yes}\nKnots;26.10.2026;15:00;\n"
    assert built(csv_file(tmp_path, table)) == [
        "Ropes 2026-10-05/2026-10-06",
        "Knots 2026-10-26T15:00/2026-10-26T16:00",
    ]


@pytest.mark.parametrize(
    "heading", ["Nicht am", "Ausnahmen", "Sauf", "Excepciones", "Eccetto", "Niet op", "Undantag"]
)
def test_days_left_out_in_languages(heading: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;Repeat;{heading}\nRopes;19.10.2026;weekly until 2 November 2026;26.10.2026\n"
    assert built(csv_file(tmp_path, table)) == ["Ropes 2026-10-19/2026-10-20", "Ropes 2026-11-02/2026-11-03"]


@pytest.mark.parametrize("word", ["Summe", "Gesamt", "Total", "Somme", "Totale", "Totaal", "Summa", "Razem"])
def test_totals_of_languages_are_no_rows(word: str, tmp_path: Path) -> None:
    table = f"Titel;Datum;Plätze\nRopes;05.10.2026;12\nKnots;26.10.2026;8\n{word};;20\n"
    assert len(built(csv_file(tmp_path, table))) == 2
