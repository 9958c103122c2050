"""The bench: the chosen part, drawn to scale, and everything one can change of it."""

import itertools
from functools import partial

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QStackedLayout,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.machine.facts import facts
from unterbau.machine.item_words import item_words
from unterbau.machine.machine import Machine, bill_of, ends, kind_of, lengths, link, part, plate_widths
from unterbau.machine.stepping import step
from unterbau.materials.material import material
from unterbau.sections.solved import SectionRef
from unterbau.structure.bodies import box_ring, round_ring
from unterbau.structure.parts import Cutter, Drive, Joint, Member, Part, Plate, Sizes, Spindle, Stand
from unterbau.structure.weights import member_rings
from unterbau.studies.account import Account
from unterbau.studies.belts import corner_pull
from unterbau.ui.stations.machine.account_page import AccountPage
from unterbau.ui.stations.machine.own_cut_page import OwnCutPage
from unterbau.ui.stations.machine.own_section import OwnSection
from unterbau.ui.stations.machine.part_fields import joint_choices, with_value
from unterbau.ui.stations.machine.part_form import PartForm
from unterbau.ui.stations.machine.try_instead import TryInstead
from unterbau.ui.stations.machine.why import Why
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import ElidedLabel, heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.scrolled_page import ScrolledPage
from unterbau.ui.widgets.section_view import SectionView
from unterbau.units import length_text, mass_text, movement_text

ACCOUNT, CUT = 2, 3
PANEL = 0.3  # m, of a plate that stands nowhere


class Bench(QWidget):
    """Where the chosen part is worked on."""

    edited = pyqtSignal(str, object, str)
    """Link, new part, attribute."""
    stepped = pyqtSignal(bool)
    """One size larger or smaller."""
    why_wanted = pyqtSignal()

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._machine: Machine | None = None
        self._key = ""
        self.title = label("", size=1.18, bold=True)
        self.place = ElidedLabel("muted", 0.92, self)
        self.section = SectionView(view, self)
        self.form = PartForm(view, self)
        self.own_wanted = QPushButton("own size", self)
        self.own = OwnSection(view, self)
        self.joint_caption = label("joint", "muted", 0.92)
        self.joint = ChoiceBox("joint at the ends", joint_choices(), self)
        self.smaller = QPushButton("◂ smaller  [", self)
        self.larger = QPushButton("]  larger ▸", self)
        self.why_button = QPushButton("why so soft?", self)
        self.money = label("", "muted", 0.92)
        self.facts = label("", "muted", 0.86)
        self.limit = label("", "error", 0.9)
        self.limit.setWordWrap(True)
        self.limit.hide()
        self.advice = TryInstead(self)
        self.why = Why(view, self)
        self.account = AccountPage(self)
        self.cut = OwnCutPage(view, self)
        self._pages = QStackedLayout()
        self._build()
        self.form.edited.connect(self._on_form_edited)
        self.own_wanted.toggled.connect(self._on_own_toggled)
        self.own.chosen.connect(self._on_own_chosen)
        self.joint.activated.connect(self._on_joint_chosen)
        self.smaller.clicked.connect(partial(self._on_step, False))
        self.larger.clicked.connect(partial(self._on_step, True))
        self.why_button.clicked.connect(self.why_wanted)
        self.why.closed.connect(self.show_form)
        self.account.closed.connect(self.show_form)
        self.cut.closed.connect(self.show_form)
        view.changed.connect(self._show_place)

    @property
    def key(self) -> str:
        """The link on the bench."""
        return self._key

    @property
    def explains(self) -> bool:
        """Whether the page with the causes is open."""
        return self._pages.currentIndex() == 1

    def show_part(self, machine: Machine, key: str, prices: PriceBook, limit: str = "") -> None:
        """Put a part on the bench; `limit` says what stands against it."""
        another = key != self._key
        self._machine, self._key = machine, key  # first: what is typed and not yet taken was typed for another part
        if another:
            self.own_wanted.setChecked(False)
            self.show_form()
            for page in self.findChildren(ScrolledPage):
                page.to_top()
        chosen = part(machine, key)
        self.title.setText(link(machine, key).label)
        self._show_place()
        self.form.show_part(kind_of(machine), key, chosen)
        self._show_joint(machine, key)
        lines = [*facts(key, chosen, self._view.units), *self._belt(machine, chosen)]
        self.facts.setText("\n".join(lines))
        self._show_money(machine, key, prices)
        self.limit.setText(limit)
        self.limit.setVisible(bool(limit))
        self._show_section(chosen)
        self.own_wanted.setVisible(isinstance(chosen, Member))
        self.own.setVisible(isinstance(chosen, Member) and self.own_wanted.isChecked())
        if isinstance(chosen, Member):
            self.own.show_section(chosen.section, key)
        else:
            self.own.leave()
        steps = not isinstance(chosen, Sizes | Spindle | Stand)
        self.smaller.setVisible(steps)
        self.larger.setVisible(steps)
        self.smaller.setEnabled(step(chosen, up=False) is not None)
        self.larger.setEnabled(step(chosen, up=True) is not None)
        whole = isinstance(chosen, Sizes)
        self.why_button.setVisible(not whole)
        self.advice.head(whole)
        if whole:
            self.show_form()
        self._order()

    def _order(self) -> None:
        """Let Tab go through the part's fields, then the steps, then what one could try instead."""
        fields = [one.edit if isinstance(one, QuantityField) else one for one in self.form.controls.values()]
        steps = [self.joint, self.smaller, self.larger, self.own_wanted]
        row: list[QWidget] = [*fields, *steps, *self.advice.orders.buttons(), self.why_button]
        for one, following in itertools.pairwise(row):
            QWidget.setTabOrder(one, following)

    def _belt(self, machine: Machine, chosen: Part) -> list[str]:
        moved = corner_pull(machine, chosen) if isinstance(chosen, Drive) else None
        if moved is None:
            return []
        low, likely, high = (movement_text(value, self._view.units) for value in (moved.low, moved.likely, moved.high))
        return [f"Its tension pulls the frame's corners together: {likely} ({low} – {high}) at the worst of them."]

    def show_form(self) -> None:
        """Go back from the causes to the part."""
        self._pages.setCurrentIndex(0)

    def show_advice(self) -> None:
        """Bring the list of alternatives into sight."""
        self.show_form()
        for page in self.findChildren(ScrolledPage):
            if page.isAncestorOf(self.advice):
                page.begin_at(self.advice)

    def show_why(self) -> None:
        """Open the page with the causes."""
        self._pages.setCurrentIndex(1)

    @property
    def accounts(self) -> str:
        """The number whose account is open, or nothing."""
        return self.account.quantity if self._pages.currentIndex() == ACCOUNT else ""

    def show_account(self, found: Account) -> None:
        """Open the page that tells how a number came about."""
        self.account.show_account(found)
        self._pages.setCurrentIndex(ACCOUNT)

    def show_own_cut(self) -> None:
        """Open the page with the cut of one's own."""
        self._pages.setCurrentIndex(CUT)

    def refuse(self, attribute: str, problem: str) -> None:
        """Say beside a field why the machine cannot be built with its value."""
        self.form.refuse(attribute, problem)

    def type_into(self, attribute: str) -> None:
        """Put the cursor into the field of an attribute."""
        control = self.form.controls.get(attribute)
        if isinstance(control, QuantityField):
            control.edit.setFocus()
            control.edit.selectAll()

    def _show_joint(self, machine: Machine, key: str) -> None:
        end = ends(machine).get(key)
        self.joint_caption.setVisible(end is not None)
        self.joint.setVisible(end is not None)
        held = part(machine, end) if end is not None else None
        if isinstance(held, Joint):
            self.joint.show_value(held.kind)

    def _show_place(self) -> None:
        if self._machine is None:
            return
        place = link(self._machine, self._key).place
        length = lengths(self._machine).get(self._key) if isinstance(part(self._machine, self._key), Member) else None
        self.place.show_text(f"{place}, {length_text(length, self._view.units)}" if length else place)

    def _show_money(self, machine: Machine, key: str, prices: PriceBook) -> None:
        items = [item for item in bill_of(machine, prices) if item.part == key]
        self.money.setVisible(bool(items))
        if not items:
            return
        mass, total = sum(item.mass for item in items), sum(item.money for item in items)
        count = sum(item.count for item in items[:1])
        invented = ", invented price" if any(item.invented for item in items) else ""
        missing = ", price missing" if any(not item.priced for item in items) else ""
        weight = f"{mass_text(mass, self._view.units)}, " if mass else ""
        self.money.setText(f"{count} in all: {weight}{money_text(total, prices)}{invented}{missing}")
        self.money.setToolTip(
            plain_tip(
                "\n".join(f"{item_words(item, self._view.units)}: {money_text(item.money, prices)}" for item in items)
            )
        )

    def _show_section(self, chosen: Part) -> None:
        self.section.setVisible(isinstance(chosen, Member | Plate | Cutter))
        match chosen:
            case Member():
                fill = material(chosen.fill).kind if chosen.fill else None
                self.section.show_section(member_rings(chosen), material(chosen.material).kind, fill)
            case Plate():
                widths = plate_widths(self._machine) if self._machine else {}
                width = widths.get(self._key, PANEL)
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
        outer.addLayout(self._pages)
        for build in (self._part_page, self._why_page, self._account_page, self._cut_page):
            inside = QWidget(self)
            box = QVBoxLayout(inside)
            box.setContentsMargins(round(1.1 * unit), round(0.35 * unit), round(1.1 * unit), round(0.5 * unit))
            box.setSpacing(round(0.15 * unit))
            build(box)
            area = ScrolledPage(inside, self)
            area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
            self._pages.addWidget(area)

    def _why_page(self, box: QVBoxLayout) -> None:
        box.addWidget(self.why)

    def _account_page(self, box: QVBoxLayout) -> None:
        box.addWidget(self.account)

    def _cut_page(self, box: QVBoxLayout) -> None:
        box.addWidget(self.cut)

    def _part_page(self, box: QVBoxLayout) -> None:
        unit = em()
        top = QHBoxLayout()
        top.addWidget(heading("bench"))
        top.addStretch()
        self.why_button.setFlat(True)
        self.why_button.setFont(font(0.86))
        self.why_button.setProperty("small", True)
        self.why_button.setToolTip("causes, numbers, formula and source of this link's give, Ctrl+Y")
        top.addWidget(self.why_button)
        box.addLayout(top)
        named = QHBoxLayout()
        named.addWidget(self.title)
        named.addWidget(self.place, 1)
        box.addLayout(named)
        middle = QHBoxLayout()
        middle.setSpacing(round(0.6 * unit))
        middle.addWidget(self.section, 0, Qt.AlignmentFlag.AlignTop)
        self.section.setFixedSize(self.section.sizeHint())
        right = QVBoxLayout()
        right.setSpacing(round(0.2 * unit))
        right.addWidget(self.form)
        self.own_wanted.setCheckable(True)
        self.own_wanted.setToolTip("a section of your own by its dimensions: shape, height, width, wall")
        right.addWidget(self.own)
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
            steps.addWidget(button, 1)
        steps.addWidget(self.own_wanted)
        box.addLayout(steps)
        box.insertWidget(1, self.limit)
        box.addWidget(self.advice)
        for text in (self.money, self.facts):
            text.setWordWrap(True)
            box.addWidget(text)
        box.addStretch(1)

    def _on_form_edited(self, changed: Part, attribute: str) -> None:
        self.edited.emit(self._key, changed, attribute)

    def _on_own_toggled(self, on: bool) -> None:
        self.own.setVisible(on)

    def _on_own_chosen(self, key: str, chosen: SectionRef) -> None:
        """Take a section for the part that it was typed or solved for, if that is still on the bench."""
        held = part(self._machine, key) if self._machine is not None and key == self._key else None
        if isinstance(held, Member):
            self.edited.emit(key, with_value(held, "section", chosen), "section")

    def _on_joint_chosen(self, index: int) -> None:
        if self._machine is None:
            return
        end = ends(self._machine)[self._key]
        held = part(self._machine, end)
        if isinstance(held, Joint):
            self.edited.emit(end, with_value(held, "kind", self.joint.itemData(index)), "kind")

    def _on_step(self, up: bool) -> None:
        self.stepped.emit(up)
