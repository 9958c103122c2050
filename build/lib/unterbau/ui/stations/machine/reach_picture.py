"""The map of the travel, laid over what carries the work."""

import numpy as np

from unterbau.studies.compliance import Solved
from unterbau.studies.reach import Reach
from unterbau.ui.stations.machine.reach_bar import ReachBar, make_map
from unterbau.ui.theme import heat
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.viewport.viewport import Viewport

OVER_BED = 0.001  # m
RIBBON = 0.02  # half the width that a map of a single line is drawn with, m


def show_map(viewport: Viewport, bar: ReachBar, reach: Reach, solved: Solved, axis: int, view: ViewSettings) -> None:
    """Draw the map that the bar asks for, and tell the bar what it shows.

    Args:
        viewport: Draws it.
        bar: Says what to show.
        reach: The whole travel.
        solved: The machine as it stands.
        axis: Of the pull.
        view: Units.
    """
    found = make_map(reach, bar.what, bar.level, axis, view)
    built = solved.built
    ground = built.ground
    first = int(built.work.nodes[0]) if ground is None else (ground.chain.nodes if ground.chain else ground.nodes)[0]
    points = built.frame.nodes[first] + found.points
    if reach.on_plate:
        points[..., 2] = OVER_BED
    colours = np.array([[heat(float(h)).getRgb()[:3] for h in row] for row in found.heat], dtype=float)
    mark = points[found.mark]
    for across, direction in ((0, (0.0, RIBBON, 0.0)), (1, (RIBBON, 0.0, 0.0))):
        if points.shape[across] == 1:
            side = np.array(direction)
            points = np.concatenate([points - side, points + side], axis=across)
            colours = np.concatenate([colours, colours], axis=across)
    viewport.show_map(points, colours, mark, found.text)
    bar.show_map(found, reach.counts[2])
