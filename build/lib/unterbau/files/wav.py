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


def read_struck(path: Path, newton: float, acceleration: float) -> tuple[FloatArray, FloatArray, float]:
    """Return force, N, acceleration, m/s², and rate of a blow: two channels, each so much at its full scale.

    Raises:
        InputError: It is no recording of two channels, or a scale is none.
        UnterbauError: The file cannot be read.
    """
    if not (0.0 < newton <= 1e6 and 0.0 < acceleration <= 1e7):
        raise InputError("scale", "expected what each channel is at full scale: a force in N, an acceleration in m/s²")
    force, rate = read_wav(path, 0)
    moved, _ = read_wav(path, 1)
    return force * newton, moved * acceleration, rate


def channels_of(path: Path) -> int:
    """Return how many channels a recording has; 0 where it is none."""
    try:
        with wave.open(str(path)) as opened:
            return int(opened.getnchannels())
    except (OSError, wave.Error, EOFError, ValueError):
        return 0


def write_wav(path: Path, samples: FloatArray, rate: int) -> None:
    """Write one channel, or several as columns, as 16 bits; louder than 1 is cut.

    Raises:
        UnterbauError: The file could not be written.
    """
    from unterbau.files.atomic import write_atomically

    stream = io.BytesIO()
    with wave.open(stream, "wb") as opened:
        opened.setnchannels(1 if samples.ndim == 1 else samples.shape[1])
        opened.setsampwidth(2)
        opened.setframerate(rate)
        opened.writeframes((np.clip(samples, -1.0, 1.0) * 32767).astype("<i2").tobytes())
    write_atomically(path, stream.getvalue())
