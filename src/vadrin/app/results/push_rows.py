"""Pushes and pulls in words: one row each, the same on every screen, card and terminal."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import (
    minutes_range_text,
    minutes_text,
    push_name,
    shadow_detail_text,
)
from vadrin.app.entry.choices import choice_typed
from vadrin.app.results.between_strips import between_strips
from vadrin.app.results.metric_rows import Cell
from vadrin.core.figure import Figure
from vadrin.core.results.analysis_result import Analysis
from vadrin.core.results.hold_rule import HoldRule
from vadrin.core.results.push import Push, ShadowVerdict, shadow_verdict

NOT_TESTED = "not tested"
RULE_NAMES = {HoldRule.HIGHLIGHT: "highlight density", HoldRule.MIDTONE: "mid-tone density"}
PUSH_RULE_NAMES = {rule.value: name for rule, name in RULE_NAMES.items()} | {
    "hold_contrast": "contrast held for the scene",
    "makers_table": "the maker's table",
    "fixed_share": "a fixed share a stop",
}
"""Every rule for the time of a push, by its key in a report."""


@dataclass(frozen=True)
class PushLine:
    """One push or pull.

    Attributes
    ----------
    index, name : str
        EI to shoot at (a dash where it is not known), and ``push 1``.
    normal : bool
    time : Cell
        Minutes by the rule of the test; `NOT_TESTED` with the reason where there are none.
    by_rule : dict of HoldRule to Cell
    rule_of_thumb : Cell or None
        Minutes by a fixed share a stop; None for the normal.
    makers : Cell or None
        Minutes by the maker's table; None where it names none.
    loss : str
        Shadow lost; empty where it is not known.
    verdict : ShadowVerdict or None
    came_from : str
        Where its time comes from, or why there is none.
    """

    index: str
    name: str
    normal: bool
    time: Cell
    by_rule: dict[HoldRule, Cell]
    rule_of_thumb: Cell | None
    makers: Cell | None
    loss: str
    verdict: ShadowVerdict | None
    came_from: str = ""

    @property
    def tested(self) -> bool:
        """Whether its time was measured."""
        return not self.time.why

    @property
    def grave(self) -> bool:
        """Whether its loss of shadow is to stand out."""
        return self.verdict is not None and self.verdict.grave

    @property
    def known(self) -> bool:
        """Whether there is an EI to shoot it at."""
        return self.index != "—"


def _time(figure: Figure) -> Cell:
    if figure.value is None:
        return Cell(NOT_TESTED, why=figure.why)
    return Cell(minutes_text(figure.value), minutes_range_text(figure))


def rule_typed(words: str) -> HoldRule:
    """The rule that is meant.

    Raises
    ------
    EntryError
        Listing the rules there are.
    """
    name = choice_typed(words, RULE_NAMES.values(), anywhere=True)
    return next(rule for rule, known in RULE_NAMES.items() if known == name)


def _line(push: Push, rule: HoldRule, analysis: Analysis) -> PushLine:
    chosen, index = push.by(rule), push.exposure_index.value
    # What a time would cost that was not tested is not known either.
    loss = chosen.shadow_loss_stops.value if chosen.time_min.present else None
    shared, told = push.fixed_share.time_min.value, push.makers_table.time_min.value
    thumb = None
    if shared is not None and push.stops:
        thumb = Cell(minutes_text(shared), why="a rule of thumb, not measured here")
    return PushLine(
        index="—" if index is None else str(marked_ei(index)),
        name=push_name(push.stops),
        normal=push.stops == 0,
        time=_time(chosen.time_min),
        by_rule={each: _time(push.by(each).time_min) for each in HoldRule},
        rule_of_thumb=thumb,
        makers=Cell(minutes_text(told), why="the maker's word, not measured here")
        if told is not None
        else None,
        loss="" if loss is None else shadow_detail_text(loss),
        verdict=None if loss is None else shadow_verdict(loss),
        came_from=_came_from(chosen.time_min, analysis),
    )


def _came_from(time: Figure, analysis: Analysis) -> str:
    return time.why if time.value is None else between_strips(analysis, time.value)


def push_lines(analysis: Analysis, rule: HoldRule = HoldRule.HIGHLIGHT) -> tuple[PushLine, ...]:
    """Every push and pull of a test, by the rule that one time is named by."""
    return tuple(_line(push, rule, analysis) for push in analysis.push)
