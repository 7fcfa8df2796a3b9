"""Imported in the process that servers of journeys are forked from: what every server works out once and never changes is known before."""

from vine_swing.service.routes.vocabulary import vocabulary

vocabulary()
