"""Parades: one animated thing shown many times (design section 11.4): how copies are laid out, in which order they start, what lists give them."""
