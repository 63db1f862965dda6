"""Name the Debian packages of system libraries that the window needs and cannot load.

Prints their names on one line and exits 1; exits 0 with nothing to say.
"""

import ctypes
import sys
from importlib.util import find_spec
from pathlib import Path

PACKAGES = {
    "libEGL.so.1": "libegl1",
    "libGL.so.1": "libgl1",
    "libGLX.so.0": "libglx0",
    "libOpenGL.so.0": "libopengl0",
    "libX11-xcb.so.1": "libx11-xcb1",
    "libX11.so.6": "libx11-6",
    "libdbus-1.so.3": "libdbus-1-3",
    "libfontconfig.so.1": "libfontconfig1",
    "libfreetype.so.6": "libfreetype6",
    "libglib-2.0.so.0": "libglib2.0-0",
    "libgthread-2.0.so.0": "libglib2.0-0",
    "libxcb-cursor.so.0": "libxcb-cursor0",
    "libxcb-icccm.so.4": "libxcb-icccm4",
    "libxcb-image.so.0": "libxcb-image0",
    "libxcb-keysyms.so.1": "libxcb-keysyms1",
    "libxcb-randr.so.0": "libxcb-randr0",
    "libxcb-render-util.so.0": "libxcb-render-util0",
    "libxcb-render.so.0": "libxcb-render0",
    "libxcb-shape.so.0": "libxcb-shape0",
    "libxcb-shm.so.0": "libxcb-shm0",
    "libxcb-sync.so.1": "libxcb-sync1",
    "libxcb-util.so.1": "libxcb-util1",
    "libxcb-xfixes.so.0": "libxcb-xfixes0",
    "libxcb-xkb.so.1": "libxcb-xkb1",
    "libxcb.so.1": "libxcb1",
    "libxkbcommon-x11.so.0": "libxkbcommon-x11-0",
    "libxkbcommon.so.0": "libxkbcommon0",
    "libz.so.1": "zlib1g",
}
LIBRARIES = ("libQt6Core", "libQt6DBus", "libQt6Gui", "libQt6Widgets", "libQt6Pdf", "libQt6XcbQpa")
PLUGINS = ("libqxcb.so", "libqoffscreen.so")


def missing() -> set[str]:
    """Packages of the libraries that cannot be loaded."""
    spec = find_spec("PyQt6")
    if spec is None or not spec.submodule_search_locations:
        return set()
    qt = Path(next(iter(spec.submodule_search_locations))) / "Qt6"
    targets = [path for name in LIBRARIES for path in (qt / "lib").glob(f"{name}.so.6")]
    targets += [qt / "plugins" / "platforms" / name for name in PLUGINS]
    # Everything is also asked for by name, so that one pass finds all that is missing.
    wanted: set[str] = set()
    for name, package in PACKAGES.items():
        if not _loads(name) and _needed(name, targets):
            wanted.add(package)
    for path in targets:
        error = _loads_with(path)
        if error:
            library = error.split(":", 1)[0].strip()
            wanted.add(PACKAGES.get(library, f"# {error}"))
    return wanted


def _loads(name: str) -> bool:
    try:
        ctypes.CDLL(name)
    except OSError:
        return False
    return True


def _loads_with(path: Path) -> str:
    try:
        ctypes.CDLL(str(path), mode=ctypes.RTLD_GLOBAL)
    except OSError as error:
        return str(error)
    return ""


def _needed(name: str, targets: list[Path]) -> bool:
    """Whether one of the files names the library as one it is linked with."""
    return any(path.exists() and name.encode() in path.read_bytes() for path in targets)


if __name__ == "__main__":
    found = missing()
    unknown = sorted(p for p in found if p.startswith("#"))
    if unknown:
        print("\n".join(unknown), file=sys.stderr)
    print(" ".join(sorted(p for p in found if not p.startswith("#"))))
    sys.exit(1 if found else 0)
