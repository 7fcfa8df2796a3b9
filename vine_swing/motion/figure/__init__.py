"""Figures: jointed characters, the limbs that bend, the ground they are on and the steps they take."""
