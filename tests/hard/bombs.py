"""Files made to exhaust whoever reads them: a name, the address they are sent to, and their bytes, for every reader.

`scale` 1 makes them as large as `make hard` sends them; a smaller one shrinks those whose size is the attack.
"""

import base64
import io
import json
import struct
import wave
import zipfile
import zlib
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import repeat

import av
import numpy as np
from PIL import Image

from tests.motion.scenes import EXAMPLE

SVG, PICTURE, SOUND, TABLE, BUNDLE = ("/api/drawings", "/api/pictures", "/api/sounds", "/api/tables", "/api/bundles")
SCENE, SCENE_FILE = "/api/scenes", "/api/scene-files"
HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 90 60">'


@dataclass(frozen=True)
class Bomb:
    """A hostile file. address: where it is sent. made: makes its bytes at a scale."""

    name: str
    address: str
    made: Callable[[float], bytes]


def svg(inside: str, head: str = HEAD) -> bytes:
    return f"{head}{inside}</svg>".encode()


def many(part: str, count: float) -> str:
    return part * max(1, int(count))


def nested_use(levels: int, each: int) -> str:
    lines = ['<g id="l0"><rect width="3" height="2"/></g>']
    lines += [f'<g id="l{n}">' + f'<use href="#l{n - 1}"/>' * each + "</g>" for n in range(1, levels)]
    return "<defs>" + "".join(lines) + f'</defs><use href="#l{levels - 1}"/>'


def empty_use(levels: int, each: int) -> str:
    return nested_use(levels, each).replace('<rect width="3" height="2"/>', "<title>n</title>")


def dtd(declared: str, inside: str) -> bytes:
    return f"<!DOCTYPE svg [{declared}]>{HEAD}{inside}</svg>".encode()


def png_chunk(kind: bytes, data: bytes) -> bytes:
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))


def png(width: int, height: int, rows: bytes, more: bytes = b"") -> bytes:
    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + png_chunk(b"IHDR", head) + more + png_chunk(b"IDAT", zlib.compress(rows, 9)) + png_chunk(b"IEND", b"")


def picture(kind: str, side: int, frames: int, **how: object) -> bytes:
    held = io.BytesIO()
    pages = [Image.new("P", (side, side), n % 200) for n in range(frames)]
    pages[0].save(held, kind, save_all=frames > 1, append_images=pages[1:], **how)
    return held.getvalue()


def gif(width: int, height: int, frames: int, part: tuple[int, int] = (1, 1)) -> bytes:
    """A GIF whose frames paint one pixel each: as little as a page can take."""
    head = b"GIF89a" + struct.pack("<HHBBB", width, height, 0x80, 0, 0) + b"\0\0\0\xff\xff\xff"
    frame = b"!\xf9\x04\x00\x01\x00\x00\x00," + struct.pack("<HHHHB", 0, 0, *part, 0) + b"\x02\x02D\x01\x00"
    return head + frame * frames + b";"


def film(name: str, codec: str, frames: int, size: tuple[int, int]) -> bytes:
    held = io.BytesIO()
    with av.open(held, "w", format=name) as file:
        stream = file.add_stream(codec, rate=60)
        stream.width, stream.height, stream.pix_fmt = *size, "yuv420p"
        picture_ = av.VideoFrame.from_ndarray(np.zeros((size[1], size[0], 3), np.uint8), "rgb24")
        for n in range(frames):
            picture_.pts = n
            file.mux(stream.encode(picture_))
        file.mux(stream.encode(None))
    return held.getvalue()


def sound(frames: int, rate: int, channels: int = 1, width: int = 1) -> bytes:
    held = io.BytesIO()
    with wave.open(held, "wb") as out:
        out.setnchannels(channels)
        out.setsampwidth(width)
        out.setframerate(rate)
        out.writeframes(b"\x80" * (frames * channels * width))
    return held.getvalue()


def encoded_sound(name: str, codec: str, seconds: float) -> bytes:
    held = io.BytesIO()
    with av.open(held, "w", format=name) as file:
        stream = file.add_stream(codec, rate=48000)
        size = 4096
        for n in range(int(seconds * 48000 / size)):
            frame = av.AudioFrame.from_ndarray(np.zeros((1, size), np.int16), "s16", "mono")
            frame.sample_rate, frame.pts = 48000, n * size
            file.mux(stream.encode(frame))
        file.mux(stream.encode(None))
    return held.getvalue()


def bundle(scene: object, parts: Iterator[tuple[str, bytes]] | list[tuple[str, bytes]] = ()) -> bytes:
    held = io.BytesIO()
    with zipfile.ZipFile(held, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("scene.json", scene if isinstance(scene, bytes) else json.dumps(scene))
        for name, content in parts:
            packed.writestr(name, content)
    return held.getvalue()


def with_objects(objects: str) -> bytes:
    return ('{"format": "vine-swing-scene", "version": 1, "objects": [' + objects + "]}").encode()


def with_keys(keys: str) -> bytes:
    mango = '{"id": "m", "name": "M", "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": {"base": 0, "keys": [' + keys + "]}}}"
    return with_objects(mango)


def font(data: bytes) -> bytes:
    content = base64.b64encode(data).decode()
    return json.dumps(EXAMPLE | {"fonts": [{"id": "file-0000000000000000", "name": "F", "licence": "made up", "data": content}]}).encode()


def sfnt(tables: dict[bytes, bytes]) -> bytes:
    """A TrueType file with some tables."""
    head, body = struct.pack(">IHHHH", 0x00010000, len(tables), 0, 0, 0), b""
    start = len(head) + 16 * len(tables)
    for tag, content in tables.items():
        head += struct.pack(">4sIII", tag, 0, start + len(body), len(content))
        body += content
    return head + body


def cmap(groups: int) -> bytes:
    """A character map whose groups cover far more characters than there are."""
    parts = b"".join(struct.pack(">III", n, 0x10FFFF, 0) for n in range(groups))
    return struct.pack(">HHHHI", 0, 1, 3, 10, 12) + struct.pack(">HHIII", 12, 0, 16 + len(parts), 0, groups) + parts


MB = 1_000_000
BOMBS = (
    Bomb("svg: use in use, 2^28", SVG, lambda s: svg(nested_use(28, 2))),
    Bomb("svg: use in use, 40^5", SVG, lambda s: svg(nested_use(6, 40))),
    Bomb("svg: use in use that draws nothing", SVG, lambda s: svg(empty_use(11, 30))),
    Bomb("svg: use of itself", SVG, lambda s: svg('<g id="a"><use href="#a"/><use href="#a"/></g>')),
    Bomb("svg: defaults of attributes", SVG, lambda s: dtd(f'<!ATTLIST g fill CDATA "{"a" * 1000}">', many("<g/>", 50_000 * s))),
    Bomb(
        "svg: entities in entities",
        SVG,
        lambda s: dtd("".join(f'<!ENTITY a{n + 1} "{10 * ("&a" + str(n) + ";")}">' for n in range(9)), "<text>&a9;</text>"),
    ),
    Bomb("svg: one entity many times", SVG, lambda s: dtd(f'<!ENTITY a "{"a" * 1000}">', f"<text>{many('&a;', 4 * MB * s)}</text>")),
    Bomb("svg: an entity in attributes", SVG, lambda s: dtd(f'<!ENTITY a "{"a" * 1000}">', f'<text id="{many("&a;", 2 * MB * s)}">a</text>')),
    Bomb("svg: a thousand entities", SVG, lambda s: dtd("".join(f'<!ENTITY a{n} "b">' for n in range(1000)), "<text>&a1;</text>")),
    Bomb("svg: an entity of a file", SVG, lambda s: dtd('<!ENTITY a SYSTEM "file:///etc/hostname">', "<text>&a;</text>")),
    Bomb("svg: parameter entities", SVG, lambda s: dtd("""<!ENTITY % a "<!ENTITY b SYSTEM 'x'>"> %a;""", "<text>&b;</text>")),
    Bomb("svg: a path of 14 MB", SVG, lambda s: svg(f'<path d="M0 0{many(" l1 1", 2.8 * MB * s)}"/>')),
    Bomb("svg: paths of 19 MB", SVG, lambda s: svg(many(f'<path d="M0 0{many(" l1 1", 150_000)}"/>', 25 * s))),
    Bomb("svg: arcs of 10 MB", SVG, lambda s: svg(f'<path d="M0 0{many(" a9 8 7 1 1 3 4", 350_000 * s)}"/>')),
    Bomb("svg: closed parts", SVG, lambda s: svg(f'<path d="M0 0{many("zl1 1", 120_000 * s)}"/>')),
    Bomb("svg: a polygon of 10 MB", SVG, lambda s: svg(f'<polygon points="{many("1,2 3,4 ", 1.2 * MB * s)}"/>')),
    Bomb("svg: a text of 10 MB", SVG, lambda s: svg(f"<text>{many('canopy post ', 0.9 * MB * s)}</text>")),
    Bomb("svg: rotate( without end", SVG, lambda s: svg(f'<rect width="3" height="2" transform="{many("rotate(", 2 * MB * s)}"/>')),
    Bomb("svg: many transforms", SVG, lambda s: svg(f'<rect width="3" height="2" transform="{many("rotate(1) ", 1.5 * MB * s)}"/>')),
    Bomb("svg: comments that are not closed", SVG, lambda s: svg(f"<style>{many('/*', 8 * MB * s)}</style><rect width='3' height='2'/>")),
    Bomb("svg: a style sheet without braces", SVG, lambda s: svg(f"<style>{many('a ', 8 * MB * s)}</style><rect width='3' height='2'/>")),
    Bomb("svg: braces that are not closed", SVG, lambda s: svg(f"<style>{many('a{', 8 * MB * s)}</style><rect width='3' height='2'/>")),
    Bomb(
        "svg: 200,000 rules × 50,000 elements",
        SVG,
        lambda s: svg(f"<style>{many('*{fill:red}', 200_000 * s)}</style>{many('<rect/>', 50_000 * s)}<rect width='3' height='2'/>"),
    ),
    Bomb(
        "svg: rules by id",
        SVG,
        lambda s: svg(
            "<style>"
            + "".join(f"#a{n}{{fill:red}}" for n in range(20_000))
            + "</style>"
            + "".join(f'<rect id="a{n}"/>' for n in range(20_000))
            + "<rect width='3' height='2'/>"
        ),
    ),
    Bomb(
        "svg: 50,000 stops × 2,000 uses",
        SVG,
        lambda s: svg(
            '<defs><linearGradient id="g">'
            + many('<stop offset="0.5"/>', 50_000 * s)
            + "</linearGradient></defs>"
            + many('<rect width="3" height="2" fill="url(#g)"/>', 2000 * s)
        ),
    ),
    Bomb("svg: a style attribute of 10 MB", SVG, lambda s: svg(f'<rect width="3" height="2" style="{many("fill:red;", 1.1 * MB * s)}"/>')),
    Bomb(
        "svg: classes of 10 MB", SVG, lambda s: svg(f'<style>.a{{fill:red}}</style><rect width="3" height="2" class="{many("a b ", 2.5 * MB * s)}"/>')
    ),
    Bomb("svg: dashes of 10 MB", SVG, lambda s: svg(f'<rect width="3" height="2" stroke="red" stroke-dasharray="{many("1 2 ", 2.5 * MB * s)}"/>')),
    Bomb("svg: groups 10,000 deep", SVG, lambda s: svg(many("<g>", 10_000) + many("</g>", 10_000))),
    Bomb("svg: a million elements", SVG, lambda s: svg(many("<g/>", MB * s))),
    Bomb("svg: 59,000 shapes", SVG, lambda s: svg(many('<rect width="3" height="2"/>', 59_000 * s + 4_000))),
    Bomb(
        "svg: an embedded picture of 1,600 million pixels",
        SVG,
        lambda s: svg(f'<image width="9" height="9" href="data:image/png;base64,{base64.b64encode(png(40_000, 40_000, b"")).decode()}"/>'),
    ),
    Bomb("svg: embedded bytes of 15 MB", SVG, lambda s: svg(f'<image width="9" height="9" href="data:image/png;base64,{many("A", 15 * MB * s)}"/>')),
    Bomb("svg: numbers of 100,000 digits", SVG, lambda s: svg(f'<rect width="{"9" * 100_000}" height="2" x="{"1" * 100_000}"/>')),
    Bomb("svg: odd numbers", SVG, lambda s: svg('<rect width="3" height="2"/>', HEAD.replace("0 0 90 60", "1.2.3 0 5 5"))),
    Bomb("svg: not closed", SVG, lambda s: (HEAD + many("<g>", 100)).encode()),
    Bomb("picture: a PNG of 1,600 million pixels", PICTURE, lambda s: png(40_000, 40_000, b"")),
    Bomb("picture: a PNG of 39 million pixels of nothing", PICTURE, lambda s: png(6_240, 6_240, b"\0" * (6_240 * (6_240 * 3 + 1)))),
    Bomb(
        "picture: a PNG with a packed text of 200 MB",
        PICTURE,
        lambda s: png(1, 1, b"\0" * 4, png_chunk(b"zTXt", b"a\0\0" + zlib.compress(b"a" * int(200 * MB * s)))),
    ),
    Bomb(
        "picture: a PNG with a packed profile",
        PICTURE,
        lambda s: png(1, 1, b"\0" * 4, png_chunk(b"iCCP", b"a\0\0" + zlib.compress(b"a" * int(200 * MB * s)))),
    ),
    Bomb("picture: a PNG of a million chunks", PICTURE, lambda s: png(1, 1, b"\0" * 4, png_chunk(b"tEXt", b"a\0b") * int(MB * s))),
    Bomb("picture: a GIF of 65,000 pages", PICTURE, lambda s: gif(20, 20, int(65_000 * s))),
    Bomb("picture: a GIF of 0.8 MB, 1,100 pages of 900 px", PICTURE, lambda s: gif(900, 900, int(1_100 * s) + 2) + b"\0" * 700_000),
    Bomb("picture: a GIF of pages of 60,000 px", PICTURE, lambda s: gif(60_000, 60_000, 90)),
    Bomb("picture: a GIF of 1,000 pages of 1,000 px", PICTURE, lambda s: gif(1_000, 1_000, int(1_000 * s), (1_000, 1_000))),
    Bomb("picture: an APNG of 5,000 pages", PICTURE, lambda s: picture("PNG", 8, int(5_000 * s) + 2)),
    Bomb("picture: a WebP of 1,500 pages", PICTURE, lambda s: picture("WEBP", 16, int(1_500 * s) + 2)),
    Bomb("picture: half a JPEG", PICTURE, lambda s: b"\xff\xd8\xff\xe0" + b"\xff" * int(5 * MB * s)),
    Bomb("picture: a film of 20,000 pages", PICTURE, lambda s: film("mp4", "libx264", int(20_000 * s), (64, 48))),
    Bomb("picture: a film of 300 pages of 1,080 px", PICTURE, lambda s: film("matroska", "libx264", int(300 * s) + 2, (1920, 1080))),
    Bomb("picture: half a film", PICTURE, lambda s: film("mp4", "libx264", 60, (64, 48))[:-300]),
    Bomb("sound: twenty minutes in 1.2 MB", SOUND, lambda s: sound(1_200_000, 1_000)),
    Bomb("sound: a sample a second", SOUND, lambda s: sound(int(50 * MB * s), 1)),
    Bomb("sound: 4 billion samples a second", SOUND, lambda s: sound(int(10 * MB * s), 4_000_000_000 // 2)),
    Bomb("sound: 65,000 channels", SOUND, lambda s: sound(100, 8_000, 65_000)),
    Bomb("sound: FLAC of two hours of silence", SOUND, lambda s: encoded_sound("flac", "flac", 7_200 * s)),
    Bomb(
        "sound: a description of a session",
        SOUND,
        lambda s: b"v=0\r\no=- 0 0 IN IP4 127.0.0.1\r\ns=a\r\nc=IN IP4 127.0.0.1\r\nt=0 0\r\nm=audio 9999 RTP/AVP 0\r\n",
    ),
    Bomb("sound: a list of files", SOUND, lambda s: b"ffconcat version 1.0\nfile a.wav\nfile b.wav\n"),
    Bomb("sound: a play list", SOUND, lambda s: b"#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nfile:///etc/hostname\n"),
    Bomb("sound: a tag of 50 MB", SOUND, lambda s: b"ID3\x04\0\0\x18\x00\x00\x00" + b"\0" * int(50 * MB * s)),
    Bomb("sound: 50 MB of frames that are none", SOUND, lambda s: b"\xff\xfb\x90\x00" * int(12 * MB * s)),
    Bomb("font: no font", SCENE_FILE, lambda s: font(b"\0\1\0\0" + b"\xff" * int(4 * MB * s))),
    Bomb("font: groups of characters without end", SCENE_FILE, lambda s: font(sfnt({b"cmap": cmap(int(200_000 * s))}))),
    Bomb(
        "font: tables that lie on each other",
        SCENE_FILE,
        lambda s: font(sfnt({b"head": b"\0" * 54, b"maxp": b"\xff" * 6, b"loca": b"\xff" * 4000, b"glyf": b"\0" * 99})),
    ),
    Bomb("table: 12 MB of commas", TABLE, lambda s: b"," * int(11 * MB * s)),
    Bomb("table: 11 MB of line breaks", TABLE, lambda s: b"1\n" * int(5.5 * MB * s)),
    Bomb("table: a quote that is not closed", TABLE, lambda s: b'"' + b"a\n" * int(5 * MB * s)),
    Bomb("table: a clock of 5,000 digits", TABLE, lambda s: b"time,a\n" + b"9" * 5_000 + b":1:1,2\n"),
    Bomb("table: a cell of 11 MB", TABLE, lambda s: b"a,b\n1," + b"9" * int(11 * MB * s)),
    Bomb("table: 99,000 rows of 100 columns", TABLE, lambda s: (b"1," * 99 + b"1\n") * int(55_000 * s)),
    Bomb(
        "bundle: a part that unpacks to a thousand times its size",
        BUNDLE,
        lambda s: bundle(EXAMPLE, [("pictures/a.png", b"\0" * int(90 * MB * s) + b"")]),
    ),
    Bomb("bundle: 60 MB of empty objects", BUNDLE, lambda s: bundle(with_objects(",".join(repeat("{}", int(20 * MB * s)))))),
    Bomb(
        "bundle: one picture named 100,000 times",
        BUNDLE,
        lambda s: bundle(EXAMPLE | {"pictures": [{"id": "picture-0", "data": "pictures/a.png"}] * 100_000}, [("pictures/a.png", b"\1" * 90_000)]),
    ),
    Bomb(
        "bundle: one picture named 1,900 times",
        BUNDLE,
        lambda s: bundle(
            EXAMPLE | {"pictures": [{"id": "picture-0", "data": "pictures/a.png"}] * 1_900}, [("pictures/a.png", bytes(range(256)) * 40_000)]
        ),
    ),
    Bomb("bundle: 6,000 parts", BUNDLE, lambda s: bundle(EXAMPLE, [(f"pictures/{n}.png", b"a") for n in range(6_000)])),
    Bomb("bundle: a part that leads out of it", BUNDLE, lambda s: bundle(EXAMPLE, [("../../evil", b"a")])),
    Bomb("bundle: half a bundle", BUNDLE, lambda s: bundle(EXAMPLE)[:-30]),
    Bomb("json: 15 MB of objects without anything", SCENE, lambda s: with_objects(",".join(repeat("{}", int(5 * MB * s))))),
    Bomb(
        "json: 5,000 faulty objects", SCENE, lambda s: with_objects(",".join(repeat('{"id": "a", "name": "A", "kind": "shape", "oops": 1}', 5_000)))
    ),
    Bomb("json: millions of unknown fields", SCENE, lambda s: b"{" + b",".join(b'"a%d":0' % n for n in range(int(1.4 * MB * s))) + b"}"),
    Bomb(
        "json: fields of a channel",
        SCENE,
        lambda s: with_objects(
            '{"id": "a", "name": "A", "kind": "group", "channels": {' + ",".join(f'"a{n}":{{"b":0}}' for n in range(int(0.9 * MB * s))) + "}}"
        ),
    ),
    Bomb("json: a million faulty keys", SCENE, lambda s: with_keys(",".join(repeat('{"frame":"a"}', int(MB * s))))),
    Bomb("json: keys with unknown eases", SCENE, lambda s: with_keys(",".join(repeat('{"frame":0,"value":0,"ease":{"a":0}}', int(0.4 * MB * s))))),
    Bomb("json: 15 MB of dials", SCENE, lambda s: ('{"dials": [' + ",".join(repeat("{}", int(5 * MB * s))) + "]}").encode()),
    Bomb("json: lists in lists", SCENE, lambda s: b'{"dials": ' + b"[" * int(7 * MB * s) + b"]" * int(7 * MB * s) + b"}"),
    Bomb("json: a number of a million digits", SCENE, lambda s: b'{"fps": ' + b"9" * int(MB * s) + b"}"),
    Bomb("json: half of a surrogate pair", SCENE, lambda s: b'{"name": "\\ud800"}'),
    Bomb("json: encoded surrogates", SCENE_FILE, lambda s: json.dumps(EXAMPLE).replace("Mango", "\ud800x").encode("utf-8", "surrogatepass")),
    Bomb("json: a name of 15 MB", SCENE, lambda s: b'{"name": "' + b"a" * int(15 * MB * s) + b'"}'),
)
