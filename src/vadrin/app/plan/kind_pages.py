"""The kinds of test in the tester's words, and what each starts with."""

from __future__ import annotations

from dataclasses import dataclass

TIMES, ONE_TIME, BRACKET, SECOND, ROLL = "times", "one time", "bracket", "second", "roll"


@dataclass(frozen=True)
class Kind:
    """One kind of test.

    Attributes
    ----------
    key : str
    question, sentence : str
        What the tester asks, and what is done about it.
    needs : tuple of str
        Which sentences of the plan it takes.
    times : tuple of float
        Minutes to begin with.
    first, last, step : float
        Bracket to begin with.
    second : str
        The other factor to begin with, as typed.
    second_words : str
        The sentence around it, with ``…`` where it stands.
    subject : str
    arrangement : str
    """

    key: str
    question: str
    sentence: str
    needs: tuple[str, ...] = (ONE_TIME, BRACKET, ROLL)
    times: tuple[float, ...] = (8.0,)
    first: float = -6.0
    last: float = 5.0
    step: float = 1.0
    second: str = ""
    second_words: str = ""
    subject: str = "plain target"
    arrangement: str = ""
    metered_seconds: float = 1 / 30


KINDS = (
    Kind("time", "How long do I develop it, for each push and pull?",
         "The same exposures on several strips, each developed for another time.",
         (TIMES, BRACKET, ROLL), (6.0, 8.0, 11.0, 15.0)),
    Kind("speed", "At which EI do I rate it, developed as I do?",
         "One development, from far under to far over.", step=0.5),
    Kind("push", "What does a push cost, and which is the last I can use?",
         "The film at its EI and pushed, a strip or a roll each.",
         (ONE_TIME, BRACKET, SECOND, ROLL), (6.5,), -4, 4, second="0, 1, 2",
         second_words="Pushed by … stops, a strip each; the time of each grows by a third a stop "
         "until yours are known."),
    Kind("mixed roll", "Can one roll carry several EIs?",
         "One roll at many EIs in a process left to stand, its twin in the normal one.",
         (TIMES, SECOND, ROLL), (60.0, 8.0), second="25, 50, 100, 200, 400, 800",
         second_words="Each exposure once at EI … on both rolls."),
    Kind("rescue", "Is this old film still worth using, and at which EI?",
         "From the marked speed down in whole stops, the last frames fogged for a clip.",
         (TIMES, BRACKET, ROLL), (8.0,), 0.0, 7.0, 1.0, subject="still scene"),
    Kind("compare", "How does it differ from the one I know?",
         "The same exposures in pairs: one for the reference, one for the other.",
         (ONE_TIME, BRACKET, ROLL), arrangement="interleaved"),
    Kind("clip", "Will this bottle still develop a roll?",
         "A piece fogged to full light, judged beside a piece known to be good.",
         (ONE_TIME,)),
    Kind("reciprocity", "How much longer in dim light?",
         "One exposure, short and bright, then ever longer and dimmer.",
         (ONE_TIME, SECOND), second="1, 4, 15, 60",
         second_words="The same exposure as … s, each also one and two stops longer."),
    Kind("colour", "What do colours do when it is pushed?",
         "A chart at the normal time and at each push.",
         (ONE_TIME, BRACKET, SECOND, ROLL), (6.5,), -4, 4, second="0, 1, 2",
         second_words="Pushed by … stops, a strip each.", subject="colour chart"),
    Kind("reversal", "Which exposure and which second step give the best positive?",
         "Camera exposure one way, the second factor the other: a grid of cells.",
         (ONE_TIME, BRACKET, SECOND, ROLL), first=-3, last=3, second="-1, 0, 1",
         second_words="The second exposure, flash or bleach in steps of …, a strip each."),
    Kind("paper", "What is the shortest time for full black?",
         "Steps through clear film on enlarging paper, in stops of time.",
         (BRACKET,), (8.0,), -2.0, 2.0, 1 / 3, subject="clear film", metered_seconds=8.0),
    Kind("process control", "Is the process where it was?",
         "Strips exposed alike now, one to go with every run.",
         (ONE_TIME, SECOND, ROLL), second="6", second_words="Make … strips from this batch."),
)  # fmt: skip
"""Every kind, in the order testers need them."""

BY_KEY = {kind.key: kind for kind in KINDS}


def numbers_of(words: str) -> tuple[float, ...]:
    """Numbers typed with commas or semicolons between them.

    Raises
    ------
    ValueError
        With words for the person who typed it.
    """
    from vadrin.app.display.quantities import number_typed

    pieces = words.replace(";", " ").replace(", ", " ").replace(",", " ").split()
    return tuple(number_typed(piece) for piece in pieces)
