"""The regions of a mask."""

from __future__ import annotations

import numpy as np
import pyvips
from numpy.typing import NDArray


def label_regions(mask: NDArray[np.bool_]) -> NDArray[np.int32]:
    """A number for each region of px that are alike and touch by a side; shape (rows, columns)."""
    image = pyvips.Image.new_from_array(mask.astype(np.uint8) * 255)
    labels: NDArray[np.int32] = image.labelregions().numpy()
    return labels.reshape(mask.shape)
