"""A search as a drawer of Compare: what may vary, within what, for what; the unbeaten fill the picture."""

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.machine.differs import differences
from unterbau.machine.machine import Machine, bodies_of, links
from unterbau.progress import Progress
from unterbau.structure.parts import Place
from unterbau.studies.designs import Bounds, Design, Free
from unterbau.studies.search import GOALS, Found, Goal, Tried, search
from unterbau.studies.search_space import offered
from unterbau.studies.search_workers import SIDE_BY_SIDE
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.stations.compare.outline_chips import Chip, OutlineChips
from unterbau.ui.theme import em, font
from unterbau.ui.view_settings import ViewSettings
from unterbau.ui.widgets.choice_box import ChoiceBox
from unterbau.ui.widgets.labels import heading, label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.units import mass_text, stiffness_text

SEARCH, STOP = "search", "pause"
SECONDS = 60.0
WIDTH = 23.0
Asked = tuple[Machine, tuple[Free, ...], Bounds, Goal, PriceBook, Place, int]


class SearchDrawer(QWidget):
    """Looks behind; a double click or Enter makes a design a candidate."""

    found_changed = pyqtSignal(object)
    """Designs that none beats so far."""
    taken = pyqtSignal(object, str)
    """A machine should become a candidate, called so."""
    trouble = pyqtSignal(str)

    def __init__(self, view: ViewSettings, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._view = view
        self._machine: Machine | None = None
        self._book, self._place = PriceBook("", "", ()), Place()
        self._tried: dict[Asked, Tried] = {}
        self._round = 0
        self._searching = False
        self.designs: tuple[Design, ...] = ()
        self._offers: dict[str, Free] = {}
        self.chips = OutlineChips(self)
        self.goal = ChoiceBox("Goal", tuple((one, one) for one in GOALS), self)
        self.mass = QuantityField("Mass at the most", "mass", view, self, optional=True)
        self.money = QuantityField("Money at the most", "money", view, self, optional=True)
        self.look, self.words = QPushButton(SEARCH, self), label("", "muted", 0.88)
        self.list = QListWidget(self)
        self.asker = Asker(self._search, self)
        self._build()
        self._connect()

    def show_machine(self, machine: Machine, book: PriceBook, place: Place) -> None:
        """Offer what may vary of a machine; what was found of another one is taken away."""
        self._book, self._place = book, place
        if machine == self._machine:
            return
        self._machine = machine
        self._searching = False
        self.asker.stop()
        self.look.setText(SEARCH)
        self._offers = {_chip_of(one.free): one.free for one in offered(machine)}
        self.chips.show_machine(bodies_of(machine, Place()), _chips(machine))
        self._show(())
        self._count()

    def chosen(self) -> tuple[Free, ...]:
        """Return what is pressed."""
        return tuple(one for key, one in self._offers.items() if self.chips.buttons[key].isChecked())

    def close_drawer(self) -> None:
        """Stop searching."""
        self.asker.close()

    def start(self) -> None:
        """Search, go on, or pause."""
        if self._searching:  # an old run that is still ending does not count: a new one follows it
            self._searching = False
            self.asker.stop()
            self.look.setText("go on")
            self.words.setText(f"{self.words.text()}; paused")
            return
        free = self.chosen()
        if not free or self._machine is None:
            self.words.setText("press what may vary first")
            return
        goal = next(one for one in GOALS if one == self.goal.currentData())
        bounds = Bounds(self.mass.value, self.money.value)
        self._round += 1
        self._searching = True
        self.look.setText(STOP)
        self.words.setText("searching …")
        self.asker.ask((self._machine, free, bounds, goal, self._book, self._place, self._round))

    def _search(self, asked: Asked, progress: Progress) -> Found:
        machine, free, bounds, goal, book, place, _ = asked
        space = (machine, free, bounds, goal, book, place, 0)
        tried = self._tried.setdefault(space, {})
        return search(machine, free, bounds, goal, book, SECONDS, place, progress, tried, SIDE_BY_SIDE)

    def _show(self, designs: tuple[Design, ...]) -> None:
        self.designs = tuple(sorted(designs, key=lambda one: -one.weakest))
        self.list.clear()
        for one in self.designs:
            price, mass = money_text(one.money, self._book), mass_text(one.mass, self._view.units, 0)
            item = QListWidgetItem(f"{stiffness_text(one.weakest, self._view.units)}, {mass}, {price}")
            if self._machine is not None:
                told = differences(self._machine, one.machine, self._view.units)
                item.setToolTip(plain_tip("\n".join(told) or "as it is"))
            self.list.addItem(item)
        self.found_changed.emit(self.designs)

    def _count(self) -> None:
        """Say how many designs what is pressed makes."""
        count = 1
        for one in self.chosen():
            count *= len(one.values)
        words = f"{count:,} designs" if self.chosen() else "press what may vary"
        if not self.asker.busy:
            self.words.setText(words)

    def _on_told(self, designs: tuple[Design, ...]) -> None:
        self._show(designs)

    def _on_progressed(self, done: int, total: int) -> None:
        if total and self._searching:
            self.words.setText(f"{done:,} of {total:,}; {len(self.designs)} unbeaten")

    def _on_ready(self, found: Found) -> None:
        self._searching = False
        self.look.setText(SEARCH if found.whole else "go on")
        self._show(tuple(one.design for one in found.unbeaten))
        whole = "all" if found.whole else f"{found.tried:,} of {found.of:,}"
        shared = "".join(f"; {words}" for words in found.shared[:2])
        self.words.setText(f"{whole} tried, {len(found.unbeaten)} unbeaten{shared}")
        self.words.setToolTip(plain_tip("\n".join(found.shared)))

    def _on_failed(self, problem: str) -> None:
        self._searching = False
        self.look.setText(SEARCH)
        self.words.setText("")
        self.trouble.emit(problem)

    def _on_taken(self, item: QListWidgetItem) -> None:
        one = self.designs[self.list.row(item)]
        self.taken.emit(one.machine, f"found {self.list.row(item) + 1}")

    def _build(self) -> None:
        unit = em()
        self.setFixedWidth(round(WIDTH * unit))
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, round(unit), 0)
        box.setSpacing(round(0.3 * unit))
        box.addWidget(heading("search: what may vary"))
        self.list.setAccessibleName("Unbeaten designs")
        self.list.setFont(font(0.9))
        self.list.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Ignored)
        self.list.setMinimumHeight(round(4.5 * unit))
        box.addWidget(self.chips)
        wanted, most = QHBoxLayout(), QHBoxLayout()
        wanted.addWidget(label("wanted", "muted", 0.9))
        wanted.addWidget(self.goal, 1)
        wanted.addWidget(self.look, 1)
        for words, field in (("mass at most", self.mass), ("money at most", self.money)):
            most.addWidget(label(words, "muted", 0.9))
            most.addWidget(field, 1)
        box.addLayout(most)
        box.addLayout(wanted)
        self.words.setWordWrap(True)
        box.addWidget(self.words)
        box.addWidget(heading("unbeaten"))
        self.list.setToolTip("double click or Enter makes it a candidate")
        box.addWidget(self.list, 2)

    def _connect(self) -> None:
        self.chips.toggled.connect(self._count)
        for field in (self.mass, self.money):
            field.committed.connect(field.set_value)
        self.look.clicked.connect(self.start)
        self.list.itemActivated.connect(self._on_taken)
        self.asker.told.connect(self._on_told)
        self.asker.ready.connect(self._on_ready)
        self.asker.failed.connect(self._on_failed)
        self.asker.progressed.connect(self._on_progressed)


def _chip_of(free: Free) -> str:
    """Return the key of the chip that something that may vary belongs to."""
    return free.field if free.key == "dimensions" else free.key


def _chips(machine: Machine) -> tuple[Chip, ...]:
    """Return a chip for each part and size that may vary, in the order of what is offered."""
    labels, found = {one.key: one.label for one in links(machine)}, []
    for one in offered(machine):
        key = _chip_of(one.free)
        axis, _, rest = one.free.field.partition("_")
        size = f"{axis.upper()} {rest.replace('rail_', '')}"
        sized = one.free.key == "dimensions"
        at = f"{axis}_guides" if sized else one.free.key
        found.append(Chip(key, size if sized else labels[one.free.key], one.words, at))
    return tuple(found)
