"""A project: candidates of one machine, one of them the benchmark."""

from dataclasses import dataclass, field
from typing import Literal

from unterbau.brief.brief import Brief
from unterbau.catalogue.cuts import OwnCut
from unterbau.catalogue.prices import PriceBook, shipped_prices
from unterbau.errors import InputError
from unterbau.machine.machine import Machine
from unterbau.shop.state import ShopState
from unterbau.strict import STRICT

Units = Literal["mm", "inch"]


@dataclass(frozen=True, slots=True)
class Candidate:
    """One complete design of the machine."""

    __pydantic_config__ = STRICT

    name: str
    machine: Machine


@dataclass(frozen=True, slots=True)
class Project:
    """Everything that is saved."""

    __pydantic_config__ = STRICT

    name: str
    benchmark: str
    """Name of the candidate that the others are measured against."""
    candidates: tuple[Candidate, ...]
    units: Units = "mm"
    """How lengths were shown when the project was saved; not an edit."""
    prices: PriceBook = field(default_factory=shipped_prices)
    cut: str = "hardwood"
    """The customary cut whose force the machine is judged by, or `own`."""
    brief: Brief = field(default_factory=Brief)
    """What the machine is for."""
    own_cut: OwnCut = field(default_factory=OwnCut)
    """A cut of one's own, judged by where `cut` says so."""
    shop: ShopState = field(default_factory=ShopState)
    """Saw cuts, bars on offer and in the rack."""

    def candidate(self, name: str) -> Candidate:
        """Return a candidate by name.

        Raises:
            InputError: There is none of this name.
        """
        for one in self.candidates:
            if one.name == name:
                return one
        known = ", ".join(f'"{one.name}"' for one in self.candidates)
        raise InputError("candidate", f'there is no candidate "{name}"; there are {known}')
