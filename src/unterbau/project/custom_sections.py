"""The builder's own sections of a project: each name stands for one section, as its file needs it."""

from dataclasses import replace

from unterbau.machine.machine import Machine, parts, with_part
from unterbau.project.project import Candidate
from unterbau.sections.solved import CustomSection, SolvedSection
from unterbau.structure.parts import Member


def custom_sections(candidates: tuple[Candidate, ...]) -> tuple[SolvedSection, ...]:
    """Return the builder's own sections that machines use, profiles of built-up ones too, each once."""
    found: dict[str, SolvedSection] = {}
    for ref in custom_refs(candidates):
        for one in (ref.values, ref.profile):
            if one is not None:
                found.setdefault(one.name, one)
    return tuple(found.values())


def custom_refs(candidates: tuple[Candidate, ...]) -> tuple[CustomSection, ...]:
    """Return the builder's own sections that members of machines are made of, each once."""
    members = (part for one in candidates for _, part in parts(one.machine) if isinstance(part, Member))
    return tuple(dict.fromkeys(one.section for one in members if isinstance(one.section, CustomSection)))


def told_apart(candidates: tuple[Candidate, ...]) -> tuple[Candidate, ...]:
    """Return candidates whose own sections of one name and different values have names of their own."""
    known: dict[str, CustomSection] = {}
    return tuple(_told_apart(one, known) for one in candidates)


def _told_apart(candidate: Candidate, known: dict[str, CustomSection]) -> Candidate:
    machine: Machine = candidate.machine
    for key, part in parts(machine):
        if not isinstance(part, Member) or isinstance(part.section, str):
            continue
        if known.setdefault(part.section.name, part.section) != part.section:
            other = part.section.told_apart()
            known.setdefault(other.name, other)
            machine = with_part(machine, key, replace(part, section=other))
    return candidate if machine is candidate.machine else replace(candidate, machine=machine)
