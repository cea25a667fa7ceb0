"""``python -m tallpage`` is the command ``tallpage``."""

from tallpage.cli import main

main()
