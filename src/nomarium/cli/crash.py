"""What is left to do when the program itself is at fault: a report to send, and one line that says where it is."""

import platform
import sys
import tempfile
import traceback
from collections.abc import Sequence
from pathlib import Path

from nomarium._version import VERSION


def report_crash(error: BaseException, arguments: Sequence[str]) -> str:
    """Write what happened into a file that can be sent, and give the line that says so. The report holds no contents of
    any source, only where in the program it was and what was asked for."""
    command = arguments[0] if arguments else ""
    frames = "".join(traceback.format_tb(error.__traceback__))
    text = (
        f"nomarium {VERSION}, Python {platform.python_version()}, {sys.platform}\n"
        f"command: {command} with {len(arguments)} arguments\n{type(error).__name__}\n\n{frames}"
    )
    said = f"A fault in nomarium itself stopped this ({type(error).__name__}); nothing was replaced."
    try:
        with tempfile.NamedTemporaryFile(
            "w", suffix=".txt", prefix="nomarium-fault-", delete=False, encoding="utf-8"
        ) as file:
            file.write(text)
    except OSError:
        return said
    return f"{said} Please send the report: {Path(file.name)}"
