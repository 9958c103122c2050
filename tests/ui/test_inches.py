"""Those who think in inches read and type inches, pounds and pounds-force everywhere."""

import re
from typing import Any

import pytest
from PyQt6.QtWidgets import QAbstractButton, QLabel, QLineEdit, QWidget
from pytestqt.qtbot import QtBot

from tests.ui.conftest import settle
from tests.ui.driving import machine_of, number, type_into
from unterbau.catalogue.prices import shipped_prices
from unterbau.machine.machine import links
from unterbau.studies.budget import budget
from unterbau.ui.shell.late_stations import WORKSHOP
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.machine.lenses import LENSES
from unterbau.ui.stations.workshop.station import VIEWS
from unterbau.ui.widgets.quantity_field import QuantityField

METRIC = re.compile(r"\d (?:N|kN|kg|µm|mm|N/µm|N·m|kN·m\S*|GPa|MN\S*|cm\S*)(?![\w/·])|(?<!\w)N/µm|(?<!\w)kg(?!\w)")
NAMED = re.compile(r"[“\"].*?[”\"]|\d+ ?× ?\d+[^;]*|Source: .*")
"""Names of sections, blocks and candidates are metric as they are sold; sources say it as they do."""


def metric(window: QWidget) -> list[str]:
    """Return texts with metric units on what is seen."""
    seen: list[Any] = [w for sort in (QLabel, QAbstractButton, QLineEdit) for w in window.findChildren(sort)]
    texts = [text for one in seen if one.isVisible() for text in (one.text(), one.toolTip())]
    return [text for text in texts if METRIC.search(NAMED.sub("", text))]


def test_no_metric_unit_is_left_on_the_screen(window: MainWindow, qtbot: QtBot) -> None:
    stiff = number(window, 1)
    window.machine.candidates.told.emit("Started in the brief's size: travel X 910 mm.")
    assert window.notice.isVisible()
    window.view.set_units("inch")
    assert not window.notice.isVisible()
    window.say("The file could not be written.")
    window.view.set_units("mm")
    window.view.set_units("inch")
    assert window.notice.isVisible(), "what went wrong stays"
    window.notice.clear()
    settle(window, qtbot)
    assert number(window, 1) == pytest.approx(stiff * 5.710147, rel=1e-6)
    for lens in LENSES:
        window.machine.view.use_lens(lens)
        qtbot.waitUntil(lambda: not any(one.busy for one in window.machine.view.behind.askers), timeout=20_000)
        window.machine.view.draw_now()
        assert not metric(window), lens
    for link in links(machine_of(window)):
        window.machine.choose_link(link.key)
        assert not metric(window), link.key
        window.machine.show_why()
        assert not metric(window), f"why {link.key}"
    for station in (0, 2):
        window.show_station(station)
        assert not metric(window), station
    window.show_station(WORKSHOP)
    for view in VIEWS:
        window.workshop.show_view(view)
        qtbot.waitUntil(lambda: not window.workshop.plans.busy, timeout=20_000)
        assert not metric(window), view


def test_forces_and_torques_are_typed_in_pounds(window: MainWindow, qtbot: QtBot) -> None:
    window.view.set_units("inch")
    type_into(qtbot, window.machine.load_path.load.edit, "20")
    assert window.selection.load == pytest.approx(20 * 4.4482216)
    assert window.machine.load_path.load.edit.text() == "20 lbf"
    window.machine.choose_link("spindle")
    torque = window.machine.bench.form.controls["torque"]
    assert isinstance(torque, QuantityField)
    type_into(qtbot, torque.edit, "2")
    assert machine_of(window).spindle.torque == pytest.approx(2 * 1.3558179)
    assert torque.edit.text() == "2 lbf·ft"
    type_into(qtbot, torque.edit, "3 N·m")
    assert machine_of(window).spindle.torque == pytest.approx(3.0)


def test_findings_are_told_in_pounds(window: MainWindow) -> None:
    project = window.document.project
    words = [one.words for one in budget(machine_of(window), project.brief, shipped_prices(), "inch").conflicts]
    assert not [one for one in words if METRIC.search(NAMED.sub("", one))]
