"""Every limit and every piece of advice of `rules.toml` by its name: the types find a slip. Whoever
adds a row names it here too; `tests/core/test_catalogue.py` holds the two against each other."""

from __future__ import annotations

from typing import Literal

LimitName = Literal[
    "least_engagement", "damage_apart_mm", "reading_mm", "reading_deg", "alike_mm", "alike_share",
    "alike_pitch", "tell_mm", "tell_pitch", "wrench_exact", "wrench_least", "wrench_most", "galvanic_v",
    "hose_slides", "hose_warm", "hose_loose", "clamp_gap_mm", "clamped_kpa", "clamped_bare_kpa",
    "clamped_force_n", "clamped_bare_force_n", "one_clamp_bead", "one_clamp_bare", "clamp_left",
    "same_size_mm", "hand_mm", "sleeve_wall", "low_pressure_share", "over_pressure_share", "low_heat_c",
    "over_heat_c", "high_pressure_kpa", "banjo_loss", "adapter_loss", "orifice_cd", "choked_share",
    "boss_wall_share", "thread_engagement", "roughness_mm", "drill_room_mm", "little_room_mm",
    "land_mm", "trial_radius_mm", "trial_zero_mm", "trial_springback", "trial_springback_deg",
    "trial_reading_deg", "straighten_mm", "swing_clear_mm", "most_swings", "joint_straight_mm",
    "flat_coefficient", "flat_brake", "flat_pressure", "flat_vacuum", "flat_low",
    "flat_pressure_from_kpa", "hardest_bend", "spread_straight_mm", "spread_angle_deg",
    "known_mm", "known_deg", "place_mm", "laid_mm", "laid_deg",
    "least_slip_mm", "least_slip_deg", "old_radius_share",
    "spread_rotation_deg", "zone_soft_mm", "zone_soft_deg", "zone_stiff_mm", "zone_stiff_deg",
    "zone_hose_mm", "zone_hose_deg", "least_share", "useful_offcut_mm", "kerf_mm", "new_stick_short_mm",
    "new_stick_long_mm", "bought_weighs", "meets_mm", "meets_deg", "trim_mm", "shift_mm", "change_deg",
    "turn_deg", "roll_deg", "route_room_mm", "open_deg", "bend_on_deg", "degree_mm", "made_reading_deg",
    "made_reading_mm", "fine_gauge_deg", "offer_mm", "offer_deg", "offer_eye_share", "jig_least_mm",
    "jig_steep_deg",
    "jig_margin_mm", "bend_short_deg", "carried_share", "left_long_mm", "tweak_mm", "tweak_tool_deg",
    "tweak_least_deg", "tweak_surely", "tweak_alone", "tweak_second", "tweak_moves", "fits_share", "slip_sd",
    "lone_sd", "twist_straight_mm", "twist_deg", "twist_stiff_deg", "twist_scrap", "trial_made_mm",
    "trial_made_deg", "say_mm", "say_deg",
    "say_turn_deg", "spread_counts", "slip_off", "odd_sd", "gross_mm", "gross_deg", "slip_mm",
    "slip_deg", "stub_mm", "drawn_hose_mm", "drawn_part_mm", "clip_end_mm", "clip_give_mm",
    "clip_plastic_share", "stiff_per_od", "hose_shrinks", "hose_grows", "hose_twist_deg",
    "hose_longest_share", "hose_clip_share", "torque_spread", "hose_end_deg", "vacuum_leak_kpa_min",
    "part_costs", "bought_hose_share", "bought_hose_deg",
]  # fmt: skip
AdviceName = Literal[
    "end_open", "side_unsaid", "end_room", "prove_nut", "thread_fit", "seat_pairs", "double_flare_hard",
    "spare", "twin", "old_contact", "fixture", "decision", "checks", "string", "alongside",
    "leave_long", "open_items", "nut_binds", "function_failed", "signed_changed",
    "no_flare", "hose_sleeve", "bead", "backwards", "old_filter", "glycol_mineral", "wrong_fluid",
    "weakest", "not_planned", "rating", "unsaid", "low_pressure", "over_pressure", "low_heat",
    "over_heat", "no_bead_in_it", "freezes", "hose_over", "overlaps", "reusable_brake", "insert",
    "starved", "sleeve_wall", "trial_piece", "shared_thread", "reservoir", "let_in", "let_in_cooler",
    "let_in_filter", "let_in_unknown", "joint_missing", "joint_sizes", "union_law", "hose_to_hose",
    "swing", "joint", "openings", "left_open", "clip_gap", "hose_way", "hose_pattern",
    "hose_pattern_rubbed", "bought_hose", "clip_behind", "hose_slack", "hose_plane",
    "hose_free", "hose_ends",
]  # fmt: skip
