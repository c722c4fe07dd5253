"""Names of sources as they may be shown."""

import re

_SECRET = re.compile(r"(^|/)[^/:@\s]+:[^/@\s]+@")


def shown_name(name: str) -> str:
    """The name of a source without what looks like a person's name and password, as in an address that is mistyped.

    >>> shown_name("http:/me:secret@saltmarsh.example/x.ics"), shown_name("year.csv")
    ('http:/…@saltmarsh.example/x.ics', 'year.csv')
    """
    return _SECRET.sub(r"\1…@", name)
