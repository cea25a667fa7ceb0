"""Photographs of the made-up islands, painted by code: sky, weather, land, sea, boats.

Every picture follows from its seed, so that two runs show the same. Distances are shares of the
picture's height or width unless the name says px.
"""

from __future__ import annotations

import zlib
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter

Weather = Literal["clear", "golden", "overcast", "rain", "dusk", "fog"]
Subject = Literal["ferry", "island", "harbour", "lighthouse", "beach", "village"]
Colour = tuple[int, ...]
Field = NDArray[np.float64]


@dataclass(frozen=True, slots=True, kw_only=True)
class Palette:
    """Colours of one weather."""

    zenith: Colour
    horizon: Colour
    cloud: Colour
    cloud_cover: float
    sea_far: Colour
    sea_near: Colour
    land: Colour
    haze: float


_PALETTES: dict[Weather, Palette] = {
    "clear": Palette(
        zenith=(62, 122, 184), horizon=(196, 220, 232), cloud=(250, 250, 250), cloud_cover=0.42,
        sea_far=(98, 148, 172), sea_near=(24, 78, 104), land=(74, 98, 62), haze=0.45,
    ),
    "golden": Palette(
        zenith=(92, 120, 160), horizon=(250, 206, 140), cloud=(255, 226, 186), cloud_cover=0.5,
        sea_far=(214, 170, 122), sea_near=(44, 66, 84), land=(84, 72, 50), haze=0.5,
    ),
    "overcast": Palette(
        zenith=(136, 148, 158), horizon=(206, 212, 214), cloud=(232, 234, 234), cloud_cover=0.85,
        sea_far=(136, 152, 158), sea_near=(54, 80, 86), land=(78, 88, 70), haze=0.55,
    ),
    "rain": Palette(
        zenith=(92, 104, 116), horizon=(164, 174, 178), cloud=(128, 138, 146), cloud_cover=0.95,
        sea_far=(108, 124, 130), sea_near=(42, 62, 68), land=(64, 74, 64), haze=0.7,
    ),
    "dusk": Palette(
        zenith=(36, 44, 88), horizon=(226, 140, 118), cloud=(150, 98, 120), cloud_cover=0.48,
        sea_far=(160, 108, 112), sea_near=(24, 32, 58), land=(34, 34, 46), haze=0.35,
    ),
    "fog": Palette(
        zenith=(190, 196, 198), horizon=(214, 217, 216), cloud=(222, 224, 224), cloud_cover=0.6,
        sea_far=(190, 197, 198), sea_near=(116, 134, 138), land=(104, 112, 106), haze=0.82,
    ),
}  # fmt: skip


def paint(
    name: str, *, subject: Subject, weather: Weather, width_px: int = 1200, height_px: int = 800
) -> Image.Image:
    """One photograph; ``name`` is its seed."""
    rng = np.random.default_rng(zlib.crc32(name.encode()))
    palette = _PALETTES[weather]
    horizon_px = int(height_px * rng.uniform(0.46, 0.56))
    light = rng.uniform(0.2, 0.8)
    canvas = np.zeros((height_px, width_px, 3))
    canvas[:horizon_px] = _sky(rng, palette, width_px, horizon_px, light)
    _add_ridges(canvas, rng, palette, horizon_px, tall=subject in ("island", "village", "lighthouse"))
    canvas[horizon_px:] = _sea(rng, palette, canvas[:horizon_px], height_px - horizon_px, light)
    picture = Image.fromarray(np.clip(canvas, 0, 255).astype(np.uint8))
    _SUBJECTS[subject](picture, rng, palette, horizon_px)
    if weather == "rain":
        picture = _with_rain(picture, rng)
    return _developed(picture, rng)


def _noise(
    rng: np.random.Generator, width_px: int, height_px: int, *, cells: tuple[int, int], octaves: int
) -> Field:
    """Smooth noise in 0..1 from summed octaves of a stretched random grid."""
    total = np.zeros((height_px, width_px))
    strength = 1.0
    for octave in range(octaves):
        grid = rng.random((max(2, cells[1] * 2**octave), max(2, cells[0] * 2**octave)))
        layer = Image.fromarray((grid * 255).astype(np.uint8)).resize(
            (width_px, height_px), Image.Resampling.BICUBIC
        )
        total += strength * np.asarray(layer, dtype=np.float64) / 255
        strength *= 0.52
    total -= total.min()
    return np.asarray(total / max(total.max(), 1e-9))


def _mixed(first: Colour | Field, second: Colour | Field, share: Field | float) -> Field:
    weight = np.asarray(share)[..., None]
    return np.asarray(np.asarray(first) * (1 - weight) + np.asarray(second) * weight)


def _sky(rng: np.random.Generator, palette: Palette, width_px: int, height_px: int, light: float) -> Field:
    down = np.linspace(0, 1, height_px)[:, None] ** 1.4 * np.ones((1, width_px))
    sky = _mixed(palette.zenith, palette.horizon, down)
    x, y = np.meshgrid(np.linspace(0, 1, width_px), np.linspace(0, 1, height_px))
    glow = np.exp(-(((x - light) / 0.35) ** 2 + ((y - 0.95) / 0.45) ** 2))
    sky = _mixed(sky, (255, 244, 222), glow * 0.45)
    clouds = _noise(rng, width_px, height_px, cells=(3, 5), octaves=6)
    cover = np.clip((clouds - (1 - palette.cloud_cover)) / 0.42, 0, 1)
    shaded = _mixed(
        palette.cloud, tuple(int(c * 0.72) for c in palette.zenith), np.clip(clouds * 0.9 - 0.25, 0, 1) * 0.5
    )
    return _mixed(sky, shaded, cover * (1 - 0.35 * down) * 0.9)


def _add_ridges(
    canvas: Field, rng: np.random.Generator, palette: Palette, horizon_px: int, *, tall: bool
) -> None:
    """Islands behind each other, paler with distance."""
    width_px = canvas.shape[1]
    x = np.linspace(0, 1, width_px)
    for depth in (0.9, 0.62, 0.34):
        middle, spread = rng.uniform(0.1, 0.9), rng.uniform(0.16, 0.34)
        height = (0.11 if tall else 0.06) * (1.25 - depth) * horizon_px * 2
        shape = np.exp(-(((x - middle) / spread) ** 2)) + 0.45 * np.exp(
            -(((x - middle - 0.2) / (spread * 0.5)) ** 2)
        )
        rough = _noise(rng, width_px, 2, cells=(7, 2), octaves=7)[0]
        crest = (height * shape * (0.55 + 0.75 * rough)).astype(int)
        texture = _noise(rng, width_px, horizon_px, cells=(26, 16), octaves=5)
        haze = min(0.94, palette.haze * (0.35 + depth))
        rows = np.arange(horizon_px)[:, None]
        mask = (rows >= horizon_px - crest[None, :]) & (crest[None, :] > 2)
        lit = np.clip(
            0.62 + 0.75 * (texture - 0.5) + 0.35 * np.gradient(crest.astype(float))[None, :] / 3, 0.35, 1.3
        )
        land = _mixed(np.asarray(palette.land) * lit[..., None], palette.horizon, haze)
        canvas[:horizon_px][mask] = land[mask]


def _sea(rng: np.random.Generator, palette: Palette, above: Field, height_px: int, light: float) -> Field:
    width_px = above.shape[1]
    near = np.linspace(0, 1, height_px)
    sea = _mixed(palette.sea_far, palette.sea_near, near[:, None] ** 0.7 * np.ones((1, width_px)))
    mirrored = above[::-1]
    rows = np.minimum((np.arange(height_px) * 0.9).astype(int), mirrored.shape[0] - 1)
    sea = _mixed(sea, mirrored[rows], (0.42 * (1 - near) ** 1.2)[:, None] * np.ones((1, width_px)))
    # Waves look flatter and finer towards the horizon: sample one noise field in perspective.
    field = _noise(rng, width_px, 1024, cells=(22, 90), octaves=4)
    depth = (1 / (near * 0.96 + 0.04) * 40).astype(int) % 1024
    columns = np.arange(width_px)
    waves = np.empty((height_px, width_px))
    for row in range(height_px):
        zoom = 0.35 + 1.3 * (1 - near[row])
        waves[row] = field[depth[row], (columns * zoom + row * 7).astype(int) % width_px]
    fine = _noise(rng, width_px, height_px, cells=(50, 120), octaves=3)
    crest = (waves - 0.5) * (18 + 38 * near[:, None]) + (fine - 0.5) * (14 + 22 * near[:, None])
    sea = sea + crest[..., None]
    x = np.linspace(0, 1, width_px)[None, :]
    path = np.exp(-(((x - light) / (0.05 + 0.16 * near[:, None])) ** 2))
    glitter = path * np.clip((fine + waves) / 2 - 0.46, 0, 1) * 520 * (1 - palette.haze * 0.7)
    return np.asarray(sea + glitter[..., None] * np.array([1.0, 0.95, 0.84]))


def _draw_ferry(picture: Image.Image, x: float, waterline_px: float, length_px: float) -> None:
    """A double-ended car ferry seen from the side, with its reflection."""
    hull, red, white, glass = (28, 58, 74), (156, 58, 44), (240, 238, 230), (58, 84, 98)
    unit = length_px / 100
    pad = int(length_px * 0.6)
    layer = Image.new("RGBA", (int(length_px * 1.2), pad * 2), (0, 0, 0, 0))
    pen = ImageDraw.Draw(layer)

    def at(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        return [(length_px * 0.1 + px * unit, pad - py * unit) for px, py in points]

    pen.polygon(at([(0, 11), (100, 11), (94, 0), (7, 0)]), fill=hull)
    pen.polygon(at([(6.4, 1.6), (94.8, 1.6), (94, 0), (7, 0)]), fill=red)
    pen.polygon(at([(3, 11), (97, 11), (96, 13), (4, 13)]), fill=white)
    pen.polygon(at([(14, 13), (86, 13), (84, 20), (17, 20)]), fill=white)
    pen.polygon(at([(26, 20), (72, 20), (70, 26), (29, 26)]), fill=(228, 226, 218))
    pen.polygon(at([(34, 26), (50, 26), (49, 31), (36, 31)]), fill=white)
    pen.polygon(at([(35.6, 28), (49.6, 28), (49, 30.4), (36.2, 30.4)]), fill=glass)
    pen.polygon(at([(58, 26), (66, 26), (65, 37), (59.5, 37)]), fill=hull)
    pen.polygon(at([(58.8, 31), (65.6, 31), (65.2, 34), (59.2, 34)]), fill=(201, 130, 10))
    pen.line(at([(42, 31), (42, 42)]), fill=(90, 90, 90), width=max(1, int(unit * 0.5)))
    for window in range(19, 82, 5):
        pen.rectangle([*at([(window, 18.2)])[0], *at([(window + 2.6, 15.6)])[0]], fill=glass)
    for window in range(31, 68, 4):
        pen.rectangle([*at([(window, 24.6)])[0], *at([(window + 2, 22.4)])[0]], fill=glass)
    shadow = layer.crop((0, 0, layer.width, pad)).transpose(Image.Transpose.FLIP_TOP_BOTTOM)
    shadow = shadow.resize((shadow.width, max(1, int(shadow.height * 0.7)))).filter(
        ImageFilter.GaussianBlur(unit * 1.2)
    )
    shadow.putalpha(shadow.getchannel("A").point(lambda a: int(a * 0.42)))
    left, top = int(x - layer.width / 2), int(waterline_px - pad)
    picture.paste(shadow, (left, top + pad), shadow)
    ImageDraw.Draw(picture).line(
        [(left + length_px * 0.12, waterline_px + 1), (left + length_px * 1.1, waterline_px + 1)],
        fill=(236, 240, 240), width=max(1, int(unit)),
    )  # fmt: skip
    picture.paste(layer, (left, top), layer)


def _draw_sail(picture: Image.Image, x: float, waterline_px: float, height_px: float) -> None:
    pen = ImageDraw.Draw(picture)

    def at(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
        return [(x + px * height_px, waterline_px - py * height_px) for px, py in points]

    pen.polygon(at([(-0.34, 0.1), (0.38, 0.1), (0.28, 0), (-0.26, 0)]), fill=(120, 54, 44))
    pen.polygon(at([(0, 1), (0, 0.14), (-0.32, 0.14)]), fill=(244, 238, 226))
    pen.polygon(at([(0.02, 0.9), (0.02, 0.14), (0.3, 0.14)]), fill=(226, 216, 198))


def _ferry(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    _draw_sail(picture, width_px * rng.uniform(0.06, 0.9), horizon_px + height_px * 0.03, height_px * 0.06)
    _draw_ferry(
        picture,
        width_px * rng.uniform(0.38, 0.62),
        horizon_px + height_px * rng.uniform(0.14, 0.22),
        width_px * rng.uniform(0.42, 0.58),
    )


def _island(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    _draw_ferry(picture, width_px * rng.uniform(0.2, 0.8), horizon_px + height_px * 0.05, width_px * 0.12)
    _foreground_rocks(picture, rng, palette, 0.14)


def _harbour(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    _houses(picture, rng, horizon_px + height_px * 0.02, int(width_px * 0.55), 11)
    pen = ImageDraw.Draw(picture)
    top = horizon_px + height_px * 0.02
    pen.rectangle([0, top, width_px * 0.62, top + height_px * 0.05], fill=(116, 112, 104))
    for column in range(0, int(width_px * 0.62), max(8, width_px // 40)):
        pen.line([(column, top), (column, top + height_px * 0.05)], fill=(92, 90, 84), width=2)
    _draw_ferry(picture, width_px * 0.72, horizon_px + height_px * 0.17, width_px * 0.4)


def _lighthouse(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    pen = ImageDraw.Draw(picture)
    x, foot, high = width_px * rng.uniform(0.3, 0.7), height_px * 0.94, height_px * 0.68
    broad, narrow = width_px * 0.038, width_px * 0.024
    for part in range(6):
        low, top = part / 6, (part + 1) / 6
        w1, w2 = broad + (narrow - broad) * low, broad + (narrow - broad) * top
        corners = [(x - w1, low), (x + w1, low), (x + w2, top), (x - w2, top)]
        paint = (242, 239, 230) if part % 2 == 0 else (164, 56, 44)
        pen.polygon([(px, foot - high * share) for px, share in corners], fill=paint)
    top = foot - high
    pen.rectangle([x - narrow * 1.5, top - 6, x + narrow * 1.5, top + 4], fill=(44, 44, 48))
    pen.rectangle(
        [x - narrow * 0.9, top - height_px * 0.055, x + narrow * 0.9, top - 6], fill=(250, 228, 150)
    )
    pen.polygon(
        [
            (x - narrow * 1.2, top - height_px * 0.055),
            (x + narrow * 1.2, top - height_px * 0.055),
            (x, top - height_px * 0.095),
        ],
        fill=(44, 44, 48),
    )
    _draw_ferry(picture, width_px * 0.14, horizon_px + height_px * 0.03, width_px * 0.1)
    _foreground_rocks(picture, rng, palette, 0.34)


def _beach(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    canvas = np.asarray(picture, dtype=np.float64).copy()
    x = np.linspace(0, 1, width_px)
    shore = height_px * (0.74 + 0.1 * np.sin(x * 2.6 + rng.uniform(0, 3)) * x)
    rows = np.arange(height_px)[:, None]
    grain = _noise(rng, width_px, height_px, cells=(60, 30), octaves=5)
    sand = np.array([214, 196, 158]) * (0.82 + 0.32 * grain[..., None]) * (1 - palette.haze * 0.2)
    wet = np.clip((rows - shore[None, :]) / (height_px * 0.08), 0, 1)
    sand = _mixed((142, 128, 108), sand, wet)
    mask = rows > shore[None, :]
    canvas[mask] = sand[mask]
    foam = np.abs(rows - shore[None, :] - 6 * grain * 4) < 5
    canvas[foam] = (244, 244, 238)
    picture.paste(Image.fromarray(np.clip(canvas, 0, 255).astype(np.uint8)))
    _draw_sail(picture, width_px * rng.uniform(0.2, 0.8), horizon_px + height_px * 0.06, height_px * 0.1)


def _village(picture: Image.Image, rng: np.random.Generator, palette: Palette, horizon_px: int) -> None:
    width_px, height_px = picture.size
    quay_px = horizon_px + height_px * 0.01
    _houses(picture, rng, quay_px, width_px, 17)
    ImageDraw.Draw(picture).rectangle(
        [0, quay_px, width_px, quay_px + height_px * 0.025], fill=(112, 108, 98)
    )
    _draw_sail(picture, width_px * 0.3, horizon_px + height_px * 0.12, height_px * 0.13)
    _foreground_rocks(picture, rng, palette, 0.12)


def _houses(
    picture: Image.Image, rng: np.random.Generator, foot_px: float, until_px: int, count: int
) -> None:
    pen = ImageDraw.Draw(picture)
    walls = [
        (236, 230, 216),
        (196, 96, 72),
        (220, 188, 120),
        (126, 150, 160),
        (226, 214, 196),
        (92, 116, 108),
    ]
    step = until_px / count
    for index in range(count):
        wide, high = step * rng.uniform(0.7, 1.02), step * rng.uniform(0.55, 1.0)
        left = index * step
        wall = walls[int(rng.integers(len(walls)))]
        pen.rectangle([left, foot_px - high, left + wide, foot_px], fill=wall)
        pen.polygon(
            [
                (left - 2, foot_px - high),
                (left + wide + 2, foot_px - high),
                (left + wide / 2, foot_px - high * 1.5),
            ],
            fill=(72, 70, 76),
        )
        size = max(2.0, wide * 0.14)
        for column in (0.2, 0.62):
            for row in (0.25, 0.62):
                pen.rectangle(
                    [
                        left + wide * column,
                        foot_px - high * (1 - row),
                        left + wide * column + size,
                        foot_px - high * (1 - row) + size * 1.3,
                    ],
                    fill=(52, 62, 74),
                )


def _foreground_rocks(
    picture: Image.Image, rng: np.random.Generator, palette: Palette, height: float
) -> None:
    width_px, height_px = picture.size
    canvas = np.asarray(picture, dtype=np.float64).copy()
    profile = _noise(rng, width_px, 2, cells=(5, 2), octaves=7)[0]
    lean = np.linspace(1.2, 0.1, width_px) if rng.random() < 0.5 else np.linspace(0.1, 1.2, width_px)
    crest = height_px * (1 - height * (0.25 + profile) * lean)
    texture = _noise(rng, width_px, height_px, cells=(24, 30), octaves=6)
    rows = np.arange(height_px)[:, None]
    mask = rows > crest[None, :]
    grass = np.clip(1 - (rows - crest[None, :]) / (height_px * 0.03), 0, 1)
    rock = np.array([92, 88, 84]) * (0.4 + 1.1 * texture[..., None])
    rock = _mixed(rock, np.array([92, 112, 58]) * (0.6 + 0.7 * texture[..., None]), grass)
    canvas[mask] = rock[mask]
    picture.paste(Image.fromarray(np.clip(canvas, 0, 255).astype(np.uint8)))


def _with_rain(picture: Image.Image, rng: np.random.Generator) -> Image.Image:
    layer = Image.new("L", picture.size, 0)
    pen = ImageDraw.Draw(layer)
    for _ in range(900):
        x, y, length = rng.uniform(0, picture.width), rng.uniform(0, picture.height), rng.uniform(10, 34)
        pen.line([(x, y), (x - length * 0.22, y + length)], fill=int(rng.integers(30, 100)), width=1)
    return Image.composite(
        Image.new("RGB", picture.size, (206, 214, 218)), picture, layer.filter(ImageFilter.GaussianBlur(0.7))
    )


def _developed(picture: Image.Image, rng: np.random.Generator) -> Image.Image:
    """A lens's softness, a little grain, darker corners."""
    soft = np.asarray(picture.filter(ImageFilter.GaussianBlur(0.6)), dtype=np.float64)
    height_px, width_px = soft.shape[:2]
    x, y = np.meshgrid(np.linspace(-1, 1, width_px), np.linspace(-1, 1, height_px))
    corners = 1 - 0.16 * (x**2 + y**2) / 2
    grain = rng.normal(0, 2.2, (height_px, width_px, 1))
    return Image.fromarray(np.clip(soft * corners[..., None] + grain, 0, 255).astype(np.uint8))


_SUBJECTS = {
    "ferry": _ferry,
    "island": _island,
    "harbour": _harbour,
    "lighthouse": _lighthouse,
    "beach": _beach,
    "village": _village,
}
