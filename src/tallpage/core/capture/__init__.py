"""Address + screen -> strips + report.

The one thing that needs a browser. Pixels are written as they are taken, so a tall page is
never held in memory.
"""

from tallpage.core.capture._address import normalise_address, private_address, require_public
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import (
    Extent,
    FixedOverlays,
    PageRequest,
    PageWidth,
    Progress,
    Scheme,
    StopMode,
)
from tallpage.core.capture._screen import PRESETS, Screen
from tallpage.core.capture._take import take_page
from tallpage.core.capture._timeouts import LEAST_BUSY_S, MOST_BUSY_S, Timeouts
from tallpage.core.capture.browser._filtering_proxy import UNREACHABLE_HEADER, FilteringProxy, PrivateHosts
from tallpage.core.capture.browser._pool import BrowserPool
from tallpage.core.capture.browser._starting import Browser, find_chromium, print_as_pdf
from tallpage.core.capture.opening._sign_in import BasicSignIn, FormSignIn, SignIn, StateSignIn, read_state
from tallpage.core.capture.opening._steps import Step, StepKind
from tallpage.core.capture.words._wholeness import Lacking, Wholeness, Why

__all__ = [
    "LEAST_BUSY_S",
    "MOST_BUSY_S",
    "PRESETS",
    "UNREACHABLE_HEADER",
    "BasicSignIn",
    "Browser",
    "BrowserPool",
    "Extent",
    "FilteringProxy",
    "FixedOverlays",
    "FormSignIn",
    "Lacking",
    "PageReport",
    "PageRequest",
    "PageWidth",
    "PrivateHosts",
    "Progress",
    "Scheme",
    "Screen",
    "SignIn",
    "StateSignIn",
    "Step",
    "StepKind",
    "StopMode",
    "Timeouts",
    "Wholeness",
    "Why",
    "find_chromium",
    "normalise_address",
    "print_as_pdf",
    "private_address",
    "read_state",
    "require_public",
    "take_page",
]
