"""The price book: edited by hand, added to, taken from CSV, taken back; money follows at once."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtTest import QAbstractItemModelTester
from PyQt6.QtWidgets import QApplication, QFileDialog, QLineEdit
from pytestqt.qtbot import QtBot

from tests.ui.driving import CTRL, machine_of
from unterbau.catalogue.prices import shipped_prices
from unterbau.files.prices_csv import read_prices
from unterbau.machine.machine import cost_of
from unterbau.ui.shell.main_window import MainWindow
from unterbau.ui.shell.price_window import PriceWindow
from unterbau.ui.shell.prices_model import ORIGIN, PER, PRICE, WHAT, PricesModel


@pytest.fixture
def book(window: MainWindow, qtbot: QtBot) -> PriceWindow:
    qtbot.keyClick(window, Qt.Key.Key_P, CTRL)
    qtbot.waitUntil(window.prices.isActiveWindow, timeout=5000)
    return window.prices


def row_of(book: PriceWindow, words: str) -> int:
    model = book.table.model()
    assert model is not None
    return next(n for n in range(model.rowCount()) if words in str(model.index(n, WHAT).data()))


def money(window: MainWindow) -> float:
    return cost_of(machine_of(window), window.document.project.prices).money


def typed_into_cell(book: PriceWindow, qtbot: QtBot, row: int, column: int, text: str) -> None:
    model = book.table.model()
    assert model is not None
    book.table.setCurrentIndex(model.index(row, column))
    book.table.edit(model.index(row, column))
    ground = book.table.viewport()
    editor = ground.findChild(QLineEdit) if ground else None
    assert isinstance(editor, QLineEdit)
    editor.selectAll()
    qtbot.keyClicks(editor, text)
    qtbot.keyClick(editor, Qt.Key.Key_Return)
    QApplication.processEvents()  # Qt commits an editor's text from its queue
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def test_a_price_is_typed_and_the_money_follows(window: MainWindow, book: PriceWindow, qtbot: QtBot) -> None:
    model = book.table.model()
    assert model is not None
    row = row_of(book, "slotted profile")
    before, book_before = money(window), window.document.project.prices
    assert model.index(row, ORIGIN).data() == "invented, to start from"
    typed_into_cell(book, qtbot, row, PRICE, "99")
    assert model.index(row, PRICE).data() == "99"
    assert model.index(row, ORIGIN).data() == "yours"
    assert money(window) > before
    typed_into_cell(book, qtbot, row, PRICE, "2 cows")
    assert "expected" in book.message.text()
    assert model.index(row, PRICE).data() == "99"
    assert model.setData(model.index(row, PER), "piece")
    assert not model.setData(model.index(row, PER), "dozen")
    assert "metre" in book.message.text()
    qtbot.keyClick(book, Qt.Key.Key_Z, CTRL)
    qtbot.keyClick(book, Qt.Key.Key_Z, CTRL)
    assert money(window) == before
    assert window.document.project.prices is book_before


def test_lines_are_added_found_and_removed(window: MainWindow, book: PriceWindow, qtbot: QtBot) -> None:
    before, count = money(window), len(window.document.project.prices.prices)
    book.item.setEditText("paint and rollers")
    book.per.setCurrentText("fixed")
    qtbot.keyClicks(book.amount, "47.5")
    qtbot.keyClick(book.amount, Qt.Key.Key_Return)
    assert money(window) == pytest.approx(before + 47.5)
    qtbot.keyClicks(book.search, "rollers")
    model = book.table.model()
    assert model is not None
    assert model.rowCount() == 1
    book.table.selectRow(0)
    qtbot.mouseClick(book.remove, Qt.MouseButton.LeftButton)
    assert money(window) == before
    assert len(window.document.project.prices.prices) == count
    book.search.clear()
    book.item.setEditText("nothing")
    qtbot.keyClicks(book.amount, "much")
    qtbot.mouseClick(book.add, Qt.MouseButton.LeftButton)
    assert book.message.text().startswith("the price: expected")


def test_currency_and_date(window: MainWindow, book: PriceWindow, qtbot: QtBot) -> None:
    book.currency.setText("CHF")
    qtbot.keyClick(book.currency, Qt.Key.Key_Return)
    window.machine.choose_link("gantry_beam")
    assert "CHF" in window.machine.bench.money.text()
    book.currency.setText("far too long a name")
    qtbot.keyClick(book.currency, Qt.Key.Key_Return)
    assert "1 to 8 letters" in book.message.text()
    assert book.currency.text() == "CHF"
    assert window.document.project.prices.currency == "CHF"
    qtbot.waitUntil(book.isActiveWindow, timeout=5000)
    qtbot.keyClick(book, Qt.Key.Key_Escape)
    qtbot.waitUntil(lambda: not book.isVisible(), timeout=3000)


def test_prices_go_out_and_come_back_as_csv(
    window: MainWindow, book: PriceWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    target = tmp_path / "shop"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    qtbot.mouseClick(book.store, Qt.MouseButton.LeftButton)
    path = target.with_suffix(".csv")
    assert read_prices(path) == window.document.project.prices
    path.write_text(path.read_text(encoding="utf-8").replace("EUR", "SEK"), encoding="utf-8")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    qtbot.mouseClick(book.load, Qt.MouseButton.LeftButton)
    assert window.document.project.prices.currency == "SEK"
    path.write_text("item;price\nwhat;ever\n", encoding="utf-8")
    kept = window.document.project.prices
    assert not book.load_from(path)
    assert "shop.csv" in book.message.text()
    assert window.document.project.prices is kept
    assert not book.store_to(tmp_path / "none" / "x.csv")
    assert "was not written" in book.message.text()
    qtbot.mouseClick(book.reset, Qt.MouseButton.LeftButton)
    assert window.document.project.prices == shipped_prices()


def test_the_model_keeps_qts_rules(qtbot: QtBot) -> None:
    model = PricesModel(shipped_prices())
    tester = QAbstractItemModelTester(model, QAbstractItemModelTester.FailureReportingMode.Fatal)
    model.show_book(model.without({0, 3}))
    model.show_book(shipped_prices())
    assert model.rowCount() == len(shipped_prices().prices)
    assert model.headerData(PRICE, Qt.Orientation.Horizontal) == "price EUR"
    del tester
