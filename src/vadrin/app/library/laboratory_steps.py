"""The steps of a process: those a laboratory keeps as its own, else the usual of its kind."""

from __future__ import annotations

from dataclasses import replace

from vadrin.app.display.quantities import minutes_text
from vadrin.app.entry.process_steps import TypedStep
from vadrin.app.loaded.bath_order import in_order
from vadrin.core.process.process_kinds import KINDS, StepTemplate, kind_of_process
from vadrin.notebook.records import Process, ProcessStep
from vadrin.notebook.store import Notebook


def own_steps(notebook: Notebook, process: Process | None) -> tuple[ProcessStep, ...]:
    """The steps kept of a process, in their order; none where nobody kept any."""
    kept = notebook.all(ProcessStep, process_id=process.id) if process is not None else []
    return in_order(kept)


def steps_of(notebook: Notebook, process: Process | None) -> tuple[ProcessStep, ...]:
    """The steps a process goes through: its own, else those of its kind."""
    return steps_gone_through(process, own_steps(notebook, process))


def steps_gone_through(
    process: Process | None, own: tuple[ProcessStep, ...]
) -> tuple[ProcessStep, ...]:
    """The steps of a process whose own, if it has any, are at hand."""
    kind = kind_of_process(process.kind if process is not None else "")
    return own or tuple(_as_usual(step, place) for place, step in enumerate(kind.steps))


def steps_text(steps: tuple[ProcessStep, ...]) -> str:
    """Steps as they are typed."""
    return ", ".join(_text(step) for step in steps)


def _text(step: ProcessStep) -> str:
    time = f" {minutes_text(step.seconds / 60, exact=True)}" if step.seconds else ""
    warmth = f" at {step.temperature_c:g} °C" if step.temperature_c is not None else ""
    return f"{step.name[:1].lower()}{step.name[1:]}{time}{warmth}"


def keep_steps(notebook: Notebook, process: Process, typed: tuple[TypedStep, ...]) -> None:
    """Keep steps as those of a process, in the place of what it had. Inside `change`.

    What is not typed of a step (how it is agitated, whether it may wait) stays as it was of a
    step of that name, or is as usual.
    """
    before = steps_of(notebook, process)
    notebook.remove_all(list(own_steps(notebook, process)))
    for place, step in enumerate(typed):
        like = next((s for s in before if s.name.lower() == step.name.lower()), None)
        like = like or _as_usual(_usual(step.name), place)
        notebook.add(
            replace(
                like,
                id=0,
                process_id=process.id,
                position=place,
                name=step.name,
                seconds=step.seconds,
                temperature_c=step.temperature_c,
                develops=not step.seconds,
                may_pause=bool(step.seconds) and like.may_pause,
            )
        )


def _usual(name: str) -> StepTemplate:
    known = (step for kind in KINDS.values() for step in kind.steps)
    return next((s for s in known if s.name.lower() == name.lower()), StepTemplate(name, 0.0))


def _as_usual(step: StepTemplate, place: int) -> ProcessStep:
    return ProcessStep(
        position=place,
        name=step.name,
        seconds=step.seconds,
        tolerance_k=step.tolerance_k,
        agitation=step.agitation,
        develops=step.develops,
        may_pause=step.may_pause,
    )
