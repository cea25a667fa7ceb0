"""Pictures of kinds on which formats and settings are told apart with difficulty, drawn here."""

from __future__ import annotations

import random
from collections.abc import Iterator

import numpy as np
from PIL import Image, ImageDraw, ImageFilter, ImageFont

from bench.pictures import Job, photograph

_WORDS = [
    "ferry",
    "pier",
    "harbour",
    "timetable",
    "sailing",
    "weather",
    "deck",
    "crew",
    "ticket",
    "island",
    "morning",
    "crossing",
    "notice",
]
_CODE_COLOURS = ("#9cdcd0", "#e8a87c", "#c3a6ff", "#f2d16b", "#d7dde4", "#7fb069")


def jobs() -> Iterator[Job]:
    """One or two pictures of each kind, at an easy limit and a tight one."""
    tall = page(400, 18_500, photographs=True, seed=1)
    yield Job("tall, 18,500 px", tall, 400, 260_000)
    yield Job("tall, 17,000 px, tight", tall.crop((0, 0, 400, 17_000)), 400, 110_000)
    yield Job("wide shades", shades(2_000, 500), 2_000, 14_000)
    yield Job("wide shades, tight", shades(2_000, 500), 2_000, 7_000)
    with_photographs = page(900, 1_500, photographs=True, seed=2)
    yield Job("photographs on white", with_photographs, 900, 90_000)
    yield Job("photographs on white, tight", with_photographs, 900, 45_000)
    yield Job("dark code", code(1_000, 1_200, seed=3), 1_000, 60_000)
    yield Job("dark code, tight", code(1_000, 1_200, seed=3), 1_000, 32_000)
    yield Job("interface, small", interface(360, 240, seed=4), 360, 5_000)
    yield Job("interface, small, tight", interface(360, 240, seed=4), 360, 3_000)
    yield Job("logo, see-through", logo(240, 240, seed=5), 240, 3_500)
    yield Job("logo, see-through, tight", logo(240, 240, seed=5), 240, 2_200)
    yield Job("photograph, tight", photograph("photo cat"), 400, 6_500)
    yield Job("photograph, tighter", photograph("photo workshop"), 480, 6_500)


def _font(size_px: int) -> ImageFont.FreeTypeFont | ImageFont.ImageFont:
    return ImageFont.load_default(size_px)


def page(width_px: int, height_px: int, *, photographs: bool, seed: int) -> Image.Image:
    """Letters on white, with photographs here and there."""
    chance = random.Random(seed)
    picture = Image.new("RGB", (width_px, height_px), "white")
    pen = ImageDraw.Draw(picture)
    photo = photograph("photo temple")
    top_px = 20
    while top_px < height_px:
        if photographs and chance.random() < 0.12:
            wide_px = int(width_px * chance.uniform(0.4, 0.9))
            part = photo.resize((wide_px, wide_px * photo.height // photo.width))
            if chance.random() < 0.5:
                part = part.transpose(Image.Transpose.FLIP_LEFT_RIGHT)
            picture.paste(part, (20, top_px))
            top_px += part.height + 24
            continue
        size_px = chance.choice((13, 13, 13, 14, 22))
        line = " ".join(chance.choices(_WORDS, k=width_px // (size_px * 4)))
        pen.text(
            (20, top_px), line, fill=chance.choice(("#222222", "#222222", "#1d5f8a")), font=_font(size_px)
        )
        top_px += int(size_px * 1.6)
    return picture


def shades(width_px: int, height_px: int) -> Image.Image:
    """Soft shades that run into each other, as behind a headline."""
    x, y = np.meshgrid(np.linspace(0, 1, width_px), np.linspace(0, 1, height_px))
    planes = [
        128 + 100 * np.sin(3.1 * x + 1.7 * y),
        110 + 90 * np.sin(2.2 * x - 2.9 * y + 1),
        140 + 80 * np.cos(4.0 * x * y + 0.5),
    ]
    return Image.fromarray(np.clip(np.stack(planes, axis=-1), 0, 255).astype(np.uint8))


def code(width_px: int, height_px: int, *, seed: int) -> Image.Image:
    """Coloured words on a dark ground, set in as lines of a programme are."""
    chance = random.Random(seed)
    picture = Image.new("RGB", (width_px, height_px), "#1b2027")
    pen = ImageDraw.Draw(picture)
    for top_px in range(12, height_px, 19):
        left_px = 16 + 24 * chance.randrange(5)
        for _ in range(chance.randrange(1, 9)):
            word = chance.choice(_WORDS) + chance.choice(("", "()", ":", " =", ".of", ","))
            pen.text((left_px, top_px), word, fill=chance.choice(_CODE_COLOURS), font=_font(13))
            left_px += 9 + int(pen.textlength(word, font=_font(13)))
    return picture


def interface(width_px: int, height_px: int, *, seed: int) -> Image.Image:
    """Fields, buttons and marks of an application."""
    chance = random.Random(seed)
    picture = Image.new("RGB", (width_px, height_px), "#f3f4f1")
    pen = ImageDraw.Draw(picture)
    for row in range(4):
        top_px = 14 + row * 56
        pen.text((16, top_px), chance.choice(_WORDS).capitalize(), fill="#30363c", font=_font(12))
        pen.rounded_rectangle((16, top_px + 17, 200, top_px + 41), 5, fill="white", outline="#a9b0b5")
        pen.text((24, top_px + 21), " ".join(chance.choices(_WORDS, k=2)), fill="#111111", font=_font(13))
        colour = chance.choice(("#2f6f4f", "#8a3b2c", "#2b5a86"))
        pen.rounded_rectangle((220, top_px + 15, 330, top_px + 43), 8, fill=colour)
        pen.text((238, top_px + 21), chance.choice(_WORDS).capitalize(), fill="white", font=_font(14))
    return picture


def logo(width_px: int, height_px: int, *, seed: int) -> Image.Image:
    """A mark of few colours with soft edges, around which nothing is."""
    chance = random.Random(seed)
    large = Image.new("RGBA", (width_px * 4, height_px * 4), (0, 0, 0, 0))
    pen = ImageDraw.Draw(large)
    side_px = width_px * 4
    for share, colour in ((0.48, "#1f4e6b"), (0.40, "#f4efe2"), (0.30, "#d9772b")):
        radius_px = side_px * share
        pen.ellipse(
            [
                side_px / 2 - radius_px,
                side_px / 2 - radius_px,
                side_px / 2 + radius_px,
                side_px / 2 + radius_px,
            ],
            fill=colour,
        )
    for number in range(5):
        left_px = side_px * (0.25 + 0.1 * number)
        pen.polygon(
            [
                (left_px, side_px * 0.65),
                (left_px + side_px * 0.08, side_px * chance.uniform(0.3, 0.5)),
                (left_px + side_px * 0.12, side_px * 0.66),
            ],
            fill="#1f4e6b",
        )
    return large.filter(ImageFilter.GaussianBlur(1.5)).resize((width_px, height_px), Image.Resampling.LANCZOS)
