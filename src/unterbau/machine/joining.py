"""Which springs a joint stands for: those of its kind, or the person's own."""

from unterbau.catalogue.joints import OWN, JointKind, OwnValues, check_own, joint, own_joint
from unterbau.errors import InputError
from unterbau.machine.parts import Joint


def joint_kind(chosen: Joint) -> JointKind:
    """Return the kind of a joint.

    Raises:
        InputError: Unknown kind, or own values that are missing or impossible.
    """
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
