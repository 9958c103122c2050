"""The load path panel: pull, strip, and the sentence."""

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QButtonGroup, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.catalogue.cuts import OWN_CUT, Cut, cuts
from unterbau.machine.machine import Machine, links
from unterbau.mechanics.frame import CAUSES
from unterbau.studies.answers import LikelyAnswers
from unterbau.studies.cutting import Bearable, bearable, moved_by, tool_limits
from unterbau.studies.shares import REST
from unterbau.studies.stability import Limit
from unterbau.ui.selection import Selection
from unterbau.ui.stations.machine.path_strip import CAUSE_NAMES, PathStrip, StripLink
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.asked_label import AskedLabel
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import Units, force_text, forces_text, length_text, movement_text

AXES = ("X", "Y", "Z")
WAYS = ("sideways", "front to back", "up")
FORCES = (0.01, 1e5)


def strip_links(machine: Machine, likely: LikelyAnswers, axis: int) -> list[StripLink]:
    """Return the links of the load path with their shares for a pull along an axis."""
    known = {link.key: link for link in links(machine)}
    table = likely.shares.compliance[axis]
    total = float(table.sum())
    rows = []
    for key, causes in zip(likely.shares.keys, table, strict=True):
        link = known.get(key)
        share = float(causes.sum()) / total
        if key == REST and share < 0.005:
            continue
        by_cause = {cause: float(value) / total for cause, value in zip(CAUSES, causes, strict=True)}
        rows.append(StripLink(key, link.label if link else "rest", link.kind if link else "part", share, by_cause))
    return rows


def sentence(rows: list[StripLink], axis: int, pull: str, text: str) -> tuple[str, str]:
    """Return what the pull does, and whose doing it mostly is."""
    first = f"Pull {pull} {WAYS[axis]} and the tool moves {text}, likely."
    weakest = max(rows, key=lambda row: row.share)
    second = f"{weakest.share:.0%} of it comes from the {weakest.label}"
    if weakest.kind == "part":
        cause = max(weakest.causes, key=lambda name: weakest.causes[name])
        second += f", mostly {CAUSE_NAMES[cause]}"
    return first, second + "."


def taken_words(borne: Bearable, error: str, found: Limit | None, units: Units) -> str:
    """Return the cut that a machine can really take, and by what it ends.

    Args:
        borne: The depth that error, tool and spindle bear.
        error: That is allowed, in words.
        found: How deep it may go before it chatters, where that is known.
        units: For reading.
    """
    depth = length_text(borne.depth, units)
    by = f"{error} of error" if borne.ends_by == "the error" else borne.ends_by
    if found is not None and found.likely.depth < borne.depth:
        chatters = length_text(found.likely.depth, units)
        return f"takes {chatters} deep, ended by chatter; {by} alone would bear {depth}"
    return f"takes {depth} deep, ended by {by}{'; chatter comes later' if found is not None else ''}"


class LoadPath(QWidget):
    """Which link stretches when the tool is pulled."""

    chosen = pyqtSignal(str)
    pointed = pyqtSignal(str)
    cut_chosen = pyqtSignal(str)
    """The machine should be judged by another cut."""
    asked = pyqtSignal(str)
    """Why is a number what it is?"""

    def __init__(self, selection: Selection, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "paper")
        self._selection, self._view = selection, view
        self._shown: tuple[Machine, LikelyAnswers] | None = None
        self.strip = PathStrip(self)
        self.first = AskedLabel("y", "The pull and what it moves", self, bold=True)
        self.second = label("", "muted")
        self.axis_buttons = QButtonGroup(self)
        choices = (*((c.id, c.label) for c in cuts().values()), (OWN_CUT, "a cut of your own …"))
        self.cut = ChoiceBox("Cut that the machine is judged by", choices, self)
        self.meaning = AskedLabel("cut", "The cut and what it moves", self, "muted")
        self._cut, self._error = next(iter(cuts().values())), 5e-5
        self._limit: Limit | None = None
        self.load_message = label("", "error")
        self.load = QuantityField("Pull", "force", view, self, self.load_message)
        self._build()
        self.cut.activated.connect(self._on_cut)
        self.strip.chosen.connect(self.chosen)
        self.strip.pointed.connect(self.pointed)
        self.axis_buttons.idClicked.connect(selection.pull_along)
        self.load.committed.connect(self._on_load)
        for one in (self.first, self.meaning):
            one.asked.connect(self.asked)
        selection.pull_changed.connect(self._on_pull_changed)
        selection.link_changed.connect(self._on_link_changed)
        selection.hover_changed.connect(self.strip.light_up)
        view.changed.connect(self._on_pull_changed)

    def show_answers(self, machine: Machine, likely: LikelyAnswers) -> None:
        """Show the shares of a machine."""
        if self._shown is None or self._shown[1] is not likely:
            self._limit = None
        self._shown = (machine, likely)
        axis, load = self._selection.axis, self._selection.load
        rows = strip_links(machine, likely, axis)
        self.strip.show_links(rows)
        moves = float(likely.compliance[axis, axis]) * load
        first, second = sentence(rows, axis, force_text(load, self._view.units), movement_text(moves, self._view.units))
        self.first.setText(first)
        self.first.key = AXES[axis].lower()
        self.second.setText(second)
        self._show_meaning(float(likely.compliance[axis, axis]))

    def show_cut(self, chosen: Cut, error: float) -> None:
        """Judge by another cut, and the error that is the frame's, m."""
        if chosen != self._cut:
            self._limit = None
        self._cut, self._error = chosen, error
        self.cut.show_value(chosen.id)
        if self._shown:
            axis = self._selection.axis
            self._show_meaning(float(self._shown[1].compliance[axis, axis]))

    def show_limit(self, found: Limit | None) -> None:
        """Take into account how deep the cut may go before it chatters."""
        self._limit = found
        self.show_cut(self._cut, self._error)

    def _show_meaning(self, compliance: float) -> None:
        chosen, units = self._cut, self._view.units
        force, moves = chosen.force, moved_by(chosen, compliance)
        machine = self._shown[0] if self._shown else None
        assert machine is not None
        borne = bearable(chosen, compliance, self._error, tool_limits(machine, chosen))
        error = movement_text(self._error, self._view.units)
        low, likely, high = (movement_text(value, self._view.units) for value in (moves.low, moves.likely, moves.high))
        self.meaning.setText(
            f"{force_text(force.likely, units)} ({forces_text(force.low, force.high, units)}) move the tool {likely} "
            f"({low.split()[0]} – {high.split()[0]}); {taken_words(borne, error, self._limit, self._view.units)}"
        )
        tip = (
            f"{chosen.tool}; largest force within a turn. {chosen.source}. The depth that makes {error}, the share of "
            f"the brief's error that is the frame's, is for this tool, width and feed; "
            f"{forces_text(borne.force.low, borne.force.high, units)}; chatter: see the lens Shake."
        )
        self.meaning.setToolTip(tip)
        self.cut.setToolTip(tip)

    def _build(self) -> None:
        unit = em()
        grid = QGridLayout(self)
        grid.setContentsMargins(round(1.3 * unit), round(0.3 * unit), round(1.3 * unit), round(0.4 * unit))
        grid.setHorizontalSpacing(round(unit))
        grid.setVerticalSpacing(0)
        left = QVBoxLayout()
        left.setSpacing(round(0.2 * unit))
        left.addWidget(heading("load path"))
        row = QHBoxLayout()
        row.setSpacing(3)
        row.addWidget(label("pull", "muted"))
        for axis, name in enumerate(AXES):
            button = QPushButton(name, self)
            button.setCheckable(True)
            button.setChecked(axis == self._selection.axis)
            button.setFixedWidth(round(1.7 * unit))
            button.setAccessibleName(f"Pull along {name}")
            button.setToolTip(f"Pull the tool along {name}, {WAYS[axis]}, and push back on the work")
            self.axis_buttons.addButton(button, axis)
            row.addWidget(button)
        left.addLayout(row)
        self.load.set_value(self._selection.load)
        self.load.edit.setFixedWidth(round(4.2 * unit))
        size = QHBoxLayout()
        size.addWidget(label("with", "muted"))
        size.addWidget(self.load)
        left.addLayout(size)
        grid.addLayout(left, 0, 0, 2, 1, Qt.AlignmentFlag.AlignTop)
        ends = QHBoxLayout()
        ends.addWidget(label("tool", "muted", 0.86))
        ends.addStretch()
        ends.addWidget(label("work", "muted", 0.86))
        box = QVBoxLayout()
        box.setSpacing(0)
        box.addLayout(ends)
        box.addWidget(self.strip)
        words = QHBoxLayout()
        words.setSpacing(round(1.4 * unit))
        words.addWidget(self.load_message)
        words.addWidget(self.first)
        words.addWidget(self.second)
        words.addStretch()
        box.addLayout(words)
        work = QHBoxLayout()
        work.setSpacing(round(0.5 * unit))
        self.cut.setFixedWidth(round(10 * unit))
        work.addWidget(self.cut)
        work.addWidget(self.meaning)
        work.addStretch()
        box.addLayout(work)
        grid.addLayout(box, 0, 1, 2, 1)
        grid.setColumnStretch(1, 1)

    def _on_load(self, value: float) -> None:
        if not FORCES[0] <= value <= FORCES[1]:
            self.load.refuse("expected a force from 0.01 N to 100 kN")
            return
        self._selection.pull_with(value)

    def _on_cut(self, index: int) -> None:
        self.cut_chosen.emit(str(self.cut.itemData(index)))

    def _on_pull_changed(self) -> None:
        button = self.axis_buttons.button(self._selection.axis)
        if button is not None:
            button.setChecked(True)
        self.load.set_value(self._selection.load)
        if self._shown:
            self.show_answers(*self._shown)

    def _on_link_changed(self, key: str) -> None:
        self.strip.select(key)
