"""The shipped scenes of the Canopy Post, a rainforest post office run by animals. `python -m demo.make` writes them."""
