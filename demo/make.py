"""Writes the shipped scenes to demo/scenes/, as scene files in the order the Shelf shows them."""

from pathlib import Path

from demo import (
    bamboo_chimes,
    breezy_station,
    departures,
    elements,
    envelope_bird,
    flag_and_kettle,
    hummingbird_courier,
    hypnotic_hibiscus,
    liana,
    log_drum,
    mango_drop,
    mist_gorge,
    morning_round,
    post_report,
    principles,
    river_raft,
    rolling_nuts,
    signal_tree,
    sorting_mill,
    stamp_sheet,
    takes,
    throw_and_catch,
    thrown_mango,
    toucan_glide,
    up_the_liana,
    weather,
)
from vine_swing.motion import dump
from vine_swing.motion.scene.scene_file import from_data

SCENES = Path(__file__).parent / "scenes"
TAKES = SCENES / "takes"
MAKERS = {
    "01-thrown-mango": thrown_mango.make,
    "02-up-the-liana": up_the_liana.make,
    "03-toucan-glide": toucan_glide.make,
    "04-breezy-station": breezy_station.make,
    "05-mango-drop": mango_drop.make,
    "06-liana": liana.make,
    "07-rolling-nuts": rolling_nuts.make,
    "08-throw-and-catch": throw_and_catch.make,
    "09-sorting-mill": sorting_mill.make,
    "10-weather": weather.make,
    "11-signal-tree": signal_tree.make,
    "12-morning-round": morning_round.make,
    "13-post-report": post_report.make,
    "14-hypnotic-hibiscus": hypnotic_hibiscus.make,
    "15-stamp-sheet": stamp_sheet.make,
    "16-envelope-bird": envelope_bird.make,
    "17-flag-and-kettle": flag_and_kettle.make,
    "18-hummingbird-courier": hummingbird_courier.make,
    "19-river-raft": river_raft.make,
    "20-mist-over-the-gorge": mist_gorge.make,
    "21-departures": departures.make,
    "22-bamboo-chimes": bamboo_chimes.make,
    "23-log-drum": log_drum.make,
}


def take_texts() -> dict[str, str]:
    """File name → text of every rehearsal of a shipped scene; the part after two dashes is the rehearsal's name."""
    return {f"{scene}--{name}.json": dump(from_data(make())) + "\n" for scene, (name, make) in takes.TAKES.items()}


def texts() -> dict[str, str]:
    """File name → text of every shipped scene."""
    return {f"{name}.json": dump(from_data(make())) + "\n" for name, make in MAKERS.items()}


if __name__ == "__main__":
    for name, text in principles.texts().items():
        (principles.FOLDER / name).write_text(text, encoding="utf-8")
    for name, text in elements.texts().items():
        (elements.FOLDER / name).write_text(text, encoding="utf-8")
    for name, text in texts().items():
        (SCENES / name).write_text(text, encoding="utf-8")
    TAKES.mkdir(exist_ok=True)
    for name, text in take_texts().items():
        (TAKES / name).write_text(text, encoding="utf-8")
