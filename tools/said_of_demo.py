"""What the program says of every test of the demo, by each of its public functions.

::

    python tools/said_of_demo.py                keeps it, a line for each function
    python tools/said_of_demo.py NAME           prints in full what one of them says
    python tools/said_of_demo.py --lines        prints the lines, and keeps nothing

Every public function of ``vadrin.app`` and ``vadrin.core`` that asks for nothing but a notebook,
a test, its parts or its answer, words or numbers, is called with those of the demo. The tests
compare the lines: whoever changes what is said, or a number anywhere under it, sees which
functions say something else, and keeps the lines anew once that was meant.
"""

from __future__ import annotations

import inspect
import pkgutil
import sys
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from importlib import import_module
from itertools import islice, product
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]

import numpy as np  # noqa: E402

from tools.kept_lines import line_of, parts_of  # noqa: E402
from vadrin.app.decisions.darkroom_card import usual_card  # noqa: E402
from vadrin.app.descriptions import own_answer  # noqa: E402
from vadrin.app.document.state import State, answered  # noqa: E402
from vadrin.app.document.test_loading import load_tests  # noqa: E402
from vadrin.app.expose.film_words import film_words  # noqa: E402
from vadrin.app.pictures.exposed import exposed_of  # noqa: E402
from vadrin.app.pictures.looking import Looking, paper_used  # noqa: E402
from vadrin.app.plan.expected_curves import expected_film, prior_finding  # noqa: E402
from vadrin.app.plan.plan_edit import plan_edit_of  # noqa: E402
from vadrin.app.plan.plan_forecast import forecast_input  # noqa: E402
from vadrin.app.process.darkroom_runs import clock_before  # noqa: E402
from vadrin.app.process.rules_of_thumb import all_rules  # noqa: E402
from vadrin.app.process.uptime import Moment  # noqa: E402
from vadrin.app.results.rating import rating_of  # noqa: E402
from vadrin.core.channels import Channel  # noqa: E402
from vadrin.core.results.hold_rule import HoldRule  # noqa: E402
from vadrin.errors import VadrinError  # noqa: E402
from vadrin.notebook.records import RECORDS, Test  # noqa: E402
from vadrin.notebook.store import Notebook  # noqa: E402

KEPT = ROOT / "tests" / "app" / "said_of_demo.txt"
DEMO = ROOT / "src" / "vadrin" / "app" / "demo" / "demo.vadrin"
_ROOMS = ("app", "core")
_ELSEWHERE = ("practice", "document", "demo", "library", "simulation")
"""Rooms that are asked otherwise: what is not of a test, or is of a machine."""
_GUIDE = "pages that are written by hand"
_LONG, _OF_TODAY = "takes long; asked by others, for what it is meant for", "of this day"
_NOT_ASKED = {
    "app.plan.smallest_plan.smallest_plan": _LONG,
    "app.curves.at_a_time.at_the_time": _LONG,
    "app.plan.variants.start_variant": _LONG,
    "core.materials.colour.colour_negative_speed": _LONG,
    "core.materials.colour.colour_reversal_speed": _LONG,
    "core.materials.reversal_stages.reversal_stages": _LONG,
    "app.pictures.saved_pictures.what_made": _OF_TODAY,
    "app.process.uptime.moment_now": _OF_TODAY,
    "app.shelf.shelf_index.bottles": _OF_TODAY,
    "app.shelf.shelf_index.clock_doubt": _OF_TODAY,
    "app.shelf.shelf_index.shelf_lines": _OF_TODAY,
    "app.shelf.shelf_tables.shelf_table": _OF_TODAY,
    "app.stamps.fresh_uid": _OF_TODAY,
    "app.stamps.now": _OF_TODAY,
    "app.overview.guide.guide_parts": _GUIDE,
    "app.overview.guide.parts_about": _GUIDE,
    "app.overview.guide.terms": _GUIDE,
    "app.overview.guide.explained": _GUIDE,
    "app.learning.left_out.leave_estimates_out": "writes a preference",
}
_TODAY = datetime(2026, 12, 1, 9, 0, tzinfo=UTC)
_MOMENT = Moment(_TODAY, 1000.0, "said")
_NUMBERS = (0.35, 3.7, 11.0, 160.0)
_WORDS = (
    "",
    "8",
    "8:30",
    "0,62",
    "1.4",
    "-1, 0, 1",
    "2/3",
    "400",
    "20 °C",
    "68 F",
    "1/125",
    "f/5.6",
    "1+50",
    "300 ml",
    "A B",
    "no such thing",
    "average gradient 0.6",
    "15 nov 2026",
)
"""Typed where a function reads words."""
_MOST_CALLS, _MOST_WITH_WORDS = 400, 60


def _functions() -> Iterator[tuple[str, Callable[..., Any]]]:
    """Every public function of the rooms, with where it stands."""
    for room in _ROOMS:
        package = import_module(f"vadrin.{room}")
        for found in pkgutil.walk_packages(package.__path__, f"vadrin.{room}."):
            if found.ispkg or found.name.split(".")[2] in _ELSEWHERE:
                continue
            module = import_module(found.name)
            for name, made in sorted(vars(module).items()):
                plain = inspect.unwrap(made) if callable(made) else None
                if inspect.isfunction(plain) and plain.__module__ == found.name and name[0] != "_":
                    yield f"{found.name.removeprefix('vadrin.')}.{name}", made


def _asked_of(book: Notebook, state: State) -> dict[str, tuple[Any, ...]]:
    """All that functions may be asked of one test of the demo, by what they call it."""
    loaded, found = state.loaded, prior_finding(book, state.loaded)
    film = expected_film(loaded.test.exposure_index, found)
    rated, own, card = rating_of(state), own_answer(state), usual_card(state)
    strips, settings = state.question.strips, state.question.settings
    told = {
        "State": (state,),
        "LoadedTest": (loaded,),
        "Analysis": (state.analysis,) if state.analysis else (),
        "LoadedStrip": loaded.strips,
        "LoadedFrame": tuple(frame for _, frame in loaded.frames()),
        "StripMetrics": state.analysis.strips if state.analysis else (),
        "Expected": (film,),
        "PriorFinding": (found,) if found else (),
        "ForecastInput": (forecast_input(loaded, film),),
        "Exposed": exposed_of(state),
        "PaperUsed": (paper_used(book, state),),
        "Rating": (rated,),
        "Figure": (rated.index, rated.time_min),
        "OwnAnswer": (own,) if own else (),
        "Card": (card,) if card else (),
        "PlanEdit": (plan_edit_of(book, loaded),),
        "FilmWords": (film_words(loaded),),
        "DarkroomClock": (clock_before(book, loaded),),
        "tuple[StripReadings, ...]": (strips,),
        "StripReadings": strips,
        "Settings": (settings,),
        "Test": (loaded.test,),
        "Strip": tuple(strip.strip for strip in loaded.strips),
        "Frame": tuple(frame.frame for _, frame in loaded.frames()),
    }
    return _of_any(book) | told


def _of_any(book: Notebook) -> dict[str, tuple[Any, ...]]:
    """What functions may be asked beside a test."""
    records = {kind.__name__: tuple(book.all(kind)[:3]) for kind in RECORDS}
    return records | {
        "Notebook": (book,),
        "Looking": (Looking(),),
        "Rule": tuple(all_rules(book)),
        "HoldRule": tuple(HoldRule),
        "Channel": tuple(Channel),
        "Moment": (_MOMENT,),
        "datetime": (_TODAY,),
        "float": _NUMBERS,
        "int": (1, 3, 9),
        "bool": (True, False),
        "str": _WORDS,
        "Array": (np.linspace(0.12, 1.9, 15),),
        "tuple[float, ...]": ((4.0, 7.5, 14.0),),
        "np.random.Generator": (_RNG,),
    }


_RNG = np.random.default_rng(0)
"""Stands for a generator made anew for each call."""
_BESIDE = (
    "Notebook",
    "Looking",
    "HoldRule",
    "Channel",
    "Moment",
    "datetime",
    "float",
    "int",
    "bool",
    "str",
    "Array",
    "tuple[float, ...]",
    "np.random.Generator",
)
"""What is no part of a test: a function of these alone is asked once."""


def _calls(
    function: Callable[..., Any], every: list[dict[str, tuple[Any, ...]]]
) -> Iterator[tuple[Any, ...]]:
    """Every way to ask a function; none where it asks for something else."""
    wanted = []
    for part in inspect.signature(function).parameters.values():
        if part.default is not part.empty or part.kind in (part.VAR_KEYWORD, part.KEYWORD_ONLY):
            break
        wanted.append(str(part.annotation).removesuffix(" | None"))
    if any(name not in every[0] for name in wanted):
        return
    of_a_test = any(name not in _BESIDE for name in wanted)
    most = _MOST_WITH_WORDS if "str" in wanted and of_a_test else _MOST_CALLS
    for asked in every if of_a_test else every[:1]:
        yield from islice(product(*(asked[name] for name in wanted)), most)


def _given(function: Callable[..., Any], call: tuple[Any, ...]) -> Any:
    """What a function gives, or how it refuses."""
    try:
        given = function(*(np.random.default_rng(4) if part is _RNG else part for part in call))
        return list(given) if inspect.isgenerator(given) else given
    except VadrinError as error:
        return str(error)
    except Exception as error:
        # Asked of a test for which it is never asked in the window.
        return type(error).__name__


def said_of(path: Path, only: str = "") -> Iterator[tuple[str, list[str | float]]]:
    """What each function says of every test of a notebook, the functions in their order."""
    book = Notebook(path)
    # Nothing that would write may be asked: it refuses, and that is what it says.
    book.read_only = "only asked"
    try:
        every = [_asked_of(book, answered(one)) for one in load_tests(book, book.all(Test))]
        for name, function in _functions():
            if name in _NOT_ASKED or (only and only != name):
                continue
            told = [list(parts_of(_given(function, call))) for call in _calls(function, every)]
            if told:
                yield name, [part for each in told for part in each]
    finally:
        book.close()


def main(arguments: list[str]) -> int:
    import shutil
    import tempfile

    printed = arguments == ["--lines"]
    with tempfile.TemporaryDirectory() as folder:
        path = Path(shutil.copy(DEMO, Path(folder) / "demo.vadrin"))
        told = dict(said_of(path, *([] if printed else arguments)))
    if printed:
        print("\n".join(line_of(*one) for one in told.items()))
        return 0
    if arguments:
        print("\n".join(str(part) for each in told.values() for part in each))
        return 0 if told else 1
    KEPT.write_text("".join(f"{line_of(*one)}\n" for one in told.items()), encoding="utf-8")
    print(f"{len(told)} functions asked; kept in {KEPT.relative_to(ROOT)}")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
