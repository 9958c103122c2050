"""How errors fall as meshes grow finer: `python -m tests.benchmarks.convergence FILE.svg`; takes about a minute."""

import sys
from collections.abc import Callable, Sequence
from dataclasses import replace
from importlib.resources import files

import matplotlib as mpl
import numpy as np
from shapely.geometry import box

from tests.validation.test_plates import NU, STEEL, centre_deflection
from tests.validation.test_selected_benchmarks import frequencies, mindlin, square
from unterbau.files.project_json import parse_project
from unterbau.mechanics.plate import condensed
from unterbau.mechanics.plate_spec import Patch, PlateSpec
from unterbau.sections.meshed import solve as solve_section
from unterbau.structure.parts import Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.reach import grid
from unterbau.studies.travel import Travel

mpl.use("svg")
from matplotlib import pyplot as plt

Curve = tuple[str, Sequence[float], Sequence[float]]
"""Words, numbers of elements, relative errors."""
DEMO = parse_project((files("unterbau.demo") / "carving-router.unterbau").read_text(encoding="utf-8"))
TUBE = DEMO.candidates[1].machine


def plates() -> list[Curve]:
    """Middle of a thin square plate against its series (Timoshenko and Woinowsky-Krieger)."""
    cases = [
        ("free to turn, uniform", False, False, 0.00406235), ("clamped, uniform", True, False, 0.00126532),
        ("free to turn, in the middle", False, True, 0.0116008), ("clamped, in the middle", True, True, 0.00561202),
    ]  # fmt: skip
    ns = (4, 8, 16, 32)
    return [
        (words, ns, [abs(centre_deflection(1.0, clamped, point, n, 0.001) / exact - 1) for n in ns])
        for words, clamped, point, exact in cases
    ]


def thick_plate() -> list[Curve]:
    """First frequency of a thick plate on its edges against Mindlin's closed form."""

    def fixed(x: float, y: float) -> list[bool]:
        across, along = x in (0.0, 10.0), y in (0.0, 10.0)
        return [True, True, across or along, across, along, True]

    ns, closed = (4, 8, 12, 16), mindlin(1, 1)
    return [
        ("first, side / thickness 10", ns, [frequencies(square(n, 10.0, 1.0, fixed), 1)[0] / closed - 1 for n in ns])
    ]


def torsion() -> list[Curve]:
    """J of rectangles by triangles against Saint-Venant's series."""
    curves: list[Curve] = []
    for ratio in (1.0, 2.0, 5.0):
        b, h = 20.0 * ratio, 20.0
        odd = np.arange(1, 60, 2)
        exact = b * h**3 / 3 * (1 - 192 / np.pi**5 * h / b * np.sum(np.tanh(odd * np.pi * b / 2 / h) / odd**5)) * 1e-12
        ns = (50, 200, 800, 3200)
        errors = [abs(solve_section(box(0, 0, b, h), n).J / exact - 1) for n in ns]
        curves.append((f"{ratio:g} : 1", ns, errors))
    return curves


def gusset() -> list[Curve]:
    """Stiffness of a triangle held on a square mesh against conforming quadratic triangles, 469.0 N/µm."""
    leg, t, reference = 0.1, 0.008, 469.0e6  # scikit-fem 12.0: 472.96, 470.75, 469.62 at 1,024 to 16,384 triangles
    ns = (12, 24, 48, 96)
    errors = []
    for n in ns:
        stops = tuple(np.linspace(0, leg, n + 1).tolist())
        patches = (Patch(0.0, leg / 2, 0.0, leg / 2), Patch(0.625 * leg, 0.0, 0.125 * leg, 0.0))
        errors.append(condensed(PlateSpec(stops, stops, t, STEEL, patches, (), True)).K[7, 7] / reference - 1)
    return [(f"ν {NU}", ns, errors)]


def weakest() -> list[Curve]:
    """Softest place of the router's travel found on n × n × 3 places, against 41 × 41 × 3."""
    travel = Travel(TUBE)

    def softest(n: int) -> np.ndarray:
        C = travel.answers(grid((n, n, 3))).compliance
        return np.array([C[:, k, k].max() for k in range(3)])

    ns, fine = (3, 5, 9, 15), softest(41)
    found = [np.abs(softest(n) / fine - 1) + 1e-9 for n in ns]
    return [(f"along {axis}", ns, [float(one[k]) for one in found]) for k, axis in enumerate("XYZ")]


def machine() -> list[Curve]:
    """Tip stiffness of the router with plates meshed finer, against three times as fine."""
    from unterbau.model import laid_plate as meshing

    usual = (meshing.FINENESS, meshing.NARROW)

    def tip(factor: float) -> np.ndarray:
        meshing.FINENESS, meshing.NARROW = round(usual[0] * factor), round(usual[1] * factor)
        try:
            one = replace(TUBE, spindle=replace(TUBE.spindle, mass=TUBE.spindle.mass + 1e-9 * factor))
            return np.diag(likely_answers(one, Place())[0].compliance).copy()
        finally:
            meshing.FINENESS, meshing.NARROW = usual

    ns, fine = (0.5, 1.0, 1.5, 2.0), tip(3.0)
    found = [np.abs(tip(f) / fine - 1) for f in ns]
    return [
        (f"along {axis}", [usual[0] * f for f in ns], [float(one[k]) for one in found]) for k, axis in enumerate("XYZ")
    ]


PANELS: tuple[tuple[str, str, Callable[[], list[Curve]]], ...] = (
    ("thin square plate, its middle", "elements a side", plates),
    ("thick plate, first frequency", "elements a side", thick_plate),
    ("gusset, cells against triangles", "elements a leg", gusset),
    ("rectangle, torsion constant", "triangles", torsion),
    ("whole router, tip, its plates' meshes", "elements along the longest side", machine),
    ("weakest place of the travel", "places a side", weakest),
)


def main() -> None:
    """Write the picture and print the figures."""
    mpl.rcParams |= {"font.size": 8, "svg.hashsalt": "unterbau", "axes.spines.top": False, "axes.spines.right": False}
    figure, axes = plt.subplots(2, 3, figsize=(10, 5.6), layout="constrained")
    marks = "osd^"
    for axis, (title, across, make) in zip(axes.flat, PANELS, strict=False):
        sys.stdout.write(f"{title}\n")
        for mark, (words, ns, errors) in zip(marks, make(), strict=False):
            axis.loglog(ns, errors, marker=mark, markersize=4, linewidth=1, label=words)
            sys.stdout.write(
                f"  {words:30} " + "  ".join(f"{n:g}: {e:.2e}" for n, e in zip(ns, errors, strict=True)) + "\n"
            )
        axis.set_title(title, fontsize=9)
        axis.set_xlabel(across)
        axis.set_xticks(ns, [f"{n:g}" for n in ns])
        axis.minorticks_off()
        low, high = axis.get_ylim()
        axis.set_ylim(10 ** np.floor(np.log10(low)), 10 ** np.ceil(np.log10(high)))
        axis.grid(visible=True, linewidth=0.3)
        axis.legend(fontsize=7, frameon=False)
    axes[0, 0].set_ylabel("relative error")
    axes[1, 0].set_ylabel("relative error")
    figure.savefig(sys.argv[1], metadata={"Date": None, "Creator": None})


if __name__ == "__main__":
    main()
