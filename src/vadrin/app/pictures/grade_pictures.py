"""Pictures of a paper test: the newest film that was decided on, printed on this paper's grades."""

from __future__ import annotations

from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.findings.latest_finding import LatestFinding, latest_finding
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.looking import PaperUsed
from vadrin.app.printing.grade_choice import grades_known
from vadrin.app.printing.paper_answer import paper_curve_of
from vadrin.core.pictures.printing_paper import measured_paper, typical_paper
from vadrin.core.planning.test_types.colour_push import ColourPush
from vadrin.notebook.records import Finding, Test
from vadrin.notebook.store import Notebook

_TYPICAL = (("0", 1.5), ("2", 1.05), ("4", 0.7))
"""Exposure scales of papers nobody measured, for where a tester keeps no grade."""
_MOST, _WORTH_LAYING = 5, 2
"""Papers that are shown, and grades of one's own beside which no typical one is needed."""
_ALIKE = 0.12
"""Exposure scales nearer than this are one grade."""


def film_to_print(notebook: Notebook) -> tuple[LoadedTest, LatestFinding] | None:
    """The newest black-and-white negative film that was decided on, and what was found of it."""
    for finding in reversed(notebook.all(Finding)):
        test = notebook.get(Test, finding.test_id)
        timed = finding.exposure_index > 0 and finding.time_min > 0
        if test is None or not timed or test.kind == ColourPush.key:
            continue
        found = latest_finding(notebook, test)
        loaded = load_test(notebook, found.test_id) if found is not None else None
        if found is not None and loaded is not None and not loaded.density_falls:
            return loaded, found
    return None


def on_grades(notebook: Notebook, state: State) -> tuple[tuple[State, Exposed], ...]:
    """The same negative on the paper that was tested and on its other grades, hard to soft."""
    chosen = film_to_print(notebook)
    if chosen is None:
        return ()
    other, found = chosen
    return tuple(
        (
            State(other),
            Exposed(
                found.exposure_index,
                found.time_min,
                name=name,
                cost=other.title,
                normal=used.paper.measured,
                paper=used,
            ),
        )
        for name, used in _papers(notebook, state)
    )


def _papers(notebook: Notebook, state: State) -> tuple[tuple[str, PaperUsed], ...]:
    """This paper by its own curve first; then grades by their scales, from hard to soft."""
    loaded = state.loaded
    made = paper_curve_of(loaded)
    papers: list[tuple[str, PaperUsed]] = []
    if not isinstance(made, str) and made.d_max.present:
        own = made.exposure_scale.value
        told = f", scale {own:.2f}" if own is not None else ""
        name = f"as tested{told}"
        curve = measured_paper(made.log_h, made.density)
        papers.append((name, PaperUsed(curve, f"this paper, by its own curve{told}")))
    kept = grades_known(notebook, loaded, loaded.test.paper_id)
    known = [(g, s, "measured" if m else "its maker's") for g, s, m, _ in kept]
    if len(known) < _WORTH_LAYING:
        known += [
            (g, s, "typical") for g, s in _TYPICAL if all(abs(s - k[1]) > _ALIKE for k in known)
        ]
    for grade, scale, how in sorted(known, key=lambda each: each[1]):
        name = f"grade {grade}, scale {scale:.2f}, {how}"
        papers.append((name, PaperUsed(typical_paper(scale), name)))
    return tuple(papers[:_MOST])
