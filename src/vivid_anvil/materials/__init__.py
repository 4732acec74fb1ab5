"""What the part is made of: S-N curves, growth laws, strengths."""

from vivid_anvil.materials.growth_law import GrowthLaw
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.sn_curve import ANY_R, SNCurve

__all__ = ["ANY_R", "GrowthLaw", "Material", "SNCurve"]
