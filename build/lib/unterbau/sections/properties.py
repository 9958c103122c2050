"""What a beam needs to know of its cross-section."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class SectionProperties:
    """About the centroid; y is to the right and z up as the section is drawn. SI units."""

    A: float
    """Area, m²."""
    Iy: float
    """∫z² dA, for bending up and down, m⁴."""
    Iz: float
    """∫y² dA, for bending sideways, m⁴."""
    Iyz: float
    J: float
    """Saint-Venant torsion constant, m⁴."""
    Asy: float
    """Shear area for shear along y, m²; 0 leaves shear deformation out."""
    Asz: float
    method: str = "closed form"
    """How the values were found, in words."""
    Iw: float = 0.0
    """Warping constant about the shear centre, m⁶; 0 where it is left out."""
    ys: float = 0.0
    """Shear centre from the centroid, m."""
    zs: float = 0.0

    def turned(self) -> "SectionProperties":
        """Return the section turned by a quarter."""
        return SectionProperties(
            self.A, self.Iz, self.Iy, -self.Iyz, self.J, self.Asz, self.Asy, self.method, self.Iw, -self.zs, self.ys
        )  # fmt: skip
