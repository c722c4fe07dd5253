"""Phrases of repetition to rules, in English and French.

The words become signs (`every W2`, `O1 W0 of month`), and a few patterns over signs say what rule
they are: a phrase that no pattern knows is refused, never half understood.
"""

import re
from collections.abc import Callable
from functools import lru_cache
from pathlib import Path

from nomarium.model.recurrence import Rule
from nomarium.model.refusal import Refusal
from nomarium.reading.cells.words import Lexicon, fold

WORKDAYS = tuple((0, day) for day in range(5))
_WEEKEND = ((0, 5), (0, 6))
FORMS = (
    "Write it like every Tuesday until 18 June, every other week on Mon and Thu, first Monday of the month, "
    "daily for 10 days; or as an RFC 5545 rule."
)


@lru_cache(maxsize=1)
def _signs() -> tuple[re.Pattern[str], dict[str, str]]:
    """One pattern over all known words, the longest first, and the sign of each."""
    words: dict[str, str] = {"ieme": ""}
    path = Path(__file__).parents[1] / "data" / "repeatwords.txt"
    for line in path.read_text("utf-8").splitlines():
        sign, colon, listed = line.partition(": ")
        if colon and not line.startswith("#"):
            for word in listed.replace('","', ",").split(", "):
                words.setdefault(word.strip('"'), sign)
    listed_longest = sorted(words, key=len, reverse=True)
    return re.compile("|".join(re.escape(word) for word in listed_longest)), words


_FRENCH_WEEKDAYS = frozenset(
    "lundi mardi mercredi jeudi vendredi samedi dimanche lun mer jeu ven sam dim".split()
)


@lru_cache(maxsize=1)
def _telling_words() -> frozenset[str]:
    """Words of which each phrase of repetition has one, but for weekdays: those that say how often."""
    words = (word for word, sign in _signs()[1].items() if sign.isalpha() and sign != "of")
    return frozenset(part for word in words for part in re.findall(r"[^\W\d_]+", word) if len(part) > 1)


def may_say_repeat(text: str, lexicon: Lexicon) -> bool:
    """Whether a text has a weekday, a word that says how often, or the form of a rule: a quick look, since most have none."""
    if "=" in text:
        return True
    for word in re.findall(r"[^\W\d_]+", fold(text)):
        plain = word.removesuffix("s")
        if word in _telling_words() or any(
            one in lexicon.weekdays or one in _FRENCH_WEEKDAYS for one in (word, plain)
        ):
            return True
    return False


def signs_of(text: str, lexicon: Lexicon) -> str | Refusal:
    """A phrase as signs parted by spaces."""
    text = f" {fold(text)} ".replace("/", " & ").replace(",", " & ").replace("(", " ").replace(")", " ")
    text = re.sub(r"^ +(?:du|des) ", " ", text)
    text = re.sub(r"\b(un|une) (\w+) sur deux\b", r"every other \2", text)
    text = re.sub(r"\b(\w+)(?:s|is)? sur deux\b", r"every other \1", text)
    pattern, words = _signs()
    signs: list[str] = []
    at = 0
    while at < len(text):
        if text[at].isspace():
            at += 1
            continue
        word = re.compile(r"[^\s&]+|&").match(text, at)
        assert word is not None
        name = word[0].rstrip(".")
        plain = name if name in lexicon.weekdays else name.removesuffix("s")
        last = [sign for sign in signs if sign != "&"][-1:]
        is_month = plain in lexicon.months and bool(last) and (last[0][0] in "NOM" or last[0] == "of")
        if plain in lexicon.weekdays and not is_month:  # mar, in French
            signs.append(f"W{lexicon.weekdays[plain]}")
            at = word.end()
            continue
        known = pattern.match(text, at)
        while known and not _is_whole(text, known):
            known = _shorter(text, at, known, words)
        if known:
            sign = words[known[0]]
            signs += [sign] if sign not in ("-", "") else []
            at = known.end()
        elif name in lexicon.months:
            signs.append(f"M{lexicon.months[name]}")
            at = word.end()
        elif match := re.fullmatch(r"(\d{1,3})(st|nd|rd|th|er|re|e|eme)?", name):
            signs.append(f"{'O' if match[2] else 'N'}{match[1]}")
            at = word.end()
        else:
            return Refusal(
                "repeat-unread",
                f"{{}} is no repeat that is understood: “{name}” is not known here.",
                FORMS,
                "unlike",
            )
    return " ".join(signs)


def _is_whole(text: str, match: re.Match[str]) -> bool:
    """Whether a known word ends where a word of the text ends."""
    return match[0].endswith("'") or not text[match.end()].isalnum()


def _shorter(text: str, at: int, known: re.Match[str], words: dict[str, str]) -> re.Match[str] | None:
    for word in sorted((w for w in words if len(w) < len(known[0])), key=len, reverse=True):
        if text.startswith(word, at) and word:
            found = re.compile(re.escape(word)).match(text, at)
            if found and _is_whole(text, found):
                return found
    return None


def rule_of_phrase(text: str, lexicon: Lexicon) -> tuple[Rule, bool] | Refusal:
    """The rule of a phrase, and whether it is about school days."""
    signs = signs_of(text, lexicon)
    if isinstance(signs, Refusal):
        return signs
    if "twofold" in signs.split():
        message = "{} can mean twice in that time or once in two."
        return Refusal("repeat-ambiguous", message, "Write every other week, or name the days: Mon and Thu.")
    if re.fullmatch(r"every O[2345] (?:W\d)", signs):
        message = "{} can mean one in so many weeks, or that one of each month."
        return Refusal(
            "repeat-ambiguous",
            message,
            "Write every other Tuesday, or second Tuesday of the month.",
            "several",
        )
    for pattern, make in _PATTERNS:
        match = re.fullmatch(pattern, signs)
        if match:
            return make(match), "schoolday" in signs
    return Refusal("repeat-unread", "{} is no repeat that is understood.", FORMS, "unlike")


WEEKDAYS = r"W\d(?:(?: &)* W\d)*"
_ORDERED = r"[ON]-?\d+(?:(?: &)* [ON]-?\d+)*"
_MONTHS = r"M\d+(?:(?: &)* M\d+)*"
_OF_MONTH = r"(?:of )?(?:every )?month(?:ly)?"


def numbers_of(sign: str, text: str | None) -> tuple[int, ...]:
    return tuple(sorted({int(number) for number in re.findall(rf"[{sign}](-?\d+)", text or "")}))


def _week_days(text: str | None) -> tuple[tuple[int, int], ...]:
    return tuple((0, day) for day in numbers_of("W", text))


def _interval(match: re.Match[str]) -> int:
    parts = match.groupdict()
    return 2 if parts.get("other") else int(parts.get("n") or 1)


def _weekly(match: re.Match[str]) -> Rule:
    return Rule("WEEKLY", _interval(match), weekdays=_week_days(match.groupdict().get("days")))


def _monthly_weekday(match: re.Match[str]) -> Rule:
    parts = match.groupdict()
    numbers = numbers_of("ON", parts["numbers"])
    months = numbers_of("M", parts.get("months"))
    freq, kind = ("YEARLY" if months else "MONTHLY"), parts["kind"]
    if kind in ("weekday", "schoolday"):
        return Rule(freq, _interval(match), months=months, weekdays=WORKDAYS, positions=numbers)
    if kind == "weekend":
        return Rule(freq, _interval(match), months=months, weekdays=_WEEKEND, positions=numbers)
    if kind == "day":
        return Rule(freq, _interval(match), months=months, month_days=numbers)
    days = tuple((number, day) for number in numbers for day in numbers_of("W", kind))
    return Rule(freq, _interval(match), months=months, weekdays=days)


def _month_day(match: re.Match[str]) -> Rule:
    return Rule("MONTHLY", _interval(match), month_days=numbers_of("ON", match["numbers"]))


def _year_day(match: re.Match[str]) -> Rule:
    return Rule(
        "YEARLY", months=numbers_of("M", match["months"]), month_days=numbers_of("ON", match["numbers"])
    )


_KIND = rf"(?P<kind>{WEEKDAYS}|weekday|schoolday|weekend|day)"
_NUMBERS = rf"(?P<numbers>{_ORDERED})"
_EVERY_N = r"every N(?P<n>\d+)"
_PATTERNS: tuple[tuple[str, Callable[[re.Match[str]], Rule]], ...] = (
    (r"daily|(?:every )?day(?: every week)?|daily every day", lambda _: Rule("DAILY")),
    (r"(?:every )?(?:(?P<other>other)|N(?P<n>\d+)) day", lambda m: Rule("DAILY", _interval(m))),
    (r"(?:every |daily )?(?:weekday|schoolday)(?: weekly| daily)?", lambda _: Rule("WEEKLY", weekdays=WORKDAYS)),
    (r"(?:every )?weekend(?: weekly)?", lambda _: Rule("WEEKLY", weekdays=_WEEKEND)),
    (r"weekly|every week", lambda _: Rule("WEEKLY")),
    (r"(?:every )?fortnight|other week", lambda _: Rule("WEEKLY", 2)),
    (r"every [NO](?P<n>\d+) week", _weekly),
    (rf"(?:(?:weekly|every week|every|week) )?(?P<days>{WEEKDAYS})(?: weekly| every week| every)?", _weekly),
    (rf"(?:every )?(?P<other>other) (?:week )?(?:every )?(?P<days>{WEEKDAYS})", _weekly),
    (rf"(?:every )?(?P<other>fortnight) (?:every )?(?P<days>{WEEKDAYS})", _weekly),
    (rf"(?:every )?(?P<days>{WEEKDAYS}) (?:every )?(?P<other>fortnight|other week)", _weekly),
    (rf"{_EVERY_N} week (?:of )?(?:every )?(?P<days>{WEEKDAYS})", _weekly),
    (rf"(?P<days>{WEEKDAYS}) {_EVERY_N} week", _weekly),
    (rf"(?:every )?(?P<days>{WEEKDAYS}) of (?P<months>{_MONTHS})",
     lambda m: Rule("YEARLY", months=numbers_of("M", m["months"]), weekdays=_week_days(m["days"]))),
    (rf"(?:monthly (?:& )?|every month (?:& )?|every )?{_NUMBERS} {_KIND}(?: {_OF_MONTH})?", _monthly_weekday),
    (rf"(?:every )?{_NUMBERS} {_KIND} (?:of )?(?:(?P<other>other)|{_EVERY_N}) month", _monthly_weekday),
    (rf"(?:(?P<other>other)|{_EVERY_N}) month {_NUMBERS} {_KIND}", _monthly_weekday),
    (rf"(?:every )?{_NUMBERS} {_KIND} (?:of )?(?:every )?(?P<months>{_MONTHS})(?: yearly| every year)?", _monthly_weekday),
    (r"monthly|every month", lambda _: Rule("MONTHLY")),
    (r"(?P<other>other) month", lambda _: Rule("MONTHLY", 2)),
    (rf"{_EVERY_N} month", lambda m: Rule("MONTHLY", _interval(m))),
    (rf"(?:monthly|every month)(?: day)? {_NUMBERS}", _month_day),
    (rf"(?:every )?(?:day )?{_NUMBERS}(?: day)? {_OF_MONTH}", _month_day),
    (rf"(?:(?P<other>other)|{_EVERY_N}) month(?: day)? {_NUMBERS}", _month_day),
    (r"quarterly|every quarter", lambda _: Rule("MONTHLY", 3)),
    (r"yearly|every year", lambda _: Rule("YEARLY")),
    (r"(?P<other>other) year", lambda _: Rule("YEARLY", 2)),
    (rf"{_EVERY_N} year", lambda m: Rule("YEARLY", _interval(m))),
    (rf"(?:every year |yearly |every )?{_NUMBERS} (?:of )?(?P<months>{_MONTHS})(?: every year| yearly)?", _year_day),
    (rf"(?:every year |yearly |every )?(?P<months>{_MONTHS}) {_NUMBERS}(?: every year| yearly)?", _year_day),
)  # fmt: skip
"""Patterns over signs; `other` present means every second."""
