"""Random scenes and parts of them: a generator that knows every kind, rule, setting, end, ease, handle, dial and cue.

Everything comes from one seeded `random.Random`, so that a sequence that fails can be run again by its number.
"""

import random
from typing import Any

from tests.pictures import png
from tests.sounds import kept, struck
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.basics.specs import SHAPES
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.rules import RULES
from vine_swing.motion.scene.model import Scene

EASES: list[Any] = [
    *("hold", "linear", "handles", "spline", "even", "slow-out", "snap", "overshoot", "spring", "bounce"),
    {"bezier": [0.3, -1.5, 0.7, 2.5]},
    {"bezier": [0, 1, 1, 0]},
    {"points": [[0, 0], [0.5, 1.4], [0.5, 0.2], [1, 1]]},
    {"spring": {"frequency": 4, "damping": 0.1}},
    {"bounce": {"bounces": 4, "keep": 0.6}},
]
ENDS = ["hold", "coast", "loop", "climb", "ping-pong"]
FRAMES = [0, 1, 5, 10, 12.5, 23, 40, 47, -3, 60, 119, 1e6, -1e6, 0.1]
NUMBERS = [0, 1, -1, 0.5, 3, 12, 100, -40, 720.25, 1e9, -1e9, 1e-9, 1 / 3]
COLOURS = ["#F2932B", "#abc", "#11223344", "#FFFFFF00"]
NAMES = ["Mango", "Ada's leaf", 'say "hi"', "Ω", "Toucan", "x" * 80, "Mango 2"]
TEXTS = ["Mail", "", "{number:,.1f} nuts\nשלום", "☃"]
PATHS = ["M 0 0 L 40 0 L 20 30 Z", "M0 0 C 10 40 50 40 60 0", "m 5 5 a 20 10 0 1 1 30 0 z", "nonsense", "M 1 1"]
#: PNG files of one pixel each.
ONE_PIXEL = [png((n * 80, 120, 60)) for n in range(3)]
#: A second of a drum.
DRUM = kept(struck([0.2, 0.6], 1.0, rate=8000), rate=8000)
IDS = ["a", "b", "c", "d", "fig", "gone"]


class Anything:
    """Random parts of scenes, drawn for one scene as it is."""

    def __init__(self, draw: random.Random) -> None:
        self.draw = draw

    def one_of(self, *choices: Any) -> Any:
        return self.draw.choice(choices)

    def chance(self, share: float) -> bool:
        return self.draw.random() < share

    def number(self) -> float:
        return float(self.draw.choice(NUMBERS) if self.chance(0.5) else round(self.draw.uniform(-300, 300), 3))

    def small(self) -> float:
        return round(self.draw.uniform(-3, 30), 3)

    def frame(self) -> float:
        return float(self.draw.choice(FRAMES) if self.chance(0.4) else self.draw.randrange(0, 48))

    def value(self, kind: str) -> Any:
        if kind == "colour":
            return self.draw.choice(COLOURS)
        if kind == "outline":
            return self.draw.choice(PATHS[:3] if self.chance(0.9) else PATHS)
        if kind == "words":
            return {"text": self.draw.choice(TEXTS)}
        return [self.number(), self.number()] if kind == "point" else self.number()

    def key(self, frame: float, kind: str) -> dict[str, Any]:
        key: dict[str, Any] = {"frame": float(frame), "value": self.value(kind), "ease": self.draw.choice(EASES)}
        if kind == "number" and self.chance(0.2):
            key |= {"out": [self.small(), self.number()], "in": [-abs(self.small()), self.number()]}
        if self.chance(0.2):
            key |= {"tension": self.draw.uniform(-1, 1), "continuity": self.draw.uniform(-1, 1), "bias": self.draw.uniform(-1, 1)}
        if kind == "point" and self.chance(0.5):
            key["way"] = self.one_of("straight", "bezier", "spline")
        if kind == "outline" and self.chance(0.2):
            key["meets"] = [self.draw.randrange(0, 3), self.draw.randrange(0, 3)]
        return key

    def end(self) -> dict[str, Any]:
        return {"mode": self.draw.choice(ENDS), "times": self.one_of(None, 0, 1, 3)}

    def channel(self, kind: str = "number") -> Any:
        frames = sorted({self.frame() for _ in range(self.draw.randrange(0, 5))})
        if not frames:
            return {} if kind in ("point", "outline", "words") else self.value(kind)
        return {"keys": [self.key(frame, kind) for frame in frames], "before": self.end(), "after": self.end()}

    def formula(self, scene: Scene | None) -> str:
        names = [f"{{{thing.name}.{self.draw.choice(list(thing.specs))}}}" for thing in scene.objects[:4]] if scene is not None else []
        names += [f"{{{dial.name}}}" for dial in scene.dials] if scene is not None else []
        read = self.draw.choice([*names, "value", "f", "t", "{Nobody.x}"])
        if read.startswith("{") and self.chance(0.3):
            read = read[:-1] + self.one_of(" @ -6f}", " @ 0.25s}", " @ -2.5f}")
        return self.one_of(
            f"{read} * 2",
            f"{read} + n * count",
            f"sin({read}) + value",
            f"1 / ({read} - {read})",
            f"{read} if f > 10 else value",
            f"sqrt({read})",
            f"{read} (",
        )

    def place(self, scene: Scene) -> tuple[Any, str]:
        """An object or a dial, and one of its channels; mostly of those there are."""
        if self.chance(0.2) or not scene.objects:
            return self.one_of(None, "dial:d1"), "value"
        thing = self.draw.choice(scene.objects)
        return thing, self.draw.choice(sorted(thing.specs)) if self.chance(0.95) else "wings"

    def brought_part(self, scene: Scene) -> dict[str, Any]:
        """What is brought back of an earlier version."""
        thing, channel = self.place(scene)
        owner = getattr(thing, "id", thing)
        if owner is None:
            channel = self.one_of("length", "fps", "cues", "palette", "inset:in1", "weather")
        return {"object": owner, "what": self.one_of("channel", "motion", "drawing", "all"), "channel": channel}

    def sampled(self, scene: Scene) -> dict[str, Any]:
        """Samples for a channel."""
        thing, channel = self.place(scene)
        count = self.draw.randrange(1, 6)
        times = [self.small() for _ in range(count)]
        return {"object": getattr(thing, "id", thing), "channel": channel, "times": times, "values": [self.number() for _ in range(count)]}

    def keyed(self, scene: Scene) -> dict[str, Any]:
        """Keys for a channel, by names."""
        thing, channel = self.place(scene)
        frames = sorted({self.frame() for _ in range(3)})
        return {"object": getattr(thing, "name", "Wind"), "channel": channel, "keys": [self.key(frame, "number") for frame in frames]}

    def rule(self, scene: Scene | None, id: str) -> dict[str, Any]:
        spec = RULES[self.draw.choice(sorted(RULES))]
        settings: dict[str, Any] = {}
        for name, one in spec.settings.items():
            if not self.chance(0.4):
                continue
            if one.choices:
                settings[name] = self.draw.choice(one.choices)
            elif one.names == "formula":
                settings[name] = self.formula(scene)
            elif one.names:
                settings[name] = {"object": self.draw.choice(IDS), "dial": "d1", "colour": "#abc", "channel": "x", "limb": "near-leg"}[one.names]
            elif one.holds == "colour":
                keyed = {"keys": [self.key(5, "number") | {"value": "#F2932B"}, self.key(30, "number") | {"value": "#2F6B4F80"}]}
                settings[name] = self.one_of("#D0365B", keyed)
            else:
                low, high = one.usual or (one.low if one.low is not None else -50.0, one.high if one.high is not None else 50.0)
                numbers = [float(self.draw.uniform(low, high)) for _ in range(2)]
                keyed = {"keys": [self.key(5, "number") | {"value": numbers[0]}, self.key(30, "number") | {"value": numbers[1]}]}
                settings[name] = self.one_of(numbers[0], numbers[0], keyed, {"base": numbers[0], "formula": self.formula(scene)})
        some = ["x", "y", "outline", "rotation", "scale.x", "opacity", "stretch", "fill", "width", "points", "near-leg.x", "fill.2.place"]
        channels: Any = (
            "keyed" if self.chance(0.3) else self.draw.sample(list(spec.for_channels) or some, 1) + self.draw.sample(some, self.draw.randrange(0, 2))
        )
        return {
            "id": id,
            "kind": spec.kind,
            "channels": channels,
            "mode": self.draw.choice(spec.modes or ("add",)),
            "settings": settings,
            "on": self.chance(0.9),
        }

    def parade(self, scene: Scene | None) -> dict[str, Any]:
        ids = [thing.id for thing in scene.objects] if scene is not None else IDS
        lists = [
            {
                "object": self.draw.choice(ids),
                "channel": channel,
                "values": [self.value("colour" if channel == "fill" else "number") for _ in range(self.draw.randrange(0, 4))],
                "fill": self.one_of("cycle", "once", "spread"),
                "mode": self.one_of("replace", "add", "multiply"),
            }
            for channel in self.draw.sample(["fill", "x", "width", "text", "rotation"], self.draw.randrange(0, 3))
            if ids
        ]
        return {
            "arrange": self.draw.choice(["row", "column", "free", "grid", "ring", "along", "points", "letters", "words", "nest"]),
            "order": self.one_of("first", "last", "middle", "ends", "chance"),
            "guide": self.one_of(None, self.draw.choice(ids) if ids else None),
            "wraps": self.chance(0.3),
            "turned": self.chance(0.5),
            "front": self.one_of("last", "first", "smallest"),
            "geometric": self.chance(0.3),
            "feel": self.one_of("even", "slow-in", "overshoot"),
            "lists": lists,
        }

    def pictures(self) -> list[dict[str, Any]]:
        """One to three of a few small pictures."""
        some = self.draw.sample(ONE_PIXEL, self.draw.randrange(1, 4))
        return [{"id": PICTURE_FILES.keep(data), "name": "Leaf", "width": 1, "height": 1} for data in some]

    def sound(self, id: str) -> dict[str, Any]:
        """A drum that is heard with the scene."""
        return DRUM.model_dump() | {
            "id": id,
            "first": self.draw.randrange(-10, 40),
            "begin": self.one_of(0.0, 0.3, 2.0),
            "gain": self.one_of(1.0, 0.4),
            "dial": self.one_of(None, "d1", "gone"),
        }

    def follows(self) -> dict[str, Any] | None:
        """What a dial follows."""
        return self.one_of(None, {"sound": self.one_of("s1", "s2", "gone"), "band": self.one_of("all", "low"), "release": self.one_of(0.0, 0.2)})

    def markers(self) -> list[dict[str, Any]]:
        """Marks on the timeline, each at a frame of its own."""
        return [{"frame": frame, "name": self.one_of("", "hop")} for frame in self.draw.sample(range(60), self.draw.randrange(0, 5))]

    def inset(self, scene: Scene | None) -> dict[str, Any]:
        """Which inner scene an inset shows: mostly one that is there."""
        inner = [one.id for one in scene.insets] if scene is not None else ["in1"]
        return {"scene": self.draw.choice([*inner * 5, "gone"]), "past": self.one_of("hold", "loop", "ping-pong", "gone")}

    def inner(self, id: str) -> dict[str, Any]:
        """A scene inside another."""
        things = [self.thing(None, one) for one in self.draw.sample(IDS[:3], self.draw.randrange(0, 3))]
        return {"id": id, "name": f"Inside {id}", "length": self.one_of(1, 12, 40), "fps": self.one_of(12.0, 24.0), "size": [400, 300]} | {
            "objects": [one for one in things if one["kind"] != "inset"]
        }

    def shape(self) -> dict[str, Any]:
        kind = self.draw.choice([*SHAPES])
        own = {"outline": {"d": self.draw.choice(PATHS)}, "text": {"text": self.draw.choice(TEXTS)}}
        return {"type": kind} | own.get(kind, {})

    def thing(self, scene: Scene | None, id: str) -> dict[str, Any]:
        kind = self.draw.choice(["shape"] * 6 + ["group", "figure", "parade", "inset"] * 2 + ["camera"])
        made: dict[str, Any] = {"id": id, "name": f"{self.draw.choice(NAMES)[:70]} {id}", "kind": kind}
        if kind == "shape":
            made["shape"] = self.shape()
        if kind == "parade":
            made["parade"] = self.parade(scene)
        if kind == "inset":
            made["inset"] = self.inset(scene)
        if kind == "figure":
            made["figure"] = STARTERS[self.draw.choice(sorted(STARTERS))].figure.model_dump(mode="json")
        specs = SHAPES[made["shape"]["type"]] if kind == "shape" else []
        channels = dict.fromkeys(("x", "y", "rotation", "scale.x", "skew", "opacity", "stretch"), "number") | {"path": "point"}
        channels |= {spec.name: spec.kind for spec in specs} | ({"fill": "colour"} if kind == "shape" else {})
        channels |= {"outline": "outline"} if kind == "shape" and made["shape"]["type"] == "outline" else {}
        if kind == "camera":
            channels = dict.fromkeys(("x", "y", "rotation", "zoom"), "number") | {"path": "point"}
        else:
            channels["depth"] = "number"
        channels |= {"inner": "number"} if kind == "inset" else {}
        channels |= dict.fromkeys(("delay", "shift", "gap", "arc", "to.scale"), "number") if kind == "parade" else {}
        names = self.draw.sample(sorted(channels), self.draw.randrange(0, 5))
        made["channels"] = {name: self.channel(channels[name]) for name in names}
        if kind == "parade":
            made["channels"]["count"] = float(self.draw.randrange(0, 6))
        made["rules"] = [self.rule(scene, f"r{n}") for n in range(self.draw.randrange(0, 3))]
        if scene is not None and scene.objects and self.chance(0.4):
            made["parent"] = self.draw.choice(scene.objects).id
            if self.chance(0.4):
                made["bone"] = self.one_of("hips", "near-leg.upper", "nowhere")
        if self.chance(0.2):
            made["span"] = {"first": self.draw.randrange(0, 20), "last": self.draw.randrange(20, 60)}
        return made

    def dial(self, id: str) -> dict[str, Any]:
        kind = self.one_of("number", "number", "colour")
        return (
            {"id": id, "name": f"Wind {id}", "channel": self.channel(kind) or 0.0}
            | ({"low": -10.0, "high": 10.0} if self.chance(0.3) else {})
            | ({"follows": self.follows()} if self.chance(0.3) else {})
        )

    def cue(self, scene: Scene | None, id: str) -> dict[str, Any]:
        objects = [thing.id for thing in scene.objects[:3]] if scene is not None else []
        return {"id": id, "name": "Jump", "first": 2, "last": self.draw.randrange(3, 20), "objects": objects, "key": self.one_of("j", None, "space")}

    def scene(self) -> dict[str, Any]:
        """A scene file, which may or may not be in order."""
        length = self.draw.choice([1, 24, 48, 60])
        things = [self.thing(None, id) for id in self.draw.sample(IDS[:4], self.draw.randrange(1, 4))]
        dials = [self.dial("d1")] if self.chance(0.5) else []
        return {
            "format": "vine-swing-scene",
            "version": 1,
            "name": "Any",
            "length": length,
            "fps": self.one_of(24.0, 12.5, 60.0),
            "objects": things,
            "dials": dials,
            "insets": [self.inner("in1")],
            "sounds": [self.sound("s1")] if self.chance(0.4) else [],
            "markers": sorted(self.markers(), key=lambda one: one["frame"]),
            "beat": self.one_of(None, {"minute": 150.0, "first": 3.0}),
        }
