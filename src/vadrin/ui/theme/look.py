"""The looks of the window: colours by what they mean, and the palette made of them."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from PyQt6.QtGui import QColor, QPalette

_DIM_RED = "#2C0000"


@dataclass(frozen=True)
class Look:
    """Colours of one look, as hex texts, named by their use.

    `grease` is the pencil for the finding's marks on film and curve, and for nothing else; `here`
    is where one is and what is selected; `trouble` a warning, with a word beside it; `done` a
    step that is complete. `strips` runs from the shortest development to the longest, and always
    to one side in lightness too: whoever sees no hue still sees the order. `red_only` looks draw
    film in reds instead of greys.
    """

    name: str
    ink: str
    soft: str
    desk: str
    sheet: str
    table: str
    rule: str
    grid: str
    grease: str
    here: str
    trouble: str
    done: str
    strips: tuple[str, str, str, str]
    film_base: str
    red_only: bool = False

    @property
    def main(self) -> str:
        """Ground of the main button; by the safelight a large one must not shine."""
        return _DIM_RED if self.red_only else self.ink

    @property
    def on_main(self) -> str:
        """Words on the main button."""
        return self.ink if self.red_only else self.desk

    def strip_colour(self, place: int, count: int) -> QColor:
        """Colour of one of several strips ordered by development time."""
        position = 1.0 if count < 2 else 3.0 * place / (count - 1)
        low = min(int(position), 2)
        part = position - low
        first, second = QColor(self.strips[low]), QColor(self.strips[low + 1])
        return QColor(
            round(first.red() + part * (second.red() - first.red())),
            round(first.green() + part * (second.green() - first.green())),
            round(first.blue() + part * (second.blue() - first.blue())),
        )

    def layer_colour(self, layer: str) -> QColor:
        """Colour of a layer of colour film; in a red-only look its name alone tells it."""
        return QColor(self.soft if self.red_only else _LAYERS[layer][self.name == "dim"])

    def legible(self, colour: QColor) -> QColor:
        """A colour of the same hue in which words on a plot can be read."""
        if self.red_only:
            return QColor(self.ink)
        ground, made = QColor(self.sheet), QColor(colour)
        dark = luminance(ground) < 0.2
        for _ in range(40):
            if contrast(made, ground) >= LEAST_CONTRAST:
                break
            made = made.lighter(108) if dark else made.darker(108)
        return made

    def film_colour(self, density: float) -> QColor:
        """The grey a density has on a light table, through the display's transfer curve."""
        light = 10.0**-density
        level = 12.92 * light if light <= 0.0031308 else 1.055 * light ** (1 / 2.4) - 0.055
        shade = round(255 * max(0.0, min(1.0, level)))
        return QColor(shade, 0, 0) if self.red_only else QColor(shade, shade, round(shade * 0.98))

    def writing_on(self, background: QColor) -> QColor:
        """Black or white, or in a red-only look red or black: whichever can be read better."""
        return QColor.fromRgb(_writing_on(background.rgb(), self.red_only))

    def plate_under(self, words: QColor, background: QColor) -> QColor | None:
        """What words need under them to be read at all; None where the ground will do."""
        if not self.red_only or contrast(words, background) >= LEAST_CONTRAST:
            # On greys black or white is always enough.
            return None
        return QColor(0, 0, 0) if words.red() else QColor(255, 0, 0)


@lru_cache(maxsize=1024)
def _writing_on(ground: int, red_only: bool) -> int:
    light = QColor(255, 0, 0) if red_only else QColor(255, 255, 255)
    background = QColor.fromRgb(ground)
    return max(light, QColor(0, 0, 0), key=lambda c: contrast(c, background)).rgb()


_LAYERS = {
    "red": ("#B3261E", "#FF7A70"),
    "green": ("#1B7A34", "#62C57C"),
    "blue": ("#2447B5", "#8DA6FF"),
}
"""Layers of colour film by day and in the dim look: words beside them can be read."""


LEAST_CONTRAST = 4.5
"""Ratio of luminances that words and their ground have at least.

Source: Web Content Accessibility Guidelines 2.1, level AA.
"""


def luminance(colour: QColor) -> float:
    """Relative luminance of a colour on a display, 0 to 1."""

    def linear(level: float) -> float:
        return level / 12.92 if level <= 0.03928 else ((level + 0.055) / 1.055) ** 2.4

    red, green, blue = (linear(c) for c in (colour.redF(), colour.greenF(), colour.blueF()))
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue


def contrast(one: QColor, other: QColor) -> float:
    """Ratio of the luminances of two colours, 1 to 21."""
    low, high = sorted((luminance(one), luminance(other)))
    return (high + 0.05) / (low + 0.05)


DAY = Look(
    "day",
    "#14212B",
    "#566773",
    "#F1F4F5",
    "#FFFFFF",
    "#FBFDFE",
    "#CBD6DB",
    "#DCE8EC",
    "#C21F3A",
    "#1F5673",
    "#8A4B00",
    "#1F6F5C",
    ("#6D9AB0", "#3B768E", "#1F5270", "#3A1F4D"),
    "#C9CFD1",
)
DIM = Look(
    "dim",
    "#DCE4EA",
    "#93A3AE",
    "#10181E",
    "#16222A",
    "#1B2930",
    "#2E3E48",
    "#24333C",
    "#FF5A6E",
    "#7FB9D8",
    "#E3A75B",
    "#4FB394",
    ("#DCEEF6", "#93C3D6", "#5F9FBB", "#8A62AE"),
    "#34444E",
)
SAFELIGHT = Look(
    "safelight",
    "#FF0000",
    "#EE0000",
    "#000000",
    "#0A0000",
    "#060000",
    "#4A0000",
    "#300000",
    "#FF0000",
    "#FF0000",
    "#FF0000",
    "#EE0000",
    ("#FF0000", "#D00000", "#A60000", "#800000"),
    "#2A0000",
    True,
)
LOOKS = (DAY, DIM, SAFELIGHT)


def with_more_contrast(look: Look) -> Look:
    """A look for whoever asks the system for high contrast: words on a plain ground, and lines
    that can be seen as well as words. By the safelight red on black is all there is."""
    if look.red_only:
        return look
    dark = luminance(QColor(look.desk)) < 0.2
    ground, ink, soft = (
        ("#000000", "#FFFFFF", "#E4E8EB") if dark else ("#FFFFFF", "#000000", "#23292E")
    )
    line = "#AEB6BC" if dark else "#5A646B"
    strong = QColor(look.trouble).lighter(125) if dark else QColor(look.trouble).darker(150)
    return replace(
        look,
        ink=ink,
        soft=soft,
        desk=ground,
        sheet=ground,
        table=ground,
        rule=line,
        grid=line,
        trouble=strong.name(),
        done=QColor(look.done).lighter(120).name()
        if dark
        else QColor(look.done).darker(130).name(),
    )


TONES = {
    "": QPalette.ColorRole.WindowText,
    "soft": QPalette.ColorRole.PlaceholderText,
    "grease": QPalette.ColorRole.BrightText,
    "done": QPalette.ColorRole.LinkVisited,
    "here": QPalette.ColorRole.Link,
    "trouble": QPalette.ColorRole.Accent,
}
"""The role of a palette in which each tone of a look is found."""
RULE, MAIN, ON_MAIN = QPalette.ColorRole.Mid, QPalette.ColorRole.Shadow, QPalette.ColorRole.Light


def palette_of(look: Look) -> QPalette:
    """A look's colours as Qt's palette: whoever draws by roles follows a change of the look."""
    role, made = QPalette.ColorRole, QPalette()
    for colour, roles in (
        (look.ink, (role.WindowText, role.Text, role.ButtonText, role.ToolTipText)),
        (look.ink, (role.Highlight, role.Dark)),
        (look.desk, (role.Window, role.Button, role.AlternateBase, role.HighlightedText)),
        (look.sheet, (role.Base, role.ToolTipBase)),
        (look.rule, (RULE, role.Midlight)),
        (look.main, (MAIN,)),
        (look.on_main, (ON_MAIN,)),
        (look.soft, (TONES["soft"],)),
        (look.grease, (TONES["grease"],)),
        (look.here, (TONES["here"],)),
        (look.trouble, (TONES["trouble"],)),
        (look.done, (TONES["done"],)),
    ):
        for one in roles:
            made.setColor(one, QColor(colour))
    for one in (role.ButtonText, role.Text, role.WindowText):
        made.setColor(QPalette.ColorGroup.Disabled, one, QColor(look.soft))
    return made
