"""Every kind of finding by its code, and the stage of the work in which it is settled."""

from __future__ import annotations

from typing import Literal, get_args

Stage = Literal["look", "measure", "choose", "plan", "fit", "prove"]

LookCode = Literal[
    "twin", "old_contact", "fixture", "clip_behind", "clip_gap", "decision_without_reason", "not_planned",
]  # fmt: skip
MeasureCode = Literal[
    "check_wire", "check_tape", "check_way_a", "check_way_b", "check_place_b",
    "check_across", "check_corner", "check_sheet", "check_together", "alongside", "length_only",
    "straight_missing",
]  # fmt: skip
ChooseCode = Literal[
    "material_refused", "material_care", "end_refused", "end_care", "hose_refused", "hose_care",
    "joint_refused", "joint_care", "clamp_refused", "clamp_care", "left_to_practice",
    "service_unsaid", "end_on_tube", "sleeve_wall", "double_flare_hard", "no_flare", "wrong_seat",
    "seat_unsaid", "galvanic", "no_nut", "nut_mismatch", "threads_mixed", "port_thread_unread",
    "nut_port", "prove_nut", "trial_stale", "radius_too_tight", "strain_over_elongation",
    "bender_size", "angle_over_limit", "radius_not_the_tools", "other_service", "low_pressure",
    "over_pressure", "freezes", "low_heat", "over_heat", "made_for",
    "too_hot_tube", "too_hot_end", "too_hot_hose", "too_hot_clamps", "too_hot_component",
    "test_tube", "test_end", "test_hose", "test_clamps", "test_component", "rating_unknown_tube",
    "rating_unknown_end", "rating_unknown_hose", "rating_unknown_clamps",
    "rating_unknown_component", "pressure_tube", "pressure_end", "pressure_hose", "pressure_clamps",
    "pressure_component", "wrong_fluid", "fluid_tube", "choked", "gas_choked", "flow_unknown",
    "starved", "slow_cold", "drop_over_available", "fast", "hose_fluid", "too_cold_hose",
    "hose_over_end", "hose_short", "hose_rubs", "reusable_brake", "clamp_on_class", "no_clamp",
    "clamp_range", "hose_loose", "hose_tight", "hose_warm", "clamp_room", "bare_refused",
    "one_clamp", "no_bead", "joint_missing", "joint_sizes", "union_refused", "union_care",
    "union_law", "hose_to_hose", "hose_no_reach", "hose_kinks", "hose_pattern", "bought_hose",
    "hose_slack", "hose_twists",
    "hose_near", "hose_length", "hose_end_none", "hose_end_unknown", "hose_end_angle",
    "backwards", "direction_unknown", "restrictor_bore", "old_filter", "union_ends",
    "joint_without_hose", "nothing_between", "end_open", "hose_on_what", "joint_threads", "joint_size",
    "side_unsaid", "part_refused", "part_care",
]  # fmt: skip
PlanCode = Literal[
    "end_room", "flare_order", "bender_grip", "no_spare", "left_long", "left_long_no_room",
    "bends_too_close", "flattens", "kinks", "opening", "end_does_not_pass", "does_not_pass",
    "left_open_unread", "left_open_whole", "left_open_stiff", "order_blocked", "no_order",
    "seldom_fits",
]  # fmt: skip
FitCode = Literal[
    "not_done",
]  # fmt: skip
ProveCode = Literal[
    "nut_binds", "joint_torque", "joint_wet", "bleed_balance", "function_failed", "signed_changed",
]  # fmt: skip
Code = LookCode | MeasureCode | ChooseCode | PlanCode | FitCode | ProveCode

STAGE_OF: dict[Code, Stage] = {
    **dict.fromkeys(get_args(LookCode), "look"),
    **dict.fromkeys(get_args(MeasureCode), "measure"),
    **dict.fromkeys(get_args(ChooseCode), "choose"),
    **dict.fromkeys(get_args(PlanCode), "plan"),
    **dict.fromkeys(get_args(FitCode), "fit"),
    **dict.fromkeys(get_args(ProveCode), "prove"),
}
