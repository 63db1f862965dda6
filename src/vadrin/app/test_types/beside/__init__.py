"""What types of test are laid beside of the rest of the notebook: `ask` in a file each.

These are asked for with every test on the shelf, so none of them loads what answers a test.
"""
