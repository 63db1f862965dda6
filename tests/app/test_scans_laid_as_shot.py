"""Scans held against the script: which way they lie, and whether every frame is there."""

from dataclasses import replace

import numpy as np
import pytest

from oracles.scanner import scanned
from tests.app.test_kind_answers import Bench
from vadrin.app.scans.scan_frames import laid_as_shot
from vadrin.app.scans.scan_reading import open_scan
from vadrin.app.scans.step_wedge import StepWedge
from vadrin.notebook.store import Notebook


@pytest.fixture
def book(tmp_path):
    made = Notebook(tmp_path / "scans.vadrin")
    yield made
    made.close()


def laid(book, kind, fault, folder):
    """A picture of a bracket whose density rises along it, or falls where it lies mirrored."""
    picture = scanned(np.random.default_rng(3), fault, folder, fault)
    bench = Bench(book, kind, first_stop=-6.0, last_stop=6.0, step=0.5)
    strip = bench.loaded.strips[0]
    scan = open_scan(picture.path, picture.script, StepWedge(picture.typed))
    return laid_as_shot(scan, bench.loaded, strip), bench.loaded, strip


def test_a_negative_is_laid_rising_and_a_positive_falling(book, tmp_path):
    assert not laid(book, "speed", "none", tmp_path)[0].mirrored
    assert laid(book, "speed", "mirrored", tmp_path)[0].mirrored
    assert laid(book, "reversal", "none", tmp_path)[0].mirrored
    assert not laid(book, "reversal", "mirrored", tmp_path)[0].mirrored


def test_a_frame_as_clear_as_no_light_though_less_made_others_dense_is_asked_about(book, tmp_path):
    scan, loaded, strip = laid(book, "speed", "none", tmp_path)
    assert "clear though" not in " ".join(scan.doubts)
    last = scan.place.count - 1
    blank = replace(scan.values[last], density=scan.values[0].density)
    odd = laid_as_shot(replace(scan, values=(*scan.values[:-1], blank)), loaded, strip)
    assert f"frame {last + 1} is clear though others got less light" in " ".join(odd.doubts)
