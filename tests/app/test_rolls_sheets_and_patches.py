"""Rolls at another setting, makers' sheets and patches of colour: told, missing, spoilt."""

import json
from dataclasses import replace

import numpy as np
import pytest

from tests.app.test_kind_answers import PLAIN, Bench
from tests.notebooks import new_test
from tests.states import state_of
from vadrin.app.decisions.decision import decide
from vadrin.app.document.state import State
from vadrin.app.document.test_loading import load_test
from vadrin.app.findings.latest_finding import latest_finding
from vadrin.app.read.data_sheet_tracing import traced_points
from vadrin.app.read.patch_entry import keep_patch, patch_typed, patches_of
from vadrin.app.read.sheet_pictures import CURVE
from vadrin.app.read.trace_steps import Trace
from vadrin.app.results.headline import headline_of
from vadrin.app.test_types.cine import cine_answer
from vadrin.app.test_types.colour_push.patches import (
    drift_words,
    hue_turns,
    patch_figures,
    patch_table,
)
from vadrin.core.channels import Channel
from vadrin.core.planning.test_options import (
    LightsInTurn,
    Pushes,
    SecondSteps,
    SheetAxis,
    SheetSource,
)
from vadrin.core.tracing.picture_axes import AxisMark, PictureAxes
from vadrin.errors import EntryError
from vadrin.notebook.records import Finding, Judgement


def row(stops, minutes, lost):
    """A push of a report."""
    held = {
        "time_min": {"value": minutes, "low": minutes * 0.95, "high": minutes * 1.05},
        "shadow_loss_stops": {"value": lost, "low": lost, "high": lost},
    }
    return {"stops": stops, "hold_highlight": held, "hold_midtone": held}


def found(book, pushes, index=100.0, minutes=8.0):
    """A finding of the film that rolls are shot on."""
    test = new_test(book, "Kelda Pan 200", "Sable", "1+1", kind="time")
    with book.change("decide"):
        book.add(
            Finding(
                test_id=test.id,
                exposure_index=index,
                time_min=minutes,
                report=json.dumps({"push": pushes}),
            )
        )
    return test


class TestARollAtAnotherSetting:
    """Which push it is, between the pushes that were found."""

    def roll(self, book, index):
        test = new_test(book, "Kelda Pan 200", "Sable", "1+1", index=index, kind="wrong setting")
        return load_test(book, test.id)

    def answer(self, loaded):
        return headline_of(State(loaded))

    def test_times_between_two_pushes_lie_on_a_scale_of_ln_t(self, notebook):
        found(notebook, [row(0.0, 8.0, 0.0), row(1.0, 11.0, 0.6), row(2.0, 16.0, 1.4)])
        loaded = self.roll(notebook, 160.0)
        between = loaded.beside.minutes(2 / 3, "hold_highlight")
        assert between.value == pytest.approx(8.0 * (11.0 / 8.0) ** (2 / 3))
        assert between.low < between.value < between.high
        assert loaded.beside.shadow_lost(2 / 3).value == pytest.approx(0.4)
        assert self.answer(loaded).index == "Develop 9:55 min"
        assert "Push ⅔ stop: shot at EI 160" in self.answer(loaded).index_note

    def test_a_roll_at_the_found_ei_is_normal_and_a_slower_one_a_pull(self, notebook):
        found(notebook, [row(-1.0, 6.0, 0.0), row(0.0, 8.0, 0.0)])
        normal = self.answer(self.roll(notebook, 100.0))
        assert normal.index == "Develop 8:00 min"
        assert "Normal: shot at EI 100" in normal.index_note
        pull = self.answer(self.roll(notebook, 50.0))
        assert pull.index == "Develop 6:00 min"
        assert "Pull 1 stop" in pull.index_note

    def test_a_push_past_what_was_tested_is_named_and_its_time_is_not_made_up(self, notebook):
        found(notebook, [row(0.0, 8.0, 0.0), row(1.0, 11.0, 0.6)])
        far = self.answer(self.roll(notebook, 400.0))
        assert far.index == "Push 2 stops"
        assert "not among the pushes that were found" in far.index_note
        assert "Develop a strip" in far.next_act

    @pytest.mark.parametrize(
        "report", ["", "[]", '{"push": [{"stops": "far"}]}', '{"push": {"stops": 1}}']
    )
    def test_a_hurt_report_leaves_the_ei_and_no_push(self, notebook, report):
        test = new_test(notebook, "Kelda Pan 200", "Sable", "1+1", kind="time")
        with notebook.change("hurt"):
            notebook.add(
                Finding(test_id=test.id, exposure_index=100.0, time_min=8.0, report=report)
            )
        known = latest_finding(notebook, test)
        assert (known.exposure_index, known.pushes) == (100.0, ())
        assert "not tested" in self.answer(self.roll(notebook, 200.0)).index_note

    def test_no_finding_is_said_and_not_guessed(self, notebook):
        said = self.answer(self.roll(notebook, 400.0))
        assert said.index == ""
        assert "no finding with an EI and a time" in said.index_note
        with notebook.change("an EI alone"):
            notebook.add(
                Finding(
                    test_id=new_test(notebook, "Kelda Pan 200", "Sable", "1+1").id,
                    exposure_index=100.0,
                )
            )
        assert self.answer(self.roll(notebook, 400.0)).index == ""


class TestAMakersSheet:
    """Axes, points and words of a sheet that is traced."""

    AXES = PictureAxes(
        (AxisMark(100, 450, -3.0), AxisMark(600, 450, 1.0)),
        (AxisMark(100, 450, 0.0), AxisMark(100, 50, 3.0)),
    )

    def test_points_are_put_in_order_and_too_few_are_refused(self):
        places = np.array([[100 + 50 * n, 440 - 20 * n] for n in (3, 1, 5, 0, 4, 2)])
        found = traced_points(self.AXES, places)
        assert np.all(np.diff(found[:, 0]) > 0)
        with pytest.raises(EntryError, match="6 points at least: 5 are set"):
            traced_points(self.AXES, places[:5])

    def test_points_no_film_could_have_are_refused(self):
        places = np.array([[100 + 50 * n, 900.0] for n in range(8)])
        with pytest.raises(EntryError, match="densities no film has"):
            traced_points(self.AXES, places)

    @pytest.mark.parametrize(("typed", "value"), [("−2,5", -2.5), ("1", 1.0), ("0.3", 0.3)])
    def test_axis_values_are_typed_as_they_are_printed(self, typed, value):
        assert CURVE.value_typed("left", typed) == value

    @pytest.mark.parametrize("typed", ["40", "left", "", "-9"])
    def test_what_is_no_axis_value_is_refused(self, typed):
        with pytest.raises(EntryError):
            CURVE.value_typed("left", typed)

    def test_steps_are_taken_and_taken_back(self, tmp_path):
        trace = Trace(tmp_path / "sheet.png", np.full((500, 700, 3), 255.0), "")
        with pytest.raises(EntryError, match="mark the axes first"):
            trace.traced()
        for at in ((100, 450), (600, 450), (100, 450), (100, 50)):
            trace = trace.placed(at)
        assert "Point at the line" in trace.asks
        trace = trace.placed((200, 400))
        assert trace.asks.startswith("1 point set")
        assert trace.back().points == ()
        assert len(trace.back().back().marks) == 3
        assert "upper mark" in trace.back().back().asks
        with pytest.raises(EntryError, match="paper, not a line"):
            trace.following((300.0, 200.0))

    def test_a_relative_axis_tells_no_ei_and_a_sheet_without_words_says_nothing(self, notebook):
        relative = SheetSource(SheetAxis.RELATIVE)
        bench = Bench(notebook, "data sheet", index=100.0, options=relative, times=(8.0,))
        assert bench.answer.says == ""
        assert "nothing of the sheet was taken down yet" in bench.answer.words
        assert "relative" in bench.answer.figures["curve_ei"].why


class TestPatches:
    """A chart's patches beside those of the normal strip."""

    @pytest.fixture
    def colour(self, notebook):
        return Bench(notebook, "colour", options=Pushes((0.0, 1.0, 2.0)), times=(6.5,))

    def keep(self, bench, label, *lines):
        for line in lines:
            strip = next(s for s in bench.loaded.strips if s.strip.label == label)
            keep_patch(bench.book, strip, patch_typed(line))

    def test_measured_patches_tell_difference_hue_and_chroma(self, colour):
        self.keep(colour, "A", "red 52 60 40", "sky 60 −10 −30")
        self.keep(colour, "B", "red 52 30 20", "sky 60 25 −25")
        figures = patch_figures(colour.loaded)
        assert figures["B_red_hue_turned"] == pytest.approx(0.0, abs=1e-9)
        assert figures["B_sky_hue_turned"] == pytest.approx(63.4, abs=0.1)
        assert figures["B_greatest_delta_e00"] == max(
            figures["B_red_delta_e00"], figures["B_sky_delta_e00"]
        )
        assert patch_table(colour.loaded).heads[1] == "Push"
        rows = {r[:2]: r for r in patch_table(colour.loaded).rows}
        assert rows["red", "push 1"][4] == "50 %"
        assert rows["sky", "push 1"][5].startswith("violet, was blue")
        assert rows["red", "normal"][2] == "reference"
        assert "Sky drifts most" in drift_words(colour.loaded)
        assert [t.name for t in hue_turns(colour.loaded)] == ["red", "sky"]

    def test_patches_named_by_eye_have_words_and_no_numbers(self, colour):
        self.keep(colour, "A", "skin looks warm")
        self.keep(colour, "C", "skin looks green")
        rows = {r[:2]: r for r in patch_table(colour.loaded).rows}
        assert rows["skin", "push 2"][5] == "green, was warm"
        assert rows["skin", "push 2"][2] == "—"
        assert patch_figures(colour.loaded) == {}
        assert drift_words(colour.loaded) == ""
        assert hue_turns(colour.loaded) == ()

    def test_a_patch_given_again_takes_the_place_of_the_one_before(self, colour):
        self.keep(colour, "A", "red 52 60 40", "Red 50 58 38")
        (patch,) = patches_of(colour.loaded.strips[0]).values()
        assert patch.shown == "50 58 38"
        colour.book.undo()
        (before,) = patches_of(colour.loaded.strips[0]).values()
        assert before.shown == "52 60 40"

    def test_too_small_a_difference_is_said_not_to_be_seen(self, colour):
        self.keep(colour, "A", "grey 50 0 0")
        self.keep(colour, "B", "grey 50.5 0.2 0.1")
        rows = {r[:2]: r for r in patch_table(colour.loaded).rows}
        assert rows["grey", "push 1"][2].endswith("not seen")
        assert rows["grey", "push 1"][3] == "—"

    @pytest.mark.parametrize(
        "words", ["red", "red 52 60", "red 120 0 0", "red 50 200 0", "52 60 40", "red looks ", ""]
    )
    def test_what_is_no_patch_is_refused(self, words):
        with pytest.raises(EntryError):
            patch_typed(words)

    def test_a_patch_from_elsewhere_that_means_nothing_is_passed_over(self, colour):
        strip = colour.loaded.strips[0].strip
        with colour.book.change("hurt"):
            colour.book.add(
                Judgement(strip_id=strip.id, asked="patch red", answer="a b c", way="L*a*b* D50")
            )
        assert patches_of(colour.loaded.strips[0])["red"].colour is None
        assert patch_figures(colour.loaded) == {}


class TestTwoDevelopers:
    """Pairs with one side missing, and a bath that stains nothing."""

    @pytest.fixture
    def pair(self, notebook):
        return Bench(notebook, "two developers", compared_names=("Tidewrack 1+100",), step=1.0)

    def test_one_side_alone_waits_for_the_other(self, pair):
        pair.read(lambda s, f: PLAIN.density(pair.at(f), 8.0) if s.strip.label == "A" else None)
        assert pair.answer.says == ""
        assert "Read strip B" in pair.answer.act

    def test_without_a_blue_filter_the_stain_is_asked_for_and_not_made_up(self, pair):
        pair.read(lambda _s, f: PLAIN.density(pair.at(f), 8.0))
        assert "blue or UV" in pair.answer.act
        assert pair.answer.figures["B_stain_at_1"].value is None
        assert pair.answer.says.startswith("Same speed")

    def test_the_better_filter_judges_where_both_were_read(self, pair):
        plain = lambda _s, f: PLAIN.density(pair.at(f), 8.0)  # noqa: E731
        pair.read(plain)
        pair.read(lambda s, f: plain(s, f) * 1.1, Channel.BLUE, seed=2)
        pair.read(lambda s, f: plain(s, f) * 1.3, Channel.UV, seed=3)
        assert {m.channel for m in pair.analysis.strips} == {"uv"}
        seen, printed = (
            pair.answer.figures[f"A_{way}_gradient"].value for way in ("seen", "printing")
        )
        assert printed / seen == pytest.approx(1.3, rel=0.03)

    def test_a_film_that_holds_nothing_says_why(self, pair):
        pair.read(lambda _s, f: 0.2)
        assert pair.answer.says == ""
        assert pair.answer.words


class TestCine:
    """Lights apart, pieces that cannot be used, and a light that waits."""

    @pytest.fixture
    def film(self, notebook):
        return Bench(
            notebook,
            "cine",
            index=100.0,
            first_stop=-2.0,
            last_stop=2.0,
            options=LightsInTurn((1, 3)),
            times=(6.0, 8.0),
        )

    def test_a_piece_for_every_light_and_time(self, film):
        assert [(s.strip.note, s.minutes) for s in film.loaded.strips] == [
            ("sun", 6.0),
            ("lamp", 6.0),
            ("sun", 8.0),
            ("lamp", 8.0),
        ]
        marked = [
            [f.frame.aperture for f in s.frames if f.frame.stops is not None]
            for s in film.loaded.strips[:2]
        ]
        assert all(marked[0])
        assert not any(marked[1]), "the lamp is metered anew: nothing can be set before"

    def test_no_frame_of_use_says_so_and_invents_no_ei(self, film):
        film.judge(lambda _s, f: "nothing there" if f.frame.stops is not None else "")
        assert film.answer.says == ""
        assert {r[4] for r in film.answer.table.rows} == {"no frame of it can be used"}
        assert not [k for k in film.answer.figures if k.endswith("_ei") and "shadow" not in k]

    def test_one_light_is_told_while_the_other_waits(self, film):
        film.judge(lambda s, f: "use it" if s.strip.note == "lamp" and f.frame.stops == 1.0 else "")
        answer = cine_answer(State(film.loaded))
        assert answer.says == "EI 50 in lamp"
        assert answer.figures["lamp_ei"].low == pytest.approx(50 / 2**0.5)
        assert answer.act == "Judge the frames shot in sun."

    def test_the_piece_with_most_frames_of_use_speaks(self, film):
        def verdict(strip, frame):
            good = {6.0: (0.0,), 8.0: (0.0, 1.0)}[strip.minutes]
            return "use it" if strip.strip.note == "sun" and frame.frame.stops in good else ""

        film.judge(verdict)
        assert "on length C, 8:00 min" in film.answer.words
        assert film.answer.figures["sun_ei"].value == pytest.approx(100 / 2**0.5)


class LoadedTestsOfPositives:
    """What is kept of a material, per light and bleach."""

    def loaded(self, book, light, state, best, decided=True):
        bench = Bench(
            book,
            "reversal",
            index=6.0,
            film="Fathom Positive 6",
            light=light,
            process_state=state,
            options=SecondSteps((-1.0, 0.0, 1.0)),
        )
        bench.judge(
            lambda s, f: (
                "use it"
                if (s.strip.position, f.frame.stops) == (1, best)
                else "can be salvaged"
                if f.frame.stops is not None
                else ""
            )
        )
        if decided:
            decide(book, state_of(bench.loaded, bench.analysis))
        return bench

    def test_sheets_of_a_material_stand_beside_each_other(self, notebook):
        self.loaded(notebook, "sun", "fresh", 0.0)
        self.loaded(notebook, "open shade", "fresh", 1.0)
        self.loaded(notebook, "sun", "", 2.0, decided=False)
        now = self.loaded(notebook, "sun", "half used", 1.0, decided=False)
        assert [r[1:] for r in now.answer.more[0].rows] == [
            ("sun", "half used", "EI 3.2"),
            ("open shade", "fresh", "EI 3.2"),
            ("sun", "fresh", "EI 6"),
        ]
        assert now.answer.says == "EI 3.2 in sun"

    def test_a_sheet_alone_has_nothing_beside_it(self, notebook):
        assert self.loaded(notebook, "sun", "fresh", 0.0).answer.more == ()

    def test_a_hurt_decision_is_passed_over(self, notebook):
        first = self.loaded(notebook, "sun", "fresh", 0.0)
        with notebook.change("hurt"):
            (kept,) = notebook.all(Finding, test_id=first.test.id)
            notebook.put(replace(kept, report='{"answer": {"figures": {"best_ei": "six"}}}'))
        assert self.loaded(notebook, "sun", "fresh", 0.0).answer.more == ()


def test_a_filter_that_stays_on_is_taken_off_the_marks(notebook):
    plain = Bench(notebook, "cine", index=100.0, options=LightsInTurn((1,)), times=(8.0,))
    behind = Bench(
        notebook, "cine", index=100.0, options=LightsInTurn((1,)), times=(8.0,), filter_factor=4.0
    )

    def given(bench):
        return [
            (f.frame.stops, f.frame.seconds)
            for _, f in bench.loaded.frames()
            if f.frame.stops is not None
        ]

    for (bare, seconds), (stops, longer) in zip(given(plain), given(behind), strict=True):
        assert stops == pytest.approx(bare, abs=0.2), "the frames mean the same EIs"
        assert longer == pytest.approx(4.0 * seconds, rel=0.15), "and get two stops more"
