"""Estimates from other tests: how they fare, and whether they are used."""

from __future__ import annotations

from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.learning.left_out import estimates_left_out, leave_estimates_out
from vadrin.ui.widgets.banner import Banner

_TOO_FEW = "Three films decided on in one developer, with two times each, can foretell a fourth."


def turn_estimates(bench: Workbench) -> None:
    """Use them, or leave them out of every answer."""
    left_out = not estimates_left_out()
    leave_estimates_out(left_out)
    bench.said.emit(f"Estimates from other tests are {'left out' if left_out else 'used'}.")
    bench.changed.emit(Topic.EVERYTHING)


def tell_how_they_fare(bench: Workbench, banner: Banner) -> None:
    """Every test in the developer of this one, foretold by the others."""
    # Imported here so that the first window need not wait for numpy.
    from vadrin.app.learning.estimated_time import foretold_lines

    loaded = bench.loaded
    lines = foretold_lines(bench.notebook, loaded.test.developer_id) if loaded else ()
    if not lines:
        banner.tell("Nothing is estimated from other tests yet", _TOO_FEW)
        return
    banner.tell(lines[0], "\n".join(lines[1:]))
