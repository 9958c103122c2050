"""Changes to a project, each a pure function from project to project."""

from dataclasses import replace
from typing import Any

from unterbau.brief.brief import Brief, carried_mass, check_brief
from unterbau.catalogue.cuts import OWN_CUT, OwnCut, check_own_cut, cut
from unterbau.catalogue.prices import PriceBook, check_prices
from unterbau.errors import InputError
from unterbau.machine.machine import Machine, check_touching, with_part
from unterbau.project.checks import NAME_LENGTH, check_machine, check_name
from unterbau.project.custom_sections import told_apart
from unterbau.project.project import Candidate, Project
from unterbau.shop.shopping import Bought
from unterbau.shop.state import ShopState, check_shop
from unterbau.structure.parts import Part


def set_machine(project: Project, name: str, machine: Machine) -> Project:
    """Return the project with a candidate's machine replaced.

    Raises:
        InputError: The machine cannot be built.
    """
    before = project.candidate(name).machine
    if machine == before:
        return project
    check_machine("machine", machine)
    if _touches(before):  # one that was opened with a gap may be mended step by step
        check_touching(machine)
    changed = tuple(replace(c, machine=machine) if c.name == name else c for c in project.candidates)
    return with_payload(replace(project, candidates=told_apart(changed)))


def _touches(machine: Machine) -> bool:
    try:
        check_touching(machine)
    except InputError:
        return False
    return True


def set_part(project: Project, name: str, key: str, part: Part) -> Project:
    """Return the project with one part of a candidate replaced.

    Raises:
        InputError: The part is unknown, or the machine cannot be built with it.
    """
    machine = project.candidate(name).machine
    return set_machine(project, name, with_part(machine, key, part))


def free_name(project: Project, name: str, number: int = 1) -> str:
    """Return a name that no candidate has: as given, or shortened where it is long, with a number behind it."""
    taken = {c.name for c in project.candidates}
    while True:
        ending = f" {number}" if number > 1 else ""
        free = f"{name[: NAME_LENGTH - len(ending)].rstrip()}{ending}"
        if free not in taken:
            return free
        number += 1


def duplicate(project: Project, name: str) -> tuple[Project, str]:
    """Return the project with a copy of a candidate behind it, and the copy's name."""
    source = project.candidate(name)
    copy = free_name(project, source.name, 2)
    place = project.candidates.index(source) + 1
    candidates = (*project.candidates[:place], Candidate(copy, source.machine), *project.candidates[place:])
    return replace(project, candidates=candidates), copy


OF_CANDIDATES = ("bought", "made", "by_hand", "pours", "tests", "done", "log", "cuts", "orders")
"""What a shop keeps for each candidate by name."""


def rename(project: Project, name: str, new: str) -> Project:
    """Return the project with a candidate renamed.

    Raises:
        InputError: The name is empty, too long or taken.
    """
    new = new.strip()
    if new == name:
        return project
    check_name("name", new)
    if any(c.name == new for c in project.candidates):
        raise InputError("name", f'another candidate is called "{new}"')
    renamed = tuple(replace(c, name=new) if c.name == name else c for c in project.candidates)
    benchmark = new if project.benchmark == name else project.benchmark
    old = project.shop
    rows: dict[str, Any] = {
        field: tuple(replace(one, candidate=new) if one.candidate == name else one for one in getattr(old, field))
        for field in OF_CANDIDATES
    }
    shop = replace(old, **rows)
    return replace(project, candidates=renamed, benchmark=benchmark, shop=shop)


def delete(project: Project, name: str) -> Project:
    """Return the project without a candidate and its records; the first becomes benchmark where it was this one.

    Raises:
        InputError: It is the last one.
    """
    left = tuple(c for c in project.candidates if c.name != name)
    if not left:
        raise InputError("candidate", "a project keeps at least one candidate")
    benchmark = left[0].name if project.benchmark == name else project.benchmark
    rows: dict[str, Any] = {
        field: tuple(one for one in getattr(project.shop, field) if one.candidate != name) for field in OF_CANDIDATES
    }
    return replace(project, candidates=left, benchmark=benchmark, shop=replace(project.shop, **rows))


def set_benchmark(project: Project, name: str) -> Project:
    """Return the project with another benchmark."""
    return replace(project, benchmark=project.candidate(name).name)


def set_prices(project: Project, prices: PriceBook) -> Project:
    """Return the project with another price book.

    Raises:
        InputError: The book cannot be counted with.
    """
    check_prices(prices)
    return replace(project, prices=prices)


def with_payload(project: Project) -> Project:
    """Return the project with the payload of its brief at the head of every candidate's machine."""
    mass = carried_mass(project.brief)
    if all(one.machine.payload == mass for one in project.candidates):
        return project
    changed = tuple(replace(one, machine=replace(one.machine, payload=mass)) for one in project.candidates)
    return replace(project, candidates=changed)


def set_brief(project: Project, brief: Brief) -> Project:
    """Return the project with another brief.

    Raises:
        InputError: The brief cannot be worked with.
    """
    check_brief(brief)
    return with_payload(replace(project, brief=brief))


def add(project: Project, name: str, machine: Machine) -> tuple[Project, str]:
    """Return the project with another candidate at the end, and its name, numbered where it is taken.

    Raises:
        InputError: The machine cannot be built.
    """
    check_machine("machine", machine)
    check_touching(machine)
    free = free_name(project, name)
    found = replace(project, candidates=told_apart((*project.candidates, Candidate(free, machine))))
    return with_payload(found), free


def set_cut(project: Project, name: str) -> Project:
    """Return the project judged by another cut.

    Raises:
        InputError: There is no such cut.
    """
    return replace(project, cut=name if name == OWN_CUT else cut(name).id)


def set_own_cut(project: Project, own: OwnCut) -> Project:
    """Return the project judged by a cut of one's own.

    Raises:
        InputError: It is none.
    """
    check_own_cut(own)
    return replace(project, cut=OWN_CUT, own_cut=own)


def set_shop(project: Project, shop: ShopState) -> Project:
    """Return the project with another shop.

    Raises:
        InputError: It cannot be worked with.
    """
    check_shop(shop)
    return replace(project, shop=shop)


def set_bought(project: Project, bought: tuple[Bought, ...]) -> Project:
    """Return the project with another record of what was bought.

    Raises:
        InputError: It cannot be worked with.
    """
    return set_shop(project, replace(project.shop, bought=bought))


def rename_project(project: Project, name: str) -> Project:
    """Return the project with another name.

    Raises:
        InputError: The name is empty or too long.
    """
    check_name("name", name)
    return replace(project, name=name.strip())
