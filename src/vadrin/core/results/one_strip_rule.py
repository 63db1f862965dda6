"""The rule of thumb that guesses a time from the contrast of one strip."""

RULE_EXPONENT = 1.35
"""Time goes as the wanted contrast over the found one to this power."""


def one_strip_minutes(minutes: float, contrast: float, wanted: float) -> float:
    """Minutes for a wanted contrast, from those of a strip and the contrast it came to.

    Raises
    ------
    ValueError
        For a contrast that is not above 0.
    """
    if contrast <= 0:
        raise ValueError("the strip has no contrast")
    return minutes * float((wanted / contrast) ** RULE_EXPONENT)
