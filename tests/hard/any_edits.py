"""Random edits of a scene, valid and not: of every kind, with every field."""

from typing import Any, get_args

from tests.hard.anything import COLOURS, EASES, IDS, NAMES, PATHS, Anything
from vine_swing.motion.edits import AnyEdit
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import to_data

EDITS = {get_args(edit.model_fields["edit"].annotation)[0]: edit for edit in get_args(get_args(AnyEdit)[0])}
TIMED_BY = ["markers", "beat", "sound:s1", "sound:gone"]
#: Edits that name several objects.
OF_SEVERAL = ("key-objects", "transform-objects", "order-objects", "change-values", "lock-objects", "tag-objects", "duplicate-objects")
#: Edits of one point of an outline.
OF_POINTS = ("set-point-handle", "add-point", "cut-outline", "join-ends", "first-point")
#: What no field takes, whatever it is.
WRONG: list[Any] = [None, "", "\x00", [], {}, True, 1e308, "{", -1, "a" * 300, "\ud800"]


class AnyEdits(Anything):
    """Random edits, drawn for one scene as it is."""

    def edit(self, scene: Scene) -> dict[str, Any]:
        """An edit; mostly of what the scene has, sometimes with a field that is wrong."""
        kind = self.draw.choice(sorted(EDITS))
        fields = EDITS[kind].model_fields
        given = {"edit": kind}
        thing = self.draw.choice(scene.objects) if scene.objects else None
        for name, field in fields.items():
            key = field.alias or name
            if name == "edit" or (not field.is_required() and self.chance(0.5)):
                continue
            given[key] = self.field(kind, name, scene, thing)
        if self.chance(0.08) and len(given) > 1:
            given[self.draw.choice(sorted(set(given) - {"edit"}))] = self.draw.choice(WRONG)
        return given

    def field(self, kind: str, name: str, scene: Scene, thing: Any) -> Any:
        """A value for a field of an edit of some kind, drawn for an object of the scene."""
        own = thing.id if thing is not None else "gone"
        channels = [*(thing.specs if thing is not None else ()), *(thing.moving_settings if thing is not None else ()), "nothing"]
        keyed = [one for one in channels if thing is not None and one in thing.channels and thing.channels[one].keys]
        channel = self.draw.choice(keyed if keyed and self.chance(0.6) else channels)
        keys = thing.channels[channel].keys if channel in keyed else ()
        frames = [key.frame for key in keys] if keys and self.chance(0.7) else [self.frame() for _ in range(self.draw.randrange(1, 3))]
        rules = [rule.id for rule in thing.rules] if thing is not None else []
        match name:
            case "parade":
                return self.parade(scene)
            case "sound":
                return self.sound(f"s{self.draw.randrange(4)}")
            case "markers":
                return self.markers()
            case "beat":
                return self.one_of(None, {"minute": self.one_of(60.0, 150.0, 600.0), "first": self.small(), "bar": 3})
            case "follows":
                return self.follows()
            case "by" if kind in ("keys-on-beats", "step-on-beats"):
                return self.draw.choice(TIMED_BY)
            case "way" if kind == "keys-on-beats":
                return self.one_of("hit", "turn", "bounce", "poses")
            case "struck" | "rest" if kind == "keys-on-beats":
                return self.number()
            case "rise" | "fall" | "every" | "skip":
                return self.draw.randrange(0, 5)
            case "id" if kind in ("set-sound", "delete-sound"):
                return scene.sounds[0].id if scene.sounds else "s1"
            case "begin" | "end" | "gain":
                return self.one_of(0.0, 0.3, 0.9, 4.0)
            case "dial" if kind == "set-sound":
                return self.one_of(None, "d1", "gone")
            case "keep" if kind == "set-sound":
                return self.chance(0.5)
            case "picture" if kind == "replace-picture":
                return self.draw.choice(self.pictures())
            case "picture":
                return {
                    "pictures": [one["id"] for one in self.pictures()],
                    "fit": self.one_of("inside", "cover", "stretch"),
                    "tile": self.one_of("none", "across"),
                    "smooth": self.chance(0.5),
                }
            case "pictures":
                return self.pictures()
            case "old":
                return self.draw.choice([one.id for one in scene.pictures] or ["picture-0000000000000000"])
            case "frames_a_page":
                return self.one_of(1.0, 2.5, 0.1)
            case "line":
                return {
                    "cap": self.one_of("round", "butt", "square"),
                    "join": self.one_of("round", "miter"),
                    "dash": self.one_of([], [4.0, 2.0], [0.0]),
                }
            case "blend":
                return self.one_of("normal", "multiply", "hue")
            case "blur":
                return self.one_of(None, {"samples": self.draw.randrange(1, 66), "shutter": self.one_of(180.0, 0.0, 720.0)})
            case "depths":
                return {one.id: self.one_of(-0.9, 0.0, 2.5) for one in scene.objects[:3]}
            case "inset":
                return self.inset(scene)
            case "scene":
                known = [one.id for one in scene.insets]
                return self.draw.choice([*known, "in1", f"in{self.draw.randrange(99)}"])
            case "how" if kind == "lay-behind":
                return self.one_of("fill", "tile", "stay")
            case "objects" if kind in ("move-objects", "align-objects", "distribute-objects", "spread-in-time", *OF_SEVERAL):
                return self.draw.sample([one.id for one in scene.objects] or ["gone"], min(max(1, len(scene.objects)), 4))
            case "to" if kind == "order-objects":
                return self.one_of("front", "forward", "backward", "back", "before", "behind")
            case "other" if kind == "order-objects":
                return self.draw.choice([None, *[one.id for one in scene.objects]])
            case "how" if kind == "change-values":
                return self.one_of("set", "add", "multiply")
            case "about":
                return [self.number(), self.number()]
            case "turn":
                return self.one_of(90.0, -400.0, 0.0)
            case "scale":
                return self.one_of([1.0, 1.0], [2.0, 0.5], [-1.0, 1.0], [0.0, 0.0])
            case "tag":
                return self.one_of(None, "#3D8B5F")
            case "parcel":
                return self.scene()
            case "kept" if kind == "bring-back":
                return (
                    to_data(scene) | self.one_of({}, {"length": 31}, {"objects": to_data(scene).get("objects", [])[:1]})
                    if self.chance(0.8)
                    else self.scene()
                )
            case "parts" if kind == "bring-back":
                return None if self.chance(0.2) else [self.brought_part(scene) for _ in range(self.draw.randrange(1, 4))]
            case "pace":
                return self.one_of(1.0, 24.0, 0.5)
            case "called":
                return "the first take"
            case "tracks":
                return [self.sampled(scene) if kind == "lay-samples" else self.keyed(scene) for _ in range(self.draw.randrange(1, 3))]
            case "hang":
                return {"gone": own} if self.chance(0.1) else {}
            case "side" if kind == "align-objects":
                return self.one_of("left", "middle", "right", "top", "centre", "bottom")
            case "to" if kind == "align-objects":
                return self.one_of("each-other", "picture")
            case "along" if kind == "distribute-objects":
                return self.one_of("across", "down")
            case "what" if kind == "distribute-objects":
                return self.one_of("gaps", "middles")
            case "order" if kind == "spread-in-time":
                return self.one_of("troupe", "left-to-right", "chance")
            case "how" if kind == "spread-in-time":
                return self.one_of("keys", "rule")
            case "later":
                return self.small()
            case "seed":
                return self.draw.randrange(0, 99)
            case "id" if kind == "ground-shadow":
                return f"g{self.draw.randrange(99)}"
            case "id" if kind in ("set-gradient", "add-stop", "remove-stop"):
                return next((one.id for one in self.draw.sample(scene.objects, len(scene.objects)) if one.kind == "shape"), "gone")
            case "kind" if kind == "hush-note":
                return self.one_of("lone-key", "seam", "a kind")
            case "kind" if kind == "set-gradient":
                return self.one_of("linear", "radial", None)
            case "objects" if kind == "fog-by-distance":
                free = [one.id for one in scene.objects if one.parent is None] or ["gone"]
                return self.draw.sample(free, min(len(free), 3))
            case "id" if kind == "lay-behind":
                return next((one.id for one in scene.objects if one.kind == "picture"), "gone")
            case "how" if kind == "fit-inset":
                return self.one_of("span", "inside", "stretch")
            case "parts" if kind == "make-inset":
                return self.draw.sample([one.id for one in scene.objects] or ["gone"], min(len(scene.objects) or 1, self.draw.randrange(1, 3)))
            case "id" if kind in ("make-inset", "add-inset"):
                return f"i{self.draw.randrange(99)}"
            case "id" if kind.endswith("-inset") and self.chance(0.7):
                insets = [one.id for one in scene.objects if one.kind == "inset"]
                return self.draw.choice(insets or ["gone"])
            case "id" if kind == "add-picture":
                return f"p{self.draw.randrange(99)}"
            case "d":
                return self.draw.choice(PATHS)
            case "hand":
                places = [[self.number(), self.number()] for _ in range(self.draw.randrange(2, 9))]
                return {"places": places, "tolerance": 3.0, "closed": self.chance(0.5)}
            case "points" if kind in ("move-points", "remove-points", "set-points"):
                return [self.draw.randrange(0, 4) for _ in range(self.draw.randrange(1, 3))]
            case "point" | "one" | "other" | "after" if kind in OF_POINTS:
                return self.draw.randrange(0, 4)
            case "meets":
                return self.one_of(None, [self.draw.randrange(0, 4), self.draw.randrange(0, 4)])
            case "to" if kind == "set-point-handle":
                return self.one_of(None, [self.small(), self.small()])
            case "side":
                return self.one_of("in", "out")
            case "how" if kind == "fit-parts":
                return self.one_of("extend", "stretch")
            case "how" if kind == "combine-outlines":
                return self.one_of("unite", "cut-out", "overlap", "exclude")
            case "objects" if kind == "combine-outlines":
                return self.draw.sample([one.id for one in scene.objects] or ["gone"], min(2, max(1, len(scene.objects))))
            case "kind" if kind == "set-points":
                return self.one_of("smooth", "corner")
            case "colours":
                return self.draw.sample(COLOURS, 2)
            case "dx" | "dy" | "tolerance":
                return abs(self.small()) + 0.1
            case "channels" if kind == "draw-outline":
                return {"fill": "#F2932B"}
            case "objects" if kind == "add-objects":
                first = self.thing(None, "first")
                return [first, self.thing(None, "second") | {"parent": self.one_of(None, "first", "nowhere")}]
            case "font":
                return {"id": "file-0000000000000000", "name": "Leaf", "licence": "ours", "data": "AAEAAA=="}
            case "prefix":
                return self.one_of("new", f"n{self.draw.randrange(99)}")
            case "values":
                return {"count": float(self.draw.randrange(0, 6)), "delay": self.small()}
            case "parts" if kind == "make-parade":
                return self.draw.sample([one.id for one in scene.objects] or ["gone"], 1)
            case "object" if kind == "add-object":
                return self.thing(scene, self.draw.choice([*IDS, f"n{self.draw.randrange(99)}"]))
            case "object":
                return f"dial:{scene.dials[0].id}" if scene.dials and self.chance(0.1) else own
            case "id" if kind in ("set-dial", "delete-dial"):
                return scene.dials[0].id if scene.dials else "d1"
            case "id" if kind == "delete-cue":
                return scene.cues[0].id if scene.cues else "c1"
            case "id" if kind == "add-figure":
                return f"f{self.draw.randrange(99)}"
            case "id" | "figure" if kind != "set-figure" or name == "id":
                figures = [one.id for one in scene.objects if one.kind == "figure"]
                return self.draw.choice(figures) if figures and self.chance(0.5) else own
            case "parent":
                return self.draw.choice([None, *[one.id for one in scene.objects]])
            case "channel":
                return channel
            case "channels" if kind == "set-rule":
                return self.one_of("keyed", ["x"], ["rotation", "y"], None)
            case "channels":
                return self.draw.sample(["x", "y", "rotation", "path", channel], 2)
            case "value" if kind == "set-setting":
                return self.one_of(None, self.small(), "sine", "a", "value + 1")
            case "value":
                known = thing.specs.get(channel) if thing is not None else None
                return self.value(known.kind if known is not None else "number")
            case "ease":
                return self.draw.choice(EASES)
            case "before" | "after":
                return self.end()
            case "out" | "into":
                return [self.small(), self.number()]
            case "keys" if kind == "paste-keys":
                return [self.key(frame, "number") for frame in sorted(set(frames))]
            case "keys":
                return [{"object": own, "channel": channel, "frames": frames}]
            case "frames" if kind in ("hold-here", "travel-cycle"):
                return float(self.draw.randrange(1, 20))
            case "frames":
                return frames
            case "frame" | "at" | "about" | "keep_at":
                return self.draw.choice(frames)
            case "first" if kind == "freeze-walk":
                return 2
            case "last" if kind == "freeze-walk":
                return 12
            case "first" | "start" | "rest":
                return self.draw.randrange(0, 20)
            case "last":
                return self.draw.randrange(20, 60)
            case "rule" if kind == "add-rule":
                return self.rule(scene, f"r{self.draw.randrange(6)}")
            case "rule":
                return self.draw.choice([*rules, "r9"])
            case "setting":
                words = [word for rule in thing.rules for word in rule.spec.settings] if thing is not None else []
                return self.draw.choice([*words, "amplitude"])
            case "formula":
                return self.one_of(None, self.formula(scene))
            case "shape":
                return self.shape()
            case "figure":
                return STARTERS[self.draw.choice(sorted(STARTERS))].figure.model_dump(mode="json")
            case "dial":
                return self.dial(f"d{self.draw.randrange(3)}")
            case "cue":
                return self.cue(scene, f"c{self.draw.randrange(3)}")
            case "presses":
                return [{"cue": scene.cues[0].id if scene.cues else "c1", "at": 0, "runs": 20}]
            case "parts":
                return {one.id: self.one_of("hips", "near-leg.upper", None) for one in scene.objects[:2]}
            case "by" if kind == "pose-joints":
                return {self.one_of("hips.x", "near-leg.x", "head.turn", "nothing"): self.small()}
            case "starter":
                return self.draw.choice(sorted(STARTERS))
            case "preset":
                return self.draw.choice(sorted(GAITS))
            case "name":
                return self.draw.choice(NAMES)
            case "colour":
                return self.draw.choice(COLOURS)
            case "length":
                return self.draw.choice([1, 24, 48, 90])
            case "width" | "height":
                return self.draw.randrange(1, 900) if kind == "set-size" else float(self.draw.randrange(20, 900))
            case "fps":
                return self.one_of(12.0, 24.0, 25.0, 120.0)
            case "index":
                return self.draw.randrange(0, 5)
            case "times":
                return self.draw.randrange(-3, 4)
            case "tolerance":
                return self.one_of(0.1, 1.0)
            case "factor":
                return self.one_of(0.5, 2.0, -1.0, 1e5)
            case "tension" | "continuity" | "bias":
                return self.draw.uniform(-1, 1)
            case "low" | "high":
                return self.number()
            case "way":
                return self.one_of("straight", "bezier", "spline")
            case "corner":
                return self.one_of("sharp", "smooth")
            case "axis":
                return self.one_of("x", "y")
            case "what":
                return self.one_of("picture", "way")
            case "keep":
                return self.one_of("frames", "seconds") if kind == "set-fps" else self.one_of("first", "frame", "base")
            case "mode":
                return self.one_of("add", "replace", "multiply")
            case "unit":
                return self.one_of("", "%", "px", "°")
            case "share":
                return self.draw.uniform(0.05, 0.95)
            case (
                "broken"
                | "stretch"
                | "push"
                | "replace"
                | "clockwise"
                | "on"
                | "pinned"
                | "blurred"
                | "locked"
                | "hushed"
                | "shown"
                | "drawn"
                | "key"
                | "back"
            ):
                return self.chance(0.5)
            case "leaving" | "arriving" | "x" | "y" | "by":
                return self.number()
            case "of":
                return self.one_of("fill", "stroke")
            case "place":
                return self.draw.random()
            case "stop":
                return self.draw.randrange(1, 9)
            case _:
                raise AssertionError(f"the generator does not know the field '{name}' of '{kind}'")
