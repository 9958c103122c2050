"""Spindle, holder and cutter."""

from unterbau.band import AtLevels, Level, at_levels
from unterbau.catalogue.joints import Face
from unterbau.model.joins import put_joint
from unterbau.model.member import fluted_values, round_values
from unterbau.model.modelled import Model
from unterbau.structure.looks import CLAMP
from unterbau.structure.motion import SpindleUnit
from unterbau.structure.vectors import X, Y, Z
from unterbau.structure.weights import SHORT

SPREAD: dict[Level, float] = {"low": 0.6, "likely": 1.0, "high": 1.6}
"""Common practice, no source."""
SPINDLE_ZETA = 0.02


def spindle_springs(likely: tuple[float, ...]) -> AtLevels[tuple[float, ...]]:
    """Return a spindle's springs at each level from the likely ones."""
    return at_levels(lambda level: tuple(SPREAD[level] * one for one in likely))


def spindle(one: SpindleUnit, model: Model) -> None:
    """Clamp a spindle to a plate that stands behind it, and put a cutter in."""
    s, c, frame, plate = one.spindle, one.cutter, model.frame, model.sheets[one.plate]

    def on_axis(z: float) -> tuple[float, float, float]:
        return model.moved((one.x, one.y, z), one.carrier)

    body, nose = frame.node("spindle body", on_axis(one.clamp_z)), frame.node("spindle nose", on_axis(one.nose_z))
    tip = frame.node("tool tip", on_axis(one.tip_z))
    x, _, clamp_z = on_axis(one.clamp_z)
    clamp = plate.hold((x, plate.start[1], clamp_z), plate.half_of(Z, 2 * CLAMP, s.diameter))
    put_joint(model, "spindle_mount", one.mount, body, clamp, Face(2 * CLAMP, s.diameter), Y, Z)
    r = s.diameter / 2
    across = s.mass * (3 * r**2 + s.length**2) / 12
    to_centre = one.nose_z + s.length / 2 - one.clamp_z
    frame.mass(body, s.mass, (0.0, 0.0, to_centre), (across, across, s.mass * r**2 / 2))
    k = spindle_springs((s.axial, s.radial, s.radial, s.tilt, s.tilt, s.tilt))
    frame.spring("spindle", nose, body, k, Z, X, SPINDLE_ZETA)
    root = frame.node("cutter root", on_axis(one.nose_z))
    put_joint(model, "collet", one.collet, root, nose, Face(c.diameter, c.diameter), Z, X)
    chain = [root, tip]
    if c.fluted < c.stick_out - SHORT:
        chain.insert(1, frame.node("cutter shank", on_axis(one.tip_z + c.fluted)))
        frame.beam("cutter", root, chain[1], round_values(c.shank or c.diameter, c.material), X)
    frame.beam("cutter", chain[-2], tip, fluted_values(c), X)
    model.points["spindle nose"], model.points["tool tip"] = nose, tip
    model.chains["spindle"], model.chains["cutter"] = (body,), tuple(chain)
