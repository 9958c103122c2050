"""Can changes be worked with? What stands and what does not is another question."""

from math import isfinite

from unterbau.errors import InputError
from unterbau.machine.assemblies.checks import check_joint, check_sizes_of, within
from unterbau.machine.changes.change import NAMED, Chain, Change, LeftOut, Measured, Panel, Weight, footings
from unterbau.structure.footing import Footing
from unterbau.structure.parts import DragChain, Hung

MOST = 40
MOST_BETWEEN = 20
LONGEST = 10.0  # m, of a distance along a piece
HEAVIEST = 500.0  # kg


def check_changes(changes: tuple[Change, ...]) -> None:
    """Check ids, counts and sizes of changes.

    Raises:
        InputError: Names the change and says what was expected.
    """
    if len(changes) > MOST:
        raise InputError("changes", f"expected at most {MOST}, got {len(changes)}")
    seen: set[str] = set()
    for index, one in enumerate(changes):
        where = f"changes[{index}]"
        sort = one.sort.replace("-", "_")
        if not NAMED.fullmatch(one.id) or one.id.rpartition("_")[0] != sort:
            raise InputError(f"{where}.id", f'expected {sort}_ and a number, got "{one.id}"')
        if one.id in seen:
            raise InputError(f"{where}.id", f'"{one.id}" is used twice')
        seen.add(one.id)
        for footing in footings(one):
            _check_footing(where, footing)
        _check_change(where, one)


def _check_change(where: str, one: Change) -> None:
    if isinstance(one, LeftOut):
        return
    if isinstance(one, Measured):
        within(f"{where}.factor", one.factor, 1e-3, 1e3)
        within(f"{where}.spread", one.spread, 1.0, 50.0)
        return
    check_joint(f"{where}.joint", one.joint)
    if isinstance(one, Panel):
        if len(one.corners) not in (3, 4):
            raise InputError(f"{where}.corners", f"expected 3 or 4 spots, got {len(one.corners)}")
        if not 0 <= one.between <= MOST_BETWEEN:
            raise InputError(f"{where}.between", f"expected 0 to {MOST_BETWEEN}, got {one.between}")
        within(f"{where}.margin", one.margin, 0.005, 0.2)
        check_sizes_of(f"{where}.plate", one.plate, ())
    elif isinstance(one, Weight):
        if not one.words.strip() or len(one.words) > 40 or not one.words.isprintable():
            raise InputError(f"{where}.words", "expected up to 40 letters on one line")
        check_hung(f"{where}.hung", one.hung)
    elif isinstance(one, Chain):
        check_chain(f"{where}.run", one.run)
    else:
        check_sizes_of(f"{where}.member", one.member, ())


def check_hung(where: str, hung: Hung) -> None:
    """Check a body that is hung on.

    Raises:
        InputError: Names the value and says what was expected.
    """
    if not 0.0 < hung.mass <= HEAVIEST:
        raise InputError(f"{where}.mass", f"expected more than 0 and up to {HEAVIEST:g} kg, got {hung.mass:g} kg")
    for name in ("length", "depth", "height"):
        within(f"{where}.{name}", getattr(hung, name), 0.002, 2.0)


def check_chain(where: str, run: DragChain) -> None:
    """Check a drag chain.

    Raises:
        InputError: Names the value and says what was expected.
    """
    for name, low, high in (("width", 0.005, 0.3), ("height", 0.005, 0.2), ("radius", 0.01, 0.5)):
        within(f"{where}.{name}", getattr(run, name), low, high)
    if not 0.0 < run.per_metre <= 50.0:
        raise InputError(f"{where}.per_metre", f"expected more than 0 and up to 50 kg/m, got {run.per_metre:g} kg/m")
    if run.radius < run.height / 2:
        raise InputError(f"{where}.radius", f"expected at least half its height, {run.height * 500:.0f} mm")


def _check_footing(where: str, footing: Footing) -> None:
    if not isfinite(footing.along) or not 0.0 <= footing.along <= LONGEST:
        raise InputError(f"{where}.along", f"expected a place along the {footing.piece} from 0 on")
    if footing.measured == "share" and footing.along > 1.0:
        raise InputError(f"{where}.along", f"expected a share from 0 to 1, got {footing.along:g}")
    if not 0.0 <= footing.across <= 1.0:
        raise InputError(f"{where}.across", f"expected a share from 0 to 1, got {footing.across:g}")
