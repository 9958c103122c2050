"""Blocks inside beams, rigid directions, wide bands: two ways to the same numbers."""

from dataclasses import replace

import numpy as np
import pytest

from tests.frames import by_node, cantilever, data, random_frame, read
from unterbau.files.frame_json import document_text, read_frame, solve_document, to_arrays, to_document
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import to_frame
from unterbau.mechanics import assembly, modes
from unterbau.mechanics.factor import factorise
from unterbau.mechanics.frame import Frame, Loads, Seats, no_seats
from unterbau.mechanics.seats import split
from unterbau.mechanics.statics import energies, solve_statics
from unterbau.structure.parts import Place

AGREE = 1e-9  # both are exact; only rounding differs


def seated() -> tuple[Frame, Loads]:
    """Return a beam with two blocks in one element, one of them free along the rail, and gravity."""
    frame = data(
        [[0, 0, 0], [1.2, 0, 0], [0.31, 0.02, 0.1], [0.77, 0.03, 0.1]],
        [{"i": "n0", "j": "n1", "group": "rail"}, {"i": "n2", "j": "n3", "group": "plate"}],
        supports=[{"node": "n0", "fixed": [True] * 6}, {"node": "n1", "fixed": [True] * 6}],
        cases=[
            {
                "id": "pull",
                "forces": [{"node": "n2", "force": [10.0, 200.0, -300.0], "moment": [5.0, 0.0, 1.0]}],
            },
            {"id": "weight", "gravity": [0.0, 0.0, -9.80665]},
        ],
    )
    arrays, loads = to_arrays(read(frame))
    seats = Seats(
        node=np.array([2, 3]), beam=np.array([0, 0]), station=np.array([0.31 / 1.2, 0.77 / 1.2]),
        x=np.tile([1.0, 0.0, 0.0], (2, 1)), up=np.tile([0.0, 0.0, 1.0], (2, 1)),
        k=np.array([[0.0, 1e8, 1e8, 1e4, 2e4, 2e4], [1e7, 1e8, 1e8, 1e4, 2e4, 2e4]]), zeta=np.full(2, 0.02),
        group=np.array([1, 1]),
    )  # fmt: skip
    return replace(arrays, seats=seats), loads


@pytest.mark.parametrize("build", [seated, None])
def test_condensed_blocks_equal_a_rail_split_at_the_blocks(build: object) -> None:
    if build is None:
        built = to_frame(MovingGantry(), Place(0.37, 0.21, 0.4), "low")
        n = len(built.frame.nodes)
        forces = np.zeros((2, n, 6))
        forces[0, built.tip, :3] = (10.0, 20.0, 30.0)
        frame, loads = built.frame, Loads(forces, np.array([[0, 0, 0], [0, 0, -9.80665]]))
    else:
        frame, loads = seated()
    assert len(frame.seats)
    condensed = solve_statics(frame, loads)
    whole = split(frame).frame
    more = np.zeros((len(loads.forces), len(whole.nodes), 6))
    more[:, : len(frame.nodes)] = loads.forces
    plain = solve_statics(whole, Loads(more, loads.gravity))
    assert np.abs(condensed.u - plain.u).max() < AGREE * np.abs(plain.u).max()
    assert np.abs(energies(condensed) - energies(plain)).max() < AGREE * energies(plain).max()


def test_a_file_of_the_split_rail_gives_the_same_energies() -> None:
    frame, loads = seated()
    document = read_frame(document_text(to_document(frame, loads, ("pull", "weight"), 2)))
    result = solve_document(document)
    own = energies(solve_statics(frame, loads))
    for case in range(2):
        rail = sum(result["cases"][case]["energy"]["rail"].values())
        assert rail == pytest.approx(own[case, 0].sum(), rel=AGREE)


def test_modes_of_condensed_blocks_are_those_of_the_split_rail() -> None:
    frame, _ = seated()
    condensed = modes.solve_modes(assembly.assemble(frame), 3)
    plain = modes.solve_modes(assembly.assemble(split(frame).frame), 3)
    assert condensed.frequency == pytest.approx(plain.frequency, rel=2e-2)
    settled = modes.settled_modes(frame, 3)
    assert settled.frequency == pytest.approx(modes.settled_modes(split(frame).frame, 3).frequency, rel=2e-3)


def test_a_rigid_spring_is_a_rigid_link() -> None:
    offset = cantilever(1, cases=[{"id": "p", "forces": [{"node": "n1", "force": [1.0, 2.0, 3.0]}]}], modes=3)
    offset["beams"][0]["offset_j"] = [0.1, 0.2, -0.1]
    linked = cantilever(1, cases=[{"id": "p", "forces": [{"node": "tip", "force": [1.0, 2.0, 3.0]}]}], modes=3)
    linked["nodes"][1]["xyz"] = [1.1, 0.2, -0.1]
    linked["nodes"].append({"id": "tip", "xyz": [1.0, 0.0, 0.0]})
    linked["springs"] = [{"id": "k", "i": "tip", "j": "n1", "k": [None] * 6, "x": [1.0, 2.0, 0.0]}]
    one, two = read(offset), read(linked)
    first, second = solve_document(one), solve_document(two)
    assert by_node(second, 0, two)[2] == pytest.approx(by_node(first, 0, one)[1], rel=1e-9, abs=1e-18)
    f, g = ([m["frequency"] for m in r["modes"]] for r in (first, second))
    assert f == pytest.approx(g, rel=1e-9)


def test_rigid_in_some_directions_equals_very_stiff_there() -> None:
    frame = random_frame(11)
    rigid, stiff = frame["springs"][1], dict(frame["springs"][1])
    rigid["k"] = [None, 1e6, None, 1e4, None, 1e4]
    stiff["k"] = [1e14, 1e6, 1e14, 1e4, 1e13, 1e4]
    exact = read(frame)
    near = read({**frame, "springs": [frame["springs"][0], stiff, frame["springs"][2]]})
    u, v = by_node(solve_document(exact), 0, exact), by_node(solve_document(near), 0, near)
    assert np.abs(u - v).max() < 1e-4 * np.abs(u).max()


def test_reactions_pass_through_rigid_directions() -> None:
    frame = cantilever(1, cases=[{"id": "p", "forces": [{"node": "n1", "force": [0.0, 0.0, 5.0]}]}])
    frame["nodes"].append({"id": "wall", "xyz": [0.0, 0.0, 0.0]})
    frame["supports"] = [{"node": "wall", "fixed": [True] * 6}]
    frame["springs"] = [{"id": "k", "i": "n0", "j": "wall", "k": [None] * 6}]
    reaction = solve_document(read(frame))["cases"][0]["reactions"]["wall"]
    assert reaction == pytest.approx([0, 0, -5, 0, 5, 0], abs=1e-9)


def test_superlu_and_the_band_factor_agree() -> None:
    arrays, _ = to_arrays(read(random_frame(5)))
    system = assembly.assemble(replace(arrays, seats=no_seats()))
    right = np.random.default_rng(2).standard_normal((len(system.numbering.order), 3))
    band, sparse = factorise(system.band).solve(right), factorise(system.band, wide=0.0).solve(right)
    assert np.abs(band - sparse).max() < 1e-8 * np.abs(band).max()
