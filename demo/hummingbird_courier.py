"""Hummingbird courier: a flipbook of wing beats drifts past a painted backdrop. The pictures are drawn by code, the same on every machine."""

import base64
import io
import math

from PIL import Image, ImageDraw

from demo.build import PALETTE, Data, keys, rule, ruled, scene
from vine_swing.motion.basics.contents import PICTURE_FILES

LENGTH = 120
WINGS = 8
#: Drawn this many times larger, then made smaller, so that edges are smooth.
_FINER = 3


def drawn(width: int, height: int, paint, background=(0, 0, 0, 0)) -> Data:
    """A picture that `paint` draws on, in px from its upper left corner, as a scene keeps it."""
    image = Image.new("RGBA", (width * _FINER, height * _FINER), background)
    paint(_Pen(ImageDraw.Draw(image)))
    small = image.resize((width, height), Image.Resampling.BOX)
    written = io.BytesIO()
    small.quantize(64, method=Image.Quantize.FASTOCTREE, dither=Image.Dither.NONE).save(written, "PNG", optimize=False)
    content = written.getvalue()
    return {"id": PICTURE_FILES.id_of(content), "width": width, "height": height, "data": base64.b64encode(content).decode()}


class _Pen:
    """Draws in px of the visible frame."""

    def __init__(self, draw: ImageDraw.ImageDraw) -> None:
        self._draw = draw

    def shape(self, points: list[tuple[float, float]], fill: str) -> None:
        self._draw.polygon([(x * _FINER, y * _FINER) for x, y in points], fill=fill)

    def disc(self, x: float, y: float, rx: float, ry: float, fill: str) -> None:
        self._draw.ellipse([(x - rx) * _FINER, (y - ry) * _FINER, (x + rx) * _FINER, (y + ry) * _FINER], fill=fill)


class _Lower:
    """Draws as another pen, this many px lower."""

    def __init__(self, pen: _Pen, by: float) -> None:
        self._pen, self._by = pen, by

    def shape(self, points: list[tuple[float, float]], fill: str) -> None:
        self._pen.shape([(x, y + self._by) for x, y in points], fill)

    def disc(self, x: float, y: float, rx: float, ry: float, fill: str) -> None:
        self._pen.disc(x, y + self._by, rx, ry, fill)


def wing(pen: "_Pen | _Lower", x: float, y: float, lift: float, fill: str) -> None:
    """A wing from its root, from below (−1) to above (1)."""
    level = 1 - abs(lift)
    leading, tip = (x - 12, y - 52 * lift - 12 * level), (x - 54 + 16 * abs(lift), y - 78 * lift)
    trailing, back = (x - 50 + 4 * abs(lift), y - 34 * lift + 16 * level), (x - 30, y + 2)
    pen.shape([(x + 4, y + 6), leading, tip, trailing, back], fill)


def bird(number: int) -> Data:
    """One page of the flipbook: the bird with its wings so far through a beat."""
    lift = math.cos(2 * math.pi * number / WINGS)

    def paint(pen: _Lower) -> None:
        wing(pen, 112, 84, lift * 0.85, "#2F7A5C")
        pen.shape([(24, 104), (58, 92), (70, 100), (30, 118)], "#2B6F8C")
        pen.disc(98, 92, 46, 20, "#3F8F63")
        pen.disc(110, 98, 30, 14, "#F4E3C1")
        pen.disc(142, 76, 19, 17, "#3F8F63")
        pen.shape([(156, 74), (214, 82), (156, 82)], "#26332C")
        pen.disc(147, 72, 4.5, 4.5, "#26332C")
        pen.shape([(126, 62), (142, 50), (160, 62)], PALETTE["hibiscus"])
        pen.shape([(78, 108), (112, 108), (112, 134), (78, 134)], "#F4E3C1")
        pen.shape([(78, 108), (95, 122), (112, 108)], PALETTE["mango"])
        wing(pen, 104, 88, lift, "#56B287")

    return drawn(220, 190, lambda pen: paint(_Lower(pen, 20))) | {"name": f"Wing beat {number + 1}"}


def backdrop() -> Data:
    """A painted morning: three rows of hills and a sun."""

    def paint(pen: _Pen) -> None:
        pen.disc(470, 90, 44, 44, "#F6D58A")
        for row, (fill, base, high) in enumerate((("#A9D2BC", 210, 46), ("#7FB791", 260, 38), ("#4D8C66", 306, 30))):
            hills = [(x, base - high * math.sin(0.011 * x * (1 + 0.35 * row) + 1.7 * row)) for x in range(0, 641, 4)]
            pen.shape([(0, 360), *hills, (640, 360)], fill)
        for n in range(26):
            x = 14 + 24.6 * n
            pen.shape([(x - 10, 340), (x, 292 - 16 * math.sin(2.1 * n)), (x + 10, 340)], "#3B5E3F")

    return drawn(640, 360, paint, (207, 230, 216, 255)) | {"name": "Morning"}


def picture(name: str, pictures: list[Data], width: float, height: float, **channels) -> Data:
    """An object that shows some pictures."""
    content = {"pictures": [item["id"] for item in pictures]}
    return {
        "id": name.lower().replace(" ", "-"),
        "name": name,
        "kind": "picture",
        "picture": content,
        "channels": {"width": width, "height": height} | channels,
    }


def make() -> Data:
    pages, morning = [bird(number) for number in range(WINGS)], backdrop()
    turned = keys((0, 0.0), (WINGS, float(WINGS)), after="loop")
    courier = picture("Courier", pages, 330, 285, x=-140, y=330, page=turned)
    friend = picture("Friend", pages, 180, 155, x=-420, y=210, opacity=0.9, page=turned)
    hover = rule("oscillator", "y", amplitude=22, frequency=0.9)
    past = {"id": "past", "kind": "drift", "channels": ["x"], "settings": {"speed": 330}}
    later = rule("retime", "page", delay=3)
    whole = scene(
        "Hummingbird courier",
        LENGTH,
        [
            picture("Morning", [morning], 1280, 720, x=640, y=360),
            ruled(friend, past | {"settings": {"speed": 300}}, later),
            ruled(courier, past, hover),
        ],
        PALETTE["sky"],
    )
    # The wings go up as they came down: such pages are one picture, kept once.
    return whole | {"pictures": list({item["id"]: item for item in (*pages, morning)}.values())}
