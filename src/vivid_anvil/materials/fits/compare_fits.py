"""All models that tests carry, beside each other."""

from __future__ import annotations

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.fits.fit_likelihood import LikelihoodFit, fit_likelihood
from vivid_anvil.materials.fits.fit_models import FIT_MODELS
from vivid_anvil.materials.fits.specimens import SpecimenSeries
from vivid_anvil.units import opened


@opened()
def compare_fits(series: SpecimenSeries) -> tuple[dict[str, LikelihoodFit], dict[str, str]]:
    """All models that the tests carry, the best (smallest AIC) first, and why the others were refused.

    Parameters
    ----------
    series : SpecimenSeries
        The tests.

    Returns
    -------
    tuple[dict[str, LikelihoodFit], dict[str, str]]
        The fits by the name of their model, the best first; and why others were refused.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> fits, refused = compare_fits(read_specimens("tube_tests.csv"))
    >>> list(fits), refused
    (['random limit', 'two slopes', 'line', 'sharp limit'], {})
    """
    fits: dict[str, LikelihoodFit] = {}
    refused: dict[str, str] = {}
    for model in FIT_MODELS:
        try:
            fits[model] = fit_likelihood(series, model)
        except InputError as error:
            refused[model] = f"found {error.found}, expected {error.expected}"
    return dict(sorted(fits.items(), key=lambda item: item[1].aic)), refused
