"""Cross-sections by finite elements over the section, through the library sectionproperties."""

from typing import TYPE_CHECKING

from unterbau.sections.properties import SectionProperties

if TYPE_CHECKING:
    from shapely.geometry import Polygon

MESH = 400  # triangles are no larger than the area divided by this


def solve(polygon: "Polygon", mesh: float = MESH) -> SectionProperties:
    """Return the properties of a polygon in millimetres; takes seconds.

    Poisson's ratio is 0 for the shear areas, as for the closed forms.
    """
    from sectionproperties.analysis import Section
    from sectionproperties.pre import Geometry

    geometry = Geometry(polygon)
    geometry.create_mesh(mesh_sizes=[polygon.area / mesh])
    section = Section(geometry)
    section.calculate_geometric_properties()
    section.calculate_warping_properties()
    ixx, iyy, ixy = section.get_ic()
    as_x, as_y = section.get_as()
    cx, cy = section.get_c()
    x, y = section.get_sc()
    mm, mm2, mm4, mm6 = 1e-3, 1e-6, 1e-12, 1e-18
    return SectionProperties(
        section.get_area() * mm2, ixx * mm4, iyy * mm4, ixy * mm4, section.get_j() * mm4,
        as_x * mm2, as_y * mm2, "finite elements over the cross-section", section.get_gamma() * mm6,
        (x - cx) * mm, (y - cy) * mm,
    )  # fmt: skip
