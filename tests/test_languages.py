"""Lists as they are written in many languages: headings, dates, times and the small words among them."""

from __future__ import annotations

import csv
import datetime as dt
from pathlib import Path

import pytest
from babel import Locale
from babel.dates import format_date, format_time

from helpers import built, csv_file, refused
from nomarium.reading.cells import namelist

LISTS = {
    "fr": 'Événement,Date,Heure\nRéunion,lundi 7 septembre 2026,14h30\nFête,1er octobre 2026,9h-10h',
    "de": 'Veranstaltung;Datum;Uhrzeit\nSitzung;Montag, 7. September 2026;14.30 Uhr\nFest;1. Oktober 2026;9-10 Uhr',
    "es": 'Evento,Fecha,Hora\nReunión,lunes 7 de septiembre de 2026,14:30\nFiesta,1 de octubre de 2026,9:00 a 10:00',
    "it": 'Evento,Data,Ora\nRiunione,lunedì 7 settembre 2026,ore 14.30\nFesta,1 ottobre 2026,ore 9-10',
    "pt": 'Evento,Data,Hora\nReunião,segunda-feira 7 de setembro de 2026,14h30\nFesta,1 de outubro de 2026,9h às 10h',
    "nl": 'Evenement,Datum,Tijd\nVergadering,maandag 7 september 2026,14.30 uur\nFeest,1 oktober 2026,9.00-10.00',
    "pl": 'Wydarzenie,Data,Godzina\nZebranie,poniedziałek 7 września 2026,14:30\nŚwięto,1 października 2026,godz. 9:00-10:00',
    "sv": 'Evenemang,Datum,Tid\nMöte,måndag 7 september 2026,kl. 14.30\nFest,1 oktober 2026,kl 9-10',
    "da": 'Begivenhed,Dato,Tid\nMøde,mandag den 7. september 2026,kl. 14.30\nFest,1. oktober 2026,kl. 9-10',
    "nb": 'Arrangement,Dato,Tid\nMøte,mandag 7. september 2026,kl. 14.30\nFest,1. oktober 2026,kl. 9-10',
    "fi": 'Tapahtuma,Päivä,Aika\nKokous,maanantai 7. syyskuuta 2026,klo 14.30\nJuhla,1. lokakuuta 2026,klo 9-10',
    "cs": 'Událost,Datum,Čas\nSchůze,pondělí 7. září 2026,14:30\nOslava,1. října 2026,9:00-10:00',
    "hu": 'Esemény;Dátum;Idő\nÜlés;2026. szeptember 7., hétfő;14:30\nÜnnep;2026. október 1.;9:00-10:00',
    "ro": 'Eveniment,Data,Ora\nȘedință,luni 7 septembrie 2026,14:30\nSărbătoare,1 octombrie 2026,9:00-10:00',
    "ru": 'Событие,Дата,Время\nСобрание,понедельник 7 сентября 2026 г.,14:30\nПраздник,1 октября 2026 года,9:00-10:00',
    "uk": 'Подія,Дата,Час\nЗбори,понеділок 7 вересня 2026 р.,14:30\nСвято,1 жовтня 2026 р.,9:00-10:00',
    "el": 'Εκδήλωση,Ημερομηνία,Ώρα\nΣυνάντηση,Δευτέρα 7 Σεπτεμβρίου 2026,14:30\nΓιορτή,1 Οκτωβρίου 2026,9:00-10:00',
    "tr": 'Etkinlik,Tarih,Saat\nToplantı,7 Eylül 2026 Pazartesi,14:30\nBayram,1 Ekim 2026,9:00-10:00',
    "he": 'אירוע,תאריך,שעה\nישיבה,יום שני 7 בספטמבר 2026,14:30\nחג,1 באוקטובר 2026,9:00-10:00',
    "ar": 'الحدث,التاريخ,الوقت\nاجتماع,الاثنين 7 سبتمبر 2026,14:30\nعيد,1 أكتوبر 2026,9:00-10:00',
    "zh": '活动,日期,时间\n会议,2026年9月7日 星期一,下午2:30\n节日,2026年10月1日,上午9:00-10:00',
    "ja": 'イベント,日付,時間\n会議,2026年9月7日(月),午後2時30分\n祭り,2026年10月1日,9時-10時',
    "ko": '행사,날짜,시간\n회의,2026년 9월 7일 월요일,오후 2:30\n축제,2026년 10월 1일,오전 9:00-10:00',
    "vi": 'Sự kiện,Ngày,Giờ\nHọp,Thứ Hai 7 tháng 9 năm 2026,14:30\nLễ,1 tháng 10 năm 2026,9:00-10:00',
    "th": 'กิจกรรม,วันที่,เวลา\nประชุม,วันจันทร์ที่ 7 กันยายน 2026,14:30\nงาน,1 ตุลาคม 2026,9:00-10:00',
    "hi": 'कार्यक्रम,दिनांक,समय\nबैठक,सोमवार 7 सितंबर 2026,14:30\nत्योहार,1 अक्टूबर 2026,9:00-10:00',
    "ca": "Esdeveniment,Data,Hora\nReunió,dilluns 7 de setembre de 2026,14:30\nFesta,1 d'octubre de 2026,9:00-10:00",
    "hr": 'Događaj,Datum,Vrijeme\nSastanak,ponedjeljak 7. rujna 2026.,14:30\nProslava,1. listopada 2026.,9:00-10:00',
    "is": 'Viðburður,Dagsetning,Tími\nFundur,mánudagur 7. september 2026,14:30\nHátíð,1. október 2026,9:00-10:00',
    "lt": 'Renginys,Data,Laikas\nPosėdis,2026 m. rugsėjo 7 d.,14:30\nŠventė,2026 m. spalio 1 d.,9:00-10:00',
    "cy": 'Digwyddiad,Dyddiad,Amser\nCyfarfod,Dydd Llun 7 Medi 2026,14:30\nGŵyl,1 Hydref 2026,9:00-10:00',
    "ga": 'Imeacht,Dáta,Am\nCruinniú,Dé Luain 7 Meán Fómhair 2026,14:30\nFéile,1 Deireadh Fómhair 2026,9:00-10:00',
    "id": 'Acara,Tanggal,Waktu\nRapat,Senin 7 September 2026,14.30\nPesta,1 Oktober 2026,9.00-10.00',
}  # fmt: skip
"""By the language's code: a meeting on Monday 7 September 2026 at 14:30, and a feast on 1 October from 9 to 10."""


@pytest.mark.parametrize("code", LISTS)
def test_a_list_in_its_own_language(code: str, tmp_path: Path) -> None:
    found = built(csv_file(tmp_path, LISTS[code]))
    assert [event.rsplit(" ", 1)[1] for event in found] == [
        "2026-09-07T14:30/2026-09-07T15:30",
        "2026-10-01T09:00/2026-10-01T10:00",
    ]


CELLS = {
    "a range of days": ("日期,活动\n10月1日-10月7日,国庆", ["国庆 2026-10-01/2026-10-08"]),
    "half past": ("日付,時間,件名\n2026年9月7日,午後3時半,会議", ["会議 2026-09-07T15:30/2026-09-07T16:30"]),
    "figures full wide": ("日付,件名\n２０２６年９月７日（月）,会議", ["会議 2026-09-07/2026-09-08"]),
    "a Buddhist year": ("กิจกรรม,วันที่\nประชุม,7 กันยายน 2569\nงาน,1 ตุลาคม 2569", ["ประชุม 2026-09-07/2026-09-08", "งาน 2026-10-01/2026-10-02"]),
    "as French shortens": ("Date,Quoi\nmerc. 7 juill. 2027,Sortie\njeu. 8 juill.,Visite", ["Sortie 2027-07-07/2027-07-08", "Visite 2027-07-08/2027-07-09"]),
    "as Italian shortens": ("Data,Evento\nMerc 2 sett 2026,Gita\nVen 15 genn 2027,Visita", ["Gita 2026-09-02/2026-09-03", "Visita 2027-01-15/2027-01-16"]),
    "from and to in Italian": ("Evento,Data,Ora\nRiunione,7 settembre 2026,dalle 14.30 alle 16", ["Riunione 2026-09-07T14:30/2026-09-07T16:00"]),
    "from and to in Portuguese": ("Evento,Data,Hora\nReunião,7 de setembro de 2026,8h às 12h", ["Reunião 2026-09-07T08:00/2026-09-07T12:00"]),
}  # fmt: skip


@pytest.mark.parametrize("name", CELLS)
def test_cells_in_their_own_language(name: str, tmp_path: Path) -> None:
    text, expected = CELLS[name]
    assert built(csv_file(tmp_path, text), "--school-year", "2026:2027") == expected


WRONG_DAYS = {
    "zh": "活动,日期\n会议,2026年9月7日 星期二", "ja": "イベント,日付\n会議,2026年9月7日(火)", "ko": "행사,날짜\n회의,2026년 9월 7일 화요일",
    "vi": "Sự kiện,Ngày\nHọp,Thứ Ba 7 tháng 9 năm 2026", "he": "אירוע,תאריך\nישיבה,יום שלישי 7 בספטמבר 2026",
}  # fmt: skip


@pytest.mark.parametrize("code", WRONG_DAYS)
def test_weekdays_of_every_writing_are_checked(code: str, tmp_path: Path) -> None:
    assert "is a Monday, not a Tuesday" in refused(csv_file(tmp_path, WRONG_DAYS[code]))


def test_a_first_row_in_a_language_that_nothing_knows_is_no_heading(tmp_path: Path) -> None:
    text = "Kɛ,7 ɣɔlo 2026\nBa,8 ɣɔlo 2026\nDo,9 ɣɔlo 2026"
    assert "3 rejected" in refused(csv_file(tmp_path, text))


def test_the_list_of_names_knows_what_cldr_knows(monkeypatch: pytest.MonkeyPatch) -> None:
    """Whatever version of CLDR is there: each word has the languages that opening all of them finds."""
    words = [frozenset({word}) for word in ("wrzesnia", "listopad", "sept", "ven", "regatta", "세월", "")]
    words.append(frozenset({"syyskuuta", "maandag", "launch"}))
    told = [namelist.languages_knowing(word) for word in words]
    monkeypatch.setattr(namelist, "_listed_names", lambda: None)
    assert told == [namelist.languages_knowing(word) for word in words]
    assert ["pl" in told[0], told[4], told[6]] == [True, (), ()]


def test_the_list_of_names_is_as_its_command_writes_it() -> None:
    version, *lines = (Path(namelist.__file__).parents[1] / "data/names.txt").read_text("utf-8").splitlines()
    now, *names = namelist.names_listed().splitlines()
    assert len(lines) > 5000 and (version != now or lines == names)


WRITTEN = (
    "fr de es nl it pt pl sv da nb fi cs hu ro hr sl lt lv et el tr ru uk bg ja zh ko he ar hi vi id ca gl is ga af hy fa kk"
).split()  # fmt: skip


@pytest.mark.parametrize("code", WRITTEN)
@pytest.mark.parametrize("form", ["full", "long"])
def test_dates_and_times_as_another_library_writes_them(code: str, form: str, tmp_path: Path) -> None:
    """CLDR's own forms, as Babel writes them, come back as the days and hours that they were."""
    locale, rows, wanted = Locale.parse(code), [["Date", "Time", "Event"]], []
    for n in range(6):
        day, clock = (
            dt.date(2026, 9, 3) + dt.timedelta(47 * n),
            dt.time((9, 10, 14, 18)[n % 4], (0, 15, 30)[n % 3]),
        )
        rows.append(
            [
                format_date(day, form, locale=locale),
                format_time(clock, "short", locale=locale),
                f"Regatta {n}",
            ]
        )
        wanted.append(f"Regatta {n} {day}T{clock:%H:%M}")
    source = tmp_path / "dates.csv"
    with source.open("w", encoding="utf-8", newline="") as file:
        csv.writer(file).writerows(rows)
    assert [event.partition("/")[0] for event in built(source)] == wanted, rows[1]
