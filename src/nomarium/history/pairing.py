"""Which event of an earlier build became which event of this one, where their UIDs do not say it."""

import datetime as dt
from bisect import bisect_left
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from typing import Final

from nomarium.history.revisions import Sketch

_MOST_WEIGHED: Final = 250_000
"""Steps that the weighing of events of one title may take."""


def pair_moved(gone: Iterable[Sketch], new: Iterable[Sketch]) -> dict[str, str]:
    """UID of an event of this build → UID of the earlier event that it is, where one event clearly became another.

    First by everything: an event that an earlier build had under another UID. Then by UID: one that only
    changed. Then by title: events of one title are paired in the order of their dates, when as many are new as are
    gone, else so that all pairs together are as near as can be. Then by time and place: one gone and one new at the
    same start in the same location are one event renamed; of whole days, those that are there for one other. At last
    those of one date of which one title holds the other: renamed and moved.
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
    gone, new = _unpaired(gone, new, pairs)
    for old_group, new_group in _groups(gone, new, lambda one: (one.start[:8],)):
        if len(old_group) * len(new_group) <= _MOST_WEIGHED:
            pairs.update(_alike(old_group, new_group))
    return pairs


def _alike(gone: Sequence[Sketch], new: Sequence[Sketch]) -> Iterator[tuple[str, str]]:
    """Of one date, those of which one title holds the other, where that is said of no third one."""
    said = [(a, b) for a in gone for b in new if _is_within(a.summary, b.summary)]
    olds, news = Counter(a.uid for a, _ in said), Counter(b.uid for _, b in said)
    yield from ((b.uid, a.uid) for a, b in said if olds[a.uid] == news[b.uid] == 1)


def _is_within(one: str, other: str) -> bool:
    """Whether the words of a title stand in another one, at its beginning or its end."""
    few, many = sorted((one.casefold().split(), other.casefold().split()), key=len)
    return bool(few) and few in (many[: len(few)], many[-len(few) :])


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
    fewer, more = (gone, new) if len(gone) < len(new) else (new, gone)
    taken = _nearest([_minute(one.start) for one in fewer], [_minute(one.start) for one in more])
    for one, at in zip(fewer, taken, strict=True):
        old, now = (one, more[at]) if fewer is gone else (more[at], one)
        yield now.uid, old.uid


def _nearest(fewer: Sequence[int], more: Sequence[int]) -> list[int]:
    """For each of the fewer, which of the more it goes with, so that all of them together are as near as can be; both are
    in order, and so are the pairs. Where that is too much to weigh, each takes the nearest that is left.

    >>> _nearest([12], [10, 13]), _nearest([10, 12], [9, 11, 30])
    ([1], [0, 1])
    """
    spare = len(more) - len(fewer)
    if len(fewer) * (spare + 1) > _MOST_WEIGHED:
        return _each_nearest(fewer, more)
    # best[k]: the least distance of the first of the fewer when k of the more have been passed over
    best, passed = [0] * (spare + 1), list[list[int]]()
    for n, here in enumerate(fewer):
        costs, from_ = list[int](), list[int]()
        least, at = best[0], 0
        for k in range(spare + 1):
            if best[k] < least:
                least, at = best[k], k
            costs.append(least + abs(here - more[n + k]))
            from_.append(at)
        best = costs
        passed.append(from_)
    k = min(range(spare + 1), key=best.__getitem__)
    taken = list[int]()
    for n in reversed(range(len(fewer))):
        taken.append(n + k)
        k = passed[n][k]
    return taken[::-1]


def _each_nearest(fewer: Sequence[int], more: Sequence[int]) -> list[int]:
    """The same, one after another; in order, and none twice."""
    taken, low = list[int](), 0
    for n, here in enumerate(fewer):
        high = len(more) - (len(fewer) - n)
        at = min(max(bisect_left(more, here), low), high)
        if at > low and here - more[at - 1] <= abs(more[at] - here):
            at -= 1  # the one before is nearer
        taken.append(at)
        low = at + 1
    return taken


def _minute(start: str) -> int:
    """A start as minutes, for telling how far two of them are from each other."""
    try:
        moment = dt.datetime.fromisoformat(start)
    except ValueError:
        return 0
    return moment.toordinal() * 1440 + moment.hour * 60 + moment.minute
