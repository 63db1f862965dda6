"""A test and an answer as one state, for tests of what is said of it."""

from vadrin.app.document.analysis_input import analyse_as
from vadrin.app.document.state import State, WorkedOut


def state_of(loaded, analysis=None):
    """The state of a test whose answer was worked out for it as it is."""
    state = State(loaded)
    return State(loaded, WorkedOut(state.question, analysis) if analysis is not None else None)


def worked_out(loaded):
    """What a test's readings come to, worked out anew."""
    return analyse_as(*State(loaded).question)
