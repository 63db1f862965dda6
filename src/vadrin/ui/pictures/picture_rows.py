"""Pictures beside each other in rows: of an answer's own rows, or EI across and time down."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QSizePolicy, QWidget

from vadrin.app.pictures.beside_pictures import Shown
from vadrin.app.pictures.kept_pictures import Wanted
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.seen import lost_words
from vadrin.ui.jobs import Jobs
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_maker import Made, make_pictures
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.theme.look import Look
from vadrin.ui.theme.typeface import px


class PictureRows(QWidget):
    """Rows of pictures that are made beside the work.

    Parameters
    ----------
    jobs : Jobs
    key : str
        Of the work that makes them.
    lines : int
        Of words under each picture.
    """

    wanted_large = pyqtSignal(int)
    """The number of the picture that was clicked, counted over all rows."""

    def __init__(self, jobs: Jobs, key: str, lines: int = 2) -> None:
        super().__init__()
        self._jobs, self._key, self._lines = jobs, key, lines
        self._grid = QGridLayout(self)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(px(8))
        self._grid.setVerticalSpacing(px(6))
        self.tiles: list[PictureTile] = []
        self._count = self._columns = 0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Maximum)
        self._look: Look | None = None
        self._looking = Looking()

    def show_pictures(
        self, rows: tuple[Shown, ...], looking: Looking, paper: PaperUsed, look: Look, shrunk: int
    ) -> None:
        """Show rows of pictures."""
        self._look, self._looking = look, looking
        self._lay_out(rows)
        of = [each for row in rows for each in row]
        wanted = [Wanted(state, exposed, looking, paper, shrunk) for state, exposed in of]
        make_pictures(self._jobs, self._key, wanted, self._put_up)

    def _lay_out(self, rows: tuple[Shown, ...]) -> None:
        for tile in self.tiles:
            self._grid.removeWidget(tile)
            tile.hide()
            tile.deleteLater()
        self.tiles, self._count = [], len(rows)
        self._columns = max((len(row) for row in rows), default=0)
        for column in range(max(self._grid.columnCount(), self._columns) + 1):
            self._grid.setColumnStretch(column, int(column < self._columns))
        assert self._look is not None
        for row, pictures in enumerate(rows):
            for column, (_, exposed) in enumerate(pictures):
                tile = PictureTile(exposed, self._look, self._lines)
                tile.clicked.connect(partial(self.wanted_large.emit, len(self.tiles)))
                self._grid.addWidget(tile, row, column)
                self.tiles.append(tile)

    def fit(self, height: int) -> None:
        """Let all rows be seen in so much height, as long as they stay worth looking at."""
        rows = max(1, self._count)
        for column in range(self._columns):
            self._grid.setColumnStretch(column, 0)
        self._grid.setColumnStretch(self._columns, 1)
        for tile in self.tiles:
            tile.fit((height - (rows - 1) * self._grid.verticalSpacing()) // rows)

    def _put_up(self, made: Made) -> None:
        look = self._look
        if look is None:
            return
        for tile, picture in zip(self.tiles, made, strict=True):
            image = None if picture is None else image_of(picture, look, self._looking.marked)
            tile.show_image(image, "" if picture is None else lost_words(picture, self._looking))
