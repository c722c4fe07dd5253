"""One calendar on a server: what is in it, what has changed since, and how its resources are put, taken and removed
(RFC 4791, 5.3; RFC 6578)."""

from collections.abc import Iterable, Sequence
from typing import Final, NamedTuple
from urllib.parse import quote, unquote, urljoin, urlsplit

from nomarium.exchange.davxml import (  # fmt: skip
    CALDAV,
    DAV,
    Found,
    multiget,
    multistatus,
    no_calendar_server,
    propfind,
    sync_collection,
)
from nomarium.exchange.fetch import shown_address
from nomarium.exchange.session import Answer, Session
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem

_XML: Final = {"Content-Type": "application/xml; charset=utf-8"}
_AT_ONCE: Final = 200
"""Resources whose texts are asked for in one request."""
_SAFE: Final = "/@:!$&'()*+,;=~-._"
_GONE: Final = frozenset((404, 410))


class Seen(NamedTuple):
    """What is in a calendar, or has changed in it since a token."""

    etags: dict[str, str]
    """By path."""
    gone: frozenset[str]
    token: str
    is_whole: bool
    """Whether everything is listed, not only what has changed."""


class Resource(NamedTuple):
    """What one address holds."""

    etag: str
    text: str


class Collection:
    """A calendar by its address, which ends with a slash."""

    def __init__(self, session: Session, url: str) -> None:
        self._session = session
        self.url = url if url.endswith("/") else f"{url}/"
        self._path = path_of(self.url, "")

    def look(self, token: str) -> Seen:
        """What has changed since the token; everything where there is none, or the server does not know it any more."""
        etags: dict[str, str] = {}
        gone: set[str] = set()
        is_whole = not token
        while True:
            answer = self._session.send("REPORT", self.url, sync_collection(token), {**_XML, "Depth": "0"})
            if answer.status != 207:
                break
            found = multistatus(answer.content, self.url)
            is_cut = False
            for one in found.found:
                path = path_of(self.url, one.href)
                is_cut |= (
                    path == self._path and one.status == 507
                )  # the rest is to be asked for (RFC 6578, 3.6)
                if path == self._path:
                    continue
                if one.status in _GONE:
                    gone.add(path)
                    etags.pop(path, None)
                else:
                    etags[path] = one.text((DAV, "getetag"))
                    gone.discard(path)
            if not is_cut or found.token == token:
                return Seen(etags, frozenset(gone), found.token, is_whole)
            token = found.token
        self._check(answer)
        if token and answer.status in (400, 403, 409, 412, 507):  # the token is none any more (RFC 6578, 3.2)
            return self.look("")
        return self._list()

    def _list(self) -> Seen:
        """The same from a server that does not speak sync-collection."""
        headers = {**_XML, "Depth": "1"}
        answer = self._session.send("PROPFIND", self.url, propfind((DAV, "getetag")), headers)
        self._check(answer)
        if answer.status == 403:
            raise forbidden(self.url)
        if answer.status != 207:
            raise no_calendar_server(self.url)
        etags = {
            path_of(self.url, one.href): one.text((DAV, "getetag"))
            for one in multistatus(answer.content, self.url).found
        }
        etags.pop(self._path, None)
        return Seen(
            {path: etag for path, etag in etags.items() if not path.endswith("/")}, frozenset(), "", True
        )

    def _check(self, answer: Answer) -> None:
        called = shown_address(self.url)
        if answer.status in _GONE:
            message = f"There is no calendar at {called}."
            remedy = "Check the address; --calendar NAME beside the server's address finds or makes one."
            raise SourceError(Problem("publish-missing", message, remedy, Place(called)))

    def texts(self, paths: Sequence[str]) -> dict[str, Resource]:
        """The texts of resources by their paths; those that are gone are left out."""
        found: dict[str, Resource] = {}
        for start in range(0, len(paths), _AT_ONCE):
            some = paths[start : start + _AT_ONCE]
            body = multiget(quote(path, safe=_SAFE) for path in some)
            answer = self._session.send("REPORT", self.url, body, {**_XML, "Depth": "1"})
            if answer.status != 207:
                raise no_calendar_server(self.url)
            found |= _resources(self.url, multistatus(answer.content, self.url).found)
        return found

    def put(self, path: str, text: str, etag: str | None) -> Answer:
        """Put a resource: a new one (`etag` None), or over the state that is known by its ETag."""
        headers = {"Content-Type": "text/calendar; charset=utf-8; component=VEVENT"}
        headers |= {"If-None-Match": "*"} if etag is None else {"If-Match": etag} if etag else {}
        return self._session.send("PUT", self._at(path), text.encode("utf-8", "replace"), headers)

    def delete(self, path: str, etag: str) -> Answer:
        """Remove a resource whose state is known by its ETag."""
        return self._session.send("DELETE", self._at(path), headers={"If-Match": etag} if etag else {})

    def _at(self, path: str) -> str:
        return urljoin(self.url, quote(path, safe=_SAFE))

    def path_for(self, name: str) -> str:
        """The path of a resource of this name."""
        return f"{self._path}{name}"


def path_of(url: str, href: str) -> str:
    """The path that an answer means, in one spelling."""
    return unquote(urlsplit(urljoin(url, href)).path)


def _resources(url: str, found: Iterable[Found]) -> dict[str, Resource]:
    resources = {}
    for one in found:
        data = one.props.get((CALDAV, "calendar-data"))
        if data is not None and data.text:
            resources[path_of(url, one.href)] = Resource(one.text((DAV, "getetag")), data.text)
    return resources


def forbidden(url: str) -> SourceError:
    """The server does not let this user do it."""
    called = shown_address(url)
    message = f"The server does not allow this user to write to {called}."
    return SourceError(
        Problem("publish-forbidden", message, "Ask for the right to, or check --user.", Place(called))
    )
