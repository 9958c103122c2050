"""Motors: torque against their curve at the speed wanted; and whether what they lift stays up when the power goes."""

from math import inf, nan, pi

import numpy as np

from unterbau.catalogue import cautions
from unterbau.catalogue.drives import DriveKind, MotorKind, drive, motors
from unterbau.studies.purchase.check import Check, judged
from unterbau.studies.purchase.ropes import rope_checks
from unterbau.studies.purchase.screws import DENSITY, free_length, root_of
from unterbau.studies.purchase.wanted import Wanted, about
from unterbau.units import Units, force_text, mass_text, told

EFFICIENCY = {"ballscrew": 0.9, "trapezoidal": 0.35, "belt": 0.95, "rack": 0.85}
"""Of drives; from memory."""
ROTOR = 2.6e-5
"""Inertia of a motor's rotor for each N·m of its torque, kg·m²; from memory, motors differ by half."""
STOPS = 0.03
"""Torque with which a motor without power holds, as a share of its own; from memory."""
HOLD_WITH = "a brake on the motor"
LASTS = 600.0
"""How long an axis runs without a rest while it cuts, s; common practice, no source."""
WATCH = 0.6
"""Of what the curve gives: supplies, drivers and resonances take the rest; common practice, no source."""


def efficiency(kind: DriveKind) -> float:
    """Return how much of a motor's work reaches the axis."""
    return next((value for name, value in EFFICIENCY.items() if kind.id.startswith(name)), 0.9)


def inertia(kind: DriveKind, torque: float, length: float) -> float:
    """Return what turns with a motor, kg·m²: its rotor, and a screw as a cylinder, πρLd⁴/32."""
    screw = pi * DENSITY * length * root_of(kind) ** 4 / 32 if kind.is_screw else 0.0
    return ROTOR * torque + screw


def push_torque(kind: DriveKind, force: float) -> float:
    """Return the torque, N·m, that pushes an axis with a force, N: F·p/2πη."""
    return force * kind.per_turn / efficiency(kind)


def left_at(motor: MotorKind, turns: float) -> float:
    """Return the share of its torque that a motor has at a speed, turns a minute; nan where no curve is known."""
    if not motor.curve:
        return nan
    speeds, shares = zip(*motor.curve, strict=True)
    return float(np.interp(turns, speeds, shares, right=0.0))


def motor_checks(one: Wanted, units: Units) -> list[Check]:
    """Return whether the motors of a drive push enough, and whether they hold without power."""
    kind, motor = drive(one.train.drive.kind), motors()[one.train.motor.kind]
    if not kind.per_turn:
        return [_unknown(one)]
    torque = one.train.motor.torque or kind.torque
    found = [
        _pushes(one, kind, motor, torque, one.rapid, 0.0, "between cuts", units),
        _pushes(one, kind, motor, torque, max(one.feed, 1e-6), one.cutting, "while it cuts", units),
    ]
    worst = max(found, key=lambda check: check.share if check.share == check.share else inf)
    return [worst, *_holds(one, kind, torque, units), *rope_checks(one, units), *_runs(one)]


def _unknown(one: Wanted) -> Check:
    return Check(
        one.train.motor_key, f"{one.axis.upper()} motor, torque", "a drive whose way for a turn is not known", "", nan,
        "unknown", "tell the way for a turn", "no value",
    )  # fmt: skip


def _pushes(
    one: Wanted, kind: DriveKind, motor: MotorKind, torque: float, speed: float, cutting: float, when: str, units: Units
) -> Check:
    turns = speed / kind.per_turn / (2 * pi) * 60
    force = one.mass * one.acceleration + one.weight + cutting + one.friction
    spin = inertia(kind, torque, free_length(kind, one.train.length)) * one.acceleration / kind.per_turn
    asked = push_torque(kind, force) / one.shared + spin
    there = torque * left_at(motor, turns)
    share = asked / there if there else (nan if there != there else inf)
    cure = (
        "a larger motor, a slower rapid, or gears, lead or pulley to turn it faster"
        if turns < 600
        else (
            "a slower rapid, more lead or a larger pulley, a higher supply voltage, or a servo: a stepper has "
            "little left "
            "at such speed"
        )
    )
    each = f"each of {one.shared}: " if one.shared > 1 else ""
    return Check(
        one.train.motor_key, f"{one.axis.upper()} motor, torque",
        f"{each}{told(asked, 'N·m', units)} at {turns:.0f} turns a minute, {when}",
        f"({mass_text(one.mass, units)} × {told(one.acceleration, 'm/s²', units)}"
        f"{f' + weight {force_text(one.weight, units)}' if one.weight else ''}"
        f"{f' + cutting {force_text(cutting, units)}' if cutting else ''} + friction {force_text(one.friction, units)})"
        f" × lead/2π ÷ {efficiency(kind):g}{f' ÷ {one.shared} motors' if one.shared > 1 else ''} + "
        f"{told(spin, 'N·m', units)} to spin up rotor and screw; there are {told(there, 'N·m', units)}: "
        f"{left_at(motor, turns):.0%} of {told(torque, 'N·m', units)}",
        about(share), judged(share, WATCH), "" if share <= WATCH else cure,
        f"{motor.label}: {motor.curve_source}; efficiency, rotor and friction from memory; 60 % of the curve used: "
        "common practice, no source",
    )  # fmt: skip


def _runs(one: Wanted) -> list[Check]:
    """Return whether a motor that has to rest outlasts a full stroke, or a cut that goes on for long."""
    may = one.train.motor.on
    if not may:
        return []
    cuts = one.feed > 0.0
    way, speed = (one.way, one.feed) if cuts else (one.way, one.rapid)
    stroke = way / speed if speed else 0.0
    asked = max(stroke, LASTS) if cuts else stroke
    share = asked / may
    words = f"a full stroke takes {stroke:.0f} s at {'its feed' if cuts else 'its speed'}"
    return [Check(
        one.train.motor_key, f"{one.axis.upper()} motor, how long it runs",
        words + (f"; a cut goes on for {LASTS / 60:.0f} min" if cuts else ""),
        f"{asked:.0f} s asked, it may run for {may:.0f} s before it rests",
        about(share), judged(share, 0.8),
        "" if share <= 0.8 else "a motor made to run without rest, or rests in between",
        f"how long it may run as told on its bench (IEC 60034-1 calls it S2); a cut of {LASTS / 60:.0f} min: common "
        "practice, no source",
    )]  # fmt: skip


def _holds(one: Wanted, kind: DriveKind, torque: float, units: Units) -> list[Check]:
    if not one.upright:
        return []
    back = one.weight * kind.per_turn * efficiency(kind) / one.shared
    stops = STOPS * torque + one.friction * kind.per_turn / one.shared
    share = 0.0 if kind.self_locking else back / stops
    verdict = judged(share, 0.6)
    words = (
        "a screw that friction holds"
        if kind.self_locking
        else (f"its weight turns the drive back with {told(back, 'N·m', units)}")
    )
    if one.balanced:
        words += f"; a counterweight holds {mass_text(one.balanced, units)} of it"
    remedy = HOLD_WITH if one.balanced else f"{HOLD_WITH}, a counterweight or a gas spring"
    return [Check(
        one.train.motor_key, f"{one.axis.upper()} without power", words,
        "tan of the lead angle below the friction" if kind.self_locking else
        f"{force_text(one.weight, units)} × lead/2π × {efficiency(kind):g}; a motor without power holds about "
        f"{told(stops, 'N·m', units)} with friction",
        about(share), verdict, "" if verdict == "pass" else
        f"{remedy}; until then block the head before working under it",
        f"detent torque 3 % of the holding torque: from memory. {cautions.FALLING_HEAD.text}",
    )]  # fmt: skip
