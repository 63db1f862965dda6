"""How pictures are looked at: which scene, metered where, printed by what, and what is marked."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace
from pathlib import Path

from vadrin.app.display.marks import stops_text
from vadrin.app.document.state import State
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.exposures import stops_typed
from vadrin.app.entry.numbers import number_within
from vadrin.app.pictures.scenes import (
    SCENE_NAMES,
    own_files,
    scenes_at_hand,
    spot_named,
    spots_of,
    title_of,
)
from vadrin.app.printing.grade_choice import grades_known
from vadrin.app.printing.paper_answer import curve_of_paper
from vadrin.core.pictures.picture import USUAL_FLARE, PrintRule
from vadrin.core.pictures.printing_paper import PrintingPaper, measured_paper, typical_paper
from vadrin.errors import EntryError
from vadrin.notebook.records import Paper
from vadrin.notebook.store import Notebook

_MOST_LONGER = 4.0
NO_PRINT = "the positive itself: no print is made"
SHOWN_AS = ("print", "negative")
PRINT_RULES = tuple(str(rule) for rule in PrintRule)


@dataclass(frozen=True)
class Looking:
    """What a tester chose to look at.

    Attributes
    ----------
    scene : str
    spot : str
        What the meter is pointed at; empty for the scene's first.
    rule : PrintRule
    negative : bool
        Whether film is shown as it lies on the light box, not its print.
    marked : bool
        Whether lost shadows and blocked highlights are hatched.
    longer : float
        Stops by which the print is exposed longer than its rule says.
    flare : float
        Share of the mean light that lens and camera spread over the film.
    """

    scene: str = SCENE_NAMES[0]
    spot: str = ""
    rule: PrintRule = PrintRule.CLEAR_BLACK
    negative: bool = False
    marked: bool = False
    longer: float = 0.0
    flare: float = USUAL_FLARE

    @property
    def scene_title(self) -> str:
        """The scene in words."""
        return title_of(self.scene)

    @property
    def spot_name(self) -> str:
        """What is metered, in words."""
        return spot_named(self.scene, self.spot).name

    @property
    def shown_as(self) -> str:
        """One of `SHOWN_AS`."""
        return SHOWN_AS[self.negative]

    @property
    def flare_words(self) -> str:
        """The flare in percent."""
        return f"{100 * self.flare:.3g} %"

    @property
    def longer_words(self) -> str:
        """How much longer than by the rule it is printed, in stops."""
        return longer_text(self.longer)

    def unmarked(self) -> Looking:
        """The same, nothing hatched."""
        return replace(self, marked=False)


@dataclass(frozen=True)
class PaperUsed:
    """A paper, and what it is called."""

    paper: PrintingPaper
    words: str

    @property
    def shown(self) -> str:
        """What is looked at, as a sentence begins."""
        return f"On {self.words}" if self.words != NO_PRINT else f"This is {NO_PRINT}"


def looked_at(looking: Looking, key: str) -> Looking:
    """One thing turned by its key: ``N`` negative, ``F`` the print's exposure, ``H`` hatching."""
    rules = list(PrintRule)
    other = rules[1 - rules.index(looking.rule)]
    turned = {
        "N": replace(looking, negative=not looking.negative),
        "F": replace(looking, rule=other),
        "H": replace(looking, marked=not looking.marked),
    }
    return turned[key]


def longer_text(stops: float) -> str:
    """Stops of print exposure beyond a rule, with their sign."""
    return f"{stops_text(stops, signed=True)} stop{'s' if abs(stops) > 1 else ''}"


def scene_titles() -> list[str]:
    """The scenes to choose from, in words; those of one's own that were not read yet come last."""
    return [*(title_of(name) for name in scenes_at_hand()), *own_files()]


def scene_file(words: str) -> Path | None:
    """The file of a scene of one's own that is chosen and was not read yet."""
    with suppress(EntryError):
        return own_files().get(choice_typed(words, scene_titles(), anywhere=True))
    return None


def spot_names(looking: Looking) -> list[str]:
    """What a meter may be pointed at."""
    return [spot.name for spot in spots_of(looking.scene)]


def scene_typed(looking: Looking, words: str) -> Looking:
    """Another scene, metered at its first spot.

    Raises
    ------
    EntryError
        Listing the scenes there are.
    """
    title = choice_typed(words, scene_titles(), anywhere=True)
    name = next(name for name in scenes_at_hand() if title_of(name) == title)
    return looking if name == looking.scene else replace(looking, scene=name, spot="")


def spot_typed(looking: Looking, words: str) -> Looking:
    """Another place to meter.

    Raises
    ------
    EntryError
        Listing the places there are.
    """
    return replace(looking, spot=choice_typed(words, spot_names(looking), anywhere=True))


def shown_as_typed(looking: Looking, words: str) -> Looking:
    """As a print or as a negative.

    Raises
    ------
    EntryError
        Listing both.
    """
    shown = choice_typed(words, SHOWN_AS, anywhere=True)
    return replace(looking, negative=shown == SHOWN_AS[1])


def longer_typed(looking: Looking, words: str) -> Looking:
    """Another print exposure than the rule's, in stops.

    Raises
    ------
    EntryError
    """
    refusal = "a print is exposed by up to 4 stops more or less than its rule"
    return replace(looking, longer=stops_typed(words, -_MOST_LONGER, _MOST_LONGER, refusal))


def longer_stepped(shown: str, way: int) -> str:
    """Half a stop more or less of print exposure, as far as one goes."""
    stops = stops_typed(shown, -_MOST_LONGER, _MOST_LONGER, "") + way / 2
    return longer_text(max(-_MOST_LONGER, min(_MOST_LONGER, stops)))


def flare_typed(looking: Looking, words: str) -> Looking:
    """Another flare, in percent.

    Raises
    ------
    EntryError
    """
    plain = words.replace("%", "").strip()
    percent = number_within(plain, 0, 10, "flare lies between 0 and 10 % of the mean light", "0.5")
    return replace(looking, flare=percent / 100)


def rule_typed(looking: Looking, words: str) -> Looking:
    """Another rule for the enlarger's time.

    Raises
    ------
    EntryError
        Listing the rules there are.
    """
    return replace(looking, rule=PrintRule(choice_typed(words, PRINT_RULES, anywhere=True)))


def paper_used(notebook: Notebook, state: State) -> PaperUsed:
    """The paper of the print set-up: by its own curve, by its scale, else a typical grade 2."""
    loaded, analysis = state.loaded, state.analysis
    if loaded.density_falls or (analysis is not None and analysis.stages):
        return PaperUsed(typical_paper(), NO_PRINT)
    if loaded.setups:
        curve = curve_of_paper(notebook, loaded.setups[-1].paper_id)
        if curve is not None and curve.d_max.present:
            scale = curve.exposure_scale.value
            shown = f", scale {scale:.2f}" if scale is not None else ""
            record = notebook.get(Paper, loaded.setups[-1].paper_id or 0)
            words = f"{record.name if record else 'your paper'}, by its own curve{shown}"
            return PaperUsed(measured_paper(curve.log_h, curve.density), words)
        known = grades_known(notebook, loaded)
        named = next((g for g in known if g[0] == loaded.setups[-1].grade), None)
        grade = named or next((g for g in known if g[2]), None) or next(iter(known), None)
        if grade is not None:
            told = "measured" if grade[2] else "as its maker says"
            words = f"your paper, grade {grade[0]}, scale {grade[1]:.2f} {told}"
            return PaperUsed(typical_paper(grade[1]), words)
    return PaperUsed(typical_paper(), "a typical grade 2: your paper was not measured")
