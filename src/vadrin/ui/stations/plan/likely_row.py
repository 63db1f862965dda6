"""A row of pictures under a plan: what it is likely to lead to, and how far that may be off."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.seen import Seen, seen_on
from vadrin.app.plan.likely_pictures import LikelyPicture
from vadrin.core.pictures.printing_paper import typical_paper
from vadrin.ui.jobs import Jobs, Said
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.typeface import px

_SMALL = 8
_WIDE = 190


class LikelyRow(QWidget):
    """Shows nothing until something is foretold."""

    def __init__(self, jobs: Jobs) -> None:
        super().__init__()
        self._jobs, self._look = jobs, DAY
        self.tiles: list[PictureTile] = []
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(px(8))
        self._row.addStretch(1)
        self.hide()

    def show_pictures(self, pictures: tuple[LikelyPicture, ...], look: Look) -> None:
        """Show what a plan is likely to lead to."""
        self._look = look
        for tile in self.tiles:
            self._row.removeWidget(tile)
            tile.hide()
            tile.deleteLater()
        self.tiles = [PictureTile(each.exposed, look, lines=1) for each in pictures]
        for place, tile in enumerate(self.tiles):
            tile.setMaximumWidth(px(_WIDE))
            self._row.insertWidget(place, tile, 1)
        self.setVisible(bool(pictures))
        self._jobs.cancel("likely pictures")
        if pictures:
            paper = PaperUsed(typical_paper(), "")

            def work(_said: Said) -> list[Seen]:
                return [seen_on(each.film, Looking(), paper, _SMALL) for each in pictures]

            self._jobs.run("likely pictures", work, self._put_up)

    def _put_up(self, made: list[Seen]) -> None:
        for tile, picture in zip(self.tiles, made, strict=True):
            tile.show_image(image_of(picture, self._look, marked=False), "")
