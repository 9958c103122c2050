"""Three unlike machines for the brief: looked for behind, each with its reasons and a click from being a candidate."""

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from unterbau.brief.brief import Brief
from unterbau.catalogue.prices import PriceBook, money_text
from unterbau.progress import Progress
from unterbau.studies.propose import UNLIKE, Proposal, Proposed, propose
from unterbau.ui.jobs.asker import Asker
from unterbau.ui.theme import em, font
from unterbau.ui.widgets.labels import label
from unterbau.ui.widgets.plain_tip import plain_tip
from unterbau.units import Units, mass_text, stiffness_text

SECONDS = 45.0
LOOK, STOP = "propose three machines", "stop looking"
Asked = tuple[Brief, PriceBook]


def proposal_words(one: Proposal, book: PriceBook, units: Units) -> str:
    """Return a proposal in a few lines."""
    axis = min(range(3), key=lambda n: one.answers.worst[n].likely / max(one.target[n], 1e-9))
    band = one.answers.worst[axis]
    ends = f"{stiffness_text(band.low, units)} to {stiffness_text(band.high, units)}"
    how = "meets it" if one.meets else "does not meet it"
    return (
        f"{how}: {'XYZ'[axis]} {stiffness_text(band.likely, units)} ({ends}), {one.reaches:.0%} of the target; "
        f"{mass_text(one.mass, units, 0)}, {money_text(one.money, book)}, {one.hours:.0f} h"
    )


class Proposals(QWidget):
    """A button, and a card for each proposal."""

    taken = pyqtSignal(object)
    """A proposal should become a candidate."""
    trouble = pyqtSignal(str)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self._asked: Asked | None = None
        self._looking = False
        self._units: Units = "mm"
        self.shown: tuple[Proposal, ...] = ()
        self.asker = Asker(_proposed, self)
        self.look, self.words = QPushButton(LOOK, self), label("", "muted", 0.88)
        self.cards: list[tuple[QWidget, QPushButton]] = []
        self._build()
        self.look.clicked.connect(self._on_look)
        self.asker.told.connect(self._show)
        self.asker.ready.connect(self._on_ready)
        self.asker.failed.connect(self._on_failed)
        self.asker.progressed.connect(self._on_progressed)

    def show_brief(self, brief: Brief, book: PriceBook, units: Units) -> None:
        """Know the brief; proposals for another one are taken away."""
        self._units = units
        if (brief, book) != self._asked:
            self._asked = (brief, book)
            if self._looking:
                self._looking = False
                self.asker.stop()
                self.look.setText(LOOK)
            known = self.asker.known(self._asked)
            if known is not None:
                self._on_ready(known)
            else:
                self._show(())
                self.words.setText("kinds in the brief's size, made stiff enough for its money; about a minute")
        else:
            self._show(self.shown)

    def close_proposals(self) -> None:
        """Stop looking."""
        self.asker.close()

    def _on_look(self) -> None:
        if self._looking:
            self._looking = False
            self.asker.stop()
            self.look.setText(LOOK)
            self.words.setText("stopped")
        elif self._asked is not None:
            self._looking = True
            self.look.setText(STOP)
            self.words.setText("putting up the kinds that do this work")
            self.asker.ask(self._asked)

    def _on_progressed(self, done: int, total: int) -> None:
        if total and self._looking:
            self.words.setText(f"looking: {done} of {total}")

    def _on_ready(self, found: Proposed) -> None:
        self._looking = False
        self.look.setText(LOOK)
        self._show(found.proposals)
        words = "; ".join(found.instead)
        self.words.setText(
            f"nothing meets the brief: {words}" if not found.met else "each a click from being a candidate"
        )

    def _on_failed(self, problem: str) -> None:
        self._looking = False
        self.look.setText(LOOK)
        self.words.setText("")
        self.trouble.emit(problem)

    def _show(self, proposals: tuple[Proposal, ...]) -> None:
        self.shown = proposals
        for n, (card, button) in enumerate(self.cards):
            card.setVisible(n < len(proposals))
            if n < len(proposals) and self._asked is not None:
                one = proposals[n]
                told = proposal_words(one, self._asked[1], self._units)
                button.setText(one.kind.label)
                text = card.findChildren(type(self.words))[0]
                text.setText(told)
                more = [*one.reasons, *(f"done to it: {words}" for words in one.changes), *one.conflicts]
                card.setToolTip(plain_tip("\n".join(more)))
                button.setAccessibleName(f"Take as a candidate: {one.kind.label}, {told}")

    def _build(self) -> None:
        unit = em()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(round(0.2 * unit))
        row = QHBoxLayout()
        self.look.setFont(font(0.92))
        row.addWidget(self.look)
        self.words.setWordWrap(True)
        row.addWidget(self.words, 1)
        box.addLayout(row)
        cards = QHBoxLayout()
        for n in range(UNLIKE):
            card = QWidget(self)
            column = QVBoxLayout(card)
            column.setContentsMargins(0, 0, round(0.6 * unit), 0)
            column.setSpacing(0)
            button = QPushButton("", card)
            button.setFont(font(0.9))
            button.setToolTip("take it as a candidate")
            button.clicked.connect(partial(self._on_taken, n))
            text = label("", "muted", 0.86, parent=card)
            text.setWordWrap(True)
            column.addWidget(button)
            column.addWidget(text)
            card.hide()
            cards.addWidget(card, 1)
            self.cards.append((card, button))
        box.addLayout(cards)

    def _on_taken(self, number: int) -> None:
        if number < len(self.shown):
            self.taken.emit(self.shown[number])


def _proposed(asked: Asked, progress: Progress) -> Proposed:
    brief, book = asked
    return propose(brief, book, SECONDS, progress)
