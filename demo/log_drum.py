"""Log drum: a coati beats a hollow log, a frog bounces on the beat, a lemur steps a step a beat, and lanterns glow with the sound."""

from pydantic import TypeAdapter

from demo.build import PALETTE, Data, blended, box, ellipse, group, look, outline, rule, ruled, scene
from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data, to_data
from vine_swing.motion.sound.reading import sound_of
from vine_swing.sounds import READY

#: Eight seconds: four bars of the drum, which loop.
LENGTH = 192
_EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def clearing() -> list[Data]:
    sky = blended(
        box("Evening sky", 1280, 720, x=640, y=360, fill="#34506B"), "linear", (0, -360, 0, 300), (0, "#2E4560"), (0.6, "#7D7F97"), (1, "#E0A878")
    )
    far = outline(
        "Far trees",
        "M-700 0 C-640 -120 -560 -150 -480 -60 S-340 -190 -240 -70 S-60 -160 40 -60 S240 -180 340 -70 S520 -150 600 -50 L700 0 V300 H-700 Z",
        x=640,
        y=440,
        fill="#2F4A45",
    )
    ground = outline("Clearing", "M-760 30 C-520 -36 -220 -26 0 -10 S520 -40 760 24 V260 H-760 Z", x=640, y=600, fill="#4C6B4A")
    canopy = outline(
        "Canopy",
        "M-680 -120 H680 V10 C600 54 560 -10 480 18 S360 54 290 10 S150 -20 90 22 S-80 58 -150 14 S-300 -18 -370 20 S-520 62 -590 16 S-660 -10 -680 10 Z",
        x=640,
        y=24,
        fill="#23382F",
    )
    return [sky, far, ground, canopy]


def lanterns() -> list[Data]:
    """Three lanterns: how bright they are is how loud the drum is."""
    result = []
    for n, (x, y, size) in enumerate(((250, 210, 54), (645, 150, 66), (1030, 220, 54)), 1):
        string = box(f"Lantern {n} string", 3, y - 40, x=x, y=(y + 40) / 2 - size / 2, fill="#23382F")
        glow = look(
            "glow", size={"base": 20.0, "formula": "18 + 60 * {Drum}"}, strength={"base": 1.0, "formula": "0.3 + 2 * {Drum}"}, colour="#FFD68A"
        )
        lit = rule("link", "opacity", formula="0.45 + 0.55 * {Drum}")
        lamp = ellipse(f"Lantern {n}", size, size * 1.2, x=x, y=y, fill="#FFC860", stroke="#8A5A2C", stroke_width=3)
        result += [string, ruled(lamp, lit, glow)]
    return result


def log() -> list[Data]:
    """The drum: it gives a little under every stroke."""
    whole = ruled(group("Log", x=640.0, y=590.0), rule("link", "scale.y", formula="value * (1 - 0.07 * {Low})"))
    return [
        whole,
        box("Log side", 330, 104, 0.5, parent="Log", y=-44, fill="#7A5230"),
        box("Log light", 280, 10, 1.0, parent="Log", x=-8, y=-78, fill="#96693F"),
        ellipse("Log end", 62, 100, parent="Log", x=136, y=-44, fill="#A97D4E"),
        ellipse("Log hollow", 40, 68, parent="Log", x=136, y=-44, fill="#3A2716"),
    ]


def coati() -> list[Data]:
    """The drummer stands behind the log."""
    coat, pale = "#A8622F", "#EBD9B8"
    nods = ruled(group("Coati", x=610.0, y=530.0), rule("link", "y", formula="value + 5 * {Drum}"))
    body = [
        outline("Coati tail", "M-40 0 C-120 -20 -150 -120 -110 -170 C-96 -120 -84 -70 -20 -40 Z", parent="Coati", x=-10, y=-10, fill=coat),
        ellipse("Coati body", 118, 150, parent="Coati", y=-56, fill=coat),
        ellipse("Coati belly", 66, 100, parent="Coati", x=8, y=-46, fill=pale),
        ellipse("Coati left ear", 28, 30, parent="Coati", x=-26, y=-178, fill=coat),
        ellipse("Coati right ear", 28, 30, parent="Coati", x=30, y=-180, fill=coat),
        ellipse("Coati head", 92, 78, parent="Coati", x=2, y=-144, fill=coat),
        outline("Coati snout", "M0 -16 C34 -18 62 -6 66 4 C60 16 30 20 0 18 Z", parent="Coati", x=30, y=-132, fill=pale),
        ellipse("Coati nose", 14, 12, parent="Coati", x=94, y=-130, fill=PALETTE["ink"]),
        ellipse("Coati eye", 9, 11, parent="Coati", x=24, y=-154, fill=PALETTE["ink"]),
    ]
    return [nods, *body]


def arms() -> list[Data]:
    """In front of the log, each with a stick."""
    result = []
    for side, x, direction in (("Left", -50.0, 1), ("Right", 54.0, -1)):
        arm = f"Coati {side.lower()} arm"
        result += [
            group(arm, parent="Coati", x=x, y=-100.0),
            box(f"Coati {side.lower()} stick", 9, 74, 1.0, parent=arm, x=-8.0 * direction, y=66, rotation=14.0 * direction, fill="#E7C890"),
            box(f"Coati {side.lower()} sleeve", 27, 62, 1.0, parent=arm, y=20, fill="#8E4F24"),
        ]
    return result


def frog() -> list[Data]:
    """The frog flies from beat to beat, and is flat when it lands."""
    green, dark = "#7DB843", "#5C9130"
    jumps = group("Frog", x=300.0, y=640.0)
    squash = rule("squash-stretch", "stretch")
    parts = [
        ellipse("Frog left foot", 74, 26, parent="Frog", x=-58, y=-10, fill=dark),
        ellipse("Frog right foot", 74, 26, parent="Frog", x=58, y=-10, fill=dark),
        ellipse("Frog body", 170, 118, parent="Frog", y=-62, fill=green),
        ellipse("Frog belly", 112, 70, parent="Frog", y=-46, fill="#DDE8A9"),
        ellipse("Frog left eye", 46, 46, parent="Frog", x=-44, y=-120, fill=green),
        ellipse("Frog right eye", 46, 46, parent="Frog", x=44, y=-120, fill=green),
        ellipse("Frog left pupil", 24, 26, parent="Frog", x=-42, y=-122, fill=PALETTE["ink"]),
        ellipse("Frog right pupil", 24, 26, parent="Frog", x=46, y=-122, fill=PALETTE["ink"]),
        outline("Frog mouth", "M-46 0 C-20 22 20 22 46 0", parent="Frog", y=-76, fill="#00000000", stroke="#3F6B22", stroke_width=5),
    ]
    return [ruled(jumps, squash), *parts]


def make() -> Data:
    drum = READY[0]
    file = SOUND_FILES.keep(drum.content)
    sound = {"id": "drum", "name": "Log drum", "file": file, "seconds": round(sound_of(file).seconds, 6)}
    followed = {"unit": "", "low": 0.0, "high": 1.0, "channel": {"base": 0.0}}
    follow = {"sound": "drum", "attack": 0.01, "release": 0.25}
    strokes = [
        {"edit": "keys-on-beats", "object": f"coati-{side}-arm", "channel": "rotation", "by": "sound:drum", "every": 2, "skip": skip}
        | {"rest": 112.0 * direction, "struck": 40.0 * direction, "rise": 4, "fall": 7}
        for side, skip, direction in (("left", 0, 1), ("right", 1, -1))
    ]
    edits = [
        {"edit": "add-sound", "sound": sound},
        {"edit": "set-beat", "beat": {"minute": drum.minute, "first": 0.0, "bar": 4}},
        {"edit": "set-markers", "markers": [{"frame": 48 * bar, "name": f"bar {bar + 1}"} for bar in range(4)]},
        {"edit": "add-dial", "dial": {"id": "drum-level", "name": "Drum"} | followed | {"follows": follow | {"band": "all"}}},
        {"edit": "add-dial", "dial": {"id": "drum-low", "name": "Low"} | followed | {"follows": follow | {"band": "low"}}},
        *strokes,
        # It lands on every other beat, and flies for two.
        {"edit": "keys-on-beats", "object": "frog", "channel": "y", "by": "beat", "way": "bounce", "rest": 640.0, "struck": 470.0, "every": 2},
        {"edit": "set-ends", "object": "frog", "channel": "y", "before": {"mode": "loop"}, "after": {"mode": "loop"}},
        {"edit": "keys-on-beats", "object": "frog", "channel": "rotation", "by": "beat", "way": "turn", "rest": -7.0, "struck": 7.0, "every": 2},
        {"edit": "set-ends", "object": "frog", "channel": "rotation", "before": {"mode": "ping-pong"}, "after": {"mode": "ping-pong"}},
        {"edit": "add-figure", "id": "lemur", "name": "Lemur", "starter": "two-legs", "x": 960.0, "y": 640.0, "height": 250.0},
        {"edit": "set-gait", "id": "lemur", "preset": "march"},
        {"edit": "set-setting", "object": "lemur", "rule": "gait", "setting": "treadmill", "value": 30.0},
        {"edit": "step-on-beats", "id": "lemur", "by": "beat"},
    ]
    begun = from_data(scene("Log drum", LENGTH, [*clearing(), *lanterns(), *coati(), *log(), *arms(), *frog()], "#34506B"))
    # Written as the files of people are: in the order of the model.
    return to_data(apply_all(begun, _EDITS.validate_python(edits)))
