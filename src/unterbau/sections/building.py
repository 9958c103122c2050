"""Built-up sections bonded into one, solved by finite elements."""

import dataclasses

from unterbau.errors import InputError
from unterbau.sections import built_up
from unterbau.sections.built_up import SHIPPED
from unterbau.sections.section import built_label, pieces_of
from unterbau.sections.solved import SolvedSection, solve_polygon

GLUE = 0.02  # mm; faces nearer than twice this are one


def rebuild() -> str:
    """Solve every shipped built-up section anew on all cores and return the file's text."""
    import json
    from concurrent.futures import ProcessPoolExecutor
    from multiprocessing import get_context

    with ProcessPoolExecutor(mp_context=get_context("spawn"), max_tasks_per_child=1) as pool:
        rows = [dataclasses.asdict(one) for one in pool.map(solve_built_up, SHIPPED)]
    return "[\n" + ",\n".join(json.dumps(row, ensure_ascii=False, separators=(",", ":")) for row in rows) + "\n]\n"


def solve_built_up(name: str, profile: SolvedSection | None = None) -> SolvedSection:
    """Return a built-up section whose pieces are bonded into one.

    Args:
        name: Layout and profile.
        profile: The builder's own profile, where it is no standard one.

    Raises:
        InputError: No such layout or profile, or pieces that do not touch.
    """
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    pieces, rings, label = pieces_of(name, profile)
    parts = []
    for piece in pieces:
        outer, *holes = ([(y * 1e3, z * 1e3) for y, z in built_up.placed(list(ring), piece)] for ring in rings)
        parts.append(Polygon(outer, holes).buffer(GLUE, join_style="mitre"))
    shape = unary_union(parts).buffer(-GLUE, join_style="mitre").simplify(GLUE / 4)
    if shape.geom_type != "Polygon":
        raise InputError("section", f'"{name}": its profiles do not touch along their length')
    return solve_polygon(name, built_label(label, name), shape)
