"""``python -m toreuma``."""

from toreuma.cli import main

main()
