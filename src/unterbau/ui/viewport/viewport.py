"""The 3D view: one mesh of faces, one of ink lines, a thin ghost, the pull as an arrow."""

from typing import Any

import numpy as np
import pyvista as pv
from PyQt6.QtCore import QBuffer, QByteArray, QEvent, QIODevice, QPoint, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QImage, QMouseEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget
from pyvistaqt import QtInteractor
from typing_extensions import override
from vtkmodules.vtkRenderingCore import vtkCellPicker

from unterbau.mechanics.arrays import FloatArray
from unterbau.ui.theme import colour
from unterbau.ui.viewport.grips import Drag, arms, drag, grip_at, strokes
from unterbau.ui.viewport.scene import Scene

CLICK_DISTANCE = 4
SEEN_THROUGH = 0.25  # of the machine under a map
FIT = 1.14  # room around the machine


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
        self.plotter = QtInteractor(self, auto_update=False, multi_samples=0, line_smoothing=True)
        self.plotter.setAccessibleName("The machine in 3D; drag to turn, wheel to zoom")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.plotter)
        self.plotter.set_background(colour("paper").name())
        self.plotter.enable_parallel_projection()
        self.plotter.installEventFilter(self)
        self._scene: Scene | None = None
        self._mesh: Any = None
        self._ink: Any = None
        self._ghost: Any = None
        self._actor: Any = None
        self._lit: Any = None
        self._lit_key = ""
        self._touched = False
        self._pressed = QPoint()
        self._grips: tuple[FloatArray, float] | None = None
        self._drag: Drag | None = None
        self._over_grip = ""
        self._open = True

    def show_scene(self, scene: Scene) -> None:
        """Draw another machine; the camera stays unless there was none."""
        self._scene = scene
        self._mesh = pv.PolyData(scene.points.copy(), scene.faces)
        self._mesh.cell_data["colour"] = np.zeros((len(scene.owner), 3), dtype=np.uint8)
        self._ink = pv.PolyData(scene.points.copy(), lines=scene.lines)
        self._ghost = pv.PolyData(scene.points.copy(), lines=scene.lines)
        keep = {"reset_camera": False, "render": False}
        self._actor = self.plotter.add_mesh(
            self._mesh, scalars="colour", rgb=True, name="faces", ambient=0.62, diffuse=0.42, specular=0.0,
            show_scalar_bar=False, **keep,
        )  # fmt: skip
        ink = self.plotter.add_mesh(
            self._ink,
            color=colour("ink").name(),
            line_width=1.2,
            name="ink",
            lighting=False,
            pickable=False,
            **keep,
        )
        _in_front(ink, 4.0)
        self._ghost_actor = self.plotter.add_mesh(
            self._ghost, color=colour("ghost").name(), line_width=0.6, opacity=0.55, name="ghost",
            lighting=False, pickable=False, **keep,
        )  # fmt: skip
        self._light_lines()
        if not self._touched:
            self._look()

    def light_up(self, key: str) -> None:
        """Draw a part's edges in the accent colour; an empty key draws none."""
        if key != self._lit_key:
            self._lit_key = key
            self._light_lines()

    def _light_lines(self) -> None:
        self.plotter.remove_actor("lit", render=False)
        self._lit = None
        scene = self._scene
        if scene is None or self._lit_key not in scene.keys:
            return
        rows = scene.lines.reshape(-1, 3)[scene.line_owner == scene.keys.index(self._lit_key)]
        self._lit = pv.PolyData(np.asarray(self._mesh.points).copy(), lines=rows.ravel())
        actor = self.plotter.add_mesh(
            self._lit, color=colour("accent").name(), line_width=3.0, name="lit", lighting=False,
            pickable=False, reset_camera=False, render=False,
        )  # fmt: skip
        _in_front(actor, 8.0)

    def colour_parts(self, colours: dict[str, QColor]) -> None:
        """Colour every part."""
        if self._scene is None:
            return
        table = np.array([colours[key].getRgb()[:3] for key in self._scene.keys], dtype=np.uint8)
        self._mesh.cell_data["colour"] = table[self._scene.owner]

    def move_points(self, points: FloatArray, ghost: bool) -> None:
        """Put the points in other places, with or without the undeformed machine as thin lines."""
        self._mesh.points = points
        self._ink.points = points
        if self._lit is not None:
            self._lit.points = points
        self._ghost_actor.SetVisibility(ghost)

    def show_pull(self, start: FloatArray, direction: FloatArray, text: str) -> None:
        """Draw the pull as an arrow with its size beside it; no text draws none."""
        self.plotter.remove_actor("pull", render=False)
        self.plotter.remove_actor("pull text", render=False)
        if not text:
            return
        scale = float(np.linalg.norm(direction))
        arrow = pv.Arrow(
            start=start,
            direction=direction,
            scale=scale,
            tip_length=0.22,
            tip_radius=0.06,
            shaft_radius=0.018,
        )
        accent = colour("accent").name()
        self.plotter.add_mesh(
            arrow, color=accent, name="pull", ambient=0.8, pickable=False, reset_camera=False, render=False
        )
        self.plotter.add_point_labels(
            [start - direction * 0.12], [text], name="pull text", font_size=13, bold=True, text_color=accent,
            shape_color=colour("paper").name(), shape_opacity=0.85, show_points=False, always_visible=True,
            reset_camera=False, render=False,
        )  # fmt: skip

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
        mesh = pv.PolyData(points.reshape(-1, 3), np.hstack([np.full((len(faces), 1), 4), faces]))
        mesh.point_data["colour"] = colours.reshape(-1, 3).astype(np.uint8)
        self.plotter.add_mesh(
            mesh, scalars="colour", rgb=True, name="map", lighting=False, show_scalar_bar=False, pickable=False,
            reset_camera=False, render=False,
        )  # fmt: skip
        size = 0.04 * float(np.linalg.norm(np.ptp(points.reshape(-1, 3), axis=0)))
        ring = [mark + size * np.array([np.cos(t), np.sin(t), 0.0]) for t in np.linspace(0, 2 * np.pi, 25)]
        line = pv.PolyData(np.array(ring), lines=np.array([25, *range(25)]))
        actor = self.plotter.add_mesh(
            line, color=colour("ink").name(), line_width=3.0, name="map mark", lighting=False, pickable=False,
            reset_camera=False, render=False,
        )  # fmt: skip
        _in_front(actor, 12.0)
        self.plotter.add_point_labels(
            [mark + np.array([0.0, 0.0, 1.2 * size])], [text], name="map text", font_size=13, bold=True,
            text_color=colour("ink").name(), shape_color=colour("paper").name(), shape_opacity=0.85,
            show_points=False, always_visible=True, reset_camera=False, render=False,
        )  # fmt: skip
        self._actor.prop.opacity = SEEN_THROUGH

    def hide_map(self) -> None:
        """Take the map away."""
        for name in ("map", "map mark", "map text"):
            self.plotter.remove_actor(name, render=False)
        if self._actor is not None:
            self._actor.prop.opacity = 1.0

    def show_grips(self, centre: FloatArray, length: float) -> None:
        """Draw the cross by which the head is dragged along its axes."""
        self._grips = (centre, length)
        points, lines = strokes(centre, length)
        actor = self.plotter.add_mesh(
            pv.PolyData(points, lines=np.array(lines)), color=colour("accent").name(), line_width=2.4, name="grips",
            lighting=False, pickable=False, reset_camera=False, render=False,
        )  # fmt: skip
        _in_front(actor, 12.0)

    def grip_ends(self) -> FloatArray:
        """Return the ends of the cross's arms on the widget, px, shape (3, 2, 2)."""
        if self._grips is None:
            return np.zeros((3, 2, 2))
        ratio, height = self.plotter.devicePixelRatioF(), self.plotter.height()
        renderer, found = self.plotter.renderer, []
        for place in arms(*self._grips).reshape(6, 3):
            renderer.SetWorldPoint(*place, 1.0)
            renderer.WorldToDisplay()
            x, y, _ = renderer.GetDisplayPoint()
            found.append((x / ratio, height - y / ratio))
        return np.array(found).reshape(3, 2, 2)

    def cancel_drag(self) -> bool:
        """Take a drag of the head back; say whether there was one."""
        if self._drag is None:
            return False
        self._drag = None
        self.grip_released.emit(False)
        return True

    def draw(self) -> None:
        """Render."""
        if self._open:
            self.plotter.render()

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
        camera = self.plotter.camera
        camera.focal_point, camera.position, camera.up = focus, focus + 3 * size * towards, (0.0, 0.0, 1.0)
        aspect = max(self.plotter.width(), 1) / max(self.plotter.height(), 1)
        camera.parallel_scale = FIT * max(np.ptp(above) / 2, np.ptp(across) / 2 / aspect)
        self.plotter.renderer.ResetCameraClippingRange()

    def turn(self, across: float, up: float) -> None:
        """Turn the camera about the machine, degrees; for the keyboard."""
        self._touched = True
        self.plotter.camera.azimuth += across
        self.plotter.camera.elevation = float(np.clip(self.plotter.camera.elevation + up, -85, 85))
        self.draw()

    def part_at(self, place: QPoint) -> str:
        """Return the part under a place of the widget, or nothing."""
        if self._scene is None:
            return ""
        picker = vtkCellPicker()
        picker.SetTolerance(0.001)
        ratio = self.plotter.devicePixelRatioF()
        height = self.plotter.height()
        picker.Pick(place.x() * ratio, (height - place.y() - 1) * ratio, 0, self.plotter.renderer)
        cell = picker.GetCellId()
        if cell < 0 or picker.GetActor() is not self._actor:
            return ""
        return str(self._scene.keys[self._scene.owner[cell]])

    def picture(self) -> FloatArray:
        """Return the drawn picture as an array, rows by columns by RGB."""
        return np.asarray(self.plotter.screenshot(return_img=True))

    def png(self) -> bytes:
        """Return the drawn picture as a PNG."""
        picture = np.ascontiguousarray(self.picture())
        height, width = picture.shape[:2]
        image = QImage(picture.tobytes(), width, height, 3 * width, QImage.Format.Format_RGB888)
        held = QByteArray()
        buffer = QBuffer(held)
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        image.save(buffer, "PNG")
        return held.data()

    def close_view(self) -> None:
        """Give the graphics back; the window calls this before it goes."""
        if self._open:
            self._open = False
            self.plotter.removeEventFilter(self)
            self.plotter.close()

    @override
    def eventFilter(self, watched: Any, event: QEvent | None) -> bool:
        if isinstance(event, QMouseEvent):
            if self._on_grip(event):
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
            self.plotter.setCursor(Qt.CursorShape.SizeAllCursor if over else Qt.CursorShape.ArrowCursor)
            self.plotter.setToolTip(f"drag the head along {over.upper()}" if over else "")
        if over and kind == QEvent.Type.MouseButtonPress and event.button() == Qt.MouseButton.LeftButton:
            assert self._grips is not None
            self._drag = drag(over, self.grip_ends(), self._grips[1], place)
            self.grip_pressed.emit(over)
            return True
        return False


def _in_front(actor: Any, steps: float) -> None:
    """Draw lines before the faces whose edges they are."""
    actor.mapper.SetResolveCoincidentTopologyToPolygonOffset()
    actor.mapper.SetRelativeCoincidentTopologyLineOffsetParameters(-steps / 3, -steps)
