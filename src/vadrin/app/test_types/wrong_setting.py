"""A roll shot at another film's EI: the push or pull it is, its time, and what that costs."""

from __future__ import annotations

from math import log2

from vadrin.app.descriptions.answer_in_words import AnswerTable, OwnAnswer
from vadrin.app.descriptions.description import PlanSentence, TestDescription
from vadrin.app.display.marks import marked_ei, stops_counted
from vadrin.app.display.quantities import minutes_range_text, minutes_text, shadow_detail_text
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.document.state import State
from vadrin.app.document.stations import key_to
from vadrin.app.expose.wrong_setting import of_batch
from vadrin.app.findings.kept_report import PUSH_RULES
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding_beside
from vadrin.app.findings.rolls_since import frames_usable
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.makers_told import makers_of_test
from vadrin.app.loaded.reference_temperature import reference_words
from vadrin.app.results.push_rows import PUSH_RULE_NAMES
from vadrin.app.results.working_steps import Step
from vadrin.core.exposure.arithmetic import nearest_third
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types.wrong_setting import WrongSetting
from vadrin.core.process.makers_table import makers_minutes
from vadrin.core.results.push import shadow_verdict
from vadrin.core.wording import counted

_HEARSAY = ("makers_table", "fixed_share")
_HEADS = ("Rule", "Whole roll", "Rests on")
_WHY = {
    "hold_highlight": "highlights as dense as normal",
    "hold_midtone": "mid-tones as dense as normal",
    "hold_contrast": "keeps the scene's contrast",
}


def _rows(found: LatestFinding, stops: float) -> tuple[tuple[str, str, str], ...]:
    made = []
    for rule in PUSH_RULES:
        minutes = found.minutes(stops, rule)
        shown = "—" if minutes.value is None else f"{minutes_text(minutes.value)} min"
        rests = "not measured, a rule" if rule in _HEARSAY else "this film's own curves"
        name = (
            f"{PUSH_RULE_NAMES[rule]}, as you work"
            if rule == found.rule.value
            else PUSH_RULE_NAMES[rule]
        )
        made.append((name, shown, minutes.why or rests))
    return tuple(made)


def _other_ways(found: LatestFinding, stops: float) -> str:
    """The other rules' times in a line, each with a word why one would go by it."""
    own = found.minutes(stops, found.rule.value).value
    ways = []
    for rule in PUSH_RULES:
        minutes = found.minutes(stops, rule).value
        if rule == found.rule.value or minutes is None:
            continue
        why = _WHY.get(rule, "not measured here")
        if own is not None and minutes < 0.97 * own:
            why = f"softer: {why}, thinner negatives"
        elif own is not None and minutes > 1.03 * own:
            why = f"harder: {why}, denser negatives"
        ways.append(f"{PUSH_RULE_NAMES[rule]}, {minutes_text(minutes)} min ({why})")
    return f"Other ways: {'; '.join(ways)}." if ways else ""


def _name(stops: float) -> str:
    if stops == 0:
        return "Normal"
    return f"{'Push' if stops > 0 else 'Pull'} {stops_counted(abs(stops))}"


def _untested(state: State) -> OwnAnswer:
    """What is known of a roll whose film was not tested: the maker's figure, if there is one."""
    loaded = state.loaded
    shot, box = loaded.test.exposure_index, loaded.stock.box_speed
    stops = nearest_third(log2(shot / box))
    told = makers_minutes(makers_of_test(loaded), stops)
    if told is None:
        return OwnAnswer(
            "",
            "this film in this developer has no finding with an EI and a time yet, and no maker's "
            "time is kept for it",
            f"Type the maker's times at Process ({key_to('process')}), or test the film first. The "
            "roll keeps, cold and dry, until then.",
        )
    figures: dict[str, Figure | float | None] = {"push_stops": stops, "time_min": Figure(told)}
    return OwnAnswer(
        f"Develop {minutes_text(told)} min",
        f"at {reference_words(loaded)}, the maker's figure, not measured here. {_name(stops)}: "
        f"shot at EI {marked_ei(shot)}, and the box says {marked_ei(box)}",
        "Develop a clip first where the pictures matter, and then the whole roll.",
        figures,
        steps=_steps(loaded, _name(stops), told),
    )


def _steps(loaded: LoadedTest, name: str, minutes: float) -> tuple[Step, ...]:
    """What is done with the roll: its label, then the tank."""
    time, shot = minutes_text(minutes), marked_ei(loaded.test.exposure_index)
    return (
        ("Label", f"“{name.lower()}, shot at EI {shot}, {time}” on the roll"),
        (
            "Develop",
            f"{time} min in {loaded.developer.bath} at {reference_words(loaded)}, the whole roll",
        ),
    )


def _is_pushed(loaded: LoadedTest, found: LatestFinding, stops: float) -> str:
    shot = marked_ei(loaded.test.exposure_index)
    return (
        f"{_name(stops)}: shot at EI {shot}, and this film was found to be EI "
        f"{marked_ei(found.exposure_index)} here{of_batch(found.batch, loaded)}"
    )


def _cost(stops: float, lost: Figure) -> str:
    """What the push costs in shadow, or the pull gives."""
    if lost.value is not None and stops > 0:
        verdict = shadow_words(shadow_verdict(lost.value))
        return f". Shadow detail: {shadow_detail_text(lost.value)}, {verdict}"
    return ". The shadows gain what the pull gives" if stops < 0 else ""


def wrong_setting_answer(state: State) -> OwnAnswer:
    """What to do with a roll at another setting: its time first, then what it is and costs."""
    loaded = state.loaded
    found = latest_finding_beside(loaded)
    if found is None:
        return _untested(state)
    stops = nearest_third(log2(loaded.test.exposure_index / found.exposure_index))
    minutes, lost = found.minutes(stops, found.rule.value), found.shadow_lost(stops)
    if stops == 0:
        minutes, lost = Figure(found.time_min), Figure(0.0)
    figures: dict[str, Figure | float | None] = {
        "push_stops": stops,
        "found_ei": found.exposure_index,
        "time_min": minutes,
        "shadow_lost": lost,
    }
    rows = _rows(found, stops)
    table = AnswerTable(_HEADS, rows, _other_ways(found, stops)) if stops else None
    words = _is_pushed(loaded, found, stops)
    if minutes.value is None:
        words = f"{words}. Its time was not tested: {minutes.why}"
        act = f"Develop a strip that reaches {_name(stops).lower()}, or use a rule of thumb below."
        return OwnAnswer(_name(stops), words, act, figures, table)
    reach = f", {minutes_range_text(minutes)}" if minutes.low is not None else ""
    at = f"in {loaded.developer.bath} at {reference_words(loaded)}"
    words = f"{at}{reach}. {words}{_cost(stops, lost)}"
    done = any(s.strip.time_min for s in loaded.strips)
    act = _then(loaded) if done else _CLIP_FIRST
    says = f"Develop {minutes_text(minutes.value)} min"
    steps = _steps(loaded, _name(stops), minutes.value)
    return OwnAnswer(says, words, act, figures, table, steps=steps)


_CLIP_FIRST = "Develop a clip first where the pictures matter, and then the whole roll."


def _then(loaded: LoadedTest) -> str:
    """What a developed roll still has to say: whether it was right."""
    usable, judged = frames_usable(loaded)
    if not judged:
        return f"Was it right? Give its frames verdicts at Read ({key_to('read')})."
    return f"{usable} of {counted(judged, 'frame')} usable: the finding counts this roll."


DESCRIPTION = TestDescription(
    WrongSetting.key,
    "I metered at the wrong EI. How do I develop this roll?",
    "A roll of pictures, whole: which push or pull it is, and its time.",
    sentences=(PlanSentence.ONE_TIME, PlanSentence.ROLL),
    subject="pictures",
    kit="the roll, its developer, tank",
    answer=wrong_setting_answer,
)
