"""A picture of one's own read as a scene, beside the work."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from vadrin.app.library.recent_files import OWN_SCENES
from vadrin.app.pictures.looking import scene_file
from vadrin.app.pictures.scenes import add_own
from vadrin.core.pictures.scene import Scene
from vadrin.errors import VadrinError
from vadrin.ui.jobs import Jobs, Said


class SceneReader:
    """Reads pictures for a page.

    Parameters
    ----------
    jobs : Jobs
    refuse : callable
        Takes what is said where a picture is none of light.
    taken : callable
        Takes the name of a scene that was read.
    """

    def __init__(
        self, jobs: Jobs, refuse: Callable[[str], None], taken: Callable[[str], None]
    ) -> None:
        self._jobs, self._refuse, self._taken = jobs, refuse, taken

    def reads(self, words: str) -> bool:
        """Whether a chosen scene lies in a file that is read first."""
        path = scene_file(words)
        if path is not None:
            self.take(path)
        return path is not None

    def take(self, path: Path) -> None:
        """Take a picture of one's own as the scene."""
        self._refuse("")

        def work(_said: Said) -> Scene:
            from vadrin.app.pictures.own_scene import own_scene

            scene = own_scene(path)
            OWN_SCENES.remember(path)
            return scene

        self._jobs.run("own scene", work, self._read, self._not_read)

    def _read(self, scene: Scene) -> None:
        add_own(scene)
        self._taken(scene.name)

    def _not_read(self, error: Exception) -> None:
        if not isinstance(error, OSError | VadrinError):
            raise error
        self._refuse(str(error))
