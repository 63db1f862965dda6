"""Where the work goes on from each station, in the words of the button that leads there."""

NEXT_STATIONS = {
    "plan": ("Start exposing", "expose"),
    "expose": ("On to the darkroom", "process"),
    "process": ("Read the strips", "read"),
    "read": ("See the curves", "curves"),
    "curves": ("Weigh the finding", "finding"),
    "print": ("Weigh the finding", "finding"),
    "finding": ("Write the card", "cards"),
}
"""Words and the station, by the station one is at."""
