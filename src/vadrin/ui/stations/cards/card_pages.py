"""The sides of a card: as pictures on the screen, and at true size on paper."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPixmap
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtPrintSupport import QPrintDialog, QPrinter
from PyQt6.QtWidgets import QWidget

_POINTS_AN_INCH = 72.0
_DOTS_AN_INCH = 600


class CardPages:
    """The sides of one card.

    Parameters
    ----------
    pdf : bytes
        As `card_document` gives it.
    """

    def __init__(self, pdf: bytes) -> None:
        self._document, self._buffer = QPdfDocument(None), QBuffer()
        self._buffer.setData(QByteArray(pdf))
        self._buffer.open(QIODevice.OpenModeFlag.ReadOnly)
        self._document.load(self._buffer)

    @property
    def count(self) -> int:
        """Number of sides."""
        return self._document.pageCount()

    def picture(self, side: int, size: QSize, red_only: bool) -> QPixmap:
        """A side, counted from 0, as it will print; in safelight it is red."""
        page = QPixmap(size)
        page.fill(Qt.GlobalColor.white)
        painter = QPainter(page)
        painter.drawImage(0, 0, self._document.render(side, size))
        if red_only:
            painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Multiply)
            painter.fillRect(page.rect(), QColor(140, 0, 0))
        painter.end()
        return page

    def print_on(self, printer: QPrinter) -> None:
        """Print every side at true size, in the upper left of its sheet."""
        painter = QPainter(printer)
        for side in range(self.count):
            if side:
                printer.newPage()
            points = self._document.pagePointSize(side)
            dots = printer.resolution() / _POINTS_AN_INCH
            size = QSize(round(points.width() * dots), round(points.height() * dots))
            painter.drawImage(
                QRectF(0, 0, size.width(), size.height()), self._document.render(side, size)
            )
        painter.end()

    def ask_and_print(self, parent: QWidget, printed: Callable[[], object]) -> None:
        """Ask for a printer by the platform's dialog; the window goes on while it is asked.

        Parameters
        ----------
        parent : QWidget
        printed : callable
            Called once every side went to the printer.
        """
        printer = QPrinter(QPrinter.PrinterMode.HighResolution)
        printer.setFullPage(True)
        printer.setResolution(_DOTS_AN_INCH)
        dialog = QPrintDialog(printer, parent)
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)

        def go() -> None:
            self.print_on(printer)
            printed()

        dialog.accepted.connect(go)
        dialog.open()
