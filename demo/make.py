"""Writes the shipped scenes to demo/scenes/, as scene files in the order the Shelf shows them."""

from pathlib import Path

from demo import breezy_station, liana, mango_drop, principles, rolling_nuts, throw_and_catch, thrown_mango, toucan_glide, up_the_liana
from vine_swing.motion import dump
from vine_swing.motion.scene_file import from_data

SCENES = Path(__file__).parent / "scenes"
MAKERS = {
    "1-thrown-mango": thrown_mango.make,
    "2-up-the-liana": up_the_liana.make,
    "3-toucan-glide": toucan_glide.make,
    "4-breezy-station": breezy_station.make,
    "5-mango-drop": mango_drop.make,
    "6-liana": liana.make,
    "7-rolling-nuts": rolling_nuts.make,
    "8-throw-and-catch": throw_and_catch.make,
}


def texts() -> dict[str, str]:
    """File name → text of every shipped scene."""
    return {f"{name}.json": dump(from_data(make())) + "\n" for name, make in MAKERS.items()}


if __name__ == "__main__":
    for name, text in principles.texts().items():
        (principles.FOLDER / name).write_text(text, encoding="utf-8")
    for name, text in texts().items():
        (SCENES / name).write_text(text, encoding="utf-8")
