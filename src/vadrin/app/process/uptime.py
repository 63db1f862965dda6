"""What time it is, in two ways: by the wall, and by a clock that neither jumps nor sleeps."""

from __future__ import annotations

import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

_BOOT_ID = Path("/proc/sys/kernel/random/boot_id")


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
    return Moment(datetime.now(UTC), time.clock_gettime(time.CLOCK_BOOTTIME), boot)


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
