"""Recordings: WAV files of 8, 16, 24 or 32 bits, one channel of them."""

import io
import wave
from pathlib import Path

import numpy as np

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import check_size, shown
from unterbau.mechanics.arrays import FloatArray

MOST_BYTES = 80_000_000


def read_wav(path: Path, channel: int = 0) -> tuple[FloatArray, float]:
    """Return the samples of a channel, −1 to 1, and their rate, 1/s.

    Raises:
        InputError: It is no recording that can be read.
        UnterbauError: The file cannot be read.
    """
    check_size(path, MOST_BYTES)
    try:
        data = path.read_bytes()
    except OSError as error:
        raise UnterbauError(f"{shown(path)} cannot be read: {error.strerror}") from None
    try:
        with wave.open(io.BytesIO(data)) as opened:
            rate, channels, wide = opened.getframerate(), opened.getnchannels(), opened.getsampwidth()
            raw = opened.readframes(opened.getnframes())
    except (wave.Error, EOFError, ValueError):
        raise InputError(path.name, "expected a WAV recording without compression") from None
    if not 0 <= channel < channels:
        raise InputError(path.name, f"expected channel 0 to {channels - 1}, got {channel}")
    whole = len(raw) // (wide * channels) * wide * channels
    packed = np.frombuffer(raw[:whole], np.uint8).reshape(-1, channels, wide)[:, channel]
    if wide == 1:
        return (packed[:, 0].astype(float) - 128.0) / 128.0, float(rate)
    padded = np.zeros((len(packed), 4), np.uint8)
    padded[:, 4 - wide :] = packed
    return padded.view("<i4")[:, 0].astype(float) / 2.0**31, float(rate)


def write_wav(path: Path, samples: FloatArray, rate: int) -> None:
    """Write one channel as 16 bits; louder than 1 is cut.

    Raises:
        UnterbauError: The file could not be written.
    """
    from unterbau.files.atomic import write_atomically

    stream = io.BytesIO()
    with wave.open(stream, "wb") as opened:
        opened.setnchannels(1)
        opened.setsampwidth(2)
        opened.setframerate(rate)
        opened.writeframes((np.clip(samples, -1.0, 1.0) * 32767).astype("<i2").tobytes())
    write_atomically(path, stream.getvalue())
