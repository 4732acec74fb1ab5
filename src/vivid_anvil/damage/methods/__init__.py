"""Methods: how stress cycles become damage, a file each."""

from vivid_anvil.damage.methods.stress_life import StressLife, stress_life, stress_life_of

__all__ = ["StressLife", "stress_life", "stress_life_of"]
