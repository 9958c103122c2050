"""The 3D view: one mesh of faces, one of ink lines, a thin ghost, the pull as an arrow."""

from typing import TYPE_CHECKING, Any

import numpy as np
from PyQt6.QtCore import QBuffer, QByteArray, QEvent, QIODevice, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QImage, QMouseEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget
from typing_extensions import override

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.ui.theme import colour
from unterbau.ui.viewport.grips import Drag, arms, drag, grip_at, strokes
from unterbau.ui.viewport.scene import Scene
from unterbau.ui.viewport.spots import CLICK_DISTANCE, Spots

if TYPE_CHECKING:
    from unterbau.ui.viewport.canvas import Canvas

MOST_BODIES = 4  # lit up at once
SEEN_THROUGH = 0.25  # of the machine under a map
GHOSTLY = 0.55  # opacity of the machine as built behind the one that is pulled
FIT = 1.14  # room around the machine
STEEPEST = 85.0  # degrees from which one looks from above or below


def png(picture: QImage) -> bytes:
    """Return a picture as a PNG."""
    held = QByteArray()
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    picture.save(buffer, "PNG")
    return held.data()


class Viewport(QWidget):
    """Draws a scene; tells which part the mouse is over and which is clicked."""

    pointed = pyqtSignal(str)
    clicked = pyqtSignal(str)
    grip_pressed = pyqtSignal(str)
    """The head is taken hold of, to be dragged along x, y or z."""
    grip_moved = pyqtSignal(str, float)
    """Axis and distance from where the drag began, m."""
    grip_released = pyqtSignal(bool)
    """The drag ended; false where it was taken back."""

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName("The machine in 3D")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        self._canvas: Canvas | None = None
        self._scene: Scene | None = None
        self._lit_key = ""
        self._touched = False
        self._pressed = QPoint()
        self._grips: tuple[FloatArray, float] | None = None
        self._drag: Drag | None = None
        self._over_grip = ""
        self.spots = Spots(self._dotted, self)
        """What can be clicked and dragged on the machine."""
        self._open = True

    @property
    def canvas(self) -> "Canvas":
        """What is drawn on; made when it is first wanted, so that the window stands before VTK is loaded."""
        if self._canvas is None:
            from unterbau.ui.viewport.canvas import Canvas

            self._canvas = Canvas(colour("paper"), self)
            box = self.layout()
            assert box is not None
            box.addWidget(self._canvas)
            self._canvas.show()
            box.activate()  # it has its size before the first picture
            self._canvas.installEventFilter(self)
        return self._canvas

    def show_scene(self, scene: Scene) -> None:
        """Draw another machine; the camera stays unless there was none."""
        self._scene = scene
        self.canvas.faces("faces", scene.points, scene.faces)
        self.canvas.lines("ink", scene.points, scene.lines, colour("ink"), 1.2, 4.0)
        self.canvas.lines("ghost", scene.points, scene.lines, colour("ghost"), 0.6)
        self._light_lines()
        if not self._touched:
            self._look()

    def light_up(self, key: str) -> None:
        """Draw a part's edges in the accent colour; an empty key draws none."""
        if key != self._lit_key:
            self._lit_key = key
            self._light_lines()

    def _light_lines(self) -> None:
        self.canvas.take("lit")
        scene = self._scene
        if scene is None or self._lit_key not in scene.keys:
            return
        rows = scene.lines.reshape(-1, 3)[scene.line_owner == scene.keys.index(self._lit_key)]
        self.canvas.lines("lit", scene.points, rows.ravel(), colour("accent"), 3.0, 8.0)

    def colour_parts(self, colours: dict[str, QColor]) -> None:
        """Colour every part."""
        if self._scene is None:
            return
        table = np.array([colours[key].getRgb()[:3] for key in self._scene.keys], dtype=float)
        self.canvas.paint("faces", table[self._scene.owner])

    def move_points(self, points: FloatArray, ghost: bool) -> None:
        """Put the points in other places, with or without the undeformed machine as thin lines."""
        for name in ("faces", "ink", "lit"):
            self.canvas.move_points(name, points)
        self.canvas.fade("ghost", GHOSTLY if ghost else 0.0)

    def show_other(self, other: tuple[Scene, FloatArray] | None) -> None:
        """Draw another machine's lines over this one, moved by a shift, m; or take them away."""
        if other is not None:
            scene, shift = other
            self.canvas.lines("other", scene.points + shift, scene.lines, colour("warning"), 0.9)
        elif self._canvas is not None:
            self._canvas.take("other")

    def show_pull(self, start: FloatArray, direction: FloatArray, text: str) -> None:
        """Draw the pull as an arrow with its size beside it; no text draws none."""
        self.canvas.take("pull")
        self.canvas.take("pull text")
        if text:
            self.canvas.arrow("pull", start, direction, colour("accent"))
            self.canvas.words("pull text", start - direction * 0.12, text, colour("accent"))

    def show_map(self, points: FloatArray, colours: FloatArray, mark: FloatArray, text: str) -> None:
        """Draw a coloured map over the work, and a mark at one of its places.

        Args:
            points: Rows of places, m, shape (ny, nx, 3).
            colours: RGB of each, 0 to 255, shape (ny, nx, 3).
            mark: The marked place, m.
            text: Beside the mark.
        """
        ny, nx = points.shape[:2]
        corner = np.arange(ny * nx).reshape(ny, nx)
        faces = np.stack([corner[:-1, :-1], corner[:-1, 1:], corner[1:, 1:], corner[1:, :-1]], axis=-1).reshape(-1, 4)
        flat = np.hstack([np.full((len(faces), 1), 4), faces]).ravel()
        self.canvas.faces("map", points.reshape(-1, 3), flat, colours.reshape(-1, 3))
        size = 0.04 * float(np.linalg.norm(np.ptp(points.reshape(-1, 3), axis=0)))
        ring = [mark + size * np.array([np.cos(t), np.sin(t), 0.0]) for t in np.linspace(0, 2 * np.pi, 25)]
        self.canvas.lines("map mark", np.array(ring), np.array([25, *range(25)]), colour("ink"), 3.0, 12.0)
        self.canvas.words("map text", mark + np.array([0.0, 0.0, 1.2 * size]), text, colour("ink"))
        self.canvas.fade("faces", SEEN_THROUGH)

    def hide_map(self) -> None:
        """Take the map away."""
        if self._scene is None:
            return
        for name in ("map", "map mark", "map text"):
            self.canvas.take(name)
        self.canvas.fade("faces", 1.0)

    def show_grips(self, centre: FloatArray, length: float) -> None:
        """Draw the cross by which the head is dragged along its axes."""
        self._grips = (centre, length)
        points, lines = strokes(centre, length)
        self.canvas.lines("grips", points, np.array(lines), colour("accent"), 2.4, 12.0)

    def grip_ends(self) -> FloatArray:
        """Return the ends of the cross's arms on the widget, px, shape (3, 2, 2)."""
        if self._grips is None:
            return np.zeros((3, 2, 2))
        found = [self.canvas.eye.on_widget(place) for place in arms(*self._grips).reshape(6, 3)]
        return np.array(found).reshape(3, 2, 2)

    def cancel_drag(self) -> bool:
        """Take a drag of the head back; say whether there was one."""
        if self._drag is None:
            return False
        self._drag = None
        self.grip_released.emit(False)
        return True

    def _dotted(self) -> "Canvas":
        return self.canvas

    def show_bodies(self, bodies: list[tuple[FloatArray, IntArray, QColor]]) -> None:
        """Light bodies up through the rest of the machine: points, faces and colour of each; none shows it whole."""
        for number in range(MOST_BODIES):
            self.canvas.take(f"body {number}")
        for number, (points, faces, ink) in enumerate(bodies[:MOST_BODIES]):
            colours = np.tile(np.array(ink.getRgb()[:3], dtype=float), (len(points), 1))
            self.canvas.faces(f"body {number}", points, faces, colours)
        self.canvas.fade("faces", SEEN_THROUGH if bodies else 1.0)

    def draw(self) -> None:
        """Render."""
        if self._open and self._scene is not None:
            self.canvas.draw()

    def reset_view(self) -> None:
        """Look from the front right, from above, the whole machine in view."""
        self._touched = False
        self._look()
        self.draw()

    def _look(self) -> None:
        if self._scene is None:
            return
        towards = np.array([-0.52, -0.72, 0.46])
        towards = towards / np.linalg.norm(towards)
        right = np.cross([0.0, 0.0, 1.0], towards)
        right = right / np.linalg.norm(right)
        up = np.cross(towards, right)
        across, above = self._scene.points @ right, self._scene.points @ up
        depth = self._scene.points @ towards
        middle = [(a.max() + a.min()) / 2 for a in (across, above, depth)]
        focus = middle[0] * right + middle[1] * up + middle[2] * towards
        size = float(np.ptp(self._scene.points, axis=0).max())
        camera = self.canvas.camera
        camera.SetFocalPoint(*focus)
        camera.SetPosition(*(focus + 3 * size * towards))
        camera.SetViewUp(0.0, 0.0, 1.0)
        aspect = max(self.width(), 1) / max(self.height(), 1)
        camera.SetParallelScale(FIT * max(np.ptp(above) / 2, np.ptp(across) / 2 / aspect))
        self.canvas.renderer.ResetCameraClippingRange()

    def turn(self, across: float, up: float) -> None:
        """Turn the camera about the machine, degrees; for the keyboard."""
        if self._scene is None:
            return
        self._touched = True
        camera = self.canvas.camera
        camera.Azimuth(across)
        x, y, z = camera.GetDirectionOfProjection()
        now = float(np.degrees(np.arctan2(-z, np.hypot(x, y))))
        camera.Elevation(float(np.clip(now + up, -STEEPEST, STEEPEST)) - now)
        camera.SetViewUp(0.0, 0.0, 1.0)
        self.canvas.renderer.ResetCameraClippingRange()
        self.draw()

    def part_at(self, place: QPoint) -> str:
        """Return the part under a place of the widget, or nothing."""
        if self._scene is None:
            return ""
        name, cell = self.canvas.shown_at(place.x(), place.y())
        if name != "faces":
            return ""
        return str(self._scene.keys[self._scene.owner[cell]])

    def picture(self) -> FloatArray:
        """Return the drawn picture as an array, rows by columns by RGB."""
        image = self.canvas.picture().convertToFormat(QImage.Format.Format_RGBX8888)
        bits = image.constBits()
        assert bits is not None
        flat = np.frombuffer(bytes(bits.asarray(image.sizeInBytes())), dtype=np.uint8)
        return np.array(flat.reshape(image.height(), image.width(), 4)[..., :3])

    def close_view(self) -> None:
        """Give the graphics back; the window calls this before it goes."""
        if self._open:
            self._open = False
            if self._canvas is not None:
                self._canvas.removeEventFilter(self)
                self._canvas.close()

    @override
    def eventFilter(self, watched: Any, event: QEvent | None) -> bool:
        if isinstance(event, QMouseEvent):
            if self._on_grip(event) or self.spots.take(event, self._pressed):
                return True
            self._on_mouse(event)
        elif event is not None and event.type() == QEvent.Type.Wheel:
            self._touched = True
        elif event is not None and event.type() == QEvent.Type.Resize and not self._touched:
            self._look()
        elif event is not None and event.type() == QEvent.Type.Leave:
            self.pointed.emit("")
        return super().eventFilter(watched, event)

    def _on_mouse(self, event: QMouseEvent) -> None:
        if event.type() == QEvent.Type.MouseMove and event.buttons() == Qt.MouseButton.NoButton:
            self.pointed.emit(self.part_at(event.pos()))
        elif event.type() == QEvent.Type.MouseButtonPress:
            self._pressed = event.pos()
            self._touched = True
        elif (event.type() == QEvent.Type.MouseButtonRelease and event.button() == Qt.MouseButton.LeftButton) and (
            event.pos() - self._pressed
        ).manhattanLength() < CLICK_DISTANCE:
            self.clicked.emit(self.part_at(event.pos()))

    def _on_grip(self, event: QMouseEvent) -> bool:
        """Handle what the mouse does to the cross over the head; the rest turns the view."""
        place = np.array([event.position().x(), event.position().y()])
        kind = event.type()
        if self._drag is not None:
            if kind == QEvent.Type.MouseMove:
                self.grip_moved.emit(self._drag.axis, self._drag.moved(place))
            elif kind == QEvent.Type.MouseButtonRelease:
                self._drag = None
                self.grip_released.emit(True)
            return True
        over = grip_at(self.grip_ends(), place) if self._grips is not None else ""
        if kind == QEvent.Type.MouseMove and event.buttons() == Qt.MouseButton.NoButton and over != self._over_grip:
            self._over_grip = over
            self.canvas.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)
            self.canvas.setToolTip(f"drag the head along {over.upper()}" if over else "")
        if over and kind == QEvent.Type.MouseButtonPress and event.button() == Qt.MouseButton.LeftButton:
            assert self._grips is not None
            self._drag = drag(over, self.grip_ends(), self._grips[1], place)
            self.grip_pressed.emit(over)
            return True
        return False
