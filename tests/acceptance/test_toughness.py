"""Toughness from every source, against hand calculations and the tables of the standards; weld and plates."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.acceptance.flaws import STEEL, metal
from vivid_anvil import (
    CharpyToughness,
    CTODToughness,
    InputError,
    JToughness,
    KToughness,
    MasterCurve,
    Material,
    Metal,
    ResistanceCurve,
    ToughnessTests,
    Weld,
)
from vivid_anvil.materials.fracture import RULES, TOUGHNESSES
from vivid_anvil.materials.fracture.toughness import ROOT_1000
from vivid_anvil.materials.fracture.toughness_tests import lognormal_fractile, master_curve_fractile, minimum_of_three

PLANE_STRAIN = 207000.0 / (1.0 - 0.09)


def found(source, wall=25.0, **others):
    return metal(source, **others).tough(wall)


def test_toughness_by_hand():
    assert found(KToughness(k="80 MPa√m")).k == pytest.approx(80.0 * ROOT_1000)
    assert found(JToughness(j="150 kJ/m^2")).k == pytest.approx(math.sqrt(150.0 * PLANE_STRAIN))
    ratio = 1.517 * (355.0 / 510.0) ** -0.3188
    assert found(CTODToughness(ctod="0.1 mm")).k == pytest.approx(math.sqrt(ratio * 355.0 * 0.1 * PLANE_STRAIN))
    low = CharpyToughness(energy="40 J", correlation="lower shelf and transition", tested_at="-20 °C")
    assert found(low, 40.0, temperature=-10.0).k / ROOT_1000 == pytest.approx(
        (12.0 * math.sqrt(40.0) - 20.0) * (25 / 40) ** 0.25 + 20.0
    )
    high = CharpyToughness(energy="120 J", correlation="upper shelf", tested_at="20 °C")
    j = 0.53 * 120.0**1.28 * 0.2 ** (0.133 * 120.0**0.256)
    assert found(high, temperature=20.0).k == pytest.approx(math.sqrt(j * PLANE_STRAIN))
    assert found(low, temperature=-10.0).estimated
    at_27 = MasterCurve(temperature_of_27_joules="-40 °C", margin=25.0)
    assert at_27.t0 == -33.0
    assert found(at_27, temperature="-33 °C").estimated


def test_a_median_of_25_mm_is_100_at_its_reference_temperature():
    """The definition of T_0: median 100 MPa√m of 25 mm."""
    curve = MasterCurve(reference_temperature=-60.0, probability=0.5)
    assert found(curve, 25.0, temperature=-60.0).k / ROOT_1000 == pytest.approx(20.0 + 88.0 * math.log(2.0) ** 0.25)
    assert found(curve, 25.0, temperature=-60.0).k / ROOT_1000 == pytest.approx(100.0, abs=0.5)


def test_fractiles_are_those_of_the_table_of_en_1990():
    """Table D1, the deviation unknown: k_n of 3, 4, 5, 6, 8, 10, 20, 30 results."""
    for n, k_n in ((3, 3.37), (4, 2.63), (5, 2.33), (6, 2.18), (8, 2.00), (10, 1.92), (20, 1.76), (30, 1.73)):
        logs = np.linspace(-1.0, 1.0, n)
        logs = 4.5 + 0.1 * (logs - logs.mean()) / logs.std(ddof=1)
        found_k = (4.5 - math.log(lognormal_fractile(np.exp(logs))[0])) / 0.1
        assert found_k == pytest.approx(k_n, abs=0.013)  # the table has 1.76 for 20 results, its formula 1.772


def test_the_minimum_of_three_equivalent_by_its_table():
    for n, rank in ((3, 1), (5, 1), (6, 2), (10, 2), (11, 3), (15, 3)):
        assert minimum_of_three(np.arange(50.0, 50.0 + n))[0] == 50.0 + rank - 1


@given(st.lists(st.floats(60.0, 160.0), min_size=3, max_size=15))
def test_rules_lie_within_the_results_or_below(results):
    k = np.sort(results)
    assert RULES["lower bound"](k)[0] == k[0]
    assert k[0] <= minimum_of_three(k)[0] <= k[-1]
    assert master_curve_fractile(k)[0] <= k[-1]
    assert lognormal_fractile(k)[0] <= float(np.exp(np.log(k).mean())) * (1.0 + 1e-12)


def test_results_may_be_of_each_kind():
    mixed = ToughnessTests(results=["80 MPa√m", "60 kJ/m^2", "0.1 mm", "90 MPa√m"], rule="lower bound")
    each = [KToughness(k="80 MPa√m"), JToughness(j="60 kJ/m^2"), CTODToughness(ctod="0.1 mm"), KToughness(k="90 MPa√m")]
    assert found(mixed).k == pytest.approx(min(found(one).k for one in each))


def test_tests_of_thin_specimens_are_carried_over_and_told():
    told = found(KToughness(k="110 MPa√m", specimen_thickness="12.5 mm"), 40.0)
    assert told.k / ROOT_1000 == pytest.approx(87.290695155)
    assert [one.code for one in told.findings] == ["toughness-thinner"]
    assert found(KToughness(k="15 MPa√m", specimen_thickness="12.5 mm"), 40.0).k == pytest.approx(15.0 * ROOT_1000)


def test_findings_of_toughness():
    def codes(source, **others):
        return {one.code for one in found(source, **others).findings}

    assert "toughness-few" in codes(ToughnessTests(results=["80 MPa√m"], rule="lower bound"))
    assert "toughness-scatters" in codes(ToughnessTests(results=["80 MPa√m", "190 MPa√m", "77 MPa√m"]))
    low = CharpyToughness(energy="40 J", correlation="lower shelf and transition", tested_at="-20 °C")
    assert "toughness-estimated" in codes(low, temperature=0.0)
    assert "master-curve-far" in codes(MasterCurve(reference_temperature=-60.0), temperature=20.0)
    assert codes(MasterCurve(reference_temperature=-60.0), temperature=-30.0) == set()


def test_a_resistance_curve_gives_its_initiation():
    rows = ResistanceCurve(points=[("0.1 mm", "60 kJ/m^2"), (1.0, 240.0)], initiation="0.2 mm")
    assert rows.j(0.2) == pytest.approx(80.0)
    assert found(rows).k == pytest.approx(math.sqrt(80.0 * PLANE_STRAIN))


def test_weld_and_plates():
    assert Metal(material=STEEL, weld=Weld(yield_strength=460.0, ultimate_strength=560.0)).strengths == (355.0, 510.0)
    assert Metal(material=STEEL, weld=Weld(yield_strength=300.0, ultimate_strength=450.0)).strengths == (300.0, 450.0)
    over = 460.0 / 355.0
    for ratio, wanted in ((1.0, (355.0, 510.0)), (over, (460.0, 560.0))):  # plates alone, weld alone
        both = Metal(material=STEEL, weld=Weld(yield_strength=460.0, ultimate_strength=560.0, yield_load_ratio=ratio))
        assert both.strengths == pytest.approx(wanted)
    between = Metal(material=STEEL, weld=Weld(yield_strength=460.0, ultimate_strength=560.0, yield_load_ratio=1.1))
    assert between.strengths[0] == pytest.approx(1.1 * 355.0)
    assert between.steps()[0].value == pytest.approx(390.5)
    with pytest.raises(InputError, match="yield_load_ratio"):
        assert Metal(
            material=STEEL, weld=Weld(yield_strength=460.0, ultimate_strength=560.0, yield_load_ratio=1.5)
        ).strengths


def test_engineering_stress_and_strain_are_made_true():
    rows = [(300.0, 0.0015), (355.0, 0.0037), (420.0, 0.03), (500.0, 0.12)]
    own = metal(curve="stress-strain", stress_strain=rows, measured_as="engineering", cut_off=1.1).assessment_curve
    assert own.stress_strain[-1] == pytest.approx((500.0 * 1.12, math.log(1.12)))


WRONG = [
    (lambda: JToughness(j="150 MPa m"), "1 kJ/m"),
    (lambda: JToughness(j="80 MPa√m"), "energy release rate"),
    (lambda: CTODToughness(ctod=0.00015), "Is it in m"),
    (lambda: CTODToughness(ctod="150 mm"), "Is it in µm"),
    (lambda: CTODToughness(ctod="0.1 mm").factor(metal_of_ratio(0.99)), "0.3 to 0.98"),
    (lambda: CharpyToughness(energy="40 J", correlation="transition", tested_at="0 °C"), "lower shelf and transition"),
    (lambda: CharpyToughness(energy="0.04 kJ", correlation="upper shelf"), None),
    (lambda: CharpyToughness(energy="600 J", correlation="upper shelf"), "J/cm"),
    (lambda: found(CharpyToughness(energy="40 J", correlation="upper shelf")), "temperature of the Charpy tests"),
    (
        lambda: found(CharpyToughness(energy="40 J", correlation="upper shelf", tested_at=0.0)),
        "temperature of the flaw",
    ),
    (
        lambda: found(CharpyToughness(energy="40 J", correlation="upper shelf", tested_at=0.0), temperature=-5.0),
        "colder",
    ),
    (lambda: found(MasterCurve(reference_temperature=-60.0)), "temperature"),
    (lambda: MasterCurve(), "reference_temperature or"),
    (lambda: MasterCurve(reference_temperature=-60.0, temperature_of_27_joules=-40.0), "One of both"),
    (lambda: MasterCurve(reference_temperature="-60"), "scale"),
    (lambda: ToughnessTests(results=[]), "one result or more"),
    (lambda: ToughnessTests(results=["80"]), "unit"),
    (lambda: ToughnessTests(results=["80 MPa"]), "a K, a J or a CTOD"),
    (lambda: ToughnessTests(results=["80 MPa√m"] * 2), "3 to 15"),
    (lambda: ToughnessTests(results=["80 MPa√m"] * 2, rule="5 % fractile, lognormal"), "three or more"),
    (lambda: ToughnessTests(results=["80 MPa√m"] * 3, rule="5 % fractile"), "5 % fractile, lognormal"),
    (lambda: ResistanceCurve(points=[(0.5, 60.0), (0.2, 240.0)]), "row 2"),
    (lambda: ResistanceCurve(points=[(0.5, 60.0), (1.0, 240.0)]), "initiation"),
    (lambda: ResistanceCurve(), "points, or j_at_1_mm"),
    (lambda: ResistanceCurve(points=[(0.1, 60.0), (1.0, 240000.0)]), "1 kJ/m"),
    (lambda: Weld(yield_strength=460.0, ultimate_strength=400.0), "exchanged"),
    (lambda: metal(curve="stress-strain"), "stress_strain"),
    (lambda: metal(curve="stress-strain", stress_strain=[[355, 0.37], [560, 15.0], [300, 0.2]]), "ascend"),
    (lambda: metal(curve="stress-strain", stress_strain=[[300, 0.0001], [560, 0.15]]), "elastic strain"),
    (lambda: metal(curve="stress-strain", stress_strain=[[300, 0.0015], [360, 0.15]]), "nothing is extrapolated"),
    (lambda: Metal(material=Material(name="bare")).strengths, "yield_strength"),
]


def metal_of_ratio(ratio):
    return Metal(material=Material(name="m", yield_strength=500.0 * ratio, ultimate_strength=500.0))


@pytest.mark.parametrize(("make", "words"), [one for one in WRONG if one[1] is not None])
def test_what_no_toughness_is_is_told(make, words):
    with pytest.raises(InputError, match=words):
        make()


def test_every_source_is_driven_here():
    assert set(TOUGHNESSES) == {"K", "J", "CTOD", "Charpy energy", "master curve", "tests", "resistance curve"}
