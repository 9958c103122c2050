"""Is a project one that can be worked on? Names the path of the first fault."""

from collections.abc import Callable
from functools import partial

from unterbau.brief.brief import check_brief
from unterbau.catalogue.cuts import OWN_CUT, check_own_cut, cut
from unterbau.catalogue.drives import drive
from unterbau.catalogue.guides import block
from unterbau.catalogue.prices import check_prices
from unterbau.errors import InputError
from unterbau.machine.changes.change import Partless, joint_key, parts_of
from unterbau.machine.machine import Machine, lay_out, parts
from unterbau.materials.material import material
from unterbau.model.joining import joint_kind
from unterbau.model.member import member_values
from unterbau.project.project import Project
from unterbau.shop.state import check_shop
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Part, Plate, Stand

NAME_LENGTH = 120
HELD = {"brace": "member", "panel": "plate", "weight": "hung", "chain": "run"}
"""Field of what was added, by its sort."""


def check_project(project: Project) -> None:
    """Check names, references and every machine.

    Raises:
        InputError: The first fault, with its path in the file.
    """
    if not project.candidates:
        raise InputError("$.candidates", "a project needs at least one candidate")
    seen: set[str] = set()
    for index, candidate in enumerate(project.candidates):
        path = f"$.candidates[{index}]"
        check_name(f"{path}.name", candidate.name)
        if candidate.name in seen:
            raise InputError(f"{path}.name", f'"{candidate.name}" is used twice')
        seen.add(candidate.name)
        check_machine(f"{path}.machine", candidate.machine)
    if project.benchmark not in seen:
        raise InputError("$.benchmark", f'there is no candidate "{project.benchmark}"')
    check_name("$.name", project.name)
    checks: tuple[tuple[str, Callable[[], object]], ...] = (
        ("$.prices.", partial(check_prices, project.prices)),
        ("$.", partial(cut, project.cut) if project.cut != OWN_CUT else partial(check_own_cut, project.own_cut)),
        ("$.own_cut.", partial(check_own_cut, project.own_cut)),
        ("$.brief.", partial(check_brief, project.brief)),
        ("$.shop.", partial(check_shop, project.shop)),
    )
    for path, check in checks:
        try:
            check()
        except InputError as error:
            raise InputError(f"{path}{error.where}", error.problem) from None


def check_name(where: str, name: str) -> None:
    """Check that a name has something in it and fits on a card."""
    if not name.strip():
        raise InputError(where, "expected a name, got nothing")
    if not name.isprintable():
        raise InputError(where, "expected letters on one line")
    if len(name) > NAME_LENGTH:
        raise InputError(where, f"expected at most {NAME_LENGTH} characters")


def check_machine(path: str, machine: Machine) -> None:
    """Check that every part of a machine is known and that the machine can be built."""
    for key, value in parts(machine):
        try:
            check_part(value)
        except InputError as error:
            raise InputError(f"{path}.{place_of(machine, key)}.{error.where}", error.problem) from None
    try:
        lay_out(machine)
    except InputError as error:
        raise InputError(f"{path}.{error.where}", error.problem) from None


def place_of(machine: Machine, key: str) -> str:
    """Return where in a machine's data the part behind a link stands."""
    for index, one in enumerate(machine.changes):
        if not isinstance(one, Partless) and key in dict(parts_of(one)):
            return f"changes[{index}].{'joint' if key == joint_key(one) else HELD[one.sort]}"
    return key


def check_part(part: Part) -> None:
    """Check the names in a part.

    Raises:
        InputError: With the field at fault.
    """
    match part:
        case Member():
            member_values(part)
        case Plate() | Cutter() | Stand():
            material(part.material)
        case Joint():
            _joint(part)
        case Guide():
            _named("block", part.block, block)
        case Drive():
            _named("kind", part.kind, drive)
        case _:
            pass


def _joint(part: Joint) -> None:
    try:
        joint_kind(part)
    except InputError as error:
        raise InputError("kind" if error.where == "joint" else error.where, error.problem) from None


def _named(where: str, name: str, find: object) -> None:
    try:
        find(name)  # type: ignore[operator]
    except InputError as error:
        raise InputError(where, error.problem) from None
