"""A record that is sent to another process while another thread works with it."""

import pickle
from functools import cached_property

from bendrel.core.record import record


class Busy:
    """While it is being sent, somebody asks its owner for what that keeps."""

    def __reduce__(self):
        _ = OWNERS[0].doubled
        return (Busy, ())


@record
class Owner:
    busy: Busy
    size: int

    @cached_property
    def doubled(self) -> int:
        return 2 * self.size


OWNERS: list[Owner] = []


def test_what_is_kept_beside_the_fields_may_grow_while_it_is_sent():
    OWNERS[:] = [Owner(busy=Busy(), size=3)]
    sent = pickle.loads(pickle.dumps(OWNERS[0]))
    assert sent.size == 3
    assert "doubled" in vars(OWNERS[0])
    assert "doubled" not in vars(sent)
    assert sent.doubled == 6
