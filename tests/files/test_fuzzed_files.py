"""Importers meet garbage and spoilt real files: a refusal in words or a table, nothing else."""

import subprocess
import sys
import time

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.files.test_file_kinds import FOREIGN, HOSTILE, a_table
from vadrin.errors import FormatError, NotebookError, UnmatchedColumnsError
from vadrin.formats.readings.any_file import read_readings, write_readings
from vadrin.formats.readings.column_matching import guessed_columns, table_of
from vadrin.formats.readings.readings_table import ReadingsTable
from vadrin.notebook.json_file import notebook_json, records_of_json
from vadrin.notebook.store import Notebook

KINDS = ("csv", "tsv", "cgats", "xlsx", "ods", "json")
LONGEST = 5.0
"""Seconds of processor time: a busy machine is no fault of a file's."""


def try_reading(path):
    """Read a file as the window would, and check that it comes out one way or the other."""
    begun = time.process_time()
    try:
        table = read_readings(path)
    except UnmatchedColumnsError as error:
        try:
            table = table_of(error.raw, guessed_columns(error.raw))
        except FormatError as refusal:
            table = refusal
    except FormatError as refusal:
        table = refusal
    assert time.process_time() - begun < LONGEST
    if isinstance(table, ReadingsTable):
        assert table.rows or table.problems
    else:
        assert "\n" not in str(table)
        assert path.name in str(table)


@pytest.fixture(scope="module")
def real_files(tmp_path_factory):
    """One good file of every kind, as bytes."""
    folder = tmp_path_factory.mktemp("real")
    made = {}
    for kind in KINDS:
        write_readings(a_table(), folder / f"real.{kind}")
        made[kind] = (folder / f"real.{kind}").read_bytes()
    made["txt"] = FOREIGN.encode()
    return made


@pytest.mark.parametrize("kind", KINDS)
@given(data=st.binary(max_size=400))
@settings(max_examples=24, deadline=None, suppress_health_check=list(HealthCheck))
def test_garbage(tmp_path, kind, data):
    path = tmp_path / f"garbage.{kind}"
    path.write_bytes(data)
    try_reading(path)


@pytest.mark.parametrize("kind", ["csv", "txt", "json"])
@given(text=st.text(alphabet=st.characters(), max_size=300), place=st.floats(0, 1))
@settings(max_examples=24, deadline=None, suppress_health_check=list(HealthCheck))
def test_text_pushed_into_a_real_file(tmp_path, real_files, kind, text, place):
    path = tmp_path / f"spoilt.{kind}"
    real = real_files[kind]
    cut = int(place * len(real))
    path.write_bytes(real[:cut] + text.encode("utf-8", "ignore") + real[cut:])
    try_reading(path)


@pytest.mark.parametrize("kind", [*KINDS, "txt"])
@given(seed=st.randoms(use_true_random=False), how=st.sampled_from(["flip", "cut", "double"]))
@settings(max_examples=24, deadline=None, suppress_health_check=list(HealthCheck))
def test_real_files_spoilt(tmp_path, real_files, kind, seed, how):
    data = bytearray(real_files[kind])
    start = seed.randrange(len(data))
    stop = min(len(data), start + seed.randrange(1, 200))
    if how == "flip":
        for _ in range(seed.randrange(1, 20)):
            data[seed.randrange(len(data))] = seed.randrange(256)
    elif how == "cut":
        del data[start:stop]
    else:
        data[start:start] = data[start:stop]
    path = tmp_path / f"spoilt.{kind}"
    path.write_bytes(data)
    try_reading(path)


@given(seed=st.randoms(use_true_random=False))
@settings(max_examples=24, deadline=None, suppress_health_check=list(HealthCheck))
def test_spoilt_notebook_exports(tmp_path, demo_path, seed):
    whole = tmp_path / "whole.json"
    if not whole.exists():
        book = Notebook(demo_path)
        whole.write_text(notebook_json(book), encoding="utf-8")
        book.close()
    data = bytearray(whole.read_bytes())
    for _ in range(seed.randrange(1, 6)):
        data[seed.randrange(len(data))] = seed.randrange(32, 127)
    spoilt = tmp_path / "spoilt.json"
    spoilt.write_bytes(data)
    outcome = ""
    try:
        records_of_json(spoilt)
    except NotebookError as refusal:
        outcome = str(refusal)
    assert not outcome or "spoilt.json" in outcome


READ = r"""
import re, resource, sys
from pathlib import Path
from vadrin.formats.readings.any_file import read_readings
from vadrin.errors import FormatError
try:
    read_readings(Path(sys.argv[1]))
except FormatError:
    pass
spent = resource.getrusage(resource.RUSAGE_SELF)
# The largest size since this program began: what it was forked from does not count.
most = re.search(r"VmHWM:\s*(\d+)", Path("/proc/self/status").read_text())
print(int(most[1]) // 1024, spent.ru_utime + spent.ru_stime)
"""


@pytest.mark.parametrize("name", ["bomb.xlsx", "entities.ods", "tall.ods", "wide.csv", "deep.json"])
def test_a_hostile_file_takes_little_time_and_memory(tmp_path, name):
    HOSTILE[name](tmp_path / name)
    command = [sys.executable, "-c", READ, str(tmp_path / name)]
    run = subprocess.run(
        command,
        capture_output=True,
        text=True,
        timeout=120,
        check=True,
        env={"PYTHONPATH": ":".join(sys.path)},
    )
    megabytes, seconds = run.stdout.split()
    assert float(seconds) < LONGEST
    assert int(megabytes) < 500
