"""A page of plans: what sawing or cutting takes away, and a plan for each stock below."""

from collections.abc import Callable
from typing import Generic, TypeVar

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.scrolled_page import ScrolledPage

P = TypeVar("P", bound=QWidget)


class PlansPage(Generic[P]):
    """Holds as many plans as there are stocks, made when they are wanted."""

    def __init__(
        self, fields: tuple[tuple[str, QuantityField], ...], make: Callable[[], P], parent: QWidget,
        further: tuple[QWidget, ...] = (),
    ) -> None:  # fmt: skip
        self._make = make
        self.plans: list[P] = []
        unit = em()
        inside = QWidget(parent)
        column = QVBoxLayout(inside)
        column.setContentsMargins(round(1.1 * unit), round(0.6 * unit), round(1.1 * unit), round(0.6 * unit))
        row = QHBoxLayout()
        for words, field in fields:
            caption = label(words, "muted", 0.9)
            caption.setBuddy(field.edit)
            field.setMinimumWidth(round(4.6 * unit))
            field.setMaximumWidth(round(7 * unit))
            row.addWidget(caption)
            row.addWidget(field)
            row.addSpacing(round(1.2 * unit))
        for one in further:
            row.addWidget(one)
        row.addStretch(1)
        column.addLayout(row)
        column.addSpacing(round(0.4 * unit))
        self._box = QVBoxLayout()
        column.addLayout(self._box)
        column.addStretch(1)
        self.widget = ScrolledPage(inside, parent)

    def keep(self, count: int) -> list[P]:
        """Return so many plans, further ones made, those too many taken away."""
        while len(self.plans) > count:
            gone = self.plans.pop()
            self._box.removeWidget(gone)
            gone.hide()
            gone.deleteLater()
        while len(self.plans) < count:
            one = self._make()
            self._box.insertWidget(len(self.plans), one)
            self.plans.append(one)
        return self.plans
