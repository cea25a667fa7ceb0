"""How well our fidelity agrees with ssimulacra2, over photographs and screens in many encodings.

Prints Spearman's rank correlation over all samples and per group, and a table from our scores to
its scores, from which the mapping constants in ``core/fit/judging/_fidelity.py`` were fitted.
"""

from __future__ import annotations

import json
import sys
import tempfile
from pathlib import Path

import numpy as np
from PIL import Image, ImageDraw, ImageFont
from scipy.stats import spearmanr
from ssimulacra2 import compute_ssimulacra2

from tallpage.core.fit import Choice, fit_with
from tallpage.core.picture import Raster, decode, encode_png
from tallpage.demo.photographs import Subject, Weather, paint

WIDTH_PX, HEIGHT_PX = 480, 360
QUALITIES = (12, 25, 40, 55, 70, 82, 90, 95)


def screen_picture(seed: int) -> Image.Image:
    """A page of text, boxes and one photograph, as a screen shows it."""
    rng = np.random.default_rng(seed)
    picture = Image.new("RGB", (WIDTH_PX, HEIGHT_PX), (250, 248, 244))
    pen = ImageDraw.Draw(picture)
    for row in range(4, HEIGHT_PX, 17 + seed % 5):
        size = int(rng.integers(10, 17))
        words = " ".join(
            "".join(chr(97 + int(c)) for c in rng.integers(0, 26, rng.integers(2, 9))) for _ in range(12)
        )
        ink = [(29, 43, 42), (31, 92, 77), (169, 59, 43), (71, 96, 107)][int(rng.integers(4))]
        pen.text((8, row), words, fill=ink, font=ImageFont.load_default(size))
    pen.rectangle([280, 40, 460, 110], fill=(31, 92, 77), outline=(0, 0, 0))
    pen.text((300, 60), "Book a crossing", fill=(255, 255, 255), font=ImageFont.load_default(16))
    if seed % 2:
        photo = paint(f"bench-{seed}", subject="ferry", weather="clear", width_px=220, height_px=150)
        picture.paste(photo, (240, 180))
    return picture


def pictures() -> dict[str, Image.Image]:
    """Name -> picture, half photographs and half screens."""
    shown: tuple[tuple[Subject, Weather], ...] = (
        ("ferry", "clear"),
        ("village", "golden"),
        ("beach", "dusk"),
        ("lighthouse", "rain"),
    )
    photos = {
        f"photo-{subject}": paint(
            f"bench-{subject}", subject=subject, weather=weather, width_px=WIDTH_PX, height_px=HEIGHT_PX
        )
        for subject, weather in shown
    }
    return photos | {f"screen-{seed}": screen_picture(seed) for seed in range(4)}


def choices() -> list[Choice]:
    """Every format at several qualities."""
    rows = [Choice(format="jpeg", quality=quality) for quality in QUALITIES]
    rows += [Choice(format="jpeg", quality=quality, subsampled=True) for quality in QUALITIES]
    rows += [Choice(format="webp", quality=quality) for quality in QUALITIES]
    rows += [Choice(format="avif", quality=quality) for quality in QUALITIES[:6]]
    return rows + [Choice(format="png", colours=colours) for colours in (16, 256)]


def main() -> None:
    """Measure, print, and keep the samples when a file is named."""
    samples = []
    with tempfile.TemporaryDirectory() as scratch:
        for name, picture in pictures().items():
            source = Path(scratch) / "source.png"
            picture.save(source)
            raster = Raster.from_rows(np.asarray(picture))
            for choice in choices():
                made = fit_with(raster, choice)
                shown = Path(scratch) / "shown.png"
                shown.write_bytes(encode_png(decode(made.data).held()))
                score = compute_ssimulacra2(str(source), str(shown))
                samples.append((name, choice.format, choice.quality or choice.colours, made.fidelity, score))
    ours, judged = np.array([row[3] for row in samples]), np.array([row[4] for row in samples])
    print(f"samples {len(samples)}  Spearman {spearmanr(ours, judged).statistic:.3f}")
    for group in ("photo", "screen"):
        mask = np.array([row[0].startswith(group) for row in samples])
        print(f"  {group}: {spearmanr(ours[mask], judged[mask]).statistic:.3f}")
    print(f"mean absolute difference {np.mean(np.abs(ours - np.clip(judged, 0, 100))):.1f}")
    if len(sys.argv) > 1:
        Path(sys.argv[1]).write_text(json.dumps(samples))


if __name__ == "__main__":
    main()
