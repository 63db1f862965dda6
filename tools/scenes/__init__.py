"""The places whose light a finding is looked at by: modelled by code, path-traced.

The program ships the pictures alone. To make them anew, in an environment of its own with
``pip install mitsuba mitsuba-oidn scikit-image pillow scipy`` and LLVM 19's shared library
named by ``DRJIT_LIBLLVM_PATH``: ``python -m tools.scenes.render shed --samples 512``.
"""
