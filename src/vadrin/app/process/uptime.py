"""What time it is, in two ways: by the wall, and by a clock that neither jumps nor sleeps."""

from __future__ import annotations

import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

_BOOT_ID = Path("/proc/sys/kernel/random/boot_id")


class Pace:
    """How fast the darkroom's clock goes: as the wall's, or faster in the practice room."""

    def __init__(self) -> None:
        self.times, self._ahead, self._since = 1.0, 0.0, 0.0

    def ahead(self, uptime: float) -> float:
        """Seconds by which it is before the machine's own, at an uptime of that."""
        return self._ahead + (self.times - 1.0) * (uptime - self._since)

    def go(self, times: float, further_s: float = 0.0) -> None:
        """Go so many times as fast from now on, some seconds further than it is."""
        uptime = time.clock_gettime(time.CLOCK_BOOTTIME)
        self._ahead, self.times, self._since = self.ahead(uptime) + further_s, times, uptime

    def rest(self) -> None:
        """Go as the wall's clock does, and say what that says."""
        self.times, self._ahead = 1.0, 0.0


PACE = Pace()
"""That of this program."""


@dataclass(frozen=True)
class Moment:
    """One moment: by the wall, in seconds since this start of the machine, and which start."""

    wall: datetime
    uptime: float
    boot: str

    @property
    def stamp(self) -> str:
        """The wall's time as records have it, to the millisecond."""
        return self.wall.isoformat(timespec="milliseconds")


def moment_now() -> Moment:
    """This moment; time asleep counts."""
    try:
        boot = _BOOT_ID.read_text(encoding="ascii").strip()
    except OSError:
        boot = ""
    uptime = time.clock_gettime(time.CLOCK_BOOTTIME)
    ahead = PACE.ahead(uptime)
    return Moment(datetime.now(UTC) + timedelta(seconds=ahead), uptime + ahead, boot)


def seconds_at(stamp: str, uptime: float, boot: str, now: Moment) -> float:
    """When something was, on the uptime axis of now.

    Within one start of the machine its uptime tells, whatever the wall's clock did meanwhile;
    across starts only the wall can.
    """
    if boot and boot == now.boot:
        return uptime
    wall = datetime.fromisoformat(stamp)
    if wall.tzinfo is None:
        wall = wall.replace(tzinfo=UTC)
    return now.uptime - (now.wall - wall) / timedelta(seconds=1)
