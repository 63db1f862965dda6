"""A file that is kept with a test, seen over the window: a picture, or text."""

from __future__ import annotations

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QSize, Qt
from PyQt6.QtGui import QImageReader, QKeyEvent, QPixmap
from PyQt6.QtWidgets import QFrame, QPlainTextEdit, QStackedWidget, QVBoxLayout, QWidget

from vadrin.app.library.notebook_exchange import KeptFile, seen_as_text
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.overlay import Overlay

_MOST_MEGABYTES = 128


class AttachmentView(Overlay):
    """A sheet over the window with what a file holds; Esc closes it."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        column = QVBoxLayout(self)
        column.setContentsMargins(px(24), px(18), px(24), px(18))
        self._title = text("", Role.SUBHEADING)
        self.picture = text("", Role.LEAD, wrap=True)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.words = QPlainTextEdit()
        self.words.setFrameShape(QFrame.Shape.NoFrame)
        self.words.setReadOnly(True)
        self.words.setAccessibleName("text of the kept file")
        self._pages = QStackedWidget()
        self._pages.addWidget(self.picture)
        self._pages.addWidget(self.words)
        for part in (self._title, self._pages, text("Esc closes this.", Role.CAPTION)):
            column.addWidget(part)
        self._before: QWidget | None = None
        self.hide()

    def show_file(self, kept: KeptFile) -> None:
        """Show what a file holds, or say that this program shows no such thing."""
        parent = self.parentWidget()
        if parent is not None:
            edge = px(20)
            self.setGeometry(parent.rect().adjusted(edge, edge, -edge, -edge))
            self._before = parent.focusWidget()
        self._title.setText(kept.name)
        self.setAccessibleName(f"kept file {kept.name}")
        words = seen_as_text(kept)
        if words is None:
            self._show_picture(kept)
        else:
            self.words.setPlainText(words)
        self._pages.setCurrentIndex(0 if words is None else 1)
        self.show()
        self.raise_()
        self.setFocus()

    def _show_picture(self, kept: KeptFile) -> None:
        data = QByteArray(kept.data)
        buffer = QBuffer(data)
        buffer.open(QIODevice.OpenModeFlag.ReadOnly)
        reader = QImageReader(buffer)
        # The file comes from anywhere: a header that asks for more memory is not followed.
        QImageReader.setAllocationLimit(_MOST_MEGABYTES)
        room = self.size() - QSize(px(60), px(110))
        size = reader.size()
        if size.isValid():
            reader.setScaledSize(size.scaled(room, Qt.AspectRatioMode.KeepAspectRatio))
        image = reader.read()
        if image.isNull():
            self.picture.setPixmap(QPixmap())
            self.picture.setText(
                f"{kept.name} is no picture or text this program can show. Save it from the File "
                "menu, and open it with the program it is for."
            )
            return
        self.picture.setPixmap(QPixmap.fromImage(image))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Esc closes it and gives the keyboard back."""
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.hide()
            if self._before is not None:
                self._before.setFocus()
        else:
            super().keyPressEvent(event)
