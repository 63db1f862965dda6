"""Film for a light: what the meter says, what is needed, and the films that do it as pictures."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QWidget

from vadrin.app.display.marks import aperture_name, marked_ei, shutter_name
from vadrin.app.document.workbench import Topic
from vadrin.app.entry.exposures import aperture_typed, exposure_index_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.entry.times import seconds_typed
from vadrin.app.pictures.kept_pictures import Wanted, picture
from vadrin.app.pictures.looking import (
    Looking,
    PaperUsed,
    paper_used,
    scene_titles,
    scene_typed,
    spot_names,
    spot_typed,
)
from vadrin.app.pictures.seen import Seen, lost_words
from vadrin.app.shelf.film_for_light import (
    FilmForLight,
    Light,
    film_words,
    films_for_light,
    light_words,
    load_film,
)
from vadrin.ui.actions import hint
from vadrin.ui.jobs import Said, SlicedJob
from vadrin.ui.kept import OfProgram
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.pictures.scene_reader import SceneReader
from vadrin.ui.stations.station import Station, StationContext, ViewState
from vadrin.ui.theme.look import DAY, Look
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px, scale
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

_MOST = 6
_SMALL = 4
_SHOWN: dict[str, Callable[[float], str]] = {
    "s": shutter_name,
    "f": aperture_name,
    "i": lambda index: f"{marked_ei(index):g}",
}
"""How a setting is named, by the last letter of its name."""
Made = list[tuple[FilmForLight, Seen | None]]


class TonightStation(Station):
    """Choose a film for the light there is."""

    topics = Topic.NOTEBOOK | Topic.LOOK
    wants_finding = False

    light: OfProgram[Light] = OfProgram(Light)
    looking: OfProgram[Looking] = OfProgram(Looking)

    def __init__(self, given: StationContext) -> None:
        super().__init__(given)
        self._look: Look = DAY
        self._scene: ViewState | None = None
        self._coming: SlicedJob | None = None
        self._words = text("", Role.LEAD, wrap=True)
        self._fields = {
            name: WordField(said, self._setter(name, typed))
            for name, said, typed in (
                ("meter_s", "time the meter asks for", seconds_typed),
                ("meter_f", "aperture the meter asks for", aperture_typed),
                ("meter_ei", "EI the meter is set to", exposure_index_typed),
                ("wanted_s", "time that is needed", seconds_typed),
                ("wanted_f", "aperture that is needed", aperture_typed),
            )
        }
        for field in self._fields.values():
            field.refused.connect(self.refuse)
        self._reader = SceneReader(given.jobs, self.refuse, self._scene_read)
        self._place = WordField("scene", self._set_scene, chooser(scene_titles))
        self._spot = WordField(
            "metered at", self._set_spot, chooser(lambda: spot_names(self.looking))
        )
        for field in (self._place, self._spot):
            field.refused.connect(self.refuse)
        f = self._fields
        self.column.addWidget(text("Film for this light", Role.HEADING))
        self.column.addWidget(
            sentence(
                "The meter says", f["meter_s"], "at", f["meter_f"], "and EI", f["meter_ei"],
                "; I need", f["wanted_s"], "at", f["wanted_f"], ".",
                "Seen:", self._place, ", metered at", self._spot, ".",
            )
        )  # fmt: skip
        self.column.addWidget(self.refusal)
        self.column.addWidget(self._words)
        self._body = QWidget()
        self._grid = QGridLayout(self._body)
        self._grid.setContentsMargins(0, 0, 0, 0)
        self._grid.setHorizontalSpacing(px(12))
        self._grid.setVerticalSpacing(px(8))
        self.column.addWidget(self._body)
        self._others = text("", Role.NOTE, wrap=True)
        self.column.addWidget(self._others)
        self.column.addStretch(1)
        self.offer(hint("Tab", "to the next word; Enter on a button loads that film"))

    def show_state(self, scene: ViewState) -> None:
        """Ask which films serve in the light."""
        self._scene, self._look = scene, scene.look
        light = self.light
        for name, field in self._fields.items():
            value = getattr(light, name)
            field.show_value(_SHOWN[name[-1]](value))
        self._place.show_value(self.looking.scene_title)
        self._spot.show_value(self.looking.spot_name)
        if self._coming is not None:
            self._coming.cancel()
        steps = self.while_open(films_for_light(self.bench.notebook, light.exposure_index))
        self._coming = SlicedJob(self, steps, self._tell, self._found, self._failed)

    @property
    def busy(self) -> bool:
        """Whether films are still being looked at."""
        return self._coming is not None

    def _tell(self, done: int, total: int) -> None:
        self._words.setText(f"Looking at the films that were decided on: {done} of {total} …")

    def _failed(self, error: Exception) -> None:
        self._coming = None
        raise error

    def _found(self, films: tuple[FilmForLight, ...]) -> None:
        """The films are known; their pictures come beside the work."""
        self._coming = None
        notebook = self.bench.notebook
        serving = [one for one in films if one.serves][:_MOST]
        papers = [paper_used(notebook, one.state) for one in serving]
        looking = self.looking

        def work(said: Said) -> Made:
            made: Made = []
            for one, paper in zip(serving, papers, strict=True):
                said(len(made), len(serving))
                made.append((one, self._picture(one, looking, paper)))
            return made

        self.given.jobs.run("films for a light", work, partial(self._put_up, films))

    @staticmethod
    def _picture(one: FilmForLight, looking: Looking, paper: PaperUsed) -> Seen | None:
        return picture(Wanted(one.state, one.exposed, looking, paper, _SMALL))

    def _set_scene(self, words: str) -> None:
        if not self._reader.reads(words):
            self._look_at(scene_typed(self.looking, words))

    def _scene_read(self, name: str) -> None:
        self._look_at(replace(self.looking, scene=name, spot=""))

    def _set_spot(self, words: str) -> None:
        self._look_at(spot_typed(self.looking, words))

    def _look_at(self, looking: Looking) -> None:
        self.looking = looking
        if self._scene is not None:
            self.show_state(self._scene)

    def _put_up(self, films: tuple[FilmForLight, ...], made: Made) -> None:
        self._words.setText(light_words(self.light, films))
        while self._grid.count():
            item = self._grid.takeAt(0)
            widget = item.widget() if item is not None else None
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        across = 3 if scale() <= 1.3 else 2
        for number, (one, seen) in enumerate(made):
            self._grid.addWidget(self._tile(one, seen), 2 * (number // across), number % across)
            below = self._below(one)
            self._grid.addWidget(below, 2 * (number // across) + 1, number % across)
        for column in range(across):
            self._grid.setColumnStretch(column, 1)
        others = [film_words(one) for one in films if not one.serves]
        self._others.setText("".join(f"{words}. " for words in others))

    def _tile(self, one: FilmForLight, seen: Seen | None) -> QWidget:
        tile = PictureTile(one.exposed, self._look)
        image = None if seen is None else image_of(seen, self._look, marked=False)
        tile.show_image(image, "" if seen is None else lost_words(seen, self.looking))
        return tile

    def _below(self, one: FilmForLight) -> QWidget:
        holder = QWidget()
        column = QGridLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(text(film_words(one), Role.BODY, wrap=True), 0, 0)
        load = button(f"Load {one.film}", lambda: self._load(one))
        column.addWidget(load, 1, 0, Qt.AlignmentFlag.AlignLeft)
        return holder

    def _load(self, one: FilmForLight) -> None:
        test = self.bench.edit(lambda book: load_film(book, one))
        if test is not None:
            self.bench.open_test(test.id)
            self.bench.go("finding")

    def _setter(self, name: str, typed: Callable[[str], float]) -> Callable[[str], None]:
        def put(words: str) -> None:
            self.light = self.light.changed(**{name: typed(words)})
            if self._scene is not None:
                self.show_state(self._scene)

        return put

    def take_focus(self) -> None:
        """Begin at what the meter says."""
        self._fields["meter_s"].setFocus()
