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


@pytest.mark.parametrize(
    "remark",
    ["nur gerade Wochen", "14-tägig", "jede zweite Woche", "semaines paires", "tous les 15 jours", "semanas alternas", "settimane alterne", "even weken",
     "om de week", "jämna veckor", "varannan vecka", "un lundi sur deux", "jeden zweiten Montag", "cada segundo lunes", "om de maandag", "varannan måndag", "co drugi poniedziałek", "tygodnie parzyste", "co dwa tygodnie", "außer in den Ferien", "hors vacances scolaires"],
)  # fmt: skip
def test_notes_that_speak_of_some_weeks_refuse_a_weekly_row(remark: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Title;Day;Time;Notes\nRopes;Monday;14:00-15:00;{remark}\n")
    assert remark in refused(source, "--from", "2026-10-05", "--until", "2026-10-30")


@pytest.mark.parametrize(
    "sides",
    ["Heim;Gast", "Équipe à domicile;Équipe visiteuse", "Recevant;Visiteur", "Local;Visitante", "Squadra casa;Squadra ospite", "Casa;Visitante", "Thuis;Uit",
     "Hemmalag;Bortalag", "Hjemmehold;Udehold"],
)  # fmt: skip
def test_two_sides_are_one_title_in_languages(sides: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f"Datum;Uhrzeit;{sides}\n26.10.2026;14:00;Keel;Rib\n27.10.2026;14:00;Mast;Sail\n"
    )
    assert [event.split(" 2026")[0] for event in built(source)] == ["Keel v Rib", "Mast v Sail"]


@pytest.mark.parametrize(
    "word",
    [
        "offen",
        "noch offen",
        "n. n.",
        "à définir",
        "por confirmar",
        "da definire",
        "nader te bepalen",
        "n.t.b.",
        "do ustalenia",
    ],
)
def test_times_that_are_open_make_tentative_days(word: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Titel;Datum;Uhrzeit\nRopes;05.10.2026;14:00\nKnots;26.10.2026;{word}\n")
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 0
    ropes, knots = events_in(tmp_path / "out.ics")
    assert "STATUS" not in ropes and (knots["STATUS"], str(knots["DTSTART"].dt)) == (
        "TENTATIVE",
        "2026-10-26",
    )


@pytest.mark.parametrize(
    "state",
    [
        "vorläufig",
        "geplant",
        "unter Vorbehalt",
        "à confirmer",
        "sous réserve",
        "provvisorio",
        "onder voorbehoud",
        "preliminär",
    ],
)
def test_states_of_languages_that_are_not_sure(state: str, tmp_path: Path) -> None:
    source = csv_file(tmp_path, f"Titel;Datum;Status\nRopes;05.10.2026;\nKnots;26.10.2026;{state}\n")
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 0
    ropes, knots = events_in(tmp_path / "out.ics")
    assert "STATUS" not in ropes and knots["STATUS"] == "TENTATIVE"


@pytest.mark.parametrize(
    "days",
    [
        "van 5 tot en met 7 oktober 2026",
        "od 5 do 7 października 2026",
        "vom 5. bis 7. Oktober 2026",
        "del 5 al 7 de octubre de 2026",
    ],
)
def test_ranges_with_words_of_languages(days: str, tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, f"Title;Date\nRopes;{days}\n")) == ["Ropes 2026-10-05/2026-10-08"]


@pytest.mark.parametrize(
    "days",
    ["5., 7. und 9. Oktober 2026", "les 5, 7 et 9 octobre 2026", "los días 5, 7 y 9 de octubre de 2026"],
)
def test_several_days_of_a_month_in_languages(days: str, tmp_path: Path) -> None:
    expected = [f"Ropes 2026-10-{day:02d}/2026-10-{day + 1:02d}" for day in (5, 7, 9)]
    assert built(csv_file(tmp_path, f"Title;Date\nRopes;{days}\n")) == expected


@pytest.mark.parametrize("odd", ["mercr?", "Wednesdays fortnightly from 7 October 2026"])
def test_weekdays_of_a_language_with_one_that_is_none_are_not_passed_over(odd: str, tmp_path: Path) -> None:
    days = ("lundi", "mardi", odd, "jeudi")
    rows = [f"Cours {n};{day};14h-15h;{5 + n:02d}/10/2026;{26 + n}/10/2026" for n, day in enumerate(days)]
    said = refused(
        csv_file(tmp_path, "\n".join(["Activité;Jour;Horaire;Première séance;Dernière séance", *rows]))
    )
    assert "column B “Jour”" in said and "lundi" in said
