"""Imported in the process that servers of journeys are forked from: what every server computes once and never changes is known before, and what
takes long to load and is loaded by its first use, is there."""

import scipy.ndimage
import scipy.optimize  # noqa: F401

from vine_swing.service.routes.vocabulary import vocabulary

vocabulary()
