"""Rounds of changes on both sides, against a model of a calendar application and hand-worked rules of who wins."""

from __future__ import annotations

import datetime as dt
import tempfile
from collections.abc import Set
from pathlib import Path
from typing import Literal

import icalendar
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from helpers import nomarium

NAMES = ("Knots", "Paint", "Rigging", "Lofting")
PLACES = ("Slip 1", "Slip 2", "Sail loft")
HOURS = ("9", "10", "14")
Fields = dict[str, str]
Change = tuple[Literal["title", "place", "hour", "drop", "add"], int, int]
CHANGES = st.lists(
    st.tuples(st.sampled_from(("title", "place", "hour", "drop", "add")), st.integers(0, 5), st.integers(0, 3)), max_size=4
)  # fmt: skip


def fresh(uid: str, n: int) -> Fields:
    return {"uid": uid, "title": NAMES[n % 4], "place": PLACES[n % 3], "hour": HOURS[n % 3]}


def changed(
    side: dict[str, Fields],
    changes: list[Change],
    prefix: str,
    counter: list[int],
    new: Set[str] = frozenset(),
) -> None:
    """Make changes; what is added gets a UID of its own. Nobody deletes what is `new` in the calendar: an export without it
    would be as if it had never been brought up to date."""
    for what, which, value in changes:
        if what == "add":
            counter[0] += 1
            uid = f"{prefix}{counter[0]}@s.example"
            side[uid] = fresh(uid, value + counter[0])
        elif side:
            uid = sorted(side)[which % len(side)]
            if what == "drop":
                if len(side) > 1 and uid not in new:
                    del side[uid]
            else:
                options = {"title": NAMES, "place": PLACES, "hour": HOURS}[what]
                side[uid][what] = options[value % len(options)]


class Application:
    """A calendar application: it takes an event when its SEQUENCE is not lower, and never deletes one by itself."""

    def __init__(self) -> None:
        self.events: dict[str, Fields] = {}
        self.sequences: dict[str, int] = {}

    def apply(self, path: Path) -> None:
        for uid, (fields, sequence) in written(path).items():
            if uid in self.events and sequence < self.sequences.get(uid, 0):
                continue
            if uid in self.events and self.events[uid] != fields:
                assert sequence > self.sequences.get(uid, 0), "a change is a new revision"
            self.events[uid], self.sequences[uid] = fields, sequence

    def export(self, path: Path) -> None:
        calendar = icalendar.Calendar()
        for uid, fields in self.events.items():
            event = icalendar.Event()
            event.add("UID", uid)
            event.add("SUMMARY", fields["title"])
            event.add("LOCATION", fields["place"])
            start = day_of(uid, fields)
            event.add("DTSTART", start)
            event.add("DTEND", start + dt.timedelta(hours=1))
            event.add("SEQUENCE", self.sequences.get(uid, 0))
            calendar.add_component(event)
        path.write_bytes(calendar.to_ical())


def day_of(uid: str, fields: Fields) -> dt.datetime:
    number = int("".join(filter(str.isdigit, uid)))
    return dt.datetime(2026, 11, 2, int(fields["hour"])) + dt.timedelta(
        days=number + (100 if uid[0] == "p" else 0)
    )


def write_list(path: Path, side: dict[str, Fields]) -> None:
    rows = [f"{one['uid']},{one['title']},{day_of(uid, one):%Y-%m-%d},{one['hour']}:00,{int(one['hour']) + 1}:00,{one['place']}"
            for uid, one in side.items()]  # fmt: skip
    path.write_text("\n".join(["UID,Event,Date,Start,End,Where", *rows]) + "\n")


def written(path: Path) -> dict[str, tuple[Fields, int]]:
    found = {}
    for event in icalendar.Calendar.from_ical(path.read_bytes()).walk("VEVENT"):
        fields = {"uid": str(event["UID"]), "title": str(event["SUMMARY"]), "place": str(event["LOCATION"]),
                  "hour": str(event["DTSTART"].dt.hour)}  # fmt: skip
        found[fields["uid"]] = fields, int(event.get("SEQUENCE", 0))
    return found


def expected(
    base: dict[str, Fields],
    source: dict[str, Fields],
    people: dict[str, Fields],
    prefer: str,
) -> tuple[dict[str, Fields], bool]:
    """What must come of it, and whether somebody must be asked."""
    result, asks = dict[str, Fields](), False
    for uid, mine in source.items():
        theirs = people.get(uid)
        if theirs is None:
            if uid in base and (mine == base[uid] or prefer == "edited"):
                continue  # deleted
            result[uid] = dict(mine)
            continue
        one = dict(mine)
        for field in ("title", "place", "hour"):
            before, said = base[uid][field], theirs[field]
            if said in (before, mine[field]):
                continue
            if mine[field] == before or prefer == "edited":
                one[field] = said
            elif prefer == "":
                asks = True
        result[uid] = one
    for uid, theirs in people.items():
        if uid in source:
            continue
        if uid not in base:
            result[uid] = dict(theirs)  # people added it
        elif theirs != base[uid]:
            asks |= prefer == ""
            if prefer == "edited":
                result[uid] = dict(theirs)
    return result, asks


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(
    st.lists(st.tuples(CHANGES, CHANGES, st.sampled_from(("", "source", "edited"))), min_size=1, max_size=3)
)
def test_whatever_both_sides_change_round_after_round(
    rounds: list[tuple[list[Change], list[Change], str]],
) -> None:
    with tempfile.TemporaryDirectory() as name:
        folder, application, counter = Path(name), Application(), [3]
        listed, out, export = folder / "list.csv", folder / "year.ics", folder / "export.ics"
        source = {f"s{n}@s.example": fresh(f"s{n}@s.example", n) for n in range(3)}
        base = {uid: dict(one) for uid, one in source.items()}
        write_list(listed, source)
        assert nomarium("build", listed, "-o", out).status == 0
        application.apply(out)
        new = frozenset[str]()
        for mine, theirs, prefer in rounds:
            changed(source, mine, "s", counter)
            changed(application.events, theirs, "p", counter, new)
            exported = set(application.events)
            application.export(export)
            write_list(listed, source)
            given_now = {uid: fields for uid, (fields, _) in written(out).items()}
            wanted, asks = expected(base, source, application.events, prefer)
            ran = nomarium(
                "build", listed, "-o", out, "--edited", export, *(("--prefer", prefer) if prefer else ())
            )
            if not (set(application.events) & (set(source) | set(given_now))):
                return  # it has become another calendar
            assert ran.status == (asks or not wanted), ran.text
            if asks or not wanted:
                return
            assert {uid: fields for uid, (fields, _) in written(out).items()} == wanted, ran.text
            text = out.read_bytes()
            assert (
                nomarium(
                    "build", listed, "-o", out, "--edited", export, *(("--prefer", prefer) if prefer else ())
                ).status
                == 0
            )
            assert out.read_bytes() == text, "the same again gives the same file"
            application.apply(out)
            new = frozenset(wanted.keys() - exported)
            for uid in set(application.events) - set(wanted):
                del application.events[uid]  # the person clears out what is gone
            assert application.events == wanted, "the application ends in the right state"
            base = {uid: dict(one) for uid, one in source.items()}
            base |= {uid: {} for uid in wanted if uid not in source}
            base = {uid: one for uid, one in base.items() if one}
