"""The dimensions that the trade uses, the unit each has inside the house, and the unit symbols accepted at the door.

The vocabulary is closed on purpose: a slip such as "mPa" (millipascal) for "MPa" must be an error, not a factor of 1e9.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Dimension:
    """A kind of quantity: its name, the coherent unit, an example for error messages, the units it is shown in."""

    name: str
    coherent: str
    example: str
    metric: str
    us: str


DIMENSIONS = {
    dimension.name: dimension
    for dimension in (
        Dimension("stress", "MPa", "185 MPa", "MPa", "ksi"),
        Dimension("force", "N", "3.2 kN", "kN", "kip"),
        Dimension("moment", "N*mm", "1.5 kN*m", "kN*m", "kip*in"),
        Dimension("length", "mm", "12 mm", "mm", "in"),
        Dimension("time", "s", "8 min", "s", "s"),
        Dimension("frequency", "Hz", "100 Hz", "Hz", "Hz"),
        Dimension("stress intensity", "MPa*mm^0.5", "80 MPa√m", "MPa√m", "ksi√in"),
        Dimension("growth rate", "mm/cycle", "1e-7 mm/cycle", "mm/cycle", "in/cycle"),
        Dimension("acceleration", "mm/s^2", "9.81 m/s^2", "m/s^2", "g"),
        Dimension("velocity", "mm/s", "25 mm/s", "mm/s", "in/s"),
        Dimension("strain", "mm/mm", "450 µm/m", "µm/m", "µm/m"),
        Dimension("angle", "rad", "4 deg", "deg", "deg"),
        Dimension("gradient", "1/mm", "0.4 1/mm", "1/mm", "1/in"),
        Dimension("energy release rate", "N/mm", "12 kJ/m^2", "N/mm", "lbf/in"),
        Dimension("force per width", "N/mm", "220 N/mm", "N/mm", "lbf/in"),
        Dimension("moment per width", "N*mm/mm", "35 N*mm/mm", "N*mm/mm", "in*lbf/in"),
        Dimension("thermal expansion", "1/K", "3e-5 1/K", "1/K", "1/K"),
        Dimension("temperature change", "K", "-120 K", "K", "K"),
        Dimension("energy", "J", "40 J", "J", "ft*lbf"),
        Dimension("energy density", "MJ/m^3", "0.35 MJ/m^3", "MJ/m^3", "in*lbf/in^3"),
        Dimension("number", "1", "1.5", "1", "1"),
    )
}

# What may be typed -> the name that pint knows it by.
SYMBOLS = {
    "Pa": "pascal",
    "kPa": "kilopascal",
    "MPa": "megapascal",
    "GPa": "gigapascal",
    "bar": "bar",
    "psi": "psi",
    "ksi": "ksi",
    "N": "newton",
    "kN": "kilonewton",
    "MN": "meganewton",
    "daN": "decanewton",
    "lbf": "pound_force",
    "kip": "kip",
    "kgf": "kilogram_force",
    "J": "joule",
    "kJ": "kilojoule",
    "MJ": "megajoule",
    "m": "meter",
    "cm": "centimeter",
    "mm": "millimeter",
    "um": "micrometer",
    "nm": "nanometer",
    "in": "inch",
    "inch": "inch",
    "ft": "foot",
    "s": "second",
    "ms": "millisecond",
    "min": "minute",
    "h": "hour",
    "Hz": "hertz",
    "kHz": "kilohertz",
    "K": "kelvin",
    "cycle": "load_cycle",
    "cycles": "load_cycle",
    "rad": "angle_rad",
    "deg": "angle_deg",
    "strain": "strain_unit",
    "%": "percent_unit",
    "microstrain": "microstrain_unit",
    "g": "standard_gravity",
    "g0": "standard_gravity",
}
# Long names, as a quantity object writes them.
LONG_NAMES = {name: name for name in SYMBOLS.values()}

# Slips that would otherwise be a puzzle, and what was probably meant.
SLIPS = {
    "mPa": "mPa is a millipascal; write 'MPa' for megapascal.",
    "Mpa": "Write 'MPa', with a capital P.",
    "mpa": "Write 'MPa'.",
    "KN": "Write 'kN', with a small k.",
    "kn": "Write 'kN', with a capital N.",
    "n": "Write 'N' for newton.",
    "MM": "Write 'mm'.",
    "Mm": "Write 'mm'.",
    "S": "Write 's' for second.",
    "sec": "Write 's'.",
    "hz": "Write 'Hz'.",
    "KSI": "Write 'ksi'.",
    "Ksi": "Write 'ksi'.",
    "PSI": "Write 'psi'.",
    "lb": "Write 'lbf' for a force in pounds.",
    "lbs": "Write 'lbf' for a force in pounds.",
    "klbf": "Write 'kip'.",
    "kg": "A kilogram is a mass; write a force as '9.81 N' or '1 kgf'.",
    "t": "A tonne is a mass; write a force in 'kN'.",
    "G": "Write 'g' for the acceleration of gravity.",
    "MPA": "Write 'MPa'.",
}
