"""The stations, one for each step of the work, and the shelf; made when first gone to."""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from vadrin.ui.stations.station import Station, Surroundings

_CLASSES = {
    "plan": "plan.plan_station:PlanStation",
    "expose": "expose.expose_station:ExposeStation",
    "process": "process.process_station:ProcessStation",
    "read": "read.read_station:ReadStation",
    "curves": "curves.curves_station:CurvesStation",
    "print": "print.print_station:PrintStation",
    "finding": "finding.finding_station:FindingStation",
    "cards": "cards.cards_station:CardsStation",
    "shelf": "shelf.shelf_station:ShelfStation",
    "films": "films.films_station:FilmsStation",
    "cupboard": "cupboard.cupboard_station:CupboardStation",
    "question": "question.question_station:QuestionStation",
}


def make_station(name: str, given: Surroundings) -> Station:
    """Make the station with a name; its module is loaded only now."""
    module, _, kind = _CLASSES[name].partition(":")
    made: Station = getattr(import_module(f"vadrin.ui.stations.{module}"), kind)(given)
    return made
