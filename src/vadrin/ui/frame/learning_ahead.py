"""What the past tests tell, worked out behind the window before a plan or a finding asks."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from vadrin.app.decisions.not_decided import come_to, next_read_test
from vadrin.app.document.workbench import Topic, Workbench
from vadrin.app.learning.learnt_overview import asked_of, learnt_overview
from vadrin.app.learning.left_out import estimates_left_out
from vadrin.app.learning.read_tests import keep_read_test
from vadrin.ui.jobs import Jobs, Said

if TYPE_CHECKING:
    from vadrin.app.loaded.loaded_test import LoadedTest
    from vadrin.notebook.records import Finding
    from vadrin.notebook.store import Notebook

_JOB = "read tests"


class LearningAhead:
    """Works out the tests nobody decided on, one a job, so that an answer asked for comes first.

    Parameters
    ----------
    jobs : Jobs
    bench : Workbench
    """

    def __init__(self, jobs: Jobs, bench: Workbench) -> None:
        self._jobs, self._bench = jobs, bench
        self._here: object = None
        self._learnt = 0
        bench.changed.connect(self._note)
        self._overview()
        self._note(Topic.SHEET)

    def _note(self, _topic: Topic) -> None:
        here = self._bench.notebook, self._on_the_bench()
        if here != self._here and not estimates_left_out():
            self._here = here
            # In the queue behind the answer to the test that was opened.
            self._jobs.run(_JOB, lambda _said: None, self._go_on)

    def _on_the_bench(self) -> int:
        return self._bench.loaded.test.id if self._bench.loaded is not None else 0

    def _go_on(self, _made: object) -> None:
        notebook = self._bench.notebook
        loaded = next_read_test(notebook, self._on_the_bench())
        if loaded is not None:
            kept = partial(self._keep, notebook, loaded.test.id)
            self._jobs.run(_JOB, partial(_worked_out, loaded), kept)
        elif self._learnt:
            self._learnt = 0
            self._overview()
            self._bench.changed.emit(Topic.ANALYSIS)

    def _keep(self, notebook: Notebook, test_id: int, made: Finding | None) -> None:
        keep_read_test(notebook, test_id, made)
        self._learnt += made is not None
        self._go_on(None)

    def _overview(self) -> None:
        asked = asked_of(self._bench.notebook)
        self._jobs.run("learnt ahead", lambda _said: learnt_overview(asked), lambda _told: None)


def _worked_out(loaded: LoadedTest, said: Said) -> Finding | None:
    return come_to(loaded, lambda: said(0, 1))
