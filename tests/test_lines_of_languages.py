"""Times, and several days, as other languages say them: among the words of a line, in a cell, and in a title."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.dates import read_days
from nomarium.reading.cells.spokentimes import in_clocks
from nomarium.reading.cells.words import ENGLISH

DATES = {
    "fr": "mercredi 4 novembre 2026", "de": "Mittwoch, 4. November 2026", "es": "miércoles 4 de noviembre de 2026",
    "it": "mercoledì 4 novembre 2026", "nl": "woensdag 4 november 2026", "pt": "4 de novembro de 2026",
}  # fmt: skip
SPANS = [
    ("fr", "14h-16h"), ("fr", "de 14h à 16h"), ("fr", "14 h - 16 h"), ("fr", "de 14 à 16 heures"), ("fr", "entre 14h et 16h"),
    ("de", "zwischen 14 und 16 Uhr"), ("de", "14h-16h"), ("de", "von 14 bis 16 Uhr"), ("es", "de 2 a 4 de la tarde"),
    ("es", "de 14 a 16 h"), ("es", "entre las 14:00 y las 16:00"), ("it", "dalle 14 alle 16"), ("it", "h. 14:00 - 16:00"),
    ("it", "dalle ore 14:00 alle ore 16:00"), ("nl", "14u-16u"), ("nl", "van 14 tot 16 uur"), ("nl", "14.00 - 16.00 u"),
    ("pt", "das 14h às 16h"), ("pt", "14h00 às 16h00"),
]  # fmt: skip
STARTS = [
    ("fr", "à partir de 14h"), ("fr", "vers 14h"), ("fr", "2 h de l'après-midi"), ("de", "14 Uhr 00"), ("de", "2 Uhr nachmittags"),
    ("es", "a las 2 de la tarde"), ("es", "a las 14:00 horas"), ("it", "alle ore 14"), ("nl", "14u"), ("nl", "om 14 uur"),
    ("nl", "vanaf 14 uur"), ("pt", "a partir das 14h"),
]  # fmt: skip
WHEN = [(language, text, "T14:00/2026-11-04T16:00") for language, text in SPANS] + [
    (language, text, "T14:00/2026-11-04T15:00") for language, text in STARTS
]


@pytest.mark.parametrize(
    "form", ["{day} : atelier {time}", "{day}, {time}: atelier", "atelier, {day} {time}"]
)
@pytest.mark.parametrize(("language", "time", "hours"), WHEN)
def test_a_time_among_words_is_none_of_the_title(
    language: str, time: str, hours: str, form: str, tmp_path: Path
) -> None:
    source = tmp_path / "notice.txt"
    source.write_text(form.format(day=DATES[language], time=time) + "\n")
    assert built(source) == [f"atelier 2026-11-04{hours}"]


@pytest.mark.parametrize(("language", "time", "hours"), WHEN)
def test_a_cell_of_times_says_the_same(language: str, time: str, hours: str, tmp_path: Path) -> None:
    table = f'Date,Time,Event\n"{DATES[language]}","{time}",Regatta'
    assert built(csv_file(tmp_path, table)) == [f"Regatta 2026-11-04{hours}"]


@pytest.mark.parametrize(
    "text",
    [
        "von 10 bis 12 Jahren",
        "de 14 a 16 de noviembre",
        "3 et 4 h",
        "vom 14.10 bis 16.10",
        "14.10 u. 15.10",
        "24h race",
        "de 6 à 12 ans",
    ],
)
def test_what_is_no_time_stays(text: str) -> None:
    assert in_clocks(text) == text


RANGES = [
    ("30.11. - 2.12.2026", "2026-11-30", "2026-12-02"), ("28.9.–3.10.2026", "2026-09-28", "2026-10-03"),
    ("du 30/11 au 2/12/2026", "2026-11-30", "2026-12-02"), ("11/30-12/2/2026", "2026-11-30", "2026-12-02"),
    ("28.12. - 3.1.2027", "2026-12-28", "2027-01-03"), ("30.11.2026 - 2.12.", "2026-11-30", "2026-12-02"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "first", "last"), RANGES)
def test_both_ends_of_a_range_are_in_one_order(text: str, first: str, last: str) -> None:
    days = read_days(text, ENGLISH)
    assert days is not None and not isinstance(days, Refusal) and days.last is not None
    assert (
        {str(one.date()) for one in days.first.readings},
        {str(one.date()) for one in days.last.readings},
    ) == ({first}, {last})


def test_a_range_over_the_end_of_a_month_is_no_year_long(tmp_path: Path) -> None:
    assert built(csv_file(tmp_path, "Date,Event\n30.11. - 2.12.2026,Regatta\n11.1.2027,Fair")) == [
        "Regatta 2026-11-30/2026-12-03", "Fair 2027-01-11/2027-01-12",
    ]  # fmt: skip


SEVERAL = [
    "5. und 6. November 2026", "5. u. 6. November 2026", "5 et 6 novembre 2026", "5 y 6 de noviembre de 2026", "5 e 6 novembre 2026",
    "5 en 6 november 2026", "5. og 6. november 2026", "5./6. November 2026",
]  # fmt: skip


@pytest.mark.parametrize("text", SEVERAL)
def test_two_days_are_two_events(text: str, tmp_path: Path) -> None:
    expected = ["Regatta 2026-11-05/2026-11-06", "Regatta 2026-11-06/2026-11-07"]
    assert sorted(built(csv_file(tmp_path, f"Date,Event\n{text},Regatta"))) == expected
    notice = tmp_path / "notice.txt"
    notice.write_text(f"{text}: Regatta\n")
    assert sorted(built(notice)) == expected


@pytest.mark.parametrize("joint", ["bis", "–"])
def test_a_first_day_with_a_full_stop_is_no_number_of_a_list(joint: str, tmp_path: Path) -> None:
    notice = tmp_path / "notice.txt"
    notice.write_text(f"5. {joint} 7. November 2026: Regatta\n")
    assert built(notice) == ["Regatta 2026-11-05/2026-11-08"]


@pytest.mark.parametrize("line", ["4 November 2026: Staff meeting (1400)", "4 nov. 2026 : réunion 9h"])
def test_figures_that_may_be_a_time_are_asked_about(line: str, tmp_path: Path) -> None:
    notice = tmp_path / "notice.txt"
    notice.write_text(f"{line}\n")
    assert "may be a time" in refused(notice)


def test_times_in_titles_of_a_table_are_read_in_any_language(tmp_path: Path) -> None:
    table = 'Date,Événement\n4 novembre 2026,"Atelier, 14h"\n5 novembre 2026,Régate 9h30-12h\n6 novembre 2026,Fête'
    assert built(csv_file(tmp_path, table)) == [
        "Atelier 2026-11-04T14:00/2026-11-04T15:00", "Régate 2026-11-05T09:30/2026-11-05T12:00", "Fête 2026-11-06/2026-11-07",
    ]  # fmt: skip


@pytest.mark.parametrize(
    "line",
    ["Konzert: Mi 4. Nov. 2026, 18 Uhr", "Konzert am Mi 4.11.2026, 18 Uhr", "Konzert mer. 4 nov. 2026 18h"],
)
def test_a_short_weekday_before_a_date_is_none_of_the_title(line: str, tmp_path: Path) -> None:
    notice = tmp_path / "notice.txt"
    notice.write_text(f"{line}\n")
    assert built(notice) == ["Konzert 2026-11-04T18:00/2026-11-04T19:00"]
