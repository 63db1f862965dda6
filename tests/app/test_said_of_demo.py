"""Nothing that is said of the demo's tests changes by itself: no word, and no number under it."""

import subprocess
import sys

from tools import said_of_demo as tool


def test_every_function_says_of_the_demo_what_it_said():
    # In a program of its own: what is asked first may be kept, and other tests ask, too.
    asked = subprocess.run(
        [sys.executable, tool.__file__, "--lines"], capture_output=True, text=True, check=True
    )
    lines = {line.split()[0]: line for line in asked.stdout.splitlines()}
    kept = {line.split()[0]: line for line in tool.KEPT.read_text("utf-8").splitlines()}
    changed = [n for n, line in kept.items() if n in lines and not tool.same(line, lines[n])]
    assert changed == [], "meant? then keep it anew: python tools/said_of_demo.py"
    assert lines.keys() == kept.keys(), "keep them anew: python tools/said_of_demo.py"
    assert len(lines) > 500


def test_a_word_or_a_number_that_moves_is_seen():
    told = ["EI 80", 0.58, 7.5, "decided", 11.0]
    line = tool.line_of("it", told)
    assert tool.same(line, tool.line_of("it", [*told[:1], 0.58 * (1 + 1e-12), *told[2:]]))
    for other in (
        ["EI 81", *told[1:]],
        [told[0], 0.581, *told[2:]],
        [told[0], 7.5, 0.58, *told[3:]],
        told[:-1],
    ):
        assert not tool.same(line, tool.line_of("it", other))
