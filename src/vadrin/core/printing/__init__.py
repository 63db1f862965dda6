"""The print room: test strips, the time for maximum black, the paper's own curve, grades."""
