"""Cells of dates that say when something repeats, or name several days with their times."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import built, csv_file, nomarium, refused


def evening(*days: str, start: str = "16:00", end: str = "17:00") -> list[str]:
    return [f"A 2026-{day}T{start}/2026-{day}T{end}" for day in days]


MONDAYS = ("09-07", "09-14", "09-21", "09-28")
PHRASES = {
    "a weekday, a time and a range": ("Mondays 4pm-5pm, 7 Sept - 28 Sept 2026", [], evening(*MONDAYS)),
    "the window of the command line": ("Mondays 4pm", ["--from", "2026-09-07", "--until", "2026-09-28"], evening(*MONDAYS)),
    "every, at, until": ("every Monday at 4pm until 28 Sept 2026", ["--from", "2026-09-07"], evening(*MONDAYS)),
    "from, for so many weeks": ("Weekly on Mondays from 7 Sept 2026 for 4 weeks, 16:00", [], evening(*MONDAYS)),
    "without a year, within a school year": ("Mondays 4pm, 7 Sept – 28 Sept", ["--school-year", "2026:2027"], evening(*MONDAYS)),
    "two weekdays": ("Tue & Thu 4-5pm, 8 Sept to 17 Sept 2026", [], evening("09-08", "09-10", "09-15", "09-17")),
    "each day of a week": ("Daily 7-9 Sept 2026 9am-12pm", [], evening("09-07", "09-08", "09-09", start="09:00", end="12:00")),
    "ordinals and months": ("2nd Tuesday of the month, 4pm, Sept–Dec except Nov", ["--school-year", "2026:2027", "--until", "2026-12-31"], evening("09-08", "10-13", "12-08")),
    "ordinals and a window": ("First Saturday of each month 4pm", ["--from", "2026-09-01", "--until", "2026-11-30"], evening("09-05", "10-03", "11-07")),
    "several days with a time": ("7, 14, 21 Sept 2026 4pm-5pm", [], evening("09-07", "09-14", "09-21")),
    "two days with weekdays and a time": ("Sat 5 & Sun 6 Sept 2026, 10am-4pm", [], evening("09-05", "09-06", start="10:00", end="16:00")),
    "in French": ("tous les lundis à 16h30 du 7 septembre au 21 septembre 2026", [], evening("09-07", "09-14", "09-21", start="16:30", end="17:30")),
    "hours alone, of a table without am and pm": ("Mondays 4-5, 7 Sept - 28 Sept 2026", [], evening(*MONDAYS)),
    "half hours in no half of the day": ("Mondays 4.00-5.00, 7 Sept - 28 Sept 2026", [], evening(*MONDAYS)),
    "an hour alone": ("Mondays at 4, 7 Sept - 28 Sept 2026", [], evening(*MONDAYS)),
    "by the clock that was asked for": ("Mondays 4.00-5.00, 7 Sept - 28 Sept 2026", ["--clock", "24"], evening(*MONDAYS, start="04:00", end="05:00")),
    "the month before its days": ("Mondays 4-5pm, Sept 7-Sept 28, 2026", [], evening(*MONDAYS)),
    "noon": ("Mon & Tue 11am-12noon from 7 Sept 2026 for 2 weeks", [], evening("09-07", "09-08", "09-14", "09-15", start="11:00", end="12:00")),
    "weeks behind a date and a time": ("Mon 7 Sept 2026 4pm for 4 weeks", [], evening(*MONDAYS)),
    "weeks in brackets": ("Mon 7 Sept 2026, 4pm (4 weeks)", [], evening(*MONDAYS)),
    "weeks before their first day": ("4 weeks from Monday 7 September 2026, 4-5pm", [], evening(*MONDAYS)),
    "weeks that agree with the last day": ("Mondays 4-5pm, 7 Sept - 28 Sept 2026 (4 weeks)", [], evening(*MONDAYS)),
    "meetings that agree once one is left out": ("Mondays 4-5pm, 7 Sept - 28 Sept 2026, except 14 Sept (3 sessions)", [], evening("09-07", "09-21", "09-28")),
    "days behind a date and a time": ("Mon 7 Sept 2026 4pm-5pm for 3 days", [], evening("09-07", "09-08", "09-09")),
    "from then on": ("Mon 7 Sept 2026 at 4pm and weekly thereafter until 28 Sept", [], evening(*MONDAYS)),
    "left out in brackets": ("Mondays (not 14 Sept) 4pm, 7 Sept - 28 Sept 2026", [], evening("09-07", "09-21", "09-28")),
    "no class": ("Mondays 4pm, 7 Sept - 28 Sept 2026 (no class 14 Sept)", [], evening("09-07", "09-21", "09-28")),
    "weekdays before their days": ("Mondays: 7, 14 and 21 September 2026, 4pm", [], evening("09-07", "09-14", "09-21")),
    "days by slashes behind their month": ("Sept 7/14/21 2026, 4pm", [], evening("09-07", "09-14", "09-21")),
    "until twelve": ("Saturdays - 5 Sept, 12 Sept 2026, 10am-12", [], evening("09-05", "09-12", start="10:00", end="12:00")),
    "all day": ("Saturdays, 5 Sept – 12 Sept 2026", [], ["A 2026-09-05/2026-09-06", "A 2026-09-12/2026-09-13"]),
}  # fmt: skip


@pytest.mark.parametrize("name", PHRASES)
def test_a_phrase_in_place_of_a_date(name: str, tmp_path: Path) -> None:
    phrase, arguments, expected = PHRASES[name]
    source = csv_file(tmp_path, f'Event,When\nA,"{phrase}"\nB,2026-09-01')
    found = built(source, *arguments)
    assert [event for event in found if event.startswith("A")] == expected
    out = nomarium("build", source, "-o", tmp_path / "o.ics", *arguments).out
    assert "is read as" in out or "Several days" in out


REPEATS = {
    "a time among the words": ("weekly, 4pm-5pm, until 28 September 2026", evening(*MONDAYS)),
    "an hour in no half of the day": ("every Monday at 4 until 28 September 2026", evening(*MONDAYS)),
    "months from which to which": ("first Monday of the month, 4pm, Sept–Nov except Oct", evening("09-07", "11-02")),
}  # fmt: skip


@pytest.mark.parametrize("name", REPEATS)
def test_a_repeat_may_name_its_time_and_its_months(name: str, tmp_path: Path) -> None:
    phrase, expected = REPEATS[name]
    assert built(csv_file(tmp_path, f'Event,Date,Repeat\nA,2026-09-07,"{phrase}"')) == expected


REFUSED = {
    "no first day": ("Event,When\nA,Mondays 4pm", ["row 2, column B", "not from when", "--from DATE"]),
    "a weekday alone": ("Event,When\nA,Monday", ["names weekdays, and nothing says from when to when", "--from 2026-09-07"]),
    "a day without a year": ("Event,When\nA,7 September", ["has no year"]),
    "weeks that end on another day": ('Event,When\nA,"Mondays 4pm, 7 Sept - 28 Sept 2026 (5 weeks)"', ["ends on 2026-09-28, and 5 weeks from 2026-09-07 end on 2026-10-11"]),
    "so many times, and other dates": ('Event,When\nA,"Mondays 4pm, 7 Sept - 28 Sept 2026, 6 sessions"', ["says 6 times, and is 4 dates to 2026-09-28"]),
    "a day of another weekday in a list": ('Event,When\nA,"Tuesdays: 15, 22, 30 September 2026, 7pm"', ["2026-09-30 is a Wednesday"]),
    "weeks of one day, with nothing that says on which": ('Event,When\nA,"14 Sept 2026, 4pm, for 3 weeks"', ["row 2, column B"]),
    "an hour beside others with am and pm": ("Event,When\nA,Mondays 4.30 from 7 Sept 2026 to 28 Sept 2026\nB,8 Sept 2026 10am", ["4:30 could be in the morning or in the afternoon"]),
    "another time than the row's": ("Event,Date,Start,Repeat\nA,2026-09-07,9:00,weekly 4pm until 28 Sept 2026", ["The repeat is at 16:00, and the row's own time is 9:00"]),
    "no end": ("Event,When\nA,every Monday from 7 September 2026", ["no end"]),
    "words that nothing knows": ("Event,When\nA,most Mondays in September 2026", ["row 2, column B"]),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_a_phrase_that_leaves_something_open_is_refused(name: str, tmp_path: Path) -> None:
    text, said = REFUSED[name]
    out = refused(csv_file(tmp_path, text))
    assert [words for words in said if words not in out] == []


def test_a_phrase_far_down_a_long_list_is_read_too(tmp_path: Path) -> None:
    rows = "\n".join(f"E{n},2026-{n % 12 + 1:02}-{n % 28 + 1:02}" for n in range(2_400))
    found = built(csv_file(tmp_path, f'Event,When\n{rows}\nA,"Mondays 4pm, 7 Sept - 28 Sept 2026"'))
    assert [event for event in found if event.startswith("A")] == evening(*MONDAYS) and len(found) == 2_404


TERMS = "Name,First day,Last day\nTerm 1,8 Sep 2026,16 Oct 2026\nTerm 2,2 Nov 2026,18 Dec 2026\nSpring,4 Jan 2027,26 Mar 2027"
WEEKS = {
    "a week of a term": ("A,Week 3 Term 2,", "A 2026-11-16/2026-11-23"),
    "short, with a weekday": ("A,T1 W2,Tuesday", "A 2026-09-15/2026-09-16"),
    "by the term's name": ("A,Spring week 4,Friday", "A 2027-01-29/2027-01-30"),
    "of the term": ("A,week 1 of the Spring term,", "A 2027-01-04/2027-01-11"),
}  # fmt: skip


@pytest.mark.parametrize("name", WEEKS)
def test_weeks_of_terms(name: str, tmp_path: Path) -> None:
    row, expected = WEEKS[name]
    terms = csv_file(tmp_path, TERMS, "terms.csv")
    assert built(csv_file(tmp_path, f"Event,When,Day\n{row}"), "--terms", terms) == [expected]


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("Week 30 Term 2", "Term 2 has 7 weeks"),
        ("Week 3 Term 9", "no term that is known"),
        ("Week 3", "is not a date"),
    ],
)
def test_weeks_that_no_term_has_are_refused(row: str, said: str, tmp_path: Path) -> None:
    terms = csv_file(tmp_path, TERMS, "terms.csv")
    assert said in refused(csv_file(tmp_path, f"Event,When\nA,{row}"), "--terms", terms)


@pytest.mark.parametrize("days", ["Tues & Thurs", "Tue/Thu", "Tue, Thu", "TTh"])
def test_several_weekdays_beside_a_stretch_of_weeks_are_each_held(days: str, tmp_path: Path) -> None:
    rows = f'Club,Day,Time,Dates\nB,Monday,4pm-5pm,7 Sept 2026 - 21 Sept 2026\nA,"{days}",4pm-5pm,8 Sept 2026 - 17 Sept 2026'
    found = [event for event in built(csv_file(tmp_path, rows)) if event.startswith("A")]
    assert found == evening("09-08", "09-10", "09-15", "09-17")
