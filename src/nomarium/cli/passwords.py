"""The password of a server: from the environment, the keyring, or the person; never from the command line, never shown."""

import os
import sys
from urllib.parse import urlsplit

from nomarium.cli.optionvalues import wrong
from nomarium.exchange.session import Login


def login_for(url: str, user: str | None) -> Login:
    """Who asks: `--user` or NOMARIUM_USER with the password of NOMARIUM_PASSWORD, of the keyring (service `nomarium HOST`), or
    typed. Nobody where no name is given."""
    name = user or os.environ.get("NOMARIUM_USER", "")
    password = os.environ.get("NOMARIUM_PASSWORD", "")
    if not name:
        if password:
            raise wrong("NOMARIUM_PASSWORD is set and no name.", "Say whose it is: --user NAME.")
        return Login()
    if ":" in name:
        raise wrong(f"--user {name} holds a colon, which a name cannot (RFC 7617).", "Give the name alone.")
    host = urlsplit(url).hostname or ""
    password = password or _from_keyring(host, name)
    if not password and sys.stdin.isatty():
        from getpass import getpass

        password = getpass(f"Password of {name} on {host}: ")
    return Login(name, password)


def _from_keyring(host: str, name: str) -> str:
    try:
        import keyring
        from keyring.errors import KeyringError
    except ImportError:  # an extra: nomarium[keyring]
        return ""
    try:
        return keyring.get_password(f"nomarium {host}", name) or ""
    except KeyringError:
        return ""
