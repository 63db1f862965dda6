"""The open notebook, what is selected in it, and the test on the bench with its answer."""
