"""A response of one's own: a stress that goes with the input up to a corner, and falls beyond it."""

from dataclasses import dataclass

import numpy as np

from vivid_anvil.spectra import RESPONSES, Response
from vivid_anvil.units import Coherent, coherent_ratio


@RESPONSES.add("soft mount")
@dataclass(frozen=True, kw_only=True)
class SoftMount(Response):
    """Stress per acceleration below a corner.

    Parameters
    ----------
    corner : float or str
        Frequency from which it falls, Hz or text; above 0.
    below : str
        Stress for an acceleration below it, such as "2 MPa/g".
    """

    corner: Coherent = Coherent("frequency", above=0.0)
    below: str

    def at(self, frequency):
        """A low pass of first order."""
        f = np.asarray(frequency, dtype=np.float64)
        return coherent_ratio(self.below, "stress", "acceleration", "soft mount") / (1.0 + 1j * f / self.corner)

    @property
    def words(self):
        """How it is called."""
        return f"soft mount, {self.corner:g} Hz"
