"""What is no spectrum, no response and no sweep is refused, with what was meant."""

from pathlib import Path

import numpy as np
import pytest

import vivid_anvil as va
from vivid_anvil import InputError
from vivid_anvil.damage import look_at_response
from vivid_anvil.spectra import PSD, read_cross_spectra, read_psd, read_response

FLAT = PSD([10.0, 100.0], [4.0, 4.0])


def written(text):
    Path("x.csv").write_text(text)
    return "x.csv"


def matrix(values, f=(10.0, 100.0), conjugated="second"):
    return va.SpectralMatrix(("x", "y"), ("acceleration",) * 2, f, np.array([values] * len(f)), conjugated)


def modes(**others):
    given = {"natural_frequency": [40.0, 90.0], "participation": [0.1, 0.2], "modal_stress": [3.0, 4.0]}
    return va.ModalResponse(**(given | others))


BAD = {
    "a negative line": (lambda: PSD([10.0, 20.0], [1.0, -1.0]), "never negative"),
    "a line of 0 in log-log": (lambda: PSD([10.0, 20.0], [1.0, 0.0]), "between = 'linear'"),
    "frequencies that fall": (lambda: PSD([20.0, 10.0], [1.0, 1.0]), "Sort the points"),
    "a two-sided PSD": (lambda: PSD([-20.0, 20.0], [1.0, 1.0], between="linear"), "positive half is doubled"),
    "one frequency": (lambda: PSD([20.0], [1.0]), "A tone by itself is a sine"),
    "the root of a PSD": (
        lambda: va.psd_of_rows([("10 Hz", "0.1 g/Hz^0.5"), ("20 Hz", "0.1 g/Hz^0.5")]),
        "square the values",
    ),
    "a mean square without Hz": (lambda: va.psd_of_rows([("10 Hz", "0.1 g"), ("20 Hz", "0.1 g")]), "(g)^2/Hz"),
    "a table in dB": (lambda: read_psd(written("frequency [Hz],base [dB]\n10,-20\n20,-20\n")), "10 log10"),
    "a density over rad/s": (
        lambda: va.psd_of_rows([("10 Hz", "0.1 g^2/(rad/s)"), ("20 Hz", "0.1 g^2/(rad/s)")]),
        "multiply by 2π",
    ),
    "damping in percent": (
        lambda: va.OneDegreeOfFreedom(natural_frequency="70 Hz", stress_per_acceleration="3 MPa/g", damping_ratio=5.0),
        "If it is in percent, write 0.05",
    ),
    "two words for the damping": (lambda: modes(damping_ratio=0.02, quality_factor=25), "one word"),
    "phases in radians": (
        lambda: va.ResponseTable.of_phases([10.0, 20.0, 30.0], [1.0, 2.0, 1.0], [0.0, -1.5, -3.1]),
        "multiply them by 180/π",
    ),
    "a magnitude in dB": (lambda: va.ResponseTable.of_phases([10.0, 20.0], [-3.0, 2.0], [0.0, -90.0]), "not in dB"),
    "a response without unit": (
        lambda: read_response(written("frequency [Hz],real,imaginary\n10,1,0\n20,2,-1\n")),
        "unit",
    ),
    "an input beyond the lines": (
        lambda: (
            va.InputResponses({"base": va.ResponseTable(frequency=[20.0, 30.0], values=[1.0, 2.0])})
            .seen(va.RandomVibration({"base": FLAT}, "1 h"), "e")
            .process.rms
        ),
        "cut the input there",
    ),
    "lines that differ between inputs": (
        lambda: read_cross_spectra(written("frequency [Hz],x [g^2/Hz],y [g^2/Hz]\n10,1\n20,1,1\n"), conjugated="first"),
        "x.csv",
    ),
    "a coherence above 1": (lambda: va.Together(coherence=1.2), "from 0 to 1"),
    "a matrix that no inputs have": (lambda: matrix([[1.0, 2.0], [2.0, 1.0]]), "positive semidefinite"),
    "a matrix that is not its own conjugate": (lambda: matrix([[1.0, 0.5j], [0.5j, 1.0]]), "conjugate"),
    "pairs that no three inputs can have": (
        lambda: va.PSDs(
            dict.fromkeys("xyz", FLAT),
            {("x", "y"): va.Together(), ("y", "z"): va.Together(), ("x", "z"): va.Together(phase=np.pi)},
        ),
        "positive semidefinite",
    ),
    "a sweep of no length": (
        lambda: va.Sine.sweep("base", start="20 Hz", end="20 Hz", amplitude="1 g", rate="1 octave/min"),
        "At one frequency it is a dwell",
    ),
    "a rate of another kind": (
        lambda: va.Sine.sweep("base", start="20 Hz", end="90 Hz", amplitude="1 g", rate="3 dB/s"),
        "a rate of a sweep",
    ),
    "an exposure without unit": (lambda: va.RandomVibration({"base": FLAT}, "8"), "without a unit"),
    "a dwell without a time": (lambda: va.Sine.dwells("base", [("30 Hz", "1 g", 600)]), "an exposure with its unit"),
    "modal stresses without participation": (lambda: modes(participation=[0.1]), "one for each mode"),
    "six modal stresses without participation": (
        lambda: va.ModalComponents(natural_frequency=[40.0], participation={}, modal_stress=[[1.0] * 6]),
        "participation factor of the same mode",
    ),
    "a rigid-body mode": (lambda: modes(natural_frequency=[0.0, 90.0]), "leave it out"),
    "six tables that are none": (lambda: va.ComponentTables({"base": 3}), "six response tables"),
    "tensor spectra of a PSD alone": (lambda: va.TensorSpectra(FLAT, 3, ("base",)), "PSDs, or a SpectralMatrix"),
    "means without names": (lambda: va.RandomVibration({"base": FLAT}, "1 h", means=3), "by the name of their input"),
    "a number for a tone": (lambda: va.RandomVibration({"base": FLAT}, "1 h", tones={"base": 3}), "a list of Tone"),
    "a word for a seed": (lambda: va.RandomVibration({"base": FLAT}, "1 h", seed="a"), "a whole number"),
    "a number for dwells": (lambda: va.Sine.dwells("base", 3), "rows of a frequency"),
    "a number for a response": (lambda: look_at_response("base", 3), "a response, such as"),
    "an input of no dimension": (lambda: look_at_response("base", modes(), "blub"), "'acceleration'"),
    "a kurtosis below that of Gauss": (
        lambda: va.RandomVibration({"base": FLAT}, "1 h", kurtosis=2.0).cycles_of("base"),
        "excess kurtosis",
    ),
    "kurtosis with a crest factor": (
        lambda: va.RandomVibration({"base": FLAT}, "1 h", kurtosis=4.0, crest_factor=3.0),
        "They contradict each other",
    ),
    "moments of no spectrum": (lambda: va.StatedMoments({0: 1.0, 2: 100.0, 4: 1.0}), "all are in Hz, or all in rad/s"),
    "a segment longer than the history": (
        lambda: va.estimate_psd(
            va.LoadHistory("h", [va.Channel("z", np.arange(40.0), "force")], 10.0), "z", segment="9 s"
        ),
        "For 20 averages take",
    ),
}


@pytest.mark.parametrize("what", BAD)
def test_it_is_refused(what, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    make, words = BAD[what]
    with pytest.raises(InputError) as caught:
        make()
    assert words in str(caught.value)
