"""A widget that VTK draws on: meshes, lines and words by name, over one camera."""

from importlib.resources import as_file, files
from typing import Any

import numpy as np
import vtkmodules.vtkRenderingFreeType
import vtkmodules.vtkRenderingOpenGL2  # noqa: F401  these two register what writes and draws
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QColor, QImage, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget
from typing_extensions import override
from vtkmodules.util.numpy_support import numpy_to_vtk, numpy_to_vtkIdTypeArray, vtk_to_numpy
from vtkmodules.vtkCommonCore import vtkPoints, vtkUnsignedCharArray
from vtkmodules.vtkCommonDataModel import vtkCellArray, vtkPolyData
from vtkmodules.vtkInteractionStyle import vtkInteractorStyleTrackballCamera
from vtkmodules.vtkRenderingCore import (
    vtkActor,
    vtkCellPicker,
    vtkLightKit,
    vtkPolyDataMapper,
    vtkRenderer,
    vtkRenderWindow,
    vtkTextActor,
)
from vtkmodules.vtkRenderingUI import vtkGenericRenderWindowInteractor

from unterbau.mechanics.arrays import FloatArray, IntArray
from unterbau.ui.theme import em
from unterbau.ui.viewport.eye import Eye

FONT = "Inter-SemiBold.otf"
FONT_FROM_FILE = 4  # VTK_FONT_FILE
WORDS = 0.85  # height of words against the standard text's line
BEHIND_WORDS = 0.85  # opacity of the paper behind words
NOTCH = 120  # of a wheel, eighths of a degree
BUTTONS = {
    Qt.MouseButton.LeftButton: "Left",
    Qt.MouseButton.RightButton: "Right",
    Qt.MouseButton.MiddleButton: "Middle",
}
SIDES = 20  # of an arrow
TIP, SHAFT, BARB = 0.22, 0.018, 0.06  # of its length: its head, half its shaft, half its head's width


class Canvas(QWidget):
    """One renderer that draws out of sight; what it drew is painted like any picture. What is put on it goes by name.

    So it needs no window of its own: it is drawn alike on every platform, covered and grabbed like any widget.
    """

    def __init__(self, paper: QColor, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName("The machine in 3D; drag to turn, wheel to zoom")
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.WheelFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.renderer = vtkRenderer()
        self.renderer.SetBackground(paper.redF(), paper.greenF(), paper.blueF())
        self._lights = vtkLightKit()
        self._lights.AddLightsToRenderer(self.renderer)
        self._window = vtkRenderWindow()
        self._window.OffScreenRenderingOn()
        self._window.SetMultiSamples(0)
        self.renderer.UseFXAAOn()
        self._window.AddRenderer(self.renderer)
        self._hand = vtkGenericRenderWindowInteractor()
        self._hand.SetRenderWindow(self._window)
        self._hand.SetInteractorStyle(vtkInteractorStyleTrackballCamera())
        self._hand.EnableRenderOff()  # the widget draws when it has to
        self._hand.Initialize()
        self.camera.ParallelProjectionOn()
        self.shown: dict[str, Any] = {}
        self.eye = Eye(self.renderer, self)
        self._paper = paper
        self._image = QImage()
        self._stale = True
        self._wheeled = 0

    @property
    def camera(self) -> Any:
        """The renderer's camera."""
        return self.renderer.GetActiveCamera()

    def faces(self, name: str, points: FloatArray, faces: IntArray, colours: FloatArray | None = None) -> None:
        """Show faces, each in a colour of its own, or lit by nothing with a colour at each point.

        Args:
            name: Takes the place of what was shown by it.
            points: m, shape (n, 3).
            faces: Polygons as count, then points, flat.
            colours: RGB of each point, 0 to 255, shape (n, 3); without it `paint` gives each face its own.
        """
        found = _mesh(points)
        found.SetPolys(_cells(faces))
        actor = _actor(found)
        style = actor.GetProperty()
        style.SetInterpolationToFlat()
        style.SetAmbient(0.62)
        style.SetDiffuse(0.42)
        style.SetSpecular(0.0)
        if colours is not None:
            found.GetPointData().SetScalars(_bytes(colours))
            _unlit(actor)
        self._put(name, actor)

    def lines(
        self, name: str, points: FloatArray, lines: IntArray, ink: QColor, width: float, before: float = 0.0,
        opacity: float = 1.0,
    ) -> None:  # fmt: skip
        """Show lines, drawn so many steps before the faces whose edges they are."""
        found = _mesh(points)
        found.SetLines(_cells(lines))
        actor = _unlit(_actor(found))
        _ink(actor, ink)
        actor.GetProperty().SetLineWidth(width)
        actor.GetProperty().SetOpacity(opacity)
        if before:
            mapper = actor.GetMapper()
            mapper.SetResolveCoincidentTopologyToPolygonOffset()
            mapper.SetRelativeCoincidentTopologyLineOffsetParameters(-before / 3, -before)
        self._put(name, actor)

    def arrow(self, name: str, start: FloatArray, direction: FloatArray, ink: QColor) -> None:
        """Show an arrow, m."""
        points, faces = _arrow(start, direction)
        found = _mesh(points)
        found.SetPolys(_cells(faces))
        actor = _actor(found)
        _ink(actor, ink)
        actor.GetProperty().SetAmbient(0.8)
        actor.GetProperty().SetDiffuse(0.3)
        actor.PickableOff()
        self._put(name, actor)

    def dots(self, name: str, points: FloatArray, ink: QColor, size: float) -> None:
        """Show round dots, px wide, in front of what they lie on."""
        found = _mesh(points)
        count = len(points)
        found.SetVerts(_cells(np.stack([np.ones(count, dtype=np.int64), np.arange(count)], axis=1).ravel()))
        actor = _unlit(_actor(found))
        _ink(actor, ink)
        style = actor.GetProperty()
        style.SetPointSize(size * self.devicePixelRatioF())
        style.RenderPointsAsSpheresOn()
        mapper = actor.GetMapper()
        mapper.SetResolveCoincidentTopologyToPolygonOffset()
        mapper.SetRelativeCoincidentTopologyPointOffsetParameter(-24.0)
        self._put(name, actor)

    def words(self, name: str, place: FloatArray, text: str, ink: QColor) -> None:
        """Write words over a place, always in front."""
        actor = vtkTextActor()
        actor.SetInput(text)
        actor.GetPositionCoordinate().SetCoordinateSystemToWorld()
        actor.GetPositionCoordinate().SetValue(*(float(v) for v in place))
        style = actor.GetTextProperty()
        with as_file(files("unterbau.ui") / "assets" / "fonts" / FONT) as path:
            style.SetFontFamily(FONT_FROM_FILE)
            style.SetFontFile(str(path))
        style.SetFontSize(round(WORDS * em()))
        style.SetColor(ink.redF(), ink.greenF(), ink.blueF())
        style.SetBackgroundColor(self._paper.redF(), self._paper.greenF(), self._paper.blueF())
        style.SetBackgroundOpacity(BEHIND_WORDS)
        style.SetJustificationToCentered()
        style.SetVerticalJustificationToCentered()
        self._put(name, actor)

    def paint(self, name: str, colours: FloatArray) -> None:
        """Give each face of what is shown a colour, RGB 0 to 255, shape (n, 3)."""
        self._data(name).GetCellData().SetScalars(_bytes(colours))

    def move_points(self, name: str, points: FloatArray) -> None:
        """Put the points of what is shown in other places, m, shape (n, 3)."""
        if name in self.shown:
            self._data(name).SetPoints(_points(points))

    def points(self, name: str) -> FloatArray:
        """Return where the points of what is shown are, m, shape (n, 3)."""
        return np.array(vtk_to_numpy(self._data(name).GetPoints().GetData()))

    def fade(self, name: str, opacity: float) -> None:
        """Let what is shown be seen through; 0 hides it."""
        if name in self.shown:
            self.shown[name].GetProperty().SetOpacity(opacity)
            self.shown[name].SetVisibility(opacity > 0.0)

    def take(self, name: str) -> None:
        """Take what is shown away, if it is there."""
        actor = self.shown.pop(name, None)
        if actor is not None:
            self.renderer.RemoveViewProp(actor)

    def draw(self) -> None:
        """Draw now."""
        self._fit()
        self._window.Render()
        columns, rows = self._window.GetSize()
        held = vtkUnsignedCharArray()
        self._window.GetRGBACharPixelData(0, 0, columns - 1, rows - 1, 0, held)  # type: ignore[call-overload]
        flat = np.ascontiguousarray(vtk_to_numpy(held).reshape(rows, columns, 4)[::-1])
        self._image = QImage(flat.tobytes(), columns, rows, 4 * columns, QImage.Format.Format_RGBX8888)
        self._image.setDevicePixelRatio(self.devicePixelRatioF())
        self._stale = False
        self.update()

    def shown_at(self, x: float, y: float) -> tuple[str, int]:
        """Return what is under a place of the widget, px, by name and number of its face; nothing and -1 is none."""
        ratio = self.devicePixelRatioF()
        picker = vtkCellPicker()
        picker.SetTolerance(0.001)
        picker.Pick(x * ratio, (self.height() - y - 1) * ratio, 0, self.renderer)
        actor, cell = picker.GetActor(), int(picker.GetCellId())
        name = next((name for name, one in self.shown.items() if one is actor), "") if cell >= 0 else ""
        return name, cell

    def picture(self) -> QImage:
        """Return what is drawn."""
        if self._stale:
            self.draw()
        return self._image

    @override
    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._stale:
            self.draw()
        QPainter(self).drawImage(QPoint(0, 0), self._image)

    @override
    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._stale = True
        self._fit()

    @override
    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._on_button(event, True)

    @override
    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._on_button(event, False)

    @override
    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._tell(event)
            self._hand.MouseMoveEvent()
            if event.buttons() != Qt.MouseButton.NoButton:
                self._redraw()

    @override
    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None:
            return
        self._tell(event)
        self._wheeled += event.angleDelta().y()
        while abs(self._wheeled) >= NOTCH:
            forward = self._wheeled > 0
            self._wheeled -= NOTCH if forward else -NOTCH
            if forward:
                self._hand.MouseWheelForwardEvent()
            else:
                self._hand.MouseWheelBackwardEvent()
        self._redraw()

    def _on_button(self, event: QMouseEvent | None, down: bool) -> None:
        name = BUTTONS.get(event.button()) if event is not None else None
        if event is not None and name is not None:
            self._tell(event)
            getattr(self._hand, f"{name}Button{'Press' if down else 'Release'}Event")()

    def _tell(self, event: QMouseEvent | QWheelEvent) -> None:
        """Tell the hand that turns the camera where the mouse is."""
        ratio, place, keys = self.devicePixelRatioF(), event.position(), event.modifiers()
        x, y = round(place.x() * ratio), round((self.height() - place.y() - 1) * ratio)
        control = bool(keys & Qt.KeyboardModifier.ControlModifier)
        shift = bool(keys & Qt.KeyboardModifier.ShiftModifier)
        self._hand.SetEventInformation(x, y, control, shift, chr(0), 0, None)

    def _redraw(self) -> None:
        self._stale = True
        self.update()

    def _fit(self) -> None:
        """Draw as large as the widget is."""
        ratio = self.devicePixelRatioF()
        size = (max(1, round(self.width() * ratio)), max(1, round(self.height() * ratio)))
        if self._window.GetSize() != size:
            self._window.SetDPI(round(72 * ratio))
            self._window.SetSize(*size)
            self._hand.SetSize(*size)

    def _put(self, name: str, actor: Any) -> None:
        self.take(name)
        self.shown[name] = actor
        self.renderer.AddViewProp(actor)

    def _data(self, name: str) -> Any:
        return self.shown[name].GetMapper().GetInput()


def _arrow(start: FloatArray, direction: FloatArray) -> tuple[FloatArray, IntArray]:
    """Return points and faces of an arrow."""
    length = float(np.linalg.norm(direction))
    along = direction / length
    side = np.cross(along, np.eye(3)[int(np.argmin(np.abs(along)))])
    side /= np.linalg.norm(side)
    over = np.cross(along, side)
    turn = np.linspace(0.0, 2 * np.pi, SIDES, endpoint=False)
    around = np.cos(turn)[:, None] * side + np.sin(turn)[:, None] * over
    neck = start + direction * (1.0 - TIP)
    rings = [start + SHAFT * length * around, neck + SHAFT * length * around, neck + BARB * length * around]
    peak, faces = 3 * SIDES, [SIDES, *range(SIDES)]
    for k in range(SIDES):
        k2 = (k + 1) % SIDES
        for low, high in ((0, SIDES), (SIDES, 2 * SIDES)):
            faces += [4, low + k, low + k2, high + k2, high + k]
        faces += [3, 2 * SIDES + k, 2 * SIDES + k2, peak]
    return np.vstack([*rings, start + direction]), np.array(faces)


def _mesh(points: FloatArray) -> Any:
    found = vtkPolyData()
    found.SetPoints(_points(points))
    return found


def _points(points: FloatArray) -> Any:
    places = vtkPoints()
    places.SetData(numpy_to_vtk(np.ascontiguousarray(points, dtype=float), deep=True))
    return places


def _bytes(colours: FloatArray) -> Any:
    return numpy_to_vtk(np.ascontiguousarray(colours, dtype=np.uint8), deep=True)


def _cells(flat: IntArray) -> Any:
    """Return cells from count, then points, flat."""
    found = vtkCellArray()
    found.ImportLegacyFormat(numpy_to_vtkIdTypeArray(np.ascontiguousarray(flat, dtype=np.int64), deep=True))
    return found


def _actor(what: Any) -> Any:
    mapper = vtkPolyDataMapper()
    mapper.SetInputData(what)
    actor = vtkActor()
    actor.SetMapper(mapper)
    return actor


def _ink(actor: Any, ink: QColor) -> None:
    actor.GetProperty().SetColor(ink.redF(), ink.greenF(), ink.blueF())


def _unlit(actor: Any) -> Any:
    """Draw in colours as they are; what is drawn so is not clicked."""
    actor.GetProperty().LightingOff()
    actor.PickableOff()
    return actor
