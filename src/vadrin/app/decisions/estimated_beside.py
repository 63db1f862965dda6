"""What other tests tell of a film, on its card and in its report: said to be no measurement."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from vadrin.app.document.state import State
from vadrin.app.learning.estimated_time import ESTIMATED, estimate_of
from vadrin.formats.reports.card import Card
from vadrin.notebook.store import Notebook


def with_estimate(notebook: Notebook, state: State, card: Card | None) -> Card | None:
    """A card with what others tell of a film whose own strips tell no time."""
    told = estimate_of(notebook, state)
    if card is None or isinstance(told, str):
        return card
    return replace(card, mind=(*card.mind, f"{ESTIMATED}. {' '.join(told.lines)}"))


def estimated_report(notebook: Notebook, state: State) -> dict[str, Any]:
    """The estimate for a report, under a key of its own; empty where there is none."""
    told = estimate_of(notebook, state)
    return {} if isinstance(told, str) else {"estimated": told.report()}
