"""SVG drawings brought in: parts by name, places and colours exact, what is lost is told, and nothing hostile gets through."""

import numpy as np
import pytest

from vine_swing.formats import EXPORTS, film_of
from vine_swing.formats.drawing import read_svg
from vine_swing.formats.drawing.safe import MOST_BYTES, MOST_ELEMENTS
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import MotionError, bake
from vine_swing.motion.curves.svg_path import parse_path

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 200 160" width="400" height="320">'
STAMP = f"""{HEAD}
<style>.leaf{{fill:#2f6b4f;stroke:#16352b;stroke-width:2}} #sun{{fill:gold}}</style>
<defs><linearGradient id="sky" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#f2932b"/><stop offset="1" stop-color="#fbf3df"/></linearGradient>
<g id="feather"><path d="M0 0q10 -20 20 0t20 0z" class="leaf"/></g><filter id="f"><feGaussianBlur stdDeviation="2"/></filter></defs>
<rect id="paper" width="200" height="160" rx="8" fill="url(#sky)"/>
<g id="toucan" transform="translate(30 20) rotate(90)" opacity=".5"><title>Toucan</title>
 <ellipse id="left_wing" cx="50" cy="60" rx="34" ry="22" stroke="black"/>
 <use xlink:href="#feather" x="10" y="70"/><use href="#feather" transform="translate(40 90) scale(.5)"/></g>
<circle id="sun" cx="30" cy="26" r="12" filter="url(#f)"/>
<text x="100" y="150" font-size="14" text-anchor="middle" font-family="Wanderlust">Canopy</text>
<script>alert(1)</script><image href="http://example.org/x.png" width="10" height="10"/>
</svg>""".encode()


def drawn(svg):
    return read_svg(f"{HEAD}{svg}</svg>".encode(), "it.svg")


def view(drawing, name):
    """The place of an object in the picture, and its outline there."""
    baked = bake(drawing.scene)
    one = next(thing for thing in baked.objects.values() if thing.source.name == name)
    a, b, c, d, e, f = one.view[0]
    points = parse_path(one.source.shape.d).points
    return points @ np.array([[a, b], [c, d]]) + [e, f]


def test_parts_come_by_name_in_groups_and_what_is_lost_is_told():
    drawing = read_svg(STAMP, "folder/stamp.svg")
    scene = drawing.scene
    assert (scene.name, scene.size) == ("stamp", (400, 320))
    tree = {thing.name: scene.by_id[thing.parent].name if thing.parent else None for thing in scene.objects}
    assert tree["stamp"] is None
    assert (tree["paper"], tree["Toucan"], tree["left wing"], tree["feather"]) == ("stamp", "stamp", "Toucan", "Toucan")
    assert scene.by_name["Toucan"].channels["opacity"].base == 0.5
    told = " | ".join(drawing.lost)
    for what in ("filters", "the font Wanderlust", "scripts", "pictures that lie outside"):
        assert what in told
    assert scene.by_name["sun"].channels["fill"].base == "#FFD700"
    assert scene.by_name["Canopy"].shape.type == "outline"


def test_places_sizes_and_lines_are_exact_after_every_transform():
    drawing = read_svg(STAMP, "stamp.svg")
    # An ellipse of 34 × 22 about (50, 60), turned by 90° and moved by (30, 20), in a picture of twice the size.
    outline = view(drawing, "left wing")
    assert outline.min(axis=0) == pytest.approx([2 * (30 - 60 - 22), 2 * (20 + 50 - 34)], abs=1e-3)
    assert outline.max(axis=0) == pytest.approx([2 * (30 - 60 + 22), 2 * (20 + 50 + 34)], abs=1e-3)
    assert drawing.scene.by_name["left wing"].channels["stroke.width"].base == pytest.approx(2)
    assert drawing.scene.by_name["Path 2"].channels["stroke.width"].base == pytest.approx(2), "half of twice two"


@pytest.mark.parametrize(
    ("shape", "box"),
    [
        ('<rect x="10" y="20" width="30" height="40"/>', (20, 40, 80, 120)),
        ('<circle cx="50" cy="50" r="10"/>', (80, 80, 120, 120)),
        ('<ellipse cx="50" cy="50" rx="10" ry="5"/>', (80, 90, 120, 110)),
        ('<line x1="1" y1="2" x2="3" y2="4" stroke="red"/>', (2, 4, 6, 8)),
        ('<polyline points="0,0 10,0 10,20"/>', (0, 0, 20, 40)),
        ('<polygon points="0 0 10 0 10 20"/>', (0, 0, 20, 40)),
        ('<path d="M5 5h10v10z" transform="matrix(1 0 0 2 3 4)"/>', (16, 28, 36, 68)),
        ('<svg x="10" y="10" width="50" height="50" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>', (20, 20, 120, 120)),
        ('<symbol id="s"><rect width="4" height="4"/></symbol><use href="#s" x="8" y="2"/>', (16, 4, 24, 12)),
    ],
)
def test_every_basic_shape(shape, box):
    scene = drawn(shape).scene
    found = [view(drawn(shape), thing.name) for thing in scene.objects if thing.kind == "shape"]
    points = np.concatenate(found)
    assert (*points.min(axis=0), *points.max(axis=0)) == pytest.approx(box, abs=1e-3)


def test_gradients_keep_their_bands_under_any_transform():
    """Where a colour is in the drawing is computed from the definition, and compared with the ends that the object has."""
    svg = (
        '<defs><linearGradient id="g" gradientUnits="userSpaceOnUse" x1="10" y1="0" x2="30" y2="0" gradientTransform="skewX(30)">'
        '<stop offset="0" stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient></defs>'
        '<rect id="r" width="60" height="40" fill="url(#g)" transform="rotate(20) scale(1.5 0.7)"/>'
    )
    drawing = drawn(svg)
    thing = drawing.scene.by_name["r"]
    ends = [thing.channels[name].base for name in ("fill.from.x", "fill.from.y", "fill.to.x", "fill.to.y")]
    begin, way = np.array(ends[:2]), np.array(ends[2:]) - ends[:2]
    place = bake(drawing.scene).objects[thing.id].view[0, 4:]
    turn = np.radians(20)
    to_picture = 2 * np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]]) @ np.diag([1.5, 0.7])
    slant = np.array([[1, np.tan(np.radians(30))], [0, 1]])
    for x, y in ((10, 0), (20, 5), (30, -8), (15, 40)):
        # In its own space, a point's share of the gradient is (x − 10) / 20, whatever y is.
        there = to_picture @ slant @ [x, y] - place
        assert (there - begin) @ way / (way @ way) == pytest.approx((x - 10) / 20, abs=1e-6)


def test_outlines_survive_import_export_and_import_again(tmp_path):
    first = read_svg(STAMP, "stamp.svg")
    path = tmp_path / "again.svg"
    EXPORTS["still"].write(film_of(first.scene, ExportOptions(format="still")), path)
    again = read_svg(path.read_bytes(), "again.svg")
    ours = [bake(first.scene).objects[thing.id] for thing in first.scene.objects if thing.kind == "shape"]
    theirs = [bake(again.scene).objects[thing.id] for thing in again.scene.objects if thing.kind == "shape"]
    # The white paper of the picture is a rectangle of its own.
    assert len(theirs) == len(ours) + 1
    for before, after in zip(ours, theirs[1:], strict=True):
        points = [parse_path(one.source.shape.d).points @ one.view[0, :4].reshape(2, 2) + one.view[0, 4:] for one in (before, after)]
        assert np.abs(points[0] - points[1]).max() < 0.01, before.source.name


BOMB = '<!DOCTYPE svg [<!ENTITY a "x">' + "".join(f'<!ENTITY {b} "{f"&{a};" * 10}">' for a, b in zip("abcdefgh", "bcdefghi", strict=True)) + "]>"
HOSTILE = {
    "entities": (f"{BOMB}{HEAD}<text>&i;</text></svg>".encode(), "declares entities"),
    "external": (b'<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>' + HEAD.encode() + b"<text>&x;</text></svg>", "declares entities"),
    "no svg": (b"<html><body/></html>", "first element is <html>"),
    "no XML": (b"<svg", "no SVG that can be read"),
    "deep": (HEAD.encode() + b"<g>" * 400 + b"</g>" * 400 + b"</svg>", "200 deep"),
    "wide": (HEAD.encode() + b"<g/>" * (MOST_ELEMENTS + 5) + b"</svg>", "elements"),
    "heavy": (HEAD.encode() + b" " * (MOST_BYTES + 1), "at most 20 MB"),
    "nothing": (f"{HEAD}<defs/></svg>".encode(), "nothing in this drawing"),
    "many copies": (
        f"{HEAD}<defs><g id='a'><rect width='1' height='1'/></g>".encode()
        + b"".join((f"<g id='{b}'>" + f"<use href='#{a}'/>" * 10 + "</g>").encode() for a, b in zip("abcdef", "bcdefg", strict=True))
        + b"</defs><use href='#g'/></svg>",
        "more than 3000 parts",
    ),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_drawings_are_refused_in_plain_words(name):
    data, says = HOSTILE[name]
    with pytest.raises(MotionError, match=says):
        read_svg(data, "hostile.svg")


def test_a_copy_of_itself_is_left_out_and_told():
    drawing = drawn('<g id="a"><rect width="3" height="3"/><use href="#a"/></g><use href="#gone"/>')
    assert any("stand in themselves" in one for one in drawing.lost)
    assert any("not in the file" in one for one in drawing.lost)
