"""Names, materials and likenesses typed by a tester, and what is written for them."""

from dataclasses import replace

import pytest

from vadrin.app.document.test_loading import load_test
from vadrin.app.entry.film_supply import names_typed
from vadrin.app.library.cupboard import new_record, set_field, shown, title_of, typed
from vadrin.app.library.differences import conditions_of, differences
from vadrin.app.library.forms import FORMS, FieldKind
from vadrin.app.library.named_records import (
    batch_named,
    camera_named,
    developer_phrased,
    lens_named,
    stock_named,
)
from vadrin.app.plan.compared_materials import MOST_COMPARED, compared_material
from vadrin.app.plan.plan_edit import PlanEdit, apply_plan
from vadrin.app.plan.starting_tests import rolls_begun, start_kind
from vadrin.app.plan.variants import CHANGES, TIMES, changes_from_source, start_variant
from vadrin.core.planning.plan_request import Arrangement, Compared
from vadrin.errors import EditRefusedError, EntryError
from vadrin.notebook.records import Batch, Developer, Paper, Process, Stock, Strip, Test

OTHER = {
    "developer": "Tarn",
    "dilution": "1+7",
    "agitation": "once a minute",
    "film": "Brannock 400",
    "batch": "M9",
    "camera": "Slip folder",
    "light": "lamp",
    "water": "rain",
    "vessel": "tray",
    "target": "still scene",
    "EI on the meter": "160",
}


def plan(book, kind="time", **changes):
    test = start_kind(book, kind)
    times = changes.pop("times", (6.0, 9.0))
    request = PlanEdit(
        replace(test, **changes),
        times,
        "Merrow Pan 125",
        "Sable",
        "1+1",
        "M3",
        "Quayside 35",
        "Lugger 50",
    )
    apply_plan(book, request, "plan")
    return load_test(book, test.id)


@pytest.mark.parametrize("what", CHANGES)
def test_a_likeness_differs_in_one_condition_only(notebook, what):
    source = plan(notebook)
    made = start_variant(notebook, source.test.id, what, OTHER[what])
    loaded = load_test(notebook, made.id)
    found = [
        d.name
        for d in differences(conditions_of(notebook, source), conditions_of(notebook, loaded))
    ]
    gone_along = {"film": {"film", "batch"}}.get(what, {what})
    assert set(found) == gone_along
    assert [s.minutes for s in loaded.strips] == [6.0, 9.0]
    assert len(changes_from_source(notebook, loaded)) == len(gone_along)
    with pytest.raises(EditRefusedError, match="there too"):
        start_variant(notebook, made.id, what, OTHER[what])
    with pytest.raises(EditRefusedError, match="type what"):
        start_variant(notebook, made.id, what, "  ")
    assert len(notebook.all(Test)) == 2


def test_a_likeness_of_times_lays_other_strips(notebook):
    source = plan(notebook)
    made = start_variant(notebook, source.test.id, TIMES, "5; 7,5; 11")
    assert [s.minutes for s in load_test(notebook, made.id).strips] == [5.0, 7.5, 11.0]
    with pytest.raises(EditRefusedError, match="not a number"):
        start_variant(notebook, source.test.id, TIMES, "long")
    with pytest.raises(EditRefusedError, match="enter an EI from"):
        start_variant(notebook, source.test.id, "EI on the meter", "0")
    with pytest.raises(EditRefusedError, match="is gone"):
        start_variant(notebook, 999, TIMES, "5")


@pytest.mark.parametrize(
    ("words", "names"),
    [
        ("Tarn 1+9", ["Tarn 1+9"]),
        ("Tarn 1+9; Brine 1+4", ["Tarn 1+9", "Brine 1+4"]),
        ("B6, B7 and B9", ["B6", "B7", "B9"]),
        ("Kelda Pan 200,  ;", ["Kelda Pan 200"]),
        ("", []),
    ],
)
def test_names_are_parted_as_they_are_written(words, names):
    assert list(names_typed(words)) == names


def test_what_is_set_beside_is_found_or_written_once(notebook):
    with notebook.change("names"):
        film = stock_named(notebook, "Merrow Pan 125", 125.0)
        test = Test(stock_id=film.id)
        stock = compared_material(
            notebook, replace(test, compared=Compared.STOCKS), "Ostrel 400 batch O1"
        )
        assert notebook.get(Batch, stock.batch_id).stock_id == stock.stock_id
        assert notebook.get(Stock, stock.stock_id).name == "Ostrel 400"
        again = compared_material(
            notebook, replace(test, compared=Compared.STOCKS), "Ostrel 400 batch O1"
        )
        assert again == stock
        batch = compared_material(notebook, replace(test, compared=Compared.BATCHES), "M4")
        assert notebook.get(Batch, batch.batch_id).stock_id == film.id
        assert (batch.stock_id, batch.developer_id) == (None, None)
        developer = compared_material(notebook, test, "Tarn 1+9").developer_id
        assert notebook.get(Developer, developer).dilution == "1+9"
        assert developer_phrased(notebook, "Tarn 1+9").id == developer
        plain = developer_phrased(notebook, "Old harbour soup")
        assert (plain.name, plain.dilution) == ("Old harbour soup", "")
        assert camera_named(notebook, " ") is lens_named(notebook, "") is None
        assert camera_named(notebook, "Slip folder") == camera_named(notebook, " Slip folder ")
        assert batch_named(notebook, film.id, "M4").id == batch.batch_id
    assert len(notebook.all(Stock)) == 2


def test_too_many_names_are_refused_and_nothing_is_lost(notebook):
    loaded = plan(
        notebook,
        "compare",
        compared=Compared.BATCHES,
        compared_names=("M4",),
        arrangement=Arrangement.SEQUENTIAL,
    )
    names = tuple(f"M{i}" for i in range(4, 4 + MOST_COMPARED))
    many = replace(loaded.test, compared_names=names)
    apply_plan(notebook, PlanEdit(many, (8.0,), "Merrow Pan 125", "Sable", "1+1"), "more")
    strips = load_test(notebook, loaded.test.id).strips
    assert len(strips) == 1 + MOST_COMPARED
    assert strips[-1].other == f"M{3 + MOST_COMPARED}"
    both = replace(many, arrangement=Arrangement.INTERLEAVED)
    with pytest.raises(EditRefusedError, match="compare one at a time"):
        apply_plan(notebook, PlanEdit(both, (8.0,), "Merrow Pan 125", "Sable", "1+1"), "pairs")
    assert len(notebook.all(Strip, test_id=loaded.test.id)) == 1 + MOST_COMPARED


def test_a_film_brings_its_box_speed_but_not_over_a_chosen_one(notebook):
    with notebook.change("films"):
        stock_named(notebook, "Merrow Pan 125", 125.0)
        stock_named(notebook, "Brannock 400", 400.0)
    test = start_kind(notebook, "speed")
    request = PlanEdit(test, (8.0,), "Merrow Pan 125", "Sable", "1+1")
    apply_plan(notebook, request, "film")
    test = notebook.get(Test, test.id)
    assert test.exposure_index == 125.0
    chosen = replace(request, test=replace(test, exposure_index=80.0))
    apply_plan(notebook, chosen, "EI")
    moved = replace(request, test=notebook.get(Test, test.id), stock_name="Brannock 400")
    apply_plan(notebook, moved, "film")
    assert notebook.get(Test, test.id).exposure_index == 80.0, "what was chosen stays"


def test_a_roll_is_offered_only_while_it_has_room(notebook):
    first = plan(notebook, "speed", times=(8.0,), film_amount=24.0, step=1.0)
    second = plan(notebook, "clip", times=(8.0,))
    used = len(first.frames())
    assert rolls_begun(notebook, second) == [f"24 frames after {used + 1}"]
    with notebook.change("developed"):
        strip = first.strips[0].strip
        notebook.put(replace(strip, time_min=8.0))
    assert rolls_begun(notebook, load_test(notebook, second.test.id)) == []


GOOD = {
    FieldKind.TEXT: "as kept",
    FieldKind.WHOLE: "7",
    FieldKind.SHARE: "0.33",
    FieldKind.SECONDS: "1/60",
    FieldKind.DAY: "2026-11-23",
    FieldKind.YES: "yes",
    FieldKind.RECIPROCITY: "t^1.3",
    FieldKind.METER_CONSTANT: "10",
}
BAD = {
    FieldKind.NUMBER: ("many", "not a number"),
    FieldKind.WHOLE: ("-1", "between|from|lies"),
    FieldKind.SHARE: ("a lot %", "not a number"),
    FieldKind.YES: ("perhaps", "one of no, yes"),
    FieldKind.SECONDS: ("soon", "1/125 or 2 s"),
    FieldKind.DAY: ("23.11.", "2026-11-23"),
    FieldKind.LINK: ("no such thing", "make it first"),
    FieldKind.RECIPROCITY: ("slow", r"t\^1.3"),
    FieldKind.METER_CONSTANT: ("none", "8.125, 10, or EIs"),
}
MAY_NOT_BE_EMPTY = (
    FieldKind.NUMBER,
    FieldKind.WHOLE,
    FieldKind.SECONDS,
    FieldKind.LINK,
    FieldKind.METER_CONSTANT,
)


@pytest.mark.parametrize("heading", FORMS)
def test_every_form_shows_what_was_typed_and_refuses_nonsense(notebook, heading):
    with notebook.change("owners"):
        stock_named(notebook, "Merrow Pan 125", 125.0)
        developer_phrased(notebook, "Sable 1+1")
        camera_named(notebook, "Quayside 35")
        notebook.add(Process(name="ours"))
        notebook.add(Paper(name="Quay matt"))
    record = new_record(notebook, heading)
    kind, fields = FORMS[heading]
    before = notebook.get(kind, record.id)
    for field in fields:
        words = GOOD.get(field.kind)
        if field.kind is FieldKind.NUMBER:
            words = f"{max(field.low, min(2.0, field.high)):g}"
        if field.kind is FieldKind.CHOICE:
            words = field.choices[-1]
        if field.kind is FieldKind.LINK:
            words = title_of(notebook, notebook.all(field.link)[0])
        record = set_field(notebook, record, field, words)
        assert shown(notebook, notebook.get(kind, record.id), field) == words
        if field.kind in BAD:
            nonsense, remedy = BAD[field.kind]
            with pytest.raises(EntryError, match=remedy):
                typed(notebook, field, nonsense)
        if field.kind in MAY_NOT_BE_EMPTY:
            if field.optional:
                assert typed(notebook, field, "") is None
            else:
                with pytest.raises(ValueError, match="cannot be left empty"):
                    typed(notebook, field, "")
    assert notebook.get(kind, record.id) != before
    while notebook.undo_label() != f"new entry under {heading.lower()}":
        notebook.undo()
    assert notebook.get(kind, record.id) == before


def test_what_stood_for_a_film_and_a_bath_goes_when_they_are_named(notebook):
    loaded = plan(notebook, exposure_index=125.0)
    first = PlanEdit(loaded.test, (6.0, 9.0), "Brannock 400", "Tarn", "")
    apply_plan(notebook, first, "plan")
    now = load_test(notebook, loaded.test.id).test
    apply_plan(notebook, PlanEdit(now, (6.0, 9.0), "Brannock 400", "Tarn", "1+9"), "plan")
    assert {s.name for s in notebook.all(Stock)} == {"Merrow Pan 125", "Brannock 400"}
    assert {f"{d.name} {d.dilution}" for d in notebook.all(Developer)} == {"Sable 1+1", "Tarn 1+9"}
    with notebook.change("by its bare name"):
        assert developer_phrased(notebook, "Tarn").dilution == "1+9"


def test_a_bare_bath_that_another_test_is_of_stays(notebook):
    kept = plan(notebook)
    with notebook.change("another"):
        bare = notebook.add(Developer(name="Tarn"))
        notebook.add(Test(kind="time", stock_id=kept.test.stock_id, developer_id=bare.id))
    for dilution in ("", "1+9"):
        request = PlanEdit(kept.test, (6.0, 9.0), "Merrow Pan 125", "Tarn", dilution)
        apply_plan(notebook, request, "plan")
    assert notebook.get(Developer, bare.id) == bare
