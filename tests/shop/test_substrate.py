"""What a screw finds in a material: no thread is asked for where none can be cut."""

from dataclasses import fields, replace

import pytest

from unterbau.machine.kind import Kind
from unterbau.machine.kinds.slab_router import SlabRouter
from unterbau.machine.machine import KINDS, lay_out
from unterbau.materials.edge_distance import METALS, least_edge
from unterbau.materials.material import material
from unterbau.shop.fasteners import fasteners_of
from unterbau.shop.pieces import hole_words, pieces_of
from unterbau.shop.substrate import seat
from unterbau.structure.parts import Plate


@pytest.mark.parametrize(
    ("name", "face", "edge"),
    [
        ("steel-s235", "tapped", "tapped"),
        ("iron-gjl-250", "tapped", "tapped"),
        ("aluminium-6082", "tapped", "tapped"),
        ("granite", "bonded insert", "bonded insert"),
        ("epoxy-granite-8", "bonded insert", "bonded insert"),
        ("birch-ply", "T-nut", "wood screw"),
        ("petg", "heat-set insert", "heat-set insert"),
    ],
)
def test_the_material_decides_what_holds_a_screw(name: str, face: str, edge: str) -> None:
    assert (seat(name), seat(name, edge=True)) == (face, edge)


def test_softer_stuff_wants_more_room_at_its_edges() -> None:
    assert least_edge("steel-s235", 0.005) == pytest.approx(0.006)
    assert least_edge("granite", 0.005) > least_edge("petg", 0.005) > least_edge("steel-s235", 0.005)


def test_a_slab_of_stone_takes_bonded_inserts_and_they_are_bought() -> None:
    structure = lay_out(SlabRouter())
    stone = [one for one in pieces_of(structure) if material(one.material).kind == "stone"]
    held = [hole for one in stone for hole in one.holes if hole.sort != "clearance"]
    assert held
    assert {hole.sort for hole in held} == {"bonded insert"}
    assert all("bonded insert, drill" in hole_words(hole) for hole in held)
    bought = sum(one.count for one in fasteners_of(structure) if one.words.startswith("bonded insert"))
    assert bought == sum(one.count * len([h for h in one.holes if h.sort == "bonded insert"]) for one in stone)


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)
@pytest.mark.parametrize("other", ["granite", "birch-ply", "petg"])
def test_no_plate_that_cannot_be_threaded_is_tapped(kind: Kind, other: str) -> None:
    machine = kind.model()
    plates = {
        one.name: replace(value, material=other)
        for one in fields(machine)
        if isinstance(value := getattr(machine, one.name), Plate)
    }
    pieces = pieces_of(lay_out(replace(machine, **plates)))
    for one in pieces:
        if material(one.material).kind not in METALS:
            assert not [hole for hole in one.holes if hole.sort == "tapped"], one.names
