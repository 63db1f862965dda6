"""What a push, or another film, does to the patches of a chart: difference, hue turned, chroma
kept."""

from __future__ import annotations

from functools import lru_cache

from vadrin.app.descriptions.answer_in_words import AnswerTable, HueTurn, PatchColours
from vadrin.app.display.quantities import push_name
from vadrin.app.loaded.film_names import film_name
from vadrin.app.loaded.loaded_test import LoadedStrip, LoadedTest
from vadrin.app.read.patch_entry import Patch, patches_of
from vadrin.core.figure import Figure
from vadrin.core.materials.hues import Lab, chroma_kept, hue_turned
from vadrin.core.planning.test_types.compare import Compare

_HEADS = ("Differs by", "Hue turned", "Chroma kept", "It reads as")
_SEEN = 2.3
"""ΔE00 from which two patches beside each other are told apart."""


def colour_difference(one: Lab, other: Lab) -> float:
    """ΔE00 of two colours (CIEDE2000)."""
    # Here, not above: only a test with measured patches waits for it.
    from coloraide import Color

    first, second = (Color("lab", [c.lightness, c.a, c.b]) for c in (one, other))
    return float(first.delta_e(second, method="2000", space="lab"))


def _compares(loaded: LoadedTest) -> bool:
    return loaded.test.kind == Compare.key


def _ordered(loaded: LoadedTest) -> list[LoadedStrip]:
    """The reference first: the normal strip of pushes, the first of films compared."""
    if _compares(loaded):
        return list(loaded.strips)
    return sorted(loaded.strips, key=lambda s: abs(s.strip.push or 0.0))


def _name_of(loaded: LoadedTest, strip: LoadedStrip) -> str:
    """What a strip's patches go by: its push, or its film."""
    return film_name(loaded, strip) if _compares(loaded) else push_name(strip.strip.push or 0.0)


def patch_table(loaded: LoadedTest) -> AnswerTable | None:
    """A row for each patch and strip beside the reference; None where none is known."""
    strips = _ordered(loaded)
    if not strips or not any(patches_of(s) for s in strips):
        return None
    normal = patches_of(strips[0])
    rows = [
        _row(name, _name_of(loaded, strip), patch, normal.get(name))
        for strip in strips
        for name, patch in patches_of(strip).items()
    ]
    heads = ("Patch", "Film" if _compares(loaded) else "Push", *_HEADS)
    return AnswerTable(heads, tuple(sorted(rows, key=lambda row: row[0])))


def _row(name: str, of: str, patch: Patch, normal: Patch | None) -> tuple[str, ...]:
    called = patch.colour.name if patch.colour else patch.said
    if patch is normal or normal == patch:
        return (name, of, "reference", "", "", called)
    if patch.colour is None or normal is None or normal.colour is None:
        was = normal.colour.name if normal and normal.colour else normal.said if normal else ""
        return (name, of, "—", "", "", f"{called}, was {was}" if was else called)
    turned, kept = hue_turned(normal.colour, patch.colour), chroma_kept(normal.colour, patch.colour)
    apart = colour_difference(normal.colour, patch.colour)
    was = "" if called == normal.colour.name else f", was {normal.colour.name}"
    return (
        name,
        of,
        f"{apart:.1f}{'' if apart > _SEEN else ', not seen'}",
        "—" if turned is None else f"{turned:+.0f}°".replace("-", "−"),
        "—" if kept is None else f"{100 * kept:.0f} %",
        f"{called}{was}",
    )


def patch_figures(loaded: LoadedTest) -> dict[str, Figure | float | None]:
    """The differences by strip and patch, and the greatest of each strip."""
    strips = _ordered(loaded)
    normal = patches_of(strips[0]) if strips else {}
    made: dict[str, Figure | float | None] = {}
    for strip in strips[1:]:
        label, most = strip.strip.label, 0.0
        for name, patch in patches_of(strip).items():
            before = normal.get(name)
            if before is None or before.colour is None or patch.colour is None:
                continue
            apart = colour_difference(before.colour, patch.colour)
            most = max(most, apart)
            made[f"{label}_{name}_delta_e00"] = apart
            made[f"{label}_{name}_hue_turned"] = hue_turned(before.colour, patch.colour)
        if most:
            made[f"{label}_greatest_delta_e00"] = most
    return made


def hue_turns(loaded: LoadedTest) -> tuple[HueTurn, ...]:
    """How each measured patch turns over the pushes, for a picture."""
    made = []
    strips = _ordered(loaded)
    for name, first in (patches_of(strips[0]) if strips else {}).items():
        if first.colour is None or first.colour.grey:
            continue
        at = [
            (_name_of(loaded, s), p.colour)
            for s in strips
            if (p := patches_of(s).get(name)) is not None
        ]
        places = tuple((of, c.hue, c.chroma) for of, c in at if c is not None)
        made.append(HueTurn(name, places))
    return tuple(made)


def patch_colours(loaded: LoadedTest) -> tuple[PatchColours, ...]:
    """Every measured patch as a display shows it, strip by strip."""
    strips = _ordered(loaded)
    made = []
    for name, first in (patches_of(strips[0]) if strips else {}).items():
        if first.colour is None:
            continue
        seen = [(_name_of(loaded, s), patches_of(s).get(name)) for s in strips]
        places = tuple((of, _shown(p.colour) if p and p.colour else None) for of, p in seen)
        said = ", ".join(f"{of} {p.colour.name}" for of, p in seen if p and p.colour)
        made.append(PatchColours(name, places, said))
    return tuple(made)


@lru_cache(maxsize=512)
def _shown(colour: Lab) -> tuple[int, int, int]:
    """A colour in sRGB, brought into what a display can show."""
    from coloraide import Color

    made = Color("lab", [colour.lightness, colour.a, colour.b]).convert("srgb").fit()
    red, green, blue = (round(255 * min(max(float(c), 0.0), 1.0)) for c in made.coords())
    return red, green, blue


def drift_words(loaded: LoadedTest) -> str:
    """The patch that turned furthest, in a sentence; empty where none turned to be seen."""
    strips = _ordered(loaded)
    normal, worst = (patches_of(strips[0]) if strips else {}), None
    for strip in strips[1:]:
        for name, patch in patches_of(strip).items():
            before = normal.get(name)
            if before is None or before.colour is None or patch.colour is None:
                continue
            apart = colour_difference(before.colour, patch.colour)
            if apart > _SEEN and (worst is None or apart > worst[0]):
                worst = (apart, name, strip, before.colour, patch.colour)
    if worst is None:
        return ""
    apart, name, strip, was, now = worst
    differs, on = ("differs", "on") if _compares(loaded) else ("drifts", "at")
    words = f"{name.capitalize()} {differs} most, by {apart:.1f} {on} {_name_of(loaded, strip)}"
    if was.name != now.name:
        return f"{words}: it reads as {now.name} and no longer as {was.name}."
    return f"{words}, and still reads as {now.name}."
