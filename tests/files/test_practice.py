"""Practice: a film nobody knows as files, and the envelope with its truth."""

import json

import numpy as np
import pytest

from tools.practice_testers import main as scripted
from tools.practice_trial import main as trial
from vadrin.app.display.marks import marked_ei
from vadrin.app.practice.envelope import open_envelope, opened, sealed
from vadrin.app.practice.practice_folder import practice_test
from vadrin.app.practice.practice_place import is_practice
from vadrin.commands import main
from vadrin.core.simulation.practice_film import SHAPES, draw_film
from vadrin.core.simulation.practice_level import Level
from vadrin.errors import FormatError
from vadrin.notebook.records import Test
from vadrin.notebook.store import Notebook


def practise(folder, *more):
    return main(["practice", "--seed", "7", "--out", str(folder), *more])


def test_a_practice_film_is_readings_and_a_truth_that_nobody_reads_by_chance(tmp_path, capsys):
    assert practise(tmp_path / "one", "--json") == 0
    said = capsys.readouterr().out
    assert main(["analyse", str(tmp_path / "one" / "readings.csv"), "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    film = practice_test(7, Level.USUAL).film
    normal = film.time_for_gradient()
    found = report["finding"]
    assert found["time_min"]["low"] < normal < found["time_min"]["high"]
    assert found["zone_ei"]["low"] < film.zone_ei(normal) < found["zone_ei"]["high"]
    everything = said + "".join(
        path.read_text("utf-8") for path in sorted((tmp_path / "one").iterdir())
    )
    for secret in (film.shape, f"{normal:.2f}", f"{film.zone_ei(normal):.1f}", "swapped"):
        assert secret not in everything
    assert main(["practice", "--open", str(tmp_path / "one"), "--time", "8:00"]) == 0
    minutes, seconds = divmod(round(60 * normal), 60)
    assert f"True: EI {marked_ei(film.zone_ei(normal)):g}, {minutes}:{seconds:02}" in (
        capsys.readouterr().out
    )
    assert practise(tmp_path / "two") == 0
    assert (tmp_path / "one" / "readings.csv").read_bytes() == (
        tmp_path / "two" / "readings.csv"
    ).read_bytes()


def test_the_envelope_says_what_is_true_of_film_and_tester(tmp_path, capsys):
    practise(tmp_path / "film", "--level", "hard")
    test = practice_test(7, Level.HARD)
    normal = test.film.time_for_gradient()
    capsys.readouterr()
    asked = ["practice", "--open", str(tmp_path / "film"), "--ei"]
    twice = 2 * test.film.zone_ei(normal)
    assert main([*asked, f"{twice}", "--time", f"{1.25 * normal:.3f}"]) == 0
    said = capsys.readouterr().out
    assert f"The film: {test.film.shape}, {test.film.box_speed:g} on its box, level hard." in said
    assert "Yours: EI +1.00 stop, time +25 %." in said
    assert "its range holds it" in said
    for trap in test.traps:
        assert f"Set in it: {trap}." in said
    assert len(test.traps) == 4


@pytest.mark.parametrize("shape", SHAPES)
def test_a_truth_is_what_the_film_does(shape):
    """Density by density, on a fine grid, without any of the film's own root finding."""
    film = draw_film(np.random.default_rng(11), shape)
    normal, x = film.time_for_gradient(), np.linspace(-5, 3, 80_001)
    net = film.net(x, normal)
    at = x[np.argmax(net >= 0.10)]
    above = net[np.argmin(np.abs(x - at - 1.5))]
    assert (above - 0.10) / 1.5 == pytest.approx(0.58, abs=1e-3)
    assert film.zone_ei(normal) == pytest.approx(8.125 / 16 / 10**at, rel=1e-3)
    meter = np.log10(8.125 / film.zone_ei(normal))
    longer = film.push_minutes(normal, 1)
    if longer is not None:
        held = np.interp(meter + 3 * 0.30103, x, net)
        assert np.interp(meter + 2 * 0.30103, x, film.net(x, longer)) == pytest.approx(
            held, abs=1e-3
        )


def test_an_envelope_that_was_changed_is_not_believed():
    envelope = sealed({"finding": {"time_min": 8.0}})
    assert opened(json.dumps(envelope), "truth.json") == {"finding": {"time_min": 8.0}}
    other = sealed({"finding": {"time_min": 9.0}})["sealed"]
    with pytest.raises(FormatError, match="changed since it was sealed"):
        opened(json.dumps(envelope | {"sealed": other}), "truth.json")
    for spoilt in ("", "[]", "{}", json.dumps(envelope | {"sealed": "%%"}), "[" * 100_000):
        with pytest.raises(FormatError, match=r"truth\.json"):
            opened(spoilt, "truth.json")


@pytest.mark.parametrize(
    ("asked", "said"),
    [
        (["--out", "{}/new"], "--seed N"),
        (["--seed", "-3", "--out", "{}/new"], "--seed N"),
        (["--seed", "3", "--out", "{}"], "is there already"),
        (["--open", "{}/nowhere"], "no envelope to open here"),
        (["--open", "{}", "--time", "soon"], "--time"),
        (["--open", "{}", "--ei", "-4"], "--ei"),
    ],
)
def test_bad_use_is_a_line_and_touches_nothing(tmp_path, capsys, asked, said):
    practise(tmp_path)
    before = {path: path.read_bytes() for path in tmp_path.iterdir()}
    capsys.readouterr()
    assert main(["practice", *(word.format(tmp_path) for word in asked)]) == 2
    told = capsys.readouterr()
    assert said in told.err
    assert told.err.count("\n") == 1
    assert {path: path.read_bytes() for path in tmp_path.iterdir()} == before


def test_without_a_folder_a_film_is_begun_in_the_window(tmp_path, monkeypatch, capsys):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    opened = []
    monkeypatch.setattr(
        "vadrin.commands.desktop.run_window", lambda path, demo: opened.append(path) or 0
    )
    assert main(["practice", "--seed", "3", "--level", "hard", "--type", "push"]) == 0
    (path,) = opened
    assert is_practice(path)
    book = Notebook(path)
    (test,) = book.all(Test)
    assert test.kind == "push"
    book.close()
    assert open_envelope(path.parent)["seed"] == 3
    assert "Digest" in capsys.readouterr().out
    assert main(["practice", "--seed", "-3"]) == 2


def test_scripted_testers_hear_the_truth_from_their_envelopes_and_a_lie_is_found(
    monkeypatch, capsys
):
    monkeypatch.setattr("sys.argv", ["practice_testers.py", "4", "usual"])
    scripted()
    assert "the envelopes are true" in capsys.readouterr().out
    # A fault planted: the truth that the envelope is told is a fifth of a stop off.
    monkeypatch.setattr(
        "vadrin.app.practice.envelope_report.EnvelopeRow.off",
        lambda row, value: None if not value else np.log2(1.15 * value / row.true),
    )
    assert scripted() == 1
    assert "not that of the film" in capsys.readouterr().out


def test_the_trial_of_practice_films_can_fail(monkeypatch, capsys):
    """A film whose truth is told a fifth of a stop off turns it red."""
    monkeypatch.setattr("sys.argv", ["practice_trial.py", "4", "plain"])
    told = {}
    monkeypatch.setattr(
        "tools.practice_trial.truth_of",
        lambda test, seed, level: (
            told | {"finding": {"zone_ei": 1.2 * test.film.zone_ei(8.0), "time_min": 1.0}}
        ),
    )
    assert trial() == 1
    assert "0 of 4" in capsys.readouterr().out
