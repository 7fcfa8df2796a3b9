"""Pictures for tests, made by our own code."""

import io

from PIL import Image, ImageDraw


def png(colour: tuple[int, ...] = (242, 147, 43), size: tuple[int, int] = (1, 1), **how: object) -> bytes:
    """A PNG file of one colour."""
    return saved(Image.new("RGBA" if len(colour) == 4 else "RGB", size, colour), "PNG", **how)


def numbered(number: int, size: tuple[int, int] = (60, 40)) -> Image.Image:
    """A page with a bar whose length tells its number."""
    image = Image.new("RGBA", size, (0, 0, 0, 0))
    ImageDraw.Draw(image).rectangle((0, 0, 4 * number + 3, size[1] - 1), fill=(63, 143, 99, 255))
    return image


def saved(image: Image.Image, kind: str, **how: object) -> bytes:
    """An image as a file."""
    written = io.BytesIO()
    image.save(written, kind, **how)
    return written.getvalue()


def moving(kind: str, count: int, milliseconds: int = 100) -> bytes:
    """A GIF, WebP or APNG of some pages."""
    pages = [numbered(n) for n in range(count)]
    return saved(pages[0], kind, save_all=True, append_images=pages[1:], duration=milliseconds, loop=0)
