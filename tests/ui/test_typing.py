"""Typed text stays until it is accepted or abandoned, whatever arrives meanwhile: every form, typed by keys."""

from collections.abc import Iterator
from dataclasses import replace

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QSpinBox, QWidget
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL, machine_of
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.station_bar import STATIONS
from unterbau.ui.widgets.quantity_field import QuantityField
from unterbau.ui.widgets.typed_line import TypedLine


def refresh(window: MainWindow) -> None:
    """Have everything shown again, as when a result arrives."""
    window.feed.likely_ready.emit()
    window.feed.bands_ready.emit()
    window.document.changed.emit(window.document.project, window.document.project)
    window.view.changed.emit()


def typed_slowly(window: MainWindow, qtbot: QtBot, widget: QWidget, text: str) -> None:
    """Type a text with a result arriving after each key."""
    for key in text:
        qtbot.keyClicks(widget, key)
        refresh(window)
        QApplication.processEvents()


def test_six_values_with_tab_between_them_arrive_while_it_computes(window: MainWindow, qtbot: QtBot) -> None:
    """The sizes of a machine, typed one after the other at a person's speed."""
    window.machine.show_sizes()
    form = window.machine.bench.form
    names = [name for name, control in form.controls.items() if isinstance(control, QuantityField)][:6]
    fields = [form.controls[name] for name in names]
    wanted = []
    first = fields[0]
    assert isinstance(first, QuantityField)
    first.edit.setFocus()
    first.edit.selectAll()
    for name, field in zip(names, fields, strict=True):
        assert isinstance(field, QuantityField)
        assert QApplication.focusWidget() is field.edit
        value = round(getattr(machine_of(window).dimensions, name) * 1e3) + 1
        wanted.append(value)
        typed_slowly(window, qtbot, field.edit, str(value))
        assert field.edit.text() == str(value)
        qtbot.keyClick(field.edit, Qt.Key.Key_Tab)
        qtbot.wait(30)
    sizes = machine_of(window).dimensions
    assert [round(getattr(sizes, name) * 1e3, 6) for name in names] == wanted


VIEWS = [
    (name, view)
    for name in STATIONS
    for view in (("bars", "sheets", "shopping", "work") if name == "Workshop" else ("",))
]


def opened(window: MainWindow, qtbot: QtBot, name: str, view: str) -> QWidget:
    """Open a station, and a view of the workshop, and wait until what it shows is there."""
    window.show_station(STATIONS.index(name))
    if name == "Workshop":
        qtbot.waitUntil(lambda: not window.workshop.plans.busy, timeout=60_000)
        window.workshop.show_view(view)
    if name == "Build":
        qtbot.waitUntil(lambda: not window.build.plans.busy and window.build.list.count() > 0, timeout=60_000)
        qtbot.waitUntil(lambda: not window.build.lessons.busy, timeout=60_000)
    return window.pages.currentWidget() or window


def fields_of(page: QWidget) -> Iterator[TypedLine | QSpinBox]:
    every: list[TypedLine | QSpinBox] = [*page.findChildren(TypedLine), *page.findChildren(QSpinBox)]
    return (one for one in every if one.isVisible() and one.isEnabled() and not one.isReadOnly())


@pytest.mark.parametrize(("station", "view"), VIEWS)
def test_in_every_form_typed_text_outlives_what_arrives(
    window: MainWindow, qtbot: QtBot, station: str, view: str
) -> None:
    tried = 0
    for widget in list(fields_of(opened(window, qtbot, station, view)))[:40]:
        line = widget.lineEdit() if isinstance(widget, QSpinBox) else widget
        if line is None or not widget.isVisible():
            continue
        widget.setFocus()
        line.selectAll()
        text = "7" if isinstance(widget, QSpinBox) else "12 zz"
        typed_slowly(window, qtbot, widget, text)
        assert line.text() == text, f"{station}: {line.accessibleName() or widget.accessibleName()}"
        if isinstance(widget, TypedLine):
            qtbot.keyClick(widget, Qt.Key.Key_Escape)
        else:
            line.setText(widget.textFromValue(widget.value()))
        tried += 1
    assert tried or station == "Compare"


@pytest.mark.parametrize("key", ["dimensions", "gantry_beam", "z_plate", "beam_joint", "x_drive", "cutter", "spindle"])
def test_a_refused_value_stays_with_its_message(window: MainWindow, qtbot: QtBot, key: str) -> None:
    window.machine.choose_link(key) if key != "dimensions" else window.machine.show_sizes()
    before = window.document.project
    form = window.machine.bench.form
    for name, field in form.controls.items():
        if not isinstance(field, QuantityField) or not field.isVisible():
            continue
        field.edit.setFocus()
        field.edit.selectAll()
        qtbot.keyClicks(field.edit, "-9999")
        qtbot.keyClick(field.edit, Qt.Key.Key_Return)
        refresh(window)
        message = field.message.text()
        assert field.edit.text() == "-9999", name
        assert message, name
        assert window.document.project is before
        qtbot.keyClick(field.edit, Qt.Key.Key_Escape)
        assert field.edit.text() != "-9999"
        assert not field.message.text()


def test_typed_text_goes_when_another_part_or_candidate_comes(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.choose_link("z_plate")
    field = window.machine.bench.form.controls["thickness"]
    assert isinstance(field, QuantityField)
    for leave in ("part", "candidate"):
        window.machine.choose_link("z_plate")
        field = window.machine.bench.form.controls["thickness"]
        assert isinstance(field, QuantityField)
        field.edit.setFocus()
        field.edit.selectAll()
        qtbot.keyClicks(field.edit, "3 m")
        qtbot.keyClick(field.edit, Qt.Key.Key_Return)
        assert field.edit.text() == "3 m"
        if leave == "part":
            window.machine.choose_link("x_plate")
        else:
            other = next(c.name for c in window.document.project.candidates if c.name != window.selection.candidate)
            window.selection.choose_candidate(other)
        shown = window.machine.bench.form.controls["thickness"]
        assert isinstance(shown, QuantityField)
        assert shown.edit.text() != "3 m"
        assert not shown.message.text()


def test_after_an_accepted_value_the_next_replaces_it(window: MainWindow, qtbot: QtBot) -> None:
    window.machine.show_sizes()
    field = window.machine.bench.form.controls["x_stance"]
    assert isinstance(field, QuantityField)
    field.edit.setFocus()
    field.edit.selectAll()
    for text in ("181", "183"):
        qtbot.keyClicks(field.edit, text)
        qtbot.keyClick(field.edit, Qt.Key.Key_Return)
        refresh(window)
        assert field.edit.text() == f"{text} mm"
    assert machine_of(window).dimensions.x_stance == pytest.approx(0.183)
    qtbot.keyClick(field.edit, Qt.Key.Key_Z, CTRL)
    assert field.edit.text() == "181 mm"


def test_a_line_of_the_shopping_list_keeps_what_is_typed_when_its_rows_change(window: MainWindow, qtbot: QtBot) -> None:
    opened(window, qtbot, "Workshop", "shopping")
    page = window.workshop.shopping.page
    row = page.basket.rows[2]
    page.state_chosen.emit(row, "ordered")
    qtbot.waitUntil(lambda: page.basket.rows[2].state == "ordered", timeout=10_000)
    due = page.due[2]
    due.setFocus()
    due.selectAll()
    qtbot.keyClicks(due, "2027-0")
    assert due.text() == "2027-0"
    page.basket = replace(page.basket, rows=page.basket.rows[1:])
    window.workshop.shopping.show_list()
    again = page.due[[one.item for one in page.basket.rows].index(row.item)]
    assert again is not due
    assert again.text() == "2027-0"
    assert again.pending
