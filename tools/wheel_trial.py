"""Builds the wheel, installs it where no checkout is, and runs what its README promises there.

::

    python tools/wheel_trial.py

The packages it asks for are those of the environment it is run in. Exit 0 where everything ran.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import sysconfig
import tempfile
import venv
from pathlib import Path

_TREE = Path(__file__).resolve().parents[1]
_PARTS = ("src", "pyproject.toml", "requirements.in", "README.md")
_PATIENCE_S = 60


def _wheel(scratch: Path) -> Path:
    """The wheel, built of a copy, so that nothing is left in the tree."""
    source = scratch / "source"
    source.mkdir()
    for part in _PARTS:
        copy = shutil.copytree if (_TREE / part).is_dir() else shutil.copy
        copy(_TREE / part, source / part)
    build = [sys.executable, "-m", "pip", "wheel", "--quiet", "--no-deps", "-w", str(scratch)]
    subprocess.run([*build, str(source)], check=True)
    return next(scratch.glob("*.whl"))


def _installed(scratch: Path, wheel: Path) -> Path:
    """The program, in an environment of its own beside the packages of this one."""
    place = scratch / "environment"
    venv.create(place, with_pip=False)
    lib = next(place.glob("lib/python*/site-packages"))
    # A path that a .pth file names is searched, but its own .pth files, as ours, are not read.
    (lib / "packages.pth").write_text(sysconfig.get_path("purelib") + "\n")
    into = ["--target", str(lib), "--no-deps", "--quiet", "--disable-pip-version-check"]
    subprocess.run([sys.executable, "-m", "pip", "install", *into, str(wheel)], check=True)
    script = place / "bin" / "vadrin"
    script.write_text(
        f"#!{place / 'bin' / 'python'}\nimport sys\nfrom vadrin.commands import main\n"
        "sys.exit(main())\n"
    )
    script.chmod(0o755)
    return script


_EVERY_STATION = """
from vadrin.app.document.stations import PLACES
from vadrin.app.pictures.scenes import SCENE_NAMES, scene_named
from vadrin.app.shelf.shelf_index import shelf_lines
from vadrin.app.demo.demo_copy import demo_notebook
from vadrin.commands.desktop import make_application, open_window
app = make_application()
window = open_window(demo_notebook())
window.show()
for film in ("Kelda", "Merrow", "Gannet Colour"):
    lines = shelf_lines(window.bench.notebook)
    window.bench.open_test(next(x.test_id for x in lines if x.film.startswith(film)))
    for place in PLACES:
        window.bench.go(place.name)
        for _ in range(20):
            app.processEvents()
        assert window.bench.station == place.name, place.name
for name in SCENE_NAMES:
    assert scene_named(name).luminance.shape[1] >= 1280, name
window.close()
"""
"""Gone through by the wheel's own Python: every station with three tests, every scene."""


def _opens(program: Path, environment: dict[str, str], folder: Path) -> None:
    """Open the demo until its window can be used."""
    with subprocess.Popen(
        [program, "demo"],
        env=environment | {"VADRIN_SAY_USABLE": "1"},
        cwd=folder,
        stdout=subprocess.PIPE,
        text=True,
    ) as started:
        said = started.stdout.readline().strip() if started.stdout else ""
        started.terminate()
    if said != "usable":
        raise SystemExit("the demo did not open")
    if any(folder.glob("demo*")):
        raise SystemExit("a notebook called demo was made")


def main() -> int:
    """Run it all; the first thing that fails is told by its command."""
    with tempfile.TemporaryDirectory(prefix="vadrin-wheel-") as name:
        scratch = Path(name)
        program = _installed(scratch, _wheel(scratch))
        folder = scratch / "bare"
        folder.mkdir()
        kept = {k: v for k, v in os.environ.items() if not k.startswith(("XDG_", "PYTHON"))}
        environment = kept | {"HOME": str(folder / "home"), "QT_QPA_PLATFORM": "offscreen"}
        for words in (
            "--version",
            "practice --seed 3 --out film",
            "analyse film/readings.csv --json",
            "convert film/readings.csv film/readings.xlsx",
            "practice --open film --ei 100",
            "register",
            "unregister",
        ):
            asked = [str(program), *words.split()]
            subprocess.run(
                asked,
                check=True,
                env=environment,
                cwd=folder,
                timeout=_PATIENCE_S,
                stdout=subprocess.DEVNULL,
            )
        _opens(program, environment, folder)
        visit = [str(program.with_name("python")), "-c", _EVERY_STATION]
        subprocess.run(visit, check=True, env=environment, cwd=folder, timeout=_PATIENCE_S)
        where = [str(program.with_name("python")), "-c", "import vadrin; print(vadrin.__file__)"]
        told = subprocess.run(where, check=True, env=environment, cwd=folder, capture_output=True)
        if str(_TREE) in told.stdout.decode():
            raise SystemExit("it ran from the checkout, which tells nothing")
    print("the wheel runs where no checkout is")
    return 0


if __name__ == "__main__":
    sys.exit(main())
