"""The finding seen: a scene through this film's own curves, at each EI and time."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QImage, QKeyEvent, QResizeEvent
from PyQt6.QtWidgets import QScrollArea, QVBoxLayout, QWidget

from vadrin.app.document.state import State
from vadrin.app.document.workbench import Workbench
from vadrin.app.entry.choices import choice_typed
from vadrin.app.entry.stepping import chooser
from vadrin.app.pictures.beside_pictures import Shown, shown_pictures
from vadrin.app.pictures.exposed import in_colour, paper_sees, ring_of, why_no_pictures
from vadrin.app.pictures.kept_pictures import Wanted
from vadrin.app.pictures.looking import (
    NO_PRINT,
    PRINT_RULES,
    SHOWN_AS,
    Looking,
    flare_typed,
    longer_stepped,
    longer_typed,
    looked_at,
    paper_used,
    rule_typed,
    scene_titles,
    scene_typed,
    shown_as_typed,
    spot_names,
    spot_typed,
)
from vadrin.app.pictures.measured_grain import grain_words
from vadrin.app.pictures.saved_pictures import save_pictures, usual_name
from vadrin.app.pictures.scenes import spot_at
from vadrin.app.pictures.seen import Seen, lost_words, point_words
from vadrin.app.scans.picture_files import PICTURES_OR_RAW
from vadrin.ui.jobs import Jobs
from vadrin.ui.kept import OfProgram, OfTest
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_maker import Made, make_pictures
from vadrin.ui.pictures.picture_rows import PictureRows
from vadrin.ui.pictures.save_row import SaveRow
from vadrin.ui.pictures.scene_reader import SceneReader
from vadrin.ui.pictures.wipe import Wipe
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.buttons import button
from vadrin.ui.widgets.fields import WordField
from vadrin.ui.widgets.labels import text
from vadrin.ui.widgets.sentence import sentence

BESIDE, BY_TIME, WIPE = "side by side", "EI by time", "one over the other"
WAYS = (BESIDE, BY_TIME, WIPE)
_IN_COLOUR = "Colour is printed so that what was metered is neutral. The paper is a typical one."
ON_ITS_OWN = "Each print is on the paper that is named under it."
_COLUMNS = 2
_SMALL, _LARGE = 4, 1
"""Points of a scene along each side that become one of a picture."""


class PicturesPage(QWidget):
    """Pictures of a scene as this film would give them."""

    looking: OfProgram[Looking] = OfProgram(Looking)
    way: OfProgram[str] = OfProgram(lambda: BESIDE)
    second: OfTest[int] = OfTest(lambda: -1)
    """Which picture lies right of the seam; −1 for the last there is."""

    def __init__(
        self,
        bench: Workbench,
        jobs: Jobs,
        refuse: Callable[[str], None],
        ask_file: Callable[[str, str, Callable[[Path], object]], None],
    ) -> None:
        super().__init__()
        self.bench, self._jobs, self._refuse = bench, jobs, refuse
        self._scene: ViewState | None = None
        self._reader = SceneReader(jobs, refuse, self._taken)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("pictures of a scene")
        self._place = WordField("scene", self._set_scene, chooser(scene_titles))
        self._spot = WordField(
            "metered at", self._set_spot, chooser(lambda: spot_names(self.looking))
        )
        self._shown_as = WordField("print or negative", self._set_shown_as, chooser(SHOWN_AS))
        self._rule = WordField("print exposure", self._set_rule, chooser(PRINT_RULES))
        self._longer = WordField("print exposed longer by", self._set_longer, longer_stepped)
        self._flare = WordField("camera flare", self._set_flare)
        self._way = WordField("arrangement", self._set_way, chooser(WAYS))
        for field in (self._place, self._spot, self._shown_as, self._rule):
            field.refused.connect(refuse)
        for field in (self._longer, self._flare, self._way):
            field.refused.connect(refuse)
        self._nothing = text("", Role.LEAD, wrap=True)
        self._rests = text("", Role.NOTE, wrap=True)
        self.save_row = SaveRow(bench, jobs, refuse)
        self._rows = PictureRows(jobs, "pictures of the page")
        self._rows.wanted_large.connect(self._enlarge)
        self._wipe = Wipe()
        self._wipe.pointed.connect(self._point_at)
        self._wipe.metered.connect(self._meter_at)
        self._told = text(" ", Role.BODY, wrap=True)
        self._shown: Shown = ()
        self._pair: list[Seen | None] = [None, None]
        ask = partial(ask_file, "Open a linear picture", PICTURES_OR_RAW, self.take)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, px(6), 0)
        column.setSpacing(px(8))
        column.addWidget(
            sentence(
                "Scene:", self._place, ", metered at", self._spot, ", flare", self._flare,
                ",", self._way, ".", button("Open your own picture", ask, link=True),
            )
        )  # fmt: skip
        self._printed = sentence(
            "Shown as", self._shown_as, ",", self._rule, ",", self._longer, "beyond that."
        )
        column.addWidget(self._printed)
        column.addWidget(self._nothing)
        column.addWidget(self._rows)
        column.addWidget(self._wipe, 100)
        column.addWidget(self._told)
        column.addWidget(self._rests)
        column.addStretch(1)
        column.addWidget(self.save_row)

    def show_state(self, scene: ViewState) -> None:
        """Show the pictures of a test."""
        self._scene = scene
        state, looking = scene.state, self.looking
        if state is None:
            return
        self._place.show_value(looking.scene_title)
        self._spot.show_value(looking.spot_name)
        self._shown_as.show_value(looking.shown_as)
        self._rule.show_value(str(looking.rule))
        self._longer.show_value(looking.longer_words)
        self._flare.show_value(looking.flare_words)
        self._way.show_value(self.way)
        known = state.analysis is not None
        self._shown = shown_pictures(self.bench.notebook, state) if known else ()
        why = "" if self._shown else why_no_pictures(state)
        self._nothing.setText(why)
        self._nothing.setVisible(bool(why))
        self._rows.setVisible(not why and self.way != WIPE)
        self._wipe.setVisible(not why and self.way == WIPE)
        self._told.setVisible(not why and self.way == WIPE)
        self._rests.setVisible(not why)
        self.save_row.setVisible(not why)
        if not why:
            self._draw(state, scene)

    def _draw(self, state: State, scene: ViewState) -> None:
        paper = paper_used(self.bench.notebook, state)
        # A positive is looked at as it is: there is no print to choose.
        self._printed.setVisible(paper.words != NO_PRINT)
        colour = in_colour(state.settled())
        rests = _IN_COLOUR if colour else f"{paper.shown}."
        if any(each.paper for _, each in self._shown):
            rests = ON_ITS_OWN
        if (channel := paper_sees(state)) is not None:
            rests = f"{rests} Printed by {channel}, as paper sees it, stain and all."
        grain = grain_words(self._shown[0][0])
        self._rests.setText(f"{rests} {grain} Dots lie outside what was read. {self._marks}")
        rows, looking = self._rows_of(state), self.looking
        self.save_row.offer(
            usual_name(state), lambda path: save_pictures(state, rows, looking, paper, path)
        )
        if self.way == WIPE:
            wanted = [Wanted(of, each, looking, paper, _LARGE) for of, each in rows[0]]
            make_pictures(self._jobs, "pictures of the seam", wanted, self._put_pair)
            return
        shrunk = _SMALL if self.way == BY_TIME else _SMALL // 2
        self._rows.show_pictures(rows, looking, paper, scene.look, shrunk)
        self._fit()

    def _rows_of(self, state: State) -> tuple[Shown, ...]:
        """What is shown, row by row."""
        ring = ring_of(state)
        if self.way == BY_TIME and ring:
            return tuple(tuple((state, exposed) for exposed in row) for row in ring)
        shown = self._shown
        if self.way == WIPE:
            return (self._chosen(shown),)
        return tuple(shown[n : n + _COLUMNS] for n in range(0, len(shown), _COLUMNS))

    def _fit(self) -> None:
        """Pictures as large as leaves all rows in sight."""
        area: QWidget | None = self.parentWidget()
        while area is not None and not isinstance(area, QScrollArea):
            area = area.parentWidget()
        if isinstance(area, QScrollArea):
            around = self._rows.mapTo(area, QPoint(0, 0)).y() + self._rests.height()
            around += self.save_row.sizeHint().height()
            self._rows.fit(area.height() - around - px(40))

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """Another window, another size of pictures."""
        super().resizeEvent(event)
        self._fit()

    @property
    def _marks(self) -> str:
        if not self.looking.marked and self._printed.isHidden():
            return "H hatches what is lost."
        if not self.looking.marked:
            return "H hatches what is lost, N shows the negative, F prints it the other way."
        return "Hatched up: lost in black. Hatched down: highlights without detail."

    def _chosen(self, pictures: Shown) -> Shown:
        """The normal and the one it is looked at beside."""
        known = [each for each in pictures if not each[1].why] or list(pictures)
        first = next((each for each in known if each[1].normal), known[0])
        others = [each for each in known if each is not first] or [first]
        return first, others[self.second % len(others)]

    def _put_pair(self, made: Made) -> None:
        scene = self._scene
        if scene is None or scene.state is None:
            return
        self._pair = made
        pair = self._chosen(self._shown)
        images: list[QImage | None] = [
            None if p is None else image_of(p, scene.look, self.looking.marked) for p in made
        ]
        names = tuple(f"{each.name} · {each.said}" for _, each in pair)
        self._wipe.show_images(images[0], images[1], (names[0], names[1]), scene.look)
        said = [
            f"{name}: {lost_words(picture, self.looking) or 'all of it has detail'}."
            for name, picture in zip(names, made, strict=True)
            if picture is not None
        ]
        self._told.setText(" ".join(said))

    def _point_at(self, side: int, across: float, down: float) -> None:
        scene, picture = self._scene, self._pair[side]
        if scene is None or scene.state is None or picture is None:
            return
        rows, columns = picture.levels.shape[:2]
        place = int(down * rows), int(across * columns)
        self._told.setText(point_words(picture, self.looking, _LARGE, *place))

    def _meter_at(self, across: float, down: float) -> None:
        self._change(replace(self.looking, spot=spot_at(down, across)))

    def take(self, path: Path) -> None:
        """Take a picture of one's own as the scene."""
        self._reader.take(path)

    def _taken(self, name: str) -> None:
        self._change(replace(self.looking, scene=name, spot=""), WIPE)

    def _enlarge(self, number: int) -> None:
        """The picture that was clicked, beside the normal."""
        if self.way != BESIDE:
            return
        first = self._chosen(self._shown)[0]
        others = [each for each in self._shown if not each[1].why and each is not first]
        if self._shown[number] in others:
            self.second = others.index(self._shown[number])
        self._change(way=WIPE)

    def look_otherwise(self, key: str) -> None:
        """Turn one thing: ``N`` negative, ``F`` print rule, ``H`` hatching."""
        self._change(looked_at(self.looking, key))

    def arrange(self, way: str) -> None:
        """Side by side, EI by time, or one over the other."""
        self._change(way=way)

    def _change(self, looking: Looking | None = None, way: str = "") -> None:
        self.looking = looking or self.looking
        self.way = way or self.way
        if self._scene is not None:
            self.show_state(self._scene)

    def _set_scene(self, words: str) -> None:
        if not self._reader.reads(words):
            self._change(scene_typed(self.looking, words))

    def _set_spot(self, words: str) -> None:
        self._change(spot_typed(self.looking, words))

    def _set_shown_as(self, words: str) -> None:
        self._change(shown_as_typed(self.looking, words))

    def _set_rule(self, words: str) -> None:
        self._change(rule_typed(self.looking, words))

    def _set_longer(self, words: str) -> None:
        self._change(longer_typed(self.looking, words))

    def _set_flare(self, words: str) -> None:
        self._change(flare_typed(self.looking, words))

    def _set_way(self, words: str) -> None:
        self._change(way=choice_typed(words, WAYS, anywhere=True))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """The arrows move the seam and take another picture beside it."""
        if event is None or self.way != WIPE:
            super().keyPressEvent(event)
            return
        seam = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()))
        other = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()))
        if seam is not None:
            self._wipe.move_seam(seam)
        elif other is not None:
            self.second = self.second + other
            self._change()
        else:
            super().keyPressEvent(event)
