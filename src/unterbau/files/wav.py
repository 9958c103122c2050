"""Recordings: WAV files as editors and telephones write them, one channel of them."""

import io
import struct
import wave
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from unterbau.errors import InputError, UnterbauError
from unterbau.files.atomic import check_size, shown
from unterbau.mechanics.arrays import FloatArray

MOST_BYTES = 80_000_000


PCM, FLOAT, EXTENSIBLE = 1, 3, 0xFFFE
WIDTHS = {PCM: (1, 2, 3, 4), FLOAT: (4, 8)}
"""Bytes of a sample by the way it is written."""
MOST_CHANNELS, MOST_RATE = 64, 1_000_000


@dataclass(frozen=True, slots=True)
class _Layout:
    """How samples are written."""

    form: int
    channels: int
    rate: int
    wide: int


def read_wav(path: Path, channel: int = 0) -> tuple[FloatArray, float]:
    """Return the samples of a channel, −1 to 1, and their rate, 1/s.

    Whole numbers of 8 to 32 bits and floating-point numbers of 32 and 64, plain or in the extensible form.

    Raises:
        InputError: It is no recording that can be read.
        UnterbauError: The file cannot be read.
    """
    check_size(path, MOST_BYTES)
    try:
        data = path.read_bytes()
    except OSError as error:
        raise UnterbauError(f"{shown(path)} cannot be read: {error.strerror}") from None
    layout, raw = _chunks(path.name, data)
    if not 0 <= channel < layout.channels:
        raise InputError(path.name, f"expected channel 0 to {layout.channels - 1}, got {channel}")
    frame = layout.wide * layout.channels
    packed = np.frombuffer(raw[: len(raw) // frame * frame], np.uint8).reshape(-1, layout.channels, layout.wide)
    samples = _samples(np.ascontiguousarray(packed[:, channel]), layout)
    if not np.all(np.isfinite(samples)):
        raise InputError(path.name, "expected samples that are numbers")
    return samples, float(layout.rate)


def _chunks(name: str, data: bytes) -> tuple[_Layout, bytes]:
    """Return how the samples of a RIFF file are written, and their bytes; chunks begin at even places."""
    if len(data) < 12 or data[:4] != b"RIFF" or data[8:12] != b"WAVE":
        raise InputError(name, "expected a WAV recording without compression")
    layout, at = None, 12
    while at + 8 <= len(data):
        kind, size = data[at : at + 4], int.from_bytes(data[at + 4 : at + 8], "little")
        body = data[at + 8 : at + 8 + size]
        if kind == b"fmt ":
            layout = _layout(name, body)
        elif kind == b"data" and layout is not None:
            return layout, body  # a recorder that was stopped tells more than is there
        at += 8 + size + size % 2
    raise InputError(name, "expected a WAV recording: it holds no samples")


def _layout(name: str, body: bytes) -> _Layout:
    if len(body) < 16:
        raise InputError(name, "expected a WAV recording: its heading is too short")
    form, channels, rate, _, frame, bits = struct.unpack("<HHIIHH", body[:16])
    if form == EXTENSIBLE and len(body) >= 26:
        form = int.from_bytes(body[24:26], "little")
    wide = (bits + 7) // 8
    if form not in WIDTHS:
        raise InputError(name, "expected a WAV recording without compression")
    if wide not in WIDTHS[form] or not 0 < channels <= MOST_CHANNELS or frame != wide * channels:
        raise InputError(name, f"expected samples of 8 to 32 bits, or 32 and 64 as floating point, got {bits} bits")
    if not 0 < rate <= MOST_RATE:
        raise InputError(name, f"expected 1 to {MOST_RATE} samples a second, got {rate}")
    return _Layout(form, channels, rate, wide)


def _samples(packed: "np.ndarray[tuple[int, ...], np.dtype[np.uint8]]", layout: _Layout) -> FloatArray:
    if layout.form == FLOAT:
        return np.asarray(packed.view("<f4" if layout.wide == 4 else "<f8")[:, 0], np.float64)
    if layout.wide == 1:
        return (packed[:, 0].astype(float) - 128.0) / 128.0
    padded = np.zeros((len(packed), 4), np.uint8)
    padded[:, 4 - layout.wide :] = packed
    return np.asarray(padded.view("<i4")[:, 0].astype(float) / 2.0**31)


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
        check_size(path, MOST_BYTES)
        return _chunks(path.name, path.read_bytes())[0].channels
    except (OSError, UnterbauError):
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
