"""Patches of a colour chart, as measured on the positive or named by eye, strip by strip."""

from __future__ import annotations

from dataclasses import dataclass

from vadrin.app.entry.numbers import number_within
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.stamps import now
from vadrin.core.materials.hues import Lab
from vadrin.core.planning.test_types.colour_push import ColourPush
from vadrin.core.planning.test_types.compare import Compare
from vadrin.errors import EntryError
from vadrin.notebook.records import Judgement
from vadrin.notebook.store import Notebook

PATCH = "patch "
MEASURED, OF_A_PICTURE, BY_EYE = "L*a*b* D50", "off a picture", "by eye"
_LOOKS = " looks "
_MOST_A_B = 130.0
_WITHOUT_COLOUR = ("black-and-white negative", "paper")


@dataclass(frozen=True)
class Patch:
    """One patch on one strip: its colour where it was measured, else what an eye called it.

    Attributes
    ----------
    name : str
    colour : Lab or None
    said : str
        What an eye called it.
    way : str
        How its colour was come by.
    """

    name: str
    colour: Lab | None
    said: str
    way: str = MEASURED

    @property
    def shown(self) -> str:
        """As it is read."""
        if self.colour is None:
            return self.said
        c = self.colour
        shown = f"{c.lightness:g} {c.a:g} {c.b:g}".replace("-", "−")
        return f"{shown}, {self.way}" if self.way == OF_A_PICTURE else shown


def takes_patches(loaded: LoadedTest) -> bool:
    """Whether a test may show a chart of patches: pushes, or comparisons, of colour film."""
    if loaded.test.kind == Compare.key:
        coloured = loaded.stock.kind not in _WITHOUT_COLOUR
        return coloured or any(patches_of(strip) for strip in loaded.strips)
    return loaded.test.kind == ColourPush.key


def patch_typed(words: str) -> Patch:
    """``red 52 60 40`` of a measured patch, ``red looks orange`` of one that was looked at.

    Raises
    ------
    EntryError
    """
    plain = " ".join(words.replace("−", "-").split())
    if _LOOKS in plain:
        name, _, said = plain.partition(_LOOKS)
        if name.strip() and said.strip():
            return Patch(name.strip().lower(), None, said.strip().lower())
    parts = plain.rsplit(" ", 3)
    if len(parts) != 4 or not parts[0]:
        raise EntryError("type a patch as “red 52 60 40” (its L* a* b*), or “red looks orange”")
    refusal = "L* lies between 0 and 100, a* and b* between −130 and 130"
    lightness = number_within(parts[1], 0, 100, refusal, "52")
    a, b = (number_within(p, -_MOST_A_B, _MOST_A_B, refusal, "40") for p in parts[2:])
    return Patch(parts[0].lower(), Lab(lightness, a, b), "")


def keep_patch(notebook: Notebook, strip: LoadedStrip, patch: Patch) -> None:
    """Keep a patch in the place of what was known of it on that strip."""
    keep_patches(notebook, strip, (patch,))


def keep_patches(notebook: Notebook, strip: LoadedStrip, patches: tuple[Patch, ...]) -> None:
    """Keep patches in the places of what was known of them on that strip, as one edit."""
    names = ", ".join(patch.name for patch in patches)
    with notebook.change(f"{names} of strip {strip.strip.label}"):
        asked = {PATCH + patch.name for patch in patches}
        for before in strip.judgements:
            if before.asked in asked:
                notebook.remove(before)
        for patch in patches:
            colour = patch.colour
            answer = patch.said if colour is None else f"{colour.lightness} {colour.a} {colour.b}"
            notebook.add(
                Judgement(
                    strip_id=strip.strip.id,
                    asked=PATCH + patch.name,
                    answer=answer,
                    way=BY_EYE if colour is None else patch.way,
                    judged_at=now(),
                )
            )


def patches_of(strip: LoadedStrip) -> dict[str, Patch]:
    """The patches known of a strip, by their names, in the order they were given."""
    made = {}
    for judged in sorted(strip.judgements, key=lambda j: j.id):
        if not judged.asked.startswith(PATCH):
            continue
        name = judged.asked.removeprefix(PATCH)
        made[name] = Patch(name, _colour(judged), judged.answer, judged.way)
    return made


def _colour(judged: Judgement) -> Lab | None:
    """Its colour; None where an eye named it, or a notebook from elsewhere holds no numbers."""
    if judged.way not in (MEASURED, OF_A_PICTURE):
        return None
    try:
        lightness, a, b = (float(n) for n in judged.answer.split())
    except ValueError:
        return None
    return Lab(lightness, a, b)
