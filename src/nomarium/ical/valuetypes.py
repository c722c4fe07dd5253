"""Whether a text is a value of the type that its line says (RFC 5545, 3.3): no other may go out as that type."""

import binascii
import math
import re
from collections.abc import Callable
from typing import Final

from nomarium.reckoning.rules import RuleFault, parse_rule
from nomarium.reckoning.values import length_of, moment_of

_TYPE: Final = re.compile(r";VALUE=\"?([A-Z-]+)\"?(?=;|$)", re.IGNORECASE)
_DEFAULTS: Final = {"PERCENT-COMPLETE": "INTEGER", "REPEAT": "INTEGER", "DUE": "DATE-TIME", "GEO": "POSITION"}
"""Types of properties that go out as they stand, where these are neither text nor address and no VALUE says another."""


def fits(name: str, head: str, value: str) -> bool:
    """Whether a line's value is of the type that its head (`ATTACH;VALUE=BINARY`) says.

    Texts and addresses are not looked into, nor are types that this does not know.
    """
    said = _TYPE.search(head) if ";" in head else None
    kind = said[1].upper() if said else _DEFAULTS.get(name, "")
    of_type = _TYPES.get(kind)
    return of_type is None or of_type(value)


def in_form(pattern: str) -> Callable[[str], bool]:
    """Whether a whole text is as a pattern says."""
    found = re.compile(pattern).fullmatch
    return lambda text: found(text) is not None


def _is_binary(text: str) -> bool:
    try:
        binascii.a2b_base64(text.encode("ascii"), strict_mode=True)
    except ValueError:
        return False
    return True


def _is_moment(text: str) -> bool:
    if re.fullmatch(r"\d{8}(T\d{6}Z?)?", text, re.ASCII) is None:
        return False
    try:
        return moment_of(text) is not None
    except ValueError:
        return False


def _is_date(text: str) -> bool:
    return len(text) == 8 and _is_moment(text)


def _is_date_time(text: str) -> bool:
    return len(text) > 8 and _is_moment(text)


def _is_period(text: str) -> bool:
    start, _, end = text.partition("/")
    return _is_date_time(start) and (_is_date_time(end) or length_of(end) is not None)


def _is_recur(text: str) -> bool:
    return not isinstance(parse_rule(text), RuleFault)


def _is_length(text: str) -> bool:
    return length_of(text) is not None


_is_float = in_form(r"[+-]?\d{1,30}(\.\d{1,30})?")


def _is_position(text: str) -> bool:
    parts = text.split(";")
    return len(parts) == 2 and all(
        _is_float(part) and math.fabs(float(part)) <= most
        for part, most in zip(parts, (90, 180), strict=True)
    )


_TYPES: Final[dict[str, Callable[[str], bool]]] = {
    "BINARY": _is_binary,
    "BOOLEAN": in_form(r"(?i:TRUE|FALSE)"),
    "DATE": _is_date,
    "DATE-TIME": _is_date_time,
    "DURATION": _is_length,
    "FLOAT": _is_float,
    "INTEGER": in_form(r"[+-]?[0-9]{1,9}"),
    "PERIOD": _is_period,
    "POSITION": _is_position,
    "RECUR": _is_recur,
    "TIME": in_form(r"([01]\d|2[0-3])[0-5]\d([0-5]\d|60)Z?"),
    "UTC-OFFSET": in_form(r"[+-]([01]\d|2[0-3])[0-5]\d([0-5]\d)?"),
}
