"""What is asked of a WebDAV server and what it answers, as XML (RFC 4918; RFC 4791; RFC 6578)."""

from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, Final, NamedTuple
from xml.sax.saxutils import escape

from nomarium.exchange.fetch import shown_address
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem

if TYPE_CHECKING:
    from xml.etree.ElementTree import Element

_PREFIXES: Final = {"DAV:": "d", "urn:ietf:params:xml:ns:caldav": "c"}
DAV, CALDAV = _PREFIXES
_NAMESPACES: Final = " ".join(f'xmlns:{prefix}="{name}"' for name, prefix in _PREFIXES.items())

Name = tuple[str, str]
"""Namespace and local name."""


class Found(NamedTuple):
    """What a server says of one resource."""

    href: str
    status: int
    """Of the resource as a whole; 200 where it says nothing of that."""
    props: "Mapping[Name, Element]"
    """The properties that it has."""

    def text(self, name: Name) -> str:
        element = self.props.get(name)
        return (element.text or "").strip() if element is not None else ""


class Multistatus(NamedTuple):
    """An answer about many."""

    found: list[Found]
    token: str = ""
    """Of a sync-collection: what to ask with the next time."""


def _tag(name: Name) -> str:
    return f"{_PREFIXES[name[0]]}:{name[1]}"


def _document(root: str, inside: str) -> bytes:
    return f'<?xml version="1.0" encoding="utf-8"?><{root} {_NAMESPACES}>{inside}</{root}>'.encode()


def _props(names: Iterable[Name]) -> str:
    return f"<d:prop>{''.join(f'<{_tag(name)}/>' for name in names)}</d:prop>"


def propfind(*names: Name) -> bytes:
    """Which properties are asked for (RFC 4918, 9.1)."""
    return _document("d:propfind", _props(names))


def sync_collection(token: str) -> bytes:
    """What has changed since a token; everything without one (RFC 6578, 3.2)."""
    inside = f"<d:sync-token>{escape(token)}</d:sync-token><d:sync-level>1</d:sync-level>"
    return _document("d:sync-collection", inside + _props(((DAV, "getetag"),)))


def multiget(hrefs: Iterable[str]) -> bytes:
    """The texts of resources (RFC 4791, 7.9)."""
    listed = "".join(f"<d:href>{escape(href)}</d:href>" for href in hrefs)
    return _document("c:calendar-multiget", _props(((DAV, "getetag"), (CALDAV, "calendar-data"))) + listed)


def mkcalendar(values: Mapping[Name, str]) -> bytes:
    """A new calendar with these properties (RFC 4791, 5.3.1)."""
    return _document("c:mkcalendar", f"<d:set>{_values(values)}</d:set>")


def proppatch(values: Mapping[Name, str]) -> bytes:
    """Properties to set (RFC 4918, 9.2)."""
    return _document("d:propertyupdate", f"<d:set>{_values(values)}</d:set>")


def _values(values: Mapping[Name, str]) -> str:
    inside = "".join(f"<{_tag(name)}>{escape(text)}</{_tag(name)}>" for name, text in values.items())
    return f"<d:prop>{inside}</d:prop>"


def multistatus(content: bytes, url: str) -> Multistatus:
    """Read a multistatus answer (RFC 4918, 13). Raises SourceError for anything else."""
    from xml.etree.ElementTree import ParseError

    from defusedxml import DefusedXmlException
    from defusedxml.ElementTree import fromstring

    try:
        root = fromstring(content)
    except (ParseError, DefusedXmlException, ValueError) as error:
        raise no_calendar_server(url) from error
    if root.tag != f"{{{DAV}}}multistatus":
        raise no_calendar_server(url)
    found = []
    for response in root.iterfind(f"{{{DAV}}}response"):
        props: dict[Name, Element] = {}
        for stat in response.iterfind(f"{{{DAV}}}propstat"):
            if _status(stat) == 200:
                for prop in stat.iterfind(f"{{{DAV}}}prop"):
                    props.update({_name(one): one for one in prop})
        href = (response.findtext(f"{{{DAV}}}href") or "").strip()
        found.append(Found(href, _status(response), props))
    return Multistatus(found, (root.findtext(f"{{{DAV}}}sync-token") or "").strip())


def _name(element: "Element") -> Name:
    space, _, local = element.tag[1:].partition("}")
    return space, local


def _status(element: "Element") -> int:
    words = (element.findtext(f"{{{DAV}}}status") or "HTTP/1.1 200").split()
    return int(words[1]) if len(words) > 1 and words[1].isdigit() else 200


def no_calendar_server(url: str) -> SourceError:
    """The address is answered by something that is no calendar server."""
    called = shown_address(url)
    message = f"{called} does not answer as a calendar server does (CalDAV, RFC 4791)."
    return SourceError(
        Problem("publish-no-server", message, "Check the address with whoever keeps it.", Place(called))
    )
