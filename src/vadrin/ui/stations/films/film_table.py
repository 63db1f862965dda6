"""Films as a table: a line each, its curve over the reference's."""

from __future__ import annotations

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QObject, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QStyledItemDelegate, QStyleOptionViewItem

from vadrin.app.display.region import local
from vadrin.app.shelf.film_comparison import CURVE, HEADS, ComparedFilm, cells_of
from vadrin.ui.stations.films.curve_tile import draw_curves
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.item_views import draw_cell_ground

_ROW = 46


class FilmTable(QAbstractTableModel):
    """The films in their order, and the reference they stand beside."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.films: tuple[ComparedFilm, ...] = ()
        self.reference: ComparedFilm | None = None

    def show_films(self, films: tuple[ComparedFilm, ...], reference: ComparedFilm | None) -> None:
        """Show films in the order they come."""
        self.beginResetModel()
        self.films, self.reference = films, reference
        self.endResetModel()

    def rowCount(self, parent: QModelIndex | None = None) -> int:
        """A row a film."""
        return 0 if parent is not None and parent.isValid() else len(self.films)

    def columnCount(self, parent: QModelIndex | None = None) -> int:
        """A column a figure."""
        return 0 if parent is not None and parent.isValid() else len(HEADS)

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = 0) -> object:
        """The name of a column."""
        if role == Qt.ItemDataRole.DisplayRole and orientation == Qt.Orientation.Horizontal:
            return HEADS[section]
        return None

    def data(self, index: QModelIndex, role: int = 0) -> object:
        """What stands in a cell, in words."""
        film = self.films[index.row()]
        if role == Qt.ItemDataRole.FontRole:
            mine = self.reference is not None and film.key == self.reference.key
            return role_font(Role.BODY, bold=mine or index.column() == 0)
        words = (Qt.ItemDataRole.DisplayRole, Qt.ItemDataRole.AccessibleTextRole)
        return local(cells_of(film, self.reference)[index.column()]) if role in words else None


class CurveCell(QStyledItemDelegate):
    """Draws a film's curve over the reference's."""

    def __init__(self, table: FilmTable) -> None:
        super().__init__(table)
        self.look: Look = DAY
        self._table = table

    def sizeHint(self, _option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """Room for a curve."""
        wide = px(110) if index.column() == CURVE else px(60)
        return QSize(wide, px(_ROW))

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Draw the curves."""
        if painter is None:
            return
        draw_cell_ground(painter, option)
        film, reference = self._table.films[index.row()], self._table.reference
        box = QRectF(option.rect).adjusted(px(4), px(4), -px(4), -px(4))
        draw_curves(painter, box, film.curve, reference.curve if reference else (), self.look)
