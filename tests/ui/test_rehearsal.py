"""A whole build at the desk: every step done, every hold point read by simulated instruments, then *as built*."""

from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from tests.shop.instruments.standing import Standing
from tests.ui.conftest import settle
from tests.ui.driving import TUBE
from unterbau.ui.shell.late_stations import BUILD
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.stations.build.station import BuildStation
from unterbau.ui.widgets.instrument_box import HAND, REHEARSED


def answered(station: BuildStation, qtbot: QtBot) -> None:
    qtbot.waitUntil(
        lambda: not station.plans.busy and not station.lessons.busy and station.list.count() > 0, timeout=60_000
    )


def read(station: BuildStation, qtbot: QtBot, button: object) -> None:
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: not station.bench.instrument.asker.busy, timeout=30_000)


def test_a_build_is_rehearsed_from_the_first_step_to_the_machine_as_built(window: MainWindow, qtbot: QtBot) -> None:
    window.selection.choose_candidate(TUBE)
    window.show_station(BUILD)
    station = window.build
    answered(station, qtbot)
    bench = station.bench
    assert not bench.read.isEnabled()
    bench.instrument.choose(REHEARSED)
    assert bench.read.isEnabled()
    assert station.revealed.isVisible()
    _every_step(station, qtbot)
    _every_test(station, qtbot)
    count = len(window.document.project.candidates)
    qtbot.mouseClick(station.built, Qt.MouseButton.LeftButton)
    assert len(window.document.project.candidates) == count + 1
    assert window.selection.candidate.endswith("as built")
    _over_a_serial_port(station, qtbot)
    bench.instrument.choose(HAND)
    assert not station.revealed.isVisible()
    window.document.stack.setIndex(0)
    window.show_station(1)
    settle(window, qtbot)


def _every_step(station: BuildStation, qtbot: QtBot) -> None:
    bench, steps, held = station.bench, [one.id for one in station._steps], 0
    for name in steps:
        station.choose(name)
        step = next(one for one in station._steps if one.id == name)
        if step.hold is not None:
            read(station, qtbot, bench.read)
            assert bench.result.text().split(":")[0] in ("within", "not within", "cannot tell"), name
            assert bench.drawn.accessibleName().count(":")
            held += 1
        qtbot.mouseClick(bench.done, Qt.MouseButton.LeftButton)
        if bench.reason.isVisible():  # of simulated instruments, or outside its limit
            qtbot.keyClicks(bench.reason, "rehearsed")
            qtbot.mouseClick(bench.done, Qt.MouseButton.LeftButton)
    answered(station, qtbot)
    done = station._document.project.shop.done
    assert [one.step for one in done] == steps
    assert sum(one.uncertainty > 0.0 for one in done) == held > 8
    assert station.summary.text().startswith(f"{len(steps)} of {len(steps)} done")


def _every_test(station: BuildStation, qtbot: QtBot) -> None:
    row = station.tests
    for sort in ("push X", "push Y", "push Z", "tap X", "weigh X"):
        row.sort.show_value(sort)
        read(station, qtbot, row.read)
        assert row.problem.text() == "", sort
    answered(station, qtbot)
    tests = station._document.project.shop.tests
    assert [one.sort for one in tests] == ["push", "push", "push", "tap", "weigh"]
    assert tests[0].play > 0.0
    assert station.built.isEnabled()
    read(station, qtbot, station.revealed)
    assert station.taught.text().startswith("hidden were: ")


def _over_a_serial_port(station: BuildStation, qtbot: QtBot) -> None:
    """One reading after another from an instrument; one of another sort is refused."""
    bench, stands = station.bench, Standing(b"+0.0120 mm\n", b"dial: 31 um\n", b"12.5 kg\n")
    told: list[str] = []
    station.trouble.connect(told.append)
    try:
        bench.instrument.add_port(stands.port)
        bench.instrument.choose(stands.port)
        station.choose("rail-y_guides-2")
        bench.line.clear()
        for _ in range(3):
            read(station, qtbot, bench.read)
        assert bench.line.text() == "12.0 31.0"
        assert told == ["the instrument sent a mass; expected a length here"]
    finally:
        stands.close()
