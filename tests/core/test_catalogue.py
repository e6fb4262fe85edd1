"""Every constant has a source, and every row can be used."""

import pytest

from bendrel.core.threads.designation import parse_thread


def every_source(kit):
    for name in (
        "materials",
        "tubes",
        "benders",
        "fittings",
        "flare_sizes",
        "nuts",
        "services",
        "advice",
        "limits",
    ):
        for key, value in getattr(kit, name).items():
            yield f"{name} {key}", value.source
    for material in kit.materials.values():
        yield f"limits of {material.id}", material.limits_source
    for service in kit.services.values():
        for refusal in (*service.refused_materials, *service.refused_fittings):
            yield f"{service.id} refuses {refusal.id}", refusal.source


def test_every_row_says_where_it_comes_from(kit):
    for what, source in every_source(kit):
        assert source.text.strip(), what


def test_every_named_material_size_is_there(kit):
    sizes = {"3/16 in", "1/4 in", "5/16 in", "3/8 in", "4.75 mm", "6 mm", "8 mm", "10 mm"}
    for material in ("copper-nickel", "steel-double-wall", "stainless-304", "aluminium-3003"):
        assert {t.size for t in kit.tubes.values() if t.material == material} == sizes
    for size in sizes:
        assert kit.benders_for(size)
        for fitting in ("double-45", "bubble"):
            assert kit.nuts_for(fitting, size)
            assert (fitting, size) in kit.flare_sizes


def test_rows_refer_to_rows_that_exist(kit):
    for tube in kit.tubes.values():
        assert tube.material in kit.materials
        assert 0 < tube.bore_mm < tube.od_mm
    for nut in kit.nuts.values():
        assert nut.fitting in kit.fittings
        assert parse_thread(nut.thread).designation == nut.thread


@pytest.mark.parametrize(
    ("size", "thread"),
    [("3/16 in", "3/8-24"), ("1/4 in", "7/16-24"), ("5/16 in", "1/2-20"), ("3/8 in", "5/8-18")],
)
def test_usual_inverted_flare_nuts(kit, size, thread):
    """SAE J512 tube nut threads, from memory."""
    assert kit.nuts_for("double-45", size)[0].thread == thread
