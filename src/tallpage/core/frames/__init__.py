"""What of a page a cut shows: a box, minus the bands that are folded away."""

from tallpage.core.frames._frame import MOST_FOLDS, Fold, Frame

__all__ = ["MOST_FOLDS", "Fold", "Frame"]
