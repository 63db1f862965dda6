"""Loading what the first edit and the first answer need, before they are asked for.

What stands in these lists is imported inside functions, or by rooms that are loaded later.
"""

from __future__ import annotations

from collections.abc import Iterable
from importlib import import_module

from vadrin.formats.reports.card import Card, CardRow
from vadrin.formats.reports.card_pdf import card_pdf

STORAGE = ("vadrin.notebook.record_writer",)
"""What the first edit is written with."""
NUMERICS = ("vadrin.core.results.analysis", "vadrin.app.plan.expected_curves")
"""What every answer is worked out with."""
ANSWERS = (
    "vadrin.app.descriptions",
    "vadrin.core.exposure.long_exposure_pairs",
    "vadrin.core.printing.paper_curve",
    "vadrin.core.results.paired_frames",
)
"""What types of test answer by, each of which few tests need."""
CARDS = ("vadrin.formats.reports.card_pdf", "reportlab.platypus")
"""What a card is set with."""
COLOURS = ("coloraide",)
"""What tells colours apart, for tests that show a chart."""


def preload(names: Iterable[str]) -> None:
    """Load modules by their names."""
    for name in names:
        import_module(name)


def work_out_once() -> None:
    """Work out what every answer uses and nothing changes."""
    from vadrin.app.plan.expected_curves import expected_film
    from vadrin.core.fitting.student_t import t_quantile

    t_quantile(0.975, 30.0)
    expected_film(100.0, None)


def set_a_card_once() -> None:
    """Set a card that nobody sees: the first one registers the typefaces, and takes twice as
    long as any other."""
    rows = (CardRow("push 1", "800", "12:00", "", ""),)
    card_pdf(Card("film", "developer", "20 °C", "", "", "", "400", "", "9:00", "", rows, "rule"))
