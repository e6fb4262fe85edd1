"""The log that all lines of a job share (common practice: covers, wheels and brackets come off once)."""

from bendrel.core.line.strip_down import SharedItem, StripDown, parts_for, repeated_ids, steps_back, still_off

LOG = StripDown(
    items=(
        SharedItem(id="n", kind="nut", what="wheel", wrench="27 mm", count=16, where="both hubs"),
        SharedItem(id="c", kind="shield", what="tunnel cover", lines=("cooler",)),
        SharedItem(id="s", kind="part", what="old strainer", fate="out for good"),
        SharedItem(id="w", kind="clip", what="wiring clip", count=3, fate="replace", refitted=True),
    )
)


def test_what_came_off_last_goes_on_first_and_what_is_out_for_good_stays_out():
    assert [(step.item, step.text, step.done) for step in steps_back(LOG)] == [
        ("w", "3 × new clip wiring clip", True),
        ("c", "shield tunnel cover", False),
        ("n", "16 × nut wheel, both hubs, 27 mm wrench", False),
    ]


def test_what_is_still_off_is_named():
    assert still_off(LOG) == ("16 × nut wheel", "shield tunnel cover")


def test_what_is_not_used_again_is_bought_once():
    assert [(part.what, part.count) for part in parts_for(LOG)] == [("clip wiring clip", 3)]


def test_an_id_stands_for_one_thing():
    assert repeated_ids(LOG) == ()
    assert repeated_ids(StripDown(items=(*LOG.items, LOG.items[1]))) == ("c",)
