"""What a stiffness means for the work: the tool's movement under a customary cut."""

from unterbau.band import Band
from unterbau.catalogue.cuts import Cut


def moved_by(cut: Cut, compliance: float) -> Band:
    """Return how far the cut pushes the tool, m; the band is that of the force.

    Args:
        cut: The cut; its peak force counts.
        compliance: Of the tool against the work along the force, likely, m/N.
    """
    return cut.force.scaled(compliance)
