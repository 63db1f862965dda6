"""Pictures on their way out: each as a file that says what made it, or all on one sheet."""

from __future__ import annotations

from pathlib import Path

from vadrin import __version__
from vadrin.app.display.region import local_all
from vadrin.app.document.state import State
from vadrin.app.pictures.beside_pictures import Shown
from vadrin.app.pictures.exposed import Exposed, exposed_of
from vadrin.app.pictures.kept_pictures import Wanted, picture
from vadrin.app.pictures.looking import Looking, PaperUsed
from vadrin.app.pictures.measured_grain import grain_words
from vadrin.app.stamps import now
from vadrin.errors import EntryError
from vadrin.formats.reports.sheet_picture import SheetPicture
from vadrin.formats.whole_file import safe_name, write_whole

SUFFIXES = (".pdf", ".png", ".tif")
_ON_A_CARD = 4
Rows = tuple[Shown, ...]
CardPictures = tuple[SheetPicture, ...]
"""Small pictures for a card."""


def usual_name(state: State) -> str:
    """The file name pictures are offered under."""
    return safe_name("-".join(f"pictures {state.loaded.title}".lower().split()), ".pdf")


def what_made(state: State, exposed: Exposed, looking: Looking, paper: PaperUsed) -> dict[str, str]:
    """All a picture comes from, in words."""
    loaded = state.loaded
    return {
        "Title": f"{loaded.title}, {exposed.said}",
        "Software": f"Vadrin {__version__}",
        "Creation Time": now(),
        "Film": loaded.title,
        "Developer": loaded.developer.bath,
        "Exposure": exposed.said,
        "Push": exposed.name,
        "Scene": looking.scene_title,
        "Metered at": looking.spot_name,
        "Shown as": f"{looking.shown_as}, {looking.rule}, {looking.longer_words} beyond that",
        "Paper": exposed.printed_on(paper).words,
        "Camera flare": looking.flare_words,
        "Grain": "none",
    }


def save_pictures(state: State, rows: Rows, looking: Looking, paper: PaperUsed, path: Path) -> str:
    """Save what is shown: one sheet as PDF, or a PNG or TIFF for each picture.

    Returns
    -------
    str
        What was saved, in a sentence.

    Raises
    ------
    EntryError
        If the ending is none of these, or there is no picture.
    OSError
    """
    if path.suffix.lower() not in (*SUFFIXES, ".tiff"):
        raise EntryError(f"end the name in one of {', '.join(SUFFIXES)}")
    if path.suffix.lower() == ".pdf":
        write_whole(path, _sheet(state, rows, looking, paper))
        return f"Saved to {path}."
    # What writes pictures is loaded when one is written, off the screen's thread.
    from vadrin.formats.pictures.picture_file import png_of, tiff_of

    saved = []
    for of, exposed in (each for row in rows for each in row):
        made = picture(Wanted(of, exposed, looking, paper, 1))
        if made is None:
            continue
        told = what_made(of, exposed, looking, paper)
        write = png_of if path.suffix.lower() == ".png" else tiff_of
        own = "-".join(f"{path.stem} {exposed.name} {exposed.said}".replace(":", "m").split())
        file = path.with_name(safe_name(own.replace(",", ""), path.suffix))
        write_whole(file, write(made.levels, told))
        saved.append(file)
    if not saved:
        raise EntryError("none of these was tested: there is no picture to save")
    counted = "1 picture" if len(saved) == 1 else f"{len(saved)} pictures"
    return f"Saved {counted} in {saved[0].parent}: {saved[0].name}{' …' if saved[1:] else ''}"


def card_pictures(state: State, looking: Looking, paper: PaperUsed) -> CardPictures:
    """Small pictures of a test's answer for its card; none where there are none."""
    made = ((e, picture(Wanted(state, e, looking, paper, _ON_A_CARD))) for e in exposed_of(state))
    return tuple(
        SheetPicture(seen.levels, exposed.said, exposed.cost, exposed.normal)
        for exposed, seen in made
        if seen is not None
    )


def _sheet(state: State, rows: Rows, looking: Looking, paper: PaperUsed) -> bytes:
    from vadrin.formats.reports.pictures_pdf import pictures_pdf

    laid = []
    for row in rows:
        line = []
        for of, exposed in row:
            made = picture(Wanted(of, exposed, looking, paper, 2))
            caption = " · ".join(words for words in (exposed.name, exposed.said) if words)
            note = exposed.cost if made is not None else exposed.why or "not tested"
            levels = made.levels if made is not None else None
            line.append(SheetPicture(levels, caption, note, exposed.normal))
        laid.append(line)
    loaded = state.loaded
    apart = any(each.paper for row in rows for _, each in row)
    on = "each on the paper that is named" if apart else f"on {paper.words}"
    small = (
        f"Scene: {looking.scene_title}, metered at {looking.spot_name}. {looking.shown_as}, "
        f"{looking.rule}, {looking.longer_words} beyond that, {on}. Camera flare "
        f"{looking.flare_words}. {grain_words(state)} Times are those of the test's reference "
        f"temperature. Made {now()[:10]} by Vadrin {__version__}."
    )
    return pictures_pdf(
        f"{loaded.title} in {loaded.developer.bath}", local_all(small), local_all(laid)
    )
