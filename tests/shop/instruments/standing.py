"""A serial instrument at the other end of a pseudo-terminal."""

import os
import threading
import tty
from contextlib import suppress


class Standing:
    """An instrument at the other end of a pseudo-terminal: answers a question mark with its next line."""

    def __init__(self, *lines: bytes) -> None:
        self._mine, theirs = os.openpty()
        tty.setraw(theirs)
        self._theirs, self.port, self._lines = theirs, os.ttyname(theirs), list(lines)
        self._thread = threading.Thread(target=self._serve, daemon=True)
        self._thread.start()

    def _serve(self) -> None:
        with suppress(OSError):
            while self._lines:
                if b"?" in os.read(self._mine, 64):
                    os.write(self._mine, self._lines.pop(0))

    def close(self) -> None:
        self._thread.join(2.0)
        os.close(self._theirs)
        os.close(self._mine)
