"""Work in a process of its own, with a limit of time and of memory, that can be killed.

Files from outside are parsed here, and what may take long is reckoned here: neither can hold up a keystroke,
and neither outlives its limit. Each piece of work gets a fresh copy of a process that has everything loaded.
"""

from __future__ import annotations

import builtins
import gc
import io
import os
import pickle
import resource
import signal
import threading
import traceback
import weakref
from collections.abc import Callable
from dataclasses import dataclass, is_dataclass, replace
from datetime import date, datetime, timedelta, timezone
from importlib import import_module
from multiprocessing import forkserver, get_context
from multiprocessing.connection import Connection, wait
from pathlib import Path
from typing import Any

from bendrel.core.errors import BendrelError
from bendrel.exchange.errors import FileError
from bendrel.services.errors import Crowded, GivenUp, NotFound, Refused, TooMuch


@dataclass(frozen=True)
class Bounds:
    """What a piece of work may take: seconds of the processor, MB beyond what is loaded, and what is said
    beyond that. `nice` is how far it gives way to keystrokes; what goes on `behind` takes no place from what
    is waited for."""

    seconds: float
    megabytes: int
    said: str
    nice: int = 0
    behind: bool = False

    def times(self, count: int) -> Bounds:
        """For several files that are read one after the other; all of them share the memory."""
        return replace(self, seconds=self.seconds * count)


READING = Bounds(
    1.8, 220, "That file takes too much time or memory to read; it is damaged, or no file of this kind."
)
RECKONING = Bounds(
    2.8, 700, "Too much to reckon: that takes over three seconds. Try it with fewer bends or pieces.", nice=5
)
BACKGROUND = Bounds(20.0, 700, RECKONING.said, nice=10, behind=True)
"""What nobody waits for: it gives way to everything else, and takes no place."""
LOADED = 20
"""So many times longer than its processor time a piece of work may take by the clock. Processor time is what
counts: the clock only ends what does nothing, on a machine that is as busy as can be."""
AT_ONCE = 2
"""So many pieces of work go on beside each other; the others wait for a place."""
WAITS_S = 4.0
_PLACES = threading.BoundedSemaphore(AT_ONCE)
_LOADED = (
    "kept.archives",
    "line.importing",
    "line.measuring",
    "job.photos",
    "proof.proof_runs",
    "reckoned.reckoning",
    "reckoned.summarising",
    "kept.whole_shop",
)
"""The rooms of `services` whose work is done apart: loaded once, in the process that is copied."""
_CONTEXT: Any = get_context("forkserver")
_CONTEXT.set_forkserver_preload(["__main__", *(f"bendrel.services.{room}" for room in _LOADED)])
_REFUSALS: dict[str, type[BendrelError]] = {kind.__name__: kind for kind in (FileError, NotFound)}


def ready() -> None:
    """Have the process that is copied start, so that the first file need not wait for it."""
    _CLOSING.clear()
    forkserver.ensure_running()


_UNDER_WAY: weakref.WeakSet[Apart] = weakref.WeakSet()
_CLOSING = threading.Event()


def give_all_up() -> None:
    """Nobody waits for anything any more: Bendrel is being closed. Nothing else is begun until `ready`."""
    _CLOSING.set()
    for work in list(_UNDER_WAY):
        work.give_up()


class Apart:
    """One call of `task`, begun as soon as there is a place for it. What it takes and gives must be
    picklable, and it gives records, bytes and plain values alone. Raises Crowded where there is no place, and
    GivenUp while Bendrel is being closed."""

    def __init__(self, bounds: Bounds, task: Callable[..., Any], *args: Any) -> None:
        self._bounds = bounds
        self._given_up = False
        if not bounds.behind and not _PLACES.acquire(timeout=WAITS_S):
            raise Crowded("Bendrel is busy with other files and sums; try it again in a moment.")
        try:
            if _CLOSING.is_set():
                raise GivenUp("Bendrel is being closed.")
            self._answer, there = _CONTEXT.Pipe(duplex=False)
            self._process = _CONTEXT.Process(target=_work, args=(there, bounds, task, args), daemon=True)
            self._process.start()
            there.close()
            _UNDER_WAY.add(self)
            if _CLOSING.is_set():
                self.give_up()
        except BaseException:
            self._leave()
            raise

    def give_up(self) -> None:
        """Nobody waits for it any more."""
        self._given_up = True
        self._process.kill()

    def result(self) -> Any:
        """What the task gives. Raises what it refuses with, TooMuch beyond its limits, GivenUp when it was
        given up, and RuntimeError for a fault of ours."""
        try:
            if not wait([self._answer], self._bounds.seconds * LOADED):
                raise TooMuch(self._bounds.said)
            kind, value = _Records(io.BytesIO(self._answer.recv_bytes())).load()
        except (EOFError, OSError) as error:  # killed, or by the system beyond its memory
            if self._given_up:
                raise GivenUp("Nobody waits for this any more.") from error
            raise TooMuch(self._bounds.said) from error
        finally:
            self._process.kill()
            self._process.join()
            self._answer.close()
            self._leave()
        if kind == "done":
            return value
        if kind == "beyond":
            raise TooMuch(self._bounds.said)
        if kind == "failed":
            raise RuntimeError(value)
        raise _REFUSALS.get(kind, Refused)(value)

    def _leave(self) -> None:
        if not self._bounds.behind:
            _PLACES.release()


def apart(bounds: Bounds, task: Callable[..., Any], *args: Any) -> Any:
    """Call `task` apart and wait for it. Raises as `Apart.result`."""
    return Apart(bounds, task, *args).result()


def _work(answer: Connection, bounds: Bounds, task: Callable[..., Any], args: tuple[Any, ...]) -> None:
    gc.disable()  # it ends before rubbish matters, and looking for it would copy all that is loaded
    _limit(bounds)
    try:
        said = pickle.dumps(("done", task(*args)))
    except BendrelError as error:
        said = pickle.dumps((type(error).__name__, str(error.args[0])))
    except (MemoryError, RecursionError):
        said = pickle.dumps(("beyond", ""))
    except Exception:
        said = pickle.dumps(("failed", traceback.format_exc()))
    answer.send_bytes(said)


def _limit(bounds: Bounds) -> None:
    """Memory beyond what is loaded, and processor time: the signal that it is up ends the process."""
    os.nice(bounds.nice)
    signal.setitimer(signal.ITIMER_PROF, bounds.seconds)
    own = _data_bytes()
    if own is not None:
        most = own + bounds.megabytes * 1_000_000
        resource.setrlimit(resource.RLIMIT_DATA, (most, most))


def _data_bytes() -> int | None:
    """What this process has of its own so far. Linux says it in kB: proc(5), VmData. None of a system that
    does not say it: there memory is bounded by the system alone."""
    try:
        told = Path("/proc/self/status").read_text()
    except OSError:
        return None
    found = (line.split()[1] for line in told.splitlines() if line.startswith("VmData:"))
    return next((int(kilobytes) * 1024 for kilobytes in found), None)


_TIMES = {"date": date, "datetime": datetime, "timedelta": timedelta, "timezone": timezone}


class _Records(pickle.Unpickler):
    """Builds nothing but our own records and plain values, whatever the process that parsed a file says."""

    def find_class(self, module: str, name: str) -> Any:
        if module == "builtins" and name in ("frozenset", "set", "bytearray"):
            return getattr(builtins, name)
        if module == "datetime" and name in _TIMES:
            return _TIMES[name]
        if module.split(".")[0] == "bendrel":
            found = getattr(import_module(module), name, None)
            if isinstance(found, type) and is_dataclass(found):
                return found
        raise pickle.UnpicklingError(f"{module}.{name} is no record of ours")
