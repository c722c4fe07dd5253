"""A calendar brought up to date on a server: what is there is settled with what the source says, then only what differs is
sent, several requests at once; what was put there is on record before and after, so that an interrupted run can go on."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ThreadPoolExecutor, wait
from typing import Final, Literal, NamedTuple

from nomarium.exchange.collection import Collection, Seen, forbidden
from nomarium.exchange.fetch import shown_address
from nomarium.exchange.resources import (
    Resource,
    blocks_by_uid,
    body_of_blocks,
    calendar_text,
    name_for,
    part_of,
    resources,
)
from nomarium.exchange.session import Answer, Session
from nomarium.history.publications import Publication
from nomarium.history.settling.choices import Prefer
from nomarium.history.settling.fields import FIELDS, is_edit
from nomarium.history.settling.identity import Coming
from nomarium.history.settling.marks import gone_texts
from nomarium.history.settling.settle import Outcome, settle, touches
from nomarium.history.settling.units import Unit, Units, units_in
from nomarium.ical.reader import read_calendar
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem
from nomarium.reckoning.window import Window

Progress = Callable[[int], None]
Keep = Callable[[Publication], None]
_DONE: Final = frozenset((200, 201, 204))
_GONE: Final = frozenset((404, 410))


class Asked(NamedTuple):
    """How a calendar is published."""

    part: str
    """The set of sources: events of another one on the server are foreign."""
    dtstamp: str
    zone: str | None
    prefer: Prefer
    window: Window
    invites: bool = False
    parallel: int = 8
    is_dry: bool = False


class Published(NamedTuple):
    """What was done, or would be."""

    created: int
    updated: int
    deleted: int
    unchanged: int
    kept: int
    """Ours that people changed and that stay so."""
    foreign: int
    outcome: Outcome
    problems: Sequence[Problem]


class Task(NamedTuple):
    """One request that changes something."""

    what: Literal["created", "updated", "deleted"]
    uid: str
    path: str
    etag: str
    text: str
    blocks: str


class Here(NamedTuple):
    """What of ours is on the server."""

    given: Units | None
    units: Units
    blocks: dict[str, str]
    """Events as they are on record, by UID."""
    places: dict[str, tuple[str, str]]
    foreign: frozenset[str]
    token: str
    taken: frozenset[str] = frozenset()
    """UIDs of events that are not ours."""


def publish(
    session: Session, url: str, known: Publication | None, coming: Sequence[Coming], asked: Asked, keep: Keep,
    progress: Progress | None = None,
) -> Published:  # fmt: skip
    """Bring a calendar up to date. `keep` takes what is to be on record: before anything is sent, and when it has been. What a
    server has changed in between (412) is read and settled again, once."""
    collection = Collection(session, url)
    counts = dict.fromkeys(("created", "updated", "deleted"), 0)
    is_last = False
    while True:
        here = look(collection, known, asked)
        outcome = settle(here.given, here.units, coming, asked.prefer, asked.window)
        found = Published(0, 0, 0, 0, 0, len(here.foreign), outcome, [])
        problems = [_taken(one, url) for one in coming if one.uid in here.taken]
        if outcome.conflicts or problems:
            return found._replace(problems=problems)
        made = resources(outcome.written, asked.part, asked.dtstamp, asked.invites)
        tasks = list(_tasks(here, made, asked, collection))
        if asked.is_dry:
            for task in tasks:
                counts[task.what] += 1
            return _result(found, counts, made, tasks, problems)
        state = _state(here, url, made, {task.uid for task in tasks}, outcome)
        record = _Sent(state, tasks)
        stale: list[Task] = []
        if tasks:
            keep(record.state())
        try:
            for task, answer in sent(collection, tasks, asked.parallel, progress):
                if answer.status in _DONE or (task.what == "deleted" and answer.status in _GONE):
                    counts[task.what] += 1
                    record.take(task, answer.headers.get("etag", ""))
                elif answer.status == 412 or (task.what == "updated" and answer.status in _GONE):
                    stale.append(task)
                else:
                    record.drop(task)
                    problems.append(refused(task, answer, url))
        finally:
            known = record.state()
            keep(known)
        if not stale or is_last:
            problems += [_stale(task, url) for task in stale]
            return _result(found, counts, made, tasks, problems)
        is_last = True


def _result(
    found: Published, counts: Mapping[str, int], made: Mapping[str, Resource], tasks: Sequence[Task], problems: Sequence[Problem]
) -> Published:  # fmt: skip
    sent = {task.uid for task in tasks}
    edited = {
        one.uid
        for one in found.outcome.written
        if one.marks.is_own or one.marks.base or one.marks.added or one.marks.dropped
    }
    kept = len(edited - sent)
    return found._replace(
        created=counts["created"], updated=counts["updated"], deleted=counts["deleted"],
        unchanged=len(made.keys() - sent) - kept, kept=kept, problems=problems,
    )  # fmt: skip


def look(collection: Collection, known: Publication | None, asked: Asked) -> Here:
    """What of ours is on the server, and what of that people have changed."""
    if known is None:
        return _first_look(collection, asked)
    seen = collection.look(known.token)
    given = _units([known.text], asked)
    blocks, places = blocks_by_uid(known.text), dict(known.places)
    pending = {path: uid for uid, (path, _) in known.pending.items()}
    ours = {path: uid for uid, (path, _) in places.items()}
    doubtful = [
        path for path, etag in seen.etags.items()
        if path in pending or (path in ours and etag != places[ours[path]][1]) or (path in ours and not etag)
    ]  # fmt: skip
    texts = collection.texts(doubtful) if doubtful else {}
    units = dict(given.by_uid)
    for path, uid in {**ours, **pending}.items():
        if path in texts:
            found = _units([texts[path].text], asked).by_uid.get(uid)
            if found is None:
                units.pop(uid, None)
                places.pop(uid, None)  # somebody put another event in its place
                continue
            units[uid] = found
            places[uid] = path, texts[path].etag
            sent = known.pending.get(uid, ("", ""))[1]
            if sent and _is_as_sent(sent, found, asked):  # it had arrived
                blocks[uid] = sent
        elif path in seen.gone or (path not in seen.etags and (seen.is_whole or uid in known.fresh)):
            units.pop(uid, None)
            places.pop(uid, None)
            if known.pending.get(uid, ("", "x"))[1] == "":  # so it was removed
                blocks.pop(uid, None)
        elif uid not in places:
            units.pop(uid, None)
    given = _units([calendar_text(blocks, gone_texts(given.gone))], asked)
    paths = {path for path, _ in places.values()} | ours.keys()
    others = frozenset() if seen.is_whole else known.foreign - seen.gone
    foreign = others | (seen.etags.keys() - paths - pending.keys())
    return Here(
        given,
        Units({uid: unit for uid, unit in units.items() if uid in places}),
        blocks,
        places,
        foreign,
        seen.token,
    )


def _first_look(collection: Collection, asked: Asked) -> Here:
    """The same where nothing is on record: what says that it is of this set is ours, as it stands."""
    seen: Seen = collection.look("")
    texts = collection.texts(sorted(seen.etags))
    mine = {path: one for path, one in texts.items() if part_of(one.text) == asked.part}
    units, places = dict[str, Unit](), dict[str, tuple[str, str]]()
    for path, one in mine.items():
        for uid, unit in _units([one.text], asked).by_uid.items():
            units[uid] = unit
            places[uid] = path, one.etag
    rest = [one.text for path, one in texts.items() if path not in mine]
    taken = frozenset(_units(rest, asked).by_uid)
    return Here(None, Units(units), {}, places, frozenset(seen.etags.keys() - mine.keys()), seen.token, taken)


def _units(texts: Sequence[str], asked: Asked) -> Units:
    read = [
        read_calendar(text.encode("utf-8", "replace"), "the server", asked.zone) for text in texts if text
    ]
    return units_in(read, asked.zone)


def _is_as_sent(blocks: str, found: Unit, asked: Asked) -> bool:
    sent = next(iter(_units([calendar_text({"": blocks}, ())], asked).by_uid.values()), None)
    return sent is not None and is_same_unit(sent, found)


def is_same_unit(one: Unit, other: Unit) -> bool:
    """Whether two units say the same, however it is spelled."""
    if one.dates.keys() != other.dates.keys() or (one.main is None) != (other.main is None):
        return False
    pairs = [(one.main, other.main), *((one.dates[day], other.dates[day]) for day in one.dates)]
    return not any(is_edit(field, a, b) for a, b in pairs if a and b for field in FIELDS) and _left_out(
        one
    ) == _left_out(other)


def _left_out(unit: Unit) -> object:
    from nomarium.history.settling.units import left_out_of

    return left_out_of(unit.main) if unit.main is not None else None


def _tasks(here: Here, made: Mapping[str, Resource], asked: Asked, collection: Collection) -> Iterator[Task]:
    for uid, one in made.items():
        if uid not in here.places:
            yield Task("created", uid, collection.path_for(name_for(uid)), "", one.text, one.blocks)
            continue
        path, etag = here.places[uid]
        there = here.units.by_uid[uid]
        wanted = _units([one.text], asked).by_uid[uid]
        is_sent = uid in here.blocks and body_of_blocks(here.blocks[uid]) == one.body
        is_there = is_same_unit(wanted, there) and _is_known_alike(wanted, there)
        if not is_there or not (is_sent or _has_edits(here, uid, there) or here.given is None):
            yield Task("updated", uid, path, etag, one.text, one.blocks)
    for uid, (path, etag) in here.places.items():
        if uid not in made and touches(here.units.by_uid[uid], asked.window):
            yield Task("deleted", uid, path, etag, "", "")


def _has_edits(here: Here, uid: str, there: Unit) -> bool:
    """Whether what stands there is not what was put there."""
    given = here.given.by_uid.get(uid) if here.given is not None else None
    return given is not None and not is_same_unit(given, there)


def _is_known_alike(wanted: Unit, there: Unit) -> bool:
    """Whether the school's data are the same, where the server has kept any."""
    if wanted.main is None or there.main is None:
        return True
    mine, theirs = wanted.main.event.details, there.main.event.details
    return not theirs.facets or (mine.facets, mine.audience) == (theirs.facets, theirs.audience)


def _state(
    here: Here, url: str, made: Mapping[str, Resource], open_uids: set[str], outcome: Outcome
) -> Publication:
    """What is on record before anything is sent: what is settled already, and of the rest what was there."""
    blocks = dict(here.blocks)
    blocks |= {uid: one.blocks for uid, one in made.items() if uid not in open_uids}
    for uid in [uid for uid in blocks if uid not in here.places and uid not in made]:
        del blocks[uid]  # gone on both sides
    text = calendar_text(blocks, gone_texts(outcome.gone))
    return Publication(url, here.token, text, here.places, here.foreign)


class _Sent:
    """What is on record when things have been sent."""

    def __init__(self, state: Publication, tasks: Sequence[Task]) -> None:
        self._state = state
        self._blocks = blocks_by_uid(state.text)
        self._gone = [text for calendar in [read_calendar(state.text.encode(), "")] for text in calendar.gone]
        self._places = dict(state.places)
        self._open = {task.uid: (task.path, task.blocks) for task in tasks}
        self._fresh = set[str]()

    def take(self, task: Task, etag: str) -> None:
        """A task is done."""
        self.drop(task)
        if task.what == "deleted":
            self._blocks.pop(task.uid, None)
            self._places.pop(task.uid, None)
        else:
            self._blocks[task.uid] = task.blocks
            self._places[task.uid] = task.path, etag
            self._fresh.add(task.uid)

    def drop(self, task: Task) -> None:
        """A task has an answer."""
        self._open.pop(task.uid, None)

    def state(self) -> Publication:
        text = calendar_text(self._blocks, self._gone)
        return self._state._replace(
            text=text, places=self._places, pending=self._open, fresh=frozenset(self._fresh)
        )


def sent(
    collection: Collection, tasks: Sequence[Task], parallel: int, progress: Progress | None
) -> Iterator[tuple[Task, Answer]]:
    """Each task with its answer, as they come; so many at once. When one cannot be answered, the others are let end first."""
    waiting = iter(tasks)
    running: dict[Future[Answer], Task] = {}
    failure: SourceError | None = None
    done_count = 0
    with ThreadPoolExecutor(max_workers=parallel) as pool:
        while True:
            while failure is None and len(running) < parallel and (task := next(waiting, None)) is not None:
                running[pool.submit(_send, collection, task)] = task
            if not running:
                break
            done, _ = wait(running, return_when=FIRST_COMPLETED)
            for future in done:
                task = running.pop(future)
                try:
                    answer = future.result()
                except SourceError as error:
                    failure = failure or error
                    continue
                done_count += 1
                if progress is not None:
                    progress(done_count)
                yield task, answer
    if failure is not None:
        raise failure


def _send(collection: Collection, task: Task) -> Answer:
    if task.what == "deleted":
        return collection.delete(task.path, task.etag)
    return collection.put(task.path, task.text, None if task.what == "created" else task.etag)


def _title(text: str) -> str:
    from nomarium.ical.octets import unescaped, unfolded

    found = (line[8:] for line in unfolded(text) if line.startswith("SUMMARY:"))
    return unescaped(next(found, "")) or "an event"


def refused(task: Task, answer: Answer, url: str) -> Problem:
    if answer.status == 403 and b"uid-conflict" not in answer.content:
        return forbidden(url).problem
    place = Place(shown_address(url))
    named = f"“{_title(task.text)}”" if task.text else "an event that is gone"
    if answer.status == 507:
        message = f"The server has no room left: {named} was not sent."
        return Problem(
            "publish-full", message, "Make room there, then publish again: what was sent stays.", place
        )
    if answer.status == 409 or b"uid-conflict" in answer.content:
        return _in_use(named, place)
    message = f"The server did not take {named}: it answers {answer.status}."
    remedy = "Publish again; if that does not help, show this to whoever keeps the server."
    return Problem("publish-refused", message, remedy, place)


def _taken(one: Coming, url: str) -> Problem:
    return _in_use(f"“{one.event.summary}”", Place(shown_address(url)))


def _in_use(named: str, place: Place) -> Problem:
    message = f"The calendar holds an event with the UID of {named} that is of another set of sources, or that somebody put there."
    remedy = "Take it out there, publish into another calendar (--calendar NAME), or as the set that put it there (--as-part NAME)."
    return Problem("publish-taken", message, remedy, place)


def _stale(task: Task, url: str) -> Problem:
    named = f"“{_title(task.text)}”" if task.text else "An event"
    message = f"{named} was changed on the server again while it was published."
    return Problem(
        "publish-stale", message, "Publish again: the change is settled then.", Place(shown_address(url))
    )
