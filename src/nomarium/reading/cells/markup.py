"""HTML in notes as the text that a person would see."""

import re
from html.parser import HTMLParser

_TAGS = "a b br div em font h1 h2 h3 h4 h5 h6 hr i li ol p span strong sub sup table tbody td th tr u ul"
_TAG = re.compile(
    rf"(?i)</?(?:{_TAGS.replace(' ', '|')})(?:\s+[\w:-]+\s*=\s*(?:\"[^\"]*\"|'[^']*'|[^\s<>\"']+))*\s*/?>"
)
_NEW_LINE = frozenset("br div h1 h2 h3 h4 h5 h6 hr li ol p table tr ul".split())


def without_html(text: str) -> str:
    """A text without its tags, if it has any: lines for paragraphs, dashes for items, the addresses of links.

    >>> without_html('<p>Bring <b>gloves</b> &amp; a hat</p>'), without_html("glaze < 3 mm"), without_html("if a <b")
    ('Bring gloves & a hat', 'glaze < 3 mm', 'if a <b')
    >>> without_html('See <a href="https://saltmarsh.example/tide">the tides</a><br>today')
    'See the tides (https://saltmarsh.example/tide)\\ntoday'
    """
    if "<" not in text or not _TAG.search(text):
        return text
    reader = _Reader(convert_charrefs=True)
    reader.feed(text)
    reader.close()
    lines = [" ".join(line.split()) for line in "".join(reader.parts).split("\n")]
    return re.sub(r"\n{3,}", "\n\n", "\n".join(lines)).strip()


class _Reader(HTMLParser):
    def __init__(self, *, convert_charrefs: bool) -> None:
        super().__init__(convert_charrefs=convert_charrefs)
        self.parts: list[str] = []
        self._address = ""
        self._link_text = 0

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in _NEW_LINE and self.parts and not self.parts[-1].endswith("\n"):
            self.parts.append("\n")
        if tag == "li":
            self.parts.append("- ")
        elif tag in ("td", "th"):
            self.parts.append(" ")
        elif tag == "a":
            self._address = dict(attrs).get("href") or ""
            self._link_text = len(self.parts)

    def handle_endtag(self, tag: str) -> None:
        if tag == "a" and self._address:
            text = "".join(self.parts[self._link_text :]).strip()
            if self._address.removeprefix("mailto:") != text:
                self.parts.append(f" ({self._address})")
            self._address = ""
        elif tag in _NEW_LINE and tag != "br" and self.parts and not self.parts[-1].endswith("\n"):
            self.parts.append("\n")

    def handle_data(self, data: str) -> None:
        self.parts.append(data)
