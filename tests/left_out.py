"""What the reference cases hold and our methods are not compared with, on purpose: by method, key, and why."""

INTERIM = "an interim result of another way to count"
OPEN = "which of equal ranges close as full cycles is open; their sums are compared"
NOT_OFFERED = "leaving the residue out is no choice of ours: it loses the largest cycles"
INSIDE = "a number on the way that no result of ours shows; what follows from it is compared"

PLANES = "normals, compared by their angle in the tests of planes"
WRONG = "a wrong result, shown on purpose"

# A key, or "key/inner key" of a value that is a table.
LEFT_OUT = {
    "Rainflow, half cycles and repeated history": {
        "four_point_full_cycles": INTERIM,
        "half_cycles_table_three_point": INTERIM,
        "residue_MPa": INTERIM,
        "residue_indices": INTERIM,
        "repeated_index_pairs_unordered": INTERIM,
        "ignore_residue_by_range_and_mean": NOT_OFFERED,
    },
    "Rainflow of random signals": {
        "ignore": NOT_OFFERED,
        "residue_length": INTERIM,
        "half_cycles/full_cycles": OPEN,
        "half_cycles/half_cycles": OPEN,
        "repeated/full_cycles": OPEN,
        "repeated/half_cycles": OPEN,
    },
    "Range-pair counting": {"single_remaining_range_MPa": "null in every case: nothing remains"},
    "Estimate from tensile strength, steel": {"a_MPa": INSIDE, "b": INSIDE},
    "Double linear rule, repeated block": {"blocks_to_failure_miner": "the linear rule is compared by its own cases"},
    "Net section of an edge crack": {"sref_restrained_MPa": "the end of our edge crack is free"},
    "Size after a number of repeats": {"a_explicit_mm": "the error of coarse explicit steps, which ours do not take"},
    "Critical size": {"a_toughness_mm": "beyond the validity of the secant factor no size is given"},
    "Stress intensity, ellipse in an infinite body": {"E": INSIDE},
    "Growth law, effective range by Elber": {"U": INSIDE},
    "Growth law, effective range by Schijve": {"U": INSIDE},
    "Growth of an edge crack, two stages": {"a_at_transition_mm": INSIDE},
    "Retardation, Wheeler": {"factor_just_after": INSIDE},
    "Retardation, Willenborg": {"KR_just_after_MPa_sqrt_mm": INSIDE, "R_eff_just_after": INSIDE},
    "Failure assessment curve": {"Lr_max": "where the curve falls to 0: compared just before and just after"},
    "Von Mises stress of a covariance": {"not_this_variances_only_MPa": WRONG},
    "Planes out of phase": {"findley_planes": PLANES},
    "Planes out of phase, a ring of ties": {"findley_planes": PLANES},
    "Critical plane of a history": dict.fromkeys(
        ("findley_circle_plane", "max_normal_plane", "normal_stress_damage_plane"), PLANES
    ),
    "Critical plane of a history in space": dict.fromkeys(
        ("findley_circle_plane", "max_normal_plane", "normal_stress_damage_plane"), PLANES
    ),
    "Strain-life curve from tests": {"not_this_b": WRONG, "not_this_c": WRONG},
    "Damage of the von Mises process": {"not_this_component_xx_only_narrow_band": WRONG},
    "Dwell of a turning tensor": dict.fromkeys(
        (
            "not_this_real_part_worst_normal_MPa",
            "not_this_real_part_von_mises_range_MPa",
            "not_this_magnitudes_von_mises_range_MPa",
        ),
        WRONG,
    ),
    "Base shaken along three axes, six components": dict.fromkeys(
        ("not_this_vm_rms_all_independent_MPa", "not_this_vm_rms_transposed_MPa"), WRONG
    ),
    "Modes in time, six components": {"not_this_modes_counted_apart": WRONG},
    "Units of a PSD": dict.fromkeys(
        ("two_sided_g2_per_Hz", "two_sided_g2_per_rad_per_s", "one_sided_g2_per_rad_per_s"),
        "a two-sided PSD and one over rad/s are refused, with the factor",
    ),
    "Largest value of an exposure": {
        "expected_by_integration_of_the_same_model_MPa": "the two first terms of its series are what is in use; 0.4 % at worst"
    },
    "Sweep through a response at lines": {
        "damage_magnitude": "the magnitude alone is never taken straight between lines"
    },
    "Broad band about a mean, knee": {"not_this_mean_left_out": WRONG, "not_this_one_slope": WRONG},
    "Values held at a crest factor": {"not_this_cycles_dropped": WRONG},
    "K from contours of a finite-element model": {
        "J_mean_N_per_mm": "K of each contour is averaged, not J",
        "range_over_mean": "the largest deviation is shown instead, and compared",
    },
    "Reserves on load, toughness, size, yield": {"not_this_toughness_as_f_over_Kr": WRONG},
    "Reference stress, embedded crack": {"not_this_ligament_left_out": WRONG},
    "Cross-ply that softens, followed": {"n_to_D_end_by_explicit_jumps": "jumps of fixed size, which ours do not take"},
    "Toughness by the master curve": {"not_this_no_thickness_MPa_sqrt_m": WRONG},
}
# Rows of a list that are not compared.
ROWS_LEFT_OUT = {
    ("Stress intensity, centre crack", "Y"): "the last size is beyond the validity of the factor: refused",
    ("Stress intensity, centre crack", "K_MPa_sqrt_mm"): "the last size is beyond the validity of the factor: refused",
    ("Net section of an edge crack", "sref_free_MPa"): "our edge crack is in tension only; two rows have bending",
}
