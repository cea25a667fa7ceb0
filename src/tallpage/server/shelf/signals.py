"""What others may want to hear of the shelf."""

from django.dispatch import Signal

page_ordered = Signal()
"""A person has a page taken: the ``capture``, and the ``person``."""
