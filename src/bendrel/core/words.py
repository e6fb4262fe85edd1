"""English that sentences are put together with."""

from __future__ import annotations


def a_or_an(noun: str) -> str:
    """A noun with its article, as it is spoken.

    >>> a_or_an("engine-oil cooler line"), a_or_an("union"), a_or_an("clamp")
    ('an engine-oil cooler line', 'a union', 'a clamp')
    """
    spoken = noun.lower()
    vowel = spoken[:1] in "aeiou" and not spoken.startswith(("uni", "use", "usu", "eu", "one"))
    return f"{'an' if vowel else 'a'} {noun}"
