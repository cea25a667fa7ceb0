"""Comparing takes: rows that moved, pixels that differ, words that came and went."""

from pathlib import Path

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tallpage.core.changes import NEARLY_BLANK, Change, Side, aligned, compare, fingerprint_of, words_changed
from tallpage.core.geometry import Box
from tallpage.core.page_map import Block, PageMap
from tests.pictures import Pixels, noise, strips_of, text_page

ROWS = st.lists(st.integers(0, 6), min_size=1, max_size=60).map(lambda rows: np.array(rows, dtype=np.uint64))


@given(ROWS, ROWS)
def test_runs_are_equal_rows_in_the_order_of_both(before: np.ndarray, now: np.ndarray) -> None:
    least_before = least_now = 0
    for run in aligned(before, now):
        assert run.rows > 0
        assert run.before_px >= least_before
        assert run.now_px >= least_now
        least_before, least_now = run.before_px + run.rows, run.now_px + run.rows
        assert (before[run.before_px : least_before] == now[run.now_px : least_now]).all()


@given(ROWS)
def test_a_picture_is_all_one_run_with_itself(rows: np.ndarray) -> None:
    assert [run.rows for run in aligned(rows, rows)] == [len(rows)]


@given(ROWS, ROWS)
def test_what_two_pictures_share_above_and_below_is_always_found(top: np.ndarray, foot: np.ndarray) -> None:
    before, now = np.concatenate([top, [91], foot]), np.concatenate([top, [92, 93], foot])
    runs = aligned(before, now)
    assert sum(run.rows for run in runs) == len(top) + len(foot)


def _side(pixels: Pixels, folder: Path) -> Side:
    manifest = strips_of(pixels, folder)
    return Side(folder=folder, manifest=manifest, fingerprint=fingerprint_of(folder, manifest))


def _compared(before: Pixels, now: Pixels, tmp_path: Path) -> Change:
    return compare(_side(before, tmp_path / "before"), _side(now, tmp_path / "now"))


def test_a_page_that_did_not_change_has_no_stretch(tmp_path: Path) -> None:
    page = noise(60, 400)
    assert _compared(page, page, tmp_path) == Change(share=0, stretches=())


def test_a_changed_patch_is_outlined_to_the_pixel(tmp_path: Path) -> None:
    page = text_page(160, 400)
    changed = page.copy()
    changed[100:110, 20:50] = (220, 20, 120)
    change = _compared(page, changed, tmp_path)
    assert change.share == 10 * 30 / (160 * 400)
    box = Box(x_px=20, y_px=100, width_px=30, height_px=10)
    assert [(stretch.before, stretch.now) for stretch in change.stretches] == [(box, box)]


def test_what_only_settled_on_another_row_has_not_changed(tmp_path: Path) -> None:
    page = text_page(160, 400).copy()
    page[203] = 60  # a line
    settled = page.copy()
    settled[203], settled[204] = 250, 60  # a row lower
    settled[300:340] = np.clip(settled[300:340].astype(int) - 20, 0, 255)  # a shade darker
    assert _compared(page, settled, tmp_path).stretches == ()


def test_one_letter_that_changed_is_found(tmp_path: Path) -> None:
    page = text_page(160, 400)
    changed = page.copy()
    changed[206:219, 40:47] = page[226:239, 60:67]
    stretches = _compared(page, changed, tmp_path).stretches
    assert len(stretches) == 1
    assert stretches[0].now is not None
    assert 40 <= stretches[0].now.x_px < stretches[0].now.right_px <= 47


def test_what_was_put_in_moves_the_rest_without_changing_it(tmp_path: Path) -> None:
    page = noise(60, 4_500)  # over several strips
    longer = np.concatenate([page[:200], 255 - page[1_000:1_090], page[200:]])
    change = _compared(page, longer, tmp_path)
    assert [stretch.before for stretch in change.stretches] == [None]
    assert change.stretches[0].now == Box(x_px=0, y_px=200, width_px=60, height_px=90)
    assert round(change.share, 4) == round(90 / 4_590, 4)


def test_neighbouring_changes_are_one_stretch_and_far_ones_are_two(tmp_path: Path) -> None:
    page = noise(60, 600)
    changed = page.copy()
    for top_px in (100, 115, 400):
        changed[top_px : top_px + 5, 10:20] ^= 0x80
    tops = [stretch.now.y_px for stretch in _compared(page, changed, tmp_path).stretches if stretch.now]
    assert tops == [100, 400]


def test_of_another_width_all_has_changed(tmp_path: Path) -> None:
    change = _compared(noise(60, 100), noise(50, 100), tmp_path)
    assert (change.share, len(change.stretches)) == (1, 1)


def test_nearly_blank_pages_are_told_from_others(tmp_path: Path) -> None:
    blank: Pixels = np.full((800, 600, 3), 255, dtype=np.uint8)
    spinner, text = blank.copy(), blank.copy()
    spinner[380:420, 280:320] = 90
    text[::20, 40:560] = 30
    shares = [
        _side(pixels, tmp_path / str(number)).fingerprint.commonest_share
        for number, pixels in enumerate((blank, spinner, text))
    ]
    assert shares[0] == 1
    assert shares[1] >= NEARLY_BLANK > shares[2]


def test_words_that_came_and_went_are_told() -> None:
    def said(*passages: str) -> PageMap:
        box = Box(x_px=0, y_px=0, width_px=10, height_px=10)
        return PageMap(
            blocks=tuple(
                Block(role="paragraph", level=None, box=box, text=text, link="", alt="") for text in passages
            )
        )

    added, removed = words_changed(said("Sails at 8", "Storm"), said("Sails at 9", "Storm", "Fog"))
    assert (added, removed) == (["Sails at 9", "Fog"], ["Sails at 8"])
