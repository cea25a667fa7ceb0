"""Address + screen -> strips + report.

The one thing that needs a browser. Pixels are written as they are taken, so a tall page is
never held in memory.
"""

from tallpage.core.capture._address import normalise_address, private_address, require_public
from tallpage.core.capture._browser import Browser, find_chromium, print_as_pdf
from tallpage.core.capture._guard import UNREACHABLE_HEADER, Guard, PrivateHosts
from tallpage.core.capture._keeper import BrowserKeeper
from tallpage.core.capture._patience import LEAST_BUSY_S, MOST_BUSY_S, Patience
from tallpage.core.capture._report import PageReport
from tallpage.core.capture._request import Extent, Hanging, PageRequest, PageWidth, Progress, Scheme, Wish
from tallpage.core.capture._screen import PRESETS, Screen
from tallpage.core.capture._sign_in import BasicSignIn, FormSignIn, SignIn, StateSignIn, read_state
from tallpage.core.capture._steps import Step, StepKind
from tallpage.core.capture._take import take_page
from tallpage.core.capture._wholeness import Lacking, Wholeness, Why

__all__ = [
    "LEAST_BUSY_S",
    "MOST_BUSY_S",
    "PRESETS",
    "UNREACHABLE_HEADER",
    "BasicSignIn",
    "Browser",
    "BrowserKeeper",
    "Extent",
    "FormSignIn",
    "Guard",
    "Hanging",
    "Lacking",
    "PageReport",
    "PageRequest",
    "PageWidth",
    "Patience",
    "PrivateHosts",
    "Progress",
    "Scheme",
    "Screen",
    "SignIn",
    "StateSignIn",
    "Step",
    "StepKind",
    "Wholeness",
    "Why",
    "Wish",
    "find_chromium",
    "normalise_address",
    "print_as_pdf",
    "private_address",
    "read_state",
    "require_public",
    "take_page",
]
