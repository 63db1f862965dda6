"""What a type of test is: everything the core knows of it hangs on one object."""

from __future__ import annotations

from enum import Enum
from typing import TYPE_CHECKING

from vadrin.core.planning.plan_request import PlanRequest
from vadrin.core.planning.strip_plan import StripPlan
from vadrin.core.planning.test_options import NO_OPTIONS, TestOptions

if TYPE_CHECKING:
    from vadrin.core.readings import StripReadings
    from vadrin.core.results.analysis_result import Analysis, Settings


class Metering(Enum):
    """What a kind's exposures are counted from."""

    CAMERA = "marks of a camera, from the meter reading"
    FIXED_TIMES = "times that are themselves the question"
    ENLARGER = "times of an enlarger, on paper"


class Asks(Enum):
    """What a kind of test asks for."""

    TIME = "development times, and the EI at each"
    INDEX = "the EI of a development as it is"
    OTHER = "something else"


class Foretold(Enum):
    """What can be foretold of a plan."""

    EI_AND_TIMES = "the EI, the time and each push"
    EI = "the EI"
    EI_AND_DIFFERENCE = "the EI, and the difference of another material"
    NOTHING = "nothing"


class TestType:
    """A type of test. Subclasses fill it in; its file has one as `TYPE`.

    Attributes
    ----------
    key : str
        Names it in the notebook; never changed once released.
    needs_blank : bool
        Whether at least one frame must be kept from light.
    repeats_first : bool
        Whether a repeat of the first exposure can tell if the light held.
    repeats_on_every_strip : bool
        Whether every strip takes that repeat, since others tell nothing about its light.
    own_rolls : bool
        Whether every strip is always on a roll of its own, on twin cameras.
    bracketed : bool
        Whether its frames are a camera's bracket in even steps.
    metering : Metering
    asks : Asks
    foretold : Foretold
    not_foretold : str
        Why nothing can be foretold, in a sentence.
    materials_apart : bool
        Whether strips after the first are another film, chemistry or process.
    compares_materials : bool
        Whether other materials are named beside the reference.
    density_falls : bool
        Whether more exposure gives less density.
    strips_alike : bool
        Whether its strips differ in their time alone, so that one more or a frame fewer of each
        can be weighed, and the smallest plan looked for.
    scripted : bool
        Whether its frames follow from its plan; those of a picture come when it is traced.
    times_shared : bool
        Whether several of its strips have one time.
    edge_to_edge : bool
        Whether its steps lie without a gap between them, as on paper.
    channels_apart : bool
        Whether every channel that was read goes into its analysis, each by itself.
    visual_too : bool
        Whether visual readings count as one of those channels.
    stock_kind : str
        The kind of material it is for, where it is for one alone.
    lights_in_turn : bool
        Whether its strips are shot in different lights, which their notes name.
    beside_others : bool
        Whether its answer is laid beside what the notebook holds of other tests.
    options : TestOptions
        What it asks for beside times and exposures, as it usually is.
    process_kind : str
        The kind of process its film goes through, whatever film it is; empty for that of its film.
    """

    __test__ = False

    key: str = ""
    needs_blank: bool = True
    repeats_first: bool = True
    repeats_on_every_strip: bool = False
    own_rolls: bool = False
    bracketed: bool = True
    metering: Metering = Metering.CAMERA
    asks: Asks = Asks.OTHER
    foretold: Foretold = Foretold.NOTHING
    not_foretold: str = (
        "This kind of plan is judged by eye or beside a twin; there is no expected range."
    )
    materials_apart: bool = False
    compares_materials: bool = False
    density_falls: bool = False
    strips_alike: bool = False
    scripted: bool = True
    times_shared: bool = False
    edge_to_edge: bool = False
    channels_apart: bool = False
    visual_too: bool = False
    stock_kind: str = ""
    lights_in_turn: bool = False
    beside_others: bool = False
    options: TestOptions = NO_OPTIONS
    process_kind: str = ""

    def lay_out(self, request: PlanRequest) -> list[StripPlan]:
        """The strips, before check frames, cuts and rolls are put to them."""
        raise NotImplementedError

    def on_one_sheet(self, options: TestOptions) -> bool:
        """Whether all strips are bands of one sheet, exposed together under its dark slide."""
        return False

    def analyse(self, strips: tuple[StripReadings, ...], settings: Settings) -> Analysis:
        """Work its readings out; a kind with a question of its own answers it here."""
        from vadrin.core.results.analysis import analyse

        return analyse(strips, settings)
