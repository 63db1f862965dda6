"""Plants faults in copies of the program, each with the check that must turn red.

::

    python tools/planted.py              all of them, some ten minutes
    python tools/planted.py 3 7          these alone, counted from 1

A check is trusted once it has caught a fault. Exit 0 where every check was green before and red
with its fault.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
_KEPT_OUT = shutil.ignore_patterns(
    ".git",
    ".venv",
    ".mutants",
    "__pycache__",
    "*.pyc",
    "screenshots",
    ".pytest_cache",
    "*.egg-info",
)
_TOO_LONG_S = 600


@dataclass(frozen=True)
class Planted:
    """One fault: the words it stands in place of, and the tests that must see it.

    Attributes
    ----------
    name : str
    file : str
        Under src/vadrin.
    before, after : str
    checks : tuple of str
        As pytest takes them, or a script of tools/ and its words.
    """

    name: str
    file: str
    before: str
    after: str
    checks: tuple[str, ...]


_SAFETY = "tests/files/test_notebook_safety.py"
_HOSTILE = "tests/files/test_hostile_files.py"
FAULTS = (
    Planted(
        "a notebook is put in place in two steps",
        "notebook/file.py",
        "        part.replace(target)\n",
        "        target.unlink(missing_ok=True)\n        part.rename(target)\n",
        (f"{_HOSTILE}::test_a_kill_between_two_calls_of_the_file_system_leaves_a_whole_notebook",),
    ),
    Planted(
        "writes are not put through to the disk",
        "notebook/file.py",
        "PRAGMA synchronous = FULL",
        "PRAGMA synchronous = OFF",
        (f"{_SAFETY}::test_every_edit_is_written_through_to_the_disk",),
    ),
    Planted(
        "a part of every test is left behind in a merge",
        "notebook/merge.py",
        "self._book.add_all([self._linked(c) for c in children])",
        "self._book.add_all([self._linked(c) for c in children[1:]])",
        (f"{_SAFETY}::test_a_friends_notebook_comes_in_once",),
    ),
    Planted(
        "undo leaves out the last step of a change",
        "notebook/store.py",
        "steps = reversed(change.steps) if backward else iter(change.steps)",
        "steps = reversed(change.steps[:-1] or change.steps) if backward else iter(change.steps)",
        ("tests/files/test_notebook.py",),
    ),
    Planted(
        "nobody takes the lock",
        "notebook/lock.py",
        "LOCK_EX | fcntl.LOCK_NB)\n    except BlockingIOError",
        "LOCK_SH | fcntl.LOCK_NB)\n    except BlockingIOError",
        (f"{_SAFETY}::test_a_second_window_reads_only_and_says_who_writes",),
    ),
    Planted(
        "a table may have any number of rows",
        "formats/readings/csv_table.py",
        "MOST_CSV_ROWS = 1_000_000",
        "MOST_CSV_ROWS = 10**12",
        ("tests/files/test_readings_csv.py",),
    ),
    Planted(
        "backups go one too early",
        "notebook/backups.py",
        "older = plain[KEPT:]",
        "older = plain[KEPT - 1 :]",
        (f"{_SAFETY}::test_backups_are_made_when_something_changed_and_rotate",),
    ),
    Planted(
        "a backup before a change of format may go",
        "notebook/backups.py",
        "if _MIGRATION not in p.name]",
        "if True]",
        (_SAFETY, _HOSTILE),
    ),
    Planted(
        "numbers are rounded as they are read",
        "formats/readings/cell_numbers.py",
        'value = float(plain.replace(",", "."))',
        'value = round(float(plain.replace(",", ".")), 2)',
        ("tests/files/test_readings_csv.py", "tests/files/test_commands.py"),
    ),
    Planted(
        "two values change places in the JSON",
        "notebook/json_file.py",
        "    return {k: _plain_value(v) for k, v in vars(record).items()}",
        "    made = {k: _plain_value(v) for k, v in vars(record).items()}\n"
        '    return made | ({"low": made["high"], "high": made["low"]} if "low" in made else {})',
        (f"{_SAFETY}::test_the_json_of_a_notebook_says_what_its_file_says",),
    ),
    Planted(
        "a damaged notebook is taken for an empty one",
        "notebook/inspection.py",
        "raise damage(path, str(error)) from error",
        "return 0",
        (_HOSTILE, _SAFETY),
    ),
    Planted(
        "what a migration cannot do is not refused in words",
        "notebook/file.py",
        "            _upgrade(part, target)\n",
        "            migrate(part)\n",
        (f"{_SAFETY}::test_an_older_notebook_that_is_not_what_it_says_is_refused_untouched",),
    ),
    Planted(
        "an answer to another question may be decided on",
        "app/document/state.py",
        "if self.answer is None or self.answer.question != self.question:",
        "if self.answer is None:",
        ("tests/window/test_one_answered_state.py",),
    ),
    Planted(
        "readings left out count in the mean",
        "app/loaded/loaded_test.py",
        "used = [r for r in self.readings if not r.left_out]",
        "used = list(self.readings)",
        ("tests/app", "tests/window/test_three_ways_of_reading.py"),
    ),
    Planted(
        "a warmer bath counts for less",
        "core/restated_time.py",
        "q10 ** ((temperature_c - reference_c) / 10.0)",
        "q10 ** ((reference_c - temperature_c) / 10.0)",
        ("tests/core",),
    ),
    Planted(
        "the envelope of a practice film may be changed",
        "app/practice/envelope.py",
        'if hashlib.sha256(plain).hexdigest() != told.get("sha256"):',
        "if False:",
        ("tests/files/test_practice.py",),
    ),
    Planted(
        "a practice film changes with what is written down later",
        "app/practice/practised_film.py",
        'if s.strip.time_min is not None and str(s.strip.id) not in film["strips"]',
        "if s.strip.time_min is not None",
        ("tests/window/test_practice_film.py",),
    ),
    Planted(
        "an opened envelope takes other words",
        "app/practice/commitment.py",
        "    if is_opened(notebook):\n",
        "    if False:\n",
        ("tests/window/test_practice_film.py",),
    ),
    Planted(
        "words of an older format keep their old name",
        "notebook/upgrades.py",
        "return _renamed(table, row) if version <= 14 else row",
        "return row",
        ("tests/files/test_records_kept.py",),
    ),
    Planted(
        "a list of densities may lack one",
        "app/read/import_readings.py",
        "if len(names) in accumulate(lengths) and",
        "if len(names) <= sum(lengths) and",
        ("tests/window/test_import_to_a_waiting_test.py", "tests/app", "tests/files"),
    ),
    Planted(
        "what is called saved is put in the file with every fifth edit",
        "notebook/store.py",
        "            self._made_writer.commit()\n",
        "            if self.revision % 5 == 4:\n                self._made_writer.commit()\n",
        ("tools/kill_trial.py", "--copies", "12"),
    ),
)


def _run(folder: Path, checks: tuple[str, ...]) -> bool:
    """Whether the checks are green in a copy."""
    words = [sys.executable, "-m", "pytest", "-x", "-q", "-n", "2", "-p", "no:cacheprovider"]
    script = checks[0].startswith("tools/")
    paths = os.pathsep.join((str(folder / "src"), str(folder)))
    done = subprocess.run(
        [sys.executable, *checks] if script else [*words, *checks],
        cwd=folder,
        env={**os.environ, "PYTHONPATH": paths, "QT_QPA_PLATFORM": "offscreen"},
        capture_output=True,
        timeout=_TOO_LONG_S,
        check=False,
    )
    said = done.stdout.decode()
    if script and done.returncode != 0 and " lost, " not in said:
        raise RuntimeError(said[-2000:] + done.stderr.decode()[-2000:])
    # Of two workers one is broken off where the other fails first: that is 2, and a failure, too.
    if not script and done.returncode != 0 and "FAILED" not in said and "ERROR" not in said:
        raise RuntimeError(said[-2000:] + done.stderr.decode()[-2000:])
    return done.returncode == 0


def seen(fault: Planted) -> str:
    """Plant one fault in a copy: empty where its check turned red, else what is wrong."""
    with tempfile.TemporaryDirectory() as place:
        folder = Path(shutil.copytree(ROOT, Path(place) / "copy", ignore=_KEPT_OUT))
        path = folder / "src/vadrin" / fault.file
        source = path.read_text(encoding="utf-8")
        if source.count(fault.before) != 1:
            return f"{fault.file} has {source.count(fault.before)} places for it"
        path.write_text(source.replace(fault.before, fault.after), encoding="utf-8")
        return "no check saw it" if _run(folder, fault.checks) else ""


def main() -> int:
    """Plant the faults that are named by number, or all."""
    wanted = [int(word) for word in sys.argv[1:]] or list(range(1, len(FAULTS) + 1))
    missed = 0
    for number in wanted:
        fault = FAULTS[number - 1]
        why = seen(fault)
        missed += bool(why)
        print(f"{number:>3} {fault.name}: {why or 'seen'}", flush=True)
    print(f"{len(wanted) - missed} of {len(wanted)} seen")
    return 1 if missed else 0


if __name__ == "__main__":
    sys.exit(main())
