"""The home view: every test as a line, searched and grouped; film and bottles that run low.

Names and findings of all tests are read in one question, so that thousands stay quick; what
a line draws is taken from the file only for the lines in sight.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime

from vadrin.app.decisions.decision_basis import changes_since_decision
from vadrin.app.descriptions import own_answer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.display.words import age_text, counted, date_text
from vadrin.app.document.state import answered
from vadrin.app.document.test_loading import load_tests
from vadrin.app.findings.decided_words import OWN_WORDS
from vadrin.app.loaded.loaded_test import LoadedTest
from vadrin.app.process.fixer_words import is_spent, tried_words
from vadrin.app.results.rating import rating_of
from vadrin.core.exposure.arithmetic import marked_ei
from vadrin.notebook.records import Batch, Bottle, Developer, Stock, Test
from vadrin.notebook.store import Notebook

GROUPS = ("by date", "by film", "by developer", "by camera")
_CURVES = 6
_NEAR_ITS_END = 0.8

_LINES = """
SELECT test.id, stock.name, coalesce(batch.name, ''), developer.name, developer.dilution,
       coalesce(camera.name, ''), test.created_at, test.kind, test.note,
       coalesce(finding.exposure_index, 0), coalesce(finding.time_min, 0),
       CASE WHEN finding.target_kind = :own AND json_valid(finding.report)
            THEN json_extract(finding.report, '$.answer.says') END,
       stock.note || ' ' || developer.note || ' ' || test.light || ' ' || test.agitation
FROM test JOIN stock ON stock.id = test.stock_id
JOIN developer ON developer.id = test.developer_id
LEFT JOIN batch ON batch.id = test.batch_id
LEFT JOIN camera ON camera.id = test.camera_id
LEFT JOIN finding ON finding.id = (SELECT max(id) FROM finding WHERE test_id = test.id)
ORDER BY test.created_at DESC, test.id DESC
"""
_WORDS = (
    "SELECT test_id, words FROM note",
    "SELECT test_id, note FROM finding WHERE note <> ''",
    "SELECT test_id, note FROM strip WHERE note <> ''",
    "SELECT strip.test_id, frame.note FROM frame JOIN strip ON strip.id = frame.strip_id "
    "WHERE frame.note <> ''",
    "SELECT strip.test_id, reading.note FROM reading JOIN frame ON frame.id = reading.frame_id "
    "JOIN strip ON strip.id = frame.strip_id WHERE reading.note <> ''",
)


@dataclass(frozen=True)
class ShelfLine:
    """One test on the shelf, in words; `haystack` is all that can be searched, in lower case."""

    test_id: int
    film: str
    kind: str
    process: str
    camera: str
    date: str
    age: str
    index: str
    time: str
    note: str
    haystack: str
    stock: str


@dataclass(frozen=True)
class ShelfDetail:
    """What a line in sight draws: its state, the station where it goes on, small curves.

    `changed` is what is different from what its decision rested on, in words; `undecided` the
    test itself where something is read and nothing decided.
    """

    state: str
    station: str
    curves: tuple[tuple[tuple[float, float], ...], ...]
    changed: str
    undecided: LoadedTest | None = None


@dataclass(frozen=True)
class Undecided:
    """What a test comes to so far, in words; empty for what is not known."""

    index: str
    time: str

    @property
    def spoken(self) -> str:
        """For who does not see that it is written in soft ink."""
        return f"not decided: {self.index} {self.time}".strip() if self.index else ""


def undecided_answer(loaded: LoadedTest) -> Undecided:
    """Work a test out that nothing was decided on; takes up to a second."""
    state = answered(loaded)
    own = own_answer(state)
    if own is not None:
        return Undecided(own.says, "")
    found = rating_of(state)
    index, time = found.index.value, found.time_min.value
    return Undecided(
        "" if index is None else f"EI {marked_ei(index)}",
        "" if time is None else minutes_text(time),
    )


def state_of(loaded: LoadedTest) -> tuple[str, str]:
    """Where a test stands, and the station where its work goes on."""
    total, exposed, read = len(loaded.frames()), loaded.exposed(), loaded.read()
    if exposed == 0:
        return f"planned, {counted(total, 'frame')}", "plan"
    if exposed < total:
        return f"{exposed} of {counted(total, 'frame')} taken", "expose"
    if loaded.processed() < len(loaded.strips):
        return (
            f"{loaded.processed()} of {counted(len(loaded.strips), 'strip')} developed",
            "process",
        )
    if read < loaded.readable():
        return f"{read} of {counted(loaded.readable(), 'frame')} read", "read"
    return f"read, {counted(len(loaded.strips), 'strip')}", "curves"


def _line(row: tuple[object, ...], words: str, now: datetime) -> ShelfLine:
    test_id, stock, batch, developer, dilution, camera, created, kind, note = row[:9]
    index, time, said, more = row[9:]
    process = f"in {developer} {dilution}".strip() if developer else "developer not named yet"
    film = f"{stock} {batch}".strip()
    shown_index = str(said or "") or (f"EI {marked_ei(float(str(index)))}" if index else "")
    shown_time = minutes_text(float(str(time))) if time and not said else ""
    searched = (film, process, camera, created, kind, note, shown_index, shown_time, more, words)
    return ShelfLine(
        int(str(test_id)),
        film,
        f"{kind} test",
        process,
        str(camera),
        date_text(str(created)),
        age_text(str(created), now),
        shown_index,
        shown_time,
        str(note),
        " ".join(map(str, searched)).lower(),
        str(stock),
    )


def shelf_lines(notebook: Notebook) -> list[ShelfLine]:
    """All tests, the newest first."""
    words: dict[int, list[str]] = {}
    for question in _WORDS:
        for test_id, note in notebook.rows(question):
            words.setdefault(test_id, []).append(note)
    now = datetime.now(UTC)
    return [
        _line(row, " ".join(words.get(row[0], ())), now)
        for row in notebook.rows(_LINES, own=OWN_WORDS)
    ]


def shelf_details(notebook: Notebook, test_ids: list[int]) -> dict[int, ShelfDetail]:
    """What the lines in sight draw, by test id."""
    tests = notebook.all_of(Test, "id", test_ids)
    return {loaded.test.id: _detail(loaded) for loaded in load_tests(notebook, tests)}


def _detail(loaded: LoadedTest) -> ShelfDetail:
    state, station = state_of(loaded)
    curves = []
    for strip in loaded.strips[:_CURVES]:
        points = [(f.log_h(loaded.test.meter_constant), f.density) for f in strip.frames]
        curve = sorted((x, d) for x, d in points if x is not None and d is not None)
        if len(curve) > 1:
            curves.append(tuple(curve))
    last = loaded.findings[-1] if loaded.findings else None
    since = changes_since_decision(loaded) if last is not None else None
    changed = f"since it was decided: {'; '.join(since.changes)}" if since else ""
    undecided = loaded if last is None and curves else None
    return ShelfDetail(state, station, tuple(curves), changed, undecided)


def remove_test(notebook: Notebook, line: ShelfLine) -> bool:
    """Remove a test and all that belongs to it, as one edit; False where it is gone already."""
    test = notebook.get(Test, line.test_id)
    if test is None:
        return False
    with notebook.change(f"remove the test of {line.film}"):
        notebook.remove(test)
    return True


def filtered(lines: list[ShelfLine], typed: str) -> list[ShelfLine]:
    """Lines that hold every word typed, anywhere, notes included."""
    wanted = typed.lower().split()
    return [line for line in lines if all(word in line.haystack for word in wanted)]


def grouped(lines: list[ShelfLine], group: str) -> list[tuple[str, list[ShelfLine]]]:
    """Lines under the headings of a grouping; by date there is one group without a heading."""
    keys: dict[str, Callable[[ShelfLine], str]] = {
        "by film": lambda line: line.stock,
        "by developer": lambda line: line.process,
        "by camera": lambda line: line.camera or "camera not named",
    }
    if group not in keys:
        return [("", lines)]
    found: dict[str, list[ShelfLine]] = {}
    for line in lines:
        found.setdefault(keys[group](line), []).append(line)
    return sorted(found.items(), key=lambda item: item[0].lower())


@dataclass(frozen=True)
class StoreLine:
    """Film or a bottle in the cupboard, in words; `urgent` where it soon runs out."""

    name: str
    words: str
    urgent: bool


def film_left(notebook: Notebook) -> list[StoreLine]:
    """Batches with rolls left, and the rating last decided for them."""
    stocks = {s.id: s for s in notebook.all(Stock)}
    ratings = dict(
        notebook.rows(
            "SELECT test.batch_id, finding.exposure_index FROM finding "
            "JOIN test ON test.id = finding.test_id WHERE test.batch_id IS NOT NULL "
            "AND finding.exposure_index > 0 "
            "ORDER BY finding.id"
        )
    )
    lines = []
    for batch in notebook.all(Batch):
        if not batch.rolls_left:
            continue
        stock = stocks.get(batch.stock_id, Stock())
        rated = ratings.get(batch.id)
        rating = f"rated EI {marked_ei(rated)}" if rated else f"box {stock.box_speed:g}, not rated"
        rolls = counted(batch.rolls_left, "roll")
        lines.append(
            StoreLine(
                f"{stock.name} {batch.name}".strip(), f"{rolls}, {rating}", batch.rolls_left <= 1
            )
        )
    return lines


def bottle_words(bottle: Bottle, chemistry: Developer, now: datetime) -> tuple[str, bool]:
    """How much of a bottle's capacity and keeping time is gone, and whether that is most."""
    parts, urgent = [], False
    if chemistry.capacity_films and bottle.volume_ml:
        able = chemistry.capacity_films * bottle.volume_ml / 1000
        parts.append(f"{bottle.films_done:g} of {able:g} films")
        urgent = bottle.films_done >= _NEAR_ITS_END * able
    if chemistry.keeps_days and bottle.mixed_at:
        days = (now.date() - datetime.fromisoformat(bottle.mixed_at).date()).days
        parts.append(f"day {days} of {chemistry.keeps_days:g}")
        urgent = urgent or days >= _NEAR_ITS_END * chemistry.keeps_days
    if urgent:
        parts.append("do a clip test")
    tried = tried_words(bottle, chemistry.role)
    if tried:
        parts.append(tried)
        urgent = urgent or is_spent(bottle)
    return ", ".join(parts) or "capacity and keeping time not said", urgent


def bottles(notebook: Notebook) -> list[StoreLine]:
    """All bottles, those near their end first."""
    chemistry = {d.id: d for d in notebook.all(Developer)}
    now = datetime.now(UTC)
    lines = []
    for bottle in notebook.all(Bottle):
        what = chemistry.get(bottle.developer_id, Developer())
        words, urgent = bottle_words(bottle, what, now)
        name = f"{what.name} {what.dilution}".strip()
        lines.append(StoreLine(f"{name} {bottle.name}".strip(), words, urgent))
    return sorted(lines, key=lambda line: not line.urgent)


def clock_doubt(notebook: Notebook) -> str:
    """Words when the computer's clock lies before what the notebook holds; empty otherwise."""
    newest = notebook.rows("SELECT max(created_at) FROM test")[0][0]
    if not newest:
        return ""
    try:
        ahead = datetime.fromisoformat(newest) - datetime.now(UTC)
    except (ValueError, TypeError):
        return ""
    if ahead.total_seconds() < 3600:
        return ""
    return (
        f"The newest test is dated {date_text(newest)}, after this computer's clock. Nothing is "
        "lost; set the clock right before you go on, or the dates of new work will be wrong."
    )
