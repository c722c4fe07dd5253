"""Weekdays as other languages write them: what stands between them is none, and short names that several languages share are told
apart by their dates, by the headings, or asked about."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, refused
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.languages import lexicon_of
from nomarium.reading.cells.weekdaycodes import WeekdayCodes

SAID: list[tuple[str, str, str]] = [
    ("de", "Di u. Do", "13"), ("de", "Mo, Mi u. Fr", "024"), ("de", "Mo bis Do", "0123"), ("de", "Mo–Fr außer Mi", "0134"),
    ("de", "montags bis freitags", "01234"), ("fr", "Lundi au vendredi", "01234"), ("fr", "du mardi au jeudi", "123"),
    ("fr", "les lundis", "0"), ("es", "lunes a viernes", "01234"), ("es", "de martes a jueves", "123"),
    ("pt", "Seg. e Qua.", "02"), ("pt", "de terça a quinta", "123"), ("it", "da lunedì a venerdì", "01234"), ("it", "mar e gio", "13"),
    ("nl", "ma t/m vr", "01234"), ("nl", "ma en do", "03"), ("sv", "måndag till fredag", "01234"),
    ("fr", "Mon to Fri except Wed", "0134"), ("fr", "M - F, not W", "0134"), ("fr", "S U", "56"),
]  # fmt: skip


@pytest.mark.parametrize(("language", "text", "days"), SAID)
def test_what_stands_between_weekdays_is_none(language: str, text: str, days: str) -> None:
    lexicon = lexicon_of(language)
    assert lexicon is not None
    assert WeekdayCodes([text], lexicon).read(text) == tuple(map(int, days))


@pytest.mark.parametrize("text", ["Tues (not Thurs)", "Mon except Mon", "Mon to", "lundi et/ou mardi"])
def test_an_exception_of_nothing_is_refused(text: str) -> None:
    lexicon = lexicon_of("fr")
    assert lexicon is not None
    assert isinstance(WeekdayCodes([text], lexicon).read(text), Refusal)


WEEK = ("--from", "2026-09-07", "--until", "2026-09-13")
READ: dict[str, tuple[str, tuple[str, ...], list[str]]] = {
    "a weekend in French": ("Jour,Heure,Cours\nSa,9h-10h,Nœuds\nDi,11h-12h,Voiles", WEEK, ["Nœuds 09-12", "Voiles 09-13"]),
    "a weekend in Spanish": ("Día,Hora,Clase\nDo,9:00-10:00,Nudos\nSá,11:00-12:00,Velas", WEEK, ["Nudos 09-13", "Velas 09-12"]),
    "a Tuesday in German": ("Tag,Zeit,Kurs\nDi,9:00-10:00,Knoten\nDi,11:00-12:00,Segel", WEEK, ["Knoten 09-08", "Segel 09-08"]),
    "a Wednesday in Swedish": ("Dag,Tid,Lektion\nti och to,9-10,Knopar\non & fr,11-12,Rodd", WEEK, ["Knopar 09-08", "Knopar 09-10", "Rodd 09-09", "Rodd 09-11"]),
    "a week from Monday in Dutch": ("Dag,Tijd,Les\nma t/m wo,9-10,Knopen\nvr,11-12,Zeilen", WEEK, ["Knopen 09-07", "Knopen 09-08", "Knopen 09-09", "Zeilen 09-11"]),
    "dates that show French": ("Date,Time,Class\nSa 10.10.2026,9-10,Knots\nDi 11.10.2026,11-12,Sails", (), ["Knots 10-10", "Sails 10-11"]),
    "dates that show German": ("Date,Time,Class\nDo 8.10.2026,9-10,Knots\nDi 6.10.2026,11-12,Sails", (), ["Knots 10-08", "Sails 10-06"]),
    "an ISO date that shows French": ("Date,Time,Class\nDi 2026-10-11,9:00,Knots\nDi 2026-10-04,11:00,Sails", (), ["Knots 10-11", "Sails 10-04"]),
    "months written once in French": ("Date,Événement,Horaire\nLundi 5 octobre 2026,Lancement,10h\nMardi 6,Atelier,14 h\nMercredi 7,Conseil,17h30", (), ["Lancement 10-05", "Atelier 10-06", "Conseil 10-07"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", READ)
def test_short_weekdays_are_of_the_language_of_their_table(kind: str, tmp_path: Path) -> None:
    table, options, expected = READ[kind]
    found = built(csv_file(tmp_path, table), *options)
    assert sorted(one.split("T")[0].replace("2026-", "") for one in found) == sorted(expected)


ASKED: dict[str, tuple[str, list[str]]] = {
    "Di under English headings": ("Day,Time,Class\nDi,9:00-10:00,Knots\nDi,11:00-12:00,Sails", ["“Di”", "French or German", "--language fr"]),
    "Ma alone": ("Day,Time,Class\nMa,9:00-10:00,Knots", ["French or Dutch"]),
    "one row among weekdays": ("Jour,Heure,Cours\nLundi au vendredi,9h-10h,Nœuds\nlundi et/ou mardi,11h-12h,Voiles\nsamedi,11h-12h,Voiles", ["“lundi et/ou mardi” does not say on which weekdays"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", ASKED)
def test_weekdays_of_which_nothing_tells_are_asked_about(kind: str, tmp_path: Path) -> None:
    table, says = ASKED[kind]
    told = refused(csv_file(tmp_path, table), *WEEK)
    assert [part for part in says if part not in told] == [], told
