"""Cracks of finite-element models: K along a front from a table of contours, against the curve, and as a shape."""
