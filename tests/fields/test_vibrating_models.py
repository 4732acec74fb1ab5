"""Models that vibrate: every node against the hot spot that stands there, moments against a loop over frequencies."""

from pathlib import Path

import numpy as np
import pytest

import vivid_anvil.demo
from vivid_anvil import (
    PSD,
    Channel,
    ComponentTables,
    DutyCycle,
    Event,
    HotSpot,
    InputError,
    LoadHistory,
    Material,
    PSDs,
    RandomVibration,
    ResponseTable,
    Sine,
    SNCurve,
    StressField,
    StressLife,
    Together,
    Tone,
    VibratingComponents,
    assess_life,
    assess_model,
    node_life,
    psd_of_rows,
)
from vivid_anvil.fields import CaseLoad, CaseLoads, assess_planes
from vivid_anvil.fields.vibrating_nodes import Nodes, moments_of_nodes
from vivid_anvil.models import Elements, participation_along, read_field, read_modes, read_participation
from vivid_anvil.spectra.cross_spectra import CrossSpectra
from vivid_anvil.stress import LineLoads, ModeLoads, stress_measure
from vivid_anvil.stress.measures.straight import normal_weights

FLAT = psd_of_rows([("10 Hz", "0.02 g^2/Hz"), ("500 Hz", "0.02 g^2/Hz")])
STEEL = Material(name="steel", ultimate_strength="510 MPa", yield_strength="355 MPa")
RANGES = SNCurve(name="weld", stress="range", r_ratio="any", points=[("52 MPa", 1e7)], above=3, below=5)
AMPLITUDES = SNCurve(
    name="plate", stress="amplitude", r_ratio=-1, points=[("150 MPa", 1e6)], above=5, below="no damage"
)
BENT = SNCurve(
    name="table", stress="amplitude", r_ratio=-1, points=[("300 MPa", 1e4), ("150 MPa", 1e6)], interpolation="semi-log",
    above="extend", below="no damage",
)  # fmt: skip
CURVES = {
    "ranges": StressLife(sn_curve=RANGES),
    "goodman": StressLife(sn_curve=AMPLITUDES, mean_stress="goodman"),
    "not a power": StressLife(sn_curve=BENT),
}
MEASURES = ("signed von Mises, hydrostatic", "signed von Mises, principal", "component xy")


def field_of(nodes, modes, seed=1):
    rng = np.random.default_rng(seed)
    return StressField(
        cases=[f"mode {i}" for i in range(1, modes + 1)],
        node_ids=np.arange(1, nodes + 1),
        coordinates=rng.random((nodes, 3)),
        stresses=300.0 * rng.standard_normal((modes, nodes, 6)),
    )


def loads(modes=4, seed=2, names=("base",)):
    rng = np.random.default_rng(seed)
    return ModeLoads(
        natural_frequency=np.sort(rng.uniform(30.0, 400.0, modes)),
        participation={name: rng.uniform(-0.1, 0.1, modes) for name in names},
        damping_ratio=0.02,
    )


def noise():
    values = np.random.default_rng(3).standard_normal(3000)
    return LoadHistory("h", [Channel.in_unit("base", values, "m/s^2")], "1000 Hz")


EVENTS = {
    "random": RandomVibration({"base": FLAT}, "8 h"),
    "tones": RandomVibration({"base": FLAT}, "2 h", tones={"base": (Tone(60.0, 4000.0),)}),
    "clipped": RandomVibration({"base": FLAT}, "10 min", crest_factor=3.0),
    "dwells": Sine.dwells("base", [("70 Hz", "0.3 g", "600 s"), ("120 Hz", "0.2 g", "60 s")]),
    "sweep": Sine.sweep("base", start="20 Hz", end="450 Hz", amplitude="0.2 g", rate="2 octave/min"),
    "history": noise(),
}


def duty_of(load, often=3.0, **others):
    return DutyCycle("day", [Event("event", load, often)], repeats_per_year=300, **others)


@pytest.mark.parametrize("how", CURVES)
@pytest.mark.parametrize("event", EVENTS)
def test_each_node_is_the_hot_spot_that_stands_there(event, how):
    spot = HotSpot(name="node", material=STEEL, method=CURVES[how], notch_factor=1.2)
    for measure in MEASURES:
        model = assess_model(field_of(6, 4), loads(), duty_of(EVENTS[event]), spot, measure=measure, target="30 years")
        for node in (1, 4):
            life = node_life(model, node)
            assert model.values.damage[node - 1] == pytest.approx(life.damage_per_repeat, rel=1e-9), measure


@pytest.mark.slow
def test_fifty_nodes_of_a_model_are_hot_spots_to_nine_digits():
    duty = DutyCycle("day", [Event(name, load, 2.0) for name, load in EVENTS.items()], repeats_per_year=300)
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    model = assess_model(field_of(50, 6, seed=7), loads(6, seed=8), duty, spot)
    for node in range(1, 51):
        own = [one.damage for one in node_life(model, node).events]
        assert model.values.by_event[node - 1] == pytest.approx(own, rel=1e-9)


def test_directions_are_those_of_each_node():
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    along = np.random.default_rng(4).standard_normal((5, 3))
    for load in EVENTS.values():
        model = assess_model(field_of(5, 4), loads(), duty_of(load), spot, directions=along)
        life = node_life(model, 3)
        assert model.values.damage[2] == pytest.approx(life.damage_per_repeat, rel=1e-9)


def test_the_critical_plane_does_more_than_any_axis():
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    field, duty = field_of(3, 4), duty_of(EVENTS["random"])
    worst = assess_planes("normal stress, critical plane", field, loads(), duty, spot)
    for axis in np.eye(3):
        one = assess_model(field, loads(), duty, spot, directions=np.tile(axis, (3, 1)))
        assert (worst.values.damage >= one.values.damage * (1.0 - 1e-9)).all()


def test_moments_are_those_of_a_loop_over_frequencies():
    """Two inputs with a coherence; lines so fine that the trapezoid rule is right to 1e-6."""
    modes = loads(3, names=("x", "y"))
    inputs: CrossSpectra = PSDs({"x": FLAT, "y": FLAT}, {("x", "y"): Together(coherence=0.5, phase=0.7)})
    event = modes.events(duty_of(RandomVibration(inputs, "1 h")))[0]
    field, measure = field_of(4, 3), stress_measure("signed von Mises, hydrostatic")
    nodes = Nodes(modes.units(field), modes.constants(field), measure, None, lambda _: None)
    f = np.linspace(10.0, 500.0, 200_001)
    q = modes.source.coordinates(f, {"x": "acceleration", "y": "acceleration"})
    plain = np.empty((4, 4))
    for node in range(4):
        sides = field.stresses[:, node] @ measure.random_forms.T
        t = np.einsum("rk,mrj->mkj", sides, q)
        density = np.einsum("mkj,mjl,mkl->m", t, inputs.matrix(f, ("x", "y")), t.conj()).real
        plain[:, node] = [np.trapezoid(density * f**n, f) for n in (0, 1, 2, 4)]
    assert moments_of_nodes(event, nodes) == pytest.approx(plain, rel=1e-6)


def test_a_model_of_load_cases_may_be_shaken_too():
    """Stresses that follow the loads at once: a force with a PSD on a load case."""
    field = StressField(
        cases=["pull"], node_ids=[1, 2], coordinates=np.zeros((2, 3)), stresses=[[[90.0, 0, 0, 30, 0, 0], [0.0] * 6]]
    )
    pull = CaseLoads([CaseLoad(case="pull", channel="force", unit_load="10 kN")])
    psd = PSD([5.0, 50.0], [4e4, 4e4], "force")
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    model = assess_model(field, pull, duty_of(RandomVibration({"force": psd}, "5 h")), spot)
    assert model.values.damage[0] == pytest.approx(node_life(model, 1).damage_per_repeat, rel=1e-9)
    assert model.values.damage[1] == 0.0
    alone = node_life(model, 1).events[0].largest_range
    rms = np.sqrt(90.0**2 + 3.0 * 30.0**2) / 1e4 * psd.rms
    assert 7.0 * rms < alone < 11.0 * rms


def test_tones_are_counted_in_a_history_that_is_made():
    tone = RandomVibration({"base": FLAT}, "2 h", tones={"base": (Tone(60.0, 4000.0),)})
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    model = assess_model(field_of(3, 4), loads(), duty_of(tone), spot, measure="component xx")
    life = node_life(model, 2)
    assert model.values.damage[1] == pytest.approx(life.damage_per_repeat, rel=1e-9)
    without = duty_of(RandomVibration({"base": FLAT}, "2 h"))
    less = assess_model(field_of(3, 4), loads(), without, spot, measure="component xx")
    assert (model.values.damage > less.values.damage).all()
    both = RandomVibration({"x": FLAT, "y": FLAT}, "1 h", tones={"x": (Tone(60.0, 1.0),)})
    with pytest.raises(InputError, match="tones on several inputs"):
        assess_model(field_of(3, 4), loads(names=("x", "y")), duty_of(both), spot)


def test_modes_need_a_frequency_and_a_factor_each():
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    with pytest.raises(InputError, match="4 natural frequencies for 5 cases"):
        assess_model(field_of(3, 5), loads(4), duty_of(EVENTS["random"]), spot)
    with pytest.raises(InputError, match="one for each mode"):
        ModeLoads(natural_frequency=[40.0, 90.0], participation={"base": [0.1]}, damping_ratio=0.02)
    other = duty_of(RandomVibration({"wall": FLAT}, "1 h"))
    with pytest.raises(InputError, match="channels"):
        assess_model(field_of(3, 4), loads(), other, spot)
    with pytest.raises(InputError, match="stationary process"):
        assess_model(field_of(3, 4), loads(), duty_of(EVENTS["random"]), spot, measure="signed Tresca")


def steady(modes, field, frequency):
    """The same model by its complex stresses at lines, for 2 mm/s²."""
    q = 2.0 * modes.source.coordinates(frequency, {"base": "acceleration"})[:, :, 0]
    stress = np.einsum("mr,rnc->mnc", q, field.stresses)
    cases = [f"{f:g} Hz, {part}" for f in frequency for part in ("real", "imaginary")]
    both = np.stack([stress.real, stress.imag], axis=1).reshape(len(cases), -1, 6)
    return StressField(cases=cases, node_ids=field.node_ids, coordinates=field.coordinates, stresses=both)


def test_complex_stresses_at_fine_lines_are_those_of_the_modes():
    modes, field = loads(2), field_of(3, 2)
    frequency = np.linspace(10.0, 500.0, 200)
    lines = LineLoads(channel="base", frequency=frequency, per="2 mm/s^2")
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    for event in ("random", "dwells"):
        by_lines = assess_model(steady(modes, field, frequency), lines, duty_of(EVENTS[event]), spot)
        by_modes = assess_model(field, modes, duty_of(EVENTS[event]), spot)
        assert by_lines.values.damage == pytest.approx(by_modes.values.damage, rel=0.2)
        life = node_life(by_lines, 2)
        assert by_lines.values.damage[1] == pytest.approx(life.damage_per_repeat, rel=1e-9)
    wide = psd_of_rows([("5 Hz", "0.02 g^2/Hz"), ("500 Hz", "0.02 g^2/Hz")])
    beyond = duty_of(RandomVibration({"base": wide}, "1 h"))
    with pytest.raises(InputError, match="cut the input there"):
        assess_model(steady(modes, field, frequency), lines, beyond, spot)
    with pytest.raises(InputError, match="two cases a line"):
        assess_model(field, lines, duty_of(EVENTS["random"]), spot)


def test_components_out_of_phase_are_told_under_a_sine():
    f = [60.0, 80.0]
    turning = [ResponseTable(frequency=f, values=[one] * 2, per="MPa/g") for one in (9.0, 9.0j, 0.0, 0.0, 0.0, 0.0)]
    straight = [ResponseTable(frequency=f, values=[one] * 2, per="MPa/g") for one in (9.0, 4.0, 0.0, 0.0, 0.0, 0.0)]
    dwell = duty_of(Sine.dwells("base", [("70 Hz", "3 g", "1 h")]))
    found = {}
    for name, tables in (("turning", turning), ("straight", straight)):
        relation = VibratingComponents(response=ComponentTables({"base": tables}))
        spot = HotSpot(name="foot", relation=relation, material=STEEL, method=CURVES["ranges"])
        found[name] = {one.code for one in assess_life(spot, dwell).findings}
    assert "phase-turns" in found["turning"]
    assert "phase-turns" not in found["straight"]


def test_the_modes_of_the_demo_are_those_of_its_files():
    folder = Path(vivid_anvil.demo.__file__).parent / "data"
    found = read_modes(folder / "sensor_bracket.frd")
    factors = read_participation(folder / "sensor_bracket.dat", found.natural_frequency)
    assert found.natural_frequency == pytest.approx([114.959, 222.011, 808.585, 915.895], rel=1e-5)
    # effective masses of the modes add up towards the mass of the part, 594 g
    assert 0.35e-3 < float((factors[:, 2] ** 2).sum()) < 0.594e-3
    assert participation_along(factors, "z") == pytest.approx(factors[:, 2])
    assert participation_along(factors, [1.0, 0.0, 1.0]) == pytest.approx(
        (factors[:, 0] + factors[:, 2]) / np.sqrt(2.0)
    )
    with pytest.raises(InputError, match="Both files must be of one run"):
        read_participation(folder / "sensor_bracket.dat", found.natural_frequency * 1.01)
    with pytest.raises(InputError, match="no shape of vibration"):
        read_modes(folder / "hanger_head.frd")
    with pytest.raises(InputError, match="shape of vibration"):
        read_field(folder / "sensor_bracket.frd", stress_unit="MPa", length_unit="mm")


def test_the_surface_of_a_model_that_vibrates_is_looked_at_along_its_largest_stress():
    """A plate in its plane: the direction is that of the greatest rms, found by hand from the covariance."""
    plate = Elements("quad", np.array([[0, 1, 2, 3]]), np.array([1]))
    stresses = np.zeros((2, 4, 6))
    stresses[0, :, [0, 1, 3]] = np.array([300.0, 80.0, 120.0])[:, None]
    stresses[1, :, [0, 1, 3]] = np.array([-100.0, 250.0, 60.0])[:, None]
    square = [[0.0, 0, 0], [9.0, 0, 0], [9.0, 9.0, 0], [0, 9.0, 0]]
    field = StressField(
        cases=["mode 1", "mode 2"], node_ids=[1, 2, 3, 4], coordinates=square, stresses=stresses, elements=[plate]
    )
    modes, duty = loads(2), duty_of(EVENTS["random"])
    spot = HotSpot(name="node", material=STEEL, method=CURVES["ranges"])
    found = assess_planes("normal stress, surface", field, modes, duty, spot)
    angle = np.radians(np.arange(0.0, 180.0, 5.0))
    along = np.column_stack([np.cos(angle), np.sin(angle), np.zeros(angle.size)])
    weights = normal_weights(along) @ stresses[:, 0].T
    rms = np.einsum("dr,rs,ds->d", weights, modes.events(duty)[0].moments(0.0), weights)
    best = along[int(rms.argmax())]
    assert abs(found.directions @ best) == pytest.approx(np.ones(4), abs=1e-9)
