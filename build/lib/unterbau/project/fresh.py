"""A project that nobody has touched yet."""

from unterbau.machine.machine import KINDS
from unterbau.project.project import Candidate, Project


def new_project() -> Project:
    """Return a project with one machine to start from."""
    return Project("Untitled machine", "first candidate", (Candidate("first candidate", KINDS[0].model()),))


def untouched(project: Project) -> bool:
    """Return whether a project's only candidate is the one that it began with."""
    return project.candidates == new_project().candidates
