"""Practice from the window: a film nobody knows, and its envelope once it was decided on."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from vadrin.app.document.workbench import Workbench
from vadrin.app.practice.practice_place import is_practice, practice_place
from vadrin.errors import VadrinError
from vadrin.ui.widgets.banner import Banner


class Practice:
    """Begins a practice film, and opens its envelope.

    Parameters
    ----------
    bench : Workbench
    banner : Banner
        Says what the envelope holds, or why it stays closed.
    open_notebook : callable
        Opens a notebook in the window.
    """

    def __init__(
        self, bench: Workbench, banner: Banner, open_notebook: Callable[[Path], object]
    ) -> None:
        self._bench, self._banner, self._open = bench, banner, open_notebook

    def begin(self) -> None:
        """Make a film and open its notebook; what was open stays as it is in its file."""
        # Here, not above: the first window need not wait for numbers.
        from vadrin.app.practice.practice_notebook import begin_practice

        try:
            self._open(begin_practice(practice_place()))
        except (VadrinError, OSError) as error:
            self._banner.complain(f"No practice film could be made: {error}")

    def possible(self) -> bool:
        """Whether an envelope lies beside the open notebook."""
        return is_practice(self._bench.notebook.path)

    def open_envelope(self) -> None:
        """Say what it holds."""
        from vadrin.app.practice.practice_notebook import envelope_told

        try:
            lines = envelope_told(self._bench.notebook.path, self._bench.loaded)
        except VadrinError as error:
            self._banner.complain(f"The envelope stays closed: {error}.")
            return
        self._banner.tell(lines[0], "\n".join(lines[1:]))
