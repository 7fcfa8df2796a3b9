"""Outlines as curves: verbs and points, SVG path data, cubics with their lengths, cutting, matching, fitting and combining."""
