"""What is found of made-up films, and which film a seed draws, changes by nobody's oversight."""

from tools import found_of_films as tool
from tools.kept_lines import changed


def test_what_is_found_of_made_up_films_is_what_it_was():
    others = changed(tool.KEPT, tool.lines())
    assert others == [], "meant? then keep it anew: python tools/found_of_films.py"
