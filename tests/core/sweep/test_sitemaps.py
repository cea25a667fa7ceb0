"""Sitemaps and pages with links, over a web of a dictionary."""

import gzip

import pytest

from tallpage.core.capture import FilteringProxy, PrivateHosts
from tallpage.core.errors import AddressError, ListError, PageUnreachable
from tallpage.core.sweep import Fetched, Robots, fetcher, links_of_page, read_sitemap, sitemap_like

SPACE = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"'
ROOT = "https://skerrin.example"


class Web:
    """Answers by path; whatever is not there does not answer."""

    def __init__(self, **answers: bytes | str) -> None:
        self.answers = {f"{ROOT}/{name.replace('_', '.')}": body for name, body in answers.items()}
        self.asked: list[str] = []

    def fetch(self, address: str) -> Fetched:
        self.asked.append(address)
        if address not in self.answers:
            raise PageUnreachable(f"{address} does not answer.")
        body = self.answers[address]
        data = body.encode() if isinstance(body, str) else body
        media_type = "text/html" if data[:1] == b"<" and b"<html" in data else "text/plain"
        return Fetched(address=address, status=200, media_type=media_type, data=data)


def _urls(*rows: str) -> str:
    return f"<?xml version='1.0'?><urlset {SPACE}>{''.join(rows)}</urlset>"


def _index(*names: str) -> str:
    rows = "".join(f"<sitemap><loc>{name}</loc></sitemap>" for name in names)
    return f"<sitemapindex {SPACE}>{rows}</sitemapindex>"


def test_pages_and_dates_are_read_and_pictures_ignored() -> None:
    web = Web(
        sitemap_xml=_urls(
            "<url><loc> https://skerrin.example/a </loc><lastmod>2026-11-01T08:00:00Z</lastmod>"
            '<image:image xmlns:image="urn:pictures"><image:loc>https://skerrin.example/a.jpg</image:loc>'
            "</image:image></url>",
            "<url><loc>https://skerrin.example/b</loc></url>",
        )
    )
    found = read_sitemap(f"{ROOT}/sitemap.xml", web.fetch).found
    assert [(row.text, row.modified) for row in found] == [
        ("https://skerrin.example/a", "2026-11-01"),
        ("https://skerrin.example/b", ""),
    ]


def test_an_index_is_followed_through_gzip_each_file_once_and_round_no_circle() -> None:
    web = Web(
        sitemap_xml=_index("/pages.xml.gz", "/sitemap.xml", "/gone.xml", "/pages.xml.gz", "javascript:1"),
        pages_xml_gz=gzip.compress(_urls("<url><loc>https://skerrin.example/a</loc></url>").encode()),
    )
    sitemap = read_sitemap(f"{ROOT}/sitemap.xml", web.fetch)
    assert [row.text for row in sitemap.found] == ["https://skerrin.example/a"]
    assert web.asked.count(f"{ROOT}/pages.xml.gz") == web.asked.count(f"{ROOT}/sitemap.xml") == 1
    assert sitemap.problems == (f"{ROOT}/gone.xml does not answer.",)


def test_an_index_that_never_ends_is_left_after_four_levels() -> None:
    asked: list[str] = []

    def fetch(address: str) -> Fetched:
        asked.append(address)
        further = _index(f"{address}x").encode()
        return Fetched(address=address, status=200, media_type="text/xml", data=further)

    sitemap = read_sitemap(f"{ROOT}/sitemap.xml", fetch)
    assert len(asked) == 4
    assert len(sitemap.problems) == 1


BOMB = '<!DOCTYPE a [<!ENTITY b "bbbbbbbb"><!ENTITY c "&b;&b;&b;&b;">]>'


@pytest.mark.parametrize(
    ("body", "words"),
    [
        ("<!DOCTYPE html><html><body>Hello", "is a page, not a sitemap"),
        (f"{BOMB}<urlset {SPACE}><url><loc>&c;</loc></url></urlset>", "not safe"),
        (f"<urlset {SPACE}><url><loc>https://skerrin.example/a</loc>", "not well-formed"),
        ("<rss><channel/></rss>", "not well-formed"),
        (gzip.compress(bytes(60_000_000)), "unpacks to over 52 MB"),
        (gzip.compress(b"<urlset/>" * 50)[:30], "not a sitemap"),
        ("just words", "not a sitemap"),
        ("", "not a sitemap"),
    ],
    ids=["page", "entities", "cut off", "another kind", "gzip bomb", "cut off gzip", "words", "empty"],
)
def test_what_is_no_sitemap_is_refused_in_words(body: bytes | str, words: str) -> None:
    with pytest.raises(ListError, match=words):
        read_sitemap(f"{ROOT}/sitemap.xml", Web(sitemap_xml=body).fetch)


def test_a_text_of_addresses_is_a_sitemap_too() -> None:
    web = Web(sitemap_txt="https://skerrin.example/a\nhttps://skerrin.example/b\n")
    assert len(read_sitemap(f"{ROOT}/sitemap.txt", web.fetch).found) == 2


def test_links_are_taken_from_the_main_part_of_a_page() -> None:
    page = (
        "<html><body><nav><a href='/home'>Home</a></nav><p><a href='b?x=1'>Part <i>b</i></a>"
        "<a href='/c.pdf'>Paper</a><a href='mailto:a@b.example'>Mail</a></p>"
        "<footer><a href='/f'>F</a></footer>"
    )
    web = Web(a=page)
    found = links_of_page(web.fetch(f"{ROOT}/a"))
    assert [(row.text, row.title) for row in found] == [("https://skerrin.example/b?x=1", "Part b")]
    with pytest.raises(ListError, match="not a page"):
        links_of_page(Fetched(address=f"{ROOT}/a", status=404, media_type="text/html", data=b""))


def test_robots_are_asked_once_a_host() -> None:
    web = Web(robots_txt="User-agent: *\nDisallow: /crew\n")
    robots = Robots(web.fetch)
    assert robots.allows(f"{ROOT}/news")
    assert not robots.allows(f"{ROOT}/crew/room")
    assert web.asked == [f"{ROOT}/robots.txt"]
    assert robots.problems == ()


@pytest.mark.parametrize(
    ("status", "allowed"), [(404, True), (403, True), (410, True), (500, False), (503, False), (None, False)]
)
def test_where_there_are_no_robots_all_is_welcome_and_where_that_cannot_be_known_nothing_is(
    status: int | None, allowed: bool
) -> None:
    def fetch(address: str) -> Fetched:
        if status is None:
            raise PageUnreachable(f"{address} does not answer.")
        return Fetched(address=address, status=status, media_type="text/plain", data=b"")

    robots = Robots(fetch)
    assert robots.allows(f"{ROOT}/news") == allowed
    assert len(robots.problems) == (0 if allowed else 1)
    assert robots.text(ROOT) == ""


def test_a_private_site_behind_the_guard_is_called_private(site: str) -> None:
    with FilteringProxy() as filtering_proxy:
        with pytest.raises(AddressError) as refused:
            fetcher(filtering_proxy=filtering_proxy)(f"{site}/sitemap.xml")
        assert refused.value.code == "address_private"
    with FilteringProxy(PrivateHosts.parse("127.0.0.1").allows) as filtering_proxy:
        assert fetcher(filtering_proxy=filtering_proxy)(f"{site}/sitemap.xml").status == 200


def test_a_site_that_refuses_the_connection_behind_the_filter_does_not_answer(closed_port: int) -> None:
    with (
        FilteringProxy(PrivateHosts.parse("127.0.0.1").allows) as filtering_proxy,
        pytest.raises(PageUnreachable),
    ):
        fetcher(filtering_proxy=filtering_proxy)(f"http://127.0.0.1:{closed_port}/sitemap.xml")


def test_an_index_is_left_when_it_takes_too_long() -> None:
    web = Web(
        sitemap_xml=_index("/a.xml", "/b.xml"),
        a_xml=_urls("<url><loc>https://skerrin.example/a</loc></url>"),
    )
    read = read_sitemap(f"{ROOT}/sitemap.xml", web.fetch, timeout_s=-1)
    assert (read.files, read.found) == (1, ())
    assert "2 more files were not read" in read.problems[0]


def test_an_answer_that_drips_is_given_up(site: str) -> None:
    with pytest.raises(PageUnreachable, match="too slowly"):
        fetcher(timeout_s=1)(f"{site}/never")
    answer = fetcher()(f"{site}/sitemap.xml")
    assert (answer.status, answer.data[:5]) == (200, b"<?xml")


def test_addresses_of_sitemaps_are_told_from_those_of_pages() -> None:
    assert sitemap_like(f"{ROOT}/sitemap_index.xml")
    assert sitemap_like(f"{ROOT}/feeds/all.xml.gz")
    assert not sitemap_like(f"{ROOT}/news/sitemap/")


def test_of_links_that_are_never_closed_each_keeps_its_own_words() -> None:
    data = "<main>" + "".join(f'<a href="/pier/{row}">Pier {row} ' for row in range(2_000))
    found = links_of_page(
        Fetched(address=f"{ROOT}/a", status=200, media_type="text/html", data=data.encode())
    )
    assert [row.title for row in found] == [f"Pier {row}" for row in range(2_000)]
    assert found[-1].text == f"{ROOT}/pier/1999"
