"""What follows from naming a film: the process of colour, the EIs of a mixed roll."""

from dataclasses import replace

import pytest

from vadrin.app.document.test_loading import load_test
from vadrin.app.loaded.reference_temperature import reference_of
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan, plan_edit_of
from vadrin.app.plan.starting_tests import start_kind
from vadrin.app.process.run_conditions import set_condition
from vadrin.core.planning.test_options import SharedIndexes
from vadrin.notebook.records import Process, Stock, Test
from vadrin.notebook.store import Notebook


@pytest.fixture
def notebook(tmp_path):
    book = Notebook(tmp_path / "colour.vadrin")
    yield book
    book.close()


def planned(notebook, key, film, developer, dilution=""):
    test = start_kind(notebook, key)
    apply_plan(notebook, PlanEdit(test, (3.25,), film, developer, dilution), "plan")
    return load_test(notebook, test.id)


def named(notebook, loaded, **words):
    apply_plan(notebook, replace(plan_edit_of(notebook, loaded), **words), "plan")
    return load_test(notebook, loaded.test.id)


def test_colour_film_of_a_fresh_notebook_goes_through_its_own_process(notebook):
    loaded = planned(notebook, "colour", "Gannet Colour 200", "Quay C", "kit")
    assert loaded.stock.kind == "colour negative"
    assert (loaded.routine.kind, reference_of(loaded)) == ("colour negative", 37.8)
    assert loaded.test.agitation == loaded.routine.agitation != ""
    notebook.undo()
    assert notebook.all(Process) == []


def test_the_next_film_in_the_same_chemistry_keeps_the_process_that_was_set(notebook):
    planned(notebook, "colour", "Gannet Colour 200", "Quay C", "kit")
    with notebook.change("a process of one's own"):
        own = notebook.add(Process(name="Basin at 30", kind="colour negative", temperature_c=30.0))
        last = notebook.all(Test)[-1]
        notebook.put(replace(last, process_id=own.id))
    push = planned(notebook, "push", "Gannet Colour 200", "Quay C", "kit")
    assert (push.routine.name, reference_of(push)) == ("Basin at 30", 30.0)
    elsewhere = planned(notebook, "push", "Gannet Colour 200", "Harbour C")
    assert elsewhere.routine.kind == "colour negative"
    assert named(notebook, elsewhere, developer_name="Quay C", dilution="kit").routine.id == own.id


def test_the_eis_of_a_mixed_roll_follow_its_film_until_somebody_types_them(notebook):
    with notebook.change("films"):
        notebook.add(Stock(name="Brannock 400", box_speed=400.0))
    fast = planned(notebook, "mixed roll", "Brannock 400", "Sable", "1+1")
    assert fast.test.options.exposure_indexes == (100, 200, 400, 800, 1600, 3200)
    typed = replace(fast.test, options=SharedIndexes((50.0, 100.0)))
    apply_plan(notebook, replace(plan_edit_of(notebook, fast), test=typed), "plan")
    slow = named(notebook, load_test(notebook, fast.test.id), stock_name="Skerry Fine 50")
    assert slow.test.options.exposure_indexes == (50.0, 100.0)


def test_what_somebody_said_of_the_process_stays(notebook):
    loaded = planned(notebook, "colour", "Gannet Colour 200", "Quay C")
    set_condition(notebook, loaded.test, "process", "")
    again = named(notebook, load_test(notebook, loaded.test.id), times=(4.0,))
    assert again.routine is None


def test_a_black_and_white_film_named_afterwards_leaves_it_behind(notebook):
    with notebook.change("films"):
        notebook.add(Stock(name="Gannet Colour 200", kind="colour negative"))
    loaded = planned(notebook, "push", "Gannet Colour 200", "Sable", "1+1")
    assert loaded.routine.kind == "colour negative"
    other = named(notebook, loaded, stock_name="Merrow Pan 125")
    assert (other.routine, other.test.agitation, reference_of(other)) == (None, "", 20.0)
