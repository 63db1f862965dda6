"""A card goes to a printer side by side at true size; the window goes on while it is asked."""

import pytest
from PyQt6.QtCore import QMarginsF, QSizeF, Qt
from PyQt6.QtGui import QPageLayout, QPageSize
from PyQt6.QtPrintSupport import QPrintDialog, QPrinter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from tests.window.pages import CTRL, pdf_words
from vadrin.formats.reports.card import Card
from vadrin.formats.reports.card_pdf import card_pdf
from vadrin.ui.stations.cards.card_pages import CardPages

ROWS = tuple(
    (f"strip {n}", f"EI {25 * n}", "8:00 min at 20 °C, as it was noted") for n in range(30)
)


@pytest.mark.parametrize(("lines", "sides"), [((), 1), ((("", "EI", "Develop"), *ROWS), 2)])
def test_every_side_is_printed(qtbot, tmp_path, lines, sides):
    card = Card(
        "Merrow Pan 125",
        "Sable 1+1",
        "at 20 °C",
        "",
        "not decided",
        "Care.",
        says="EI 80",
        lines=lines,
    )
    pages = CardPages(card_pdf(card))
    assert pages.count == sides
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setResolution(150)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    paper = QPageSize(QSizeF(148, 105), QPageSize.Unit.Millimeter)
    printer.setPageLayout(QPageLayout(paper, QPageLayout.Orientation.Portrait, QMarginsF()))
    pages.print_on(printer)
    assert pdf_words(tmp_path / "printed.pdf")[0] == sides


def test_the_window_goes_on_while_a_printer_is_asked_for(qtbot, demo):
    window = demo("Merrow Pan 125", "cards")
    QTest.keyClick(window, Qt.Key.Key_P, CTRL)
    QApplication.processEvents()
    (dialog,) = window.station().findChildren(QPrintDialog)
    assert dialog.isVisible()
    dialog.reject()
    QApplication.processEvents()
    assert "printer" not in window.station()._saved.text()
