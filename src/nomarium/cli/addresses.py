"""Addresses as they may be shown and kept."""


def without_password(source: str) -> str:
    """A source as it was named, but for a name and a password in its address."""
    scheme, sign, rest = source.partition("://")
    host, slash, path = rest.partition("/")
    return f"{scheme}://{host.rpartition('@')[2]}{slash}{path}" if sign else source
