"""UIDs that a second build makes again (RFC 7986, 5.3): digests in the form of a UUID of version 8
(RFC 9562, 5.8)."""

import datetime as dt
from _blake2 import blake2b  # hashlib's own wrapper costs as much again for texts this short


def occurrence_uid(uid: str, start: dt.date | dt.datetime) -> str:
    """The UID of one dated event of a series, made from the series' UID and its original start."""
    digest = blake2b(f"{uid}\0{start.isoformat()}".encode("utf-8", "replace"), digest_size=16)
    return uuid_of(digest.hexdigest())


def lasting_uid(*parts: str) -> str:
    """A UID made from what an event is, in words that do not change."""
    return uuid_of(blake2b("\0".join(parts).encode("utf-8", "replace"), digest_size=16).hexdigest())


def uuid_of(h: str) -> str:
    """32 hexadecimal digits in the form of a UUID of version 8 (RFC 9562, 4.1 and 5.8)."""
    return f"{h[:8]}-{h[8:12]}-8{h[13:16]}-a{h[17:20]}-{h[20:]}"


def is_made_uid(uid: str) -> bool:
    """Whether a UID has the form of those that are made here.

    >>> is_made_uid(lasting_uid("meeting", "KN1")), is_made_uid("42@saltmarsh.example")
    (True, False)
    """
    return (
        len(uid) == 36
        and uid[8] == uid[13] == uid[18] == uid[23] == "-"
        and uid[14] == "8"
        and uid[19] == "a"
    )
