"""What a user writes, checked by strict types: names of the front door, results with their attributes, packages."""

from pathlib import Path

import vivid_anvil as va


def life_of_a_bracket(folder: Path) -> float:
    """From a measured history to a life, with its working and a picture."""
    history = va.read_csv(folder / "loaded_lap.csv")
    month = va.DutyCycle("month", (va.Event("lap", history, 1667),), repeats_per_year=12)
    steel = va.Material(name="plate", ultimate_strength="510 MPa", yield_strength="355 MPa")
    weld = va.detail_curve("EN 1993-1-9", 71)
    toe = va.HotSpot(
        name="toe",
        relation=va.OneLoad("vertical force", "24.5 MPa/kN"),
        material=steel,
        method=va.StressLife(sn_curve=weld),
    )
    life: va.LifeResult = va.assess_life(toe, month, target="30 years")
    print(va.explain(life), [finding.code for finding in life.findings])
    va.save_figure(va.plot(life), folder / "life.png")
    reserve = life.reserve_on_stress
    return life.life_repeats if reserve is None else reserve


def growth_of_a_crack(toe: va.HotSpot, month: va.DutyCycle) -> float | None:
    """A crack with two sizes, cycle by cycle, and when to look for it."""
    law = va.WalkerLaw(name="air", rate="1.65e-11 m/cycle at 1 MPa√m", slope=3.0, gamma=0.6)
    plate = va.SurfaceCrack(thickness="12 mm", plate_width="150 mm")
    crack = va.Crack(
        hot_spot=toe,
        shape=plate,
        law=law,
        initial_size="1 mm",
        initial_half_length="2.5 mm",
        detectable_size="2.5 mm",
        order="cycle by cycle",
        retardation=va.Wheeler(exponent=1.3),
    )
    grown: va.GrowthResult = va.grow_crack(crack, month)
    plan: va.InspectionPlan = va.inspection_plan(grown)
    print(plan.page("us").title, grown.critical.limiting, va.growth.RETARDATIONS)
    return grown.life_years


def worst_place(study: va.Study) -> int:
    """A study run as a whole, a variant of it, the worst node of its model."""
    result: va.StudyResult = va.run_study(study)
    variants: va.WhatIf = va.what_if(study, "load scale", [0.9, 1.1])
    print(variants.to_frame(), result.worst, va.counting.RESIDUES)
    model: va.ModelResult = va.run_model(study)
    return va.hottest_places(model, 1)[0].node
