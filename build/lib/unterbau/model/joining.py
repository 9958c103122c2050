"""Which springs a joint stands for: those of its kind, or the person's own."""

from functools import lru_cache

from unterbau.band import AtLevels, at_levels
from unterbau.catalogue.joints import (
    BOLTS,
    OWN,
    Face,
    JointKind,
    OwnValues,
    Six,
    check_bolts,
    check_own,
    joint,
    own_joint,
)
from unterbau.errors import InputError
from unterbau.model.bolted import SOURCE, ZETA, bolted_springs
from unterbau.structure.parts import Joint


def joint_kind(chosen: Joint) -> JointKind:
    """Return the kind of a joint.

    Raises:
        InputError: Unknown kind, or own values that are missing or impossible.
    """
    if chosen.kind == BOLTS:
        check_bolts(chosen.group)
        return JointKind(BOLTS, "bolts, computed", ZETA, SOURCE, (), None, False)
    if chosen.kind != OWN:
        return joint(chosen.kind)
    if chosen.own is None:
        raise InputError("own", f'a joint of kind "{OWN}" needs its values here')
    check_own(chosen.own)
    return own_joint(chosen.own)


def likely_values(chosen: Joint) -> OwnValues:
    """Return the values to start from when a person takes a joint's values into their own hands."""
    if chosen.own is not None:
        return chosen.own
    kind = joint_kind(chosen)
    if not kind.values:
        return OwnValues()
    normal, shear, twist, bend, _ = (band.likely for band in kind.values)
    return OwnValues(normal, shear, bend, twist)


@lru_cache(maxsize=4096)
def joint_springs(chosen: Joint, face: Face) -> tuple[AtLevels[Six], float]:
    """Return the six springs of a joint on a face at each level, and its damping ratio.

    Raises:
        InputError: Unknown kind, or impossible values.
    """
    kind = joint_kind(chosen)
    if chosen.kind == BOLTS:
        return at_levels(lambda level: bolted_springs(chosen.group, level, face)), kind.zeta
    springs = at_levels(lambda level: kind.springs(level, chosen.count, face, chosen.across, chosen.edge))
    return springs, kind.zeta
