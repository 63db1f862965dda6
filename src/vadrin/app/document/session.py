"""What is seen, half done or said and stands in no file: of the program, and of each test."""

from __future__ import annotations


class Session:
    """Values by name, for as long as a notebook is open.

    What belongs to a test is there for that test alone: none of its pages, questions, refusals
    or half-typed words is met in another.
    """

    def __init__(self) -> None:
        self.of_program: dict[str, object] = {}
        self._of_test: dict[int | None, dict[str, object]] = {}

    def of_test(self, test_id: int | None) -> dict[str, object]:
        """The values of a test; of the shelf, where there is none."""
        return self._of_test.setdefault(test_id, {})

    def forget_tests(self) -> None:
        """Let go of what belongs to tests: another notebook has others under the same numbers."""
        self._of_test.clear()
