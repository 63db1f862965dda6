"""A plan as sentences: which it takes, with its words in braces."""

from __future__ import annotations

from enum import Enum

from vadrin.app.descriptions import PlanSentence, description_of
from vadrin.app.plan.compared_materials import on_twins
from vadrin.core.planning.test_types import Metering
from vadrin.notebook.records import Test


class Occasion(Enum):
    """When a sentence is shown, beside those that a kind of test asks for by itself."""

    FILM = "film"
    METER = "meter"
    OTHERS = "others"
    TABLET = "tablet"
    TWIN = "twin"
    PROCESS = "process"


Sentence = tuple[Occasion | PlanSentence, str]
"""When it is shown, and its words; those in braces are keys of `WORDS`."""

SENTENCES: tuple[Sentence, ...] = (
    (
        Occasion.FILM,
        "The film is {film} batch {batch} in {developer} {dilution}; the meter is set to EI {ei}.",
    ),
    (
        PlanSentence.TIMES,
        "The same exposures on {strips}, one each developed {times} min at {warmth}.",
    ),
    (PlanSentence.ONE_TIME, "Developed {time} min at {warmth}."),
    (Occasion.OTHERS, "Beside the reference, other {compared}: {others}."),
    (
        PlanSentence.BRACKET,
        "A {subject} in {light}, from {first} to {last} stops in {step}, "
        "after {blanks} kept blank.",
    ),
    (
        PlanSentence.FILTER,
        "A filter of factor {factor} stays on the lens; frame rate and shutter angle are the "
        "camera's.",
    ),
    (PlanSentence.FRESHNESS, "The bleach is {state}."),
    (
        Occasion.TABLET,
        "The step wedge has densities {tablet}. The greatest exposure is the one through no step.",
    ),
    (
        PlanSentence.ROLL,
        "The film comes as {supply}, with {leader} lost to the leader and {holder} of each strip "
        "to the holder; it is shot {order}, the first exposure {check}.",
    ),
    (Occasion.TWIN, "The second camera is {twin}."),
    (
        Occasion.METER,
        "The meter says {shutter} at {aperture}; with {camera} and {lens} turn the {turned} first, "
        "neutral density up to {filter} stops; reciprocity correction: {reciprocity}.",
    ),
    (Occasion.PROCESS, "It goes through {process}: {process_steps}."),
)
"""Every sentence a plan can need, in order."""


def sentences_of(test: Test) -> set[Occasion | PlanSentence]:
    """Which sentences a plan takes."""
    page = description_of(test.kind)
    shown: set[Occasion | PlanSentence] = {Occasion.FILM, Occasion.METER, *page.sentences}
    shown |= {Occasion.OTHERS} if page.kind.compares_materials else set()
    on_film = page.kind.scripted and page.kind.metering is not Metering.ENLARGER
    shown |= {Occasion.PROCESS} if on_film else set()
    shown |= {Occasion.TABLET} if test.by_contact else set()
    if page.kind.on_one_sheet(test.options):
        shown.discard(PlanSentence.ROLL)
    return shown | ({Occasion.TWIN} if on_twins(test) else set())
