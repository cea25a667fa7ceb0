import pytest
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.capture import PrivateHosts, normalise_address, require_public
from tallpage.core.errors import AddressError, PageUnreachable


@pytest.mark.parametrize(
    ("typed", "address"),
    [
        ("skerrin.example", "https://skerrin.example/"),
        ("  skerrin.example/fleet?ship=2#deck ", "https://skerrin.example/fleet?ship=2#deck"),
        ("HTTP://Skerrin.example", "http://Skerrin.example/"),
        ("localhost:8610/islands", "http://localhost:8610/islands"),
        ("skerrin-ferries.localhost:8610", "http://skerrin-ferries.localhost:8610/"),
        ("127.0.0.1:80/x", "http://127.0.0.1:80/x"),
        ("skerrin.example:8443/x", "https://skerrin.example:8443/x"),
        ("http://[::1]:8000/", "http://[::1]:8000/"),
        ("https://пример.example/путь", "https://пример.example/путь"),
    ],
)
def test_what_a_person_pastes_becomes_a_full_address(typed: str, address: str) -> None:
    assert normalise_address(typed) == address


@pytest.mark.parametrize(
    ("typed", "code"),
    [
        ("", "address_empty"),
        ("   ", "address_empty"),
        ("two words.example", "address_malformed"),
        ("http://", "address_malformed"),
        ("http:///path", "address_malformed"),
        ("http://a..example/", "address_malformed"),
        ("http://skerrin.example:0/", "address_malformed"),
        ("http://skerrin.example:99999/", "address_malformed"),
        ("http://[::1/", "address_malformed"),
        ("x" * 5_000, "address_malformed"),
        ("a.example/\x00", "address_malformed"),
        ("file:///etc/passwd", "address_scheme"),
        ("FILE:/etc/passwd", "address_scheme"),
        ("javascript:alert(1)", "address_scheme"),
        ("data:text/html,hello", "address_scheme"),
        ("ftp://skerrin.example/", "address_scheme"),
        ("chrome://version", "address_scheme"),
        ("view-source:http://skerrin.example/", "address_scheme"),
    ],
)
def test_what_is_no_address_is_refused_with_a_hint(typed: str, code: str) -> None:
    with pytest.raises(AddressError) as refused:
        normalise_address(typed)
    assert refused.value.code == code
    assert refused.value.sentence


@given(st.text(max_size=60))
def test_whatever_is_typed_only_http_and_https_come_out(typed: str) -> None:
    try:
        address = normalise_address(typed)
    except AddressError:
        return
    assert address.startswith(("http://", "https://"))
    assert normalise_address(address) == address


NOBODY = PrivateHosts()


@pytest.mark.parametrize(
    "host", ["127.0.0.1:8610", "10.1.2.3", "192.168.0.9", "169.254.169.254", "[::1]", "localhost"]
)
def test_a_private_page_is_refused_where_the_policy_says_so(host: str) -> None:
    with pytest.raises(AddressError) as refused:
        require_public(f"http://{host}/", NOBODY)
    assert refused.value.code == "address_private"


def test_public_and_listed_hosts_may_be_opened() -> None:
    require_public("http://93.184.216.34/", NOBODY)
    listed = PrivateHosts.parse("localhost, 10.1.0.0/16 192.168.0.9")
    for host in ("localhost", "10.1.2.3", "192.168.0.9"):
        require_public(f"http://{host}/", listed)
    for host in ("127.0.0.1", "10.2.0.1", "192.168.0.8"):
        with pytest.raises(AddressError):
            require_public(f"http://{host}/", listed)


def test_an_unknown_host_is_named() -> None:
    with pytest.raises(PageUnreachable, match=r"no-such-host\.invalid"):
        require_public("http://no-such-host.invalid/", NOBODY)
