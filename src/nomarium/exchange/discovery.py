"""From the address of a server, a person or a calendar to the calendar itself (RFC 6764; RFC 5397; RFC 4791, 5.3.1)."""

import re
import unicodedata
from collections.abc import Sequence
from typing import Final, NamedTuple
from urllib.parse import quote, urljoin

from nomarium.exchange.collection import forbidden
from nomarium.exchange.davxml import (  # fmt: skip
    CALDAV,
    DAV,
    Found,
    Name,
    mkcalendar,
    multistatus,
    no_calendar_server,
    propfind,
    proppatch,
)
from nomarium.exchange.fetch import shown_address
from nomarium.exchange.session import Answer, Session
from nomarium.model.addresses import shown_name
from nomarium.model.errors import SourceError, UsageError
from nomarium.model.problem import Place, Problem

_XML: Final = {"Content-Type": "application/xml; charset=utf-8"}
_PRINCIPAL, _HOME = (DAV, "current-user-principal"), (CALDAV, "calendar-home-set")
_TYPE, _NAME = (DAV, "resourcetype"), (DAV, "displayname")
_ASKED: Final = (_TYPE, _NAME, _PRINCIPAL, _HOME)


class NewCalendar(NamedTuple):
    """What a calendar that has to be made is to say of itself."""

    name: str
    zone_text: str = ""
    """Its zone as a VCALENDAR with a VTIMEZONE."""


def find_calendar(session: Session, url: str, new: NewCalendar | None, makes: bool = True) -> str:
    """The address of the calendar: `url` itself, or with `new` the one of that name, which is made where there is none.
    Raises SourceError where there is none and none is to be made."""
    here = _look(session, url, "0")
    if here is None or (new is not None and not _links(here)):
        here = _look(session, urljoin(url, "/.well-known/caldav"), "0") or here
    if here is None:
        called = shown_address(url)
        message = f"There is nothing at {called}."
        remedy = "Check the address; --calendar NAME beside the server's address finds or makes a calendar."
        raise SourceError(Problem("publish-missing", message, remedy, Place(called)))
    base, found = here
    if new is None:
        if _is_calendar(found[0]):
            return base if base.endswith("/") else f"{base}/"
        listed = _calendars(session, _home(session, url, here))
        names = ", ".join(f"“{one.text(_NAME) or one.href}”" for _, one in listed) or "none"
        called = shown_address(url)
        message = f"{called} is no calendar but a place that has some: {names}."
        raise SourceError(
            Problem(
                "publish-which",
                message,
                "Say which: --calendar NAME; it is made where there is none.",
                Place(called),
            )
        )
    home = _home(session, url, here)
    for address, one in _calendars(session, home):
        last = address.rstrip("/").rpartition("/")[2]
        if new.name.casefold() in (one.text(_NAME).casefold(), last.casefold()):
            return address
    return _make(session, home, new) if makes else ""


def _look(session: Session, url: str, depth: str) -> tuple[str, list[Found]] | None:
    """What a server says of an address, and the address at which it was found; None where there is nothing."""
    answer = session.send("PROPFIND", url, propfind(*_ASKED), {**_XML, "Depth": depth})
    if answer.status == 403:
        raise forbidden(url)
    if answer.status in (404, 405, 410):
        return None
    if answer.status != 207:
        raise no_calendar_server(url)
    found = multistatus(answer.content, url).found
    return (answer.url, found) if found else None


def _links(here: tuple[str, list[Found]]) -> bool:
    return _PRINCIPAL in here[1][0].props or _HOME in here[1][0].props


def _is_calendar(one: Found) -> bool:
    kind = one.props.get(_TYPE)
    return kind is not None and kind.find(f"{{{CALDAV}}}calendar") is not None


def _href_in(one: Found, name: Name) -> str:
    element = one.props.get(name)
    return (element.findtext(f"{{{DAV}}}href") or "").strip() if element is not None else ""


def _home(session: Session, url: str, here: tuple[str, list[Found]]) -> str:
    """Where a person's calendars are."""
    base, found = here
    home = _href_in(found[0], _HOME)
    principal = _href_in(found[0], _PRINCIPAL)
    if not home and principal:
        there = _look(session, urljoin(base, principal), "0")
        home = _href_in(there[1][0], _HOME) if there else ""
    if home:
        return urljoin(base, home if home.endswith("/") else f"{home}/")
    kind = found[0].props.get(_TYPE)
    if kind is not None and kind.find(f"{{{DAV}}}collection") is not None and not _is_calendar(found[0]):
        return base if base.endswith("/") else f"{base}/"  # a folder of calendars that says no more
    raise no_calendar_server(url)


def _calendars(session: Session, home: str) -> Sequence[tuple[str, Found]]:
    there = _look(session, home, "1")
    found = there[1] if there else []
    return [(urljoin(home, one.href), one) for one in found if _is_calendar(one)]


def _make(session: Session, home: str, new: NewCalendar) -> str:
    """Make a calendar with its name and its zone; a server that refuses both at once gets the name first."""
    url = urljoin(home, f"{quote(_slug(new.name))}/")
    zone: dict[Name, str] = {(CALDAV, "calendar-timezone"): new.zone_text} if new.zone_text else {}
    answer = session.send("MKCALENDAR", url, mkcalendar({_NAME: new.name, **zone}), _XML)
    rest = dict[Name, str]()
    if zone and not _is_made(answer):
        answer = session.send("MKCALENDAR", url, mkcalendar({_NAME: new.name}), _XML)
        rest = zone
    if not _is_made(answer):
        called = shown_address(url)
        if answer.status == 403:
            raise forbidden(url)
        message = f"The server does not make the calendar “{new.name}”: it answers {answer.status}."
        raise SourceError(
            Problem("publish-refused", message, "Make it there by hand and give its address.", Place(called))
        )
    if rest:  # a zone that it does not take is no reason to stop
        session.send("PROPPATCH", url, proppatch(rest), _XML)
    return url


def _is_made(answer: Answer) -> bool:
    return answer.status in (200, 201)


def _slug(name: str) -> str:
    """A name as the last part of an address."""
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().casefold()
    slug = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")
    return slug or "calendar-" + name.encode("utf-8").hex()[:24]


def check_address(url: str) -> None:
    """Raises UsageError for what is no address of a server, or holds a password, which the list of processes would show."""
    from urllib.parse import urlsplit

    try:
        parts = urlsplit(url)
        is_address = parts.scheme.lower() in ("http", "https") and bool(parts.hostname)
    except ValueError:
        is_address = False
    if not is_address:
        raise UsageError(
            Problem(
                "usage",
                f"--to {shown_name(url)} is no address of a server.",
                "Write it like https://calendar.school.example/.",
            )
        )
    if parts.username or parts.password:
        message = "--to holds a name or a password, and everybody on this machine can see command lines."
        remedy = (
            "Give the name with --user, the password in NOMARIUM_PASSWORD, in the keyring, or when asked."
        )
        raise UsageError(Problem("usage", message, remedy))
