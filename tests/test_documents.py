"""Text and documents as sources: lines, tables in documents, mail."""

from __future__ import annotations

from pathlib import Path

import pytest

from helpers import events_in, nomarium, plain


def text_file(folder: Path, text: str, name: str = "dates.txt") -> Path:
    lines = text.strip("\n").splitlines()
    indent = min(len(line) - len(line.lstrip()) for line in lines if line.strip())
    path = folder / name
    path.write_text("\n".join(line[indent:] for line in lines) + "\n", "utf-8")
    return path


LINES: dict[str, tuple[str, list[str], list[str], list[str]]] = {
    # text, options, events, what is told
    "date, title, times, place": (
        """
        Events at the yard

        Fri 16 April 2027: Marketing webinar, 10–11am, Sail loft
        Sat 17 April 2027 - Open day (Slip 1)
        - Mon 19 April 2027, 7pm: Families' evening at the Rigging loft
        Bring your friends!
        """, [],
        ["Marketing webinar 2027-04-16T10:00/2027-04-16T11:00 @ Sail loft", "Open day 2027-04-17/2027-04-18 @ Slip 1",
         "Families' evening 2027-04-19T19:00/2027-04-19T20:00 @ Rigging loft"],
        ["line 3 has the date “Fri 16 April 2027”", "5 rows read = 3 events + 2 notes"],
    ),
    "a date over lines with times": (
        """
        Saturday 12 September 2026

        10.00 Welcome (Main slip)
        10.30 Tour of the yard
        12 noon Lunch
        1.15pm Launch, Slip 1
        Sunday 13 September 2026
        11.00 Races
        """, [],
        ["Welcome 2026-09-12T10:00/2026-09-12T10:30 @ Main slip", "Tour of the yard 2026-09-12T10:30/2026-09-12T12:00",
         "Lunch 2026-09-12T12:00/2026-09-12T13:15", "Launch 2026-09-12T13:15/2026-09-12T14:15 @ Slip 1",
         "Races 2026-09-13T11:00/2026-09-13T12:00"],
        ["lasts until the next line under the same date"],
    ),
    "a month over days, marks, quotations and a paragraph": (
        """
        ---
        date: 2026-01-01
        ---
        ## September 2026

        - **Sat 5**: Regatta, 10am, Slip 2
        - Sun 6th Prize giving
        > On Fri 18 September we said no.
        ```
        Mon 7 September 2026: code
        ```

        Choir rehearsal
        Tue 22 September 2026, 19:00-20:30
        Rigging loft
        """, [],
        ["Regatta 2026-09-05T10:00/2026-09-05T11:00 @ Slip 2", "Prize giving 2026-09-06/2026-09-07",
         "Choir rehearsal 2026-09-22T19:00/2026-09-22T20:30 @ Rigging loft"], ["3 events + 10 notes"],
    ),
    "another language": (
        """
        Termine Herbst 2026
        Montag, 7. September 2026: Schulbeginn
        Fr 18.09.2026, 19 Uhr: Elternabend, Aula
        """, [], ["Schulbeginn 2026-09-07/2026-09-08", "Elternabend 2026-09-18T19:00/2026-09-18T20:00 @ Aula"], [],
    ),
    "times alone, and the day on the command line": (
        "10.00 Welcome\n10.30 Tour", ["--set", "date=2026-09-17"],
        ["Welcome 2026-09-17T10:00/2026-09-17T10:30", "Tour 2026-09-17T10:30/2026-09-17T11:30"], [],
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", LINES)
def test_lines_are_read_and_what_is_taken_for_what_is_told(name: str, tmp_path: Path) -> None:
    text, options, events, told = LINES[name]
    source = text_file(tmp_path, text)
    ran = nomarium("build", source, "-o", tmp_path / "out.ics", *options)
    assert ran.status == 0, ran.text
    assert [*map(plain, events_in(tmp_path / "out.ics"))] == events
    for part in told:
        assert part in ran.text


REFUSED = {
    "prose": ("Dear all,\nthe regatta will be held on Saturday 12 September 2026 at 10.00, come early.\nSat 19 Sept 2026: Race", "line 2", "It is a sentence"),
    "times without a date": ("10.00 Welcome\n10.30 Tour", "", "--set date="),
    "a wrong weekday": ("Fri 17 April 2027: Open day", "line 1", "is a Saturday, not a Friday"),
    "no such day": ("Fri 16 April 2027: Race\nWed 31 April 2027: Race", "line 2", ""),
}  # fmt: skip


@pytest.mark.parametrize("name", REFUSED)
def test_lines_that_cannot_be_read_are_refused_by_number(name: str, tmp_path: Path) -> None:
    text, where, says = REFUSED[name]
    ran = nomarium("build", text_file(tmp_path, text), "-o", tmp_path / "out.ics")
    assert ran.status == 1 and where in ran.err and says in ran.err, ran.text


def test_numbers_that_are_prices_or_telephones_are_no_times(tmp_path: Path) -> None:
    source = text_file(
        tmp_path,
        "Sat 12 Sept 2026: Regatta, 10am\nTickets cost $12.50 each\nPhone 902 555 0123\nThe course is 12.5 km",
    )
    ran = nomarium("build", source, "-o", tmp_path / "out.ics")
    assert ran.status == 0 and "1 event + 3 notes" in ran.out, ran.text


def test_text_is_asked_for_where_it_looks_like_a_table(tmp_path: Path) -> None:
    source = text_file(tmp_path, "Fri 16 April 2027: Marketing webinar, 10–11am, Sail loft", "dates.csv")
    assert nomarium("build", source, "-o", tmp_path / "out.ics").status == 1
    assert nomarium("build", source, "-o", tmp_path / "out.ics", "--as", "text").status == 0
