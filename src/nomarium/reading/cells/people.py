"""People and lists in cells: addresses, categories, audiences, a place on the globe, colours."""

import re

from nomarium.model.event import Person
from nomarium.model.refusal import Refusal
from nomarium.model.wording import meant

_ADDRESS = r"[^\s@<>,;\"]+@[^\s@<>,;\"]+"
_NAMED = r"\s*\"?(?P<name>[^<\"]*?)\"?\s*[<(](?:mailto:)?(?P<email>[^\s<>()]+@[^\s<>()]+)[>)]\s*"
BETWEEN_NAMES = r"\s?[,;&/+\n]\s?|\s(?:and|et|und)\s"
"""What stands between the names of a rota's cell, `Quill & Moss`."""
PERSON = r"(?:(?:Mr|Ms|Mrs|Miss|Dr)\.? )?[A-Z][\w.'’-]*(?:,? [A-Z][\w.'’-]*){1,2}"
"""What may be the name of somebody, `R. Finch`, `Finch, Rosa`."""
INITIALED = r"(?:Mr|Ms|Mrs|Miss|Dr)\.? [A-Z]\S*(?: [A-Z]\S*)?|(?:[A-Z]\.[ -]?){1,3}[A-Z][\w'’-]+|[A-Z][\w'’-]+ [A-Z]\.?"
"""What can hardly be anything but a name: one with initials or a title."""
_SURNAME_FIRST = r"[^@;<>]+,[^@;<>]+<[^>]+@[^>]+>"


def read_list(text: str) -> tuple[str, ...]:
    """Names parted by commas, semicolons or lines, each once, in order.

    >>> read_list("Apprentices; Journeymen, Staff")
    ('Apprentices', 'Journeymen', 'Staff')
    """
    parts = (" ".join(part.split()) for part in re.split(r"[,;\n]", text))
    return tuple(dict.fromkeys(part for part in parts if part))


def read_people(text: str, optional: bool = False) -> tuple[Person, ...] | Refusal:
    """People parted by semicolons or lines, or by commas where that leaves no name in two."""
    parts = re.split(r"[;\n]", text)
    people = []
    for part in parts:
        pieces = [part] if re.fullmatch(_SURNAME_FIRST, part.strip()) else part.split(",")
        for piece in pieces:
            if piece.strip():
                person = read_person(piece, optional)
                if isinstance(person, Refusal):
                    return person
                people.append(person)
    return tuple(dict.fromkeys(people))


def read_person(text: str, optional: bool = False) -> Person | Refusal:
    """A name, an address, or `Name <address>`.

    >>> read_person("Maren Quill <maren@saltmarsh.example>").name
    'Maren Quill'
    """
    text = " ".join(text.split())
    named = re.fullmatch(_NAMED, text)
    if named:
        return Person(named["name"].strip(" '"), named["email"], optional)
    bare = text.removeprefix("mailto:").removeprefix("MAILTO:")
    if re.fullmatch(_ADDRESS, bare):
        return Person("", bare, optional)
    if "@" in text:
        message = f"“{text}” is not an e-mail address."
        return Refusal("address-unread", message, "Write it like Maren Quill <maren@saltmarsh.example>.")
    return Person(text, "", optional)


_GEO = r"(?i)(?P<lat>[+-]?\d+(?:\.\d+)?)\s*°?\s*(?P<ns>[NS])?\s*[;,\s]\s*(?P<lon>[+-]?\d+(?:\.\d+)?)\s*°?\s*(?P<ew>[EW])?"


def read_geo(text: str) -> tuple[float, float] | Refusal:
    """Latitude and longitude in degrees (RFC 5545, 3.8.1.6).

    >>> read_geo("44.65 N, 63.57 W")
    (44.65, -63.57)
    """
    match = re.fullmatch(_GEO, text.strip())
    if match:
        latitude = float(match["lat"]) * (-1 if (match["ns"] or "").upper() == "S" else 1)
        longitude = float(match["lon"]) * (-1 if (match["ew"] or "").upper() == "W" else 1)
        if abs(latitude) <= 90 and abs(longitude) <= 180:
            return latitude, longitude
    message = f"“{text}” is not a latitude and a longitude."
    return Refusal("geo-unread", message, "Write degrees, such as 44.65; -63.57.")


def read_url(text: str) -> str | Refusal:
    """An address on the web or any other URI; a bare `www.` one is given its scheme."""
    if text.lower().startswith("www."):
        text = f"https://{text}"
    if re.fullmatch(r"[A-Za-z][A-Za-z0-9+.-]*:[^\s<>\"]+", text):
        return text
    return Refusal(
        "url-unread",
        f"“{text}” is not an address on the web.",
        "Write it in full, from https:// on.",
    )


_TELEPHONE = r"\+?\d[\d\s().-]{5,}\d"


def read_conference(text: str) -> str | Refusal:
    """The link by which people join, also among other words; a number to dial as a `tel:` one (RFC 3966).

    >>> read_conference("Join: https://loft.example/42"), read_conference("+1 902 555-0142")
    ('https://loft.example/42', 'tel:+19025550142')
    """
    for word in text.split():
        if "://" in word or word.lower().startswith("www."):
            return read_url(word.strip("<>()[],;."))
    bare = re.sub(r"^[^\d+]*:", "", text).strip()
    if re.fullmatch(_TELEPHONE, bare):
        return "tel:" + re.sub(r"[^\d+]", "", bare)
    link = read_url(text)
    if isinstance(link, str):
        return link
    message = f"“{text}” is neither a link to join by nor a number to dial."
    return Refusal("conference-unread", message, "Write the link in full, from https:// on.")


def read_color(text: str, names: frozenset[str]) -> str | Refusal:
    """A CSS3 colour name (RFC 7986, 5.9)."""
    name = text.casefold().replace(" ", "").replace("-", "")
    if name in names:
        return name
    remedy = meant(name, sorted(names), "Write a CSS colour name, such as teal or darkorange.")
    return Refusal("color-unknown", f"“{text}” is no colour name that calendar files know.", remedy)
