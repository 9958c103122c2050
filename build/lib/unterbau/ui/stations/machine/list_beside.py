"""A list of findings under the view, and what is to be said of the chosen one beside it."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QListWidget, QVBoxLayout, QWidget

from unterbau.ui.theme import em, font

TALL = 11.5  # em


def lay_list_beside(bar: QWidget, head: QLabel, found: QListWidget, said: tuple[QWidget, ...]) -> None:
    """Lay a bar out: a head, the list, and beside it labels below one another, other widgets between them."""
    unit = em()
    found.setFont(font(0.9))
    found.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    found.setTextElideMode(Qt.TextElideMode.ElideRight)
    bar.setFixedHeight(round(TALL * unit))
    box = QVBoxLayout(bar)
    box.setContentsMargins(0, 0, 0, 0)
    box.setSpacing(round(0.2 * unit))
    box.addWidget(head)
    row, side = QHBoxLayout(), QVBoxLayout()
    row.setSpacing(round(0.8 * unit))
    row.addWidget(found, 6)
    side.setSpacing(round(0.3 * unit))
    for one in said:
        if isinstance(one, QLabel):
            one.setWordWrap(True)
            one.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
            side.addWidget(one)
        else:
            side.addWidget(one, 0, Qt.AlignmentFlag.AlignLeft)
    side.addStretch(1)
    row.addLayout(side, 7)
    box.addLayout(row, 1)
