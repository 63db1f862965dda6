"""The looks of the window: colours by what they mean, and the style sheet made of them."""

from __future__ import annotations

import gc
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from functools import lru_cache

from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QApplication, QProxyStyle, QStyle, QStyleOption, QWidget

_DIM_RED = "#2C0000"


@dataclass(frozen=True)
class Look:
    """Colours of one look, as hex texts, named by their use.

    `strips` runs from the shortest development to the longest. `red_only` looks draw film in
    reds instead of greys.
    """

    name: str
    ink: str
    soft: str
    desk: str
    sheet: str
    table: str
    rule: str
    grid: str
    grease: str
    done: str
    strips: tuple[str, str, str, str]
    film_base: str
    red_only: bool = False

    @property
    def main(self) -> str:
        """Ground of the main button; by the safelight a large one must not shine."""
        return _DIM_RED if self.red_only else self.ink

    @property
    def on_main(self) -> str:
        """Words on the main button."""
        return self.ink if self.red_only else self.desk

    def strip_colour(self, place: int, count: int) -> QColor:
        """Colour of one of several strips ordered by development time."""
        position = 1.0 if count < 2 else 3.0 * place / (count - 1)
        low = min(int(position), 2)
        part = position - low
        first, second = QColor(self.strips[low]), QColor(self.strips[low + 1])
        return QColor(
            round(first.red() + part * (second.red() - first.red())),
            round(first.green() + part * (second.green() - first.green())),
            round(first.blue() + part * (second.blue() - first.blue())),
        )

    def film_colour(self, density: float) -> QColor:
        """The grey a density has on a light table, through the display's transfer curve."""
        light = 10.0**-density
        level = 12.92 * light if light <= 0.0031308 else 1.055 * light ** (1 / 2.4) - 0.055
        shade = round(255 * max(0.0, min(1.0, level)))
        return QColor(shade, 0, 0) if self.red_only else QColor(shade, shade, round(shade * 0.98))

    def writing_on(self, background: QColor) -> QColor:
        """Black or white, or in a red-only look red or black: whichever can be read better."""
        return QColor.fromRgb(_writing_on(background.rgb(), self.red_only))

    def plate_under(self, words: QColor, background: QColor) -> QColor | None:
        """What words need under them to be read at all; None where the ground will do."""
        if not self.red_only or contrast(words, background) >= LEAST_CONTRAST:
            # On greys black or white is always enough.
            return None
        return QColor(0, 0, 0) if words.red() else QColor(255, 0, 0)


@lru_cache(maxsize=1024)
def _writing_on(ground: int, red_only: bool) -> int:
    light = QColor(255, 0, 0) if red_only else QColor(255, 255, 255)
    background = QColor.fromRgb(ground)
    return max(light, QColor(0, 0, 0), key=lambda c: contrast(c, background)).rgb()


LEAST_CONTRAST = 4.5
"""Ratio of luminances that words and their ground have at least.

Source: Web Content Accessibility Guidelines 2.1, level AA.
"""


def luminance(colour: QColor) -> float:
    """Relative luminance of a colour on a display, 0 to 1."""

    def linear(level: float) -> float:
        return level / 12.92 if level <= 0.03928 else ((level + 0.055) / 1.055) ** 2.4

    red, green, blue = (linear(c) for c in (colour.redF(), colour.greenF(), colour.blueF()))
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(one: QColor, other: QColor) -> float:
    """Ratio of the luminances of two colours, 1 to 21."""
    low, high = sorted((luminance(one), luminance(other)))
    return (high + 0.05) / (low + 0.05)


DAY = Look(
    "day",
    "#14212B",
    "#566773",
    "#F1F4F5",
    "#FFFFFF",
    "#FBFDFE",
    "#CBD6DB",
    "#DCE8EC",
    "#C21F3A",
    "#1F6F5C",
    ("#7BA7BC", "#3F7C94", "#1F5673", "#4A2F5E"),
    "#C9CFD1",
)
DIM = Look(
    "dim",
    "#DCE4EA",
    "#93A3AE",
    "#10181E",
    "#16222A",
    "#1B2930",
    "#2E3E48",
    "#24333C",
    "#FF5A6E",
    "#4FB394",
    ("#CFE3EC", "#93C3D6", "#5FA0BC", "#B08CCB"),
    "#34444E",
)
SAFELIGHT = Look(
    "safelight",
    "#FF0000",
    "#EE0000",
    "#000000",
    "#0A0000",
    "#060000",
    "#4A0000",
    "#300000",
    "#FF0000",
    "#EE0000",
    ("#FF0000", "#D00000", "#A60000", "#800000"),
    "#2A0000",
    True,
)
LOOKS = (DAY, DIM, SAFELIGHT)


class CaretStyle(QProxyStyle):
    """Hides the text caret in a red-only look: Qt draws it inverted, which would be cyan light.

    The field's underline shows where one types.
    """

    def __init__(self, look: Look) -> None:
        super().__init__("Fusion")
        self._look = look

    def pixelMetric(
        self,
        metric: QStyle.PixelMetric,
        option: QStyleOption | None = None,
        widget: QWidget | None = None,
    ) -> int:
        """No width for the caret where only red may shine."""
        if metric == QStyle.PixelMetric.PM_TextCursorWidth and self._look.red_only:
            return 0
        return super().pixelMetric(metric, option, widget)


@contextmanager
def no_clearing() -> Iterator[None]:
    """Python clears nothing away meanwhile.

    Where Qt goes through widgets and calls into Python on the way, garbage collected there would
    delete widgets that it still has before it, and the program with them.
    """
    collecting = gc.isenabled()
    gc.disable()
    try:
        yield
    finally:
        if collecting:
            gc.enable()


def dress(app: QApplication, sheet: str, style: QStyle | None = None) -> None:
    """Put a style sheet, and a style, on every widget there is.

    The sheet before is taken off first: over another one Qt takes three times as long.
    """
    with no_clearing():
        app.setStyleSheet("")
        if style is not None:
            app.setStyle(style)
        app.setStyleSheet(sheet)


def style_sheet(look: Look, px: dict[int, int]) -> str:
    """Qt style sheet of a look; `px` maps the type sizes at scale 1 to pixels."""
    return f"""
    QWidget {{ background: {look.desk}; color: {look.ink}; }}
    QLabel {{ background: transparent; }}
    QWidget#keys, QWidget#commands {{ background: {look.sheet}; border: 1px solid {look.rule}; }}
    QWidget#keys QWidget {{ background: {look.sheet}; }}
    QWidget#commands QListWidget {{ background: {look.sheet}; }}
    QWidget#commands QListWidget::item:selected {{ background: {look.desk}; }}
    QLabel[tone="soft"], FlowingSentence[tone="soft"] {{ color: {look.soft}; }}
    QLabel[tone="grease"], FlowingSentence[tone="grease"] {{ color: {look.grease}; }}
    QLabel[tone="done"], FlowingSentence[tone="done"] {{ color: {look.done}; }}
    QFrame[rule="true"] {{ background: {look.rule}; max-height: 1px; min-height: 1px; }}
    QLineEdit {{ placeholder-text-color: {look.soft}; background: {look.sheet}; border: 0;
        border-bottom: 1px solid {look.soft};
        padding: 2px 4px; selection-background-color: {look.ink};
        selection-color: {look.desk}; }}
    QLineEdit:focus {{ border-bottom: 2px solid {look.ink}; padding-bottom: 1px; }}
    QLineEdit[word="true"] {{ background: transparent; border-bottom: 2px solid {look.soft};
        padding: 0 1px; font-weight: 700; }}
    QLineEdit[word="true"]:focus {{ background: {look.sheet};
        border-bottom: 2px solid {look.ink}; }}
    QLineEdit[wrong="true"] {{ border-bottom: 2px solid {look.grease}; color: {look.grease}; }}
    QPushButton {{ background: transparent; color: {look.ink}; border: 1px solid {look.rule};
        border-radius: 3px; padding: 6px 12px; }}
    QPushButton:focus {{ border: 2px solid {look.soft}; padding: 5px 11px; }}
    QPushButton:hover {{ border-color: {look.soft}; }}
    QPushButton:disabled {{ color: {look.soft}; }}
    QPushButton[primary="true"] {{ background: {look.main}; color: {look.on_main};
        font-weight: 700; padding: 10px 14px; border-color: {look.ink}; }}
    QPushButton[primary="true"]:focus {{ border: 2px solid {look.done}; padding: 9px 13px; }}
    QPushButton[primary="true"]:disabled {{ background: {look.rule}; color: {look.soft};
        border-color: {look.rule}; }}
    QPushButton[link="true"] {{ border: 0; padding: 2px 0; color: {look.soft}; text-align: left; }}
    QPushButton[link="true"]:hover {{ color: {look.ink}; }}
    QPushButton[link="true"]:checked {{ color: {look.ink}; font-weight: 700; }}
    QPushButton[link="true"]:focus {{ color: {look.ink}; text-decoration: underline; }}
    QMenu {{ background: {look.sheet}; border: 1px solid {look.rule}; padding: 4px; }}
    QMenu::item {{ padding: 5px 18px; background: transparent; }}
    QMenu::item:selected {{ background: {look.ink}; color: {look.desk}; }}
    QMenu::item:disabled {{ color: {look.soft}; }}
    QScrollArea {{ border: 0; }}
    QScrollBar:vertical {{ width: 8px; background: {look.desk}; }}
    QScrollBar::handle:vertical {{ background: {look.rule}; min-height: 24px; }}
    QScrollBar:horizontal {{ height: 8px; background: {look.desk}; }}
    QScrollBar::handle:horizontal {{ background: {look.rule}; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollBar::add-page, QScrollBar::sub-page {{ background: {look.desk}; }}
    QPlainTextEdit {{ background: {look.sheet}; color: {look.ink}; border: 0; }}
    QAbstractScrollArea::corner {{ background: {look.desk}; border: 0; }}
    QListWidget, QListView {{ border: 0; background: {look.desk}; outline: 0; }}
    QListWidget::item {{ padding: 5px 8px; border-left: 4px solid {look.desk}; }}
    QListWidget::item:selected {{ background: {look.sheet}; color: {look.ink};
        border-left: 4px solid {look.grease}; }}
    QTableView {{ border: 0; background: {look.desk}; outline: 0;
        selection-background-color: {look.sheet}; selection-color: {look.ink}; }}
    QTableView::item {{ border-bottom: 1px solid {look.rule}; padding: 2px 6px; }}
    QTableView::item:selected {{ background: {look.sheet}; color: {look.ink};
        border-bottom: 2px solid {look.grease}; }}
    QHeaderView {{ background: {look.desk}; border: 0; }}
    QHeaderView::section {{ background: {look.desk}; color: {look.soft}; border: 0;
        border-bottom: 1px solid {look.rule}; padding: 4px 6px; font-size: {px[12]}px; }}
    QToolTip {{ background: {look.sheet}; color: {look.ink}; border: 1px solid {look.rule};
        font-size: {px[12]}px; }}
    """
