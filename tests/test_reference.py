"""Every method against its reference cases."""

import json

import pytest

from tests.all_methods import METHODS
from tests.left_out import LEFT_OUT, ROWS_LEFT_OUT
from tests.own_field_references import FIELD_REFERENCES
from tests.own_references import REFERENCES
from tests.reference_values import FOLDER, RANDOM_SIGNALS, cases, compared, deviation

PAIRS = [pytest.param(method, case, id=case["id"]) for method in METHODS for case in cases(method.cases)]


ON_PLANE = {"Wc_max_MPa", "R", "N_each_alone"}


@pytest.mark.slow
@pytest.mark.parametrize(("method", "case"), PAIRS)
def test_the_reference_case_is_met(method, case):
    rows = compared(method, case)
    assert rows
    for name, wanted, got in rows:
        if name.lower() == "theta_max_deg" and abs(got - wanted) <= 1.0:  # of a flat optimum
            continue
        steep = "max_shear_plane" in name  # which of planes that nearly tie
        if isinstance(wanted, float | int) and abs(got - wanted) <= max(case.get("atol", 0.0), 0.05 if steep else 0.0):
            continue
        within = max(case["rtol"], case.get("rtol_on_max_shear_plane", 0.0) if steep else 0.0, 1e-12)
        if name in ON_PLANE or "shares" in name:  # the optimum is flat in damage: these move with the angle
            within = max(within, case.get("rtol_shares" if "shares" in name else "rtol_on_plane", 0.0))
            within = max(within, case.get("rtol_on_plane", 0.0))
        assert deviation(wanted, got) <= within, (name, wanted, got)


@pytest.mark.slow
def test_nothing_is_left_out_that_is_compared_or_gone():
    for method in METHODS:
        held = {key for case in cases(method.cases) for key in _keys(case["expected"])}
        ours = {key for case in cases(method.cases)[:1] for key in method.values(case["inputs"])}
        for key in LEFT_OUT.get(method.name, {}):
            assert key in held, (method.name, key)
            assert key not in ours or method.name == "Critical size"
    assert set(LEFT_OUT) | {name for name, _ in ROWS_LEFT_OUT} <= {method.name for method in METHODS}


def _keys(expected):
    inner = {f"{key}/{one}" for key, value in expected.items() if isinstance(value, dict) for one in value}
    return set(expected) | inner


@pytest.mark.parametrize(
    "folder", ["spectral", "vibration", "service", "extras", "multiaxial", "elastomer", "composite"]
)
def test_every_case_of_vibration_belongs_to_a_method(folder):
    known = {case["id"] for method in METHODS for case in cases(method.cases)}
    held = {case["id"] for case in json.loads((FOLDER / f"{folder}.json").read_text())["cases"]}
    assert held - known == set()


@pytest.mark.parametrize("method", METHODS, ids=lambda method: method.name)
def test_each_method_has_cases(method):
    assert cases(method.cases)


@pytest.mark.parametrize("case", cases(r"SL-A-random-\d+"), ids=lambda case: case["id"])
def test_the_random_signals_are_those_of_the_cases(case):
    signal = RANDOM_SIGNALS[100 + int(case["id"][-2:])]()
    check = case["check_of_input"]
    assert signal[:3].tolist() == check["first_three"]
    assert signal.size == check["samples"]


OWN = (*REFERENCES, *FIELD_REFERENCES)


@pytest.mark.parametrize("one", OWN, ids=[one.method for one in OWN])
def test_the_reference_of_our_own_is_met(one):
    wanted, got = one.values()
    assert got == pytest.approx(wanted, rel=one.within)
