"""Whole tables in other languages: their headings, what they say of repeats, and the months they are drawn as."""

from __future__ import annotations

import calendar
import datetime as dt
from pathlib import Path

import pytest

from helpers import built, csv_file, events_in, nomarium, refused
from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.titlemonths import month_and_year
from nomarium.reading.cells.words import ENGLISH

HEADINGS = [
    "Titre|Date|À partir de|Jusqu'à|Lieu", "Titel|Datum|Beginnt um|Endet um|Ort", "Titolo|Data|Da|A|Sede", "Titel|Datum|Från|Till|Plats",
    "Rubrik|Dag|Början|Slutar|Lokal", "Otsikko|Pvm|Alkaa|Päättyy|Tila", "Název|Datum|Od|Do|Kde",
    "Teitl|Dyddiad|Dechrau|Gorffen|Lleoliad",
]  # fmt: skip


@pytest.mark.parametrize("headings", HEADINGS)
def test_headings_of_languages_are_known(headings: str, tmp_path: Path) -> None:
    table = f"{headings.replace('|', ',')}\nRopes,2026-10-05,18:00,20:00,Slip 4\nKnots,2026-10-14,9:30,11:00,Loft 2"
    out = tmp_path / "out.csv"
    assert nomarium("build", csv_file(tmp_path, table), "-o", out).status == 0
    _, *rows = out.read_text("utf-8-sig").splitlines()
    assert sorted(row.split(",")[:4] for row in rows) == [
        ["Knots", "2026-10-14", "09:30", "11:00"],
        ["Ropes", "2026-10-05", "18:00", "20:00"],
    ]
    assert all("Slip 4" in row or "Loft 2" in row for row in rows)


MONDAYS, BOTH, FORTNIGHT, WORKDAYS = "w1:0", "w1:02", "w2:", "w1:01234"
REPEATS = [
    ("alle 2 Wochen", FORTNIGHT), ("Montag bis Freitag", WORKDAYS), ("montags und mittwochs", BOTH), ("jeden Montag", MONDAYS),
    ("los lunes", MONDAYS), ("un lunes sí y otro no", "w2:0"), ("quincenal", FORTNIGHT), ("il lunedì", MONDAYS),
    ("dal lunedì al venerdì", WORKDAYS), ("om de 2 weken", FORTNIGHT), ("om de maandag", "w2:0"), ("maandag t/m vrijdag", WORKDAYS),
    ("toda segunda-feira", MONDAYS), ("cada duas semanas", FORTNIGHT), ("varje måndag", MONDAYS), ("varannan vecka", FORTNIGHT),
    ("måndagar", MONDAYS), ("måndag och onsdag", BOTH), ("dagligen", "d1:"), ("hver mandag", MONDAYS), ("hver anden mandag", "w2:0"),
    ("hver 14. dag", FORTNIGHT), ("mandag til fredag", WORKDAYS), ("annenhver uke", FORTNIGHT), ("ukentlig", "w1:"),
    ("joka maanantai", MONDAYS), ("joka toinen viikko", FORTNIGHT), ("maanantaisin ja keskiviikkoisin", BOTH),
    ("w każdy poniedziałek", MONDAYS), ("co dwa tygodnie", FORTNIGHT), ("w poniedziałki", MONDAYS),
]  # fmt: skip


@pytest.mark.parametrize(("phrase", "expected"), REPEATS)
def test_repeats_of_languages_are_understood(phrase: str, expected: str) -> None:
    found = read_repeat(phrase, ENGLISH)
    assert isinstance(found, Repeat), found
    assert _short(found.rule) == expected


def _short(rule: Rule) -> str:
    assert all(number == 0 for number, _ in rule.weekdays)
    return f"{rule.freq[0].lower()}{rule.interval}:{''.join(str(day) for _, day in rule.weekdays)}"


@pytest.mark.parametrize("phrase", ["jeden zweiten Montag", "jeden 2. Montag", "every 2nd Monday"])
def test_every_second_weekday_is_asked_about_in_every_language(phrase: str) -> None:
    found = read_repeat(phrase, ENGLISH)
    assert isinstance(found, Refusal) and "can mean one in so many weeks" in found.message
    monthly = read_repeat(f"{phrase} im Monat", ENGLISH)
    assert not isinstance(monthly, Repeat) or monthly.rule.freq == "MONTHLY"


def test_a_repeat_column_may_be_weekdays_as_courses_write_them(tmp_path: Path) -> None:
    table = "Title,Date,Start,End,Repeat,Until\n{},2026-10-05,9:00,10:00,{},2026-10-11"
    for code, days in (
        ("MWF", "05 07 09"),
        ("Mo-Fr", "05 06 07 08 09"),
        ("Mo/Mi", "05 07"),
        ("M-Th", "05 06 07 08"),
    ):
        found = built(csv_file(tmp_path, table.format("Knots", code)))
        assert [one.partition("T")[0][-2:] for one in found] == days.split()
    said = refused(csv_file(tmp_path, table.format("Knots", "Mo/Di/xyz"), "b.csv"))
    assert "is no repeat that is understood" in said


def test_a_repeat_and_its_end_in_norwegian(tmp_path: Path) -> None:
    table = "Tittel,Dato,Start,Slutt,Gjentakelse,Til og med\nKnuter,5. oktober 2026,9:00,10:30,mandag og onsdag,14. oktober 2026"
    found = built(csv_file(tmp_path, table))
    assert [one.partition("T")[0] for one in found] == [
        f"Knuter 2026-10-{day}" for day in ("05", "07", "12", "14")
    ]


MONTHS = [
    ("octobre 2026", (2026, 10)), ("2026 oktober", (2026, 10)), ("Oct '26", (2026, 10)), ("Okt-26", (2026, 10)), ("10/2026", (2026, 10)),
    ("2026-10", (2026, 10)), ("outubro de 2026", (2026, 10)), ("października 2026", (2026, 10)), ("Oct 26", None), ("13/2026", None),
    ("Regatta 2026", None), ("listopad 2026", None),
]  # fmt: skip


@pytest.mark.parametrize(("title", "expected"), MONTHS)
def test_titles_that_are_a_month(title: str, expected: tuple[int, int] | None) -> None:
    assert month_and_year(title) == expected


DRAWN = [
    ("octobre 2026", "L M M J V S D", 0), ("Octubre 2026", "L M X J V S D", 0), ("ottobre 2026", "D L M M G V S", 6),
    ("outubro 2026", "S T Q Q S S D", 0), ("Oct '26", "Mon Tue Wed Thu Fri Sat Sun", 0), ("10/2026", "Sun Mon Tue Wed Thu Fri Sat", 6),
    ("oktober 2026", "mån tis ons tor fre lör sön", 0), ("Oktober 2026", "ma di wo do vr za zo", 0),
    ("October 2026", "Mon Tue Wed Thrs Fri Sat Sun", 0), ("October 2026", "Mom Tue Wed Thu Fri Sat Sun", 0),
    ("October 2026", "Mon Teus Wed Thur Fri Sat Snu", 0),
]  # fmt: skip


@pytest.mark.parametrize(("title", "weekdays", "first"), DRAWN)
def test_drawn_months_of_languages_and_with_slips(
    title: str, weekdays: str, first: int, tmp_path: Path
) -> None:
    """Each day has an event with its own number: a column of another weekday would give it another date."""
    weeks = calendar.Calendar(first).monthdatescalendar(2026, 10)
    rows = [[title], weekdays.split()]
    for week in weeks:
        rows.append([str(day.day) if day.month == 10 else "" for day in week])
        rows.append([f"Launch {day.day}" if day.month == 10 else "" for day in week])
    found = built(csv_file(tmp_path, "\n".join(",".join(row) for row in rows)))
    days = [dt.date(2026, 10, n) for n in range(1, 32)]
    assert sorted(found) == sorted(f"Launch {day.day} {day}/{day + dt.timedelta(1)}" for day in days)


BOOKKEEPING = [
    "Dernière modification le {}", "Imprimé le {}", "Zuletzt geändert am {}", "Letzte Änderung: {}", "Druckdatum: {}", "Última actualización: {}",
    "Impreso el {}", "Ultimo aggiornamento: {}", "Stampato il {}", "Laatst gewijzigd op {}", "Versie van {}", "Última modificação: {}",
    "Senast uppdaterad {}", "Sidst opdateret {}", "Sist oppdatert {}", "Päivitetty {}", "Next update: {}", "Rev. {}",
    "Aktualisiert am Montag, {}",
]  # fmt: skip


@pytest.mark.parametrize("line", BOOKKEEPING)
def test_lines_about_the_table_are_no_events_in_any_language(line: str, tmp_path: Path) -> None:
    said = line.format("2026-08-31")
    table = f"Title,Date\nRopes,2026-10-05\n{said}\nKnots,2026-10-14\n\n{said}\n"
    expected = ["Ropes 2026-10-05/2026-10-06", "Knots 2026-10-14/2026-10-15"]
    assert built(csv_file(tmp_path, table)) == expected
    text = tmp_path / "notice.txt"
    text.write_text(f"{said}\n\n2026-10-05: Ropes\n2026-10-14: Knots\n", "utf-8")
    assert built(text) == expected


@pytest.mark.parametrize(
    "line", ["Rev. Moss speaks {}", "Stand-up evening {}", "Edition spéciale {}", "Version originale {}"]
)
def test_lines_that_begin_like_these_are_events(line: str, tmp_path: Path) -> None:
    table = f"Title,Date\nRopes,2026-10-05\n{line.format('7 October 2026')}\nKnots,2026-10-14"
    found = built(csv_file(tmp_path, table))
    assert f"{line.replace(' {}', '')} 2026-10-07/2026-10-08" in found and len(found) == 3


CANCELLED = [
    "Nœuds - ANNULÉ", "Nœuds – annulée", "Knoten - entfällt", "Knoten fällt aus", "Knoten findet nicht statt", "Nodi - sospeso",
    "Knopen gaat niet door", "Knopar INSTÄLLD", "Knob - aflyst", "ODWOŁANE: Węzły", "Nudos (suspendida)", "Le cours n'aura pas lieu",
]  # fmt: skip


@pytest.mark.parametrize("title", CANCELLED)
def test_titles_that_are_called_off_in_languages_are_written_as_cancelled(title: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f"Title,Date,Start,End\nRopes,2026-10-05,9:00,10:00\n{title},2026-10-14,9:00,10:00"
    )
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 0
    ropes, other = events_in(tmp_path / "out.ics")
    assert "STATUS" not in ropes and other["STATUS"] == "CANCELLED"


@pytest.mark.parametrize(
    "title", ["Bring it on", "Open door", "Au lieu", "Das Licht geht aus", "Stage annulé?", "Al Nodisospeso"]
)
def test_titles_that_end_like_these_are_held(title: str, tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, f"Title,Date,Start,End\n{title},2026-10-14,9:00,10:00\nRopes,2026-10-05,9:00,10:00"
    )
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 0
    assert all("STATUS" not in event for event in events_in(tmp_path / "out.ics"))


ALL_DAY = "all-day event|journée complète|den ganzen Tag|día completo|tutto il giorno|ganse dag|dia inteiro|hela dagen|heldags|koko päivä|cały dzień"
LATER = "à définir|folgt|wird noch bekannt gegeben|a confirmar|da definire|volgt|meddelas senare|følger|avoin|do ustalenia"
NOON = "midi|mittags|mediodía|mezzogiorno|meio-dia|południe"


@pytest.mark.parametrize("word", f"{ALL_DAY}|{LATER}|{NOON}".split("|"))
def test_words_in_the_place_of_times(word: str, tmp_path: Path) -> None:
    found = built(
        csv_file(tmp_path, f"Date,Time,Title\n2026-10-05,9:00-10:00,Ropes\n2026-10-14,{word},Knots"),
        "--default-length",
        "1h",
    )
    assert len(found) == 2
    assert ("T12:00" in found[1]) is (word in NOON) and ("2026-10-14/2026-10-15" in found[1]) is (
        word not in NOON
    )
