"""Nothing that is said of the demo's tests changes by itself: no word, and no number under it."""

import subprocess
import sys

from tools import said_of_demo as tool
from tools.kept_lines import changed, line_of, lines_in, same


def test_every_function_says_of_the_demo_what_it_said():
    # In a program of its own: what is asked first may be kept, and other tests ask, too.
    asked = subprocess.run(
        [sys.executable, tool.__file__, "--lines"], capture_output=True, text=True, check=True
    )
    others = changed(tool.KEPT, asked.stdout)
    assert others == [], "meant? then keep it anew: python tools/said_of_demo.py"
    assert len(lines_in(asked.stdout)) > 500


def test_a_word_or_a_number_that_moves_is_seen():
    told = ["EI 80", 0.58, 7.5, "decided", 11.0]
    line = line_of("it", told)
    assert same(line, line_of("it", [*told[:1], 0.58 * (1 + 1e-12), *told[2:]]))
    for other in (
        ["EI 81", *told[1:]],
        [told[0], 0.581, *told[2:]],
        [told[0], 7.5, 0.58, *told[3:]],
        told[:-1],
    ):
        assert not same(line, line_of("it", other))
