"""A card for each film or bath of a comparison: its own EI and time, beside the reference's."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.decisions.darkroom_card import part_status, plain_card
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import ei_range_text, minutes_range_text, minutes_text
from vadrin.app.document.state import State
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.loaded_test import LoadedStrip
from vadrin.app.results.working_steps import develop_step, set_step
from vadrin.core.planning.test_types import type_of
from vadrin.formats.reports.card import Card

_SAME_SHARE = 0.05


def films_compared(state: State) -> dict[str, LoadedStrip]:
    """The strips of a comparison that have an EI, by the names of what they are."""
    loaded, analysis = state.loaded, state.settled()
    kind = type_of(loaded.test.kind)
    if kind is None or not kind.compares_materials:
        return {}
    known = {m.label for m in analysis.strips if m.zone_ei.present}
    return {film_name(loaded, s): s for s in loaded.strips if s.strip.label in known}


def film_card(state: State, name: str) -> Card | None:
    """The card of one film or bath of a comparison; None for one that is not in it."""
    loaded, analysis = state.loaded, state.settled()
    strip = films_compared(state).get(name)
    if strip is None:
        return None
    metrics = next(m for m in analysis.strips if m.label == strip.strip.label)
    beside = next((c for c in analysis.compared if c.strip == strip.strip.label), None)
    plain = replace(plain_card(loaded), status=part_status(loaded))
    if strip.strip.developer_id:
        plain = replace(plain, developer=name)
    elif strip.other:
        plain = replace(plain, film=name)
    steps = [set_step(metrics.zone_ei.known())]
    if strip.minutes:
        steps += develop_step(loaded, strip)
    if metrics.average_gradient.value is not None:
        steps.append(("Contrast there", f"average gradient {metrics.average_gradient.value:.2f}"))
    met = beside.match_min if beside is not None else None
    factor = beside.time_factor.value if beside is not None else None
    if met is not None and met.value is not None:
        aim = f"{minutes_text(met.value)} min ({minutes_range_text(met)}), measured"
        steps.append(("For the reference's contrast", aim))
    elif factor is not None and abs(factor - 1) > _SAME_SHARE and strip.minutes:
        aim = minutes_text((metrics.restated_min or strip.minutes) * factor)
        steps.append(("For the reference's contrast", f"about {aim} min, a rule of thumb"))
    if beside is not None and beside.base_fog.value is not None:
        steps.append(("Print exposure", f"{10**beside.base_fog.value:.2f} × the reference"))
    reference = film_name(loaded, loaded.strips[0])
    return replace(
        plain,
        says=f"EI {marked_ei(metrics.zone_ei.known())}",
        steps=tuple(steps),
        says_how=f"{ei_range_text(metrics.zone_ei)}, by the strip beside {reference}."
        if beside is not None
        else f"{ei_range_text(metrics.zone_ei)}; the reference for the others.",
        basis="Found in one comparison, at one time.",
    )
