"""Which event of an earlier build became which event of this one, where their UIDs do not say it."""

import datetime as dt
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping

from nomarium.history.revisions import Sketch


def pair_moved(gone: Iterable[Sketch], new: Iterable[Sketch]) -> dict[str, str]:
    """UID of an event of this build → UID of the earlier event that it is, where one event clearly became another.

    First by everything: an event that an earlier build had under another UID. Then by UID: one that only
    changed. Then by title: events of one title are paired in the order of their dates, when as many are new as are
    gone, else each new one with the nearest that is gone. Then by time and place: one gone and one new at the
    same start in the same location are one event renamed; of whole days, those that are there for one other.
    """
    gone, new = list(gone), list(new)
    pairs: dict[str, str] = {}
    for old_group, new_group in _groups(gone, new, lambda one: (str(one.body),)):
        pairs.update((b.uid, a.uid) for a, b in zip(old_group, new_group, strict=False))
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (one.summary, *one.when)):
        pairs.update((b.uid, a.uid) for a, b in zip(old_group, new_group, strict=False))
    gone, new = _unpaired(gone, new, pairs)
    there = {one.uid for one in gone}
    pairs.update((one.uid, one.uid) for one in new if one.uid in there)
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (one.summary,)):
        pairs.update(_paired_by_date(old_group, new_group))
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (*one.when, one.location)):
        if len(old_group) == len(new_group) == 1:
            pairs[new_group[0].uid] = old_group[0].uid
    return pairs


def with_distinct_uids(pairs: Mapping[str, str], uids: Iterable[str]) -> dict[str, str]:
    """The UID that each event of this build is written with: its pair's, else its own, else, where that has gone to
    another event, one that has become free.

    >>> with_distinct_uids({"b": "a", "c": "b"}, ["a", "b", "c"])
    {'b': 'a', 'c': 'b', 'a': 'c'}
    """
    settled = dict(pairs)
    taken = set(pairs.values())
    uids = list(uids)
    free = (uid for uid in uids if uid in pairs and uid not in taken)
    for uid in uids:
        if uid not in settled:
            settled[uid] = next(free) if uid in taken else uid
    return settled


def _unpaired(
    gone: list[Sketch], new: list[Sketch], pairs: dict[str, str]
) -> tuple[list[Sketch], list[Sketch]]:
    taken = set(pairs.values())
    return [one for one in gone if one.uid not in taken], [one for one in new if one.uid not in pairs]


def _groups(
    gone: Iterable[Sketch], new: Iterable[Sketch], key: Callable[[Sketch], tuple[str, ...]]
) -> list[tuple[list[Sketch], list[Sketch]]]:
    old_groups = defaultdict[tuple[str, ...], list[Sketch]](list)
    new_groups = defaultdict[tuple[str, ...], list[Sketch]](list)
    for one in gone:
        old_groups[key(one)].append(one)
    for one in new:
        new_groups[key(one)].append(one)
    return [(old_groups[k], group) for k, group in new_groups.items() if k in old_groups]


def _paired_by_date(gone: list[Sketch], new: list[Sketch]) -> Iterator[tuple[str, str]]:
    gone, new = sorted(gone, key=lambda one: one.start), sorted(new, key=lambda one: one.start)
    if len(gone) == len(new):
        yield from ((b.uid, a.uid) for a, b in zip(gone, new, strict=True))
        return
    days = [_day_number(one.start) for one in gone]
    for one in new:
        if not gone:
            return
        day = _day_number(one.start)
        at = bisect_left(days, day)
        if at == len(days) or (at and day - days[at - 1] <= days[at] - day):
            at -= 1  # the one before is nearer
        yield one.uid, gone.pop(at).uid
        days.pop(at)


def _day_number(start: str) -> int:
    try:
        return dt.date.fromisoformat(start[:8]).toordinal()
    except ValueError:
        return 0
