"""Where a meter may be pointed in each place: what it is called, and the thing it reads."""

from __future__ import annotations

TITLES = {
    "shed": "boat shed at dusk",
    "slip": "slip under overcast",
    "lamplight": "bench by lamplight",
}

SPOTS = {
    "shed": (
        ("grey card by the bulb", "grey card"),
        ("grey card in the shade", "shaded grey card"),
        ("carved head", "carved head"),
        ("planks of the hull", "hull"),
        ("bright slip", "snow"),
        ("whole picture", ""),
    ),
    "slip": (
        ("grey card", "grey card"),
        ("grey card under the hull", "shaded grey card"),
        ("carved head", "carved head"),
        ("planks of the hull", "hull"),
        ("snow", "snow"),
        ("whole picture", ""),
    ),
    "lamplight": (
        ("grey card by the lamp", "grey card"),
        ("grey card in the shade", "shaded grey card"),
        ("carved head", "carved head"),
        ("bench", "bench"),
        ("white cloth", "white cloth"),
        ("whole picture", ""),
    ),
}
