"""A plot as a picture: copied, or written as SVG, PDF or PNG, as it is seen now."""

from __future__ import annotations

import base64
import re
from importlib.resources import files

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QMarginsF, QRectF, QSize, QSizeF
from PyQt6.QtGui import QGuiApplication, QImage, QPageSize, QPainter, QPdfWriter
from PyQt6.QtSvg import QSvgGenerator
from PyQt6.QtWidgets import QGraphicsView, QWidget

from vadrin.errors import EntryError
from vadrin.ui.theme.typeface import FAMILIES

SUFFIXES = (".svg", ".pdf", ".png")
_FINER = 3
"""Pixels of a picture for each on the screen."""
_DOTS_AN_INCH, _POINTS_AN_INCH = 96, 72
_FONT = "AtkinsonHyperlegibleNext-{}.ttf"
_WEIGHTS = (400, 500, 700)


def plot_of(page: QWidget) -> QGraphicsView | None:
    """The largest plot that is seen of a page; None where it shows none."""
    seen = [view for view in page.findChildren(QGraphicsView) if view.isVisible()]
    return max(seen, key=lambda view: view.width() * view.height(), default=None)


def copy_plot(view: QGraphicsView) -> None:
    """Put a plot on the clipboard as a picture."""
    clipboard = QGuiApplication.clipboard()
    if clipboard is not None:
        clipboard.setImage(_image(view))


def plot_bytes(view: QGraphicsView, suffix: str, title: str) -> bytes:
    """A plot as a file holds it.

    Parameters
    ----------
    view : QGraphicsView
    suffix : str
        One of `SUFFIXES`. Lines stay lines in the first two, and the typeface goes with them.
    title : str

    Raises
    ------
    EntryError
        For any other ending.
    """
    kind = suffix.lower()
    if kind not in SUFFIXES:
        raise EntryError(f"end the name in one of {', '.join(SUFFIXES)}")
    held = QByteArray()
    buffer = QBuffer(held)
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    if kind == ".svg":
        _draw_svg(view, buffer, title)
    elif kind == ".pdf":
        _draw_pdf(view, buffer, title)
    else:
        _image(view).save(buffer, "PNG")
    buffer.close()
    made = held.data()
    return _with_typeface(made) if kind == ".svg" else made


def _drawn(view: QGraphicsView, painter: QPainter, wide: float, high: float) -> None:
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    port = view.viewport()
    _as_lines(view, True, painter)
    try:
        view.render(painter, QRectF(0, 0, wide, high), port.rect() if port else view.rect())
    finally:
        _as_lines(view, False, painter)
        painter.end()


def _as_lines(view: QGraphicsView, wanted: bool, painter: QPainter) -> None:
    """Let a plot draw its marks as lines, not as the small pictures that a screen is served by."""
    for item in view.items():
        turn = getattr(item, "setExportMode", None)
        if turn is not None:
            turn(wanted, {"antialias": True, "background": None, "painter": painter})


def _image(view: QGraphicsView) -> QImage:
    size = view.size() * _FINER
    image = QImage(size, QImage.Format.Format_RGB32)
    _drawn(view, QPainter(image), size.width(), size.height())
    return image


def _draw_svg(view: QGraphicsView, buffer: QBuffer, title: str) -> None:
    made = QSvgGenerator()
    made.setOutputDevice(buffer)
    made.setSize(QSize(view.width(), view.height()))
    made.setViewBox(QRectF(0, 0, view.width(), view.height()))
    made.setTitle(title)
    made.setResolution(_DOTS_AN_INCH)
    _drawn(view, QPainter(made), view.width(), view.height())


def _with_typeface(svg: bytes) -> bytes:
    """The drawing with its typeface in it, so that it looks alike where that is not installed."""
    used = {int(weight) for weight in re.findall(rb'font-weight="(\d+)"', svg)}
    kept = {min(_WEIGHTS, key=lambda w: abs(w - weight)) for weight in used or {400}}
    style = "".join(f"<style>{_face(weight)}</style>\n" for weight in sorted(kept))
    return svg.replace(b"<defs>", f"{style}<defs>".encode(), 1)


def _face(weight: int) -> str:
    font = (files("vadrin") / "fonts" / _FONT.format(weight)).read_bytes()
    return (
        f"@font-face {{font-family: '{FAMILIES[0]}'; font-weight: {weight}; "
        f"src: url(data:font/ttf;base64,{base64.b64encode(font).decode()})}}"
    )


def _draw_pdf(view: QGraphicsView, buffer: QBuffer, title: str) -> None:
    made = QPdfWriter(buffer)
    points = _POINTS_AN_INCH / _DOTS_AN_INCH
    size = QSizeF(view.width() * points, view.height() * points)
    made.setPageSize(QPageSize(size, QPageSize.Unit.Point))
    made.setPageMargins(QMarginsF())
    made.setResolution(_DOTS_AN_INCH)
    made.setTitle(title)
    made.setCreator("Vadrin")
    _drawn(view, QPainter(made), made.width(), made.height())
