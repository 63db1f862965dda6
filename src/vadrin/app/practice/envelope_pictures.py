"""What the tester would have got, and what was right: the same scene on the film's true curve."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.looking import NO_PRINT, Looking, PaperUsed
from vadrin.app.pictures.seen import OnFilm, Seen, seen_on
from vadrin.app.practice.commitment import commitment_of
from vadrin.app.practice.practice_place import is_opened
from vadrin.app.practice.practice_questions import INDEX, TIME
from vadrin.app.practice.practice_words import questions_on
from vadrin.app.practice.practised_film import world_of
from vadrin.core.pictures.printing_paper import typical_paper
from vadrin.core.simulation.practice_development import PracticeDevelopment
from vadrin.core.simulation.practice_film import METER_CONSTANT


@dataclass(frozen=True, eq=False)
class EnvelopePicture:
    """One picture, and what it is of."""

    exposed: Exposed
    seen: Seen


def envelope_pictures(notebook: Path, shrunk: int = 4) -> tuple[EnvelopePicture, ...]:
    """The scene at what was committed to, and at what is true; nothing before the envelope opens.

    Parameters
    ----------
    notebook : Path
    shrunk : int
        Every so many points of the scene are shown.

    Raises
    ------
    FormatError
        If the envelope was changed.
    """
    if not is_opened(notebook):
        return ()
    if INDEX not in questions_on(notebook):
        return ()
    film, said = world_of(notebook.parent).film, commitment_of(notebook)
    normal = film.time_for_gradient()
    index = None if normal is None else film.zone_ei(normal)
    if normal is None or index is None:
        return ()
    mine = said.of(INDEX.key).value or index, said.of(TIME.key).value or normal
    made = []
    for name, (at, minutes) in (("as you said", mine), ("as it is", (index, normal))):
        on_film = OnFilm((PracticeDevelopment(film, minutes),), at, METER_CONSTANT)
        picture = seen_on(on_film, Looking(), PaperUsed(typical_paper(), NO_PRINT), shrunk)
        made.append(EnvelopePicture(Exposed(at, minutes, name=name), picture))
    return tuple(made)
