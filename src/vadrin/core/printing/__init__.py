"""The print room: test strips, the time for full black, the paper's own curve, grades."""
