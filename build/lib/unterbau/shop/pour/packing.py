"""Grains to a packing curve: how much of each sieve fraction, and how much room is left between them."""

from dataclasses import dataclass
from math import log

import numpy as np
import scipy

from unterbau.errors import InputError
from unterbau.strict import STRICT

WHOLE = 1e3
"""Weight of the condition that shares add up to one."""
SINGLE, FINER = 0.40, 0.15
"""Voids of one size rammed, and the power of coarsest over finest by which more sizes fill them; from memory, wide."""
MISFIT = 0.5
"""Of the largest misfit to the curve that is added to the voids; from memory, wide."""
PACKED = (0.12, 0.40)
"""Voids that rammed grains have, at the least and at the most."""
MOST = 12


@dataclass(frozen=True, slots=True)
class Grain:
    """One sieve fraction that is at hand."""

    __pydantic_config__ = STRICT

    name: str
    low: float
    """Finest grain, m."""
    high: float
    """Coarsest grain, m."""
    price: float = 0.0
    """A kilogram."""
    moisture: float = 0.0
    """Water, of its dry mass."""


@dataclass(frozen=True, slots=True)
class Packing:
    """Shares of fractions, and what they leave open."""

    shares: tuple[float, ...]
    """Of the dry mass of all grains; they add up to one."""
    sizes: tuple[float, ...]
    """Sieves at which the curve was met, m."""
    wanted: tuple[float, ...]
    """Share passing each by the curve."""
    met: tuple[float, ...]
    """Share passing each as mixed."""
    voids: float
    """Share of the rammed volume that is open, estimated: to be measured on a rammed sample."""

    @property
    def misfit(self) -> float:
        """Largest difference to the curve."""
        return max(abs(a - b) for a, b in zip(self.wanted, self.met, strict=True))


def passing(size: float, finest: float, coarsest: float, power: float) -> float:
    """Return the share by mass that passes a sieve.

    Source:
        Andreasen's curve with a smallest grain, (dⁿ − dminⁿ)/(dmaxⁿ − dminⁿ); n = .5 and dmin = 0 is Fuller's.
    """
    if size <= finest:
        return 0.0
    if size >= coarsest:
        return 1.0
    low = finest**power if finest > 0.0 else 0.0
    return float((size**power - low) / (coarsest**power - low))


def pack(grains: tuple[Grain, ...], power: float = 0.45, finest: float = 0.0) -> Packing:
    """Return how much of each fraction comes closest to the packing curve: non-negative least squares.

    Args:
        grains: What is at hand.
        power: Of the curve.
        finest: Grain that the curve begins at, m; 0 takes the finest at hand.

    Raises:
        InputError: There are no grains, or one that is none.
    """
    check_grains(grains)
    start = finest or min(one.low for one in grains)
    end = max(one.high for one in grains)
    sizes = sorted({size for one in grains for size in (one.low, one.high) if size > start})
    wanted = np.array([passing(size, start, end, power) for size in sizes])
    by_size = np.array([[_of(one, size) for one in grains] for size in sizes])
    found, _ = scipy.optimize.nnls(np.vstack([by_size, WHOLE * np.ones(len(grains))]), np.append(wanted, WHOLE))
    shares = found / found.sum()
    met = by_size @ shares
    packing = Packing(tuple(shares.tolist()), tuple(sizes), tuple(wanted.tolist()), tuple(met.tolist()), 0.0)
    used = [one for one, share in zip(grains, shares, strict=True) if share > 0.01]
    ratio = max(one.high for one in used) / min(max(one.low, 1e-6) for one in used)
    voids = SINGLE * ratio**-FINER + MISFIT * packing.misfit * SINGLE
    return Packing(
        packing.shares, packing.sizes, packing.wanted, packing.met, float(min(PACKED[1], max(PACKED[0], voids)))
    )


def _of(grain: Grain, size: float) -> float:
    """Return how much of a fraction passes a sieve: its grains spread evenly over the logarithm of their size."""
    if size <= grain.low:
        return 0.0
    if size >= grain.high:
        return 1.0
    return log(size / max(grain.low, 1e-6)) / log(grain.high / max(grain.low, 1e-6))


def check_grains(grains: tuple[Grain, ...]) -> None:
    """Check grains.

    Raises:
        InputError: With the place of the first fault.
    """
    if not 1 <= len(grains) <= MOST:
        raise InputError("grains", f"expected 1 to {MOST} fractions, got {len(grains)}")
    for index, one in enumerate(grains):
        if not 0.0 <= one.low < one.high <= 0.1:
            raise InputError(
                f"grains[{index}]",
                f'"{one.name}": expected grains from 0 to 100 mm, the coarsest larger than the finest, got '
                f"{one.low * 1e3:g} to {one.high * 1e3:g} mm",
            )
        if not 0.0 <= one.moisture <= 0.3 or not 0.0 <= one.price <= 1e4:
            raise InputError(f"grains[{index}]", f'"{one.name}": expected 0 to 30 % moisture and a price from 0')
