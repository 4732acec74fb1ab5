"""A whole model: every node as a hot spot of its own, whatever the chunks, the workers, and the nodes that are skipped."""

import dataclasses
import itertools
from concurrent.futures import Future, ProcessPoolExecutor, ThreadPoolExecutor

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from tests.fields.models import LOADS, duty_of, field_of, limited, spot
from tests.spots import changed, hot_spot
from vivid_anvil.counting import rainflow
from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event, GatedHistory, load_spectrum
from vivid_anvil.fields import (
    CaseLoad,
    CaseLoads,
    assess_model,
    hottest_places,
    model_answer,
    model_findings,
    neighbours_within,
    node_life,
    node_tensors,
    reserves_on_stress,
    trust_of,
    trust_of_nodes,
)
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material, knee_curve, table_curve
from vivid_anvil.materials.mean_stress.apply import COMPRESSIVE_MEANS
from vivid_anvil.models import Elements, joined_cases, von_mises
from vivid_anvil.stress.cycles_of_places import batches
from vivid_anvil.stress.measures import MEASURES, Component, NormalStress, stress_measure

NAMES = ("damage", "worst_event", "lowest", "highest")


@pytest.mark.slow
@pytest.mark.parametrize("measure", [*MEASURES, "along"])
def test_fifty_random_nodes_have_the_life_of_a_hot_spot_there(measure):
    how = NormalStress((1.0, 2.0, -1.0)) if measure == "along" else stress_measure(measure)
    model = assess_model(field_of(), LOADS, duty_of(), spot(notch_factor=1.2), measure=how, target="10 years")
    for node in np.random.default_rng(1).choice(model.field.node_ids, 50, replace=False).tolist():
        life, at = node_life(model, node), model.field.place_of(node)
        assert model.damage_per_repeat[at] == pytest.approx(life.damage_per_repeat, rel=1e-11)
        assert model.life_repeats[at] == pytest.approx(life.life_repeats, rel=1e-11)
        assert model.values.highest[at] == pytest.approx(life.spectrum.highest, rel=1e-12)
        assert model.values.lowest[at] == pytest.approx(life.spectrum.lowest, rel=1e-12)
        worst = max(life.events, key=lambda share: share.damage)
        assert [one.name for one in model.duty_cycle.events][model.values.worst_event[at]] == worst.name


def two_slopes(above, below, **settings_):
    given_ = {"stress": "amplitude", "r_ratio": -1} | settings_
    return knee_curve(name="two", knee_stress=40.0, knee_life=2e6, slope=above, slope_below=below, **given_)


def pointed(highest, **settings_):
    points = [(highest, 1e4), (20.0, 1e6)]
    return table_curve(name="t", stress="amplitude", r_ratio=-1, points=points, **settings_)


RULES = {
    "mean stress": {"mean_stress": "smith-watson-topper"},
    "below the knee": {"mean_stress": "gerber", "below_knee": "2m-1"},
    "cycles that act on each other": {"below_knee": "consistent"},
    **{
        f"{rule}, compressive means {means}": {"mean_stress": rule, "compressive_mean": means}
        for rule, means in itertools.product(("goodman", "soderberg"), COMPRESSIVE_MEANS)
    },
    "two slopes, one of them broken": {"mean_stress": "goodman", "curve": two_slopes(5, 9.3)},
    "ranges": {"mean_stress": "none", "curve": two_slopes(3, 5, stress="range", r_ratio="any")},
    "at another R": {"mean_stress": "goodman", "curve": two_slopes(5, 9, r_ratio=0.1)},
    "held above": {"mean_stress": "none", "curve": pointed(90.0, above="hold", below="extend")},
    "semi-log": {"curve": pointed(400.0, above="extend", below="no damage", interpolation="semi-log")},
}


@pytest.mark.slow
@pytest.mark.parametrize("settings_", RULES.values(), ids=RULES)
def test_any_rule_and_curve_of_a_hot_spot_may_be_used(settings_):
    steel = Material(name="s", ultimate_strength=900.0, yield_strength=700.0)
    base = changed(spot(), **({"curve": limited(), "material": steel} | settings_))
    model = assess_model(field_of(60), LOADS, duty_of(), base)
    assert model.values.damage.max() > 0.0
    for node in model.field.node_ids[:20].tolist():
        assert model.damage_per_repeat[model.field.place_of(node)] == pytest.approx(
            node_life(model, node).damage_per_repeat, rel=1e-11, abs=1e-300
        )


@pytest.mark.slow
@settings(max_examples=20, deadline=None)
@given(
    st.integers(1, 350),
    st.sampled_from(["amplitude", "range"]),
    st.sampled_from(["none", "goodman", "gerber", "elliptic"]),
)
def test_skipping_harmless_nodes_and_chunks_change_nothing(chunk, stress, rule):
    """To the last digit; and some nodes are skipped."""
    steel = Material(name="s", ultimate_strength=1500.0, yield_strength=1400.0)
    curve = limited(stress, 90.0 if stress == "amplitude" else 180.0)
    base = changed(spot(), material=steel, curve=curve, mean_stress=rule)
    whole = assess_model(field_of(), LOADS, duty_of(), base, skip_harmless="no")
    parts = assess_model(field_of(), LOADS, duty_of(), base, chunk=chunk)
    for name in NAMES:
        assert (getattr(whole.values, name) == getattr(parts.values, name)).all(), name
    assert whole.values.counted.all()
    skipped = ~parts.values.counted
    assert 0 < skipped.sum() < 300
    assert (parts.damage_per_repeat[skipped] == 0.0).all()


@pytest.mark.parametrize("pool", [ThreadPoolExecutor, ProcessPoolExecutor])
def test_threads_and_processes_give_the_same(pool):
    alone = assess_model(field_of(), LOADS, duty_of(), spot())
    seen = []
    with pool(2) as executor:
        found = assess_model(
            field_of(), LOADS, duty_of(), spot(), executor=executor, chunk=70, watch=lambda *one: seen.append(one)
        )
    for name in NAMES:
        assert (getattr(alone.values, name) == getattr(found.values, name)).all()
    told = [done for _, done, _ in seen]
    assert told == sorted(told)
    assert (len(told), told[-1], {of for *_, of in seen}) == (5, 300, {300})


class LosesAnswers(ThreadPoolExecutor):
    """Every third answer is lost on its way, as when the machine of a worker goes down while it answers."""

    lost = 0

    def submit(self, work, *given):
        done = super().submit(work, *given)
        done.result()
        self.lost += 1
        if self.lost % 3:
            return done
        broken = Future()
        broken.set_exception(TypeError("no answer"))
        return broken


def test_a_lost_answer_is_computed_again():
    alone = assess_model(field_of(), LOADS, duty_of(), spot())
    with LosesAnswers(2) as executor:
        found = assess_model(field_of(), LOADS, duty_of(), spot(), executor=executor, chunk=70)
        assert executor.lost == 5
        for name in NAMES:
            assert (getattr(alone.values, name) == getattr(found.values, name)).all()


def test_an_interrupted_run_goes_on_from_its_last_finished_chunk(tmp_path):
    def stop_after_two(_label, done, _of):
        if done >= 100:
            raise KeyboardInterrupt

    whole = assess_model(field_of(), LOADS, duty_of(), spot(), chunk=50)
    with pytest.raises(KeyboardInterrupt):
        assess_model(field_of(), LOADS, duty_of(), spot(), chunk=50, keep_in=tmp_path, watch=stop_after_two)
    kept = sorted(tmp_path.iterdir())
    assert len(kept) == 2
    kept[0].write_bytes(kept[0].read_bytes()[:100])  # cut off: is done again
    again = assess_model(field_of(), LOADS, duty_of(), spot(), chunk=50, keep_in=tmp_path)
    assert (again.damage_per_repeat == whole.damage_per_repeat).all()
    assert len(list(tmp_path.iterdir())) == 6
    assess_model(field_of(seed=6), LOADS, duty_of(), spot(), chunk=50, keep_in=tmp_path)  # another field: other files
    assert len(list(tmp_path.iterdir())) == 12


CHANGES = {
    "occurrences": lambda: {"duty": duty_of(often=5.0)},
    "between": lambda: {"duty": duty_of(between="worst case")},
    "notch factor": lambda: {"at": spot(notch_factor=1.5)},
    "curve": lambda: {"at": changed(spot(), curve=limited())},
    "measure": lambda: {"measure": "signed Tresca"},
    "constant": lambda: {"loads": CaseLoads(LOADS.cases, {"weight": 2.0})},
}


@pytest.mark.parametrize("change", CHANGES.values(), ids=CHANGES)
def test_kept_work_is_that_of_the_same_question_only(tmp_path, change):
    """Used objects, which have kept what they counted, are the same question; another value is another one."""
    given = {"field": field_of(20), "loads": LOADS, "duty": duty_of(), "at": spot(), "measure": "component xx"}

    def run(**settings):
        use = {**given, **settings}
        found = assess_model(
            use["field"], use["loads"], use["duty"], use["at"], measure=use["measure"], chunk=10, keep_in=tmp_path
        )
        node_life(found, int(found.field.node_ids[0]))  # counts, and keeps it
        return found

    first = run()
    assert len(list(tmp_path.iterdir())) == 2
    assert (run().damage_per_repeat == first.damage_per_repeat).all()
    assert len(list(tmp_path.iterdir())) == 2
    run(**change())
    assert len(list(tmp_path.iterdir())) == 4


@pytest.mark.slow
@given(st.lists(st.floats(-300.0, 300.0), min_size=1, max_size=60), st.sampled_from([1, 23]))
def test_cycles_of_a_repeated_history_are_those_of_the_counter(values, times):
    """Also of one that is longer than the blocks in which stresses are made."""
    measure, history = Component("xx"), np.tile(values, times)
    unit, never = np.eye(6)[None, :1], np.zeros((1, 6))
    (found,) = batches(measure, measure.forms[None], unit, never, history[None], None)
    known = rainflow(history, residue="repeated")
    rows = np.lexsort((found.means, found.ranges)), np.lexsort((known.mean, known.range))
    assert found.ranges[rows[0]] == pytest.approx(known.range[rows[1]], abs=1e-9)
    assert np.sort(found.means) == pytest.approx(np.sort(known.mean), abs=1e-9)
    assert found.extremes[0] == pytest.approx([history.min(), history.max()], abs=1e-12)


@example([0.0, 0.0, 0.0, 0.0, 0.0, 6e-117], 0.0, 0)
@given(st.lists(st.floats(-200.0, 200.0), min_size=6, max_size=6), st.floats(0.0, 3.1), st.integers(0, 2))
def test_measures_do_not_depend_on_the_axes(tensor, angle, axis):
    full = np.array(tensor)[[[0, 3, 5], [3, 1, 4], [5, 4, 2]]]
    turn = np.eye(3)
    i, j = [k for k in range(3) if k != axis]
    turn[i, i] = turn[j, j] = np.cos(angle)
    turn[i, j], turn[j, i] = -np.sin(angle), np.sin(angle)
    moved = turn @ full @ turn.T
    turned = moved[[0, 1, 2, 0, 1, 2], [0, 1, 2, 1, 2, 0]]
    values = np.linalg.eigvalsh(full)
    largest = values[np.abs(values).argmax()]
    for name in list(MEASURES)[:4]:
        one, two = stress_measure(name).of([tensor, turned])
        assert abs(one) == pytest.approx(abs(two), rel=1e-6, abs=1e-4)
    assert abs(stress_measure("absolute maximum principal").of(tensor)[0]) == pytest.approx(
        abs(largest), rel=1e-6, abs=1e-4
    )
    assert abs(stress_measure("signed Tresca").of(tensor)[0]) == pytest.approx(
        values[2] - values[0], rel=1e-6, abs=1e-4
    )
    assert abs(stress_measure("signed von Mises, hydrostatic").of(tensor)[0]) == pytest.approx(
        float(von_mises(tensor)), rel=1e-9, abs=1e-9
    )


@pytest.mark.parametrize("changes", [{}, {"curve": limited()}, {"mean_stress": "none"}])
def test_reserves_of_many_nodes_are_those_of_hot_spots(changes):
    base = changed(spot(notch_factor=1.1), **changes)
    model = assess_model(field_of(150, scale=25.0), LOADS, duty_of(150), base, target="20 years")
    found = reserves_on_stress(model)
    for place in (*range(0, 150, 15), 149):
        life = node_life(model, int(model.field.node_ids[place]))
        assert found[place] == pytest.approx(life.reserve_on_stress, rel=1e-9)
    assert reserves_on_stress(model, [7, 3]) == pytest.approx(found[[7, 3]], rel=1e-10)
    met = model.life_repeats >= model.target_repeats
    assert ((found >= 1.0) == met).all()
    with pytest.raises(InputError, match="no target life"):
        reserves_on_stress(dataclasses.replace(model, target_repeats=None))


def test_the_worst_places_are_apart_and_take_their_neighbours_along():
    model = assess_model(field_of(node_sets={"edge": np.arange(0, 300, 3)}), LOADS, duty_of(), spot())
    plain, apart = hottest_places(model, 8, apart=0), hottest_places(model, 8, apart="15 mm")
    assert [one.damage_per_repeat for one in plain] == sorted(model.damage_per_repeat, reverse=True)[:8]
    assert plain[0] == dataclasses.replace(apart[0], nodes_nearby=0)
    places = np.array([one.at_mm for one in apart])
    gaps = np.linalg.norm(places[:, None] - places[None], axis=2)[np.triu_indices(len(apart), 1)]
    assert gaps.min() > 15.0
    assert sum(one.nodes_nearby for one in apart) > 0
    edge = hottest_places(model, 5, node_set="edge", apart=0)
    assert all(one.sets == ("edge",) for one in edge)
    assert (
        len(hottest_places(model, 300, share_of_worst=0.5, apart=0))
        == (model.damage_per_repeat >= 0.5 * model.damage_per_repeat.max()).sum()
    )
    assert set(model_answer(model).rows()[0]) >= {"node", "x [mm]", "life [years]", "worst event"}
    quiet = assess_model(field_of(scale=1e-3), LOADS, duty_of(), changed(spot(), curve=limited()))
    first = hottest_places(quiet, 1)[0]
    assert (first.damage_per_repeat, first.worst_event) == (0.0, "none")
    assert first.node == quiet.field.node_ids[quiet.worst]


def test_without_a_distance_places_are_a_few_elements_apart():
    side = 4.0  # a row of boxes
    corners = np.array([[x, y, z] for x in range(41) for y in (0, 1) for z in (0, 1)], dtype=float) * side
    boxes = [[4 * i + k for k in (0, 1, 3, 2, 4, 5, 7, 6)] for i in range(40)]
    boxes_of = [Elements("hexahedron", np.array(boxes), np.arange(40))]
    for elements in (boxes_of, []):
        field = field_of(len(corners), coordinates=corners, elements=elements)
        assert neighbours_within(field) == pytest.approx(3.0 * side)
        model = assess_model(field, LOADS, duty_of(), spot())
        assert hottest_places(model, 20) == hottest_places(model, 20, apart=3.0 * side)
        assert len(hottest_places(model, 60)) < 20
    coarse = field_of(8, coordinates=corners[:8], elements=[Elements("hexahedron", np.array(boxes[:1]), np.array([0]))])
    assert neighbours_within(coarse) == pytest.approx(0.1 * np.sqrt(3.0) * side)


@pytest.mark.parametrize("between", ["each by itself", "in the order given", "worst case"])
def test_the_damage_of_each_event_is_that_of_the_hot_spot_there(between):
    model = assess_model(field_of(40), LOADS, duty_of(between=between), spot(), target="3 years")
    by_event = model.values.by_event
    assert by_event.sum(axis=1) == pytest.approx(model.damage_per_repeat)
    for place in hottest_places(model, 3, apart=0):
        life = node_life(model, place.node)
        whole = {one.name: one.damage for one in life.events if one.damage > 0.0}
        assert place.by_event == pytest.approx(whole)
        assert list(place.by_event.values()) == sorted(place.by_event.values(), reverse=True)
        assert place.used_at_target == pytest.approx(life.used_at_target)
        assert {f"damage of {name}" for name in whole} <= set(model_answer(model, most=3, apart=0).rows()[0])
    frame = model.to_frame()
    assert frame["damage of stop"].to_numpy() == pytest.approx(by_event[:, 1])
    assert frame["used at target"].to_numpy() == pytest.approx(model.target_repeats / model.life_repeats)


@pytest.mark.parametrize("still", [slice(0, 1), slice(5, 9), slice(17, 20), slice(0, 20)])
def test_nodes_that_feel_nothing_have_no_damage_and_change_nothing(still):
    """Wherever they stand, the last one included; as a hot spot too."""
    stresses = field_of(20).stresses.copy()
    stresses[:, still] = 0.0
    whole, some = (
        assess_model(one, LOADS, duty_of(), spot()) for one in (field_of(20), field_of(20, stresses=stresses))
    )
    moved = np.ones(20, dtype=bool)
    moved[still] = False
    assert (some.damage_per_repeat[~moved] == 0.0).all()
    assert (some.values.worst_event[~moved] == -1).all()
    assert some.damage_per_repeat[moved] == pytest.approx(whole.damage_per_repeat[moved], rel=1e-12)
    node = int(some.field.node_ids[still][-1])
    assert node_life(some, node).damage_per_repeat == 0.0
    assert trust_of_nodes(some, [some.field.place_of(node)]).off_line[0] < 0.1


def test_a_node_says_how_far_one_stress_can_be_trusted():
    model = assess_model(field_of(), LOADS, duty_of(), spot())
    places = hottest_places(model, 3)
    assert [one.code for one in model_findings(model, places)] == ["not-proportional"]
    rough = dataclasses.replace(model, field=dataclasses.replace(model.field, spread=np.full(300, 0.3)))
    assert [one.code for one in model_findings(rough, places)][:2] == ["not-proportional", "mesh-coarse"]
    tiny = dataclasses.replace(
        model, field=dataclasses.replace(model.field, coordinates=model.field.coordinates * 1e-3)
    )
    assert "size-unusual" in [one.code for one in model_findings(tiny, places)]
    weak = assess_model(field_of(scale=1e-3), LOADS, duty_of(), spot())
    assert "stress-small" in [one.code for one in model_findings(weak, hottest_places(weak, 1))]
    soft = changed(spot(), material=Material(name="s", ultimate_strength=900.0, yield_strength=50.0))
    early = assess_model(field_of(), LOADS, duty_of(), soft)
    assert "model-above-yield" in [one.code for one in model_findings(early, places)]
    straight = np.outer(np.sin(np.arange(30.0)), [80.0, -20.0, 5.0, 12.0, 0.0, 3.0])
    assert trust_of(straight).proportional
    assert trust_of([[50.0, 25.0, 0, 0, 0, 0], [0.0, 0, 0, 0, 0, 0]]).biaxiality == pytest.approx(0.5)
    tensors = node_tensors(model, int(model.field.node_ids[0]))
    assert {name: one.shape for name, one in tensors.items()} == {"lap": (400, 6), "stop": (133, 6)}


def test_loads_are_scaled_by_unit_loads_and_event_factors():
    lateral = dataclasses.replace(LOADS.cases[1], unit_load="4 kN", event_factors={})
    twice = CaseLoads([dataclasses.replace(LOADS.cases[0], unit_load="20 kN"), lateral], {"weight": 1.0})
    doubled = dataclasses.replace(field_of(), stresses=field_of().stresses * np.array([2.0, 2.0, 1.0])[:, None, None])
    plain = CaseLoads([LOADS.cases[0], dataclasses.replace(LOADS.cases[1], event_factors={})], {"weight": 1.0})
    one, two = (assess_model(f, loads, duty_of(), spot()) for f, loads in ((field_of(), plain), (doubled, twice)))
    assert two.damage_per_repeat == pytest.approx(one.damage_per_repeat, rel=1e-9)
    more = assess_model(field_of(), LOADS, duty_of(), spot())
    assert (more.values.worst_event != one.values.worst_event).any() or (
        more.damage_per_repeat != one.damage_per_repeat
    ).any()


def field_without(case):
    whole = field_of(20)
    kept = [name for name in whole.cases if name != case]
    return dataclasses.replace(whole, cases=kept, stresses=[whole.of_case(name) for name in kept])


ONE_CASE = CaseLoads(LOADS.cases[:1])
FORCE = ConstantAmplitude.from_range("vertical force", "2 kN", cycles=10)
SPECTRUM = load_spectrum("vertical force", {"range": [3.0, 1.0], "cycles": [10, 100]}, "kN")
GATED = GatedHistory(duty_of().events[0].load, {"vertical force": 100.0})
BAD = {
    "case without load": (
        lambda: assess_model(field_of(20), CaseLoads(LOADS.cases), duty_of(), spot()),
        "no history and not constant",
    ),
    "load without case": (lambda: assess_model(field_without("lateral"), LOADS, duty_of(), spot()), "'lateral'"),
    "case twice": (
        lambda: assess_model(field_of(20), CaseLoads([*LOADS.cases, LOADS.cases[0]], {"weight": 1}), duty_of(), spot()),
        "two loads",
    ),
    "unit load of 0": (
        lambda: CaseLoads([CaseLoad(case="a", channel="vertical force", unit_load="0 kN")]).events(duty_of()),
        "the load at which",
    ),
    "unit load in MPa": (
        lambda: CaseLoads([CaseLoad(case="a", channel="vertical force", unit_load="1 MPa")]).events(duty_of()),
        "force",
    ),
    "unknown channel": (
        lambda: CaseLoads([CaseLoad(case="a", channel="vertical farce", unit_load="1 kN")]).events(duty_of()),
        "Did you mean",
    ),
    "unknown event": (
        lambda: CaseLoads(
            [CaseLoad(case="a", channel="vertical force", unit_load="1 kN", event_factors={"lapp": 2})]
        ).events(duty_of()),
        "Did you mean",
    ),
    "no history": (
        lambda: LOADS.events(DutyCycle("day", (Event("stop", FORCE),), 1.0)),
        "a history, or states, with the channels",
    ),
    "a gate": (lambda: LOADS.events(DutyCycle("day", (Event("stop", GATED),), 1.0)), "leave the gate out"),
    "no order": (
        lambda: ONE_CASE.events(DutyCycle("day", (Event("one", SPECTRUM),), 1.0, between="in the order given")),
        "a load without order",
    ),
    "no curve": (
        lambda: assess_model(
            field_of(20),
            LOADS,
            duty_of(),
            hot_spot(name="m", channel="s", stress_per_load="1", material=Material(name="m")),
        ),
        "no S-N curve",
    ),
    "unknown measure": (
        lambda: assess_model(field_of(20), LOADS, duty_of(), spot(), measure="signed von mises, hydrostatic"),
        "Did you mean",
    ),
    "direction of nothing": (lambda: NormalStress((0.0, 0.0, 0.0)), "not all 0"),
    "no chunk": (lambda: assess_model(field_of(20), LOADS, duty_of(), spot(), chunk=0), "one node or more"),
    "two components": (lambda: field_of(20, stresses=np.zeros((3, 20, 5))), "shape"),
    "unknown set": (lambda: field_of(20, node_sets={"bore": np.arange(3)}).places_of("bohr"), "Did you mean 'bore'"),
    "empty set": (lambda: field_of(20, node_sets={"bore": np.array([], dtype=int)}).places_of("bore"), "no nodes"),
    "no such node": (lambda: field_of(20).place_of(5), "a node number from 10 to 29"),
}


@pytest.mark.parametrize(("make", "message"), BAD.values(), ids=BAD)
def test_what_does_not_fit_together_is_named(make, message):
    with pytest.raises(InputError, match=message):
        make()


def test_fields_are_checked_and_joined_by_their_nodes():
    whole = field_of(20)
    plane = whole.stresses[:, :, [0, 1, 3]]
    for changes, message in (
        ({"stresses": plane}, "Put 0 for zz"),
        ({"stresses": np.where(np.arange(20)[None, :, None] == 4, np.nan, whole.stresses)}, "no number"),
        ({"stresses": whole.stresses * 1e6}, "Pa read as MPa"),
        ({"node_ids": np.ones(20, dtype=int)}, "twice"),
        ({"cases": ["a", "a", "b"]}, "each name once"),
        ({"coordinates": np.zeros((19, 3))}, "coordinates of shape"),
    ):
        with pytest.raises(InputError, match=message):
            dataclasses.replace(whole, **changes)
    shuffled = np.random.default_rng(2).permutation(20)
    second = dataclasses.replace(whole.part(shuffled), cases=["p", "q", "r"])
    both = joined_cases([whole, second])
    assert both.cases == ("vertical", "lateral", "weight", "p", "q", "r")
    assert (both.of_case("q") == whole.of_case("lateral")).all()
    with pytest.raises(InputError, match="the same nodes"):
        joined_cases([whole, dataclasses.replace(second, node_ids=np.arange(100, 120))])


@pytest.mark.slow
@given(
    arrays(np.float64, (40, 6), elements=st.floats(-500.0, 500.0).map(lambda one: round(one, 3))),
    st.sampled_from(["absolute maximum principal", "signed Tresca"]),
)
def test_principal_stresses_are_the_eigenvalues(tensors, name):
    """Of any tensor, also with two or three equal ones; the sign is that of the larger one."""
    measure = stress_measure(name)
    found = measure.of(tensors)
    values = np.linalg.eigvalsh(tensors[:, [[0, 3, 5], [3, 1, 4], [5, 4, 2]]])
    low, high = values[:, 0], values[:, 2]
    wanted = np.maximum(high, -low) if name.startswith("absolute") else high - low
    assert np.abs(found) == pytest.approx(np.abs(wanted), rel=1e-7, abs=1e-5)
    clear = np.abs(high + low) > 1e-4
    assert (np.sign(found[clear]) == np.where(high[clear] >= -low[clear], 1.0, -1.0))[np.abs(found[clear]) > 1e-4].all()
