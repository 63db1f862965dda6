"""Practice by keys: a film nobody knows, shot, developed and read, committed to, then opened."""

import json
import re
import time
from dataclasses import replace
from itertools import count
from math import log2

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication
from scipy.optimize import brentq
from scipy.stats import norm

from tests.window.pages import (
    CTRL,
    ENTER,
    SPACE,
    TAB,
    UP,
    Hands,
    button_of,
    refusal_of,
    settle,
    type_into,
    words_of,
)
from vadrin.app.practice import practice_notebook
from vadrin.app.practice.commitment import Belief, Commitment, commit
from vadrin.app.practice.practice_notebook import begin_practice
from vadrin.app.practice.practice_place import is_practice, practice_place
from vadrin.app.practice.practice_questions import INDEX, KINDS
from vadrin.app.practice.practice_scores import OpenedEnvelope, score_sentences
from vadrin.app.practice.practised_film import density_on, film_in, world_of
from vadrin.app.process.development import develop_strip
from vadrin.app.process.uptime import PACE, moment_now
from vadrin.core.simulation import practice_limits
from vadrin.core.simulation.practice_level import Level
from vadrin.core.simulation.practice_trap import Trap, TrapKind
from vadrin.errors import EditRefusedError
from vadrin.notebook.records import Reading, Strip
from vadrin.ui.theme.look import SAFELIGHT


@pytest.fixture(autouse=True)
def few_plans(monkeypatch):
    """Of plans that could have been, two are enough to be told of."""
    monkeypatch.setattr(practice_limits, "_TRIED", ((2, 1.0, -6.0), (3, 1.0, -6.0)))
    monkeypatch.setattr(practice_limits, "_TIMES", 3)
    monkeypatch.setattr(practice_limits, "_TRIES", 2)


class Practiser(Hands):
    """Somebody at a practice film, who never touches the mouse."""

    @property
    def bench(self):
        return self.window.bench

    @property
    def folder(self):
        return self.bench.notebook.path.parent

    def __init__(self, qtbot, window):
        super().__init__(qtbot, window)
        self.own = window.bench.notebook.path

    def begin(self, level, kind="time"):
        """Through the station: a film of a level, in a notebook of its own."""
        self.press(Qt.Key.Key_F7)
        type_into(QApplication.focusWidget(), level, TAB)
        station = self.window.station()
        type_into(QApplication.focusWidget(), KINDS[kind].asked_for, TAB)
        assert station.level == level
        own = self.bench.notebook.path
        button_of(station, "Begin a practice film").setFocus()
        # Twice, as a hand does that sees nothing happen at once: it is one film.
        self.press(SPACE, times=2)
        self.qtbot.waitUntil(lambda: self.bench.notebook.path != own, timeout=20_000)
        self.settle()
        assert self.bench.station == "plan"
        assert len(list(practice_place().iterdir())) == 1

    def shoot_and_develop(self):
        self.press(Qt.Key.Key_2, CTRL)
        with self.unseen():
            self.press(SPACE, times=len(self.bench.loaded.shots()))
        self.press(Qt.Key.Key_3, CTRL)
        self.press(ENTER, CTRL)
        assert self.bench.loaded.processed() == len(self.bench.loaded.strips)

    def read(self):
        """F6 listens, and reads a frame each time after that."""
        self.press(Qt.Key.Key_4, CTRL)
        self.settle()
        self.press(Qt.Key.Key_F6)
        for _ in range(len(self.bench.loaded.frames())):
            waits = [f for s in self.bench.loaded.strips for f in s.frames if f.readable]
            if all(f.readings for f in waits):
                return
            count = self.bench.notebook.count(Reading)
            self.press(Qt.Key.Key_F6)
            if refusal_of(self.window):
                return
            self.qtbot.waitUntil(lambda n=count: self.bench.notebook.count(Reading) > n)

    def say(self, **words):
        """Commit, at Practice."""
        self.press(Qt.Key.Key_F7)
        form = self.window.station().form
        places = {"ei": form.values["index"], "ei_range": form.ranges["index"]}
        places |= {"time": form.values["time_min"], "time_range": form.ranges["time_min"]}
        places |= {"push": form.values["push_min"], "wrong": form.wrong}
        for name, said in words.items():
            type_into(places[name], said)

    def rows_of(self, ranges=None, **figures):
        """Commit to figures by their keys, open the envelope, and give its rows by their names."""
        self.press(Qt.Key.Key_F7)
        form = self.window.station().form
        for key, said in figures.items():
            type_into(form.values[key], said)
        for key, said in (ranges or {}).items():
            type_into(form.ranges[key], said)
        self.open_envelope()
        return opened_rows(self)

    def open_envelope(self):
        button_of(self.window.station(), "Open the envelope").setFocus()
        self.press(SPACE)
        self.settle()
        self.settle()
        return words_of(self.window.station())


@pytest.fixture
def practiser(qtbot, open_window, tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))
    # Any film, but in a test always the same.
    films = count(7)
    monkeypatch.setattr(practice_notebook.secrets, "randbelow", lambda _most: next(films))
    yield Practiser(qtbot, open_window(tmp_path / "own.vadrin"))
    PACE.rest()


def guided(practiser):
    """The number of the step the line over the stations shows."""
    practiser.settle()
    words = words_of(practiser.window.practice_line)
    return int(words.split(" of ")[0]) if " of 7" in words else None


def test_the_first_hour_goes_by_keys_from_the_plan_to_the_envelope(practiser):
    practiser.begin("first hour")
    film = world_of(practiser.folder).film
    normal = film.time_for_gradient()
    secrets = (film.shape, f"{normal:.4f}", f"{film.zone_ei(normal):.4f}")
    steps, seen = [guided(practiser)], []
    practiser.press(Qt.Key.Key_2, CTRL)
    steps.append(guided(practiser))
    practiser.shoot_and_develop()
    steps.append(guided(practiser))
    practiser.read()
    steps.append(guided(practiser))
    practiser.press(Qt.Key.Key_5, CTRL)
    steps.append(guided(practiser))
    practiser.press(Qt.Key.Key_7, CTRL)
    practiser.settle()
    practiser.press(Qt.Key.Key_D, CTRL)
    practiser.press(Qt.Key.Key_F7)
    steps.append(guided(practiser))
    assert steps == [1, 2, 4, 5, 6, 7]
    seen.append(words_of(practiser.window))
    for path in practiser.folder.iterdir():
        if path.is_file():
            seen.append(path.read_bytes().decode("utf-8", "replace"))
    assert not [s for s in secrets for words in seen if s in words]
    practiser.open_envelope()
    assert "Say an EI or a time first" in refusal_of(practiser.window)
    twice = 2 * film.zone_ei(normal)
    practiser.say(ei=f"{twice:.4g}", ei_range=f"{0.9 * twice:.4g} to {1.1 * twice:.4g}")
    practiser.say(time=f"{normal:.3f}", time_range=f"{0.9 * normal:.2f} to {1.1 * normal:.2f}")
    said = practiser.open_envelope()
    assert "The envelope is open" in said
    assert practiser.window.station().level == "plain"
    assert QApplication.focusWidget().accessibleName() == "level"
    assert film.shape in said.lower()
    told = json.loads((practiser.folder / "opened.json").read_text())
    by_name = {row["name"]: row for row in told["rows"]}
    assert by_name["EI"]["mine_off"] == pytest.approx(1.0, abs=0.01)
    assert (by_name["EI"]["mine_held"], by_name["time"]["mine_held"]) == (False, True)
    assert by_name["EI"]["found_held"]
    assert abs(by_name["EI"]["found_off"]) < 0.3
    assert "1 of 2 ranges held the truth" in said
    limit = re.search(r"the EI within 0\.\d\d stop and the time within \d+ % \(typical", said)
    assert limit, "what could have been had with these frames"
    with pytest.raises(EditRefusedError, match="what you said stands"):
        commit(practiser.bench.notebook.path, Commitment({"index": Belief(1.0)}))
    assert practiser.steps < 50, "about forty, and two answers with their ranges"


@pytest.mark.parametrize("kind", [k for k, kind in KINDS.items() if INDEX in kind.questions])
def test_every_kind_is_played_to_its_envelope(practiser, kind):
    practiser.begin("plain", kind)
    assert practiser.bench.loaded.test.kind == kind
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    words = {"ei": "100", "push": "12:00"} if kind == "push" else {"ei": "100", "time": "8:00"}
    practiser.say(**words)
    said = practiser.open_envelope()
    film = world_of(practiser.folder).film
    told = json.loads((practiser.folder / "opened.json").read_text())
    rows = {row["name"]: row for row in told["rows"]}
    assert (
        set(rows)
        == {"time": {"EI", "time"}, "speed": {"EI"}, "push": {"EI", "time", "push 1"}}[kind]
    )
    minutes = film.time_for_gradient()
    if kind == "speed":
        # One strip: rated as it was developed.
        world = world_of(practiser.folder)
        minutes = practiser.bench.loaded.strips[0].strip.time_min * world.hands[0]
    assert rows["EI"]["mine_off"] == pytest.approx(log2(100 / film.zone_ei(minutes)), abs=1e-3)
    if kind == "push":
        longer = film.push_minutes(minutes, 1.0)
        assert rows["push 1"]["mine_off"] == pytest.approx(12.0 / longer - 1, abs=1e-3)
    assert "Nothing went wrong in it." in said


def opened_rows(practiser):
    told = json.loads((practiser.folder / "opened.json").read_text())
    return {row["name"]: row for row in told["rows"]}


def test_long_exposures_are_practised_and_held_against_what_the_film_loses(practiser):
    practiser.begin("plain", "reciprocity")
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    practiser.press(Qt.Key.Key_F7)
    type_into(practiser.window.station().form.values["long_s"], "30")
    type_into(practiser.window.station().form.ranges["long_s"], "20 to 45")
    said = practiser.open_envelope()
    loss = world_of(practiser.folder).reciprocity
    true = 15.0
    for _ in range(200):
        true = 15.0 * (1.0 + true / loss.settle_s) ** loss.power
    row = opened_rows(practiser)["long exposure"]
    assert row["mine_off"] == pytest.approx(log2(30 / true), abs=1e-3)
    assert row["mine_held"] is (20 <= true <= 45)
    assert row["found_held"]
    assert abs(row["found_off"]) < 0.3
    assert f"{true:.0f} s" in said


@pytest.mark.parametrize("kind", ["two developers", "compare"])
def test_another_developer_or_batch_is_practised_and_held_against_both(practiser, kind):
    practiser.begin("plain", kind)
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    world, (one, other) = world_of(practiser.folder), practiser.bench.loaded.strips
    assert bool(other.strip.batch_id) is (kind == "compare")
    got = [s.strip.time_min * world.hands[n] for n, s in enumerate((one, other))]
    faster = log2(world.other.zone_ei(got[1]) / world.film.zone_ei(got[0]))
    steeper = world.other.average_gradient(got[1]) / world.film.average_gradient(got[0])
    rows = practiser.rows_of({"steeper": "1,0 to 1,2"}, faster_stops="0.5", steeper="1.1")
    assert rows["speed"]["mine_off"] == pytest.approx(0.5 - faster, abs=1e-3)
    assert rows["contrast"]["mine_off"] == pytest.approx(1.1 / steeper - 1, abs=1e-3)
    assert abs(rows["speed"]["found_off"]) < 0.25
    assert abs(rows["contrast"]["found_off"]) < 0.1


def test_how_a_strip_is_moved_matters_as_it_was_noted_when_it_was_looked_at(practiser):
    practiser.begin("plain")
    world, book = world_of(practiser.folder), practiser.bench.notebook
    assert 0.7 <= world.still <= 0.9
    worth = {}
    ways = ("", "continuous", "stand", "10 s every minute")
    for strip, way in zip(practiser.bench.loaded.strips, ways, strict=False):
        develop_strip(book, strip.strip, strip.strip.planned_min, 20.0)
        with book.change("how it was moved"):
            book.put(replace(book.get(Strip, strip.strip.id), agitation=way))
    practiser.bench.refresh()
    loaded = practiser.bench.loaded
    density_on(book.path, loaded, loaded.strips[0], loaded.strips[0].frames[5])
    film = film_in(practiser.folder)
    for place, strip in enumerate(loaded.strips):
        got = strip.strip.time_min * world.hands[place]
        worth[strip.strip.agitation] = film["worth"][str(strip.strip.id)] / got
    assert worth[""] == pytest.approx(1.0, abs=1e-4)
    assert worth["stand"] == pytest.approx(world.still, abs=1e-4)
    assert worth["stand"] < worth["10 s every minute"] < 1.0 < worth["continuous"] < 1.2


def test_an_old_film_is_practised_for_its_ei_of_today_and_its_fog(practiser):
    practiser.begin("plain", "rescue")
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    world, strips = world_of(practiser.folder), practiser.bench.loaded.strips
    # Held into the light for a clip: as dense as nothing else of it.
    dense = [f.density for f in strips[0].frames if f.density is not None]
    assert strips[0].frames[-1].density == max(dense) > 1.0
    got = [s.strip.time_min * world.hands[n] for n, s in enumerate(strips)]
    index, minutes = max((world.film.zone_ei(t), t) for t in got if world.film.zone_ei(t))
    assert index < world.film.box_speed / 1.3, "years have cost it speed"
    rows = practiser.rows_of({"base_fog": "0.3 to 0.5"}, todays_index="50", base_fog="0,4")
    assert rows["today's EI"]["mine_off"] == pytest.approx(log2(50 / index), abs=1e-3)
    fog = world.film.base_fog(minutes)
    assert rows["base plus fog"]["mine_off"] == pytest.approx(0.4 - fog, abs=1e-3)
    assert rows["base plus fog"]["mine_held"] is (0.3 <= fog <= 0.5)
    assert abs(rows["today's EI"]["found_off"]) < 0.3
    assert abs(rows["base plus fog"]["found_off"]) < 0.03


def test_colour_is_practised_layer_by_layer(practiser):
    practiser.begin("plain", "colour")
    practiser.shoot_and_develop()
    practiser.press(Qt.Key.Key_4, CTRL)
    practiser.settle()
    practiser.press(Qt.Key.Key_F6)
    book, frames = practiser.bench.notebook, practiser.bench.loaded.frames()
    readable = sum(f.readable for _, f in frames)
    for number in range(readable):
        practiser.press(Qt.Key.Key_F6)
        practiser.qtbot.waitUntil(lambda n=number: book.count(Reading) == 3 * (n + 1))
    practiser.settle()
    world = world_of(practiser.folder)
    normal = min(practiser.bench.loaded.strips, key=lambda s: abs(s.strip.push or 0.0))
    place = practiser.bench.loaded.strips.index(normal)
    warm = normal.strip.temperature_c
    assert warm > 30, "a laboratory’s bath"
    got = world.film.minutes_at_20(normal.strip.time_min * world.hands[place], warm)
    green = world.film.average_gradient(got)
    rows = practiser.rows_of(red_beside_green="1.1", blue_beside_green="1.1")
    for layer in ("red", "blue"):
        true = world.layers[layer].average_gradient(got) / green
        row = rows[f"{layer} beside green"]
        assert row["mine_off"] == pytest.approx(1.1 / true - 1, abs=1e-3)
        assert abs(row["found_off"]) < 0.06


def test_an_old_bottle_is_practised_with_a_clip(practiser):
    practiser.begin("plain", "clip")
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    world = world_of(practiser.folder)
    good, clip = practiser.bench.loaded.strips
    # By the film's own law: the time that makes the old bottle's clip as dense as the good one.
    held_into_the_light, share = 2.0, world.runs[1]
    dense = [
        world.film.base_fog(t) + float(world.film.net(held_into_the_light, t))
        for t in (
            good.strip.time_min * world.hands[0],
            share * clip.strip.time_min * world.hands[1],
        )
    ]
    for strip, true in zip((good, clip), dense, strict=True):
        fogged = [f.density for f in strip.frames if f.frame.name.startswith("f")]
        assert np.mean(fogged) == pytest.approx(true, abs=0.03)
    assert 0.4 < share < 1.0
    row = practiser.rows_of({"bottle_times": "1,2 to 1,8"}, bottle_times="1.5")[
        "time in the old bottle"
    ]
    assert row["mine_off"] == pytest.approx(1.5 * share - 1, abs=1e-3)
    assert row["mine_held"] is (1.2 <= 1 / share <= 1.8)
    assert row["found_held"]


def test_a_process_is_practised_run_after_run(practiser):
    practiser.begin("plain", "process control")
    practiser.shoot_and_develop()
    practiser.read()
    practiser.settle()
    world, loaded = world_of(practiser.folder), practiser.bench.loaded
    last = len(loaded.strips) - 1
    patches = []
    for place in (0, last):
        strip = loaded.strips[place]
        got = strip.strip.time_min * world.hands[place] * world.runs[place]
        at = {f.frame.name: f.log_h(loaded.test.meter_constant) for f in strip.frames}
        patches.append([float(world.film.net(at[name], got)) for name in ("low", "high")])
    (thin, dense), (thin_now, dense_now) = patches
    thinner, step = thin_now - thin, (dense_now - thin_now) - (dense - thin)
    assert abs(step) > 0.01, "runs differ"
    rows = practiser.rows_of(thin_off="-0.05", step_off="0,1")
    assert rows["thin patch"]["mine_off"] == pytest.approx(-0.05 - thinner, abs=1e-3)
    assert rows["contrast step"]["mine_off"] == pytest.approx(0.1 - step, abs=1e-3)
    assert abs(rows["thin patch"]["found_off"]) < 0.04
    assert abs(rows["contrast step"]["found_off"]) < 0.05


def test_enlarging_paper_is_practised_under_clear_film(practiser):
    practiser.begin("plain", "paper")
    practiser.press(Qt.Key.Key_F7)
    assert "What is this paper?" in words_of(practiser.window.station())
    practiser.press(Qt.Key.Key_4, CTRL)
    practiser.settle()
    practiser.press(Qt.Key.Key_F6)
    practiser.press(Qt.Key.Key_F6)
    assert "expose every step" in refusal_of(practiser.window)
    practiser.press(Qt.Key.Key_2, CTRL)
    with practiser.unseen():
        practiser.press(SPACE, times=len(practiser.bench.loaded.shots()))
    practiser.read()
    practiser.settle()
    world, (strip,) = world_of(practiser.folder), practiser.bench.loaded.strips
    paper = world.paper

    def tone(log_seconds):
        share = norm.cdf((log_seconds - world.film.fog - paper.middle) / paper.spread)
        return paper.white + (paper.black - paper.white) * share

    for frame in strip.frames:
        assert frame.density == pytest.approx(tone(np.log10(frame.frame.seconds)), abs=0.04)
    top = paper.black - paper.white
    grey, nearly_black = (
        brentq(lambda x, net=net: tone(x) - paper.white - net, -4.0, 4.0)
        for net in (0.04, 0.9 * top)
    )
    scale = nearly_black - grey
    rows = practiser.rows_of(exposure_scale="1.05", paper_black="2,1")
    assert rows["exposure scale"]["mine_off"] == pytest.approx(1.05 - scale, abs=1e-3)
    assert rows["black"]["mine_off"] == pytest.approx(2.1 - paper.black, abs=1e-3)
    assert abs(rows["exposure scale"]["found_off"]) < 0.1
    assert abs(rows["black"]["found_off"]) < 0.04


def with_trap(monkeypatch, trap):
    from vadrin.app.practice import practised_film

    real = practised_film.world_drawn
    monkeypatch.setattr(
        practised_film,
        "world_drawn",
        lambda *of: type(w)(w.film, (trap,)) if (w := real(*of)) else w,
    )


def test_what_was_cut_off_cannot_be_read_and_who_notices_is_told(practiser, monkeypatch):
    with_trap(monkeypatch, Trap(TrapKind.SHORT, 0, amount=3.0))
    practiser.begin("plain")
    practiser.shoot_and_develop()
    strip = practiser.bench.loaded.strips[0]
    practiser.press(Qt.Key.Key_4, CTRL)
    practiser.settle()
    practiser.press(Qt.Key.Key_F6)
    practiser.bench.select(strip.frames[-1].frame.id)
    practiser.press(Qt.Key.Key_F6)
    assert "There is no film at" in refusal_of(practiser.window)
    practiser.bench.select(strip.frames[0].frame.id)
    practiser.press(Qt.Key.Key_F6)
    practiser.qtbot.waitUntil(lambda: practiser.bench.notebook.count(Reading) == 1)
    assert not refusal_of(practiser.window)
    practiser.say(time="8:00", wrong="strip A was cut short")
    assert "cut off: noticed by the program and you." in practiser.open_envelope()


def test_film_stays_as_it_was_developed_whatever_is_written_down_later(practiser):
    practiser.begin("plain")
    practiser.shoot_and_develop()
    path, loaded = practiser.bench.notebook.path, practiser.bench.loaded
    strip, frame = loaded.strips[0], loaded.strips[0].frames[-2]
    before = density_on(path, loaded, strip, frame)
    world = world_of(practiser.folder)
    film, at = world.film, frame.log_h(loaded.test.meter_constant)
    minutes = film.minutes_at_20(strip.strip.time_min * world.hands[0], 20.0)
    assert before == pytest.approx(film.base_fog(minutes) + float(film.net(at, minutes)), abs=1e-4)
    practiser.bench.edit(lambda book: develop_strip(book, strip.strip, 60.0, 20.0))
    again = practiser.bench.loaded
    assert again.strips[0].strip.time_min == 60.0
    assert density_on(path, again, again.strips[0], again.strips[0].frames[-2]) == before


def test_eye_scan_and_paper_are_shown_what_is_on_the_film(practiser, qtbot):
    practiser.begin("plain")
    practiser.press(Qt.Key.Key_4, CTRL)
    practiser.window.station().turn_to("light box")
    assert "is not developed yet" in words_of(practiser.window.station())
    practiser.shoot_and_develop()
    practiser.press(Qt.Key.Key_4, CTRL)
    station = practiser.window.station()
    practiser.settle()
    path, loaded = practiser.bench.notebook.path, practiser.bench.loaded
    strip = practiser.bench.selected()[0]
    asked = station.light_box._question.frame
    picture = station.light_box._patches.grab().toImage()
    densities = (
        density_on(path, loaded, strip, asked),
        density_on(path, loaded, strip, strip.frames[0]),
    )
    for share, density in zip((0.25, 0.75), densities, strict=True):
        level = picture.pixelColor(int(share * picture.width()), 20).redF()
        light = ((level + 0.055) / 1.055) ** 2.4
        assert light == pytest.approx(10.0**-density, rel=0.03)
    station.turn_to("scan")
    practiser.settle()
    button_of(station, "Scan it here").click()
    practiser.settle()
    button_of(station, "Use these densities").click()
    practiser.settle()
    now = practiser.bench.loaded
    mine = next(s for s in now.strips if s.strip.id == strip.strip.id)
    read = [f for f in mine.frames if f.readings]
    assert len(read) > 8
    for frame in read:
        assert frame.density == pytest.approx(density_on(path, now, mine, frame), abs=0.05)


def test_an_eye_is_held_against_the_strip_it_looked_at_and_no_white_shines_by_the_safelight(
    practiser,
):
    practiser.begin("plain")
    practiser.shoot_and_develop()
    practiser.press(Qt.Key.Key_4, CTRL)
    station, world = practiser.window.station(), world_of(practiser.folder)
    last = practiser.bench.loaded.strips[-1]
    practiser.bench.select(last.frames[4].frame.id)
    station.turn_to("light box")
    practiser.settle()
    while station.light_box._question.frame is not None:
        frame = station.light_box._question.frame
        film, blank = (p[1] for p in station.light_box._patches.patches)
        practiser.press(Qt.Key.Key_Y if film - blank > 0.045 else Qt.Key.Key_N)
        practiser.settle()
        assert practiser.bench.notebook.get(type(frame.frame), frame.frame.id)
    practiser.say(ei="100", time="8:00")
    practiser.open_envelope()
    told = json.loads((practiser.folder / "opened.json").read_text())
    rows = {row["name"]: row for row in told["rows"]}
    minutes = last.strip.time_min * world.hands[(len(practiser.bench.loaded.strips) - 1) % 12]
    true = world.film.zone_ei(minutes)
    assert rows["EI"]["mine_off"] == pytest.approx(log2(100 / true), abs=1e-3)
    assert rows["time"]["mine_off"] == pytest.approx(
        8 / world.film.time_for_gradient() - 1, abs=1e-3
    )
    assert told["way"] == "light box"
    station.light_box._patches.show_patches((("film", 0.1), ("blank", 0.2)), SAFELIGHT)
    picture = station.light_box._patches.grab().toImage()
    shades = [picture.pixelColor(x, 10) for x in (5, picture.width() - 5)]
    assert [(c.green(), c.blue()) for c in shades] == [(0, 0)] * 2


@pytest.mark.parametrize("name", ["opened.json", "committed.json", "film.json"])
def test_a_hurt_file_of_a_practice_film_is_said_and_stumbles_over_nothing(practiser, name):
    practiser.begin("first hour")
    practiser.shoot_and_develop()
    for text in (
        '{"table": 5, "traps": [[1]], "sentences": [], "film": 1}',
        '{"index": {"value": "x"}}',
        "[",
    ):
        (practiser.folder / name).write_text(text)
        practiser.bench.go("shelf")
        practiser.bench.go("practice")
        practiser.settle()
        practiser.bench.go("read")
        practiser.press(Qt.Key.Key_F6)
        practiser.settle()


def test_sections_of_a_test_strip_have_the_tones_they_got(practiser):
    practiser.begin("plain")
    practiser.shoot_and_develop()
    practiser.press(Qt.Key.Key_6, CTRL)
    station = practiser.window.station()
    station.turn_to("strip")
    practiser.settle()
    button_of(station, "Mark as exposed").click()
    practiser.settle()
    tones = np.array(station.strip.paper._tones)
    paper = world_of(practiser.folder).paper
    assert len(tones) == 8
    assert (np.diff(tones) > 0).all()
    assert tones[0] >= paper.white
    assert tones[-1] <= paper.black


def test_each_practice_film_is_another_and_lies_apart_from_ones_own(practiser, qtbot):
    first, second = (begin_practice(practice_place(), Level.PLAIN) for _ in range(2))
    assert (first.notebook.name, second.notebook.name) == ("practice 1.vadrin", "practice 2.vadrin")
    assert first.digest != second.digest
    assert is_practice(first.notebook)
    assert not is_practice(practiser.bench.notebook.path)
    assert not practiser.window.practice_line.isVisibleTo(practiser.window)


def test_the_practice_clock_runs_fast_to_the_next_act_and_goes_on_where_it_was(practiser):
    practiser.begin("first hour")
    practiser.press(Qt.Key.Key_2, CTRL)
    practiser.press(SPACE, times=len(practiser.bench.loaded.shots()))
    practiser.press(Qt.Key.Key_3, CTRL)
    station = practiser.window.station()
    station.turn_to("clock")
    practiser.settle()
    begun = time.monotonic()
    button_of(station, "Start the clock").click()
    planned = [s.strip.planned_min for s in practiser.bench.loaded.strips]
    for _ in planned:
        practiser.settle()
        button_of(station, "Run fast to the next act").click()
        practiser.qtbot.waitUntil(lambda: PACE.times == 1.0, timeout=60_000)
        clock = station.clock
        state = clock._clock.at(moment_now().uptime)
        assert 0 < min(a.at for a in state.coming if a.kind == "pull") - state.elapsed_s <= 10.5
        before = moment_now().uptime
        PACE.go(1.0, 10.0)
        clock.go_on()
    practiser.settle()
    assert time.monotonic() - begun < 0.2 * 60 * max(planned)
    path = practiser.bench.notebook.path
    # Another window later: the run is no earlier than it was.
    PACE.rest()
    practiser.bench.open_notebook(path)
    practiser.settle()
    assert moment_now().uptime >= before
    practiser.bench.open_notebook(practiser.own)
    practiser.settle()
    assert abs(moment_now().uptime - time.clock_gettime(time.CLOCK_BOOTTIME)) < 1.0


def film_scored(off, held, way="readings", level="usual", caught=1):
    return OpenedEnvelope("film", "2026-12-01", "time", level, way, off, 0.0, held, 2, caught)


def test_scores_say_how_often_ranges_held_and_which_way_one_errs():
    assert "No envelope was opened yet" in score_sentences([])[0]
    said = " ".join(score_sentences([film_scored(0.3, (True, False))] * 3))
    assert "3 of 6 ranges held the truth" in said
    assert "By readings: the EI 0.30 stop high on the mean of 3 films." in said
    assert "Next: say wider ranges" in said
    assert "EIs are higher" in score_sentences([film_scored(0.3, (True,))] * 6)[-1]
    assert "read the warnings" in score_sentences([film_scored(0.0, (True,), caught=0)] * 6)[-1]
    assert "usual level" in score_sentences([film_scored(0.0, (True,), level="plain")])[-1]
    assert "light box" in score_sentences([film_scored(0.0, (True,))])[-1]


def test_words_that_are_no_range_are_refused_beside_their_field(practiser):
    practiser.begin("plain")
    practiser.say(ei="100")
    for words, why in (
        ("64", "both ends"),
        ("120 to 200", "holds your own"),
        ("soon to 9", "not a number"),
    ):
        practiser.say(ei_range=words)
        assert why in refusal_of(practiser.window), words
    practiser.say(ei_range="80-125")
    assert not refusal_of(practiser.window)
    told = json.loads((practiser.folder / "committed.json").read_text())
    assert told["index"] == {"value": 100.0, "low": 80.0, "high": 125.0}
    practiser.press(UP)
    settle(practiser.qtbot, practiser.window)
