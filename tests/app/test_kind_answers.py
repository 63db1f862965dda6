"""Every kind ends in the answer its question asked: told, missing, spoilt; on card and in JSON."""

import json
import re
from dataclasses import replace

import numpy as np
import pytest

from oracles.film_shapes import SHAPES
from tests.notebooks import new_test
from tests.states import state_of, worked_out
from tests.window.pages import pdf_words
from vadrin.app.decisions.darkroom_card import card_document, card_of
from vadrin.app.decisions.decision import whole_report, write_answer
from vadrin.app.descriptions import description_of, own_answer
from vadrin.app.display.quantities import minutes_text
from vadrin.app.document.test_loading import load_test
from vadrin.app.overview.warnings_of_test import warnings_of
from vadrin.app.pictures.exposed import exposed_of, paper_sees
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.seen import seen
from vadrin.app.printing.grade_choice import negative_range
from vadrin.app.read.light_box_judging import NO, YES, answer_question, question_of
from vadrin.app.read.verdict_entry import give_verdict
from vadrin.app.results.headline import headline_of
from vadrin.app.results.overexposure import overexposure_words
from vadrin.app.results.working_steps import develop_words
from vadrin.app.shelf.shelf_index import undecided_answer
from vadrin.app.test_types.colour_push.colours import crossover_words
from vadrin.app.test_types.long_exposures import write_law
from vadrin.app.test_types.push import over_developed_proof, push_rows
from vadrin.core.channels import Channel
from vadrin.core.curves import metrics
from vadrin.core.exposure.reciprocity import Reciprocity, corrected_time, effective_time
from vadrin.core.figure import Figure, absent
from vadrin.core.pictures.printing_paper import typical_paper
from vadrin.core.planning.plan_request import Arrangement
from vadrin.core.planning.test_options import (
    LightsInTurn,
    LongTimes,
    Pushes,
    SecondSteps,
    SharedIndexes,
)
from vadrin.errors import EntryError
from vadrin.notebook.records import Finding, Frame, PrintSetup, Reading, Stock, Strip, Test

PLAIN = SHAPES["plain"]


class Bench:
    """A test of a kind that is exposed, developed and read as a made-up film would read."""

    def __init__(self, book, kind, **asked):
        self.book = book
        times = asked.pop("times", (8.0,))
        film = asked.pop("film", "Kelda Pan 200")
        self.test = new_test(book, film, "Sable", "1+1", kind=kind, times=times, **asked)
        with book.change("developed"):
            for strip in book.all(Strip, test_id=self.test.id):
                minutes = strip.planned_min
                book.put(replace(strip, time_min=minutes, temperature_c=20.0))
            for frame in self.frames():
                book.put(replace(frame, state="exposed"))

    @property
    def loaded(self):
        return load_test(self.book, self.test.id)

    def frames(self):
        return [f.frame for _, f in load_test(self.book, self.test.id).frames()]

    def read(self, density, channel=Channel.VISUAL, noise=0.006, seed=1):
        """Read every frame: `density` is asked with the strip and the frame."""
        rng = np.random.default_rng(seed)
        with self.book.change("read"):
            for strip, frame in self.loaded.frames():
                dense = density(strip, frame)
                if dense is not None:
                    self.book.add(
                        Reading(
                            frame_id=frame.frame.id,
                            channel=channel,
                            density=round(dense + noise * rng.standard_normal(), 3),
                        )
                    )

    def judge(self, verdict):
        """Give every frame the verdict that `verdict` has for it."""
        for strip, frame in self.loaded.frames():
            said = verdict(strip, frame)
            if said:
                give_verdict(self.book, frame, "the frame", said)

    @property
    def analysis(self):
        loaded = self.loaded
        return worked_out(loaded)

    @property
    def answer(self):
        return own_answer(state_of(self.loaded, self.analysis))

    def at(self, frame):
        return frame.log_h(self.test.meter_constant)


def everywhere(bench, tmp_path, says):
    """The same answer stands in the finding column, on the card, in JSON and on the shelf."""
    loaded, analysis = bench.loaded, bench.analysis
    assert headline_of(state_of(loaded, analysis)).index == says
    card = card_of(state_of(loaded, analysis))
    path = tmp_path / "card.pdf"
    path.write_bytes(card_document(card, "A6"))
    pages, words = pdf_words(path)
    assert pages == 1
    assert says.split()[-1] in words
    write_answer(tmp_path / "answer.json", state_of(loaded, analysis))
    told = json.loads((tmp_path / "answer.json").read_text(encoding="utf-8"))
    assert told["answer"]["says"] == says
    assert undecided_answer(loaded).index == says
    assert (
        whole_report(state_of(loaded, analysis))["answer"]["figures"].keys()
        == told["answer"]["figures"].keys()
    )
    advice = " ".join(w.sentence + w.remedy for w in warnings_of(state_of(loaded, analysis)))
    assert "development time" not in advice
    return told["answer"]


class TestAMixedRoll:
    """One roll at many EIs, left to stand, beside its twin in the normal process."""

    @pytest.fixture
    def roll(self, notebook):
        indexes = (25.0, 50.0, 100.0, 200.0, 400.0, 800.0, 1600.0)
        return Bench(notebook, "mixed roll", times=(60.0, 8.0), options=SharedIndexes(indexes))

    def film(self, roll):
        soft = replace(PLAIN, contrast=PLAIN.contrast * 0.75)

        def density(strip, frame):
            shape = soft if strip.strip.label == "A" else PLAIN
            return shape.density(roll.at(frame), 8.0)

        return density

    def test_it_says_which_eis_each_process_holds(self, roll, tmp_path):
        roll.read(self.film(roll))
        good = {50.0, 100.0, 200.0, 400.0}
        roll.judge(lambda _s, f: "use it" if f.frame.exposure_index in good else "nothing there")
        told = everywhere(roll, tmp_path, roll.answer.says)
        assert told["says"].startswith("EI ")
        assert "no one time" not in told["words"]
        assert {row[2] for row in told["table"]["rows"]} == {"EI 50 to 400"}
        highest = told["figures"]["A_highest_ei"]
        shadow = roll.analysis.strips[0].zone_ei.value
        assert highest["value"] == pytest.approx(2 * shadow, rel=0.02)
        (first, _) = roll.answer.film
        assert [c.held for c in first.cells] != [False] * len(first.cells)
        assert all(c.words.startswith("EI ") for c in first.cells)

    def test_what_waits_is_advised_and_nothing_is_made_up(self, roll):
        assert roll.answer.says == ""
        assert "Read strip A" in roll.answer.act
        assert all(f.value is None for f in roll.answer.figures.values())


class TestOldFilm:
    """Today's EI, its fog beside a known film, and what it is good for."""

    @pytest.fixture
    def old(self, notebook):
        return Bench(notebook, "rescue", index=200.0, first_stop=0.0, last_stop=7.0)

    def read_old(self, old, slower, fog):
        def density(_strip, frame):
            if frame.frame.role == "fogged":
                return None
            x = old.at(frame)
            net = PLAIN.density(None if x is None else x - slower, 8.0) - PLAIN.density(None, 8.0)
            return fog + net

        old.read(density)

    def test_its_ei_and_fog_are_set_beside_the_known_film(self, old, notebook, tmp_path):
        report = {"strips": {"A": {"base_fog": {"value": 0.20}}}}
        fresh = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind="time")
        with notebook.change("known"):
            notebook.add(
                Finding(
                    test_id=fresh.id, exposure_index=160.0, time_min=8.0, report=json.dumps(report)
                )
            )
        true = 8.125 / 16 / 10 ** PLAIN.x_m(8.0)
        self.read_old(old, 0.602, 0.55)
        told = everywhere(old, tmp_path, old.answer.says)
        index, lost = told["figures"]["ei"], told["figures"]["stops_lost"]
        assert index["low"] < true / 4 < index["high"]
        assert lost["value"] == pytest.approx(np.log2(160.0 / index["value"]), abs=0.01)
        assert told["figures"]["fog_over_known"]["value"] == pytest.approx(0.35, abs=0.03)
        assert "beside the test that was decided at 0.20" in told["words"]
        assert "prints take 2." in told["words"]

    def test_film_that_holds_nothing_is_said_to(self, old):
        self.read_old(old, 9.0, 1.1)
        assert old.answer.says == ""
        assert "Too few" not in old.answer.words
        assert old.answer.figures["ei"].value is None

    def test_a_base_that_was_read_is_known_where_no_speed_can_be_told(self, old):
        self.read_old(old, -3.0, 0.5)
        old.judge(lambda _strip, _frame: "use it")
        answer = old.answer
        assert answer.figures["base_fog"].value == pytest.approx(0.5, abs=0.03)
        assert "no densities were read" not in answer.words

    def test_its_fog_is_told_by_the_blanks_alone(self, old):
        old.read(lambda _strip, frame: 0.62 if frame.frame.blank else None)
        assert old.answer.figures["base_fog"].value == pytest.approx(0.62, abs=0.02)
        assert old.answer.says == ""

    @pytest.mark.parametrize("lost", [0, 3, 6])
    def test_a_scene_on_the_light_box_is_asked_for_its_shadows(self, notebook, lost):
        """Whatever the highlights show: film that lost three stops is no faster for them."""
        page = description_of("rescue")
        old = Bench(
            notebook,
            "rescue",
            index=200.0,
            first_stop=page.first,
            last_stop=page.last,
            subject=page.subject,
        )
        slower = 0.30103 * lost
        for _ in range(10):
            strip = old.loaded.strips[0]
            asked = question_of(old.loaded, strip)
            if asked.frame is None:
                break
            seen = False
            if not asked.frame.frame.blank:
                assert "anything in the shadows" in asked.words
                shadow = old.at(asked.frame) - 4 * 0.30103 - slower
                seen = PLAIN.density(shadow, 8.0) - PLAIN.density(None, 8.0) > 0.03
            answer_question(notebook, strip, asked.frame, YES if seen else NO)
        true = 8.125 / 16 / 10 ** PLAIN.x_m(8.0) / 2.0**lost
        told = old.answer.figures["ei"]
        assert told.low < true < told.high, "as wide as a scene's shadows are unknown"
        assert told.high / told.low > 3.5
        assert "on the light box" in old.answer.words

    def test_before_it_is_read_nothing_is_said(self, old):
        assert old.answer.says == ""
        assert "light box" in old.answer.act


class TestLongExposures:
    """The law, its table, and its way into the stock."""

    TRUE = Reciprocity(factor=0.18, exponent=1.45)

    @pytest.fixture
    def night(self, notebook):
        return Bench(notebook, "reciprocity", options=LongTimes((1.0, 4.0, 15.0, 60.0, 240.0)))

    def film(self, night, law, noise=0.006):
        def density(_strip, frame):
            x = night.at(frame)
            held = frame.frame.seconds
            if x is None or held is None or held <= 0.5:
                return PLAIN.density(x, 8.0)
            metered = held / 2.0 ** (frame.frame.stops or 0.0)
            worth = effective_time(law, held) / metered
            return PLAIN.density(x - 0.30103 * (frame.frame.stops or 0.0) + np.log10(worth), 8.0)

        night.read(density, noise=noise)

    def test_the_law_is_found_told_and_written_into_the_stock(self, night, notebook, tmp_path):
        self.film(night, self.TRUE)
        told = everywhere(night, tmp_path, night.answer.says)
        for seconds in (4, 60, 240):
            figure = told["figures"][f"corrected_{seconds}s"]
            true = seconds + 0.18 * seconds**1.45
            assert figure["low"] <= true <= figure["high"]
        assert told["figures"]["corrected_1800s"]["value"] is None, "nothing so long was tried"
        assert "misread" not in [w.key for w in warnings_of(state_of(night.loaded, night.analysis))]
        said = write_law(notebook, night.loaded)
        assert "beyond a second" in said
        assert notebook.get(Stock, night.test.stock_id).reciprocity.startswith("+0.")
        assert "Saved with this film" in night.answer.act
        notebook.undo()
        assert notebook.get(Stock, night.test.stock_id).reciprocity == ""

    def test_a_film_that_loses_nothing_is_said_to(self, night):
        self.film(night, Reciprocity(factor=0.0), noise=0.002)
        assert night.answer.says == "Nothing lost"
        with pytest.raises(EntryError, match="nothing to write"):
            write_law(night.book, night.loaded)

    def test_the_short_frame_is_asked_for(self, night):
        night.read(lambda _s, f: 0.8 if f.frame.seconds and f.frame.seconds > 0.5 else None)
        assert night.answer.says == ""
        assert "the short frame was not read" in night.answer.words


def test_ranges_of_long_exposures_hold():
    from vadrin.core.exposure.long_exposure_pairs import LongFrame, long_exposure_law

    held = tried = 0
    for seed in range(20):
        rng = np.random.default_rng([3, seed])
        law = Reciprocity(factor=rng.uniform(0.05, 0.4), exponent=rng.uniform(1.2, 1.6))
        at = PLAIN.x_m(8.0) + rng.uniform(0.5, 1.0)
        frames = []
        for metered in (1.0, 4.0, 15.0, 60.0, 240.0):
            for stops in (0, 1, 2):
                worth = effective_time(law, metered * 2.0**stops) / metered
                dense = PLAIN.density(at + np.log10(worth), 8.0) + 0.01 * rng.standard_normal()
                frames.append(LongFrame(metered, metered * 2.0**stops, dense))
        short = PLAIN.density(at, 8.0) + 0.01 * rng.standard_normal()
        found = long_exposure_law(short, tuple(frames), 0.01, rng)
        for seconds, figure in found.table[:9]:
            if figure.present:
                true = corrected_time(law, seconds)
                held += figure.low <= true <= figure.high
                tried += 1
    assert tried > 130
    assert 0.9 <= held / tried <= 1.0


class TestComparison:
    """Films named by their own names, each beside the reference."""

    @pytest.fixture
    def pair(self, notebook):
        with notebook.change("another"):
            other = notebook.add(Stock(name="Brannock 400", box_speed=400.0))
        bench = Bench(notebook, "compare", compared="stocks", compared_names=("Brannock 400",))
        with notebook.change("named"):
            for strip in notebook.all(Strip, test_id=bench.test.id):
                if strip.position:
                    notebook.put(replace(strip, stock_id=other.id, note="Brannock 400"))
        return bench

    def test_a_faster_film_is_named_with_its_stops(self, pair, tmp_path):
        def density(strip, frame):
            x = pair.at(frame)
            faster = 0.30103 if strip.strip.position else 0.0
            return PLAIN.density(None if x is None else x + faster, 8.0)

        pair.read(density)
        told = everywhere(pair, tmp_path, pair.answer.says)
        label = pair.loaded.strips[1].strip.label
        stops = told["figures"][f"{label}_speed_stops"]
        assert stops["low"] < 1.0 < stops["high"]
        match, rated = told["figures"][f"{label}_match_ei"], pair.test.exposure_index
        assert match["value"] == pytest.approx(rated * 2 ** stops["value"], rel=0.01)
        assert [row[0] for row in told["table"]["rows"]] == ["Kelda Pan 200", "Brannock 400"]
        assert [s.name for s in pair.answer.plot.series] == ["Kelda Pan 200", "Brannock 400"]

    def test_one_that_waits_is_advised(self, pair):
        pair.read(lambda s, f: None if s.strip.position else PLAIN.density(pair.at(f), 8.0))
        assert pair.answer.says == ""
        assert "Read strip" in pair.answer.act


class TestColour:
    """Three layers over the pushes."""

    @pytest.fixture
    def chart(self, notebook):
        return Bench(
            notebook,
            "colour",
            times=(6.5,),
            options=Pushes((0.0, 1.0)),
            first_stop=-5.0,
            last_stop=4.0,
        )

    def test_crossover_is_named_by_what_is_seen(self, chart, tmp_path):
        gain = {Channel.RED: 1.0, Channel.GREEN: 1.0, Channel.BLUE: 1.0}
        for channel, factor in gain.items():

            def density(strip, frame, factor=factor, channel=channel):
                pushed = strip.strip.push and channel == Channel.BLUE
                base = PLAIN.density(None, 8.0)
                net = PLAIN.density(chart.at(frame), 8.0) - base
                return base + net * (1.25 if pushed else 1.0) * factor

            chart.read(density, channel, seed=len(channel))
        told = everywhere(chart, tmp_path, chart.answer.says)
        rows = told["table"]["rows"]
        assert rows[0][4] == "layers go together"
        assert "highlights shift towards blue, shadows towards yellow" in rows[1][4]
        assert "Crossover" in told["says"]
        by = told["figures"]
        assert by["B_blue_gradient"]["value"] > by["B_green_gradient"]["value"] + 0.05

    def test_without_layers_it_asks_for_them(self, chart):
        assert "red, green and blue" in chart.answer.act
        half, short = Figure(0.5), absent("the readings end before it")
        assert crossover_words({"red": half, "green": None, "blue": half}) == "read green"
        assert crossover_words({"red": half, "green": half, "blue": short}) == (
            "blue: the readings end before it"
        )


class TestASheetOfTwoFactors:
    """The best cell, its border, and the process that failed."""

    @pytest.fixture
    def positive(self, notebook):
        return Bench(
            notebook,
            "reversal",
            options=SecondSteps((-1.0, 0.0, 1.0)),
            first_stop=-3.0,
            last_stop=3.0,
        )

    def falling(self, positive, mid):
        def density(_strip, frame):
            x = positive.at(frame)
            return 2.1 if x is None else 0.15 + 1.95 / (1 + np.exp(5 * (x - mid)))

        return density

    def test_the_best_cell_is_named_and_a_finer_sheet_advised(self, positive, tmp_path):
        mid = float(
            np.median([positive.at(f) for _, f in positive.loaded.frames() if not f.frame.blank])
        )
        positive.read(self.falling(positive, mid))
        positive.judge(
            lambda s, f: (
                "use it" if s.strip.label == "B" and f.frame.stops == 1.0 else "nothing there"
            )
        )
        told = everywhere(positive, tmp_path, positive.answer.says)
        assert told["figures"]["best_row"] == 1.0
        assert "half steps to each side" in told["next"]
        lit = [
            (r, c)
            for r, row in enumerate(positive.answer.film)
            for c, cell in enumerate(row.cells)
            if cell.held
        ]
        assert lit == [(1, int(told["figures"]["best_column"]))]

    def test_a_best_cell_at_the_border_is_not_bracketed(self, positive):
        positive.judge(
            lambda s, f: (
                "use it" if s.strip.label == "C" and f.frame.stops == 3.0 else "nothing there"
            )
        )
        assert "not bracketed: a stop more exposure" in positive.answer.words

    def test_its_stages_are_drawn_and_a_flash_lifts_the_shadows_alone(self, positive):
        mid = float(
            np.median([positive.at(f) for _, f in positive.loaded.frames() if not f.frame.blank])
        )
        positive.read(self.falling(positive, mid))
        drawn = {s.name: s for s in positive.answer.plot.series}
        assert {"A positive", "B positive", "C positive", "after the bleach"} <= set(drawn)
        falls = [d for _, d in drawn["B positive"].line]
        rises = [d for _, d in drawn["first developer"].line]
        assert falls[0] - falls[-1] > 1.5
        assert rises[-1] - rises[0] > 1.5
        table = positive.answer.more[-1]
        none, *_, strongest = [[float(v) for v in row[1:]] for row in table.rows]
        # Three stops under the grey a flash as strong doubles the light.
        x = mid - 3 * 0.30103
        lifted = 0.15 + 1.95 / (1 + np.exp(5 * (x + 0.30103 - mid)))
        assert none[0] == pytest.approx(0.15 + 1.95 / (1 + np.exp(5 * (x - mid))), abs=0.05)
        assert strongest[0] == pytest.approx(lifted, abs=0.07)
        assert none[0] - strongest[0] > 0.05

    def test_cells_that_are_all_alike_are_the_process(self, positive):
        positive.read(lambda _s, _f: 1.9)
        assert positive.answer.says == "Process, not exposure"
        assert "Bleach spent" in positive.answer.words


class TestPaper:
    """A paper's range by its densities, and by eye."""

    @pytest.fixture
    def paper(self, notebook):
        return Bench(
            notebook, "paper", first_stop=-4.0, last_stop=4.0, step=0.5, metered_seconds=8.0
        )

    def test_its_range_is_found(self, paper, tmp_path):
        from oracles.papers import Paper

        made = Paper(1.0)

        def density(_strip, frame):
            return float(made.density(np.log10(frame.frame.seconds / 8.0)))

        paper.read(density, noise=0.004)
        told = everywhere(paper, tmp_path, paper.answer.says)
        scale = told["figures"]["iso_range"]
        assert scale["low"] < 100 < scale["high"]
        assert paper.answer.plot.series[0].points
        assert "focus at infinity" not in str(told)

    def test_it_waits_for_its_steps(self, paper):
        assert "no step of the paper was read yet" in paper.answer.words
        assert "reflection densities" in paper.answer.act


class TestPushLadder:
    """Pushes as film, with their counts, and what a longer development proves."""

    def test_rows_are_the_pushes_at_their_greys(self, notebook):
        bench = Bench(notebook, "push", times=(6.0,), options=Pushes((0.0, 1.0, 2.0)))
        bench.read(lambda s, f: PLAIN.density(bench.at(f), s.minutes))
        bench.judge(lambda s, f: "use it" if (f.frame.stops or 0) > s.strip.push - 2 else "")
        rows = push_rows(bench.loaded)
        assert [r.name.partition(",")[0] for r in rows] == ["normal", "push 1", "push 2"]
        assert all("usable" in r.note for r in rows)

    def test_a_longer_twin_proves_that_thin_shadows_are_exposure(self, notebook):
        bench = Bench(notebook, "time", times=(6.0, 12.0), step=0.5)
        bench.read(
            lambda s, f: PLAIN.density(bench.at(f), s.minutes) + (0.0 if s.minutes < 10 else 0.05),
            noise=0.0,
        )
        proof = over_developed_proof(bench.loaded)
        assert "no denser in the shadows" in proof
        assert "thin shadows are exposure" in proof


def test_speed_is_told_with_one_strip_and_asks_for_no_other(notebook):
    bench = Bench(notebook, "speed", step=0.5)
    bench.read(lambda _s, f: PLAIN.density(bench.at(f), 8.0))
    headline = headline_of(state_of(bench.loaded, bench.analysis))
    true = 8.125 / 16 / 10 ** PLAIN.x_m(8.0)
    assert bench.analysis.strips[0].zone_ei.low < true < bench.analysis.strips[0].zone_ei.high
    assert "second strip" not in headline.next_act


def test_a_hurt_finding_is_no_known_film(notebook):
    fresh = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind="time")
    with notebook.change("hurt"):
        notebook.add(Finding(test_id=fresh.id, exposure_index=160.0, report='{"strips": 3}'))
    old = Bench(notebook, "rescue", index=200.0, first_stop=0.0, last_stop=7.0)
    assert old.loaded.beside is None
    assert metrics.SPEED_DENSITY == 0.10
    assert notebook.get(Test, fresh.id).kind == "time"
    assert notebook.all(Frame, strip_id=-1) == []


def test_how_much_overexposure_a_film_stands_is_part_of_its_answer(notebook):
    """A film that saturates at 1.9: latitude, greatest density, and what that costs."""
    film = SHAPES["compensating"]
    bench = Bench(
        notebook,
        "time",
        index=200.0,
        times=(7.0, 11.0, 17.0, 25.0),
        first_stop=-6.0,
        last_stop=14.0,
    )
    bench.read(lambda s, f: film.density(bench.at(f), s.minutes), noise=0.004)
    with notebook.change("maximum black"):
        notebook.add(PrintSetup(test_id=bench.test.id, black_s=3.5))
    said = overexposure_words(state_of(bench.loaded, bench.analysis))
    label = re.search(r"of strip (\w)", said)[1]
    near = next(s.minutes for s in bench.loaded.strips if s.strip.label == label)
    top = film.density(6.0, near) - film.density(None, near)
    told = float(re.search(r"ends ([\d.]+) over base plus fog", said)[1])
    assert told == pytest.approx(top, abs=0.05)
    seconds = float(re.search(r"go black in (\d+) s", said)[1])
    assert seconds == pytest.approx(3.5 * 10**top, rel=0.15)
    assert re.search(r"[\d.]+ stops from the first detail to the last", said)
    with notebook.change("the enlarger was moved"):
        (setup,) = notebook.all(PrintSetup)
        notebook.put(replace(setup, closed_at="2026-11-30T20:00:00+00:00"))
    assert "go black" not in overexposure_words(state_of(bench.loaded, bench.analysis))
    assert f"{told:.2f} over base" in card_of(state_of(bench.loaded, bench.analysis)).basis


def test_a_bracket_that_ends_before_the_shoulder_tells_no_latitude(notebook):
    bench = Bench(notebook, "time", index=200.0, times=(6.0, 9.0, 13.0), last_stop=4.0)
    bench.read(lambda s, f: PLAIN.density(bench.at(f), s.minutes))
    assert overexposure_words(state_of(bench.loaded, bench.analysis)) == ""


def test_a_negative_is_as_long_as_its_own_curve_between_the_tones(notebook):
    """A film that saturates: five stops times its gradient would promise more than there is."""
    film = SHAPES["compensating"]
    bench = Bench(notebook, "speed", index=200.0, times=(17.0,), first_stop=-6.0, last_stop=9.0)
    bench.read(lambda s, f: film.density(bench.at(f), s.minutes), noise=0.004)
    state = state_of(bench.loaded, bench.analysis)
    strip = bench.loaded.strips[0]
    told, rest = negative_range(state, strip, 9.0)
    assert told.low < told.value < told.high
    told = told.value
    x = film.x_m(17.0)
    assert told == pytest.approx(film.net(x + 9 * 0.30103, 17.0) - film.net(x, 17.0), abs=0.04)
    steep = bench.analysis.strips[0].average_gradient.value
    assert told < steep * 9 * 0.30103 - 0.1
    assert rest == ""
    past, why = negative_range(state, strip, 20.0)
    assert why == ""
    assert "stops before the highlights" in past.why


@pytest.mark.parametrize("slower", [0, 1])
def test_a_second_cine_camera_is_set_beside_the_first(notebook, slower):
    """The same scene in both; the second is slower by a stop, and its best frames lie there."""
    bench = Bench(
        notebook,
        "cine",
        index=50.0,
        first_stop=-3.0,
        last_stop=4.0,
        options=LightsInTurn((1, 2)),
        arrangement=Arrangement.INTERLEAVED,
    )
    assert [s.strip.note for s in bench.loaded.strips][:2] == ["sun", "sun, twin"]

    def seen(strip, frame):
        stops = frame.frame.stops
        if frame.frame.blank or stops is None:
            return ""
        best = slower if strip.strip.note.endswith("twin") else 0
        return "use it" if abs(stops - best) <= 1 else "nothing there"

    bench.judge(seen)
    answer = bench.answer
    told = answer.figures["twin_stops"]
    assert told.low < slower < told.high
    assert told.value == pytest.approx(slower)
    assert answer.figures["sun_ei"].value == pytest.approx(50, rel=0.02), "of the first camera"
    said = "needs 1 stop more than the first, a factor of 2.0" if slower else "give the same"
    assert said in answer.words


def test_a_card_states_a_time_at_the_temperature_it_names(notebook):
    """Ten minutes at 24 °C were 14:25 at 20, not ten."""
    roll = Bench(notebook, "mixed roll", index=100.0, times=(10.0, 8.0))
    with notebook.change("warm"):
        for strip in notebook.all(Strip, test_id=roll.test.id):
            notebook.put(replace(strip, temperature_c=24.0 if strip.label == "A" else 20.0))
    first, second = roll.loaded.strips
    told = 10 * 2.5**0.4
    assert develop_words(roll.loaded, first).startswith(f"{minutes_text(told)} min at 20 °C")
    assert develop_words(roll.loaded, second) == "8:00 min at 20 °C"


def test_gross_over_development_proves_thin_shadows_of_colour_film_too(notebook):
    """Twice the time, and the thinnest frames as they were."""
    bench = Bench(
        notebook, "colour", times=(6.5,), options=Pushes((0.0, 3.0)), first_stop=-6.0, last_stop=4.0
    )
    for channel in (Channel.RED, Channel.GREEN, Channel.BLUE):
        bench.read(lambda s, f: PLAIN.density(bench.at(f), s.minutes), channel, noise=0.002)
    one, other = (s.minutes for s in bench.loaded.strips)
    assert other > 1.4 * one
    assert "thin shadows are exposure, and no time brings them back" in bench.answer.words


def test_a_stained_negative_is_seen_as_paper_sees_it(notebook):
    """By eye both are one film; by blue the second holds back a quarter more."""
    bench = Bench(
        notebook,
        "two developers",
        index=200.0,
        times=(8.0,),
        compared_names=("Tidewrack 1+100",),
        last_stop=4.0,
    )
    share = {"A": 0.0, "B": 0.25}
    bench.read(lambda s, f: PLAIN.density(bench.at(f), 8.0), noise=0.002)
    bench.read(
        lambda s, f: PLAIN.density(bench.at(f), 8.0) * (1 + share[s.strip.label]),
        Channel.BLUE,
        0.002,
        3,
    )
    state = state_of(bench.loaded, bench.analysis)
    assert paper_sees(state) == "blue"
    first, second = (
        seen(state, exposed, Looking(), PaperUsed(typical_paper(), ""), 8).tones
        for exposed in exposed_of(state)
    )
    x = np.linspace(-1.6, -0.4, 7)
    nets = [np.interp(x, t.log_h, t.density) for t in (first, second)]
    true = np.array([PLAIN.net(at, 8.0) for at in x])
    assert nets[0] == pytest.approx(true, abs=0.03)
    assert nets[1] == pytest.approx(1.25 * true, abs=0.04)
