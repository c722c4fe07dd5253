"""Calendar servers for the tests: two real ones on loopback, and a proxy that gets in their way."""

from __future__ import annotations

import http.client
import socket
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

import httpx

USER, PASSWORD = "office", "rope-and-tar"


def free_port() -> int:
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


@contextmanager
def running(folder: Path, kind: str) -> Iterator[str]:
    """A server of a kind, by its address; ended when the block ends."""
    port = free_port()
    if kind == "radicale":
        (folder / "users").write_text(f"{USER}:{PASSWORD}\n")
        (folder / "config").write_text(
            f"[server]\nhosts = 127.0.0.1:{port}\nmax_connections = 40\n"
            f"[auth]\ntype = htpasswd\nhtpasswd_filename = {folder}/users\nhtpasswd_encryption = plain\ndelay = 0\n"
            f"[storage]\nfilesystem_folder = {folder}/collections\n[logging]\nlevel = error\n"
        )
        command = ["radicale", "--config", str(folder / "config")]
    else:
        command = ["xandikos", "serve", "--defaults", "--current-user-principal", f"/{USER}/",
                   "-d", str(folder / "collections"), "-l", "127.0.0.1", "-p", str(port)]  # fmt: skip
    log = (folder / "log").open("wb")
    process = subprocess.Popen([sys.executable, "-m", *command], stdout=log, stderr=log)
    url = f"http://127.0.0.1:{port}/"
    try:
        for _ in range(300):
            try:
                httpx.request("OPTIONS", url, timeout=1)
                break
            except httpx.TransportError:
                assert process.poll() is None, (folder / "log").read_text()
                time.sleep(0.1)
        yield url
    finally:
        process.terminate()
        process.wait(10)
        log.close()


@dataclass
class Request:
    """One that went through the proxy."""

    method: str
    path: str
    headers: dict[str, str]
    body: bytes


@dataclass
class Proxy:
    """Hands requests on, unless it is told to do something else with one of them."""

    url: str
    seen: list[Request] = field(default_factory=list)
    act: Callable[[int, Request], Any] = lambda _, __: None
    """By the number of the request, from 0: None, a status, (status, headers, body), `cut` (before it is handed on), `lose` (the
    answer) or a function to be called first."""

    def methods(self) -> list[str]:
        return [one.method for one in self.seen]


@contextmanager
def proxied(upstream: str) -> Iterator[Proxy]:
    """A proxy before a server, at an address of its own."""
    port = free_port()
    proxy = Proxy(f"http://127.0.0.1:{port}/")
    host = upstream.removeprefix("http://").rstrip("/")
    lock = threading.Lock()

    class Handler(BaseHTTPRequestHandler):
        protocol_version = "HTTP/1.1"

        def _handle(self) -> None:
            self.close_connection = True
            body = self.rfile.read(int(self.headers.get("Content-Length") or 0))
            request = Request(
                self.command, self.path, {name.lower(): text for name, text in self.headers.items()}, body
            )
            with lock:
                number = len(proxy.seen)
                proxy.seen.append(request)
            action = proxy.act(number, request)
            if callable(action):
                action()
                action = None
            if action == "cut":
                self.connection.shutdown(socket.SHUT_RDWR)
                return
            if isinstance(action, int):
                action = (action, {}, b"")
            if isinstance(action, tuple):
                self._answer(*action)
                return
            there = http.client.HTTPConnection(host, timeout=30)
            headers = {
                name: text
                for name, text in self.headers.items()
                if name.lower() not in ("host", "connection")
            }
            there.request(self.command, self.path, body, headers)
            answer = there.getresponse()
            content = answer.read()
            there.close()
            if action == "lose":
                self.connection.shutdown(socket.SHUT_RDWR)
                return
            kept = {
                name: text
                for name, text in answer.getheaders()
                if name.lower() not in ("transfer-encoding", "content-length", "connection")
            }
            self._answer(answer.status, kept, content)

        def _answer(self, status: int, headers: dict[str, str], content: bytes) -> None:
            self.send_response(status)
            for name, text in headers.items():
                self.send_header(name, text)
            self.send_header("Content-Length", str(len(content)))
            self.send_header("Connection", "close")
            self.end_headers()
            self.wfile.write(content)

        def log_message(self, *_: object) -> None:
            pass

        def __getattr__(self, name: str) -> Any:
            if name.startswith("do_"):  # whatever the method
                return self._handle
            raise AttributeError(name)

    server = ThreadingHTTPServer(("127.0.0.1", port), Handler)
    server.daemon_threads = True
    thread = threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True)
    thread.start()
    try:
        yield proxy
    finally:
        server.shutdown()
        server.server_close()


class Application:
    """What people see and change on the server: every resource of a calendar, by an independent client."""

    def __init__(self, url: str) -> None:
        self.url = url

    def _ask(self, method: str, path: str = "", **more: Any) -> httpx.Response:
        return httpx.request(
            method, httpx.URL(self.url).join(path), auth=(USER, PASSWORD), timeout=30, **more
        )

    def resources(self) -> dict[str, str]:
        body = b'<?xml version="1.0"?><d:propfind xmlns:d="DAV:"><d:prop><d:getetag/></d:prop></d:propfind>'
        listed = self._ask(
            "PROPFIND", content=body, headers={"Depth": "1", "Content-Type": "application/xml"}
        )
        assert listed.status_code == 207, listed.text
        import re

        paths = [
            path for path in re.findall(r"<(?:\w+:)?href>([^<]+)</", listed.text) if path.endswith(".ics")
        ]
        return {path: self._ask("GET", path).text for path in paths}

    def events(self) -> dict[str, list[Any]]:
        """The VEVENTs of every UID."""
        import icalendar

        found: dict[str, list[Any]] = {}
        for text in self.resources().values():
            for event in icalendar.Calendar.from_ical(text).walk("VEVENT"):
                found.setdefault(str(event["UID"]), []).append(event)
        return found

    def change(self, title: str, old: str, new: str) -> None:
        """Change a text in the event of this title."""
        for path, text in self.resources().items():
            if f"SUMMARY:{title}" in text:
                assert old in text
                put = self._ask(
                    "PUT",
                    path,
                    content=text.replace(old, new),
                    headers={"Content-Type": "text/calendar"},
                )
                assert put.status_code in (200, 201, 204), put.text
                return
        raise AssertionError(f"no {title}")

    def delete(self, title: str) -> None:
        path = next(path for path, text in self.resources().items() if f"SUMMARY:{title}" in text)
        assert self._ask("DELETE", path).status_code in (200, 204)

    def add(self, uid: str, title: str) -> None:
        text = (
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//People//EN\r\nBEGIN:VEVENT\r\n"
            f"UID:{uid}\r\nDTSTAMP:20261101T000000Z\r\nDTSTART:20261125T150000Z\r\nDTEND:20261125T160000Z\r\nSUMMARY:{title}\r\n"
            "END:VEVENT\r\nEND:VCALENDAR\r\n"
        )
        put = self._ask("PUT", f"{uid}.ics", content=text, headers={"Content-Type": "text/calendar"})
        assert put.status_code in (200, 201, 204), put.text


@contextmanager
def terse_server() -> Iterator[str]:
    """A calendar server that speaks as little as it may (RFC 4791, 5): no sync-collection, no ETag after PUT, one calendar at /cal/.
    It stores what it is given in its own words: properties in another order and folded elsewhere, with stamps and lines of its own,
    school data dropped."""
    import re
    from email.utils import formatdate

    stored: dict[str, tuple[str, int]] = {}
    numbers = iter(range(1, 10_000))
    lock = threading.Lock()

    def own_words(text: str) -> str:
        lines = text.replace("\r\n ", "").split("\r\n")
        out, event, inside = [], [], False
        for line in lines:
            if line == "BEGIN:VEVENT":
                inside, event = True, []
            elif line == "END:VEVENT":
                inside = False
                kept = [one for one in event if not one.startswith(("X-NOMARIUM-TEACHER", "DTSTAMP"))]
                out += ["BEGIN:VEVENT", *sorted(kept, reverse=True), "DTSTAMP:20300101T000000Z", "LAST-MODIFIED:20300101T000000Z",
                        "X-SERVER-SEEN:1", "END:VEVENT"]  # fmt: skip
            elif inside:
                event.append(line)
            else:
                out.append(line)
        return "\r\n".join("\r\n ".join(re.findall(".{1,40}", line)) for line in out if line) + "\r\n"

    class Handler(BaseHTTPRequestHandler):
        protocol_version = "HTTP/1.1"

        def __getattr__(self, name: str) -> Any:
            if name.startswith("do_"):
                return self._handle
            raise AttributeError(name)

        def _handle(self) -> None:
            self.close_connection = True
            body = self.rfile.read(int(self.headers.get("Content-Length") or 0)).decode()
            with lock:
                status, content = self._answer(body)
            self.send_response(status)
            self.send_header("Date", formatdate(usegmt=True))
            self.send_header("Content-Length", str(len(content.encode())))
            self.send_header("Connection", "close")
            self.end_headers()
            self.wfile.write(content.encode())

        def _answer(self, body: str) -> tuple[int, str]:
            path, known = self.path, stored.get(self.path)
            tag = f'W/"{known[1]}"' if known else ""
            if self.command == "PROPFIND":
                if path != "/cal/":
                    return 404, ""
                kind = "<d:resourcetype><d:collection/><c:calendar/></d:resourcetype>"
                rows = [
                    f"<d:response><d:href>/cal/</d:href><d:propstat><d:prop>{kind}</d:prop><d:status>HTTP/1.1 200 OK</d:status></d:propstat></d:response>"
                ]
                if self.headers.get("Depth") == "1":
                    rows += [self._row(one, "") for one in stored]
                return 207, self._status(rows)
            if self.command == "REPORT":
                if "calendar-multiget" not in body:
                    return 403, ""
                wanted = re.findall(r"<d:href>([^<]+)</d:href>", body)
                from xml.sax.saxutils import escape

                return 207, self._status(
                    [self._row(one, escape(stored[one][0])) for one in wanted if one in stored]
                )
            if self.command == "PUT":
                if (self.headers.get("If-None-Match") == "*" and known) or self.headers.get(
                    "If-Match", tag
                ) != tag:
                    return 412, ""
                stored[path] = own_words(body), next(numbers)
                return (204 if known else 201), ""
            if self.command == "DELETE":
                if known is None or self.headers.get("If-Match", tag) != tag:
                    return (404 if known is None else 412), ""
                del stored[path]
                return 204, ""
            return (200, known[0]) if self.command == "GET" and known else (405, "")

        def _row(self, path: str, data: str) -> str:
            props = f'<d:getetag>W/"{stored[path][1]}"</d:getetag>' + (
                f"<c:calendar-data>{data}</c:calendar-data>" if data else ""
            )
            return f"<d:response><d:href>{path}</d:href><d:propstat><d:prop>{props}</d:prop><d:status>HTTP/1.1 200 OK</d:status></d:propstat></d:response>"

        def _status(self, rows: list[str]) -> str:
            return f'<?xml version="1.0"?><d:multistatus xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav">{"".join(rows)}</d:multistatus>'

        def log_message(self, *_: object) -> None:
            pass

    server = ThreadingHTTPServer(("127.0.0.1", free_port()), Handler)
    server.daemon_threads = True
    threading.Thread(target=server.serve_forever, kwargs={"poll_interval": 0.05}, daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.server_address[1]}/cal/"
    finally:
        server.shutdown()
        server.server_close()
