"""Changes to a kind: braces against a kind's own, weights by hand, what stands and what has lost its footing."""

import random
from dataclasses import replace

import numpy as np
import pytest

from unterbau.catalogue.prices import shipped_prices
from unterbau.errors import InputError
from unterbau.machine.alternatives import alternatives
from unterbau.machine.changes.change import Brace, Change, LeftOut, Panel, Weight, joint_key
from unterbau.machine.changes.linked import free_id
from unterbau.machine.changes.proposals import proposals
from unterbau.machine.kind import Kind
from unterbau.machine.kinds.arm_mill import ArmMill
from unterbau.machine.kinds.braced_mill import BracedMill
from unterbau.machine.kinds.moving_gantry import MovingGantry
from unterbau.machine.machine import (
    KINDS,
    Machine,
    bill_of,
    lay_out,
    links,
    listed_mass,
    not_standing,
    part,
    parts,
    to_frame,
    with_part,
)
from unterbau.mechanics.modes import solve_modes
from unterbau.mechanics.statics import total_mass
from unterbau.parts_list.bill import total_mass as bill_mass
from unterbau.solids.solids import solids
from unterbau.structure.ends import sawn
from unterbau.structure.footing import Footing
from unterbau.structure.parts import Hung, Joint, Member, Place, Plate
from unterbau.structure.piece import Bar, PlatePiece
from unterbau.structure.spots import looks, stands
from unterbau.structure.weights import joint_mass
from unterbau.studies.advise import Trials
from unterbau.studies.answers import likely_answers

each_kind = pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.id)


def braced_by_hand(mill: BracedMill) -> BracedMill:
    """Return the mill with its own braces left out and the same ones added."""
    structure = lay_out(mill)
    pieces = structure.pieces
    back = pieces["left brace"]
    assert isinstance(back, Bar)
    seat, front = back.end, stands(structure, Footing("base", "start")).place[1]
    sides = [stands(structure, Footing("base", "top", 0.5, side)).place[0] for side in (0.0, 1.0)]
    changes: list[Change] = [LeftOut("left_out_1", "brace")]

    def put(a: Footing, b: Footing) -> None:
        changes.append(Brace(free_id(changes, "brace"), a, b, mill.brace, mill.brace_joint))

    for post, x in (("left post", back.start[0]), ("right post", -back.start[0])):
        across = (x - sides[0]) / (sides[1] - sides[0])
        put(Footing(post, "end"), Footing("base", "top", seat[1] - front, across, "start"))
    for low, high in ((0.0, 0.5), (0.5, 1.0)):
        put(Footing("left post", "axis", low), Footing("right post", "axis", high))
        put(Footing("right post", "axis", low), Footing("left post", "axis", high))
    return replace(mill, changes=tuple(changes))


def test_braces_added_by_hand_are_a_kinds_own_braces() -> None:
    """To 1e-9: compliance, its sum over the braces, mass, modes."""
    own, added = BracedMill(), braced_by_hand(BracedMill())
    assert not not_standing(added)
    (first, a), (second, b) = (likely_answers(one, Place()) for one in (own, added))
    assert second.compliance == pytest.approx(first.compliance, rel=1e-9, abs=1e-18)
    assert second.mass == pytest.approx(first.mass, rel=1e-12)
    row = first.shares.keys.index("brace")
    rows = [n for n, key in enumerate(second.shares.keys) if key.startswith("brace_") and not key.endswith("joint")]
    assert len(rows) == 6
    assert second.shares.compliance[:, rows].sum(axis=1) == pytest.approx(
        first.shares.compliance[:, row], rel=1e-8, abs=1e-18
    )
    before, after = (solve_modes(one.statics.system, 4).frequency for one in (a, b))
    assert after == pytest.approx(before, rel=1e-8)


def test_without_its_braces_a_mill_is_softer() -> None:
    mill = BracedMill()
    bare = replace(mill, changes=(LeftOut("left_out_1", "brace"),))
    whole, less = (likely_answers(one, Place())[0] for one in (mill, bare))
    assert (less.compliance.diagonal() > whole.compliance.diagonal() * 1.02).all()
    assert less.mass < whole.mass
    assert not {"brace", "brace_joint"} & {one.key for one in links(bare)}
    one_less = replace(mill, changes=(LeftOut("left_out_1", "cross 1"),))
    assert {"brace", "brace_joint"} <= {one.key for one in links(one_less)}


def spots(random_: random.Random, piece: Bar | PlatePiece) -> Footing:
    face = random_.choice([*looks(piece), "start", "end", "axis"])
    return Footing(piece.name, face, random_.choice([0.0, 0.25, 0.5, 1.0]), random_.choice([0.0, 0.5, 1.0]))


def changed_at_random(machine: Machine, seed: int) -> Machine:
    random_ = random.Random(seed)
    pieces = [one for one in lay_out(machine).pieces.values() if isinstance(one, Bar | PlatePiece)]
    changes: list[Change] = []
    for _ in range(4):
        one, other = random_.choice(pieces), random_.choice(pieces)
        mirrored = random_.random() < 0.4
        match random_.choice(["brace", "panel", "weight"]):
            case "brace":
                ends = spots(random_, one), spots(random_, other)
                changes.append(Brace(free_id(changes, "brace"), *ends, mirrored=mirrored))
            case "panel":
                face = random_.choice(looks(one))
                at = [(one, 0.2), (one, 0.8), (other, 0.8), (other, 0.2)]
                corners = tuple(
                    Footing(piece.name, face if face in looks(piece) else "axis", along) for piece, along in at
                )
                changes.append(Panel(free_id(changes, "panel"), corners, mirrored=mirrored))
            case _:
                changes.append(Weight(free_id(changes, "weight"), spots(random_, one), mirrored=mirrored))
    return replace(machine, changes=tuple(changes))


@each_kind
def test_a_changed_machine_weighs_what_its_list_says_and_its_shares_sum(kind: Kind) -> None:
    stood = 0
    for seed in range(4):
        machine = changed_at_random(kind.model(), seed)
        stood += len(machine.changes) - len(not_standing(machine))
        place = Place(0.2, 0.7, 0.4)
        mass, _ = total_mass(to_frame(machine, place, "likely").frame)
        hidden = sum(bar.hidden for bar in sawn(lay_out(machine)).values())
        assert bill_mass(bill_of(machine)) + hidden == pytest.approx(mass, rel=1e-9)
        likely, _ = likely_answers(machine, place)
        assert (likely.compliance.diagonal() > 0.0).all()
        total = likely.shares.compliance.sum(axis=(1, 2))
        assert total == pytest.approx(likely.compliance.diagonal(), rel=1e-7)
    assert stood >= 3


def test_a_panel_closes_what_sways() -> None:
    """Posts sway between base and tie; a plate over them takes it as shear, and the more the thicker it is."""
    bare = replace(BracedMill(), changes=(LeftOut("left_out_1", "brace"),))
    corners = tuple(
        Footing(post, "back", along) for post, along in (
            ("left post", 0.08), ("left post", 0.92), ("right post", 0.92), ("right post", 0.08)
        )
    )  # fmt: skip
    sway = [likely_answers(bare, Place())[0].compliance[0, 0]]
    for thickness in (0.004, 0.008):
        panel = Panel("panel_1", corners, Plate(thickness, "steel-s235"), Joint("weld"), between=4)
        closed = replace(bare, changes=(*bare.changes, panel))
        assert not not_standing(closed)
        sway.append(likely_answers(closed, Place())[0].compliance[0, 0])
    assert sway[0] > 1.02 * sway[1]
    assert sway[1] > 1.005 * sway[2]


def test_what_is_fastened_between_a_rails_screws_puts_up_no_screws() -> None:
    """Spots along a walled member add nodes; the member is as stiff as before."""
    mill = BracedMill()
    changes = tuple(
        Weight(f"weight_{n}", Footing("left post", "back", 0.06 * n), hung=Hung(1e-6, 0.02, 0.02, 0.02))
        for n in (1, 4, 7, 9)
    )
    bare, full = (likely_answers(one, Place())[0].compliance for one in (mill, replace(mill, changes=changes)))
    assert full == pytest.approx(bare, rel=1e-6, abs=1e-15)  # a bench sways with what stands on it, joints' screws too


def test_a_weight_hangs_where_it_is_told_and_its_pull_is_its_weight() -> None:
    """Weight and its lever by hand: m·g down, at half the body's depth off the face."""
    router = MovingGantry()
    at = Footing("gantry beam", "back", 0.25)
    heavy = replace(router, changes=(Weight("weight_1", at, "drag chain", Hung(4.0, 0.2, 0.1, 0.05)),))
    (mass, centre), (more, moved) = (total_mass(to_frame(one, Place(), "likely").frame) for one in (router, heavy))
    face = stands(lay_out(router), at).place
    fixing = joint_mass(Joint("bolted-plate"))
    assert more - mass == pytest.approx(4.0 + fixing)
    place = (np.array(moved) * more - np.array(centre) * mass - np.array(face) * fixing) / 4.0
    assert place == pytest.approx((face[0], face[1] + 0.05, face[2]), abs=1e-9)
    assert any(item.part == "weight_1" and item.mass == pytest.approx(4.0) for item in bill_of(heavy))


def test_the_other_side_gets_the_same() -> None:
    router = MovingGantry()
    one = Brace("brace_1", Footing("left side", "back", 0.9, 0.5), Footing("gantry beam", "back", 0.2), mirrored=True)
    structure = lay_out(replace(router, changes=(one,)))
    first, second = (structure.pieces[name] for name in ("brace 1", "brace 1 mirrored"))
    assert isinstance(first, Bar)
    assert isinstance(second, Bar)
    for a, b in ((first.start, second.start), (first.end, second.end)):
        assert (-a[0], a[1], a[2]) == pytest.approx(b)
    assert structure.pieces["right side"].carrier == second.carrier


def test_spots_follow_when_a_size_changes() -> None:
    router = MovingGantry()
    brace = Brace("brace_1", Footing("left side", "back", 0.8), Footing("gantry beam", "back", 0.1, 0.5, "start"))
    for travel in (0.65, 0.9):
        machine = replace(router, dimensions=replace(router.dimensions, travel_x=travel), changes=(brace,))
        structure = lay_out(machine)
        beam, laid = structure.pieces["gantry beam"], structure.pieces["brace 1"]
        assert isinstance(beam, Bar)
        assert isinstance(laid, Bar)
        assert laid.end[0] - beam.start[0] == pytest.approx(0.1)


@pytest.mark.parametrize(
    ("change", "why"),
    [
        (Brace("brace_1", Footing("left side beam", "top"), Footing("left side", "back")), "move against each other"),
        (Brace("brace_1", Footing("gantry beam", "back", 0.2), Footing("gantry beam", "back", 0.8)), "both of"),
        (Brace("brace_1", Footing("top tie"), Footing("gantry beam")), 'there is no "top tie"'),
        (Brace("brace_1", Footing("bed", "top", 3.0, measured="start"), Footing("left side beam")), "ends before that"),
        (Panel("panel_1", (Footing("bed", "top", 0.1), Footing("bed", "top"), Footing("bed", "top", 0.9))), "line"),
        (Weight("weight_1", Footing("gantry beam", "left")), "no face that looks left"),
        (Weight("weight_1", Footing("cross member 1"), mirrored=False), ""),
        (LeftOut("left_out_1", "gantry_beam"), "carries what moves"),
        (LeftOut("left_out_1", "bed"), "the work stands on it"),
        (LeftOut("left_out_1", "wings"), 'there is no "wings"'),
        (LeftOut("left_out_1", "cross_member"), "hang on nothing"),
        (LeftOut("left_out_1", "cross member 2"), ""),
    ],
)  # fmt: skip
def test_what_does_not_stand_says_why_and_stays(change: Change, why: str) -> None:
    machine = replace(MovingGantry(), changes=(change,))
    fallen = not_standing(machine)
    if not why:
        assert not fallen
        return
    assert why in fallen[change.id]
    bare, _ = likely_answers(MovingGantry(), Place())
    still, _ = likely_answers(machine, Place())
    assert still.compliance == pytest.approx(bare.compliance, rel=1e-12)
    assert machine.changes == (change,)


@pytest.mark.parametrize(
    ("change", "where"),
    [
        (Brace("brace one", Footing("a"), Footing("b")), "changes[0].id"),
        (Panel("panel_1", (Footing("a"), Footing("b"))), "changes[0].corners"),
        (Weight("weight_1", Footing("a"), hung=Hung(0.0)), "changes[0].hung.mass"),
        (Brace("brace_1", Footing("a"), Footing("b"), joint=Joint("weld", 99)), "changes[0].joint.count"),
        (Brace("brace_1", Footing("a", "axis", 1.2), Footing("b")), "changes[0].along"),
    ],
)
def test_a_change_that_is_none_is_refused_with_its_place(change: Change, where: str) -> None:
    with pytest.raises(InputError) as found:
        lay_out(replace(MovingGantry(), changes=(change,)))
    assert found.value.where == where


def test_parts_that_were_added_are_changed_like_any() -> None:
    brace = Brace("brace_1", Footing("left side", "back"), Footing("gantry beam", "back", 0.1))
    machine: Machine = replace(MovingGantry(), changes=(brace,))
    assert part(machine, "brace_1") == brace.member
    thick = with_part(machine, "brace_1", replace(brace.member, section="rhs-80x40x4"))
    assert part(thick, "brace_1") != brace.member
    welded = with_part(thick, joint_key(brace), Joint("weld"))
    assert part(welded, joint_key(brace)) == Joint("weld")
    assert dict(parts(welded))["brace_1_joint"] == Joint("weld")
    assert [one.key for one in links(machine)][-2:] == ["brace_1", "brace_1_joint"]


def test_what_stands_on_turned_parts_is_turned_with_them() -> None:
    brace = Brace("brace_1", Footing("arm", "bottom", 0.2), Footing("head plate", "back", 0.1))
    mill = ArmMill()
    straight = replace(mill, changes=(brace,))
    turned = replace(straight, dimensions=replace(mill.dimensions, turn=8))
    for machine in (straight, turned):
        assert not not_standing(machine)
        likely, _ = likely_answers(machine, Place())
        bare, _ = likely_answers(replace(machine, changes=()), Place())
        assert likely.compliance[2, 2] < bare.compliance[2, 2]
    across = replace(turned, changes=(Brace("brace_1", Footing("column", "front", 0.9), Footing("arm", "top", 0.5)),))
    assert "turned against" in not_standing(across)["brace_1"]


@each_kind
def test_what_is_proposed_stands(kind: Kind) -> None:
    machine = kind.model()
    structure = lay_out(machine)
    for one in links(machine):
        for proposal in proposals(structure, (), one.key):
            changed = replace(machine, changes=(proposal.change,))
            lay_out(changed)
            assert proposal.text


def test_a_corner_brace_is_offered_for_sides_and_gains() -> None:
    """Trials that are in the way are left out; a brace that stands clear stiffens the gantry sideways."""
    router = MovingGantry()
    added = [one for one in alternatives(router, "side") if one.added is not None]
    bench = Trials(router, Place(), shipped_prices())
    found = {one.text: bench.tried(one) for one in added}
    brace = found["brace to the left side, back, below"]
    assert brace is not None
    assert brace.gain[0] > 0.01
    assert found["plate 6 mm over both, front"] is None, "it would sweep over the work"
    again = brace.alternative.applied(router)
    assert [one.id for one in again.changes] == ["brace_1"]


def test_a_flat_along_a_face_lies_on_it() -> None:
    """Its middle is half its thickness off the face that it runs along; hand sum."""
    router = MovingGantry()
    flat = Member("flat-40x10", "steel-s235", turned=True)
    brace = Brace("brace_1", Footing("left side beam", "top", 0.3), Footing("right side beam", "top", 0.6), flat)
    structure = lay_out(replace(router, changes=(brace,)))
    laid, face = structure.pieces["brace 1"], stands(structure, brace.a).place
    assert isinstance(laid, Bar)
    assert laid.start[2] - face[2] == pytest.approx(0.005)


def test_a_brace_that_its_neighbours_leave_nothing_of_does_not_stand() -> None:
    """From the corner over the beam's end to the beam: cut at both faces, less than nothing is left."""
    router, fallen = MovingGantry(), 0
    for along in (0.9, 1.0):
        for across in (0.0, 0.5, 1.0):
            for near in (0.75, 0.95, 0.99):
                a, b = Footing("right side", "left", along, across), Footing("gantry beam", "top", near)
                braced = replace(router, changes=(Brace("brace_1", a, b),))
                why = not_standing(braced).get("brace_1", "")
                fallen += "its neighbours leave" in why
                assert all(one.length > 0.0 for one in sawn(lay_out(braced)).values())
                assert solids(lay_out(braced), Place())
    assert fallen


def test_what_people_hang_is_offered_with_its_mass() -> None:
    weight = Weight("weight_1", Footing("gantry beam", "back", 0.5))
    machine = replace(MovingGantry(), changes=(weight,))
    (key,) = (one.key for one in links(machine) if one.key == "weight_1")
    found = {one.text: one for one in alternatives(machine, key)}
    held = next(one for words, one in found.items() if "vice" in words).applied(machine)
    hung = part(held, key)
    assert isinstance(hung, Hung)
    assert listed_mass(held) - listed_mass(machine) == pytest.approx(hung.mass - weight.hung.mass)
