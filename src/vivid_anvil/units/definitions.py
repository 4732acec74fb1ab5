"""What each unit of the vocabulary is, as pint takes it: exact by definition (BIPM 2019; international yard and pound 1959)."""

from __future__ import annotations

DEFINITIONS = (
    "nano- = 1e-9",
    "micro- = 1e-6",
    "milli- = 1e-3",
    "centi- = 1e-2",
    "deca- = 10",
    "kilo- = 1e3",
    "mega- = 1e6",
    "giga- = 1e9",
    "meter = [length]",
    "second = [time]",
    "gram = [mass]",
    "kelvin = [temperature]",
    "minute = 60 * second",
    "hour = 3600 * second",
    "hertz = 1 / second",
    "inch = 0.0254 * meter",
    "foot = 0.3048 * meter",
    "standard_gravity = 9.80665 * meter / second ** 2",
    "newton = 1000 * gram * meter / second ** 2",
    "joule = newton * meter",
    "pascal = newton / meter ** 2",
    "bar = 1e5 * pascal",
    "kilogram_force = 1000 * gram * standard_gravity",
    "pound_force = 453.59237 * gram * standard_gravity",
    "kip = 1000 * pound_force",
    "psi = pound_force / inch ** 2",
    "ksi = 1000 * psi",
    "load_cycle = [load_cycle]",
    "angle_rad = [angle]",  # pint's radian has no dimension; ours must not pass for a strain
    "angle_deg = 0.017453292519943295 * angle_rad",
    "microstrain_unit = 1e-6",
    "strain_unit = 1",
    "percent_unit = 0.01",
)
