"""Rows that name a standard, against its tables typed here by hand, and against its formulas.

Typed from ASME B1.20.1, ISO 228-1, ISO 7-1, SAE J512, J514, J527, J1065, J1453, ASTM B280, EN 1057,
ISO 8434-1, DIN 7643: inch figures in inches, metric ones in mm.
"""

from __future__ import annotations

import pytest

from bendrel.catalogue.loader import load_kit

KIT = load_kit()
INCH = 25.4

# D, threads per inch, L1: ASME B1.20.1 table 2
NPT = {
    "1/16-27 NPT": (0.3125, 27, 0.160), "1/8-27 NPT": (0.405, 27, 0.1615), "1/4-18 NPT": (0.540, 18, 0.2278),
    "3/8-18 NPT": (0.675, 18, 0.240), "1/2-14 NPT": (0.840, 14, 0.320), "3/4-14 NPT": (1.050, 14, 0.339),
    "1-11.5 NPT": (1.315, 11.5, 0.400),
}  # fmt: skip


@pytest.mark.parametrize("name", NPT)
def test_tapered_inch_pipe_threads_by_their_formulas(name: str) -> None:
    """E0 = D − (0.05·D + 1.1)·p at the small end, E1 = E0 + L1/16 at hand-tight, and 0.8 p for its height."""
    outside, tpi, l1 = NPT[name]
    pitch = 1 / tpi
    e1 = outside - (0.05 * outside + 1.1) * pitch + l1 / 16
    row = KIT.pipes[name]
    assert row.diameter_mm == pytest.approx((e1 + 0.8 * pitch) * INCH, abs=0.002)
    assert row.gauge_length_mm == pytest.approx(l1 * INCH, abs=0.002)
    assert row.tpi == tpi


def test_tapered_whitworth_threads_are_the_parallel_ones_at_the_gauge_plane() -> None:
    """ISO 7-1 gives at the gauge plane what ISO 228-1 gives all along; gauge lengths from its table."""
    lengths = {
        "1/16": 4.0,
        "1/8": 4.0,
        "1/4": 6.0,
        "3/8": 6.4,
        "1/2": 8.2,
        "3/4": 9.5,
        "1": 10.4,
        "1 1/4": 12.7,
    }
    for size, length in lengths.items():
        tapered, parallel = KIT.pipes[f"R{size}"], KIT.pipes.get(f"G{size}")
        assert tapered.gauge_length_mm == length
        if parallel is not None:
            assert (tapered.diameter_mm, tapered.tpi) == (parallel.diameter_mm, parallel.tpi)
    assert sum(f"G{size}" in KIT.pipes for size in lengths) >= 7


HEX_BY_THREAD = {
    # SAE J514 and ISO 8434-2, 37° nuts; the O-ring boss studs have the same; J514 flareless too
    "single-37": {
        "5/16-24": "3/8", "3/8-24": "7/16", "7/16-20": "9/16", "1/2-20": "5/8", "9/16-18": "11/16",
        "3/4-16": "7/8", "7/8-14": "1", "1 1/16-12": "1 1/4", "1 3/16-12": "1 3/8", "1 5/16-12": "1 1/2",
    },
    "bite-inch": {"7/16-20": "9/16", "9/16-18": "11/16", "3/4-16": "7/8", "1 1/16-12": "1 1/4"},
    "o-ring-boss": {"7/16-20": "9/16", "9/16-18": "11/16", "3/4-16": "7/8", "1 1/16-12": "1 1/4"},
    # SAE J512
    "single-45": {"7/16-20": "9/16", "1/2-20": "5/8", "5/8-18": "3/4", "3/4-16": "7/8", "7/8-14": "1 1/16"},
    # SAE J1453
    "face-seal": {
        "9/16-18": "11/16", "11/16-16": "13/16", "13/16-16": "15/16", "1-14": "1 1/8", "1 3/16-12": "1 3/8",
        "1 7/16-12": "1 5/8",
    },
    # SAE J514 pipe studs
    "npt": {"1/8-27 NPT": "7/16", "1/4-18 NPT": "9/16", "3/8-18 NPT": "11/16", "1/2-14 NPT": "7/8"},
}  # fmt: skip
HEX_MM = {
    "metric-boss": {"M10x1": 14, "M12x1.5": 17, "M14x1.5": 19, "M16x1.5": 22, "M18x1.5": 24, "M22x1.5": 27},
    "bspp": {"G1/8": 14, "G1/4": 19, "G3/8": 22, "G1/2": 27, "G3/4": 32},
    "banjo": {"M10x1": 14, "M12x1.5": 17, "M14x1.5": 19, "M16x1.5": 22},
}


def inches(text: str) -> float:
    return sum(
        float(p.split("/")[0]) / float(p.split("/")[1]) if "/" in p else float(p) for p in text.split()
    )


@pytest.mark.parametrize("fitting", [*HEX_BY_THREAD, *HEX_MM])
def test_hexes_by_thread(fitting: str) -> None:
    """Across flats of every nut and stud that says so by its standard."""
    asked = {t: inches(x) * INCH for t, x in HEX_BY_THREAD.get(fitting, {}).items()}
    asked |= {t: float(mm) for t, mm in HEX_MM.get(fitting, {}).items()}
    rows = [n for n in KIT.nuts.values() if n.fitting == fitting and n.source.kind == "standard"]
    met = {row.thread for row in rows} & set(asked)
    assert met == set(asked)
    for row in rows:
        if row.thread in asked:
            assert row.hex_mm == pytest.approx(asked[row.thread], abs=0.001), row.id


# outside and walls in inches: ASTM B280 coils, SAE J527, SAE J1065
TABLES = {
    ("copper", "ASTM B280"): {
        "1/8 in": [0.030], "3/16 in": [0.030], "1/4 in": [0.030], "5/16 in": [0.032], "3/8 in": [0.032],
        "1/2 in": [0.032], "5/8 in": [0.035], "3/4 in": [0.035],
    },
    ("steel-double-wall", "SAE J527"): {
        "3/16 in": [0.028], "1/4 in": [0.028], "5/16 in": [0.028], "3/8 in": [0.028], "1/2 in": [0.035],
    },
    ("steel-seamless", "SAE J1065"): {
        "1/4 in": [0.035, 0.049], "3/8 in": [0.035, 0.049], "1/2 in": [0.049, 0.065, 0.083],
        "5/8 in": [0.065, 0.083], "3/4 in": [0.065, 0.095], "1 in": [0.083, 0.120],
    },
}  # fmt: skip


@pytest.mark.parametrize("key", TABLES)
def test_tube_that_names_a_table(key: tuple[str, str]) -> None:
    """Every row that names it is in it."""
    material, name = key
    rows = [t for t in KIT.tubes.values() if t.material == material and name in t.source.text]
    assert rows
    for tube in rows:
        walls = [wall * INCH for wall in TABLES[key][tube.size]]
        assert min(abs(tube.wall_mm - wall) for wall in walls) < 0.005, tube.id


def test_a_cone_is_one_cone_whatever_tube_is_in_it() -> None:
    """ISO 8434-2: metric tube sits on the inch cone of its nut: one thread, range and rating."""
    ranges = {  # SAE J533, 37°: least and greatest flare in inches, by thread
        "9/16-18": (0.460, 0.490), "3/4-16": (0.630, 0.660), "7/8-14": (0.760, 0.790),
        "1 1/16-12": (0.920, 0.950), "1 5/16-12": (1.170, 1.200),
    }  # fmt: skip
    met = set()
    for nut in KIT.nuts.values():
        row = KIT.end_sizes.get(("single-37", nut.size))
        if nut.fitting != "single-37" or nut.thread not in ranges or row is None:
            continue
        met.add(nut.thread)
        low, high = ranges[nut.thread]
        assert row.flare_diameter_mm is not None
        assert low * INCH - 0.1 <= row.flare_diameter_mm <= high * INCH + 0.1, nut.id
    assert met == set(ranges)
    by_thread: dict[str, set[float | None]] = {}
    for nut in KIT.nuts.values():
        row = KIT.end_sizes.get(("single-37", nut.size))
        if nut.fitting == "single-37" and row is not None:
            by_thread.setdefault(nut.thread, set()).add(row.rated_kpa)
    assert len(by_thread) > 5
    for ratings in by_thread.values():
        assert len(ratings) == 1
