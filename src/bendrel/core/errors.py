"""The root of what Bendrel raises on purpose, in every layer.

    BendrelError
    ├── core       UnitError (PlaneUnsaid), LengthsError (ShapeError (ReadingError), HoseError),
    │              ThreadError (MixedThreads), NotAChain, OrderError, HoldError, HoldUnread
    ├── catalogue  OwnError
    ├── exchange   FileError
    ├── store      Busy, NoRoom, UnreadableDocument, NotEmpty, Strange, BackupError, UnusableShop
    ├── standins   SupplierAway
    ├── services   Refused (Unreadable, TooMuch), NotFound, Stale, GivenUp, Crowded
    └── cli        BadInput

Nobody has to catch one to pass it on: the API says each with its status, the command line in one line.
"""

from __future__ import annotations


class BendrelError(Exception):
    """Something that is refused. Its text is one sentence for the person: what, where, what would do."""
