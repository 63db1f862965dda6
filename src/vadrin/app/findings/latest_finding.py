"""What the newest finding of a film in a developer says, for rolls that were shot otherwise."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from vadrin.app.findings.kept_report import KeptPush, KeptReport
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.core.figure import Figure, absent
from vadrin.core.planning.test_types.rescue import Rescue
from vadrin.core.results.hold_rule import HoldRule
from vadrin.notebook.records import Batch, Finding, Test
from vadrin.notebook.store import Notebook


@dataclass(frozen=True)
class LatestFinding:
    """The newest finding with an EI and a time.

    Attributes
    ----------
    exposure_index, time_min : float
    batch : str
        The batch that was found so, where the test's own is another, or was not said; else empty.
    rule : HoldRule
        What its pushes hold, wherever one time is named.
    pushes : tuple of KeptPush
        From the longest pull to the longest push.
    zone_ei : float or None
        The EI of its Zone I, whatever it is rated by.
    test_id : int
        The test it was found in.
    """

    exposure_index: float
    time_min: float
    rule: HoldRule
    pushes: tuple[KeptPush, ...]
    batch: str = ""
    zone_ei: float | None = None
    test_id: int = 0

    def minutes(self, stops: float, rule: str) -> Figure:
        """Minutes of a push by a rule; between two that were found on a scale of ln t."""
        return self._between(stops, lambda push: push.minutes.get(rule, absent("not found")), True)

    def shadow_lost(self, stops: float) -> Figure:
        """Stops of shadow a push costs."""
        return self._between(stops, lambda push: push.shadow_lost[self.rule.value], False)

    def _between(self, stops: float, of: Callable[[KeptPush], Figure], by_ratio: bool) -> Figure:
        known = [(p.stops, of(p)) for p in self.pushes if of(p).value is not None]
        below = max((k for k in known if k[0] <= stops), key=lambda k: k[0], default=None)
        above = min((k for k in known if k[0] >= stops), key=lambda k: k[0], default=None)
        if below is None or above is None:
            return absent("not among the pushes that were found")
        (low, one), (high, other) = below, above
        share = 0.0 if high == low else (stops - low) / (high - low)

        def mixed(a: float | None, b: float | None) -> float | None:
            if a is None or b is None:
                return None
            return float(a * (b / a) ** share) if by_ratio else a + share * (b - a)

        ends = mixed(one.low, other.low), mixed(one.high, other.high)
        return Figure(mixed(one.value, other.value), *ends)


def latest_finding(notebook: Notebook, test: Test) -> LatestFinding | None:
    """The newest finding of a test's film in its developer; None for none.

    One of the same batch comes first; one of another is marked with its batch. What was found of
    old film says nothing of fresh film.
    """
    same = {
        t.id: t
        for t in notebook.all(Test, stock_id=test.stock_id, developer_id=test.developer_id)
        if t.kind != Rescue.key
    }
    known = notebook.all_of(Finding, "test_id", list(same))
    # A finding says 0 for an EI or a time it has no answer to.
    found = [f for f in known if f.exposure_index > 0 and f.time_min > 0]
    if not found:
        return None
    mine = [f for f in found if same[f.test_id].batch_id == test.batch_id]
    newest = (mine or found)[-1]
    of = notebook.get(Batch, same[newest.test_id].batch_id or 0) if not mine else None
    rule = same[newest.test_id].push_rule
    report = KeptReport.from_json(newest.report)
    return LatestFinding(
        newest.exposure_index,
        newest.time_min,
        rule,
        report.pushes,
        of.name if of else "",
        report.zone_ei.value,
        newest.test_id,
    )


def latest_finding_beside(loaded: LoadedTest) -> LatestFinding | None:
    """What a test is laid beside that asks for the newest finding of its film."""
    return loaded.beside if isinstance(loaded.beside, LatestFinding) else None
