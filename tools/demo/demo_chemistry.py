"""The demo darkroom's chemistry, and a process of every kind."""

from __future__ import annotations

from vadrin.core.process.process_kinds import KINDS
from vadrin.core.process.rules_on_trial import RuleFormula
from vadrin.notebook.records import Developer, MakerTime, Process, Rule, Test
from vadrin.notebook.store import Notebook

SABLE = "750 ml water at 50; 2 g Osmel; 100 g Marl salt; 5 g Fell; 2 g Tarn; water to 1 l"
_CHEMISTRY = (
    ("Tern", "1+19", "stop bath", None, "a mild acid"),
    ("Rill", "1+9", "wash aid", None, ""),
    ("Scaur", "stock", "bleach", None, "bleach for reversal and colour"),
    ("Mire", "1+100", "developer", 5.0, "for stand: pyro-like, gloves"),
    ("Holm", "stock", "developer", None, "monobath"),
    ("Skua C", "stock", "developer", None, "colour negative"),
    ("Skua R", "stock", "developer", None, "colour reversal, first developer"),
    ("Gannet", "stock", "developer", None, "reversal, first developer; caustic"),
    ("Kittle", "1+9", "developer", None, "for paper in trays"),
)
"""Name, dilution, role, concentrate a film, note: all invented."""
_PROCESSES = (
    ("Harbour standard", "negative", "Sable", "first 30 s, then 4 turns a minute"),
    ("Ebb stand", "stand", "Mire", "first 60 s, then stand"),
    ("Ebb semi-stand", "semi-stand", "Mire", "first 60 s, then 10 s at 30 min"),
    ("One-bath", "monobath", "Holm", "10 s every 30 s"),
    ("Pier colour", "colour negative", "Skua C", "first 30 s, then 5 s every 30 s"),
    ("Pier slides", "colour reversal", "Skua R", "first 15 s, then 5 s every 30 s"),
    ("Slip reversal", "reversal", "Gannet", "first 30 s, then 10 s every minute"),
    ("Slip direct", "direct positive", "Kittle", "continuous"),
    ("Shed trays", "paper", "Kittle", "continuous"),
)


_RULES = (
    ("drop test, a quarter", "seconds", RuleFormula.FACTOR, 0.25, "the club"),
    ("a third more a stop", "stops", RuleFormula.SHARE, 1 / 3, "everybody"),
    ("a tenth less a degree", "degrees", RuleFormula.DEGREE, 0.1, "the shed's wall"),
)


_MAKERS = ((0.0, 7.5), (1.0, 9.5), (2.0, 12.0))
"""Stops and minutes of a made-up sheet that came with the demo's film."""


def write_makers_table(notebook: Notebook, test: Test) -> None:
    """What a maker says of the film of a test in its developer."""
    for stops, minutes in _MAKERS:
        notebook.add(
            MakerTime(
                stock_id=test.stock_id,
                developer_id=test.developer_id,
                stops=stops,
                time_min=minutes,
                source="sheet in the box",
            )
        )


def write_processes(notebook: Notebook) -> None:
    """A process of every kind, with the chemistry for it."""
    for name, dilution, role, least, note in _CHEMISTRY:
        notebook.add(Developer(name=name, dilution=dilution, role=role, least_ml=least, note=note))
    for name, takes, formula, amount, whose in _RULES:
        notebook.add(Rule(name=name, takes=takes, formula=formula, amount=amount, whose=whose))
    known = {d.name: d.id for d in notebook.all(Developer)}
    for name, kind, developer, agitation in _PROCESSES:
        notebook.add(
            Process(
                name=name,
                kind=kind,
                developer_id=known[developer],
                agitation=agitation,
                temperature_c=KINDS[kind].temperature_c,
                vessel="two-reel tank",
                volume_ml=600.0,
            )
        )
