"""Run the program: ``python -m vadrin``."""

import sys

from vadrin.commands import main

if __name__ == "__main__":
    sys.exit(main())
