"""What one can do in the Machine station, as commands."""

from functools import partial
from typing import Protocol

from unterbau.machine.machine import Machine, links
from unterbau.ui.commands import Command
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.accounts import Accounts
from unterbau.ui.stations.machine.candidates import Candidates
from unterbau.ui.stations.machine.machine_view import MachineView


class Doing(Protocol):
    """What one can do with the machine that is looked at."""

    view: MachineView
    accounts: Accounts
    candidates: Candidates

    def show_cures(self) -> None:
        """List what is worth doing first."""

    def step_part(self, up: bool) -> None:
        """Put in another size."""

    def begin_change(self, sort: str) -> None:
        """Begin a brace, a panel, a weight, or leave a piece out."""

    def show_why(self) -> None:
        """Tell why a link gives."""

    def show_sizes(self) -> None:
        """Draw the machine's sizes."""

    def choose_weakest(self) -> None:
        """Put the weakest link on the bench."""

    def choose_link(self, key: str) -> None:
        """Put a link on the bench."""


LENS_KEYS = (
    ("shape", "Alt+S", ""), ("flex", "Alt+F", ""), ("shake", "Alt+K", "natural modes, chatter"),
    ("reach", "Alt+R", "the whole travel"), ("clash", "Alt+C", "what collides, which screws hide"),
    ("checks", "Alt+H", "what will not do, before it is bought"),
    ("change", "Alt+A", "braces, panels, weights, pieces left out"),
)  # fmt: skip
ADDED = (
    ("brace", "Add a brace", "a member between two spots"),
    ("panel", "Add a panel", "a plate over three or four spots"),
    ("weight", "Add a weight", "a body at a spot"),
    ("chain", "Add a drag chain", "cables from what moves to what stands"),
    ("left_out", "Leave a piece out", "where the rest still stands"),
)  # fmt: skip


def station_commands(station: Doing, select: Selection) -> list[Command]:
    """Return what one can do with the machine, its picture and its candidates."""
    view, port = station.view, station.view.viewport
    return [
        Command("cures", "What is worth doing first", station.show_cures, "", "over the whole machine, solved"),
        Command("smaller", "One size smaller", partial(station.step_part, False), "[", "the part on the bench"),
        Command("larger", "One size larger", partial(station.step_part, True), "]", "the part on the bench"),
        *(
            Command(f"pull-{axis}", f"Pull along {axis.upper()}", partial(select.pull_along, n), f"Alt+{axis.upper()}")
            for n, axis in enumerate("xyz")
        ),
        *(
            Command(f"lens-{name}", f"Lens: {name}", partial(view.use_lens, name), key, tip)
            for name, key, tip in LENS_KEYS
        ),
        *(Command(f"add-{sort}", text, partial(station.begin_change, sort), "", tip) for sort, text, tip in ADDED),
        Command("why", "Why is this so soft?", station.show_why, "Ctrl+Y", "causes, numbers, formula, source"),
        *station.accounts.commands(),
        Command("reset-view", "Reset view", port.reset_view, "Home"),
        Command("turn-left", "Turn the machine to the left", partial(port.turn, 15.0, 0.0), "Alt+Left"),
        Command("turn-right", "Turn the machine to the right", partial(port.turn, -15.0, 0.0), "Alt+Right"),
        Command("turn-up", "Look from higher", partial(port.turn, 0.0, 10.0), "Alt+Up"),
        Command("turn-down", "Look from lower", partial(port.turn, 0.0, -10.0), "Alt+Down"),
        Command("sizes", "Sizes of the machine", station.show_sizes, "Ctrl+M", "travel, heights, overhangs, stances"),
        Command("weakest", "Put the weakest link on the bench", station.choose_weakest, "Ctrl+W", "the largest share"),
        *station.candidates.commands(),
    ]


def link_commands(station: Doing, machine: Machine) -> list[Command]:
    """Return a command for each link of the load path."""
    return [
        Command(f"link-{one.key}", f"Bench: {one.label}", partial(station.choose_link, one.key), tip=one.place)
        for one in links(machine)
    ]
