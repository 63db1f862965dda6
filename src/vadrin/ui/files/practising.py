"""Practice from the window: a film nobody knows, and its envelope once it was decided on."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from vadrin.app.document.workbench import Workbench
from vadrin.app.practice.practice_place import is_practice, practice_place
from vadrin.ui.jobs import Jobs, Said
from vadrin.ui.widgets.banner import Banner

_PRACTICE = "practice"


class Practice:
    """Begins a practice film, and opens its envelope; neither keeps the screen waiting.

    Parameters
    ----------
    bench : Workbench
    banner : Banner
        Says what the envelope holds, or why it stays closed.
    jobs : Jobs
    open_notebook : callable
        Opens a notebook in the window.
    """

    def __init__(
        self, bench: Workbench, banner: Banner, jobs: Jobs, open_notebook: Callable[[Path], None]
    ) -> None:
        self._bench, self._banner, self._jobs, self._open = bench, banner, jobs, open_notebook

    def begin(self) -> None:
        """Make a film and open its notebook; what was open stays as it is in its file."""

        def work(_said: Said) -> Path:
            # Here, not above: the first window need not wait for numbers.
            from vadrin.app.practice.practice_notebook import begin_practice

            return begin_practice(practice_place())

        self._jobs.run(_PRACTICE, work, self._open, self._not_made)

    def possible(self) -> bool:
        """Whether an envelope lies beside the open notebook."""
        return is_practice(self._bench.notebook.path)

    def open_envelope(self) -> None:
        """Say what it holds."""
        path, loaded = self._bench.notebook.path, self._bench.loaded

        def work(_said: Said) -> list[str]:
            from vadrin.app.practice.practice_notebook import envelope_told

            return envelope_told(path, loaded)

        self._jobs.run(_PRACTICE, work, self._tell, self._stays_closed)

    def _tell(self, lines: list[str]) -> None:
        self._banner.tell(lines[0], "\n".join(lines[1:]))

    def _not_made(self, error: Exception) -> None:
        self._banner.complain(f"No practice film could be made: {error}")

    def _stays_closed(self, error: Exception) -> None:
        self._banner.complain(f"The envelope stays closed: {error}.")
