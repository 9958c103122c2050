"""Colours by role, the shipped type family, and the style sheet. No colours elsewhere."""

from dataclasses import dataclass
from importlib.resources import files

from PyQt6.QtGui import QColor, QFont, QFontDatabase, QFontMetricsF, QPalette
from PyQt6.QtWidgets import QApplication


@dataclass(frozen=True, slots=True)
class Palette:
    """Workshop drawing: warm paper, dark ink, hairlines, one enamel green, one heat scale."""

    paper: str = "#f6f3ea"
    panel: str = "#fbf9f3"
    sunken: str = "#efecdf"
    ink: str = "#222a29"
    muted: str = "#62675f"
    hairline: str = "#d8d3c2"
    accent: str = "#2c6a54"
    accent_soft: str = "#e3ece3"
    on_accent: str = "#ffffff"
    deep_ink: str = "#000000"
    bright_ink: str = "#ffffff"
    warning: str = "#a3401d"
    joint: str = "#49524f"
    ghost: str = "#8c8f86"
    down_arrow: str = "down.svg"
    tick: str = "tick.svg"
    heat: tuple[str, ...] = ("#f3ead3", "#ead29d", "#dfab63", "#ca7a3f", "#a84a22")
    """From no share to the largest, even steps of lightness."""


PAPER = Palette()
SLATE = Palette(
    paper="#22251f", panel="#2a2d27", sunken="#1b1d19", ink="#ece7d9", muted="#aeb0a1", hairline="#474a40",
    accent="#86c8a8", accent_soft="#2b3a32", on_accent="#12211a", deep_ink="#000000", warning="#f2936a",
    joint="#8b9791", ghost="#83867a", down_arrow="down-light.svg", tick="tick-dark.svg",
    heat=("#37372d", "#5c5233", "#8d6a35", "#c4803f", "#f2a062"),
)  # fmt: skip
"""The same drawing on slate: light ink, shares from dim straw to bright rust."""
THEMES = {"light": PAPER, "dark": SLATE}
LOOK = "unterbau-look"
"""Property of the application: what it wears, so that it is not dressed twice."""
FAMILY = "Inter"
READABLE = 4.5  # contrast of small text, WCAG 2.1
_used = PAPER


def palette() -> Palette:
    """Return the palette in use."""
    return _used


def colour(name: str) -> QColor:
    """Return the colour of a role."""
    return QColor(getattr(_used, name))


def heat(share: float) -> QColor:
    """Return the colour of a share from 0 to 1 on the heat scale."""
    steps = _used.heat
    place = max(0.0, min(1.0, share)) * (len(steps) - 1)
    low = min(int(place), len(steps) - 2)
    return mixed(QColor(steps[low]), QColor(steps[low + 1]), place - low)


def contrast(a: QColor, b: QColor) -> float:
    """Return the contrast ratio of two colours, WCAG 2.1."""

    def light(c: QColor) -> float:
        rows = [v / 12.92 if v <= 0.04045 else ((v + 0.055) / 1.055) ** 2.4 for v in (c.redF(), c.greenF(), c.blueF())]
        return 0.2126 * rows[0] + 0.7152 * rows[1] + 0.0722 * rows[2]

    high, low = sorted((light(a), light(b)), reverse=True)
    return (high + 0.05) / (low + 0.05)


def ink_on(background: QColor) -> QColor:
    """Return ink where it reads well, else white or black, whichever reads better."""
    if contrast(colour("ink"), background) >= READABLE:
        return colour("ink")
    others = (colour("on_accent"), colour("paper"), colour("deep_ink"), colour("bright_ink"))
    return max(others, key=lambda c: contrast(c, background))


def load_fonts() -> None:
    """Make the shipped type family known."""
    folder = files("unterbau.ui") / "assets" / "fonts"
    for weight in ("Regular", "Medium", "SemiBold"):
        QFontDatabase.addApplicationFontFromData((folder / f"Inter-{weight}.otf").read_bytes())


def font(size: float = 1.0, weight: QFont.Weight = QFont.Weight.Normal) -> QFont:
    """Return the family at a multiple of the desktop's size, with figures of one width."""
    base = QApplication.font()
    found = QFont(FAMILY)
    found.setPointSizeF(max(base.pointSizeF(), 6.0) * size)
    found.setWeight(weight)
    found.setFeature(QFont.Tag("tnum"), 1)
    return found


def em() -> float:
    """Return the line height of the standard text, px; sizes are multiples of it."""
    return QFontMetricsF(font()).height()


def desktop_size(application: QApplication) -> float:
    """Return the desktop's text size, pt, within what the window is made for."""
    return min(max(application.font().pointSizeF(), 9.0), 14.0)


def apply(application: QApplication, point_size: float, theme: str = "light") -> None:
    """Set colours, font and style sheet of the application; a look it has already costs nothing."""
    global _used
    _used = THEMES[theme]
    look = f"{theme} {point_size}"
    if application.property(LOOK) == look:
        return
    application.setProperty(LOOK, look)
    load_fonts()
    base = QFont(FAMILY)
    base.setPointSizeF(point_size)
    base.setFeature(QFont.Tag("tnum"), 1)
    application.setFont(base)
    application.setStyle("Fusion")
    application.setPalette(_qt_palette(_used))
    application.setStyleSheet(style_sheet())


def _qt_palette(p: Palette) -> QPalette:
    """Return the palette for what the style sheet does not reach: hairlines, file dialogs, links."""
    made = QPalette()
    roles = QPalette.ColorRole
    for role, name in (
        (roles.Window, p.paper), (roles.Base, p.panel), (roles.AlternateBase, p.sunken), (roles.Button, p.panel),
        (roles.WindowText, p.ink), (roles.Text, p.ink), (roles.ButtonText, p.ink), (roles.ToolTipText, p.ink),
        (roles.ToolTipBase, p.panel), (roles.Mid, p.hairline), (roles.Highlight, p.accent), (roles.Link, p.accent),
        (roles.HighlightedText, p.on_accent), (roles.PlaceholderText, p.muted),
    ):  # fmt: skip
        made.setColor(role, QColor(name))
    return made


def _ticks(p: Palette) -> str:
    """Return the part of the style sheet for boxes to tick and pages of text."""
    tick = files("unterbau.ui") / "assets" / "icons" / p.tick
    return f"""
    QCheckBox::indicator {{ width: 11px; height: 11px; border: 1px solid {p.muted}; border-radius: 3px;
      background: {p.panel}; }}
    QCheckBox::indicator:checked {{ background: {p.accent}; border-color: {p.accent}; image: url("{tick}"); }}
    QCheckBox::indicator:focus {{ border: 2px solid {p.accent}; }}
    QPlainTextEdit {{ background: {p.panel}; border: 1px solid {p.hairline}; }}
    QPlainTextEdit:focus {{ border: 1px solid {p.accent}; }}
    """


def style_sheet() -> str:
    """Return the style sheet of all ordinary controls."""
    p = _used
    arrow = files("unterbau.ui") / "assets" / "icons" / p.down_arrow
    return f"""{_ticks(p)}
    QWidget {{ color: {p.ink}; background: {p.paper}; selection-background-color: {p.accent};
      selection-color: {p.on_accent}; }}
    QLabel, QCheckBox {{ background: transparent; }}
    QLabel[role="muted"] {{ color: {p.muted}; }}
    QLabel[role="error"] {{ color: {p.warning}; }}
    QLabel[role="heading"] {{ color: {p.muted}; font-weight: 600; letter-spacing: 1.5px; }}
    QWidget[surface="panel"] {{ background: {p.panel}; }}
    QWidget[surface="soft"] {{ background: {p.accent_soft}; }}
    QWidget[surface="sunken"] {{ background: {p.sunken}; }}
    QLineEdit, QComboBox, QSpinBox {{ background: {p.panel}; border: none;
      border-bottom: 1px solid {p.hairline}; padding: 1px 2px; }}
    QLineEdit:focus, QComboBox:focus, QSpinBox:focus {{ border-bottom: 2px solid {p.accent}; }}
    QLineEdit[wrong="true"] {{ border-bottom: 2px solid {p.warning}; }}
    QComboBox::drop-down {{ border: none; width: 16px; }}
    QComboBox::down-arrow {{ image: url("{arrow}"); width: 10px; height: 10px; }}
    QComboBox QAbstractItemView, QListView {{ background: {p.panel}; border: 1px solid {p.hairline}; outline: 0; }}
    QListView::item {{ padding: 4px 8px; }}
    QListView::item:selected {{ background: {p.accent_soft}; color: {p.ink}; }}
    QPushButton, QToolButton {{ background: {p.panel}; border: 1px solid {p.hairline}; border-radius: 5px;
      padding: 3px 9px; }}
    QPushButton:hover, QToolButton:hover {{ border-color: {p.accent}; }}
    QPushButton:focus, QToolButton:focus {{ border: 2px solid {p.accent}; padding: 2px 8px; }}
    QPushButton:checked, QToolButton:checked {{ background: {p.accent}; color: {p.on_accent};
      border-color: {p.accent}; }}
    QPushButton:disabled, QToolButton:disabled {{ color: {p.ghost}; }}
    QPushButton[flat="true"], QToolButton[flat="true"] {{ background: transparent; border-color: transparent; }}
    QPushButton[flat="true"]:focus, QToolButton[flat="true"]:focus {{ border-color: {p.accent}; }}
    QPushButton[flat="true"]:hover, QToolButton[flat="true"]:hover {{ color: {p.accent}; }}
    QPushButton[flat="true"]:checked {{ background: transparent; color: {p.ink}; font-weight: 600;
      border-bottom: 2px solid {p.accent}; border-radius: 0; }}
    QPushButton[small="true"] {{ padding: 1px 5px; }}
    QPushButton[small="true"]:focus {{ padding: 0px 4px; }}
    QToolButton::menu-indicator {{ image: none; }}
    QMenu {{ background: {p.panel}; border: 1px solid {p.hairline}; padding: 4px; }}
    QMenu::item {{ padding: 4px 22px 4px 12px; }}
    QMenu::item:selected {{ background: {p.accent_soft}; color: {p.ink}; }}
    QMenu::item:disabled {{ color: {p.ghost}; }}
    QToolTip {{ background: {p.panel}; color: {p.ink}; border: 1px solid {p.hairline}; padding: 4px; }}
    QScrollArea, QTableView {{ border: none; }}
    QTableView {{ background: {p.paper}; alternate-background-color: {p.sunken}; }}
    QTableView::item {{ padding: 2px 5px; }}
    QTableView::item:selected {{ background: {p.accent_soft}; color: {p.ink}; }}
    QTableView::item:focus {{ border: 1px solid {p.accent}; }}
    QHeaderView::section {{ background: {p.paper}; color: {p.muted}; border: none;
      border-bottom: 1px solid {p.hairline}; padding: 3px 5px; font-weight: 400; }}
    QScrollBar:vertical {{ width: 8px; background: transparent; }}
    QScrollBar:horizontal {{ height: 8px; background: transparent; }}
    QScrollBar::handle {{ background: {p.hairline}; border-radius: 4px; min-height: 24px; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QSlider::groove:horizontal {{ height: 3px; background: {p.hairline}; border-radius: 1px; }}
    QSlider::handle:horizontal {{ width: 12px; height: 12px; margin: -5px 0; border-radius: 6px;
      background: {p.panel}; border: 1.5px solid {p.ink}; }}
    QSlider::handle:horizontal:focus {{ border: 2px solid {p.accent}; }}
    """


def mixed(a: QColor, b: QColor, share: float) -> QColor:
    """Return one colour with a share of another in it."""
    return QColor.fromRgbF(
        a.redF() * (1 - share) + b.redF() * share,
        a.greenF() * (1 - share) + b.greenF() * share,
        a.blueF() * (1 - share) + b.blueF() * share,
    )
