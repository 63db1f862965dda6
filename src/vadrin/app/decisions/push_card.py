"""The card of one push, that anyone can follow: what to set, shoot, develop and expect."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.decisions.darkroom_card import part_status, plain_card
from vadrin.app.descriptions import answers_itself
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import (
    minutes_range_text,
    minutes_text,
    push_name,
    shadow_detail_text,
)
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.expose.meter_words import dial_words
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.results.push_rows import RULE_NAMES
from vadrin.core.results.push import Push, PushRow, shadow_verdict
from vadrin.formats.reports.card import Card
from vadrin.notebook.store import Notebook

_SAME_CONTRAST = 0.03


def pushes_to_follow(state: State) -> tuple[str, ...]:
    """The pushes and pulls that have an EI and a time that was tested, by their names.

    None of a type that answers in its own words: what it says of pushes stands on its one card.
    """
    loaded, analysis = state.loaded, state.settled()
    if answers_itself(loaded.test.kind):
        return ()
    rule = loaded.test.push_rule
    known = (p for p in analysis.push if p.stops and p.exposure_index.present)
    return tuple(push_name(p.stops) for p in known if p.by(rule).time_min.present)


def _expected(push: Push, row: PushRow, normal: PushRow | None) -> str:
    """What the pictures will be like, in words."""
    lost, said = row.shadow_loss_stops.value, []
    if lost is not None and push.stops > 0:
        said.append(
            f"shadow detail: {shadow_detail_text(lost)}, {shadow_words(shadow_verdict(lost))}"
        )
    if push.stops < 0:
        said.append("fuller shadows and softer highlights")
    mine = row.average_gradient.value
    usual = normal.average_gradient.value if normal is not None else None
    if mine and usual and abs(mine / usual - 1) > _SAME_CONTRAST:
        said.append(f"contrast × {mine / usual:.2f}")
    if push.stops > 0:
        said.append("more grain")
    return ", ".join(said) or "as ever"


def push_card(notebook: Notebook, state: State, name: str) -> Card | None:
    """The card of a push; None where its time or EI is not known.

    Parameters
    ----------
    notebook : Notebook
        Knows how far the camera's dial goes.
    state : State
    name : str
        One of `pushes_to_follow`.
    """
    loaded, analysis = state.loaded, state.settled()
    rule = loaded.test.push_rule
    push = next((p for p in analysis.push if push_name(p.stops) == name), None)
    normal = next((p.by(rule) for p in analysis.push if p.stops == 0), None)
    if push is None or push.exposure_index.value is None:
        return None
    row, index = push.by(rule), push.exposure_index.value
    if row.time_min.value is None:
        return None
    beyond = dial_words(notebook, loaded, index)
    reach, minutes = minutes_range_text(row.time_min), minutes_text(row.time_min.value)
    steps = (
        (
            "1 Set",
            f"the meter to EI {marked_ei(index)} before the first frame"
            + (f"; {beyond}" if beyond else ""),
        ),
        ("2 Shoot", "the whole roll at this EI, metered as usual"),
        ("3 Mark", f"the roll “{name}, {minutes}” when it comes out of the camera"),
        (
            "4 Develop",
            f"{minutes} min at {reference_words(loaded)}" + (f" ({reach})" if reach else ""),
        ),
        ("5 Expect", _expected(push, row, normal)),
    )
    return replace(
        plain_card(loaded),
        status=part_status(loaded),
        says=f"{name[:1].upper()}{name[1:]}: EI {marked_ei(index)}",
        says_how=f"The time keeps the {RULE_NAMES[rule]}, by this film's own curves. "
        "Development cannot restore shadow that was not exposed.",
        steps=steps,
        basis="Unsure of the developer? Do a clip test first.",
    )
