"""Mail messages (RFC 5322; RFC 2045 to 2049): their text, or the tables of their HTML where these alone have them. Calendar parts
are calendars, and are read as such (`calendar_part`); quoted lines are nobody's events."""

import email
import email.policy
import re
from email.message import EmailMessage, MIMEPart
from pathlib import Path

from nomarium.model.errors import SourceError
from nomarium.model.limits import MOST_MAIL_PARTS
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import MONTHS
from nomarium.sheets.documents import Document, sheets_of
from nomarium.sheets.sheet import SENT, Sheet
from nomarium.sheets.webpages import page_document


def open_mail(path: Path, name: str) -> list[Sheet]:
    """The tables and lines of a message."""
    message = _message(path, name)
    plain, page = message.get_body(("plain",)), message.get_body(("html",))
    of_page = page_document(_text(page)) if page is not None else Document([], [])
    lines = _text(plain).splitlines() if plain is not None else of_page.lines
    # the plain text says the same as the page, without its tables; or no more than where to look
    if not any(map(str.isdigit, "".join(lines))) and any(map(str.isdigit, "".join(of_page.lines))):
        lines = of_page.lines
    sheets = sheets_of(of_page if of_page.tables else Document([], lines), name)
    sheets = [one._replace(said_above=(*_sent(message), *one.said_above)) for one in sheets]
    notes = tuple(_unread(message, name))
    return [sheets[0]._replace(notes=(*sheets[0].notes, *notes)), *sheets[1:]] if sheets and notes else sheets


def calendar_part(path: Path, name: str) -> bytes | None:
    """The calendar that a message carries, or None."""
    for part in _message(path, name).walk():
        if part.get_content_type() == "text/calendar":
            content = part.get_payload(decode=True)
            if isinstance(content, bytes) and b"BEGIN:VCALENDAR" in content.upper():
                return content
    return None


def _message(path: Path, name: str) -> EmailMessage:
    """The message in a file. Raises SourceError for one of more parts within parts than any has: reading each costs as much
    as there are around it."""
    octets = path.read_bytes()
    if len(re.findall(rb"multipart/", octets, re.IGNORECASE)) > MOST_MAIL_PARTS:
        message = f"{name} is not read: it has more than {MOST_MAIL_PARTS} parts that hold others."
        remedy = "It is damaged, or made to do harm: save its text as a file."
        raise SourceError(Problem("source-beyond", message, remedy, Place(name)))
    return email.message_from_bytes(octets, policy=email.policy.default)


def _sent(message: EmailMessage) -> tuple[tuple[int, str], ...]:
    """When a message was sent (RFC 5322, 3.6.1), as what stands above its first line."""
    try:
        date = message["Date"].datetime
    except (AttributeError, KeyError, TypeError, ValueError):
        return ()
    return ((SENT, f"{date.day} {MONTHS[date.month - 1]} {date.year}"),) if date is not None else ()


def _text(part: "MIMEPart | None") -> str:
    if part is None:
        return ""
    try:
        return str(part.get_content())
    except (LookupError, KeyError, ValueError):
        payload = part.get_payload(decode=True)
        return payload.decode("utf-8", "replace") if isinstance(payload, bytes) else ""


def _unread(message: EmailMessage, name: str) -> list[Problem]:
    """The attachments, which are files of their own."""
    named = [
        part.get_filename() or part.get_content_type()
        for part in message.iter_attachments()
        if part.get_content_type() != "text/calendar"
    ]
    if not named:
        return []
    text = f"Not read: the attachments {', '.join(f'“{one}”' for one in named)}."
    return [note("mail-attachments", text, "Save them as files, and name those.").at(Place(name))]
