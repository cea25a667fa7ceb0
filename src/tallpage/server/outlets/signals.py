"""What others may want to hear of outputs."""

from django.dispatch import Signal

file_saved = Signal()
"""A person saves a file of a row: ``output``, and the ``name`` that it is saved by."""
