import pytest

from tallpage.core.capture.browser._faults import page_fault

ADDRESS = "https://skerrin.example/fleet"


@pytest.mark.parametrize(
    ("message", "code"),
    [
        ("Page.goto: net::ERR_NAME_NOT_RESOLVED at https://skerrin.example/", "page_host_unknown"),
        ("Page.goto: net::ERR_CONNECTION_REFUSED at …", "page_refused"),
        ("Page.goto: net::ERR_CONNECTION_RESET at …", "page_reset"),
        ("Page.goto: net::ERR_EMPTY_RESPONSE at …", "page_empty"),
        ("Page.goto: net::ERR_CERT_DATE_INVALID at …", "page_certificate"),
        ("Page.goto: net::ERR_SSL_PROTOCOL_ERROR at …", "page_certificate"),
        (
            'Page.goto: Navigation to "https://skerrin.example/" is interrupted by another navigation to '
            '"chrome-error://chromewebdata/"',
            "page_interrupted",
        ),
        ("Page.goto: Download is starting", "page_is_file"),
        ("Page.evaluate: Target crashed", "page_crashed"),
        ("Page.evaluate: Target page, context or browser has been closed", "browser_closed"),
        ("Page.goto: net::ERR_SOMETHING_NEW at …", "page_failed"),
        ("Something else entirely", "page_failed"),
    ],
)
def test_each_fault_has_a_message_of_its_own_that_names_the_page_or_host(message: str, code: str) -> None:
    fault = page_fault(ADDRESS, message)
    assert fault.code == code
    assert "skerrin.example" in fault.sentence
    assert fault.hint
