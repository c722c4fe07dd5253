"""Rows that repeat: words to rules, dates left out and added, days off, rules kept."""

from __future__ import annotations

import datetime as dt
from pathlib import Path

import icalendar
import pytest
import recurring_ical_events

from helpers import built, csv_file, events_in, nomarium, refused
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.repeats import Repeat, read_repeat
from nomarium.reading.cells.repeatsaid import said
from nomarium.reading.cells.words import ENGLISH
from nomarium.reckoning.rules import RuleFault, parse_rule, rule_text

PHRASES = {
    "every Wednesday": "FREQ=WEEKLY;BYDAY=WE", "Mondays": "FREQ=WEEKLY;BYDAY=MO", "Tue/Thu": "FREQ=WEEKLY;BYDAY=TU,TH",
    "Mon, Wed and Fri for 6 weeks": "FREQ=WEEKLY;BYDAY=MO,WE,FR", "Mon-Fri": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
    "every other Tuesday": "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU", "alternate Fridays": "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR",
    "fortnightly": "FREQ=WEEKLY;INTERVAL=2", "every 3 weeks": "FREQ=WEEKLY;INTERVAL=3",
    "every two weeks on Mon & Thu": "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,TH", "every third week": "FREQ=WEEKLY;INTERVAL=3",
    "first Monday of the month": "FREQ=MONTHLY;BYDAY=1MO", "last Friday of each month": "FREQ=MONTHLY;BYDAY=-1FR",
    "2nd and 4th Thursday": "FREQ=MONTHLY;BYDAY=2TH,4TH", "every second Tuesday of the month": "FREQ=MONTHLY;BYDAY=2TU",
    "last school day of each month": "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1",
    "last day of the month": "FREQ=MONTHLY;BYMONTHDAY=-1", "monthly on the 15th": "FREQ=MONTHLY;BYMONTHDAY=15",
    "every month on the 1st and 15th": "FREQ=MONTHLY;BYMONTHDAY=1,15", "quarterly": "FREQ=MONTHLY;INTERVAL=3",
    "every 15 March": "FREQ=YEARLY;BYMONTHDAY=15;BYMONTH=3", "annually on 1 July": "FREQ=YEARLY;BYMONTHDAY=1;BYMONTH=7",
    "second Tuesday of March": "FREQ=YEARLY;BYDAY=2TU;BYMONTH=3", "Thursdays in May": "FREQ=YEARLY;BYDAY=TH;BYMONTH=5",
    "daily for 10 days": "FREQ=DAILY", "every day except Sundays": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR,SA",
    "every weekday": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR", "weekends": "FREQ=WEEKLY;BYDAY=SA,SU", "yearly": "FREQ=YEARLY",
    "weekly on Tue and Thu from 4 Jan until 18 June": "FREQ=WEEKLY;BYDAY=TU,TH", "every Tuesday x 6": "FREQ=WEEKLY;BYDAY=TU",
    "tous les mercredis": "FREQ=WEEKLY;BYDAY=WE", "un mardi sur deux": "FREQ=WEEKLY;INTERVAL=2;BYDAY=TU",
    "toutes les deux semaines": "FREQ=WEEKLY;INTERVAL=2", "le premier lundi du mois": "FREQ=MONTHLY;BYDAY=1MO",
    "dernier vendredi de chaque mois": "FREQ=MONTHLY;BYDAY=-1FR", "le 15 de chaque mois": "FREQ=MONTHLY;BYMONTHDAY=15",
    "tous les 15 mars": "FREQ=YEARLY;BYMONTHDAY=15;BYMONTH=3", "chaque jour d'école": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
    "tous les lundis du 4 janvier au 18 juin": "FREQ=WEEKLY;BYDAY=MO", "du lundi au vendredi": "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
    "RRULE:FREQ=DAILY;COUNT=3": "FREQ=DAILY;COUNT=3",
}  # fmt: skip


@pytest.mark.parametrize("text", PHRASES)
def test_words_are_rules(text: str) -> None:
    repeat = read_repeat(text, ENGLISH)
    assert isinstance(repeat, Repeat)
    assert rule_text(repeat.rule) == PHRASES[text]
    assert said(repeat.rule).startswith("every ")


def test_a_leap_second_is_the_second_before_it() -> None:
    """RFC 5545, section 3.3.10: BYSECOND goes to 60."""
    assert [rule_text(parse_rule(f"FREQ=MINUTELY;BYSECOND={second};COUNT=2")) for second in (58, 59, 60)] == [
        f"FREQ=MINUTELY;COUNT=2;BYSECOND={second}" for second in (58, 59, 59)
    ]
    assert isinstance(parse_rule("FREQ=MINUTELY;BYSECOND=61"), RuleFault)


NOT_UNDERSTOOD = {
    "every second Tuesday": "repeat-ambiguous", "biweekly": "repeat-ambiguous", "every Day 3": "repeat-needs-plan",
    "A-week Mondays": "repeat-needs-plan", "termly": "repeat-needs-plan", "now and then": "repeat-unread",
    "twice a week": "repeat-unread", "deux fois par mois": "repeat-unread", "FREQ=YEARLY;BYMONTH=13": "rule-impossible",
    "every Monday 3 times for 3 weeks": "repeat-ends-twice", "every Monday except Keel": "date-unread",
}  # fmt: skip


@pytest.mark.parametrize("text", NOT_UNDERSTOOD)
def test_what_is_not_understood_is_refused(text: str) -> None:
    refusal = read_repeat(text, ENGLISH)
    assert isinstance(refusal, Refusal)
    assert refusal.code == NOT_UNDERSTOOD[text]
    assert refusal.remedy


def test_a_cell_that_says_no_repeats_nothing() -> None:
    assert [read_repeat(text, ENGLISH) for text in ("no", "Never", "Does not repeat", "non")] == [None] * 4


# repeat, except, also on, options → the days (of 2027) on which the event is
DATED = {
    "from a Monday it begins on the Wednesday after": ("every Wednesday until 20 Jan", "", "", "", "0106 0113 0120"),
    "until includes its day": ("weekly until 18/01/2027", "", "", "", "0104 0111 0118"),
    "the row's date counts when it fits": ("Mon and Wed for 2 weeks", "", "", "", "0104 0106 0111 0113"),
    "a count of times": ("every other day for 3 times", "", "", "", "0104 0106 0108"),
    "ten days are ten events": ("daily for 10 days", "", "", "", "0104 0105 0106 0107 0108 0109 0110 0111 0112 0113"),
    "dates left out, in any form": ("every Monday until 8 Feb", "11 Jan; 2027-01-25", "", "", "0104 0118 0201 0208"),
    "a range left out": ("every Monday until 8 Feb", "10-26 January", "", "", "0104 0201 0208"),
    "days of one month": ("every Monday until 8 Feb", "11 and 25 January", "", "", "0104 0118 0201 0208"),
    "dates added": ("every Monday until 11 Jan", "", "14 Jan 2027; 2027-01-16", "", "0104 0111 0114 0116"),
    "added without a repeat": ("", "", "6 Jan, 8 Jan", "", "0104 0106 0108"),
    "in the words": ("every Monday until 25 Jan except 11 Jan", "", "", "", "0104 0118 0125"),
    "an end behind what is left out": ("every Monday except 11 Jan until 25 Jan", "", "", "", "0104 0118 0125"),
    "weekdays left out before an end": ("daily except Saturday and Sunday until 11 Jan", "", "", "", "0104 0105 0106 0107 0108 0111"),
    "a day of each month before an end": ("monthly on the 4th until 31 March 2027", "", "", "", "0104 0204 0304"),
    "an end that is inclusive": ("every Monday until 18 Jan inclusive", "", "", "", "0104 0111 0118"),
    "nothing left out": ("every Monday until 11 Jan", "none", "", "", "0104 0111"),
    "in German": ("jeden Montag bis 25. Januar 2027 außer 11. Januar", "", "", "", "0104 0118 0125"),
    "every two weeks in German": ("alle zwei Wochen bis 1. Februar 2027", "", "", "", "0104 0118 0201"),
    "in Spanish": ("todos los lunes hasta el 18 de enero de 2027", "", "", "", "0104 0111 0118"),
    "a weekday of the month in Spanish": ("primer lunes de cada mes hasta el 31 de marzo de 2027", "", "", "", "0104 0201 0301"),
    "in Dutch": ("om de week tot en met 1 februari 2027", "", "", "", "0104 0118 0201"),
    "in Italian": ("ogni lunedì fino al 18 gennaio 2027", "", "", "", "0104 0111 0118"),
    "in Portuguese": ("todas as segundas-feiras até 18 de janeiro de 2027", "", "", "", "0104 0111 0118"),
    "from in the words": ("every Monday from 11 Jan until 25 Jan", "", "", "", "0111 0118 0125"),
    "--until ends what has no end": ("every Monday", "", "", "--until 2027-01-20", "0104 0111 0118"),
    "a window begins it": ("every Monday until 1 Feb", "", "", "--from 2027-01-12", "0118 0125 0201"),
    "days off are skipped": ("daily for 10 days", "", "", "--days-off off.csv", "0104 0106 0107 0108 0109 0110 0112 0113"),
    "public holidays are skipped": ("every Monday from 8 Feb until 22 Feb", "", "", "--public-holidays CA-NS", "0208 0222"),
    "an added date beats a day off": ("", "", "5 Jan 2027", "--days-off off.csv", "0104 0105"),
    "school days are weekdays less days off": ("every school day until 12 Jan", "", "", "--days-off off.csv", "0104 0106 0107 0108 0112"),
    "the last school day is looked for among them": ("last school day of each month until 31 March", "", "", "--days-off off.csv", "0128 0226 0331"),
    "except holidays, when they are known": ("every Monday until 18 Jan except holidays", "", "", "--days-off off.csv", "0104 0118"),
}  # fmt: skip


@pytest.mark.parametrize("rules", [False, True], ids=["dated", "rule"])
@pytest.mark.parametrize("name", DATED)
def test_a_row_repeats_on_its_dates(name: str, rules: bool, tmp_path: Path) -> None:
    repeat, left_out, added, options, days = DATED[name]
    source = csv_file(
        tmp_path,
        f'Title,Date,Start,End,Repeat,Except,Also on\nKeel laying,2027-01-04,9:00,10:30,"{repeat}","{left_out}","{added}"',
    )
    off = csv_file(
        tmp_path,
        "Name,First day,Last day\nStorm,2027-01-05,\nA,2027-01-11,\nB,2027-01-29,2027-01-31",
        "off.csv",
    )
    words = [str(off) if word == "off.csv" else word for word in options.split()]
    more = ["--repeats", "rule"] if rules else []
    built(source, "--timezone", "America/Halifax", *words, *more)
    calendar = icalendar.Calendar.from_ical(source.with_suffix(".ics").read_bytes())
    found = recurring_ical_events.of(calendar).between((2027, 1, 1), (2028, 1, 1))
    assert sorted(f"{event['DTSTART'].dt:%m%d}" for event in found) == days.split()
    assert {f"{event['DTSTART'].dt:%H:%M}-{event['DTEND'].dt:%H:%M}" for event in found} == {"09:00-10:30"}


REFUSED = {
    "no end": ("every Monday", "", "no end", "--until"),
    "ends before it starts": ("every Monday until 2026-12-01", "", "before it starts on 2027-01-04", "Correct"),
    "no date fits": ("every Monday until 2027-01-04", "", "", ""),
    "nothing repeats": ("", "11 Jan", "nothing in it repeats", "clear the cell"),
    "unknown holidays": ("every Monday until 1 Feb except holidays", "", "nothing says when they are", "--public-holidays"),
    "a letter": ("W", "", "could be how often", "Write it out"),
    "an open date": ("every Monday until 05/06/2027", "", "5 June 2027 or 6 May 2027", "--date-order"),
}  # fmt: skip


@pytest.mark.parametrize("name", [name for name, case in REFUSED.items() if case[2]])
def test_a_repeat_that_cannot_be_is_refused_at_its_cell(name: str, tmp_path: Path) -> None:
    repeat, left_out, message, remedy = REFUSED[name]
    text = f'Title,Date,Start,Repeat,Except\nKeel laying,2027-01-04,9:00,"{repeat}","{left_out}"'
    said_text = refused(csv_file(tmp_path, text))
    assert message in said_text
    assert remedy in said_text
    assert "row 2, column" in said_text


def test_a_row_with_no_fitting_date_is_refused(tmp_path: Path) -> None:
    text = "Title,Date,Repeat\nKeel laying,2027-01-05,every Monday until 2027-01-08"
    assert "No date from 2027-01-05 to 2027-01-08 is one of" in refused(csv_file(tmp_path, text))


def test_what_was_understood_is_echoed_once_a_phrase(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path,
        """
        Title,Date,Start,Repeat
        Inspection,2027-01-04,9:00,un lundi sur deux jusqu'au 1 février
        Launch,2027-01-06,9:00,every Wednesday until 20 Jan
        Picnic,2027-01-06,12:00,every Wednesday until 20 Jan
        """,
    )
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert (
        outcome.out.count(
            "is read as every 2 weeks on Monday until 2027-02-01 (FREQ=WEEKLY;UNTIL=20270201;INTERVAL=2;BYDAY=MO)"
        )
        == 1
    )
    assert (
        outcome.out.count(
            "is read as every week on Wednesday until 2027-01-20 (FREQ=WEEKLY;UNTIL=20270120;BYDAY=WE). (so in 2 rows"
        )
        == 1
    )
    assert "3 of them repeat: on 9 dates of their own" in outcome.out
    assert "Wrote 9 events from 2027-01-04 to 2027-02-01" in outcome.out


def test_an_end_date_beside_a_repeat_is_where_it_ends(tmp_path: Path) -> None:
    source = csv_file(
        tmp_path, "Title,Date,Start,End,End date,Repeat\nKeel,2027-01-04,9:00,10:00,2027-01-20,weekly"
    )
    assert [line[5:15] for line in built(source)] == ["2027-01-04", "2027-01-11", "2027-01-18"]
    assert "repeat's last day" in nomarium("build", source, "-o", tmp_path / "b.ics").out


def test_clock_times_hold_across_a_clock_change(tmp_path: Path) -> None:
    text = "Title,Date,Start,End,Repeat\nNight watch,2027-03-07,01:30,02:30,every Sunday until 21 March"
    source = csv_file(tmp_path, text)
    outcome = nomarium("build", source, "-o", tmp_path / "out.ics", "--timezone", "America/Halifax")
    times = [f"{e.decoded('DTSTART'):%m%d %H:%M %z}" for e in events_in(tmp_path / "out.ics")]
    assert times == ["0307 01:30 -0400", "0314 01:30 -0400", "0321 01:30 -0300"]
    assert outcome.status == 0


def test_a_skipped_time_of_a_repeat_is_moved_on_and_told(tmp_path: Path) -> None:
    text = "Title,Date,Start,End,Repeat\nNight watch,2027-03-07,02:30,03:30,every Sunday until 21 March"
    outcome = nomarium(
        "build", csv_file(tmp_path, text), "-o", tmp_path / "out.ics", "--timezone", "America/Halifax"
    )
    times = [f"{e.decoded('DTSTART'):%m%d %H:%M}" for e in events_in(tmp_path / "out.ics")]
    assert times == ["0307 02:30", "0314 03:30", "0321 02:30"]
    assert "row 2: A clock change skips" in outcome.out


def test_rules_say_how_many_dates_they_stand_for(tmp_path: Path) -> None:
    text = "Title,Date,Start,Repeat,Also on\nKeel,2027-01-04,9:00,every Monday until 1 Feb,2027-01-07\nSail,2027-01-04,9:00,,"
    source = csv_file(tmp_path, text)
    outcome = nomarium(
        "build", source, "-o", tmp_path / "out.ics", "--repeats", "rule", "--timezone", "America/Halifax"
    )
    assert "1 of them repeats: 1 by rule, on 5 dates; on 1 date of its own" in outcome.out
    rules = [
        event["RRULE"].to_ical().decode() for event in events_in(tmp_path / "out.ics") if "RRULE" in event
    ]
    assert rules == ["FREQ=WEEKLY;UNTIL=20270201T130000Z;BYDAY=MO"]


def test_public_holidays_are_a_source_of_their_own(tmp_path: Path) -> None:
    out = tmp_path / "holidays.ics"
    window = ("--from", "2027-01-01", "--until", "2027-12-31")
    outcome = nomarium("build", "--public-holidays", "CA-NS", "--language", "fr", *window, "-o", out)
    assert outcome.status == 0
    found = {str(event["SUMMARY"]): event.decoded("DTSTART") for event in events_in(out)}
    assert found["Fête du Canada"] == dt.date(2027, 7, 1)
    assert "8 public holidays added" in outcome.out
    assert nomarium("build", "--public-holidays", "CA-NS", "-o", out).status == 2
    unknown = nomarium("build", "--public-holidays", "CA-XX", *window, "-o", out)
    assert unknown.status == 2
    assert "no region “XX”" in unknown.err


def test_holidays_are_shown_beside_the_events(tmp_path: Path) -> None:
    source = csv_file(tmp_path, "Title,Date,Start,Repeat\nKeel,2027-03-22,9:00,daily for 7 days")
    out = tmp_path / "out.ics"
    outcome = nomarium("build", source, "-o", out, "--public-holidays", "CA-NS", "--show-holidays")
    assert outcome.status == 0
    assert [str(event["SUMMARY"]) for event in events_in(out)] == ["Keel"] * 6 + ["Good Friday"]


@pytest.mark.parametrize(
    ("text", "weekdays", "times"),
    [
        ("Six Tuesdays from 12 January 2027", ((0, 1),), 6),
        ("6 x Tuesdays", ((0, 1),), 6),
        ("8 Tuesdays, 7pm", ((0, 1),), 8),
        ("third Tuesday", ((3, 1),), None),
        ("4th Tuesdays", ((4, 1),), None),
        ("four Mondays and Wednesdays", None, None),
        ("two Tuesdays a month", None, None),
    ],
)
def test_a_number_before_weekdays_counts_them(
    text: str, weekdays: tuple[tuple[int, int], ...] | None, times: int | None
) -> None:
    found = read_repeat(text, ENGLISH)
    if weekdays is None:
        assert isinstance(found, Refusal) and "how many weekdays, and not which" in found.message
    else:
        assert isinstance(found, Repeat) and (found.rule.weekdays, found.times) == (weekdays, times)
        assert found.rule.freq == ("MONTHLY" if times is None else "WEEKLY")


MONTHLY = {
    "on the weekday of the month that its date is": ("monthly,Thursday,2026-09-17,", ["09-17", "10-15", "11-19", "12-17"]),
    "every two months": ("every 2 months,Tuesday,2026-09-08,", ["09-08", "11-10"]),
    "to a last day": ("monthly,Thursday,2026-09-17,2026-10-31", ["09-17", "10-15"]),
    "daily on several weekdays": ("daily,Mon-Wed,2026-12-07,2026-12-15", ["12-07", "12-08", "12-09", "12-14", "12-15"]),
    "daily beside the weekday of its date": ("daily,Monday,2026-12-14,", ["12-14", "12-15", "12-16", "12-17", "12-18"]),
}  # fmt: skip


@pytest.mark.parametrize("kind", MONTHLY)
def test_a_weekday_beside_a_repeat_by_months_or_days_holds_for_each_date(kind: str, tmp_path: Path) -> None:
    row, days = MONTHLY[kind]
    heads = "Event,Repeats,Day,Date,Last day" if row[-1] != "," else "Event,Repeats,Day,Date"
    source = csv_file(tmp_path, f"{heads}\nA,{row.rstrip(',')}")
    assert [event[2:12] for event in built(source, "--until", "2026-12-18")] == [
        f"2026-{day}" for day in days
    ]


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("monthly,Thursday,2026-09-24", "could be the 4th or the last of each month"),
        ("monthly,Monday,2026-09-17", "2026-09-17 is a Thursday, not a Monday"),
        ("monthly,Mon & Wed,2026-09-14", "on Monday and Wednesday begins on 2026-09-14, a Monday"),
    ],
)
def test_a_weekday_that_leaves_the_dates_of_a_month_open_is_refused(
    row: str, said: str, tmp_path: Path
) -> None:
    source = csv_file(tmp_path, f"Event,Repeats,Day,Date\nA,{row}")
    assert said in refused(source, "--until", "2026-12-18")


def test_ranges_of_weekdays_beside_dates_are_no_idle_column(tmp_path: Path) -> None:
    weekly = csv_file(
        tmp_path,
        "Event,Repeats,Day,Date,Time\nA,weekly,Mon-Wed,2026-12-07,9am\nB,weekly,Thu-Fri,2026-12-10,9am",
    )
    found = [event[:12] for event in built(weekly, "--until", "2026-12-15")]
    of_a, of_b = ("07", "08", "09", "14", "15"), ("10", "11")
    assert found == [*(f"A 2026-12-{day}" for day in of_a), *(f"B 2026-12-{day}" for day in of_b)]
    spans = "Event,Day,Date,Last day\nFair,Fri-Sun,2026-09-11,2026-09-13\nRace,Sat-Sun,2026-09-19,2026-09-20"
    assert built(csv_file(tmp_path, spans)) == ["Fair 2026-09-11/2026-09-14", "Race 2026-09-19/2026-09-21"]
    longer = csv_file(tmp_path, spans.replace("09-13", "09-14"), name="longer.csv")
    assert "“Fri-Sun” is 3 days, and the row lasts 4" in refused(longer)
