"""Colour film over its pushes: three layers each, the base, and what of it will be seen."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from vadrin.app.curves.fitted_series import fitted_series
from vadrin.app.descriptions.answer_in_words import AnswerPlot, AnswerTable, OwnAnswer
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import push_name
from vadrin.app.document.state import State
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.results.working_steps import Step, develop_words
from vadrin.app.test_types.colour_push.patches import (
    drift_words,
    hue_turns,
    patch_colours,
    patch_figures,
    patch_table,
)
from vadrin.app.test_types.film_cells import GOOD_ENOUGH
from vadrin.app.test_types.push import over_developed_proof
from vadrin.core.channels import LAYERS
from vadrin.core.figure import Figure
from vadrin.core.judging.verdicts import SALVAGED, USE_IT
from vadrin.core.wording import list_text

if TYPE_CHECKING:
    from vadrin.core.results.strip_metrics import StripMetrics

_HEADS = ("Push", "Base r g b", "Gradient r g b", "Speed r g b", "What will be seen")
_CROSSOVER, _TOGETHER = 0.05, "layers go together"
_COMPLEMENT = {"red": "cyan", "green": "magenta", "blue": "yellow"}


def _triple(values: list[float | None], form: str) -> str:
    return " ".join("—" if v is None else format(v, form) for v in values)


def crossover_words(gradients: dict[str, Figure | None]) -> str:
    """What layers of unlike gradient do to a picture, or why that is not known.

    Parameters
    ----------
    gradients : dict of str to Figure or None
        By the name of the layer; None for one that was not read.
    """
    silent = [name for name, told in gradients.items() if told is None]
    if silent:
        return f"read {list_text(silent)}"
    short = [(name, told.why) for name, told in gradients.items() if told and told.value is None]
    if short:
        return f"{list_text([name for name, _ in short])}: {short[0][1]}"
    known = {name: told.known() for name, told in gradients.items() if told}
    middle = sorted(known.values())[1]
    apart = {k: v - middle for k, v in known.items()}
    name, most = max(apart.items(), key=lambda pair: abs(pair[1]))
    if max(known.values()) - min(known.values()) <= _CROSSOVER:
        return _TOGETHER
    # On a negative the steeper layer is denser in the highlights: its own colour comes back there.
    high, low = (name, _COMPLEMENT[name]) if most > 0 else (_COMPLEMENT[name], name)
    return f"crossover {abs(most):.2f}: highlights shift towards {high}, shadows towards {low}"


def _push_of(strip: LoadedStrip) -> float:
    return strip.strip.push or 0.0


def _last(loaded: LoadedTest, least: str) -> float | None:
    """Greatest push of which most judged frames are as good as a verdict; None for none."""
    held = []
    for strip in loaded.strips:
        said = [GOOD_ENOUGH[f.verdict] for f in strip.frames if f.verdict in GOOD_ENOUGH]
        if said and sum(v >= GOOD_ENOUGH[least] for v in said) * 2 >= len(said):
            held.append(_push_of(strip))
    return max(held, default=None)


@dataclass(frozen=True)
class _Push:
    """What the layers of one push say: its row, its figures, and what will be seen, if read."""

    push: float
    cells: tuple[str, ...]
    figures: dict[str, Figure | float | None]
    seen: str = ""


def _push_row(strip: LoadedStrip, layers: dict[tuple[str, str], StripMetrics]) -> _Push:
    label, push = strip.strip.label, _push_of(strip)
    mine = {c: layers.get((label, str(c))) for c in LAYERS}
    if not any(mine.values()):
        return _Push(push, (push_name(push), "not read", "", "", ""), {})
    figures: dict[str, Figure | float | None] = {}
    for c, m in mine.items():
        if m is not None:
            figures |= {
                f"{label}_{c}_gradient": m.average_gradient,
                f"{label}_{c}_base": m.base_fog,
                f"{label}_{c}_speed": m.speed,
            }
    gradients = {str(c): m.average_gradient if m else None for c, m in mine.items()}
    words = crossover_words(gradients)
    cells = (
        push_name(push),
        _triple([m.base_fog.value if m else None for m in mine.values()], ".2f"),
        _triple([g.value if g else None for g in gradients.values()], ".2f"),
        _triple([m.speed.value if m else None for m in mine.values()], ".0f"),
        words,
    )
    return _Push(push, cells, figures, words)


def _said(read: list[_Push], usable: float | None, salvage: float | None) -> tuple[str, str]:
    """The answer in a few words, and what it rests on: figures, then verdicts."""
    bad = [p.push for p in read if p.seen.startswith("crossover")]
    together = [p.push for p in read if p.seen == _TOGETHER]
    says = "Layers together" if not bad else f"Crossover at {push_name(bad[0])}"
    words = (
        f"By figures the layers go together up to {push_name(max(together))}"
        if together
        else "By figures no development keeps the layers together"
    )
    if usable is None:
        return says, f"{words}; no frame was judged yet."
    words += f"; by verdicts it is usable to {stops_counted(usable)} of push"
    if salvage is not None:
        words += f", salvageable to {stops_counted(salvage)}"
    return f"Usable to {push_name(usable)}", f"{words}."


def colour_answer(state: State) -> OwnAnswer:
    """What a colour test says."""
    loaded, analysis = state.loaded, state.analysis
    layers = {(m.label, m.channel): m for m in (analysis.layers if analysis else ())}
    pushes = [_push_row(strip, layers) for strip in sorted(loaded.strips, key=_push_of)]
    usable, salvage = _last(loaded, USE_IT), _last(loaded, SALVAGED)
    figures = {key: told for push in pushes for key, told in push.figures.items()}
    figures |= {"last_usable_push": usable, "last_salvageable_push": salvage}
    figures |= patch_figures(loaded)
    read = [push for push in pushes if push.seen]
    if not read:
        says, words = "", "No layer was read yet."
        act = "Read each frame by red, green and blue, the blanks first."
    else:
        says, words = _said(read, usable, salvage)
        act = (
            "Give verdicts on the patches of each push."
            if usable is None
            else ("Shoot the last usable push once more on a picture that matters little.")
        )
    patches = patch_table(loaded)
    return OwnAnswer(
        says,
        " ".join(w for w in (words, drift_words(loaded), over_developed_proof(loaded)) if w),
        act,
        figures,
        AnswerTable(_HEADS, tuple(push.cells for push in pushes)),
        (),
        _plot(state),
        more=(patches,) if patches is not None else (),
        hues=hue_turns(loaded),
        patches=patch_colours(loaded),
        steps=_steps(loaded, usable, salvage) if read else (),
    )


def _steps(loaded: LoadedTest, usable: float | None, salvage: float | None) -> tuple[Step, ...]:
    """A step for each push: what to shoot at, and how long; then how far it is of use."""
    made: list[Step] = []
    for strip in sorted(loaded.strips, key=_push_of):
        index = marked_ei(loaded.test.exposure_index * 2.0 ** _push_of(strip))
        words = f"shoot at EI {index}; develop {develop_words(loaded, strip)}"
        made.append((push_name(_push_of(strip)).capitalize(), words))
    if usable is not None:
        words = f"to {push_name(usable)}"
        if salvage is not None and salvage > usable:
            words += f"; {push_name(salvage)} can be salvaged"
        made.append(("Usable", words))
    return tuple(made)


def _plot(state: State) -> AnswerPlot | None:
    loaded = state.loaded
    constant, made = loaded.test.meter_constant, []
    for strip in loaded.strips:
        for channel in LAYERS:
            pairs = [
                (f.log_h(constant), r.density)
                for f in strip.frames
                if f.counts
                for r in f.readings
                if r.channel == channel and not r.left_out
            ]
            points = tuple(sorted((x, d) for x, d in pairs if x is not None))
            if points:
                name = f"{strip.strip.label} {channel}"
                made.append(fitted_series(state, strip.strip.label, name, points, channel))
    return AnswerPlot("log exposure", "density", tuple(made)) if made else None
