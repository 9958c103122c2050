"""Any run of edits is taken back step by step to the very project it started from."""

from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from unterbau.errors import InputError
from unterbau.machine.machine import links, part
from unterbau.machine.stepping import step
from unterbau.project import edits
from unterbau.project.checks import check_project
from unterbau.project.project import Project
from unterbau.structure.parts import Cutter, Drive, Guide, Joint, Member, Part, Plate, Spindle
from unterbau.ui.document import Document
from unterbau.ui.shell.file_actions import demo_project

DEMO = demo_project()
KEYS = [link.key for link in links(DEMO.candidates[0].machine)]
EDITS = st.lists(
    st.tuples(st.sampled_from(["larger", "smaller", "swap", "copy", "rename", "delete", "benchmark"]),
              st.integers(0, 7), st.sampled_from(KEYS)),
    min_size=1, max_size=12,
)  # fmt: skip


def swapped(chosen: Part) -> Part:
    """Return the part made of something else."""
    match chosen:
        case Member():
            return replace(chosen, material="steel-s235", turned=not chosen.turned)
        case Plate() | Cutter():
            return replace(chosen, material="steel-s235")
        case Joint():
            return replace(chosen, kind="weld")
        case Guide():
            return replace(chosen, preload="medium")
        case Drive():
            return replace(chosen, kind="ballscrew-25")
        case Spindle():
            return replace(chosen, mass=5.0)
        case _:
            return chosen


def edited(project: Project, what: str, number: int, key: str) -> Project:
    """Return the project after one edit, or as it was where the edit is refused."""
    name = project.candidates[number % len(project.candidates)].name
    machine = project.candidate(name).machine
    try:
        match what:
            case "larger" | "smaller":
                changed = step(part(machine, key), up=what == "larger")
                return edits.set_part(project, name, key, changed) if changed else project
            case "swap":
                return edits.set_part(project, name, key, swapped(part(machine, key)))
            case "copy":
                return edits.duplicate(project, name)[0]
            case "rename":
                return edits.rename(project, name, f"name {number}")
            case "delete":
                return edits.delete(project, name)
            case _:
                return edits.set_benchmark(project, name)
    except InputError:
        return project


@given(EDITS)
def test_undo_all_and_redo_all(run: list[tuple[str, int, str]]) -> None:
    document = Document(DEMO)
    states = [DEMO]
    for what, number, key in run:
        after = edited(document.project, what, number, key)
        check_project(after)
        document.apply(after, what)
        if after != states[-1]:
            states.append(after)
    assert document.stack.count() == len(states) - 1
    for state in reversed(states[:-1]):
        document.stack.undo()
        assert document.project is state
    assert not document.stack.canUndo()
    assert not document.modified
    for state in states[1:]:
        document.stack.redo()
        assert document.project is state
