"""A page that a person uses, and takes as it then stands."""

from tallpage.core.capture.live._events import (
    Choices,
    DialogClosed,
    DialogOpened,
    Ended,
    Event,
    Failed,
    Focused,
    Frame,
    NotTaken,
    Place,
    Pointed,
    Recorded,
    Said,
    Stuck,
    Taken,
    Taking,
)
from tallpage.core.capture.live._input import Input, KeyInput, PointerInput, TextInput, TouchInput
from tallpage.core.capture.live._page import LivePage
from tallpage.core.capture.live._recording import Recording
from tallpage.core.capture.live._taking import LiveExtent, TakeOrder

__all__ = [
    "Choices",
    "DialogClosed",
    "DialogOpened",
    "Ended",
    "Event",
    "Failed",
    "Focused",
    "Frame",
    "Input",
    "KeyInput",
    "LiveExtent",
    "LivePage",
    "NotTaken",
    "Place",
    "Pointed",
    "PointerInput",
    "Recorded",
    "Recording",
    "Said",
    "Stuck",
    "TakeOrder",
    "Taken",
    "Taking",
    "TextInput",
    "TouchInput",
]
