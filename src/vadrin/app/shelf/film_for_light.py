"""Which of the films that were decided on serves in a light, at which push, and what it costs."""

from __future__ import annotations

from collections.abc import Generator
from dataclasses import dataclass, replace
from math import log2

from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_text, push_name, shadow_detail_text
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.display.words import counted
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.expose.roll_entry import enter_roll
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding
from vadrin.app.findings.rolls_since import rolls_since
from vadrin.app.pictures.exposed import Exposed
from vadrin.core.exposure.arithmetic import exact_aperture, exact_ei, nearest_third
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.results.push import shadow_verdict
from vadrin.errors import EntryError
from vadrin.notebook.records import Batch, Finding, Test
from vadrin.notebook.store import Notebook

_A_ROLL = 36
_LEAST_EI, _MOST_EI = 1.0, 102400.0


@dataclass(frozen=True)
class Light:
    """What a meter asks for, and what the camera has to be set to instead.

    Attributes
    ----------
    meter_s, meter_f, meter_ei : float
    wanted_s, wanted_f : float
        As marked.
    """

    meter_s: float = 1 / 15
    meter_f: float = 2.0
    meter_ei: float = 100.0
    wanted_s: float = 1 / 30
    wanted_f: float = 2.0

    @property
    def exposure_index(self) -> float:
        """The EI at which the meter would ask for what is wanted.

        Raises
        ------
        EntryError
            Where no film could be meant.
        """
        asked = exact_shutter(self.meter_s) / exact_aperture(self.meter_f) ** 2
        given = exact_shutter(self.wanted_s) / exact_aperture(self.wanted_f) ** 2
        index = exact_ei(self.meter_ei) * asked / given
        if not _LEAST_EI <= index <= _MOST_EI:
            raise EntryError(f"that is EI {index:.3g}: no film is meant by it; check the settings")
        return index

    def changed(self, **settings: float) -> Light:
        """Another setting of it.

        Raises
        ------
        EntryError
            Where no film could be meant.
        """
        other = replace(self, **settings)
        assert other.exposure_index
        return other


@dataclass(frozen=True)
class FilmForLight:
    """One film that was decided on, in this light.

    Attributes
    ----------
    state : State
        The test it was decided on in, not worked out yet.
    film, developer : str
    left : str
        How much of it there is, and how rolls shot by it came out, in words.
    stops : float
        Pushed over what was decided.
    exposed : Exposed
        What it is set to and developed for; with the reason where that was not tested.
    cost : float
        Stops of shadow lost; infinite where not known.
    """

    state: State
    film: str
    developer: str
    left: str
    stops: float
    exposed: Exposed
    cost: float

    @property
    def serves(self) -> bool:
        """Whether its time is known."""
        return not self.exposed.why


def films_for_light(
    notebook: Notebook, exposure_index: float
) -> Generator[tuple[int, int], None, tuple[FilmForLight, ...]]:
    """Every film with a decision and some of it left, the least shadow lost first.

    A film a step, so that a screen can go on between; yields how many of how many are done.
    """
    decided: dict[tuple[int, int, int | None], Test] = {}
    for finding in notebook.all(Finding):
        test = notebook.get(Test, finding.test_id)
        if test is not None and finding.exposure_index > 0 and finding.time_min > 0:
            decided[(test.stock_id, test.developer_id, test.batch_id)] = test
    known = []
    for done, test in enumerate(decided.values()):
        yield done, len(decided)
        one = _in_light(notebook, test, exposure_index)
        known += [one] if one is not None else []
    return tuple(sorted(known, key=lambda one: (one.cost, abs(one.stops))))


def _in_light(notebook: Notebook, test: Test, exposure_index: float) -> FilmForLight | None:
    loaded, found = load_test(notebook, test.id), latest_finding(notebook, test)
    batch = notebook.get(Batch, test.batch_id or 0)
    if loaded is None or found is None or (batch is not None and batch.rolls_left == 0):
        return None
    stops = nearest_third(log2(exposure_index / found.exposure_index))
    exposed, cost = _exposed(found, stops, exposure_index)
    left = "nobody counted what is left"
    if batch is not None and batch.rolls_left is not None:
        left = f"{counted(batch.rolls_left, 'roll')} left"
    came_out = rolls_since(notebook, test).words
    left = f"{left}; {came_out}" if came_out else left
    film = f"{loaded.title} {batch.name}" if batch is not None else loaded.title
    return FilmForLight(State(loaded), film, loaded.developer.bath, left, stops, exposed, cost)


def _exposed(found: LatestFinding, stops: float, index: float) -> tuple[Exposed, float]:
    name = push_name(stops)
    minutes, lost = found.minutes(stops, found.rule.value), found.shadow_lost(stops)
    if stops == 0:
        return Exposed(index, found.time_min, name=name, cost="as decided", normal=True), 0.0
    if minutes.value is None or lost.value is None:
        known = [p.stops for p in found.pushes if found.minutes(p.stops, found.rule.value).present]
        tested = f"up to {push_name(max(known))}" if known else "at its normal alone"
        why = f"{name} was not tested: this film was tested {tested}"
        return Exposed(index, None, name=name, why=why), float("inf")
    verdict = shadow_words(shadow_verdict(lost.value))
    cost = f"{shadow_detail_text(lost.value)} · {verdict}"
    return Exposed(index, minutes.value, name=name, cost=cost), max(lost.value, 0.0)


def light_words(light: Light, films: tuple[FilmForLight, ...]) -> str:
    """What the light asks for, and how many films serve in it."""
    index = light.exposure_index
    away = nearest_third(log2(index / exact_ei(light.meter_ei)))
    side = "more" if away > 0 else "less"
    asks = f"That is EI {marked_ei(index)}"
    if away:
        asks += f", {stops_counted(abs(away))} {side} speed than the meter was set to"
    if not films:
        return f"{asks}. No film was decided on yet: test one, and it is offered here."
    serve = sum(one.serves for one in films)
    if not serve:
        return f"{asks}. None of the {counted(len(films), 'film')} decided on was tested that far."
    return f"{asks}. {counted(serve, 'film')} of {len(films)} can be loaded for it."


def film_words(one: FilmForLight) -> str:
    """A film in this light, in a line."""
    if one.exposed.minutes is None:
        return f"{one.film} in {one.developer}: {one.exposed.why}"
    return (
        f"{one.film} in {one.developer}: {one.exposed.name}, "
        f"{minutes_text(one.exposed.minutes)} min, {one.left}"
    )


def load_film(notebook: Notebook, one: FilmForLight) -> Test:
    """Write a roll down that is to be shot in this light; its answer says how to develop it.

    Raises
    ------
    EditRefusedError
    """
    line = f"{_A_ROLL} frames at EI {marked_ei(one.exposed.exposure_index):g}"
    batch = one.state.loaded.batch
    film = one.state.loaded.title + (f" batch {batch.name}" if batch is not None else "")
    return enter_roll(notebook, film, one.developer, "", line)
