"""The brief: what is cut, how exactly, where the machine stands, who builds it. All optional; SI units."""

from dataclasses import dataclass, fields
from typing import Literal

from unterbau.catalogue.cuts import cut
from unterbau.errors import InputError
from unterbau.strict import STRICT

Process = Literal["cutting", "laser", "plasma", "knife", "carrying"]
Finish = Literal["open", "rough", "smooth", "fine"]
Stands = Literal["floor", "bench", "wall"]
PROCESSES = {
    "cutting": "cutting with a spindle", "laser": "laser", "plasma": "plasma", "knife": "knife or pen",
    "carrying": "carrying something",
}  # fmt: skip
FINISHES = {
    "open": "finish left open", "rough": "rough, sanded later", "smooth": "smooth from the tool",
    "fine": "fine, as if polished",
}  # fmt: skip
STANDS = {"floor": "on the floor", "bench": "on a bench", "wall": "on a wall"}
TOOLS = {
    "weld": "welder", "drill-press": "drill press", "lathe": "small lathe", "printer": "3D printer",
    "old-machine": "an old machine that can make parts", "sheet-firm": "laser-cutting firm",
    "machining-firm": "someone with a machining centre",
}  # fmt: skip
LONGEST_TEXT = 2000


@dataclass(frozen=True, slots=True)
class Brief:
    """A brief; 0 and empty mean left open."""

    __pydantic_config__ = STRICT

    process: Process = "cutting"
    cuts: tuple[str, ...] = ("hardwood",)
    """Customary cuts that the machine has to bear."""
    accuracy: float = 1e-4
    """Error on the part that is allowed, m."""
    finish: Finish = "open"
    work_x: float = 0.0
    """Largest work, m."""
    work_y: float = 0.0
    work_z: float = 0.0
    """Tallest work with vice or clamps."""
    tool_length: float = 0.0
    """Longest tool out of the nose."""
    payload: float = 0.0
    """What is carried, kg."""
    acceleration: float = 1.0
    """Wanted, m/s²."""
    stands: Stands = "bench"
    space_x: float = 0.0
    """Room for the machine, m."""
    space_y: float = 0.0
    space_z: float = 0.0
    door: float = 0.0
    """Width of the door it has to pass, m."""
    lift: float = 25.0
    """Heaviest piece one person lifts, kg."""
    money: float = 0.0
    tools: tuple[str, ...] = ()
    largest_print: float = 0.0
    """Longest edge that the printer makes, m."""
    last_machine: str = ""
    """What was wrong with the last one."""


def carried_mass(brief: Brief) -> float:
    """Return the mass that the head carries, kg: none where a spindle cuts."""
    return 0.0 if brief.process == "cutting" else brief.payload


def check_brief(brief: Brief) -> None:
    """Check that a brief can be worked with.

    Raises:
        InputError: With the field at fault.
    """
    for one in fields(brief):
        value = getattr(brief, one.name)
        if isinstance(value, float) and not 0.0 <= value <= 1e6:
            raise InputError(one.name, "expected 0 or more, or nothing at all")
    if not 1e-6 <= brief.accuracy <= 0.01:
        raise InputError("accuracy", f"expected 0.001 to 10 mm, got {brief.accuracy * 1e3:g} mm")
    for name in brief.cuts:
        try:
            cut(name)
        except InputError as error:
            raise InputError("cuts", error.problem) from None
    for name in brief.tools:
        if name not in TOOLS:
            raise InputError("tools", f'"{name}" is none of {", ".join(TOOLS)}')
    if len(brief.last_machine) > LONGEST_TEXT:
        raise InputError("last_machine", f"expected at most {LONGEST_TEXT} letters")
