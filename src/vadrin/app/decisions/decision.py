"""What a test is judged by, and the finding that is decided."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

from vadrin.app.decisions.darkroom_card import kept_card, present_card
from vadrin.app.decisions.decision_basis import basis_text
from vadrin.app.decisions.estimated_beside import estimated_report, with_estimate
from vadrin.app.descriptions import own_answer
from vadrin.app.document.analysis_input import channel_of, channels_read
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.choices import choice_typed
from vadrin.app.findings.decided_words import OWN_WORDS
from vadrin.app.loaded.light_boxes import light_box_result
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.results.conditions import conditions_report
from vadrin.app.results.rating import rating_of
from vadrin.app.results.report import answer_report, figure, report_of
from vadrin.app.stamps import now
from vadrin.core.channels import Channel
from vadrin.core.figure import Figure
from vadrin.core.planning.test_types import type_of
from vadrin.core.results.hold_rule import HoldRule
from vadrin.errors import StaleAnswerError
from vadrin.formats.whole_file import write_whole
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook


def choose_target(notebook: Notebook, test: Test, kind: str, value: float) -> None:
    """Choose what contrast a test is judged by."""
    with notebook.change("change the target"):
        notebook.put(replace(test, target_kind=kind, target_value=value))


def choose_method(notebook: Notebook, test: Test, method: str) -> None:
    """Choose whose EI a film is rated by: ``shadow`` or ``standard``."""
    with notebook.change("change the EI method"):
        notebook.put(replace(test, school=method))


def choose_push_rule(notebook: Notebook, test: Test, rule: HoldRule) -> None:
    """Choose what pushes hold, wherever one time is named."""
    with notebook.change("change the rule of pushes"):
        notebook.put(replace(test, push_rule=rule))


def channel_shown(loaded: LoadedTest) -> tuple[str, list[str]]:
    """The channel a test is worked out in, and those that were read."""
    return str(channel_of(loaded)), sorted(str(c) for c in channels_read(loaded))


def choose_channel(notebook: Notebook, loaded: LoadedTest, words: str) -> None:
    """Choose the channel a test is worked out in.

    Raises
    ------
    EntryError
        Listing what was read.
    """
    read = sorted(str(c) for c in channels_read(loaded)) or [str(Channel.VISUAL)]
    channel = choice_typed(words, read)
    with notebook.change("change the channel"):
        notebook.put(replace(loaded.test, channel=channel))


def sign(notebook: Notebook, finding: Finding, **words: str) -> None:
    """Write down who decided a finding (`decided_by`) and why (`note`)."""
    with notebook.change("sign the finding"):
        notebook.put(replace(finding, **words))  # type: ignore[arg-type]


def whole_report(state: State) -> dict[str, Any]:
    """The report of a test, with what its kind says in its own words and what an eye told."""
    loaded, analysis = state.loaded, state.settled()
    seen = {s.strip.label: light_box_result(loaded, s) for s in loaded.strips}
    by_eye = {label: figure(result.zone_ei) for label, result in seen.items() if result}
    made, own = report_of(analysis, loaded.title), own_answer(state)
    made |= {"answer": answer_report(own)} if own is not None else {}
    conditions = conditions_report(loaded)
    made |= {"conditions": conditions} if conditions else {}
    for known in conditions:
        if known["strip"] in made["strips"] and known["key"] in ("time", "temperature"):
            made["strips"][known["strip"]][f"{known['key']}_from"] = known["from"]
    return made | ({"light_box_zone_ei": by_eye} if by_eye else {})


def write_answer(path: Path, state: State, besides: dict[str, Any] | None = None) -> None:
    """Write the report of a test as JSON, with what stands in it besides.

    Raises
    ------
    OSError
        If it cannot be written.
    """
    words = json.dumps(whole_report(state) | (besides or {}), ensure_ascii=False, indent=1)
    write_whole(path, words.encode("utf-8"))


def decide(notebook: Notebook, state: State, when: str = "") -> Finding:
    """Write the finding down with the report it rests on, and the card as it stands.

    Raises
    ------
    StaleAnswerError
        If the answer is not that to the test as it is in the file.
    ValueError
        If there is no answer to decide on.
    """
    state = _as_in_the_file(notebook, state)
    loaded = state.loaded
    found = _decided(state)
    report = json.dumps(whole_report(state) | estimated_report(notebook, state))
    with notebook.change("decide the finding"):
        return notebook.add(
            replace(
                found,
                test_id=loaded.test.id,
                decided_at=when or now(),
                report=report,
                temperature_c=reference_of(loaded),
                basis=basis_text(loaded),
                card=kept_card(with_estimate(notebook, state, present_card(state))),
            )
        )


def _as_in_the_file(notebook: Notebook, state: State) -> State:
    """The test as it is in the file with the answer it is to be decided by.

    Raises
    ------
    StaleAnswerError
        If that is no answer to it.
    """
    loaded = load_test(notebook, state.loaded.test.id)
    if loaded is None:
        raise StaleAnswerError(f"“{state.loaded.title}” is not in the notebook any more")
    fresh = State(loaded, state.answer)
    fresh.settled()
    return fresh


def may_decide(state: State) -> bool:
    """Whether there is an answer to decide on."""
    if state.analysis is None:
        return False
    own = own_answer(state)
    return bool(own.says) if own is not None else rating_of(state).ready


def _decided(state: State) -> Finding:
    """The figures of a decision; an EI and a time of 0 where the kind asks for neither."""
    loaded = state.loaded
    own = own_answer(state)
    if own is None:
        answer = rating_of(state)
        index, minutes = answer.index.known(), answer.time_min.known()
        return Finding(
            exposure_index=index,
            time_min=minutes,
            target_kind=answer.target_kind,
            target_value=answer.target_value,
        )
    if not own.says:
        raise ValueError(own.words)
    rated, kind = own.figures.get("ei"), type_of(loaded.test.kind)
    if rated is None and kind is not None and kind.compares_materials:
        # The reference is a film that was tested like any other.
        rated = rating_of(state).index
    times = {s.minutes for s in loaded.strips if s.minutes}
    return Finding(
        exposure_index=(rated.value or 0.0) if isinstance(rated, Figure) else 0.0,
        time_min=times.pop() if len(times) == 1 else 0.0,
        target_kind=OWN_WORDS,
    )
