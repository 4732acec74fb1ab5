"""One detail, four curves: a class, an estimate, tests and a card, in the same terms; and a family between two R."""

import vivid_anvil as va
from vivid_anvil.demo import write_demo

folder = write_demo("larkfell-demo").parent

weld = va.detail_curve("IIW steel", 80, thickness="40 mm", thickness_exponent="transverse butt weld, as welded")
pin = va.estimate_curve(
    "steel", ultimate_strength="780 MPa", surface="ground", loading="bending", size="40 mm", section="round"
)
print(pin)
tests = va.read_specimens(folder / "tube_tests.csv")
fits, refused = va.compare_fits(tests)
best = next(iter(fits.values()))
print(best)
tube = best.curve(survival_probability=0.95, confidence=0.75)
typical = va.read_card_named("structural-steel-355").curve()
for finding in (*pin.curve.findings, *typical.findings):
    print(finding)

curves = [va.in_terms_of(curve, "amplitude") for curve in (weld, pin.curve, tube, typical)]
for row in va.stress_table(curves, [1e5, 1e6, 1e7], "MPa").rows():
    print({heading: round(value, 1) for heading, value in row.items()})
va.save_figure(va.plot([*curves, tests]), folder / "curves.png")

pulsating = va.curve_at_r(typical, 0.0, rule="goodman", ultimate_strength=510.0)
tested = va.straight_curve(
    name="tested at R = 0", stress="amplitude", r_ratio=0, point_stress="175 MPa", point_life=2e6, slope=9,
    survival_probability=0.5,
)  # fmt: skip
family = va.SNFamily(name="plate", curves=(typical, tested))
print(
    f"R = 0 at a million cycles: {pulsating.stress_at(1e6):.1f} MPa by Goodman, {tested.stress_at(1e6):.1f} MPa tested"
)
print(f"R = -0.5 in between: {family.amplitude_at(1e6, -0.5):.1f} MPa")
va.save_figure(va.plot(family), folder / "family.png")
