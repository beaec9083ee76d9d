"""Runs the command line: ``python -m riktig.cli``."""

import sys

from riktig.cli import main

if __name__ == "__main__":
    sys.exit(main())
