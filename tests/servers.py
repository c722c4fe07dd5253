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
