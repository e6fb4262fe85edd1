"""Thread limits and fits against published tables, from memory of ISO 724, ISO 965-2 and ASME
B1.1 where the table value is given, and worked by hand from their formulas."""

import csv
from importlib.metadata import files as package_files

import pytest

from bendrel.catalogue.loader import load_kit
from bendrel.core.parts.threads.designation import ThreadError
from bendrel.core.parts.threads.fit import thread_fit
from bendrel.core.parts.threads.identify import ThreadReading, identify
from bendrel.core.parts.threads.tolerance import (
    basic_minor_diameter,
    basic_pitch_diameter,
    female_limits,
    male_limits,
)

INCH = 25.4
LEAST_ENGAGEMENT = 0.75


parse_thread = load_kit().thread


def fit(male, female):
    return thread_fit(parse_thread(male), parse_thread(female), LEAST_ENGAGEMENT)


@pytest.mark.parametrize(
    ("name", "d2_mm"),
    [
        ("M10x1", 9.350),  # ISO 724
        ("M12x1.5", 11.026),  # ISO 724
        ("3/8-24", 0.3479 * INCH),  # ASME B1.1
        ("7/16-20", 0.4050 * INCH),  # ASME B1.1
        ("1/2-20", 0.4675 * INCH),  # ASME B1.1
    ],
)
def test_basic_pitch_diameters(name, d2_mm):
    assert basic_pitch_diameter(parse_thread(name)) == pytest.approx(d2_mm, abs=0.0015)


def test_basic_minor_diameter_of_m10x1():
    assert basic_minor_diameter(parse_thread("M10x1")) == pytest.approx(8.917, abs=0.001)  # ISO 724


@pytest.mark.parametrize(
    ("name", "most", "least"),
    [
        ("3/8-24", 0.3468, 0.3430),  # ASME B1.1, 3/8-24 UNF-2A
        ("7/16-20", 0.4037, 0.3995),  # ASME B1.1, 7/16-20 UNF-2A
        ("1/2-20", 0.4662, 0.4619),  # ASME B1.1, 1/2-20 UNF-2A
    ],
)
def test_class_2a_pitch_diameters(name, most, least):
    pitch = male_limits(parse_thread(name)).pitch
    assert pitch.most / INCH == pytest.approx(most, abs=0.00011)
    assert pitch.least / INCH == pytest.approx(least, abs=0.00011)


def test_6g_and_6h_of_m10x1_5():
    """ISO 965-2, M10x1.5: 6g pitch 8.994/8.862, 6H pitch 9.026/9.206, 6H minor 8.376/8.676.

    The standard's tables round the formula to the R40 series, steps of about 6 %; the 6H pitch
    tolerance of 0.180 mm may so differ from the formula by 0.011 mm.
    """
    male, female = male_limits(parse_thread("M10x1.5")), female_limits(parse_thread("M10x1.5"))
    assert (male.pitch.most, male.pitch.least) == pytest.approx((8.994, 8.862), abs=0.004)
    assert (female.pitch.least, female.pitch.most) == pytest.approx((9.026, 9.206), abs=0.011)
    assert (female.minor.least, female.minor.most) == pytest.approx((8.376, 8.676), abs=0.007)


def test_worked_examples():
    """By hand from ISO 68-1 and ASME B1.1: pitch diameters apart, less the drift of 25.4/24 against 1 mm."""
    jam = fit("3/8-24", "M10x1")
    assert jam.verdict == "binds"
    assert jam.clearance_mm == pytest.approx(0.66, abs=0.01)
    assert jam.turns_before_binding == pytest.approx(6.6, abs=0.1)
    assert jam.engagement == pytest.approx(0.44, abs=0.01)
    tight = fit("M10x1", "3/8-24")
    assert (tight.verdict, tight.starts) == ("will_not_start", False)
    assert tight.turns_before_binding is None
    assert tight.clearance_mm == pytest.approx(-0.37, abs=0.01)
    coarse = fit("7/16-20", "7/16-24")
    assert coarse.turns_before_binding == pytest.approx(0.8, abs=0.05)


def test_a_thread_fits_itself_and_drops_through_a_larger_one():
    for name in ("3/8-24", "M10x1", "1/2-20", "#10-32", "M6x1", "1-12"):
        own = fit(name, name)
        assert (own.verdict, own.engagement, own.turns_before_binding) == ("fits", 1.0, None)
    assert fit("3/8-24", "7/16-24").verdict == "loose"


def test_designations_as_people_write_them():
    assert parse_thread("M10 X 1").designation == "M10x1"
    assert parse_thread("3/8-24 UNF-2B").designation == "3/8-24"
    assert parse_thread("1 1/16-12").diameter_mm == pytest.approx(26.9875)
    assert parse_thread("#10-32").diameter_mm == pytest.approx(4.826)  # ASME B1.1: 0.190 in


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("1/4-28 BSW", "no Whitworth thread"),
        ("-7", "no dash size"),
        ("5/8 NPT", "not in the table"),
        ("G7/16", "pipe thread"),
        ("M10", "pitch"),
        ("5/4-20", "improper"),
        ("3/8-0", "threads per inch"),
        ("M10x9", "no real thread"),
        ("gas", "cannot|not a thread"),
    ],
)
def test_threads_that_are_refused(text, word):
    with pytest.raises(ThreadError, match=word):
        parse_thread(text)


def iso_228_rows():
    """ISO 228-1 as shipped with bd_warehouse, a package of test-only reference data."""
    file = next(f for f in package_files("bd_warehouse") if f.name == "iso_228_1.csv")
    return {row["size"]: row for row in csv.DictReader(file.read_text().splitlines())}


@pytest.mark.parametrize("size", ["1/16", "1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "1"])
def test_parallel_pipe_threads(size):
    reference = {k: float(v) for k, v in iso_228_rows()[size].items() if k != "size"}
    thread = parse_thread(f"G{size}")
    assert thread.diameter_mm == reference["major_diameter"]
    assert INCH / thread.pitch_mm == pytest.approx(reference["tpi"])
    assert basic_pitch_diameter(thread) == pytest.approx(reference["pitch_diameter"], abs=0.001)
    assert basic_minor_diameter(thread) == pytest.approx(reference["minor_diameter"], abs=0.001)
    male, female = male_limits(thread), female_limits(thread)
    assert male.pitch.most - male.pitch.least == pytest.approx(reference["pitch_tolerance"])
    assert male.major.most - male.major.least == pytest.approx(reference["external_major_tolerance"])
    assert female.minor.most - female.minor.least == pytest.approx(reference["internal_minor_tolerance"])


@pytest.mark.parametrize(
    ("name", "pitch_diameter_in"),
    [
        ("1/8 NPT", 0.37360),
        ("1/4 NPT", 0.49163),
        ("3/8 NPT", 0.62701),
        ("1/2 NPT", 0.77843),
        ("3/4 NPT", 0.98887),
    ],
)
def test_npt_pitch_diameters_at_hand_tight(name, pitch_diameter_in):
    """ASME B1.20.1, E1, from memory."""
    thread = parse_thread(name)
    assert basic_pitch_diameter(thread) / INCH == pytest.approx(pitch_diameter_in, abs=0.0001)
    assert thread.taper


def test_pipe_threads_as_people_write_them():
    assert parse_thread("1/8-27 NPT").designation == "1/8-27 NPT"
    assert parse_thread("npt 1/8").designation == "1/8-27 NPT"
    assert parse_thread("1/4 BSPP").designation == "G1/4"
    assert parse_thread("Rc 1/8").designation == "R1/8"
    assert fit("G1/8", "G1/8").verdict == "fits"
    assert fit("G1/4", "G1/8").verdict == "will_not_start"
    assert fit("G1/8", "G1/4").verdict == "loose"


@pytest.mark.parametrize(
    ("male", "female", "word"),
    [
        ("1/8 NPT", "G1/8", "55° ones"),
        ("R1/8", "1/8 NPT", "60° ones"),
        ("M10x1", "G1/8", "55° ones"),
        ("R1/8", "G1/8", "tapered"),
        ("1/8 NPT", "3/8-24", "tapered"),
    ],
)
def test_mixed_pairs_are_refused_with_the_reason(male, female, word):
    """ISO 7-1, ISO 228-1 and ASME B1.20.1: 55° and 60° flanks never mate, nor tapered in parallel."""
    with pytest.raises(ThreadError, match=word):
        fit(male, female)


@pytest.mark.parametrize(
    ("name", "male_um", "female_um", "minor_um"),
    [
        # ISO 965-1, tables of Td2 (grade 6), TD2 (grade 6) and TD1 (grade 6)
        ("M5x0.8", 95, 125, 200),
        ("M8x1", 112, 150, 236),
        ("M10x1.25", 118, 160, 265),
        ("M10x1.5", 132, 180, 300),
        ("M12x1", 118, 160, 236),
        ("M12x1.25", 132, 180, 265),
        ("M14x1.5", 140, 190, 300),
        ("M14x2", 160, 212, 375),
        ("M27x2", 170, 224, 375),
        ("M36x3", 200, 265, 500),
        ("M52x2", 180, 236, 375),
    ],
)
def test_tolerances_are_rounded_as_in_the_standard(name, male_um, female_um, minor_um):
    male, female = male_limits(parse_thread(name)), female_limits(parse_thread(name))
    assert (male.pitch.most - male.pitch.least) * 1000 == pytest.approx(male_um)
    assert (female.pitch.most - female.pitch.least) * 1000 == pytest.approx(female_um)
    assert (female.minor.most - female.minor.least) * 1000 == pytest.approx(minor_um)


@pytest.mark.parametrize("text", ["1/8-27", "1/4-18", "3/8-18", "1/2-14", "1/16-27"])
def test_pipe_sizes_without_their_letters_are_pipe_threads(text):
    """ASME B1.20.1: no unified thread has these turns in these sizes."""
    assert parse_thread(text).designation == f"{text} NPT"
    assert parse_thread(text).taper


@pytest.mark.parametrize(
    ("text", "thread"),
    [("-6", "9/16-18"), ("AN6", "9/16-18"), ("AN-4", "7/16-20"), ("6 dash", "9/16-18"), ("JIC 8", "3/4-16"),
     ("-10", "7/8-14"), ("dash 12", "1 1/16-12"), ("-16", "1 5/16-12")],
)  # fmt: skip
def test_dash_sizes(text, thread):
    """SAE J514: sixteenths of an inch of tube, and the 37° nut that goes with it."""
    assert parse_thread(text).designation == thread


@pytest.mark.parametrize(
    ("text", "diameter_in", "tpi", "effective_in"),
    [
        ("3/8 BSF", 0.375, 20, 0.3430),
        ("3/8-20 BSF", 0.375, 20, 0.3430),
        ("1/2 BSF", 0.5, 16, 0.4600),
        ("1/4 BSW", 0.25, 20, 0.2180),
    ],
)
def test_whitworth_threads_of_old_british_machines(text, diameter_in, tpi, effective_in):
    """BS 84, effective diameters: D − 0.640327/tpi."""
    thread = parse_thread(text)
    assert thread.diameter_mm / INCH == pytest.approx(diameter_in)
    assert (INCH / thread.pitch_mm, thread.flank_deg) == (pytest.approx(tpi), 55)
    assert basic_pitch_diameter(thread) / INCH == pytest.approx(effective_in, abs=1e-4)
    with pytest.raises(ThreadError, match="never mate"):
        fit(text, "3/8-24")
    assert fit(text, text).verdict == "fits"


def test_whitworth_tolerances_by_hand():
    """BS 84, medium fit, 3/8 BSF at 20 per inch: 0.002·0.375^(1/3) + 0.003·√0.375 + 0.005·√0.05 = 0.004397 in
    on the effective diameter, 0.01·√0.05 = 0.002236 in more on the crests; 0.2·p + 0.004 in on the bore."""
    male, female = male_limits(parse_thread("3/8 BSF")), female_limits(parse_thread("3/8 BSF"))
    assert (male.pitch.most - male.pitch.least) / INCH == pytest.approx(0.004397, abs=2e-6)
    assert (male.major.most - male.major.least) / INCH == pytest.approx(0.004397 + 0.002236, abs=2e-6)
    assert (female.pitch.most - female.pitch.least) / INCH == pytest.approx(0.004397, abs=2e-6)
    assert (female.minor.most - female.minor.least) / INCH == pytest.approx(0.2 / 20 + 0.004, abs=2e-5)
    assert male.pitch.most == female.pitch.least == basic_pitch_diameter(parse_thread("3/8 BSF"))


def test_a_caliper_on_the_small_end_of_a_taper_finds_it():
    """1/8 NPT: 10.24 mm at the gauge plane, 4.1 mm of length before it, 1 in 16: 9.98 at the small end."""
    threads = [parse_thread(name) for name in load_kit().threads]
    for diameter in (10.20, 9.98, 9.93):
        reading = ThreadReading(
            gender="male",
            diameter_mm=diameter,
            diameter_error_mm=0.05,
            pitch_mm=25.4 / 27,
            pitch_error_mm=0.02,
            taper="tapered",
        )
        best = identify(reading, threads)[0]
        assert (best.designation, best.within) == ("1/8-27 NPT", True)


# ASME B1.1, inches: pitch diameter 2A (most, least) and 2B most; major 2A least; minor 2B (least, most)
UNIFIED = [
    ("1/4-28", (0.2258, 0.2225), 0.2311, 0.2425, (0.211, 0.220)),
    ("5/16-24", (0.2843, 0.2806), 0.2902, 0.3042, (0.267, 0.277)),
    ("3/8-24", (0.3468, 0.3430), 0.3528, 0.3667, (0.330, 0.340)),
    ("7/16-20", (0.4037, 0.3995), 0.4104, 0.4281, (0.383, 0.395)),
    ("1/2-20", (0.4662, 0.4619), 0.4731, 0.4906, (0.446, 0.457)),
    ("9/16-18", (0.5250, 0.5205), 0.5323, 0.5524, (0.502, 0.515)),
    ("5/8-18", (0.5875, 0.5828), 0.5949, 0.6149, (0.565, 0.578)),
    ("3/4-16", (0.7079, 0.7029), 0.7159, 0.7391, (0.682, 0.696)),
    ("7/8-14", (0.8270, 0.8216), 0.8356, 0.8631, (0.798, 0.814)),
    ("#10-32", (0.1688, 0.1658), 0.1736, 0.1831, (0.156, 0.164)),
    ("#8-32", (0.1428, 0.1399), 0.1475, 0.1571, (0.130, 0.139)),
    ("#0-80", (0.0514, 0.0496), 0.0542, 0.0563, (0.0465, 0.0514)),
]  # fmt: skip


@pytest.mark.parametrize(("name", "male", "female", "crest", "bore"), UNIFIED)
def test_class_2a_and_2b_over_the_sizes(name, male, female, crest, bore):
    """Every limit of both classes, within half a unit of the table's last place and the rounding of its
    formula (0.0002 in); the minor diameter's table is rounded to a thousandth."""
    out, into = male_limits(parse_thread(name)), female_limits(parse_thread(name))
    told = (out.pitch.most, out.pitch.least, into.pitch.most, out.major.least)
    assert [v / INCH for v in told] == pytest.approx([*male, female, crest], abs=2e-4)
    assert [into.minor.least / INCH, into.minor.most / INCH] == pytest.approx(bore, abs=6e-4)
    allowance = into.pitch.least / INCH - male[0]
    assert out.major.most / INCH == pytest.approx(parse_thread(name).diameter_mm / INCH - allowance, abs=2e-4)


METRIC = [  # ISO 965-1: fundamental deviation of g, and Td grade 6 of the major diameter, in µm
    ("M2.5x0.45", 20, 100), ("M5x0.8", 24, 150), ("M10x1", 26, 180), ("M10x1.25", 28, 212),
    ("M10x1.5", 32, 236), ("M14x2", 38, 280), ("M36x3", 48, 375),
]  # fmt: skip


@pytest.mark.parametrize(("name", "deviation", "crest"), METRIC)
def test_6g_lies_under_the_basic_size_by_the_standards_deviation(name, deviation, crest):
    """The standard's table rounds 15 + 11·P to a whole micrometre, here and there to the next."""
    thread = parse_thread(name)
    male = male_limits(thread)
    assert (thread.diameter_mm - male.major.most) * 1000 == pytest.approx(deviation, abs=1.01)
    assert (basic_pitch_diameter(thread) - male.pitch.most) * 1000 == pytest.approx(deviation, abs=1.01)
    assert (male.major.most - male.major.least) * 1000 == pytest.approx(crest, abs=0.6)


@pytest.mark.parametrize(
    ("name", "male", "female"),
    [("M8x0.75", 100, 132), ("M8x1", 112, 150), ("M10x1.25", 118, 160), ("M10x1.5", 132, 180)],
)
def test_the_pitch_diameters_tolerance_of_grade_6(name, male, female):
    """ISO 965-1, over 5.6 up to 11.2 mm: Td2 and TD2 of grade 6, in micrometres."""
    out, into = male_limits(parse_thread(name)), female_limits(parse_thread(name))
    assert (out.pitch.most - out.pitch.least) * 1000 == pytest.approx(male, abs=0.6)
    assert (into.pitch.most - into.pitch.least) * 1000 == pytest.approx(female, abs=0.6)
