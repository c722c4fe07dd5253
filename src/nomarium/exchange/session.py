"""Requests to a server that asks for a password, may be busy, and may be gone for a while."""

import datetime as dt
import threading
from collections.abc import Callable, Mapping
from email.utils import parsedate_to_datetime
from itertools import count
from typing import TYPE_CHECKING, Final, NamedTuple
from urllib.parse import urljoin, urlsplit

from nomarium.exchange.fetch import shown_address
from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem

if TYPE_CHECKING:
    import ssl

    import httpx

_TIMEOUT_SECS: Final = 30.0
_PAUSES_SECS: Final = (0.2, 0.5, 1.0, 2.0, 4.0)
"""Between one try and the next, where the server says nothing of it."""
_LONGEST_WAIT_SECS: Final = 120.0
"""The longest that one answer may ask to wait …"""
_ALL_WAITS_SECS: Final = 300.0
"""… and all of them together."""
_AGAIN: Final = frozenset((423, 429, 500, 502, 503, 504))
"""Answers after which the same request may do: locked, too many, a fault, a gateway, busy, late (RFC 9110, 15; RFC 4918, 11.3)."""
_ELSEWHERE: Final = frozenset((301, 302, 307, 308))
_MOST_REDIRECTS: Final = 5
_MOST_ANSWER_OCTETS: Final = 1 << 28


class Login(NamedTuple):
    """Who asks."""

    user: str = ""
    password: str = ""


class Waiting(NamedTuple):
    """The clock of whoever runs the program."""

    sleep: Callable[[float], None]
    now: Callable[[], dt.datetime]


class Answer(NamedTuple):
    """What the server said."""

    status: int
    headers: Mapping[str, str]
    content: bytes
    url: str
    """Where it was found at last."""


class Session:
    """Requests to one server; may be used by several threads at once."""

    def __init__(self, login: Login, waiting: Waiting, ca_file: str | None = None, parallel: int = 1) -> None:
        import httpx

        self._waiting = waiting
        self._waited = 0.0
        self._count = count(1)
        self._sent = 0
        self._alone = threading.Lock()
        self._is_alone = False
        """Whether writes go one after another, since the server has refused two at once."""
        try:
            self._client: httpx.Client = httpx.Client(
                auth=(login.user, login.password) if login.user else None,
                timeout=_TIMEOUT_SECS,
                verify=_trusted(ca_file) if ca_file else True,
                limits=httpx.Limits(max_connections=parallel + 1, max_keepalive_connections=parallel + 1),
            )
        except ValueError as error:  # a proxy, set in the environment, that makes no sense
            raise SourceError(
                Problem("publish-closed", "The settings of the proxy make no sense.", "Correct them.")
            ) from error

    @property
    def requests(self) -> int:
        """How many have been sent."""
        return self._sent

    def close(self) -> None:
        self._client.close()

    def send(
        self, method: str, url: str, content: bytes = b"", headers: Mapping[str, str] | None = None
    ) -> Answer:
        """Send a request, again where that may help. Raises SourceError when there is no answer, or none that can be worked
        with: a password that is not taken, another host, a wait that is too long."""
        is_write = method in ("PUT", "DELETE", "PROPPATCH", "MKCALENDAR")
        tries, redirects = 0, 0
        while True:
            alone = is_write and self._is_alone
            if alone:
                self._alone.acquire()
            try:
                found = self._once(method, url, content, headers or {})
            finally:
                if alone:
                    self._alone.release()
            if isinstance(found, Answer) and found.status in _ELSEWHERE and "location" in found.headers:
                redirects += 1
                url = self._elsewhere(url, found.headers["location"], redirects)
                continue
            if isinstance(found, Answer) and found.status not in _AGAIN:
                if found.status == 401:
                    raise self._unwelcome(url)
                return found
            if isinstance(found, Answer) and found.status == 423:
                self._is_alone = True
            wait = _asked_wait(found, self._waiting.now()) if isinstance(found, Answer) else None
            if wait is None:
                if tries >= len(_PAUSES_SECS):
                    if isinstance(found, Answer):
                        return found
                    raise _closed(url, found)
                wait = _PAUSES_SECS[tries]
                tries += 1
            self._wait(wait, url)

    def _once(
        self, method: str, url: str, content: bytes, headers: Mapping[str, str]
    ) -> "Answer | httpx.HTTPError":
        import httpx

        self._sent = next(self._count)  # one step, whichever thread takes it
        try:
            with self._client.stream(method, url, content=content or None, headers=dict(headers)) as response:
                octets = bytearray()
                for block in response.iter_bytes():
                    octets += block
                    if len(octets) > _MOST_ANSWER_OCTETS:
                        raise _closed(url, f"its answer is larger than {_MOST_ANSWER_OCTETS >> 20} MB")
                return Answer(response.status_code, dict(response.headers), bytes(octets), url)
        except httpx.TransportError as error:
            if "CERTIFICATE" in str(error).upper():
                raise _untrusted(url) from error
            return error
        except (httpx.HTTPError, httpx.InvalidURL) as error:
            raise _closed(url, error) from error

    def _wait(self, secs: float, url: str) -> None:
        self._waited += secs
        if secs > _LONGEST_WAIT_SECS or self._waited > _ALL_WAITS_SECS:
            when = (self._waiting.now() + dt.timedelta(seconds=secs)).strftime("%H:%M")
            message = f"{shown_address(url)} is busy and asks to wait until {when}."
            remedy = f"Publish again after {when}: what was sent stays, the rest follows."
            raise SourceError(Problem("publish-busy", message, remedy, Place(shown_address(url))))
        self._waiting.sleep(secs)

    def _elsewhere(self, url: str, location: str, redirects: int) -> str:
        target = urljoin(url, location)
        here, there = urlsplit(url), urlsplit(target)
        is_same = here.hostname == there.hostname and (
            here.port == there.port or (here.scheme, there.scheme) == ("http", "https")
        )
        if not is_same or (here.scheme, there.scheme) == ("https", "http"):
            message = f"{shown_address(url)} leads to another place, {shown_address(target)}: the password is not sent there."
            raise SourceError(
                Problem(
                    "publish-elsewhere",
                    message,
                    "If that is right, give its address.",
                    Place(shown_address(url)),
                )
            )
        if redirects > _MOST_REDIRECTS:
            raise _closed(url, "it leads round in a circle")
        return target

    def _unwelcome(self, url: str) -> SourceError:
        message = f"{shown_address(url)} does not take this name and password."
        remedy = "Check --user (or NOMARIUM_USER) and the password (NOMARIUM_PASSWORD, the keyring, or typed when asked)."
        return SourceError(Problem("publish-password", message, remedy, Place(shown_address(url))))


def _trusted(ca_file: str) -> "ssl.SSLContext":
    import ssl

    try:
        return ssl.create_default_context(cafile=ca_file)
    except (OSError, ssl.SSLError) as error:
        message = f"--ca-file {ca_file} holds no certificates that can be read."
        raise SourceError(Problem("publish-closed", message, "Give a file in PEM form.")) from error


def _asked_wait(answer: Answer, now: dt.datetime) -> float | None:
    """The seconds that an answer asks to wait, or None (RFC 9110, 10.2.3)."""
    said = answer.headers.get("retry-after", "").strip()
    if answer.status not in (429, 503) or not said:
        return None
    if said.isdigit():
        return float(said[:9])
    try:
        return max((parsedate_to_datetime(said) - now).total_seconds(), 0.0)
    except (TypeError, ValueError):
        return None


def _closed(url: str, why: object) -> SourceError:
    message = f"{shown_address(url)} cannot be reached: {str(why) or 'no answer'}."
    remedy = "Check the address and the network; publish again, and it goes on where it stopped."
    return SourceError(Problem("publish-closed", message, remedy, Place(shown_address(url))))


def _untrusted(url: str) -> SourceError:
    message = f"The certificate of {shown_address(url)} is not trusted."
    remedy = "Check the address; for a school's own authority give its certificate: --ca-file FILE."
    return SourceError(Problem("publish-untrusted", message, remedy, Place(shown_address(url))))
