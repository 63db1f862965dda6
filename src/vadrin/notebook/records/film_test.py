"""One film test: how it was planned, and the conditions it was run under."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.core.origin import Origin
from vadrin.core.planning.plan_request import (
    Arrangement,
    CameraControl,
    Compared,
    FilmSupply,
    FilmUnit,
)
from vadrin.core.planning.test_options import NO_OPTIONS, TestOptions
from vadrin.core.results.hold_rule import HoldRule

CONTACT_SUBJECT = "step wedge"
"""How the target is called where a step wedge lies on the film."""
_CONTACT = (CONTACT_SUBJECT, "step tablet")
"""A tester may call it either."""
SCENE_SUBJECT = "still scene"
"""How it is called where frames show a scene and no plain target."""


@dataclass(frozen=True)
class Test:
    """One film test, how it was planned and under which conditions it was run.

    `exposure_index` is what the meter was set to; `metered_seconds` and `aperture` are what
    it asked for; `first_stop` to `last_stop` in `step` is the bracket. `created_at` is UTC.
    `uid` tells the same test apart in two notebooks; `like_id` is the test it was started
    from with one thing changed. The film comes as `film_amount` of `film_unit` (None and empty
    for as much as it takes), of which another test has the first `film_taken` frames; `leader`
    and `holder` are frames kept for both. `options` are those of its type;
    `tablet` holds the densities of a step wedge in contact. `compared_names` are the
    `compared` set beside the reference, and `twin_id` the camera that every other strip is
    shot with.
    `push_rule` is what pushes hold, wherever one time is named; `pull_way` is how strips of
    several times go through the dark, empty for as their film suggests. `channel` is the one it
    is worked out in, empty for visual or the first that was read. `filter_factor` is that of a
    filter that stays on the lens, `process_state` how fresh the bleach was, in words.
    `taken_from` names the notebook of somebody else that it came from; empty for one's own.
    """

    __test__ = False

    id: int = 0
    kind: str = "time"
    stock_id: int = 0
    batch_id: int | None = None
    developer_id: int = 0
    created_at: str = ""
    exposure_index: float = 100.0
    metered_seconds: float = 1 / 30
    aperture: float = 5.6
    first_stop: float = -6.0
    last_stop: float = 5.0
    step: float = 1.0
    blanks: int = 2
    agitation: str = ""
    target_kind: str = "average_gradient"
    target_value: float = 0.58
    school: str = "shadow"
    push_rule: HoldRule = HoldRule.HIGHLIGHT
    pull_way: str = ""
    meter_constant: float = 8.125
    note: str = ""
    uid: str = ""
    like_id: int | None = None
    camera_id: int | None = None
    lens_id: int | None = None
    meter_id: int | None = None
    instrument_id: int | None = None
    paper_id: int | None = None
    process_id: int | None = None
    bottle_id: int | None = None
    light: str = ""
    subject: str = "plain target"
    water: str = ""
    vessel: str = ""
    film_amount: float | None = None
    film_unit: FilmUnit = FilmUnit.FRAMES
    film_taken: int = 0
    turned_first: CameraControl = CameraControl.SHUTTER
    filter_stops: float = 0.0
    repeat_first: bool = False
    arrangement: Arrangement = Arrangement.SEQUENTIAL
    options: TestOptions = NO_OPTIONS
    tablet: tuple[float, ...] = ()
    compared: Compared = Compared.DEVELOPERS
    compared_names: tuple[str, ...] = ()
    leader: int = 0
    holder: int = 0
    twin_id: int | None = None
    channel: str = ""
    filter_factor: float = 1.0
    process_state: str = ""
    bath_c: float | None = None
    bath_from: Origin = Origin.UNKNOWN
    taken_from: str = ""

    @property
    def film(self) -> FilmSupply | None:
        """The film there is; None for as much as it takes."""
        if self.film_amount is None:
            return None
        return FilmSupply(self.film_amount, self.film_unit, self.film_taken)

    @property
    def even_target(self) -> bool:
        """Whether the target is plain, so that it is better out of focus."""
        return self.subject == "plain target"

    @property
    def by_contact(self) -> bool:
        """Whether the exposures come through a step wedge on the film."""
        return self.subject.startswith(_CONTACT)
