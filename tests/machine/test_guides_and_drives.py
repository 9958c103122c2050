"""Guides and drives as chosen: free shafts, number of blocks, screws off centre, racks, motors off."""

from dataclasses import replace

import numpy as np
import pytest

from unterbau.band import Band
from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.errors import InputError
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import Machine, bill_of, to_frame
from unterbau.mechanics.frame import Loads
from unterbau.mechanics.statics import solve_statics, total_mass
from unterbau.structure.parts import Drive, Guide, Place
from unterbau.studies.answers import likely_answers
from unterbau.studies.compliance import solve, tip_compliance
from unterbau.studies.travel import Travel

BASE = MovingGantry()


def stiffness(machine: Machine) -> list[float]:
    C = likely_answers(machine, Place())[0].compliance
    return [float(1e-6 / C[a, a]) for a in range(3)]


def test_unsupported_shafts_over_most_of_a_metre_are_hopeless() -> None:
    """Common practice, no source: 20 mm shafts over 0.8 m under a gantry; profiled rails bolted down are not."""
    long = replace(BASE, dimensions=replace(BASE.dimensions, travel_x=0.6, travel_y=0.6))
    free = stiffness(replace(long, y_guides=Guide("free-shaft-20")))
    tied = stiffness(long)
    assert free[2] < 0.5 * tied[2]
    beam = stiffness(replace(long, x_guides=Guide("free-shaft-20")))
    assert beam[1] < 0.2 * tied[1]
    assert stiffness(replace(long, y_guides=Guide("shaft-20")))[2] > 2 * free[2]


def test_a_free_shaft_bends_between_its_ends() -> None:
    """F·L³/192EI between ends that cannot turn, ⌀20, E 207; the shaft alone, its ends' nodes held."""
    machine = replace(BASE, y_guides=Guide("free-shaft-20"))
    frame = to_frame(machine, Place(), "likely").frame
    shaft = [n for n, name in enumerate(frame.node_names) if name.startswith("y_guides shaft 1 ")]
    length = float(np.ptp(frame.nodes[shaft, 1]))
    alone = replace(frame, seats=replace(frame.seats, k=frame.seats.k * 1e-9))
    alone.fixed[shaft[0]] = alone.fixed[shaft[-1]] = True
    forces = np.zeros((1, len(frame.nodes), 6))
    forces[0, shaft[len(shaft) // 2], 2] = 100.0
    moved = solve_statics(alone, Loads(forces, np.zeros((1, 3)))).u[0, shaft[len(shaft) // 2], 2]
    inertia = np.pi * 0.02**4 / 64
    assert moved == pytest.approx(100 * length**3 / (192 * 207e9 * inertia), rel=0.02)


def test_more_blocks_share_the_load_and_one_alone_tilts() -> None:
    wide = replace(BASE, dimensions=replace(BASE.dimensions, x_stance=0.2))
    counts = [stiffness(replace(wide, x_guides=replace(wide.x_guides, blocks=n))) for n in (1, 2, 4)]
    assert counts[0][0] < 0.5 * counts[1][0]
    assert all(b > a for a, b in zip(counts[1], counts[2], strict=True))
    built = to_frame(replace(wide, x_guides=replace(wide.x_guides, blocks=3)), Place(), "likely")
    assert len(built.slides) == 4 + 6 + 4


def test_a_screw_off_centre_racks() -> None:
    middle = stiffness(BASE)
    aside = stiffness(replace(BASE, x_drive=replace(BASE.x_drive, offset=0.12)))
    assert aside[0] < 0.95 * middle[0]


def test_a_rack_is_as_stiff_wherever_it_stands() -> None:
    """1 N·m/arcmin on 10 mm: 1/(0.01²·2.909e-4) = 34 N/µm; with the mesh of 17 N/µm per mm, 10 mm wide, in series."""
    rack = drive("rack-1-geared")
    assert 1 / (0.01**2 * np.pi / 10800) * 1e-6 == pytest.approx(34.4, abs=0.1)
    near, far = (rack.stiffness("likely", d, 3.0) for d in (0.1, 2.9))
    assert near == pytest.approx(far)
    assert near * 1e-6 == pytest.approx(1 / (1 / 170 + 1 / 34), rel=1e-6)
    assert drive("rack-1-twin").stiffness("likely", 1.0, 3.0) == pytest.approx(2 * near)


def test_a_motor_that_is_off_lets_its_axis_go() -> None:
    off = replace(BASE, x_drive=replace(BASE.x_drive, free=True))
    assert stiffness(off)[0] < 0.05
    assert stiffness(off)[2] == pytest.approx(stiffness(BASE)[2], rel=0.05)
    place = Place(0.2, 0.7, 0.4)
    swept = Travel(off).answers(np.array([[0.2, 0.7, 0.4]]))
    assert swept.compliance[0] == pytest.approx(tip_compliance(solve(off, place, "likely")), rel=1e-5, abs=1e-12)


@pytest.mark.parametrize("name", ["free-shaft-16", "shaft-20", "free-shaft-25", "v-wheels"])
def test_the_whole_travel_on_other_guides(name: str) -> None:
    machine = replace(BASE, y_guides=Guide(name), x_guides=replace(BASE.x_guides, blocks=3))
    place = np.array([[0.13, 0.81, 0.5]])
    found = Travel(machine).answers(place).compliance[0]
    alone = tip_compliance(solve(machine, Place(0.13, 0.81, 0.5), "likely"))
    assert np.abs(found - alone).max() < 1e-6 * np.abs(alone).max()


def test_wrong_numbers_are_refused() -> None:
    for machine, where in (
        (replace(BASE, x_guides=Guide("15", blocks=0)), "x_guides.blocks"),
        (replace(BASE, x_drive=Drive("ballscrew-16", offset=3.0)), "x_drive.offset"),
    ):
        with pytest.raises(InputError) as error:
            to_frame(machine, Place(), "likely")
        assert error.value.where == where
    assert block("shaft-20").light == Band(15e6, 32e6, 60e6)


@pytest.mark.parametrize("mount", ["front", "top-front", "top-bottom"])
def test_rails_lie_on_the_faces_chosen(mount: str) -> None:
    """The schools of beam rails: each is solved, weighs what its list weighs, and its whole travel agrees."""
    machine = replace(BASE, x_guides=replace(BASE.x_guides, mount=mount))  # type: ignore[arg-type]
    built = to_frame(machine, Place(), "likely")
    frame = built.frame
    ups = {tuple(np.round(row, 6).tolist()) for row, g in zip(frame.seats.up, frame.seats.group, strict=True)
           if frame.groups[g] == "x_guides"}  # fmt: skip
    faces = {"front": {(0, -1, 0)}, "top-front": {(0, -1, 0), (0, 0, 1)}, "top-bottom": {(0, 0, 1), (0, 0, -1)}}
    assert ups == faces[mount]
    mass, _ = total_mass(frame)
    assert mass == pytest.approx(sum(line.mass for line in bill_of(machine)), rel=1e-9)
    found = Travel(machine).answers(np.array([[0.3, 0.6, 0.2]])).compliance[0]
    alone = tip_compliance(solve(machine, Place(0.3, 0.6, 0.2), "likely"))
    assert np.abs(found - alone).max() < 1e-6 * np.abs(alone).max()
