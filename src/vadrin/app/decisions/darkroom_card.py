"""What stands on a darkroom card, taken from a test and its analysis."""

from __future__ import annotations

import json
from dataclasses import asdict, replace
from pathlib import Path
from typing import Any

from vadrin.app.decisions.decision_basis import changes_since_decision
from vadrin.app.descriptions import description_of, own_answer
from vadrin.app.descriptions.answer_in_words import OwnAnswer
from vadrin.app.display.marks import marked_ei
from vadrin.app.display.quantities import (
    ei_range_text,
    minutes_range_text,
    minutes_text,
    times_tested_text,
)
from vadrin.app.display.region import local_all
from vadrin.app.display.verdict_words import shadow_words
from vadrin.app.display.words import counted, date_text
from vadrin.app.document.state import State
from vadrin.app.findings.decided_words import decided_text
from vadrin.app.loaded.black_setup import black_setup
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.results.conditions import (
    PLANNED,
    assumed_words,
    is_developed,
    planned_diagnostics,
    planned_words,
)
from vadrin.app.results.headline import headline_of
from vadrin.app.results.overexposure import overexposure_words
from vadrin.app.results.provenance import provenance
from vadrin.app.results.push_rows import RULE_NAMES, push_lines
from vadrin.app.results.rating import rating_of
from vadrin.app.results.target_words import target_text
from vadrin.app.results.working_steps import developed_steps, to_be_minded
from vadrin.core.diagnostic import Severity
from vadrin.formats.reports.card import CARD_SIZES, Card, CardRow
from vadrin.formats.reports.card_pdf import card_pdf
from vadrin.formats.reports.sheet_picture import SheetPicture
from vadrin.formats.whole_file import safe_name, write_whole
from vadrin.notebook.records import Finding

CARE = "Follow the makers' sheets and local rules for every chemical; gloves, eye protection, air."

_MOST_LINES, _LONGEST = 400, 200_000
"""Rows and letters of a kept card: one of more was written by no decision."""

NOT_DECIDED = "not decided"
"""Stands on a card in the place of the day it was decided."""

__all__ = ["CARD_SIZES", "card_document", "card_of"]


def card_document(card: Card, size: str, pictures: tuple[SheetPicture, ...] = ()) -> bytes:
    """A card as a PDF page of a size, with small pictures where they are asked for."""
    return card_pdf(local_all(card), size, pictures)


def card_file_name(loaded: LoadedTest, of: str = "") -> str:
    """The name its file is offered under; `of` names the push it is a card of."""
    stem = "-".join(f"card {loaded.title} {loaded.developer.name} {of}".lower().split())
    return safe_name(stem, ".pdf")


def write_card(path: Path, document: bytes) -> None:
    """Write a card's page.

    Raises
    ------
    OSError
    """
    write_whole(path, document)


def _rows(state: State) -> tuple[CardRow, ...]:
    loaded, analysis = state.loaded, state.settled()
    return tuple(
        CardRow(
            line.name,
            line.index,
            line.time.shown,
            line.loss,
            shadow_words(line.verdict) if line.verdict else "",
            line.normal,
        )
        for line in push_lines(analysis, loaded.test.push_rule)
        if line.known
    )


def _basis(state: State) -> str:
    loaded, analysis = state.loaded, state.settled()
    answer = rating_of(state)
    if answer.judged is not None:
        words = f"{answer.judged.basis(loaded)}; no density was read."
        return words + assumed_words(loaded) + prints_at(loaded)
    readings = sum(len(f.readings) for _, f in loaded.frames())
    strips = len(analysis.strips)
    words = f"Based on {counted(strips, 'strip')}, {counted(readings, 'reading')}"
    planned = loaded.only_planned()
    times = [s.time_min for s in analysis.strips if s.time_min and s.label not in planned]
    if times:
        words += f", {times_tested_text(min(times), max(times))}"
    if planned:
        words += f", {planned_words(loaded)}"
    target = target_text(answer.target_kind, answer.target_value)
    words += f"; judged by {target}, {analysis.settings.method} method."
    over = overexposure_words(state)
    words += f" {over}" if over else ""
    return words + assumed_words(loaded) + prints_at(loaded)


def prints_at(loaded: LoadedTest) -> str:
    """What a card says of printing, after a space; empty before maximum black was found."""
    setup = black_setup(loaded)
    if setup is None or not setup.black_s:
        return ""
    grade = f" on grade {setup.grade}" if setup.grade else ""
    size = f", {setup.image_size}" if setup.image_size else ""
    return f" Prints at {setup.black_s:.1f} s{grade}{size}."


def card_of(state: State) -> Card | None:
    """The card of a test: of its decision, or of the present answer, said to be not decided.

    None while there is nothing to print.
    """
    loaded = state.loaded
    if loaded.findings:
        present = present_card(state) if state.analysis is not None else None
        return decided_card(loaded, present)
    return present_card(state)


def kept_card(card: Card | None) -> str:
    """A card as a finding keeps it."""
    return json.dumps(asdict(card), ensure_ascii=False) if card else ""


def decided_card(loaded: LoadedTest, present: Card | None) -> Card:
    """The card a test was decided with, whatever was changed since.

    A decision from before cards were kept has its EI and time; its pushes only where what it
    rested on is unchanged, so that they can be worked out again.
    """
    last = loaded.findings[-1]
    status = f"decided {date_text(last.decided_at)}"
    signed = _signed(last)
    kept = _card_kept(last)
    if kept is not None:
        return replace(kept, status=status, signed=signed)
    if present is not None and changes_since_decision(loaded) is None:
        return replace(present, status=status, signed=signed)
    if last.exposure_index <= 0:
        return replace(
            plain_card(loaded),
            says=decided_text(last),
            status=status,
            signed=signed,
            basis="What this rested on was changed since it was decided.",
        )
    return replace(
        plain_card(loaded),
        exposure_index=str(marked_ei(last.exposure_index)),
        time=minutes_text(last.time_min),
        temperature=f"at {last.temperature_c:g} °C",
        status=status,
        signed=signed,
        basis="What this rested on was changed since it was decided.",
    )


def _card_kept(finding: Finding) -> Card | None:
    """The card a finding keeps; None where it keeps none, or something else stands there."""
    try:
        kept = json.loads(finding.card)
        rows = tuple(_row_kept(row) for row in kept.pop("rows"))
        lines = tuple(tuple(str(c) for c in line) for line in kept.pop("lines", ()))
        if len(lines) > _MOST_LINES or len(finding.card) > _LONGEST:
            return None
        steps = tuple((str(name), str(words)) for name, words in kept.pop("steps", ()))
        mind = tuple(str(words) for words in kept.pop("mind", ()))
        notes = tuple(str(words) for words in kept.pop("diagnostics"))
        plain = {name: str(words) for name, words in kept.items()}
        return Card(rows=rows, lines=lines, steps=steps, mind=mind, diagnostics=notes, **plain)
    except (ValueError, TypeError, KeyError, AttributeError):
        return None


def _row_kept(row: dict[str, Any]) -> CardRow:
    normal = row.pop("normal", False) is True
    return CardRow(normal=normal, **{name: str(words) for name, words in row.items()})


def _signed(finding: Finding) -> str:
    """Who decided, and what they wrote of it; empty where nobody signed."""
    by = f"Decided by {finding.decided_by}." if finding.decided_by else ""
    return f"{by} {finding.note}".strip()


def part_status(loaded: LoadedTest) -> str:
    """What a card of a part of an answer says of the decision: its figures are the present ones."""
    if not loaded.findings:
        return NOT_DECIDED
    day = date_text(loaded.findings[-1].decided_at)
    return f"decided {day}" if changes_since_decision(loaded) is None else f"changed since {day}"


def plain_card(loaded: LoadedTest) -> Card:
    """What stands on a card before anything was found."""
    batch = f", batch {loaded.batch.name}" if loaded.batch and loaded.batch.name else ""
    return Card(
        film=loaded.stock.name + batch,
        developer=loaded.developer.bath,
        temperature=f"at {reference_of(loaded):g} °C",
        agitation=loaded.test.agitation if is_developed(loaded) else "",
        status=NOT_DECIDED,
        care=CARE,
        purpose=description_of(loaded.test.kind).question,
        mind=to_be_minded(loaded),
    )


def kind_card(state: State, answer: OwnAnswer) -> Card | None:
    """The card of a kind that answers for itself; None while it says nothing."""
    if not answer.says:
        return None
    loaded = state.loaded
    tables = [t for t in (answer.table, *answer.more) if t is not None]
    lines = tuple(line for t in tables for line in (t.heads, *t.rows))
    act = "" if answer.act == answer.words else answer.act
    how = f"{answer.words[:1].upper()}{answer.words[1:]}"
    return replace(
        plain_card(loaded),
        says=answer.says,
        says_how=how,
        lines=lines,
        steps=answer.steps or developed_steps(loaded),
        basis=" ".join((*provenance(state), act)).strip()
        + assumed_words(loaded)
        + prints_at(loaded),
        diagnostics=tuple(w.sentence for w in planned_diagnostics(loaded)),
    )


def present_card(state: State) -> Card | None:
    """The card of the present answer, as its type of test has it; None while there is none."""
    own_card = description_of(state.loaded.test.kind).card
    if own_card is not None:
        return own_card(state)
    own = own_answer(state)
    return kind_card(state, own) if own is not None else usual_card(state)


def _index_card(state: State) -> Card | None:
    """The card of an EI whose time nothing tells yet; None where there is no EI either."""
    head, loaded = headline_of(state), state.loaded
    if not head.index:
        return None
    return replace(
        plain_card(loaded),
        says=head.index,
        says_how=f"{head.index_note}. {head.time_note}".rstrip(". ") + ".",
        steps=(("Set", f"the meter to {head.index}"), *developed_steps(loaded)),
        basis=" ".join(provenance(state)) + assumed_words(loaded),
    )


def usual_card(state: State) -> Card | None:
    """The card of an EI and a time; None while there are none to print."""
    loaded, analysis = state.loaded, state.settled()
    answer = rating_of(state)
    if answer.index.value is None or answer.time_min.value is None:
        return _index_card(state)
    return replace(
        plain_card(loaded),
        exposure_index=str(marked_ei(answer.index.value)),
        index_range=ei_range_text(answer.index),
        time=minutes_text(answer.time_min.value),
        time_range=minutes_range_text(answer.time_min)
        or (PLANNED if loaded.only_planned() else ""),
        rows=_rows(state),
        rule=RULE_NAMES[loaded.test.push_rule],
        basis=_basis(state),
        diagnostics=tuple(
            w.sentence
            for w in (*planned_diagnostics(loaded), *analysis.diagnostics)
            if w.severity is Severity.SERIOUS
        ),
    )
