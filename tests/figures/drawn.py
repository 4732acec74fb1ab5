"""One of everything that can be drawn."""

import dataclasses

import numpy as np

import vivid_anvil as va
from tests.fields.models import LOADS, boxes, duty_of, field_of, limited
from tests.fields.models import spot as model_spot
from tests.figures.drawn_flaws import FLAWS
from tests.spots import changed
from vivid_anvil import growth as gr
from vivid_anvil import materials as mt
from vivid_anvil import shapes as sh
from vivid_anvil.counting import cycle_matrix, fit_tail
from vivid_anvil.damage import compare_rules
from vivid_anvil.events import GatedHistory
from vivid_anvil.fields import ModelView, assess_model, hottest_places
from vivid_anvil.materials import rubber
from vivid_anvil.models import Elements
from vivid_anvil.study import what_if


def matrix_of(demo, kind):
    load = demo.study.duty_cycle.events[2].load
    return cycle_matrix(load.cycles_of("vertical force"), kind, classes=32, samples=load["vertical force"].values)


def growth_rates():
    return mt.GrowthTests(name="t", ranges=[300.0, 500.0, 900.0], rates=[8e-6, 4e-5, 2.2e-4], r_ratio=0.1)


def edge_crack(demo):
    flaw = demo.growths[0].crack
    plain = dataclasses.replace(flaw, shape=sh.EdgeCrack(60.0), initial_half_length=None, order="per repeat")
    return va.grow_crack(plain, demo.study.duty_cycle)


def still(demo):
    """The weld toe and its crack under a load that never changes."""
    load = va.LoadHistory("still", [va.Channel.in_unit("vertical force", [2.0, 2.0, 2.0], "kN")], 1.0)
    duty = va.DutyCycle("month", [va.Event("still", load)], 12)
    return va.assess_life(demo.lives[0].hot_spot, duty, target="30 years"), va.grow_crack(demo.growths[0].crack, duty)


def tube(demo):
    """The fatigue tests that are shipped with the demo."""
    return va.read_specimens(demo.study.path.parent / "tube_tests.csv")


def strain_fit(demo):
    """A fit of the strain-controlled tests that are shipped with the demo."""
    tests = va.read_strain_tests(demo.study.path.parent / "pin_strain_tests.csv")
    return va.fit_strain_life(tests, youngs_modulus="206 GPa")


def yields(demo):
    """The bore of the demo, three times as sharp, by local strain."""
    bore = demo.lives[1].hot_spot
    method = va.LocalStrain(strain_life=strain_fit(demo).curve(), mean_stress="morrow")
    spot = dataclasses.replace(bore, method=method, notch_factor=3.0 * bore.notch_factor)
    return va.assess_life(spot, demo.study.duty_cycle, target="30 years")


def stairs(*, range_of=False, failed=False):
    """Five specimens of a staircase, as ranges or amplitudes."""
    return va.SpecimenSeries(
        name="pins",
        stress="range" if range_of else "amplitude",
        r_ratio=-1,
        stresses=[180.0, 190, 180, 190, 180],
        lives=[9e6, 4e6, 8e6, 5e6, 9.5e6],
        failed=[failed, True, failed, True, True],
    )


def coupons(beyond, *, by_mean=False):
    """A family of three curves."""
    places = [{"r_ratio": "fixed mean", "mean_stress": mean} for mean in (-50.0, 0.0, 150.0)]
    places = places if by_mean else [{"r_ratio": ratio} for ratio in (-1, 0, 0.5)]
    curves = [
        va.straight_curve(
            name=str(i), stress="amplitude", point_stress=200.0 - 40.0 * i, point_life=1e6, slope=9, **place
        )
        for i, place in enumerate(places)
    ]
    return va.SNFamily(name="coupons", curves=curves, beyond_lowest=beyond)


def small_model(direction, scale=40.0):
    """Two boxes, their places marked; a curve with a fatigue limit."""
    points, cells = boxes()
    field = field_of(
        12, scale=scale, coordinates=10.0 * points, elements=[Elements("hexahedron", cells, np.array([1, 2]))]
    )
    spot = changed(model_spot(), curve=limited())
    model = assess_model(field, LOADS, duty_of(), spot)
    return ModelView(model, direction, hottest_places(model, 2, apart=8.0))


def stored(demo):
    """The life of the demo's bush by all the energy that is stored."""
    life = va.run_study(va.read_study(demo.study.path.parent / "suspension_bush.toml")).lives[0]
    method = dataclasses.replace(life.method, energy="energy density")
    return va.assess_life(dataclasses.replace(life.hot_spot, method=method), life.duty_cycle)


def sheets(second=0.08):
    """A hyperelastic law through points of sheets."""
    law = rubber.MooneyRivlin(name="gum", c10=0.45, c01=second)
    modes, stretch = list(rubber.LOADING_MODES), np.array([1.1, 1.4, 1.8, 2.2])
    nominal = np.concatenate([law.nominal(mode, stretch) for mode in modes])
    tests = rubber.RubberTests(
        name="sheets",
        modes=np.repeat(modes, stretch.size).tolist(),
        stretch=np.tile(stretch, len(modes)),
        nominal_stress=nominal,
    )
    return rubber.fit_hyperelastic(tests)


def strips():
    """A tearing law through points of strips at several R."""
    law = rubber.PowerTearing(name="gum", rate=3e-3, at=10.0, slope=2.0, r_effect="crystallising", slope_rise=1.5)
    energies, ratios = np.geomspace(0.1, 8.0, 12), np.tile([0.0, 0.1, 0.3], 4)
    rates = law.growth(energies, ratios) * np.tile([0.9, 1.1], 6)
    tests = rubber.TearingTests(name="strip", energies=energies, rates=rates, r_ratios=ratios)
    return rubber.fit_tearing(tests, r_effect="crystallising")


def of_laminate(**how):
    """A place of a laminate that is pulled, and a duty cycle."""
    strong = {"tension_across": 42.0, "compression_across": 145.0, "shear_strength": 70.0}
    line = va.LargestStress(tension=1050.0, tension_slope=11.0, compression=650.0, compression_slope=14.0)
    across = va.LargestStress(tension=42.0, tension_slope=10.0, compression=145.0, compression_slope=12.0)
    glass = va.Ply(
        name="glass",
        modulus_along=41e3,
        modulus_across=10.4e3,
        shear_modulus=4.3e3,
        poissons_ratio=0.28,
        tension_along=1050.0,
        compression_along=650.0,
        **strong,
        fibre_life=line,
        across_life=across,
        shear_life=across,
        energy_life=va.EnergyLife(constant=3.0, exponent=0.12),
        fibre_strength_decay=va.PowerStrength(exponent=3.0),
        across_strength_decay=va.PowerStrength(exponent=1.0),
        shear_strength_decay=va.PowerStrength(exponent=1.0),
    )
    laminate = va.Laminate(name="plate", layup="[0/90]s", ply=glass, ply_thickness=0.5)
    pull = va.CaseLoads([va.CaseLoad(case="pull", channel="force", unit_load="10 kN")])
    place = va.HotSpot(
        name="plate",
        relation=va.SectionLoads(loads=pull, unit=[[160.0, 0, 0, 0, 0, 0]]),
        material=va.Material(name="glass"),
        method=va.PlyFatigue(laminate=laminate, **how),
    )
    load = va.ConstantAmplitude.from_range("force", "9 kN", r_ratio=0.1, cycles=100)
    return place, va.DutyCycle("day", [va.Event("pull", load)], repeats_per_year=250)


DRAWN = {
    "history": lambda demo: demo.study.duty_cycle.events[0].load,
    "two channels": lambda demo: va.LoadHistory(
        "bench",
        [
            va.Channel.in_unit("force", np.sin(np.arange(500)), "kN"),
            va.Channel.in_unit("sway", np.cos(np.arange(500)), "deg"),
        ],
        50.0,
    ),
    "constant": lambda demo: va.LoadHistory("flat", [va.Channel.in_unit("force", [1, 1, 1], "kN")], 1.0),
    "cycles": lambda demo: demo.study.duty_cycle.events[2].load.cycles_of("vertical force"),
    "spikes": lambda demo: va.LoadHistory(
        "spiked",
        [va.Channel.in_unit("force", np.where(np.arange(999) == 500, 9.0, np.sin(np.arange(999) / 9)), "kN")],
        50.0,
    ),
    "gated": lambda demo: GatedHistory(demo.study.duty_cycle.events[2].load, {"vertical force": 100.0}),
    "several": lambda demo: [event.load for event in demo.study.duty_cycle.events],
    "range-mean": lambda demo: matrix_of(demo, "range-mean"),
    "maximum-minimum": lambda demo: matrix_of(demo, "maximum-minimum"),
    "from-to": lambda demo: matrix_of(demo, "from-to"),
    "tail": lambda demo: fit_tail(demo.study.duty_cycle.events[0].load.cycles_of("vertical force"), 300.0),
    "no cycles": lambda demo: va.rainflow([5.0, 5.0]),
    "a load that never changes": lambda demo: still(demo)[0],
    "a crack that never grows": lambda demo: still(demo)[1],
    "model": lambda demo: small_model("front"),
    "model without damage": lambda demo: small_model((0.3, 1.0, 0.2), scale=1e-3),
    "plan": lambda demo: gr.inspection_plan(demo.growths[0], every="1 year"),
    "law": lambda demo: demo.growths[0].crack.law,
    "law at two R": lambda demo: va.WalkerLaw(name="two R", rate=demo.growths[0].crack.law.rate, slope=3.0, gamma=0.5),
    "law of a table": lambda demo: mt.table_law(growth_rates()),
    "visited law": lambda demo: gr.visited_law(demo.growths[0]),
    "course": lambda demo: gr.crack_course(demo.growths[0]),
    "course of one size": lambda demo: gr.crack_course(edge_crack(demo)),
    "visited by one size": lambda demo: gr.visited_law(edge_crack(demo)),
    "initial sizes": lambda demo: gr.lives_over_size(demo.growths[0], ["0.5 mm", "2 mm"]),
    "initial sizes that never grow": lambda demo: gr.lives_over_size(still(demo)[1], ["0.5 mm", "2 mm"]),
    "shape": lambda demo: demo.growths[0].crack.shape,
    "shape of one size": lambda demo: sh.HoleCrack("5 mm", 2, "80 mm"),
    "growth fit": lambda demo: mt.fit_growth_law(growth_rates()),
    "what if of a crack": lambda demo: what_if(demo.study, "growth_laws/steel_in_air/slope", [3.1]),
    "strain life": lambda demo: strain_fit(demo).curve(),
    "strain life of a card": lambda demo: va.read_card_named("titanium-6al-4v").strain_life(),
    "strain life fit": lambda demo: strain_fit(demo),
    "local strain": lambda demo: yields(demo),
    "local strain of a load that never changes": lambda demo: va.assess_life(
        yields(demo).hot_spot, still(demo)[0].duty_cycle
    ),
    "rubber": lambda demo: va.run_study(va.read_study(demo.study.path.parent / "suspension_bush.toml")).lives[0],
    "laminate": lambda demo: va.run_study(va.read_study(demo.study.path.parent / "safety_bar.toml")).lives[1],
    "laminate by residual strength": lambda demo: va.assess_life(*of_laminate(fails_by="residual strength")),
    "laminate by its energy": lambda demo: va.assess_life(*of_laminate(rule="energy")),
    "rubber by stored energy": lambda demo: stored(demo),
    "hyperelastic fit": lambda demo: sheets(),
    "unstable hyperelastic fit": lambda demo: sheets(-0.08),
    "tearing fit": lambda demo: strips(),
    "strains on planes": lambda demo: va.run_study(va.read_study(demo.study.path.parent / "grip_shaft.toml")).lives[2],
    "critical plane": lambda demo: va.run_study(va.read_study(demo.study.path.parent / "grip_shaft.toml")).lives[0],
    "curve": lambda demo: demo.lives[1].curve,
    "class": lambda demo: demo.lives[0].curve,
    "fitted curve": lambda demo: demo.lives[2].curve,
    "curves and tests": lambda demo: [*demo.study.curves.values(), stairs(range_of=True)],
    "tests alone": lambda demo: [stairs()],
    "held curve": lambda demo: va.table_curve(
        name="t", stress="range", r_ratio=0, points=[(400.0, 1e4), (250.0, 1e5)], above="hold", below="hold"
    ),
    "curve at another R": lambda demo: va.curve_at_r(
        va.read_card_named("tempered-steel-800").curve(), 0.0, rule="goodman", ultimate_strength=800.0
    ),
    "family": lambda demo: coupons("hold"),
    "family by mean": lambda demo: coupons("refuse", by_mean=True),
    "regression": lambda demo: va.fit_line(stairs(failed=True)),
    "line": lambda demo: va.fit_likelihood(tube(demo)),
    "sharp limit": lambda demo: va.fit_likelihood(tube(demo), "sharp limit"),
    "random limit": lambda demo: va.fit_likelihood(tube(demo), "random limit"),
    "staircase": lambda demo: va.staircase(stairs()),
    "rules": lambda demo: compare_rules(demo.lives[1]),
    "what if": lambda demo: what_if(demo.study, "load scale", [0.8, 1.2]),
    "what if of words": lambda demo: what_if(demo.study, "sn_curves/pin_bore/surface", ["polished", "as-forged"]),
    "what if without damage": lambda demo: what_if(demo.study, "load scale", [0.5], spot="bend of the tube"),
    "damage over time": lambda demo: demo.lives[0].damage_over_time("loaded lap"),
    "no damage over time": lambda demo: demo.lives[2].damage_over_time("loaded lap"),
    "damage matrix": lambda demo: demo.lives[1].damage_matrix(),
    "empty damage matrix": lambda demo: demo.lives[2].damage_matrix(),
    "rules without damage": lambda demo: compare_rules(demo.lives[2]),
    "weld": lambda demo: demo.lives[0],
    "bore": lambda demo: demo.lives[1],
    "no damage": lambda demo: demo.lives[2],
    "growth": lambda demo: demo.growths[0],
    "all places": va.all_places,
    **FLAWS,
}
