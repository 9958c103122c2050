"""Cross-sections solved in a process of their own, which can be ended and may crash."""

from multiprocessing import get_context
from multiprocessing.connection import Connection

from unterbau.errors import InputError
from unterbau.files.drawn_section import solve_drawn
from unterbau.orphaned import end_with_parent
from unterbau.progress import Progress
from unterbau.sections.building import solve_built_up
from unterbau.sections.drawing import Drawing
from unterbau.sections.solved import SolvedSection

STEP = 0.05  # s between looks whether a solution is done
LONGEST = 120.0  # s
Asked = tuple[Drawing, str] | tuple[str, SolvedSection | None]
"""A drawing and what it is called, or the name of a built-up section and its profile if that is no standard one."""
BROKEN = "its mesh could not be solved; simpler outlines may help"


def solve_apart(asked: Asked, progress: Progress) -> SolvedSection:
    """Solve a cross-section.

    Raises:
        InputError: It cannot be solved.
        Cancelled: The progress asked to stop.
    """
    context = get_context("spawn")
    ours, theirs = context.Pipe(duplex=False)
    process = context.Process(target=_solve, args=(asked, theirs), daemon=True)
    process.start()
    theirs.close()
    try:
        answer = _wait(ours, progress)
    finally:
        process.kill()
        process.join()
    if isinstance(answer, str):
        raise InputError("section", answer)
    return answer


def _wait(pipe: Connection, progress: Progress) -> SolvedSection | str:
    total = round(LONGEST / STEP)
    for waited in range(total):
        if pipe.poll(STEP):
            try:
                answer: SolvedSection | str = pipe.recv()
            except EOFError:
                return BROKEN
            return answer
        progress.step(waited, total, "finite elements over the cross-section")
    return "this takes too long; expected an outline with fewer points"


def _solve(asked: Asked, pipe: Connection) -> None:
    end_with_parent()
    try:
        first, second = asked
        if isinstance(first, str):
            answer: SolvedSection | str = solve_built_up(first, second if isinstance(second, SolvedSection) else None)
        else:
            answer = solve_drawn(first, str(second))
    except InputError as error:
        answer = error.problem
    except Exception as error:  # a fault of the mesher: told in a sentence
        answer = f"{BROKEN} ({type(error).__name__})"
    pipe.send(answer)
