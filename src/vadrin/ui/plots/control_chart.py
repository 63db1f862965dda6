"""The chart of a process over its runs: a lane a figure, its limits, a mark a run."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy

from vadrin.app.process.control_strips import Lane
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.regional import write
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, role_font
from vadrin.ui.widgets.drawn import Drawn

_REACH = 2.2
"""How many limits a lane shows to each side."""
_MOST_RUNS = 40


class ControlChart(Drawn):
    """Lanes over runs; one beyond its limits is a cross, so that no colour is needed to see it."""

    def __init__(self) -> None:
        super().__init__()
        self.lanes: tuple[Lane, ...] = ()
        self.look: Look = DAY
        self.setAccessibleName("control chart")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def minimumSizeHint(self) -> QSize:
        """Room for three lanes."""
        return QSize(px(320), px(210))

    def show_lanes(self, lanes: tuple[Lane, ...], look: Look) -> None:
        """Show the figures of all runs."""
        self.lanes, self.look = lanes, look
        said = "; ".join(
            f"{lane.figure.value}: {', '.join(s.value for s in lane.standing[-_MOST_RUNS:])}"
            for lane in lanes
        )
        self.setAccessibleDescription(said or "no control strip yet")
        self.update()

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw the lanes."""
        if not self.lanes:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        high = self.height() / len(self.lanes)
        for place, lane in enumerate(self.lanes):
            self._draw_lane(painter, lane, QRectF(0, place * high, self.width(), high - px(6)))

    def _draw_lane(self, painter: QPainter, lane: Lane, room: QRectF) -> None:
        look, label = self.look, float(px(132))
        painter.setPen(QColor(look.ink))
        painter.setFont(role_font(Role.LABEL))
        write(
            painter,
            QRectF(0, room.top(), label, room.height() / 2),
            Qt.AlignmentFlag.AlignBottom,
            lane.figure.value,
        )
        painter.setPen(QColor(look.soft))
        painter.setFont(role_font(Role.CAPTION))
        aim = f"{lane.aim:.2f} ± {lane.limit:.2f}"
        below = QRectF(0, room.center().y(), label, room.height() / 2)
        write(painter, below, Qt.AlignmentFlag.AlignTop, aim)
        field = room.adjusted(label, 0, 0, 0)
        unit = field.height() / 2 / _REACH / lane.limit
        band = QRectF(
            field.left(),
            field.center().y() - lane.limit * unit,
            field.width(),
            2 * lane.limit * unit,
        )
        painter.fillRect(band, QColor(look.sheet))
        painter.setPen(QPen(QColor(look.rule), 1))
        painter.drawLine(
            QPointF(field.left(), field.center().y()), QPointF(field.right(), field.center().y())
        )
        self._draw_runs(painter, lane, field, unit)

    def _draw_runs(self, painter: QPainter, lane: Lane, field: QRectF, unit: float) -> None:
        values, standing = lane.values[-_MOST_RUNS:], lane.standing[-_MOST_RUNS:]
        apart = field.width() / max(len(values), 8)
        points = [
            QPointF(
                field.left() + (i + 0.5) * apart,
                min(
                    max(field.center().y() - (v - lane.aim) * unit, field.top() + px(5)),
                    field.bottom() - px(5),
                ),
            )
            for i, v in enumerate(values)
        ]
        painter.setPen(QPen(QColor(self.look.soft), 1))
        painter.drawPolyline(QPolygonF(points))
        size = px(4)
        for point, how in zip(points, standing, strict=True):
            if how.value == "outside limits":
                painter.setPen(QPen(QColor(self.look.trouble), 3))
                for way in (1, -1):
                    painter.drawLine(
                        point + QPointF(-size, -way * size), point + QPointF(size, way * size)
                    )
                continue
            painter.setPen(QPen(QColor(self.look.ink), 2))
            filled = how.value != "reference"
            painter.setBrush(QColor(self.look.ink if filled else self.look.desk))
            if how.value == "drifting":
                painter.drawRect(QRectF(point.x() - size, point.y() - size, 2 * size, 2 * size))
            else:
                painter.drawEllipse(point, size, size)
