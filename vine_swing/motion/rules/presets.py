"""Rules with settings that are good for something, under names that say what for."""

from dataclasses import dataclass, field


@dataclass(frozen=True)
class Preset:
    """A kind of rule with some settings. Amounts are for the family of channels it is named for; the rest are defaults.

    `moves` are settings with keys, as frames from where the rule is put on and values; with `loops` they start over forever.
    """

    name: str
    label: str
    kind: str
    about: str
    settings: dict[str, float | str]
    moves: dict[str, tuple[tuple[float, float], ...]] = field(default_factory=dict)
    loops: bool = False


_BREATH = ((0.0, 0.6), (24.0, 2.2), (48.0, 0.6))

PRESETS: tuple[Preset, ...] = (
    Preset(
        "gentle-breeze",
        "Gentle breeze",
        "noise",
        "Leaves and lianas that never hang quite still.",
        {"amplitude": 4.0, "frequency": 0.5, "octaves": 2.0},
    ),
    Preset(
        "gust",
        "Gust",
        "noise",
        "Restless: a storm, a swarm, a worried lamp.",
        {"amplitude": 14.0, "frequency": 1.8, "octaves": 3.0, "roughness": 0.6},
    ),
    Preset(
        "trembling",
        "Trembling",
        "noise",
        "Small and quick: cold paws, an engine, a lid on steam.",
        {"amplitude": 1.5, "frequency": 9.0, "octaves": 1.0},
    ),
    Preset("rocking", "Rocking", "oscillator", "A steady swing: signs, cradles, boats.", {"amplitude": 8.0, "frequency": 0.6}),
    Preset(
        "dying-swing",
        "Dying swing",
        "oscillator",
        "Swings and comes to rest: a flag that was let go.",
        {"amplitude": 25.0, "frequency": 1.2, "half_life": 0.6},
    ),
    Preset("breath", "Breath", "oscillator", "In and out, slowly: sleepers, glow-worms.", {"amplitude": 3.0, "frequency": 0.25}),
    Preset("jelly", "Jelly", "spring", "Wobbles after every move.", {"frequency": 2.4, "damping": 0.12}),
    Preset("antenna", "Antenna", "spring", "Quick, fine quivering after a move.", {"frequency": 5.0, "damping": 0.08}),
    Preset("sack", "Full sack", "spring", "Sluggish: drags behind and does not swing past.", {"frequency": 1.2, "damping": 1.1}),
    Preset("on-twos", "On twos", "steps", "A new pose every second frame.", {"every": 2.0}),
    Preset("ticking", "Ticking", "steps", "Jumps along like a clock hand.", {"every": 12.0}),
    Preset("ripe-fruit", "Ripe fruit", "bounce", "Falls, hops twice, lies: soft and heavy.", {"fall": 11.0, "keep": 0.22}),
    Preset("hard-nut", "Hard nut", "bounce", "Light and lively: bounces for long.", {"fall": 14.0, "keep": 0.72}),
    Preset("satchel", "Satchel", "pendulum", "Short and heavy: a few swings, then still.", {"length": 80.0, "angle": 35.0, "damping": 0.12}),
    Preset("hanging-liana", "Hanging liana", "pendulum", "Long and slow.", {"length": 420.0, "angle": 28.0, "damping": 0.02}),
    Preset("rubbery", "Rubbery", "squash-stretch", "Gives a lot, and springs back quickly.", {"amount": 0.7, "impact": 0.8, "recover": 5.0}),
    Preset("firm", "Firm", "squash-stretch", "Hardly to be seen, and felt all the same.", {"amount": 0.15, "impact": 0.2, "recover": 4.0}),
    Preset("bold", "Bold", "exaggerate", "Half as far again from the middle.", {"amount": 1.5}),
    Preset("tail", "Tail", "follow", "A little later, dragging and swinging past.", {"delay": 3.0, "spring": 2.2, "damping": 0.25}),
    Preset("half-speed", "Half as fast", "retime", "Slow motion, with the keys where they are.", {"speed": 0.5}),
    Preset("echo", "Echo", "retime", "The same, a little later.", {"delay": 6.0}),
    Preset("crossing", "Crossing the picture", "drift", "Goes across at one speed.", {"speed": 220.0, "angle": 0.0}),
    Preset("thrown", "Thrown", "drift", "Up and away, and down again.", {"speed": 520.0, "angle": -60.0, "gravity": 900.0}),
    Preset(
        "jelly-wobble",
        "Jelly wobble",
        "ripple",
        "A body that cannot keep still.",
        {"amplitude": 5.0, "waves": 3.0, "speed": 1.2, "places": 24.0},
    ),
    Preset(
        "boiling-line",
        "Boiling line",
        "rough",
        "As if it were drawn anew on twos.",
        {"amplitude": 2.0, "size": 18.0, "changes": 12.0},
    ),
    Preset("petals", "Petals", "ripple", "A flower from a disc.", {"amplitude": 18.0, "waves": 8.0}),
    Preset("saw-blade", "Saw blade", "ripple", "Slanted teeth.", {"wave": "sawtooth", "amplitude": 8.0, "waves": 24.0, "places": 24.0}),
    Preset("notches", "Square notches", "ripple", "Cogs, stamps, battlements.", {"wave": "square", "amplitude": 8.0, "waves": 12.0, "places": 64.0}),
    Preset("breathing", "Breathing", "ripple", "All of it a little larger, and smaller again.", {"amplitude": 4.0, "waves": 0.0, "speed": 0.25}),
    Preset(
        "melting",
        "Melting",
        "taper",
        "Sags and spreads at its foot.",
        {"direction": 90.0, "curve": -0.6},
        moves={"size": ((0.0, 1.0), (48.0, 1.8))},
    ),
    Preset(
        "flag",
        "Flag in the wind",
        "ripple",
        "Waves that grow from the pole on.",
        {"goes": "through", "amplitude": 16.0, "waves": 1.5, "speed": -0.9, "grow": 1.0},
    ),
    Preset("draws-itself", "Draws itself", "draw-on", "A line from its first point to its last.", {}, moves={"to": ((0.0, 0.0), (24.0, 1.0))}),
    Preset(
        "worm",
        "Worm along the way",
        "draw-on",
        "A short piece that crawls along, round and round.",
        {"to": 0.2},
        moves={"shift": ((0.0, 0.0), (48.0, 1.0))},
        loops=True,
    ),
    Preset("paper-cut-out", "Paper cut-out", "shadow", "Just above the page: small, close and soft.", {"dx": 3.0, "dy": 5.0, "blur": 2.5}),
    Preset("misprint", "Misprint", "fringe", "Colours that were not laid exactly one over the other.", {"distance": 3.0, "angle": 20.0}),
    Preset("night-glow", "Night glow", "glow", "A lamp in the dark, and its light all round.", {"size": 22.0, "strength": 2.5, "colour": "#FFE3A1"}),
    Preset("breathing-light", "Breathing light", "glow", "Brighter and fainter, for ever.", {"size": 16.0}, {"strength": _BREATH}, loops=True),
    Preset("frosted", "Frosted", "blur", "As through a steamed-up pane.", {"size": 9.0}),
    Preset("swish", "Swish", "blur", "Smeared along its way as long as it is quick.", {"size": 24.0, "way": "travel"}),
    Preset("old-photograph", "Old photograph", "recolour", "Brown and cream.", {"share": 0.9, "dark": "#3A2616", "light": "#F2E2C0"}),
    Preset("moonlight", "Moonlight", "recolour", "Cool, dark, hardly any colour.", {"saturation": 0.35, "brightness": 0.6, "hue": -20.0}),
)
