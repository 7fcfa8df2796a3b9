"""Figures: jointed characters, the limbs that bend, the ground they stand on and the steps they take."""
