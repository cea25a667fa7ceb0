"""What the browser says of a page that could not be opened, in our words. Pure."""

from __future__ import annotations

import re
from urllib.parse import urlsplit

from tallpage.core.errors import PageError, PageUnreachable, TallPageError

INTERRUPTED = "page_interrupted"
_NET_ERROR = re.compile(r"net::(ERR_[A-Z0-9_]+)")
_UNREACHABLE = {
    "ERR_NAME_NOT_RESOLVED": ("page_host_unknown", "The host {host} is not known."),
    "ERR_CONNECTION_REFUSED": ("page_refused", "{host} refused the connection."),
    "ERR_CONNECTION_RESET": ("page_reset", "{host} broke off the connection."),
    "ERR_EMPTY_RESPONSE": ("page_empty", "{host} closed the connection without an answer."),
    "ERR_ADDRESS_UNREACHABLE": ("page_unreachable", "{host} cannot be reached from here."),
    "ERR_INTERNET_DISCONNECTED": ("page_unreachable", "There is no connection to {host}."),
    "ERR_CONNECTION_TIMED_OUT": ("page_no_answer", "{host} did not answer."),
    "ERR_TUNNEL_CONNECTION_FAILED": ("page_unreachable", "{host} cannot be reached through the proxy."),
}


def page_fault(address: str, message: str) -> TallPageError:
    """The error that a person meets for what the browser said of ``address``."""
    host = urlsplit(address).netloc
    if "interrupted by another navigation" in message:
        return PageUnreachable(f"{host} went to another page before it had answered.", code=INTERRUPTED)
    net_error = _NET_ERROR.search(message)
    if net_error and net_error[1] in _UNREACHABLE:
        code, sentence = _UNREACHABLE[net_error[1]]
        return PageUnreachable(sentence.format(host=host), code=code)
    if net_error and net_error[1].startswith(("ERR_CERT", "ERR_SSL")):
        return PageError(
            f"The certificate of {host} is not valid ({net_error[1]}).",
            hint="Tell the site's owner; a page is not taken over a connection that cannot be trusted.",
            code="page_certificate",
        )
    if net_error and net_error[1] == "ERR_INVALID_AUTH_CREDENTIALS":
        return wants_sign_in(address)
    if "Download is starting" in message or (net_error and net_error[1] == "ERR_ABORTED"):
        return PageError(
            f"{address} is a download, not a page.",
            hint="If it is a picture, drop the file here.",
            code="page_is_file",
        )
    if "crashed" in message.lower():
        return PageError(f"{address} crashed the browser's page.", code="page_crashed")
    if "closed" in message.lower():
        return PageError(f"The browser closed while {address} was taken.", code="browser_closed")
    reason = net_error[1] if net_error else message.splitlines()[0][:160]
    return PageError(f"{address} could not be taken: {reason}.")


def wants_sign_in(address: str) -> PageError:
    """What is said of a page that comes to nobody without a name and a password."""
    return PageError(
        f"{urlsplit(address).hostname} asks for a name and a password.",
        hint="Save a sign-in for it, then take the page again.",
        code="page_wants_sign_in",
    )
