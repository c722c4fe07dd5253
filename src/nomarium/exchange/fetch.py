"""A table from an http(s) address."""

from typing import BinaryIO

from nomarium.model.errors import SourceError
from nomarium.model.problem import Place, Problem

_MOST_OCTETS = 1 << 28
_TIMEOUT_SECS = 30.0


def fetch(address: str, target: BinaryIO) -> None:
    """Copy what an address holds. Raises SourceError when it cannot be had."""
    import httpx

    if not address.lower().startswith(("http://", "https://")):
        raise _refusal(
            address, "only http and https addresses can be read", "Save the table as a file first."
        )
    try:
        with httpx.stream("GET", address, follow_redirects=True, timeout=_TIMEOUT_SECS) as response:
            if response.status_code != 200:
                why = f"the server answers {response.status_code} {response.reason_phrase}"
                raise _refusal(address, why, "Check the address, and that it needs no password.")
            size = 0
            for block in response.iter_bytes():
                size += len(block)
                if size > _MOST_OCTETS:
                    raise _refusal(address, "it is larger than 256 MB", "Save the table as a file first.")
                target.write(block)
    except (httpx.HTTPError, httpx.InvalidURL) as error:
        raise _refusal(address, str(error) or "no answer", "Check the address and the network.") from error


def _refusal(address: str, why: str, remedy: str) -> SourceError:
    return SourceError(Problem("source-closed", f"{address} cannot be read: {why}.", remedy, Place(address)))
