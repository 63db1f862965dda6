"""Grids whose rows are made anew."""

from __future__ import annotations

from PyQt6.QtWidgets import QGridLayout


def empty_grid(grid: QGridLayout) -> None:
    """Let go of everything in a grid."""
    while grid.count():
        item = grid.takeAt(0)
        widget = item.widget() if item else None
        if widget:
            widget.hide()
            widget.deleteLater()
