"""From the name of a source to its sheets: what its first bytes say it is, not what its ending says."""

import re
from pathlib import Path

from nomarium.model.addresses import shown_name
from nomarium.model.errors import EmptySourceError, SourceError
from nomarium.model.problem import Place, Problem, note
from nomarium.model.wording import meant
from nomarium.sheets.delimited import open_delimited
from nomarium.sheets.sheet import Sheet

_ENDINGS = {
    "xlsx": frozenset({".xlsx", ".xlsm"}),
    "xlsb": frozenset({".xlsb"}),
    "xls": frozenset({".xls"}),
    "ods": frozenset({".ods"}),
}
_OTHER_KINDS = (
    (b"\x89PNG", "a picture"),
    (b"\xff\xd8\xff", "a picture"),
    (b"GIF8", "a picture"),
    (b"\x1f\x8b", "a compressed file (gzip)"),
    (b"{\\rtf", "a text document"),
)
_KIND_NAMES = {
    "xlsx": "an .xlsx workbook",
    "xlsb": "an .xlsb workbook",
    "xls": "an .xls workbook",
    "ods": "an .ods workbook",
    "text": "delimited text",
}


def open_source(path: Path, name: str, wanted_sheets: tuple[str, ...] = ()) -> list[Sheet]:
    """The sheets of a file, which messages call `name`. Raises SourceError when it cannot be read."""
    if path.is_dir():
        return _open_folder(path, name, wanted_sheets)
    try:
        with path.open("rb") as file:
            head = file.read(4096)
    except FileNotFoundError as error:
        called = shown_name(name)
        raise _refusal("source-missing", f"There is no file {called}.", _near(path), called) from error
    except OSError as error:
        why = error.strerror or str(error)
        raise _refusal("source-closed", f"{name} cannot be opened: {why}.", "", name) from error
    if not head:
        problem = Problem("source-empty", f"{name} is empty.", "Check that it was saved.", Place(name))
        raise EmptySourceError(problem)
    kind = _kind(path, head, name)
    if kind in ("docx", "odt", "html", "eml", "pdf"):
        return _open_text(path, name, kind)
    ending = Path(name).suffix.lower() if "://" not in name else ""
    if kind == "text":
        sheets = _drawn_with_bars(path, name, head) or [open_delimited(path, name)]
        misnamed = ending in frozenset().union(*_ENDINGS.values())
    else:
        from nomarium.sheets.workbook import open_workbook

        sheets = open_workbook(path, name, kind, wanted_sheets)
        misnamed = ending not in _ENDINGS[kind] and ending != ""
    if misnamed and sheets:
        told = note("source-misnamed", f"{name} is {_KIND_NAMES[kind]} inside, and was read as that.")
        sheets[0] = sheets[0]._replace(notes=(told.at(Place(name)), *sheets[0].notes))
    return sheets


def _drawn_with_bars(path: Path, name: str, head: bytes) -> list[Sheet]:
    """The tables and lines of a text that draws tables with bars; none for any other text."""
    if b"|" not in head or b"--" not in head:
        return []
    from nomarium.sheets.documents import sheets_of
    from nomarium.sheets.encoding import text_kind
    from nomarium.sheets.markdown import has_tables, tables_and_lines

    lines = path.read_text(text_kind(path, name).encoding, "replace").splitlines()
    return sheets_of(tables_and_lines(lines), name) if has_tables(lines) else []


def _open_text(path: Path, name: str, kind: str) -> list[Sheet]:
    """The tables and lines of a document."""
    if kind in ("docx", "odt"):
        from nomarium.sheets.documents import open_document

        sheets = open_document(path, name, kind)
    elif kind == "pdf":
        from nomarium.sheets.pdf import open_pdf

        sheets = open_pdf(path, name)
    elif kind == "html":
        from nomarium.sheets.documents import sheets_of
        from nomarium.sheets.encoding import text_kind
        from nomarium.sheets.webpages import page_document

        encoding = text_kind(path, name).encoding
        sheets = sheets_of(page_document(path.read_text(encoding, "replace")), name)
    else:
        from nomarium.sheets.mail import open_mail

        sheets = open_mail(path, name)
    if not sheets:
        raise EmptySourceError(
            Problem(
                "source-empty",
                f"{name} holds no table and no line of text to be read.",
                "Check that it was saved, and that not all of it is crossed out or hidden.",
                Place(name),
            )
        )
    return sheets


def _is_mail(head: bytes, name: str) -> bool:
    """Whether a text is a mail message (RFC 5322): fields of a head, and a From among them."""
    lines = head.split(b"\n")[:40]
    fields = [
        re.match(rb"([A-Za-z][A-Za-z-]*):", line) for line in lines if line and line[:1] not in b" \t\r"
    ]
    known = {match[1].lower() for match in fields if match}
    return len(
        known & {b"from", b"to", b"subject", b"date", b"message-id", b"mime-version", b"received"}
    ) >= 3 or (name.lower().endswith(".eml") and b"from" in known)


_IN_FOLDERS = frozenset((".csv", ".tsv", ".txt", ".xlsx", ".xls", ".ods"))


def _open_folder(path: Path, name: str, wanted_sheets: tuple[str, ...]) -> list[Sheet]:
    """The tables of a folder, each a sheet of the folder with its file's name."""
    files = sorted(
        one for one in path.iterdir() if one.suffix.lower() in _IN_FOLDERS and one.name[0] not in ".~"
    )
    if not files:
        remedy = "Name a spreadsheet, or a folder that holds the tables of a plan as .csv files."
        raise _refusal("source-folder", f"{name} is a folder without spreadsheets.", remedy, name)
    sheets = []
    for file in files:
        if wanted_sheets and file.stem.casefold() not in {one.casefold() for one in wanted_sheets}:
            continue
        try:
            found = open_source(file, f"{name.rstrip('/')}/{file.name}")
        except EmptySourceError:
            continue
        sheets += [one._replace(file=name, name=file.stem) for one in found]
    return sheets


def is_calendar_file(path: Path) -> bool:
    """Whether a file begins as a calendar file does, whatever its name; no when it cannot be opened."""
    try:
        with path.open("rb") as file:
            head = file.read(512)
    except OSError:
        return False
    plain = re.sub(rb"[\0\r\n \t]", b"", head[:200]).lower()
    if b"vcalendar" not in plain and b"begin:vevent" not in plain:
        return False
    from nomarium.ical.files import is_calendar

    return is_calendar(head)


def calendar_inside(path: Path, name: str) -> bytes | None:
    """The calendar that a mail message (by its ending) carries; None for anything else."""
    if not name.lower().endswith(".eml") or not path.is_file():
        return None
    from nomarium.sheets.mail import calendar_part

    return calendar_part(path, name)


def _kind(path: Path, head: bytes, name: str) -> str:
    if head.startswith(b"PK\x03\x04"):
        return _zip_kind(path, name)
    if head.startswith(b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1") or head[:2] == b"\x09\x08":
        return "xls"
    if b"%PDF-" in head[:1024]:  # something may stand before it
        return "pdf"
    for start, called in _OTHER_KINDS:
        if head.startswith(start):
            remedy = "Save the table as .xlsx or .csv and build that."
            raise _refusal("source-kind", f"{name} is {called}, not a spreadsheet.", remedy, name)
    text = head.lstrip(b"\xef\xbb\xbf \t\r\n").lower()
    if text.startswith((b"<!doctype html", b"<html", b"<table", b"<meta", b"<body")):
        return "html"
    if name.lower().endswith((".html", ".htm")) and re.match(rb"<[a-z!]", text):
        return "html"
    if text.startswith(b"<?xml"):
        if b"<html" in text or b"<!doctype html" in text:
            return "html"
        message = f"{name} is XML inside, not a spreadsheet."
        remedy = "Open it in a spreadsheet application and save it as .xlsx or .csv."
        raise _refusal("source-kind", message, remedy, name)
    if _is_mail(head, name):
        return "eml"
    return "text"


def _zip_kind(path: Path, name: str) -> str:
    import zipfile

    from nomarium.sheets.faults import DAMAGED

    try:
        with zipfile.ZipFile(path) as archive:
            names = frozenset(archive.namelist())
    except DAMAGED as error:
        message = f"{name} is a workbook that was cut short or damaged."
        remedy = "Fetch or save it again."
        raise _refusal("source-broken", message, remedy, name) from error
    if "xl/workbook.xml" in names:
        return "xlsx"
    if "xl/workbook.bin" in names:
        return "xlsb"
    if "word/document.xml" in names:
        return "docx"
    if "content.xml" in names:
        return "odt" if _is_text_document(path) else "ods"
    message = f"{name} is a ZIP archive that holds no workbook."
    remedy = "Unpack it and name the spreadsheet inside."
    raise _refusal("source-kind", message, remedy, name)


def _is_text_document(path: Path) -> bool:
    """Whether an OpenDocument archive is a text, by what it says of itself (OpenDocument 1.3, 3.3)."""
    import zipfile

    from nomarium.sheets.faults import DAMAGED

    with zipfile.ZipFile(path) as archive:
        try:
            with archive.open("mimetype") as part:
                return part.read(200).startswith(b"application/vnd.oasis.opendocument.text")
        except DAMAGED:
            return False


def _near(path: Path) -> str:
    try:
        names = [one.name for one in path.parent.iterdir()]
    except OSError:
        return "Check the name and the folder."
    return meant(path.name, names, "Check the name and the folder.", 0.75)


def _refusal(code: str, message: str, remedy: str, name: str) -> SourceError:
    return SourceError(Problem(code, message, remedy, Place(name)))
