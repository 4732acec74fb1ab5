"""All methods that are verified against reference cases, in the order of the documentation."""

from tests.crack_values import CRACK_METHODS
from tests.field_values import FIELD_METHODS
from tests.flaw_values import FLAWS
from tests.plane_values import PLANES
from tests.ply_values import PLIES
from tests.reference_values import METHODS as FIRST_METHODS
from tests.rubber_values import RUBBER
from tests.strain_values import STRAIN
from tests.vibration_values import VIBRATION

METHODS = (*FIRST_METHODS, *CRACK_METHODS, *FIELD_METHODS, *VIBRATION, *FLAWS, *STRAIN, *PLANES, *RUBBER, *PLIES)
