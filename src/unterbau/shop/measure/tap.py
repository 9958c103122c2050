"""A tap heard by a microphone: spectrum, peaks, damping by half power and by decay."""

from dataclasses import dataclass

import numpy as np
import scipy

from unterbau.errors import InputError
from unterbau.mechanics.arrays import FloatArray

LOWEST = 8.0
"""Hz: below it is the room."""
STANDS_OUT = 0.02
"""Of the highest peak."""
MOST = 8
PADDED = 4
"""Times the length, so that peaks lie between the lines."""
BEFORE = 0.002
"""Seconds before the loudest that are kept."""
AROUND = 0.12
"""Of a peak's frequency to either side that is passed for its decay."""
LONGEST = 5.0
"""Seconds after a tap that are listened to: by then every machine is quiet."""
LISTENED, SHORTEST = 1.0, 0.05
"""Seconds before the first tap that hum is looked for in, at the most and at the least."""
HUMS = 0.02
"""Of the loudest after the tap, from which a tone before it is hum."""
FRAME, QUIET_FRAMES = 0.004, 6
"""Seconds of a frame of the loudness, and frames before a tap that it stands out of."""
LOUD, RISES, APART = 0.25, 3.0, 0.06
"""A tap is as loud as this share of the loudest, so many times louder than just before, so many seconds apart."""


@dataclass(frozen=True, slots=True)
class Peak:
    """One frequency that rings."""

    frequency: float
    """Hz."""
    height: float
    """Against the highest."""
    half_power: float
    """Damping ratio by the width of the peak; less trustworthy where lines are few."""
    decay: float
    """Damping ratio by how it dies away."""
    lines: float
    """Of the spectrum within its width: with fewer than five it is the recording that is measured."""


@dataclass(frozen=True, slots=True)
class Tapped:
    """A recording."""

    peaks: tuple[Peak, ...]
    """The lowest first."""
    frequencies: FloatArray
    spectrum: FloatArray
    """Against its highest."""
    seconds: float
    taps: int = 1
    """How many were heard; the one that rings longest by itself is measured."""
    hum: tuple[float, ...] = ()
    """Frequencies that sounded before the tap already, Hz: no modes of the machine."""


def tap_test(samples: FloatArray, rate: float) -> Tapped:
    """Return what rings in a recording of a tap.

    Args:
        samples: Of one channel.
        rate: Samples a second.

    Raises:
        InputError: Nothing is heard, or it is too short.

    Source:
        One spectrum by FFT; ζ = Δf/2f of the half-power width; δ = ln(x0/xn)/n of the band-passed peak by its envelope.
    """
    x = np.asarray(samples, float)
    if len(x) < 0.1 * rate or rate < 200.0:
        raise InputError("recording", "expected at least a tenth of a second, at 200 samples a second and more")
    x = x - x.mean()
    loud = float(np.abs(x).max())
    if loud < 1e-9:
        raise InputError("recording", "nothing is heard")
    taps = onsets(x, rate)
    start, end = max(zip(taps, [*taps[1:], len(x)], strict=True), key=lambda pair: pair[1] - pair[0])
    quiet = x[max(0, taps[0] - round(LISTENED * rate)) : max(0, taps[0] - round(BEFORE * rate))]
    x = x[max(0, start - round(BEFORE * rate)) : end - (round(BEFORE * rate) if end < len(x) else 0)]
    x, hum = without_hum(quiet, x[: round(LONGEST * rate)], rate)
    if len(x) < 0.1 * rate:
        raise InputError("recording", "the tap comes too late: expected at least a tenth of a second after it")
    count = PADDED * len(x)
    spectrum: FloatArray = np.asarray(np.abs(np.fft.rfft(x, count)), np.float64)
    frequencies: FloatArray = np.asarray(np.fft.rfftfreq(count, 1 / rate), np.float64)
    heard = frequencies >= LOWEST
    top = spectrum[heard].max()
    spectrum = spectrum / float(top)
    apart = max(1, round(2.0 / (frequencies[1] or 1.0)))
    rows, _ = scipy.signal.find_peaks(
        np.where(heard, spectrum, 0.0), height=STANDS_OUT, prominence=STANDS_OUT, distance=apart
    )
    best = sorted(rows.tolist(), key=lambda row: -spectrum[row])[:MOST]
    peaks = [_peak(x, rate, frequencies, spectrum, row) for row in best]
    in_order = tuple(sorted(peaks, key=lambda one: one.frequency))
    return Tapped(in_order, frequencies, spectrum, len(x) / rate, len(taps), hum)


def onsets(x: FloatArray, rate: float) -> list[int]:
    """Return the samples at which taps begin: much louder than just before, and a good part of the loudest."""
    step = max(1, round(FRAME * rate))
    frames = np.abs(x[: len(x) // step * step]).reshape(-1, step).max(axis=1)
    loud = float(frames.max())
    found: list[int] = []
    for n in np.flatnonzero(frames > LOUD * loud).tolist():
        before = float(frames[max(0, n - QUIET_FRAMES) : n].max(initial=0.0))
        if frames[n] > RISES * before and (not found or (n * step - found[-1]) / rate > APART):
            within = x[n * step : (n + 1) * step]
            found.append(n * step + int(np.argmax(np.abs(within) > 0.5 * np.abs(within).max())))
    return found or [int(np.argmax(np.abs(x) > 0.5 * np.abs(x).max()))]


def without_hum(quiet: FloatArray, x: FloatArray, rate: float) -> tuple[FloatArray, tuple[float, ...]]:
    """Return what follows a tap without the tones that sounded before it, and their frequencies, Hz.

    Each tone is fitted to the later half, where the machine is quiet again, and taken off all of it. A mode of the
    machine that lies within a hertz of a tone may lose some of its height, not its frequency or damping.
    """
    if len(quiet) < SHORTEST * rate:
        return x, ()
    window = np.hanning(len(quiet))
    heights = 2 * np.abs(np.fft.rfft(quiet * window, PADDED * len(quiet))) / window.sum()
    lines = np.fft.rfftfreq(PADDED * len(quiet), 1 / rate)
    rows, _ = scipy.signal.find_peaks(np.where(lines >= LOWEST, heights, 0.0), height=HUMS * float(np.abs(x).max()))
    found: list[float] = []
    late = np.arange(len(x) // 2, len(x))
    for row in sorted(rows.tolist(), key=lambda one: -heights[one])[:MOST]:
        at, reach = float(lines[row]), 2 * rate / len(quiet) / PADDED
        few = late[:: max(1, len(late) // 4000)]
        for _ in range(2):  # coarse, then fine
            near = at + np.linspace(-reach, reach, 201)
            at = float(near[int(np.abs(np.exp(-2j * np.pi * near[:, None] * few / rate) @ x[few]).argmax())])
            reach /= 50
        phase = 2 * np.pi * at * np.arange(len(x)) / rate
        waves = np.stack([np.cos(phase), np.sin(phase)], axis=1)
        x = x - waves @ np.linalg.lstsq(waves[late], x[late], rcond=None)[0]
        found.append(at)
    return x, tuple(sorted(found))


def _peak(x: FloatArray, rate: float, frequencies: FloatArray, spectrum: FloatArray, row: int) -> Peak:
    step = float(frequencies[1])
    at = float(frequencies[row])
    if 0 < row < len(spectrum) - 1:
        a, b, c = (float(spectrum[row + k]) for k in (-1, 0, 1))
        bend = a - 2 * b + c
        at += 0.5 * (a - c) / bend * step if bend else 0.0
    half = float(spectrum[row]) / 2**0.5
    ends = []
    for way in (-1, 1):
        k = row
        while 0 < k + way < len(spectrum) and spectrum[k] > half:
            k += way
        inner, outer = float(spectrum[k - way]), float(spectrum[k])
        part = (inner - half) / (inner - outer) if inner > outer else 1.0
        ends.append(float(frequencies[k - way]) + way * part * step)
    width = max(ends[1] - ends[0], step / PADDED)
    return Peak(at, float(spectrum[row]), width / 2 / at, _decay(x, rate, at), width / (step * PADDED))


def _decay(x: FloatArray, rate: float, at: float) -> float:
    """Return the damping ratio by the envelope of what is left about a frequency."""
    low, high = at * (1 - AROUND), min(at * (1 + AROUND), 0.49 * rate)
    sections = scipy.signal.butter(2, (low, high), "bandpass", fs=rate, output="sos")
    padded = np.concatenate([np.zeros(len(x) // 2), x, np.zeros(len(x) // 2)])
    envelope = np.abs(scipy.signal.hilbert(scipy.signal.sosfiltfilt(sections, padded)))[
        len(x) // 2 : len(x) // 2 + len(x)
    ]
    first = int(np.argmax(envelope)) + round(1.5 * rate / at)
    floor = envelope[int(np.argmax(envelope))] * 0.05
    below = np.flatnonzero(envelope[first:] < floor)
    last = first + (int(below[0]) if len(below) else len(envelope) - first - round(rate / at))
    if last - first < 2.0 * rate / at:
        return float("nan")
    times = np.arange(first, last) / rate
    slope = float(np.polyfit(times, np.log(np.maximum(envelope[first:last], 1e-300)), 1)[0])
    delta = -slope / at
    return float(delta / np.sqrt(4 * np.pi**2 + delta**2))
