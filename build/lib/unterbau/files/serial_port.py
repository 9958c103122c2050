"""Instruments on a serial port: asked with a question mark, they answer with a line."""

import contextlib
import time

from unterbau.errors import UnterbauError
from unterbau.shop.instruments.reading import LONGEST, Reading, parse_line

BAUD = 9600
PATIENCE = 5.0
"""How long an answer is waited for, s."""
ASK = b"?\r\n"
"""Sent first; instruments that send by themselves, or when their button is pressed, do not mind."""


def ports() -> tuple[tuple[str, str], ...]:
    """Return the serial ports of this computer: device and what the system calls it."""
    from serial.tools.list_ports import comports

    return tuple(sorted((str(one.device), str(one.description or one.device)) for one in comports()))


def read_reading(port: str, patience: float = PATIENCE, baud: int = BAUD) -> Reading:
    """Return the next reading that an instrument sends.

    Raises:
        InputError: It sent something else.
        UnterbauError: The port cannot be used, or nothing came.
    """
    from serial import Serial, SerialException

    text = bytearray()
    try:
        with contextlib.closing(Serial(port, baud, timeout=0.2)) as opened:
            opened.reset_input_buffer()
            opened.write(ASK)
            end = time.monotonic() + patience
            while time.monotonic() < end and len(text) < 4 * LONGEST:
                text += opened.read_until(b"\n", 4 * LONGEST)
                if text.endswith(b"\n") and text.strip():
                    break
    except (SerialException, OSError, ValueError) as error:
        raise UnterbauError(f"{port} cannot be used: {_reason(error)}") from None
    if not text.strip():
        raise UnterbauError(f"nothing came from {port} within {patience:g} s: is it on, and set to {baud} baud?")
    return parse_line(bytes(text).decode("utf-8", "replace").strip().splitlines()[-1])


def _reason(error: Exception) -> str:
    reason = getattr(error, "strerror", None)
    return str(reason) if reason else str(error).split(":", maxsplit=1)[0]
