"""The bench: the chosen part, drawn to scale, and everything one can change of it."""

from dataclasses import replace
from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from unterbau.machine.bodies import box_ring, round_ring
from unterbau.machine.facts import facts
from unterbau.machine.machine import Machine, ends, lengths, link, part, plate_widths
from unterbau.machine.member import member_rings
from unterbau.machine.parts import Cutter, Joint, Member, Part, Plate, Sizes, Spindle
from unterbau.machine.stepping import step
from unterbau.materials.material import material
from unterbau.ui.stations.machine.part_fields import joint_choices
from unterbau.ui.stations.machine.part_form import ChoiceBox, PartForm
from unterbau.ui.theme import em
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.section_view import SectionView
from unterbau.units import length_text


class Bench(QWidget):
    """Where the chosen part is worked on."""

    edited = pyqtSignal(str, object, str)
    """Link, new part, attribute."""
    stepped = pyqtSignal(bool)
    """One size larger or smaller."""

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._machine: Machine | None = None
        self._key = ""
        self.title = label("", size=1.18, bold=True)
        self.place = label("", "muted", 0.92)
        self.section = SectionView(view, self)
        self.form = PartForm(view, self)
        self.joint_caption = label("joint", "muted", 0.92)
        self.joint = ChoiceBox("joint at the ends", joint_choices(), self)
        self.smaller = QPushButton("◂ smaller  [", self)
        self.larger = QPushButton("]  larger ▸", self)
        self.facts = label("", "muted", 0.86)
        self._build()
        self.form.edited.connect(self._on_form_edited)
        self.joint.activated.connect(self._on_joint_chosen)
        self.smaller.clicked.connect(partial(self._on_step, False))
        self.larger.clicked.connect(partial(self._on_step, True))
        view.changed.connect(self._show_place)

    @property
    def key(self) -> str:
        """The link on the bench."""
        return self._key

    def show_part(self, machine: Machine, key: str) -> None:
        """Put a part on the bench."""
        self._machine, self._key = machine, key
        chosen = part(machine, key)
        self.title.setText(link(machine, key).label)
        self._show_place()
        self.form.show_part(chosen)
        end = ends(machine).get(key)
        self.joint_caption.setVisible(end is not None)
        self.joint.setVisible(end is not None)
        if end is not None:
            held = part(machine, end)
            if isinstance(held, Joint):
                self.joint.show_value(held.kind)
        self.facts.setText("\n".join(facts(key, chosen)))
        self._show_section(chosen)
        steps = not isinstance(chosen, Sizes | Spindle)
        self.smaller.setVisible(steps)
        self.larger.setVisible(steps)
        self.smaller.setEnabled(step(chosen, up=False) is not None)
        self.larger.setEnabled(step(chosen, up=True) is not None)

    def refuse(self, attribute: str, problem: str) -> None:
        """Say beside a field why the machine cannot be built with its value."""
        self.form.refuse(attribute, problem)

    def _show_place(self) -> None:
        if self._machine is None:
            return
        place = link(self._machine, self._key).place
        length = lengths(self._machine).get(self._key) if isinstance(part(self._machine, self._key), Member) else None
        self.place.setText(f"{place}, {length_text(length, self._view.units)}" if length else place)

    def _show_section(self, chosen: Part) -> None:
        self.section.setVisible(isinstance(chosen, Member | Plate | Cutter))
        match chosen:
            case Member():
                fill = material(chosen.fill).kind if chosen.fill else None
                self.section.show_section(member_rings(chosen), material(chosen.material).kind, fill)
            case Plate():
                width = plate_widths(self._machine)[self._key] if self._machine else chosen.thickness
                lying = self._key == "bed"
                strip = box_ring(width, chosen.thickness) if lying else box_ring(chosen.thickness, width)
                self.section.show_section((strip,), material(chosen.material).kind, None)
            case Cutter():
                ring = round_ring(chosen.diameter, 40)
                self.section.show_section((ring,), material(chosen.material).kind, None)
            case _:
                pass

    def _build(self) -> None:
        unit = em()
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        area = QScrollArea(self)
        area.setWidgetResizable(True)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        inside = QWidget(area)
        area.setWidget(inside)
        outer.addWidget(area)
        box = QVBoxLayout(inside)
        box.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.5 * unit))
        box.setSpacing(round(0.25 * unit))
        box.addWidget(heading("bench"))
        box.addWidget(self.title)
        self.place.setWordWrap(True)
        box.addWidget(self.place)
        middle = QHBoxLayout()
        middle.setSpacing(round(0.6 * unit))
        middle.addWidget(self.section, 0, Qt.AlignmentFlag.AlignTop)
        self.section.setFixedSize(self.section.sizeHint())
        right = QVBoxLayout()
        right.addWidget(self.form)
        joint = QGridLayout()
        joint.setHorizontalSpacing(round(0.5 * unit))
        self.joint_caption.setBuddy(self.joint)
        joint.addWidget(self.joint_caption, 0, 0)
        joint.addWidget(self.joint, 0, 1)
        joint.setColumnStretch(1, 1)
        right.addLayout(joint)
        middle.addLayout(right, 1)
        middle.setAlignment(right, Qt.AlignmentFlag.AlignTop)
        box.addLayout(middle)
        steps = QHBoxLayout()
        for button, tip in (
            (self.smaller, "one size smaller, key ["),
            (self.larger, "one size larger, key ]"),
        ):
            button.setToolTip(tip)
            steps.addWidget(button)
        box.addLayout(steps)
        self.facts.setWordWrap(True)
        box.addWidget(self.facts)
        box.addStretch(1)

    def _on_form_edited(self, changed: Part, attribute: str) -> None:
        self.edited.emit(self._key, changed, attribute)

    def _on_joint_chosen(self, index: int) -> None:
        if self._machine is None:
            return
        end = ends(self._machine)[self._key]
        held = part(self._machine, end)
        if isinstance(held, Joint):
            self.edited.emit(end, replace(held, kind=self.joint.itemData(index)), "kind")

    def _on_step(self, up: bool) -> None:
        self.stepped.emit(up)
