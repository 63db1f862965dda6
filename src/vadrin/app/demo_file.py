"""Writes the demo notebook that ships with the program: ``python -m vadrin.app.demo_file``."""

from pathlib import Path

from vadrin.app.demo import make_demo


def main() -> None:
    """Make it anew beside this module."""
    target = Path(__file__).with_name("demo.vadrin")
    target.unlink(missing_ok=True)
    make_demo(target)


if __name__ == "__main__":
    main()
