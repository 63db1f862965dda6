"""Terms explained where they stand: those of the field that has the keyboard, else the page's."""

from __future__ import annotations

from PyQt6.QtWidgets import QApplication, QLabel, QLineEdit, QWidget

from vadrin.app.overview.guide import explained
from vadrin.ui.widgets.banner import Banner
from vadrin.ui.widgets.sentence import FlowingSentence

_MOST = 8
NO_TERMS = "No term of the field stands here: Shift+F1 opens the guide."


def explain_words(station: QWidget, banner: Banner) -> None:
    """Explain the terms of the field one is at and of its sentence; of all the page without."""
    near, sentence = _at_the_keyboard()
    met = explained(near) or explained(sentence) or explained(_on(station))
    if not met:
        banner.tell(NO_TERMS, "")
        return
    banner.tell("The words here", "\n".join(term.said for term in met[:_MOST]))


def _at_the_keyboard() -> tuple[str, str]:
    """The name of the field that has the keyboard with what stands in it; and its sentence."""
    held = QApplication.focusWidget()
    if not isinstance(held, QLineEdit):
        return "", ""
    around = held.parentWidget()
    sentence = around.whole() if isinstance(around, FlowingSentence) else ""
    return f"{held.accessibleName()} {held.text()}", sentence


def _on(station: QWidget) -> str:
    """All words a station shows."""
    sentences = [p.whole() for p in station.findChildren(FlowingSentence) if p.isVisible()]
    return " ".join(
        [*sentences, *(p.text() for p in station.findChildren(QLabel) if p.isVisible())]
    )
