"""What the solver refuses."""


class MechanismError(Exception):
    """Part of the frame can move without resistance, or is held by nothing."""

    def __init__(self, free: tuple[str, ...]) -> None:
        """Take the free directions as `NODE ux|uy|uz|rx|ry|rz`, most mobile first."""
        self.free = free
        shown = ", ".join(free[:24])
        more = f" and {len(free) - 24} more" if len(free) > 24 else ""
        super().__init__(f"nothing resists a movement of: {shown}{more}")


class ConditionError(Exception):
    """Stiffnesses lie too far apart for double precision."""
