"""Plan: the test as sentences, every underlined word changed in place."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from vadrin.app.expectation import expected_strips
from vadrin.app.planning import MOST_STRIPS, PlanEdit, apply_plan
from vadrin.app.words import minutes_typed, number_typed, times_typed
from vadrin.app.workbench import Workbench
from vadrin.core.exposure import (
    bracket,
    exact_aperture,
    exact_shutter,
    marked_ei,
    shutter_name,
    stops_text,
)
from vadrin.ui.curve_plot import CurvePlot
from vadrin.ui.parts import WordField, sentence, text
from vadrin.ui.stations.station import Scene, Station

_STEPS = {"whole stops": 1.0, "half stops": 0.5, "thirds": 1 / 3}


def _times_text(times: tuple[float, ...]) -> str:
    shown = [f"{t:g}" for t in times]
    return shown[0] if len(shown) == 1 else f"{', '.join(shown[:-1])} and {shown[-1]}"


def _step_times(shown: str, way: int) -> str:
    times = times_typed(shown)
    if way < 0:
        return _times_text(times[:-1] or times)
    longer = round(times[-1] * 1.4 * 2) / 2
    return _times_text((*times, longer)[:MOST_STRIPS])


def _step_number(by: float) -> Callable[[str, int], str]:
    return lambda shown, way: stops_text(number_typed(shown) + way * by, signed=True)


def _seconds_typed(words: str) -> float:
    plain = words.strip().removesuffix("s").strip()
    if plain.startswith("1/"):
        seconds = 1.0 / number_typed(plain[2:])
    else:
        seconds = number_typed(plain)
    if not 1 / 16000 < seconds <= 3600:
        raise ValueError("a shutter time lies between 1/16000 and 3600 s, such as 1/30")
    return seconds


def _within(value: float, low: float, high: float, words: str) -> float:
    if not low <= value <= high:
        raise ValueError(words)
    return value


class PlanStation(Station):
    """The question, the plan in sentences, and where its frames are likely to land."""

    keys = (
        ("Tab", "to the next underlined word"),
        ("↑ ↓", "step the word you are at"),
        ("Enter", "take what you typed"),
        ("Esc", "drop what you typed"),
    )

    def __init__(self, bench: Workbench) -> None:
        super().__init__(bench)
        self._fields: dict[str, WordField] = {}
        self._wish: PlanEdit | None = None
        self.column.addWidget(
            text("How long do I develop it, for each push and pull?", 17, 700, wrap=True)
        )
        self.column.addWidget(
            sentence("The film is", self._field("film"), "in", self._field("developer"),
                     self._field("dilution"), "; the meter is set to EI", self._field("ei"), ".")
        )  # fmt: skip
        self.column.addWidget(
            sentence("The same exposures on", self._field("strips"),
                     ", one each developed", self._field("times"), "min at 20 °C.")
        )  # fmt: skip
        self.column.addWidget(
            sentence("A plain target, evenly lit and out of focus, from", self._field("first"),
                     "to", self._field("last"), "stops in", self._field("step"), ", after",
                     self._field("blanks"), "kept blank.")
        )  # fmt: skip
        self.column.addWidget(
            sentence("The meter says", self._field("shutter"), "at", self._field("aperture"),
                     "; turn only the shutter.")
        )  # fmt: skip
        self.column.addWidget(self.refusal)
        self._plot = CurvePlot()
        self.column.addWidget(self._plot, 1)
        self._caption = text("", 12, tone="soft", wrap=True)
        self.column.addWidget(self._caption)

    def _field(self, key: str) -> WordField:
        names = {
            "film": "film stock",
            "developer": "developer",
            "dilution": "dilution",
            "ei": "EI on the meter",
            "strips": "number of strips",
            "times": "development times in minutes",
            "first": "thinnest exposure in stops",
            "last": "densest exposure in stops",
            "step": "step of the bracket",
            "blanks": "blank frames",
            "shutter": "metered shutter time",
            "aperture": "metered aperture",
        }
        field = WordField(names[key], self._commits()[key], self._steppers().get(key))
        field.refused.connect(self.refuse)
        self._fields[key] = field
        return field

    def _steppers(self) -> dict[str, Callable[[str, int], str]]:
        def thirds(shown: str, way: int) -> str:
            return str(marked_ei(number_typed(shown) * 2.0 ** (way / 3)))

        def steps(shown: str, way: int) -> str:
            names = list(_STEPS)
            return names[(names.index(shown) + way) % len(names) if shown in names else 0]

        def counts(shown: str, way: int) -> str:
            return str(max(0, int(shown.split()[0]) + way))

        return {
            "ei": thirds,
            "strips": counts,
            "times": _step_times,
            "first": _step_number(1.0),
            "last": _step_number(1.0),
            "step": steps,
            "blanks": counts,
            "shutter": lambda s, way: shutter_name(exact_shutter(_seconds_typed(s)) * 2.0**way),
            "aperture": lambda s, way: _aperture_text(_aperture_typed(s) * 2 ** (way / 2)),
        }

    def _commits(self) -> dict[str, Callable[[str], None]]:
        return {
            "film": lambda s: self._apply("change the film", stock_name=_named(s)),
            "developer": lambda s: self._apply("change the developer", developer_name=_named(s)),
            "dilution": lambda s: self._apply("change the dilution", dilution=s.strip()),
            "ei": self._set_index,
            "strips": self._set_strips,
            "times": self._set_times,
            "first": lambda s: self._set_bracket(first_stop=number_typed(s)),
            "last": lambda s: self._set_bracket(last_stop=number_typed(s)),
            "step": self._set_step,
            "blanks": self._set_blanks,
            "shutter": lambda s: self._set(metered_seconds=_seconds_typed(s)),
            "aperture": lambda s: self._set(aperture=_aperture_typed(s)),
        }

    def _apply(self, label: str, **changes: object) -> None:
        if self._wish is not None:
            wish = replace(self._wish, **changes)  # type: ignore[arg-type]
            self.bench.edit(lambda notebook: apply_plan(notebook, wish, label))

    def _set(self, **changes: object) -> None:
        if self._wish is not None:
            test = replace(self._wish.test, **changes)  # type: ignore[arg-type]
            self._apply("change the plan", test=test)

    def _set_index(self, words: str) -> None:
        value = _within(number_typed(words), 0.1, 100000, "an EI lies between 0.1 and 100000")
        self._set(exposure_index=float(value))

    def _set_bracket(self, **changes: float) -> None:
        if self._wish is None:
            return
        for value in changes.values():
            _within(value, -15, 15, "a bracket stays within 15 stops of the meter")
        test = replace(self._wish.test, **changes)  # type: ignore[arg-type]
        if test.first_stop >= test.last_stop:
            raise ValueError("the bracket runs from few stops to more, such as −6 to +5")
        bracket(test.first_stop, test.last_stop, test.step)
        self._set(**changes)

    def _set_step(self, words: str) -> None:
        known = {name: size for name, size in _STEPS.items() if words.strip().lower() in name}
        if len(known) != 1:
            raise ValueError(f"a bracket steps in {', '.join(_STEPS)}")
        self._set(step=next(iter(known.values())))

    def _set_blanks(self, words: str) -> None:
        count = _within(number_typed(words.split()[0]), 0, 6, "keep 0 to 6 frames blank")
        self._set(blanks=round(count))

    def _set_strips(self, words: str) -> None:
        wanted = round(_within(number_typed(words.split()[0]), 1, MOST_STRIPS,
                               f"a test has 1 to {MOST_STRIPS} strips"))  # fmt: skip
        times = list(self._wish.times) if self._wish else [8.0]
        while len(times) < wanted:
            times.append(round(times[-1] * 1.4 * 2) / 2)
        self._apply("change the strips", times=tuple(times[:wanted]))

    def _set_times(self, words: str) -> None:
        times = times_typed(words)
        if len(times) > MOST_STRIPS:
            raise ValueError(f"a test has at most {MOST_STRIPS} strips")
        self._apply("change the times", times=tuple(minutes_typed(f"{t}") for t in times))

    def take_focus(self) -> None:
        """Begin at the film's name."""
        self._fields["film"].setFocus()

    def show_scene(self, scene: Scene) -> None:
        """Fill the sentences from the test, and draw what is likely."""
        sheet = scene.sheet
        if sheet is None:
            return
        test = sheet.test
        times = tuple(s.strip.planned_min or 0.0 for s in sheet.strips)
        names = sheet.stock.name, sheet.developer.name, sheet.developer.dilution
        self._wish = PlanEdit(test, times, *names)
        steps = [n for n, size in _STEPS.items() if abs(size - test.step) < 0.01]
        shown = {
            "film": names[0] or "a film",
            "developer": names[1] or "a developer",
            "dilution": names[2] or "undiluted",
            "ei": f"{test.exposure_index:g}",
            "strips": f"{len(times)} strip{'s' if len(times) != 1 else ''}",
            "times": _times_text(times) if times else "",
            "first": stops_text(test.first_stop, signed=True),
            "last": stops_text(test.last_stop, signed=True),
            "step": steps[0] if steps else f"{test.step:g} stops",
            "blanks": f"{test.blanks} frames",
            "shutter": shutter_name(test.metered_seconds),
            "aperture": _aperture_text(test.aperture),
        }
        for key, words in shown.items():
            self._fields[key].show_value(words)
        self._draw(scene)

    def _draw(self, scene: Scene) -> None:
        if scene.sheet is None:
            return
        self._plot.show_look(scene.look)
        measured = scene.analysis if scene.sheet.read() else None
        expected = () if measured else expected_strips(scene.sheet)
        self._plot.draw(scene.sheet, measured, scene.frame_id, expected=expected)
        count = len(scene.sheet.frames())
        likely = "Curves as measured." if measured else (
            "Where the frames are likely to land: curves of a typical film of this EI, assumed, "
            "not measured."
        )  # fmt: skip
        self._caption.setText(f"{count} frames in all. {likely}")


def _named(words: str) -> str:
    if not words.strip():
        raise ValueError("it needs a name")
    return words.strip()


def _aperture_text(f_number: float) -> str:
    marks = (1.0, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64)
    exact = exact_aperture(f_number)
    near = min(marks, key=lambda m: abs(exact_aperture(m) - exact))
    shown = near if abs(exact_aperture(near) / exact - 1) < 0.03 else round(f_number, 1)
    return f"f/{shown:g}"


def _aperture_typed(words: str) -> float:
    value = number_typed(words.strip().lower().removeprefix("f").removeprefix("/"))
    return _within(value, 0.7, 128, "an aperture lies between f/0.7 and f/128")
