"""The places by name."""

from __future__ import annotations

from collections.abc import Callable

from tools.scenes.lamplight import lamplight
from tools.scenes.place import Place
from tools.scenes.shed import shed
from tools.scenes.slip import slip

PLACES: dict[str, Callable[[], Place]] = {"shed": shed, "slip": slip, "lamplight": lamplight}
