"""What the person looks at: candidate, link, pull direction, load, head place."""

from PyQt6.QtCore import QObject, pyqtSignal

from unterbau.structure.parts import Place


class Selection(QObject):
    """View state shared by the tools of the Machine station."""

    candidate_changed = pyqtSignal(str)
    link_changed = pyqtSignal(str)
    hover_changed = pyqtSignal(str)
    pull_changed = pyqtSignal()
    place_changed = pyqtSignal()

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.candidate = ""
        self.link = ""
        self.hover = ""
        self.axis = 1
        self.load = 100.0
        self.place = Place()

    def choose_candidate(self, name: str) -> None:
        """Look at a candidate."""
        if name != self.candidate:
            self.candidate = name
            self.candidate_changed.emit(name)

    def choose_link(self, key: str) -> None:
        """Put a link on the bench; an empty key follows the weakest."""
        if key != self.link:
            self.link = key
            self.link_changed.emit(key)

    def point_at(self, key: str) -> None:
        """Light a link up while the mouse is over it."""
        if key != self.hover:
            self.hover = key
            self.hover_changed.emit(key)

    def move_head(self, place: Place) -> None:
        """Put the head at a place of its travel."""
        if place != self.place:
            self.place = place
            self.place_changed.emit()

    def pull_along(self, axis: int) -> None:
        """Pull the tool along x, y or z (0, 1, 2)."""
        if axis != self.axis:
            self.axis = axis
            self.pull_changed.emit()

    def pull_with(self, load: float) -> None:
        """Pull with a force, N."""
        if load != self.load:
            self.load = load
            self.pull_changed.emit()
