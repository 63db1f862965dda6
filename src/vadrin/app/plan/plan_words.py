"""The words of a plan's sentences: what each is called, how it is stepped, typed and shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from vadrin.app.descriptions.plan_word import Word, numbers_text
from vadrin.app.display.marks import aperture_mark, shutter_name, stops_text
from vadrin.app.display.quantities import minutes_brief
from vadrin.app.display.words import counted
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.exposures import aperture_typed, exposure_index_typed
from vadrin.app.entry.film_supply import AS_MUCH, film_supply_text, name_typed
from vadrin.app.entry.numbers import number_typed, number_within, numbers_typed
from vadrin.app.entry.process_steps import steps_typed
from vadrin.app.entry.stepping import StepWord, chooser
from vadrin.app.entry.times import minutes_typed, seconds_typed
from vadrin.app.library.named_records import NO_DEVELOPER, NO_FILM
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.plan.plan_word_readers import (
    STEP_WORDS,
    blanks_typed,
    count_of_strips,
    end_of_bracket,
    field_read,
    kept_frames_typed,
    law_typed,
    others_typed,
    step_by,
    step_count,
    step_minutes,
    step_third,
    step_times,
    step_word,
    supply_typed,
    times_of_strips,
    times_text,
    warmth_refused,
    word_of,
)
from vadrin.app.plan.starting_tests import rolls_begun
from vadrin.core.exposure.shutter_dial import exact_shutter
from vadrin.core.planning.plan_request import Arrangement, CameraControl, Compared
from vadrin.notebook.records import Camera, Lens, Process
from vadrin.notebook.records.film_test import CONTACT_SUBJECT, SCENE_SUBJECT
from vadrin.notebook.store import Notebook

SUPPLIES = (
    "36 frames",
    "24 frames",
    "12 frames",
    "8 frames",
    "10 sheets",
    "5 m",
    "10 m cine",
    AS_MUCH,
)
ORDERS = {
    "one strip after the other": Arrangement.SEQUENTIAL,
    "each strip back to front": Arrangement.MIRRORED,
    "in pairs on twin cameras": Arrangement.INTERLEAVED,
}
CHECKS = {"repeated at the end": True, "not repeated": False}
SUBJECTS = (
    "plain target",
    SCENE_SUBJECT,
    f"{CONTACT_SUBJECT} by contact",
    "colour chart",
    "clear film",
)
LIGHTS = ("sun", "open shade", "window light", "lamp")
_ANY = "not set"
NOT_KNOWN = "none"


WORDS: dict[str, Word] = {
    "film": Word(
        "film",
        lambda p, w: replace(p, stock_name=name_typed(w)),
        lambda s, p: p.stock_name or NO_FILM,
    ),
    "batch": Word(
        "batch",
        lambda p, w: replace(p, batch_name=w.replace(_ANY, "").strip()),
        lambda s, p: s.batch.name if s.batch else _ANY,
    ),
    "developer": Word(
        "developer",
        lambda p, w: replace(p, developer_name=name_typed(w)),
        lambda s, p: p.developer_name or NO_DEVELOPER,
    ),
    "dilution": Word(
        "dilution",
        lambda p, w: replace(p, dilution=w.strip()),
        lambda s, p: p.dilution or "undiluted",
    ),
    "compared": Word(
        "what is compared",
        field_read("compared", lambda w: Compared(choice_typed(w, Compared))),
        lambda s, p: p.test.compared,
        chooser(list(Compared)),
    ),
    "others": Word(
        "what is set beside the reference",
        others_typed,
        lambda s, p: ", ".join(p.test.compared_names) or "not set",
    ),
    "ei": Word(
        "EI on the meter",
        field_read("exposure_index", exposure_index_typed),
        lambda s, p: f"{p.test.exposure_index:g}",
        step_third,
    ),
    "strips": Word(
        "number of strips", count_of_strips, lambda s, p: counted(len(p.times), "strip"), step_count
    ),
    "times": Word(
        "development times in minutes",
        times_of_strips,
        lambda s, p: times_text(p.times),
        step_times,
    ),
    "time": Word(
        "development time in minutes",
        lambda p, w: replace(p, times=(minutes_typed(w),)),
        lambda s, p: minutes_brief(p.times[0]) if p.times else "8",
        step_minutes,
    ),
    "warmth": Word("temperature of the process", warmth_refused, lambda s, p: reference_words(s)),
    "factor": Word(
        "factor of the filter that stays on",
        field_read(
            "filter_factor",
            lambda w: number_within(
                w.replace("×", ""), 1, 1000, "a filter's factor lies between 1 and 1000", "1.6"
            ),
        ),
        lambda s, p: f"{p.test.filter_factor:g}",
    ),
    "state": Word(
        "how fresh the bleach is",
        field_read("process_state", lambda w: w.strip()),
        lambda s, p: p.test.process_state or "age not set",
        chooser(("fresh", "half used", "nearly exhausted")),
    ),
    "first": Word(
        "least exposure in stops",
        end_of_bracket("first_stop"),
        lambda s, p: stops_text(p.test.first_stop, signed=True),
        step_by(1.0),
    ),
    "last": Word(
        "most exposure in stops",
        end_of_bracket("last_stop"),
        lambda s, p: stops_text(p.test.last_stop, signed=True),
        step_by(1.0),
    ),
    "step": Word(
        "step of the bracket",
        field_read("step", lambda w: STEP_WORDS[choice_typed(w, STEP_WORDS)]),
        lambda s, p: step_word(p.test.step),
        chooser(list(STEP_WORDS)),
    ),
    "blanks": Word(
        "blank frames", blanks_typed, lambda s, p: counted(p.test.blanks, "frame"), step_count
    ),
    "leader": Word(
        "frames of the leader",
        field_read("leader", kept_frames_typed),
        lambda s, p: counted(p.test.leader, "frame"),
        step_count,
    ),
    "holder": Word(
        "frames in the holder",
        field_read("holder", kept_frames_typed),
        lambda s, p: counted(p.test.holder, "frame"),
        step_count,
    ),
    "reciprocity": Word(
        "law of long exposures", law_typed, lambda s, p: p.reciprocity or NOT_KNOWN
    ),
    "subject": Word(
        "target", field_read("subject", name_typed), lambda s, p: p.test.subject, chooser(SUBJECTS)
    ),
    "tablet": Word(
        "densities of the step wedge",
        field_read("tablet", numbers_typed),
        lambda s, p: numbers_text(p.test.tablet) or "0.05, 0.20, 0.35 …",
    ),
    "light": Word(
        "light",
        field_read("light", lambda w: w.strip()),
        lambda s, p: p.test.light or "any light",
        chooser(LIGHTS),
    ),
    "process": Word(
        "process the film goes through",
        lambda p, w: replace(p, process_name=w.strip()),
        lambda s, p: p.process_name or "",
    ),
    "process_steps": Word(
        "steps of the process",
        lambda p, w: replace(p, steps=steps_typed(w)),
        lambda s, p: p.steps_shown,
    ),
    "supply": Word("film there is", supply_typed, lambda s, p: film_supply_text(p.test.film)),
    "order": Word(
        "order of the exposures",
        field_read("arrangement", lambda w: ORDERS[choice_typed(w, ORDERS)]),
        lambda s, p: word_of(ORDERS, p.test.arrangement),
        chooser(list(ORDERS)),
    ),
    "check": Word(
        "repeat of the first exposure",
        field_read("repeat_first", lambda w: CHECKS[choice_typed(w, CHECKS)]),
        lambda s, p: word_of(CHECKS, p.test.repeat_first),
        chooser(list(CHECKS)),
    ),
    "shutter": Word(
        "metered shutter time",
        field_read("metered_seconds", seconds_typed),
        lambda s, p: shutter_name(p.test.metered_seconds),
        lambda s, way: shutter_name(exact_shutter(seconds_typed(s)) * 2.0**way),
    ),
    "aperture": Word(
        "metered aperture",
        field_read("aperture", aperture_typed),
        lambda s, p: aperture_mark(p.test.aperture),
        lambda s, way: aperture_mark(aperture_typed(s) * 2 ** (way / 2)),
    ),
    "camera": Word(
        "camera",
        lambda p, w: replace(p, camera_name=w.strip()),
        lambda s, p: p.camera_name or "any camera",
    ),
    "twin": Word(
        "twin camera",
        lambda p, w: replace(p, twin_name=w.strip()),
        lambda s, p: p.twin_name or "one just like it",
    ),
    "lens": Word(
        "lens", lambda p, w: replace(p, lens_name=w.strip()), lambda s, p: p.lens_name or "its lens"
    ),
    "turned": Word(
        "what is turned first",
        field_read("turned_first", lambda w: CameraControl(choice_typed(w, CameraControl))),
        lambda s, p: p.test.turned_first,
        chooser(list(CameraControl)),
    ),
    "filter": Word(
        "neutral density at hand in stops",
        field_read(
            "filter_stops", lambda w: number_within(w, 0, 10, "neutral density: 0 to 10 stops", "3")
        ),
        lambda s, p: f"{p.test.filter_stops:g}",
        lambda s, way: f"{max(0.0, number_typed(s) + way):g}",
    ),
}
"""Every word a plan's sentences can hold."""


def kit_step(key: str, here: Callable[[], tuple[Notebook, LoadedTest | None]]) -> StepWord | None:
    """How a word is stepped whose choices lie in the notebook; None where it is only typed.

    Parameters
    ----------
    key : str
        Of a word.
    here : callable
        The open notebook, and the test that is planned.
    """
    kinds: dict[str, type[Camera] | type[Lens] | type[Process]] = {
        "camera": Camera,
        "twin": Camera,
        "lens": Lens,
        "process": Process,
    }

    def supplies() -> list[str]:
        """Film as it is sold, and rolls other tests have begun and left room on."""
        book, loaded = here()
        return [*SUPPLIES, *(rolls_begun(book, loaded) if loaded else [])]

    if key == "supply":
        return chooser(supplies)
    if key not in kinds:
        return None
    return chooser(lambda: [r.name for r in here()[0].all(kinds[key])])
