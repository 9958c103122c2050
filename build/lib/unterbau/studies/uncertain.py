"""What is uncertain in a machine, and the draws of it: the same for every place, quantity and candidate."""

import zlib
from functools import lru_cache

import numpy as np

from unterbau.band import Band
from unterbau.machine.machine import Machine, links, part
from unterbau.materials.material import material
from unterbau.materials.scatter import scatter
from unterbau.mechanics.arrays import FloatArray
from unterbau.structure.parts import Cutter, Guide, Member, Plate

NINETY = 1.6449
"""Standard deviations within which nine tenths of a normal distribution lie: low and high are taken as the ends."""
DRAWS = 4000
SEED = 20
MOST = 20.0
"""No stiffness is drawn softer or stiffer than by this: where an end is free or rigid."""


def material_band(machine: Machine, key: str) -> Band:
    """Return the factors on E and G of what a link is made of; one draw serves all of a link."""
    known = {one.key for one in links(machine)}
    made = part(machine, key) if key in known else None
    match made:
        case Member() | Plate() | Cutter():
            return scatter(material(made.material))
        case Guide():
            return scatter(material("steel-drawn"))
        case _:
            return scatter(material("steel-s235"))


def logarithms(likely: FloatArray, low: FloatArray, high: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Return the logarithms of low and high over likely stiffnesses; 0 where nothing is uncertain."""
    certain = (likely <= 0.0) | np.isinf(likely)
    safe = np.where(certain, 1.0, likely)
    found = []
    for end in (low, high):
        ratio = np.clip(np.where(certain, 1.0, end) / safe, 1 / MOST, MOST)
        found.append(np.log(ratio))
    return found[0], found[1]


@lru_cache(maxsize=512)
def draws(name: str, count: int = DRAWS) -> FloatArray:
    """Return standard normal numbers for what is called so."""
    return np.random.default_rng([SEED, zlib.crc32(name.encode())]).standard_normal(count)


def between(low: FloatArray, high: FloatArray, z: FloatArray) -> FloatArray:
    """Return the factor on a stiffness for a standard normal number, each half of the band its own."""
    at = z / NINETY
    return np.asarray(np.exp(np.where(at < 0.0, -at * low, at * high)))
