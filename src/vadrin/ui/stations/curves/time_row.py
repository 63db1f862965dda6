"""Under the curves: a time that is dragged along, and what the film is and shows at it."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from vadrin.app.curves.at_a_time import at_the_time, tested_span, time_at_first
from vadrin.app.document.workbench import Workbench
from vadrin.app.pictures.exposed import Exposed
from vadrin.app.pictures.kept_pictures import Wanted
from vadrin.app.pictures.looking import Looking, paper_used
from vadrin.app.pictures.seen import seen
from vadrin.core.pictures.developed_film import times_tested
from vadrin.ui.jobs import Jobs
from vadrin.ui.kept import OfTest
from vadrin.ui.pictures.picture_image import image_of
from vadrin.ui.pictures.picture_maker import Made, make_pictures
from vadrin.ui.pictures.picture_tile import PictureTile
from vadrin.ui.plots.time_scale import TimeScale
from vadrin.ui.stations.station import ViewState
from vadrin.ui.theme.look import DAY
from vadrin.ui.theme.roles import Role
from vadrin.ui.theme.typeface import px
from vadrin.ui.widgets.labels import text

_SMALL = 4


class TimeRow(QWidget):
    """Drag the time: EI, contrast and the picture of a scene follow."""

    minutes: OfTest[float] = OfTest(float)

    def __init__(self, bench: Workbench, jobs: Jobs) -> None:
        super().__init__()
        self.bench, self._jobs = bench, jobs
        self._scene: ViewState | None = None
        self._ready = False
        self.scale = TimeScale()
        self.scale.moved.connect(self._move)
        self.said = text("", Role.LEAD, wrap=True)
        self.tile = PictureTile(Exposed(100.0, None), DAY, lines=0)
        self.tile.setMaximumWidth(px(300))
        side = QVBoxLayout()
        side.addWidget(self.said)
        side.addWidget(self.scale)
        side.addStretch(1)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(px(16))
        row.addLayout(side, 1)
        row.addWidget(self.tile)

    def show_state(self, scene: ViewState) -> None:
        """Show the film at the time the marker stands at."""
        self._scene, self._ready = scene, False
        state, analysis = scene.state, scene.analysis
        span = tested_span(analysis)
        self.setVisible(span is not None)
        if span is None or state is None or analysis is None:
            return
        if not span[0] <= self.minutes <= span[1]:
            self.minutes = time_at_first(state)
        self.scale.show_times(times_tested(analysis), self.minutes, scene.look)
        exposed, words = at_the_time(analysis, self.minutes)
        self.said.setText(words)
        self.tile.look = scene.look
        self._paper = paper_used(self.bench.notebook, state)
        self.tile.exposed = exposed
        wanted = [Wanted(state, exposed, Looking(), self._paper, _SMALL)]
        make_pictures(self._jobs, "picture at a time", wanted, self._put_up)

    def _put_up(self, made: Made) -> None:
        """The first picture is there; from now on the scene is at hand."""
        self._ready = True
        scene = self._scene
        if scene is not None:
            image = None if made[0] is None else image_of(made[0], scene.look, marked=False)
            self.tile.show_image(image, "")

    def _move(self, minutes: float) -> None:
        """Follow the marker; a table of tones and one look-up, so that it is drawn at once."""
        self.minutes = minutes
        scene = self._scene
        if scene is None or scene.state is None or scene.analysis is None:
            return
        exposed, words = at_the_time(scene.analysis, minutes)
        self.said.setText(words)
        if self._ready:
            self.tile.exposed = exposed
            self._put_up([seen(scene.state, exposed, Looking(), self._paper, _SMALL)])
