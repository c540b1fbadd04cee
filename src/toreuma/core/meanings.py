"""What words of programs can mean: the names that dialects, machines, writer and reader all use for it."""

__all__ = ["CYCLES", "MEANINGS", "NEEDED", "NOTHING", "OF_THE_MACHINE"]

CYCLES = frozenset(
    (
        "tap_cycle", "tap_side_cycle", "peck_cycle", "peck_side_cycle", "bore_cycle", "bore_side_cycle", "drill_cycle",
        "dwell_drill_cycle", "thread_cycle", "turn_cycle", "face_cycle", "rough_cycle", "rough_face_cycle",
        "pattern_cycle", "finish_cycle", "face_peck_cycle", "groove_cycle", "whole_thread_cycle", "cycle_off",
    )
)  # fmt: skip
"""Many moves of one or two blocks; a control that has none of them gets every move written."""

OF_THE_MACHINE = frozenset(
    (
        "catcher_out", "catcher_in", "pick_off_hold", "pick_off_away", "centre_in", "centre_out", "unclamp",
        "clamp_work", "c_axis_on", "c_axis_off", "brake_on", "brake_off", "live_forward", "live_reverse", "live_stop",
        "main_spindle", "second_spindle", "second_open", "second_close", "air_blast", "sync", "sync_off", "phase",
        "push_limit", "closed_asked", "part_asked", "part_out", "speed_shared", "rigid_tap", "orient", "chamfer_on",
        "chamfer_off",
    )
)  # fmt: skip
"""What only the builder of a machine gives a number; on another machine the same word does something else."""

NOTHING = "nothing"
"""What a machine does at a word that moves neither tool nor work: a door, a conveyor, a lamp."""

NEEDED = frozenset(
    (
        "rapid", "line", "thread", "arc_clockwise", "arc_counter_clockwise", "dwell", "call", "return", "plane",
        "inch", "mm", "compensation_off", "clamp", "work_offset", "surface_speed", "fixed_speed", "feed_per_minute",
        "feed_per_rev", "stop", "optional_stop", "spindle_forward", "spindle_reverse", "spindle_stop", "coolant_on",
        "coolant_off", "end", "polar_on", "polar_off", "second_offset", "set_datum",
    )
)  # fmt: skip
"""A dialect that writes has a word for each of these."""

MEANINGS = (
    NEEDED
    | CYCLES
    | OF_THE_MACHINE
    | frozenset(
        (
            NOTHING, "absolute", "incremental", "compensation_left", "compensation_right", "reference",
            "reference_straight",
            "second_reference", "machine_place", "local_shift", "datum_3", "datum_4", "datum_5", "datum_6",
            "datum_more",
            "set_datum_end", "plane_across", "plane_along", "cylinder_on", "cylinder_off", "exact", "exact_on",
            "through_on", "changing_lead", "macro", "macro_modal", "macro_off", "tool_change", "mist_on",
            "forward_coolant", "reverse_coolant", "return_start", "return_near", "end_again", "metric_moves",
        )
    )
)  # fmt: skip
