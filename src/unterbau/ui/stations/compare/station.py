"""The Compare station: picture, where the flex went, figures."""

from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QShowEvent
from PyQt6.QtWidgets import (
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)
from typing_extensions import override

from unterbau.brief.brief import Brief
from unterbau.brief.targets import targets
from unterbau.errors import InputError, UnterbauError
from unterbau.files.figures_csv import write_figures
from unterbau.machine.differs import differences
from unterbau.machine.machine import Machine
from unterbau.progress import Progress
from unterbau.project import edits
from unterbau.project.project import Candidate
from unterbau.studies.compare import Figures, figures, flow
from unterbau.studies.purchase.check import Check
from unterbau.studies.purchase.checks import checks
from unterbau.ui.document import Document
from unterbau.ui.feed import Feed
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.selection import Selection
from unterbau.ui.stations.compare.figures_model import Row
from unterbau.ui.stations.compare.figures_table import FiguresTable
from unterbau.ui.stations.compare.judging import Judging, VerdictBox
from unterbau.ui.stations.compare.picture import Axes, Dot, Picture
from unterbau.ui.stations.compare.quantities import PULL, QUANTITIES, Quantity, of_design, quantity
from unterbau.ui.stations.compare.report import write_report
from unterbau.ui.stations.compare.search_drawer import SearchDrawer
from unterbau.ui.stations.compare.waterfall import Waterfall, bars
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.save_path import ask_save_path
from unterbau.units import force_text, in_units, movement_text, number_text

AXES = ("X", "Y", "Z")
DRAWN = ("mass", PULL, "money")
"""Across, upwards and as area, to begin with."""
MOST_TOLD = 5
"""Differences that are told; all are a hover away."""

Checked = dict[tuple[Machine, Brief], tuple[Check, ...]]


class CompareStation(QWidget):
    """Two to six candidates side by side."""

    trouble = pyqtSignal(str)
    wrote = pyqtSignal(object)
    """A report stands at this path."""
    over_wanted = pyqtSignal(str)
    """A candidate's lines should be seen over the chosen one's."""
    link_wanted = pyqtSignal(str)
    """A link should be looked at on the bench."""

    def __init__(
        self, document: Document, selection: Selection, view: ViewSettings, feed: Feed, parent: QWidget | None = None
    ) -> None:
        super().__init__(parent)
        self._document, self._selection, self._view, self._feed = document, selection, view, feed
        self.picture = Picture(self)
        self.waterfall = Waterfall(self)
        self.table = FiguresTable(self)
        self.axis_buttons = QButtonGroup(self)
        choices = tuple((one.key, one.words) for one in QUANTITIES)
        self.drawn = tuple(
            ChoiceBox(name, choices, self) for name in ("Drawn across", "Drawn upwards", "Drawn as area")
        )
        self.sentence = label("", size=0.95)
        self.differs, self.doubt = label("", "muted", 0.88), label("", "muted", 0.88)
        self.verdict, self.flow_column = VerdictBox(self), QWidget(self)
        self.drawer, self.open_drawer = SearchDrawer(view, self), QPushButton("search ▸", self)
        self.judging = Judging(document, selection, feed, self)
        self.head = label("", "muted", 0.9)
        self.copy = QPushButton("copy", self)
        self.save, self.columns = QPushButton("save …", self), QPushButton("columns ▾", self)
        self.report, self.over = QPushButton("report …", self), QPushButton("one over the other", self)
        self._known: Checked = {}
        self.checking = Asker(self._check, self)
        self._build_flow()
        self._build()
        self._connect()

    def copy_figures(self) -> None:
        """Copy the figures of all candidates as they are shown."""
        self.table.show_rows(self._rows(), self._view.units, self._selection.candidate)
        self.table.copy()

    def ask_save(self) -> None:
        """Ask for a file and write the figures into it."""
        start = Path.home() / f"{self._document.project.name} figures.csv"
        path = ask_save_path(self, "Save the figures", start, "CSV (*.csv);;Table (*.ods)")
        if path is not None:
            self.save_to(path)

    def save_to(self, path: Path) -> bool:
        """Write the figures; a failure is said."""
        marked = self.table.marked()
        rows = [row.figures for row in self._rows() if row.figures and row.name in marked]
        if len(rows) < len(marked):
            self.trouble.emit("The figures are still being computed; save them in a moment.")
            return False
        try:
            write_figures(path, rows, self._document.project.prices.currency)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return False
        return True

    def _on_over(self) -> None:
        project, chosen = self._document.project, self._selection.candidate
        others = [project.benchmark, *(one.name for one in project.candidates)]
        self.over_wanted.emit(next((name for name in others if name != chosen), ""))

    def ask_report(self) -> None:
        """Ask for a file and write the report into it."""
        start = Path.home() / f"{self._document.project.name} compared.pdf"
        path = ask_save_path(self, "Save the report", start, "Pages (*.pdf);;Web page (*.html)")
        if path is not None:
            self.report_to(path)

    def report_to(self, path: Path) -> bool:
        """Write the report; a failure is said."""
        rows = self._rows()
        found = tuple(row.figures for row in rows if row.figures)
        told = self.judging.verdict(self._view.units, self._fails(rows))
        if len(found) < len(rows) or told is None:
            self.trouble.emit("The figures are still being computed; make the report in a moment.")
            return False
        try:
            write_report(path, self._document.project, found, told.sentences, self._view.units, self.picture)
        except UnterbauError as error:
            self.trouble.emit(str(error))
            return False
        self.wrote.emit(path)
        return True

    def _fails(self, rows: tuple[Row, ...]) -> dict[str, int]:
        return {
            row.name: sum(one.verdict == "fail" for one in row.figures.checked or ()) for row in rows if row.figures
        }

    @override
    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """Show the project as it is, if the station is open."""
        if not self.isVisible():
            return
        axis, chosen = self._selection.axis, self._selection.candidate
        button = self.axis_buttons.button(axis)
        if button is not None:
            button.setChecked(True)
        rows = self._rows()
        self._ask_checks()
        if self.drawer.isVisible():
            project = self._document.project
            self.drawer.show_machine(project.candidate(chosen).machine, project.prices, self._selection.place)
        self.table.show_rows(rows, self._view.units, chosen)
        self._show_picture(rows)
        units = self._view.units
        self.verdict.show_verdict(self.judging.verdict(units, self._fails(rows)))
        missing = sum(row.figures is None for row in rows)
        self.head.setText(f"{missing} still being computed" if missing else "")
        try:
            self._show_flow()
        except InputError as error:
            self.trouble.emit(str(error))

    def _show_picture(self, rows: tuple[Row, ...]) -> None:
        project, axis, units = self._document.project, self._selection.axis, self._view.units
        across, up, third = (quantity(str(box.currentData())) for box in self.drawn)
        dots = [
            Dot(row.name, across.read(found, axis, units), up.read(found, axis, units),
                third.read(found, axis, units).likely, row.benchmark)
            for row in rows if (found := row.figures)
        ]  # fmt: skip
        titles = [one.title(AXES[axis], project.prices, units) for one in (across, up, third)]
        along = up.axis_of(axis)
        target = None
        if along is not None:
            target = in_units(targets(project.brief).stiffness[along] * up.per, up.unit, units)[0]
        words = tuple(
            f"{d.name}: {titles[0]} {number_text(d.across.likely, 3)}; {titles[1]} {number_text(d.up.likely)}"
            for d in dots
        )
        self.picture.show_dots(
            dots,
            Axes(titles[0], titles[1], titles[2], (across.more, up.more)),
            self._selection.candidate,
            target,
            words,
        )
        self._show_found(across, up)

    def _show_found(self, across: Quantity, up: Quantity) -> None:
        """Draw what the search found, where the picture shows what it solves for."""
        units, points = self._view.units, []
        for design in self.drawer.designs if self.drawer.isVisible() else ():
            found = [(one, of_design(one.key, design, self._selection.axis)) for one in (across, up)]
            read = [in_units(value * one.per, one.unit, units)[0] if one.unit else value
                    for one, value in found if value is not None]  # fmt: skip
            if len(read) == 2:
                points.append((read[0], read[1]))
        self.picture.show_found(points)

    def _show_flow(self) -> None:
        project, axis, load = self._document.project, self._selection.axis, self._selection.load
        before, after = project.candidate(project.benchmark), project.candidate(self._selection.candidate)
        self._show_differences(before, after)
        first, second = (self._feed.figures(one.machine) for one in (before, after))
        if first is None or second is None:
            return  # they come behind
        pair = [(before.machine, first), (after.machine, second)]
        found = bars(flow(pair[0], pair[1], axis), load, f"★ {before.name}", after.name)
        self.waterfall.show_bars(found, self._view.units)
        units = self._view.units
        if before is after:
            text = f"★ {before.name} is the benchmark itself; choose another candidate to see where its flex went."
        else:
            start, end = (movement_text(bar.end, units) for bar in (found[0], found[-1]))
            text = f"Pulled along {AXES[axis]} with {force_text(load, units)} the tool moves {end} instead of {start}, "
            text += "likely."
        self.sentence.setText(text)

    def _show_differences(self, before: Candidate, after: Candidate) -> None:
        found = differences(before.machine, after.machine, self._view.units)
        more = f" … and {len(found) - MOST_TOLD} more" if len(found) > MOST_TOLD else ""
        self.differs.setText(f"differs from ★: {'; '.join(found[:MOST_TOLD])}{more}" if found else "")
        self.doubt.setText(self.judging.doubt(after.machine, self._selection.axis, self._view.units))
        self.differs.setToolTip(plain_tip("\n".join(found)))

    def _rows(self) -> tuple[Row, ...]:
        project = self._document.project
        return tuple(
            Row(c.name, c.name == project.benchmark, self._figures(c), project.prices) for c in project.candidates
        )

    def _figures(self, candidate: Candidate) -> Figures | None:
        found, project = self._feed.full(candidate.machine), self._document.project
        checked = self._known.get((candidate.machine, project.brief))
        return figures(candidate.name, candidate.machine, found, project.prices, checked) if found else None

    def close_station(self) -> None:
        """Stop what is computed behind."""
        self.checking.close()
        self.judging.close()
        self.drawer.close_drawer()

    def _ask_checks(self) -> None:
        project = self._document.project
        missing = tuple(
            one.machine for one in project.candidates
            if (one.machine, project.brief) not in self._known and self._feed.full(one.machine) is not None
        )  # fmt: skip
        if missing:
            self.checking.ask((missing, project.brief))

    def _check(self, asked: tuple[tuple[Machine, ...], Brief], progress: Progress) -> Checked:
        machines, brief = asked
        return {(machine, brief): checks(machine, brief, "mm", progress) for machine in machines}

    def _on_checked(self, found: Checked) -> None:
        brief = self._document.project.brief
        self._known = {key: one for key, one in (self._known | found).items() if key[1] == brief}
        self.refresh()

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.3 * unit), round(0.6 * unit), round(1.3 * unit), round(0.8 * unit))
        box.setSpacing(round(0.5 * unit))
        top = QHBoxLayout()
        top.addWidget(heading("compare"))
        top.addSpacing(round(unit))
        self.open_drawer.setCheckable(True)
        self.open_drawer.setToolTip("look for designs of the chosen candidate that none beats")
        top.addWidget(self.open_drawer)
        top.addSpacing(round(unit))
        top.addWidget(label("pull", "muted"))
        for axis, name in enumerate(AXES):
            button = QPushButton(name, self)
            button.setCheckable(True)
            button.setFixedWidth(round(1.7 * unit))
            button.setAccessibleName(f"Compare along {name}")
            self.axis_buttons.addButton(button, axis)
            top.addWidget(button)
        top.addSpacing(round(unit))
        for box_of, words, first in zip(self.drawn, ("across", "upwards", "area"), DRAWN, strict=True):
            box_of.show_value(first)
            box_of.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
            box_of.setMinimumWidth(round(9 * unit))
            top.addWidget(label(words, "muted"))
            top.addWidget(box_of)
        top.addSpacing(round(unit))
        top.addWidget(self.head)
        top.addStretch()
        box.addLayout(top)
        box.addWidget(self.verdict)
        middle = QHBoxLayout()
        middle.setSpacing(round(1.4 * unit))
        self.drawer.hide()
        middle.addWidget(self.drawer)
        middle.addWidget(self.picture, 5)
        middle.addWidget(self.flow_column, 6)
        box.addLayout(middle, 5)
        low = QHBoxLayout()
        low.addWidget(heading("figures"))
        low.addStretch()
        self.copy.setToolTip("the marked rows, or all, as a table for any table program")
        self.report.setToolTip("verdict, picture, figures, what differs: one page of HTML, or PDF")
        self.over.setToolTip("the benchmark's lines over the chosen candidate, at one scale, in 3D")
        self.save.setToolTip("the marked rows, or all, with all their bands: CSV or an OpenDocument table")
        self.columns.setToolTip("which figures are shown and copied")
        self.columns.setMenu(self.table.menu())
        for button in (self.columns, self.over, self.report, self.copy, self.save):
            low.addWidget(button)
        box.addLayout(low)
        box.addWidget(self.table, 2)

    def _build_flow(self) -> None:
        right = QVBoxLayout(self.flow_column)
        right.setContentsMargins(0, 0, 0, 0)
        right.addWidget(heading("where the flex went"))
        as_high_as_its_words = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        as_high_as_its_words.setHeightForWidth(True)
        for words in (self.sentence, self.differs, self.doubt):
            words.setWordWrap(True)
            words.setSizePolicy(as_high_as_its_words)
            right.addWidget(words)
        area = QScrollArea(self)
        area.setWidgetResizable(True)
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setWidget(self.waterfall)
        right.addWidget(area, 1)

    def _connect(self) -> None:
        self.axis_buttons.idClicked.connect(self._selection.pull_along)
        self.picture.chosen.connect(self._selection.choose_candidate)
        self.table.chosen.connect(self._selection.choose_candidate)
        self.waterfall.chosen.connect(self.link_wanted)
        self.copy.clicked.connect(self.table.copy)
        self.save.clicked.connect(self.ask_save)
        self.report.clicked.connect(self.ask_report)
        self.over.clicked.connect(self._on_over)
        self._feed.likely_ready.connect(self.refresh)
        self._feed.bands_ready.connect(self.refresh)
        self._document.changed.connect(self._on_changed)
        self._selection.pull_changed.connect(self.refresh)
        self._view.changed.connect(self.refresh)
        self.checking.ready.connect(self._on_checked)
        self.judging.ready.connect(self.refresh)
        self.open_drawer.toggled.connect(self._on_drawer)
        self.drawer.found_changed.connect(self._on_found)
        self.drawer.trouble.connect(self.trouble)
        self.drawer.taken.connect(self._on_taken)
        for box in self.drawn:
            box.activated.connect(self.refresh)

    def _on_changed(self, before: object, after: object) -> None:
        del before, after
        self.refresh()

    def _on_drawer(self, opened: bool) -> None:
        self.drawer.setVisible(opened)
        self.flow_column.setVisible(not opened)  # room for the picture that fills
        self.open_drawer.setText("search ◂" if opened else "search ▸")
        self.refresh()

    def _on_found(self) -> None:
        self._show_picture(self._rows())

    def _on_taken(self, machine: Machine, name: str) -> None:
        project, known = edits.add(self._document.project, name, machine)
        self._document.apply(project, f"found by search: {known}")
        self.head.setText(f"{known} stands on the shelf")
