"""Loading what the first edit and the first answer need, before they are asked for."""

from __future__ import annotations


def load_storage() -> None:
    """Load what the first edit is written with."""
    import vadrin.notebook.record_writer  # noqa: F401


def load_numerics() -> None:
    """Load the numerical packages, and work out once what every answer uses."""
    import vadrin.core.results.analysis  # noqa: F401
    from vadrin.app.plan.expected_curves import expected_film
    from vadrin.core.fitting.student_t import t_quantile

    t_quantile(0.975, 30.0)
    expected_film(100.0, None)


def load_answers() -> None:
    """Load what kinds of test answer by, each of which few tests need."""
    import vadrin.app.descriptions
    import vadrin.core.exposure.long_exposure_pairs
    import vadrin.core.printing.paper_curve  # noqa: F401
    from vadrin.core.results import paired_frames  # noqa: F401


def load_colours() -> None:
    """Load what tells colours apart, for tests that show a chart."""
    import coloraide  # noqa: F401
