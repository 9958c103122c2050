"""The readout: stiffness per axis like the digital scales of a machine tool."""

from PyQt6.QtCore import QEasingCurve, Qt, QVariantAnimation, pyqtSignal
from PyQt6.QtGui import QFont
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from unterbau.band import Band
from unterbau.brief.targets import Targets, met
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.mechanics.arrays import FloatArray
from unterbau.parts_list.bill import Cost
from unterbau.structure.parts import Place
from unterbau.studies.answers import Answers, Early, LikelyAnswers
from unterbau.studies.compliance import softest
from unterbau.studies.hurry import Hurry
from unterbau.studies.places import place_words
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.asked_label import AskedLabel
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import force_text, in_units, mass_text, movement_text, number_text, stiffness_text, told, unit_text

AXES = ("X", "Y", "Z")
PLACES = ("centre", "front left", "front right", "back left", "back right")
ROLL = 180  # ms
SAME = 0.005


TOLD = 6
"""Frequencies in a tip."""


def place_text(place: Place) -> str:
    """Return the head's place in words."""
    return f"head at {place_words(place)}"


def band_text(band: Band, scale: float) -> str:
    """Return the ends of a band, smaller first."""
    low, high = band.ends
    return f"{number_text(low * scale)} – {number_text(high * scale)}"


def direction_text(direction: FloatArray) -> str:
    """Return a unit direction in words: the axes that make up most of it."""
    largest = int(abs(direction).argmax())
    if abs(direction[largest]) > 0.97:
        return f"along {AXES[largest]}"
    named = " ".join(f"{direction[axis]:+.2f} {name}" for axis, name in enumerate(AXES) if abs(direction[axis]) > 0.2)
    return "along " + named.removeprefix("+").replace("-", "−")


NOTHING = "nothing is driven here"


class RollingNumber(AskedLabel):
    """Digits that run to their new value."""

    def __init__(self, axis: str, parent: QWidget | None = None) -> None:
        super().__init__(axis.lower(), f"Stiffness along {axis}", parent)
        self.setFont(font(1.95, QFont.Weight.DemiBold))
        self.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.value = 0.0
        self._run = QVariantAnimation(self)
        self._run.setDuration(ROLL)
        self._run.setEasingCurve(QEasingCurve.Type.OutCubic)
        self._run.valueChanged.connect(self._on_step)

    def roll_to(self, value: float) -> None:
        """Show a value."""
        start = self._shown()
        self.value = value
        self._run.stop()
        if start is None or abs(start - value) < 1e-12:
            self.setText(number_text(value))
            return
        self._run.setStartValue(start)
        self._run.setEndValue(value)
        self._run.start()

    def _shown(self) -> float | None:
        try:
            return float(self.text())
        except ValueError:
            return None

    def _on_step(self, value: object) -> None:
        if isinstance(value, float):
            self.setText(number_text(self.value if value == self.value else value))


class Readout(QWidget):
    """Stiffness with bands, droop, lowest mode, mass, money."""

    asked = pyqtSignal(str)
    """Why is this number what it is?"""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "soft")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._view = view
        self.against = label("", "muted", 0.86)
        self.busy = label("", "muted", 0.86)
        self.busy.setMinimumWidth(round(5 * em()))
        self.numbers = [RollingNumber(axis, self) for axis in AXES]
        self.bands = [label("", "muted", 0.92) for _ in AXES]
        self.changes = [label("", size=0.92) for _ in AXES]
        self.units = [label("", "muted", 0.92) for _ in AXES]
        self.nose = label("", "muted", 0.86)
        self.softest = label("", "muted", 0.86)
        self.hurry = AskedLabel("hurry", "Braking", self)
        self.hurry.setProperty("role", "muted")
        self.hurry.setFont(font(0.86))
        self.place = label("", "muted", 0.86)
        self.figures = {name: AskedLabel(name, name.capitalize(), self) for name in ("droop", "shake", "mass", "money")}
        for figure in self.figures.values():
            figure.setFont(font(1.0, QFont.Weight.DemiBold))
        self.spreads = {name: label("", "muted", 0.8) for name in self.figures}
        self._droop: Band | None = None
        self._droops: tuple[float, ...] = ()
        self._sag: Band | None = None
        self._hurry: tuple[Hurry, ...] = ()
        self._build()
        for number in (*self.numbers, *self.figures.values(), self.hurry):
            number.asked.connect(self.asked)
        view.changed.connect(self._show_droop)

    @property
    def _scale(self) -> float:
        """What is shown for 1 N/m."""
        return in_units(1e-6, "N/µm", self._view.units)[0]

    def show_likely(self, likely: LikelyAnswers, benchmark: LikelyAnswers | None, name: str, place: Place) -> None:
        """Show the first answers; bands follow. `name` is that of the benchmark, empty where it is this one."""
        self.place.setText(place_text(place))
        self.against.setText(f"against ★ {name}" if name else "this is the ★ benchmark")
        for axis in range(3):
            stiffness = self._scale / likely.compliance[axis, axis]
            self.units[axis].setText(unit_text("N/µm", self._view.units))
            self.numbers[axis].roll_to(float(stiffness))
            self.bands[axis].setText("likely")
            other = self._scale / benchmark.compliance[axis, axis] if benchmark else stiffness
            self._show_change(axis, float(stiffness), float(other), benchmark is not None)
        units = self._view.units
        nose = [number_text(self._scale / likely.nose[axis, axis]) for axis in range(3)]
        self.nose.setText(f"with cutter; at the nose {nose[0]} · {nose[1]} · {nose[2]}, likely")
        direction, stiffness = softest(likely.compliance)
        self.softest.setText(f"softest {stiffness_text(stiffness, units)}, {direction_text(direction)}, likely")
        self.figures["mass"].setText(mass_text(likely.mass, units))
        moving = "  ".join(f"{axis} {mass_text(mass, units)}" for axis, mass in likely.moving.items())
        self.figures["mass"].setToolTip(f"moved by the drives: {moving}")
        self.spreads["mass"].setText(f"Y moves {in_units(likely.moving['Y'], 'kg', units)[0]:.0f}")

    def show_cost(self, cost: Cost, prices: PriceBook) -> None:
        """Show what the machine costs and whose prices these are."""
        self.figures["money"].setText(money_text(cost.money, prices))
        invented = ", some of it invented" if cost.invented else ""
        missing = f"; without a price: {', '.join(cost.unpriced)}" if cost.unpriced else ""
        words = f"parts and material by the price book of {prices.date}{invented}{missing}"
        self.figures["money"].setToolTip(plain_tip(words))
        told = "invented prices" if cost.invented else f"of {prices.date}"
        self.spreads["money"].setText(f"{len(cost.unpriced)} without price" if cost.unpriced else told)

    def show_early(self, early: Early) -> None:
        """Show the bands of the stiffness; what asks for the whole travel is still computed."""
        for axis, band in enumerate(early.stiffness):
            self.bands[axis].setText(f"{band_text(band, self._scale)}  …")

    def show_bands(self, answers: Answers | None, wanted: Targets, missed: str = "") -> None:
        """Show the bands and whether they meet the brief, or that they are being computed."""
        if answers is None:
            self._droop = None
            self._droops = ()
            self._hurry = ()
            self.hurry.setText("braking …")
            for band in self.bands:
                band.setText("likely …")
                band.setToolTip("")
            for name in ("droop", "shake"):
                self.figures[name].setText("…")
                self.spreads[name].setText("")
            return
        for axis in range(3):
            target = wanted.stiffness[axis]
            fits, words = met(target, answers.worst[axis], self._view.units)
            self.bands[axis].setText(f"{band_text(answers.stiffness[axis], self._scale)}  {'✓' if fits else '✕'}")
            where, weakest = place_words(answers.worst_places[axis]), answers.worst[axis]
            needed = (
                f"the brief needs {stiffness_text(target, self._view.units)} wherever the head goes; weakest is "
                f"{where} with {number_text(weakest.likely * self._scale)} ({band_text(weakest, self._scale)})"
            )
            self.bands[axis].setToolTip(f"nine of ten lie within, here; {needed}: {words}. {missed}")
        self._droop, self._droops, self._hurry = answers.droop, answers.droops[1], answers.hurry
        self._sag = answers.sag
        self._show_droop()
        lowest = answers.headline or answers.modes[0]
        self.figures["shake"].setText(f"{lowest.frequency.likely:.0f} Hz")
        self.spreads["shake"].setText(band_text(lowest.frequency, 1.0))
        self.figures["shake"].setToolTip(
            "lowest natural frequencies, likely: "
            + ", ".join(f"{m.frequency.likely:.0f} Hz" for m in answers.modes[:TOLD])
            + "; the headline is the first that the tool feels"
        )

    def _show_hurry(self) -> None:
        """Say how far the tool is left behind while an axis brakes."""
        unit = self._view.units
        texts = [movement_text(one.error(1.0).likely, unit).split(" ") for one in self._hurry]
        each = " · ".join(f"{one.axis.upper()} {text[0]}" for one, text in zip(self._hurry, texts, strict=True))
        self.hurry.setText(f"braking at {told(1.0, 'm/s²', unit)}: {each} {texts[0][1]}, likely" if each else NOTHING)
        rows = []
        for one in self._hurry:
            low, high = (movement_text(end, unit) for end in one.error(1.0).ends)
            moved, force = mass_text(one.mass, unit), force_text(one.force(1.0), unit)
            rows.append(f"{one.axis.upper()} moves {moved}, {force}: {low} – {high}")
        self.hurry.setToolTip(f"how far the tool is left behind while an axis speeds up or brakes; {'; '.join(rows)}")

    def _show_droop(self) -> None:
        if self._droop is None:
            return
        self._show_hurry()
        self.figures["droop"].setText(movement_text(self._droop.likely, self._view.units))
        each = (
            f"{name} {movement_text(sag, self._view.units)}" for name, sag in zip(PLACES, self._droops, strict=True)
        )
        alone = f"; the tool itself sinks {movement_text(self._sag.likely, self._view.units)} here" if self._sag else ""
        self.figures["droop"].setToolTip(
            f"tool against bed by weight, likely: {', '.join(each)}{alone}, against the feet, the bed with it"
        )
        low, high = self._droop.ends
        unit = self._view.units
        self.spreads["droop"].setText(f"{movement_text(low, unit).split()[0]} – {movement_text(high, unit).split()[0]}")

    def _show_change(self, axis: int, now: float, other: float, shown: bool) -> None:
        change = self.changes[axis]
        ratio = now / other - 1
        if not shown:
            change.setText("")
        elif abs(ratio) < SAME:
            change.setText("same")
        else:
            mark = "▲ +" if ratio > 0 else "▼ −"
            change.setText(f"{mark}{number_text(abs(now - other))}")
        change.setProperty("role", "error" if shown and ratio < -SAME else "")
        style = change.style()
        if style is not None:
            style.unpolish(change)
            style.polish(change)

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.6 * unit))
        box.setSpacing(round(0.1 * unit))
        top = QHBoxLayout()
        top.addWidget(heading("readout"))
        top.addWidget(self.busy)
        top.addStretch()
        top.addWidget(self.against)
        box.addLayout(top)
        grid = QGridLayout()
        grid.setHorizontalSpacing(round(0.5 * unit))
        grid.setVerticalSpacing(0)
        for axis, name in enumerate(AXES):
            letter = label(name, "muted", 1.45)
            letter.setToolTip("static stiffness of the structural loop at the tool tip")
            grid.addWidget(letter, axis, 0)
            grid.addWidget(self.numbers[axis], axis, 1)
            grid.addWidget(self.units[axis], axis, 2)
            grid.addWidget(self.bands[axis], axis, 3)
            grid.addWidget(self.changes[axis], axis, 4, Qt.AlignmentFlag.AlignRight)
        grid.setColumnMinimumWidth(1, round(4.0 * unit))
        grid.setColumnStretch(3, 1)
        box.addLayout(grid)
        box.addWidget(self.nose)
        box.addWidget(self.softest)
        box.addWidget(self.hurry)
        box.addWidget(self.place)
        box.addSpacing(round(0.3 * unit))
        row = QGridLayout()
        row.setVerticalSpacing(0)
        tips = {
            "droop": "range of the tool's sinking by weight against the bed, over centre and corners of the travel",
            "shake": "lowest that the tool feels", "mass": "whole machine",
            "money": "parts and material, by the price book; it is in the project's menu",
        }  # fmt: skip
        for column, (name, value) in enumerate(self.figures.items()):
            caption = label(name, "muted", 0.86)
            caption.setToolTip(tips[name])
            row.addWidget(caption, 0, column)
            row.addWidget(value, 1, column)
            row.addWidget(self.spreads[name], 2, column)
        box.addLayout(row)
