"""First steps: one line at a time, gone when it was followed or sent away."""

from dataclasses import dataclass

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from unterbau.ui.theme import em
from unterbau.ui.widgets.labels import label


@dataclass(frozen=True)
class Step:
    """One hint."""

    id: str
    text: str


STEPS = (
    Step("link", "The strip above is the chain from the tool to the work; a wide link gives much. Click one: it comes "
         "to the bench."),
    Step("edit", "Press ] to make the part on the bench one size larger and watch the readout; Ctrl+Z takes it back."),
    Step("try", "Under the part, “try instead” lists what else could stand here, solved for this place. Click a line "
         "to put it in."),
    Step("pull", "Pull another way with X, Y, Z beside the strip: each direction has a weak link of its own."),
    Step("head", "Drag the cross over the spindle, or type beside “head”, to see the machine at another place."),
    Step("copy", "Ctrl+D keeps what you have as another candidate; Compare, Alt+3, sets them side by side."),
)  # fmt: skip
ALL = tuple(step.id for step in STEPS)


class FirstSteps(QWidget):
    """A line over the machine; hidden once all steps are done."""

    done = pyqtSignal(tuple)
    """All steps that are done or were sent away."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setProperty("surface", "soft")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._done: tuple[str, ...] = ()
        self.count = label("", "muted", 0.86)
        self.text = label("", size=0.95)
        self.text.setWordWrap(True)
        self.next = QPushButton("next", self)
        self.end = QPushButton("no more of these", self)
        row = QHBoxLayout(self)
        row.setContentsMargins(round(1.3 * em()), round(0.25 * em()), round(1.1 * em()), round(0.25 * em()))
        row.addWidget(self.count)
        row.addWidget(self.text, 1)
        for button in (self.next, self.end):
            button.setFlat(True)
            row.addWidget(button)
        self.next.clicked.connect(self._on_next)
        self.end.clicked.connect(self._on_end)

    @property
    def step(self) -> Step | None:
        """The hint that is shown, if any is left."""
        return next((step for step in STEPS if step.id not in self._done), None)

    def show_done(self, done: tuple[str, ...]) -> None:
        """Show the first step that is not done."""
        self._done = done
        step = self.step
        self.setVisible(step is not None)
        if step is not None:
            self.count.setText(f"first steps {ALL.index(step.id) + 1} of {len(ALL)}")
            self.text.setText(step.text)

    def follow(self, step: str) -> None:
        """Mark a step as followed; only the one that is shown counts."""
        if self.step is not None and self.step.id == step:
            self._on_next()

    def _on_next(self) -> None:
        step = self.step
        if step is not None:
            self.done.emit((*self._done, step.id))

    def _on_end(self) -> None:
        self.done.emit(ALL)
