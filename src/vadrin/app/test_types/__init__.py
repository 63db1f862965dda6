"""The types of test in the tester's words: one file or folder each, named as in the core.

Nothing outside asks for one of them by its module: `vadrin.app.descriptions` finds it by its key.
"""
