"""The cards a test has: of its whole finding, of each push, of each film it compares."""

from __future__ import annotations

from vadrin.app.decisions.darkroom_card import card_of
from vadrin.app.decisions.estimated_beside import with_estimate
from vadrin.app.decisions.film_card import film_card, films_compared
from vadrin.app.decisions.push_card import push_card, pushes_to_follow
from vadrin.app.document.state import State
from vadrin.formats.reports.card import Card
from vadrin.notebook.store import Notebook

WHOLE_FINDING = "the whole finding"
"""The card that is shown unless another is asked for."""


def card_names(state: State | None) -> list[str]:
    """The cards there are, by what each is of."""
    if state is None or state.analysis is None:
        return [WHOLE_FINDING]
    films = films_compared(state)
    return [WHOLE_FINDING, *(films or pushes_to_follow(state))]


def card_named(notebook: Notebook, state: State, name: str) -> Card | None:
    """The card of a name; None where there is none yet."""
    if name == WHOLE_FINDING:
        card = card_of(state)
        # A decision keeps what stood on its card.
        return card if state.loaded.findings else with_estimate(notebook, state, card)
    if name in films_compared(state):
        return film_card(state, name)
    return push_card(notebook, state, name)
