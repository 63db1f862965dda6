"""The cards a test has: of its whole finding, of each push, of each film it compares."""

from __future__ import annotations

from vadrin.app.cards.film_card import film_card, films_compared
from vadrin.app.cards.push_card import push_card, pushes_to_follow
from vadrin.app.kinds import page_of
from vadrin.app.test_sheet import TestSheet
from vadrin.core.results.analysis import Analysis
from vadrin.formats.reports.card_pdf import Card
from vadrin.notebook.store import Notebook

WHOLE_FINDING = "the whole finding"
"""The card that is shown unless another is asked for."""


def card_names(sheet: TestSheet | None, analysis: Analysis | None) -> list[str]:
    """The cards there are, by what each is of."""
    if sheet is None or analysis is None:
        return [WHOLE_FINDING]
    films = films_compared(sheet, analysis)
    return [WHOLE_FINDING, *(films or pushes_to_follow(sheet, analysis))]


def card_named(notebook: Notebook, sheet: TestSheet, analysis: Analysis, name: str) -> Card | None:
    """The card of a name; None where there is none yet."""
    if name == WHOLE_FINDING:
        return page_of(sheet.test.kind).card(sheet, analysis)
    if name in films_compared(sheet, analysis):
        return film_card(sheet, analysis, name)
    return push_card(notebook, sheet, analysis, name)
