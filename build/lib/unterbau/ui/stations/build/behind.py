"""What the Build station asks for behind the scenes."""

from dataclasses import replace
from datetime import date
from functools import lru_cache

from unterbau.brief.brief import Brief
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.shop.build.schedule import Schedule
from unterbau.shop.build.steps import Step
from unterbau.shop.build.tests import Test
from unterbau.shop.state import ShopState
from unterbau.structure.parts import Place
from unterbau.studies.answers import Mode, answers
from unterbau.studies.building import build_schedule, build_steps
from unterbau.studies.learning.learn import Learned, learn

Planned = tuple[tuple[Step, ...], Schedule | None]
_steps = lru_cache(maxsize=16)(build_steps)


def planned(asked: tuple[Machine, ShopState, str, Brief, date], progress: Progress) -> Planned:
    """Return the steps of a candidate and when those that are left can be done."""
    machine, shop, name, brief, today = asked
    progress.step(0, 2, "steps")
    # What is done and tested asks for no other steps.
    steps = _steps(machine, replace(shop, done=(), tests=()), name, brief, today)
    done = {one.step for one in shop.done if one.candidate == name}
    if all(one.id in done for one in steps):
        return steps, None
    return steps, build_schedule(steps, shop, name, today)


def modes(machine: Machine, progress: Progress) -> tuple[Mode, ...]:
    """Return the natural modes that are predicted, with bands."""
    return answers(machine, Place(), progress).modes


def learned(asked: tuple[Machine, tuple[Test, ...]], progress: Progress) -> Learned:
    """Return what tests teach."""
    machine, tests = asked
    return learn(machine, tests, None, progress)
