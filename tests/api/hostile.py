"""Files that mean harm, generated: archives, pictures, JSON, CSV and drawings."""

from __future__ import annotations

import io
import json
import random
import struct
import zipfile
import zlib
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from PIL import Image

JOB = json.dumps({"format": "bendrel-job", "version": 1, "name": "x", "lines": []})


@dataclass(frozen=True)
class Hostile:
    """Where a file is sent, and its bytes."""

    kind: str
    data: bytes


def zipped(entries: dict[str, bytes], method: int = zipfile.ZIP_DEFLATED) -> bytes:
    """A zip of these entries."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", method) as file:
        for name, data in entries.items():
            file.writestr(name, data)
    return out.getvalue()


def png(width: int, height: int, colours: int = 3) -> bytes:
    """A PNG of zeros that says this size; its data may be shorter than that."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width & 0xFFFFFFFF, height & 0xFFFFFFFF, 8, {1: 0, 3: 2}[colours], 0, 0, 0)
    rows = bytes(min(width * colours * height + height, 30_000_000))
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + chunk(b"IDAT", zlib.compress(rows, 1))
        + chunk(b"IEND", b"")
    )


def jpeg(rng: random.Random, side: int, scans: int = 0) -> bytes:
    """A JPEG, with the last scan of a progressive one repeated."""
    out = io.BytesIO()
    Image.effect_noise((side, side), rng.randint(5, 90)).convert("RGB").save(out, "JPEG", progressive=True)
    data = out.getvalue()
    at = data.rindex(b"\xff\xda")
    return data[:-2] + data[at:-2] * scans + data[-2:]


def spoilt(rng: random.Random, data: bytes) -> bytes:
    """Bytes changed, cut out or doubled."""
    made = bytearray(data)
    for _ in range(rng.randint(1, 12)):
        at = rng.randrange(max(1, len(made)))
        way = rng.randrange(4)
        if way == 0:
            made[at : at + rng.randint(1, 40)] = rng.randbytes(rng.randint(0, 40))
        elif way == 1:
            del made[at : at + rng.randint(1, 200)]
        elif way == 2:
            made[at:at] = made[at : at + rng.randint(1, 200)] * rng.randint(1, 5)
        else:
            made[at : at + 1] = rng.choice([b"\x00", b"\xff", b"9" * 30, b"[" * 30, b'"'])
    return bytes(made)


def _nested(rng: random.Random) -> bytes:
    many = rng.choice([2_000, 50_000, 900_000])
    inner = rng.choice([b"[]", b"{}", b"0", b'""', b"null", b"[[]]", b'{"a":1}'])
    head, tail = rng.choice(
        [
            (b'{"lines":[', b"]}"),
            (b'{"name":"x","bookings":[', b"]}"),
            (b'{"name":"x","lines":[{"spans":[', b"]}]}"),
            (b"[", b"]"),
            (b'{"own":[{"fields":[', b"]}]}"),
        ]
    )
    return head + b",".join([inner] * many) + tail


def _deep(rng: random.Random) -> bytes:
    return rng.choice([b"[", b'{"a":', b'{"lines":[']) * rng.choice([500, 20_000, 400_000])


def archive(rng: random.Random) -> bytes:
    """An archive that unpacks to too much, is broken, or holds what it should not."""
    way = rng.randrange(7)
    if way == 0:
        return zipped({"job.json": _nested(rng)})
    if way == 1:
        return zipped({"job.json": _deep(rng)})
    if way == 2:
        big = bytes(rng.choice([21_000_000, 60_000_000]))
        return zipped({"job.json": big})
    if way == 3:
        method = rng.choice([zipfile.ZIP_LZMA, zipfile.ZIP_BZIP2, zipfile.ZIP_DEFLATED])
        return spoilt(
            rng, zipped({"job.json": JOB.encode() + b" " * 400, "photos/a.jpg": rng.randbytes(90)}, method)
        )
    if way == 4:
        return zipped({"job.json": JOB.encode(), **{f"runs/{k:08x}.csv": b"" for k in range(700)}})
    if way == 5:
        return zipped({"../../job.json": JOB.encode(), "photos/../x.jpg": b"x"})
    return rng.randbytes(rng.randint(0, 3000))


def picture(rng: random.Random) -> bytes:
    """A picture that is far too large, has too many scans, or is broken."""
    way = rng.randrange(5)
    if way == 0:
        side = rng.choice([20_001, 60_000_000, 0xFFFFFFFF])
        return png(1, side) if rng.random() < 0.5 else png(side, 1)
    if way == 1:
        return png(rng.choice([6_000, 9_000, 19_000]), rng.choice([6_000, 9_000]))
    if way == 2:
        return jpeg(rng, rng.choice([600, 1500]), rng.choice([50, 150]))
    if way == 3:
        return spoilt(rng, jpeg(rng, 200))
    return spoilt(rng, png(300, 300))


def body(rng: random.Random) -> bytes:
    """A body of JSON."""
    way = rng.randrange(4)
    if way == 0:
        return _nested(rng)[: rng.choice([10**9, 2_400_000])]
    if way == 1:
        return _deep(rng)[:2_400_000]
    if way == 2:
        many = rng.choice([100, 30_000])
        return b"{" + b",".join(b'"%d":[]' % k for k in range(many)) + b"}"
    return b'"' + b'\\"' * rng.choice([10, 1_000_000]) + rng.choice([b'"', b""])


def table(rng: random.Random) -> bytes:
    """A CSV."""
    head = rng.choice(
        ["x_mm,y_mm,z_mm,radius_mm", "straight_mm,rotation_deg,angle_deg,radius_mm", "time_s,pressure_kpa"]
    )
    row = rng.choice(["1,2,3,4", "60,0,20,14", "9" * 60 + ",1,1,1", ",,,", '"', "1,2", "1e999,0,1,1", "\x00"])
    return (head + "\n" + f"{row}\n" * rng.choice([1, 300, 5_001, 60_000])).encode()


def dxf(places: Iterable[int], wild: float = 1.0) -> bytes:
    """A drawing of the steps of a stair, in this order."""
    parts = ["0\nSECTION\n2\nENTITIES\n"]
    for k in places:
        ends = ((k * wild, k % 2 * 5), ((k + 1) * wild, (k + 1) % 2 * 5))
        told = "".join(f"1{n}\n{x}\n2{n}\n{y}\n3{n}\n0\n" for n, (x, y) in enumerate(ends))
        parts.append(f"0\nLINE\n8\n0\n{told}")
    return "".join([*parts, "0\nENDSEC\n0\nEOF\n"]).encode()


def drawing(rng: random.Random) -> bytes:
    """A DXF of shuffled, doubled, wild or broken lines."""
    places = list(range(rng.choice([10, 300, 2_000, 2_500])))
    rng.shuffle(places)
    made = dxf(places, rng.choice([1.0, 1e9, 1e-9, 0.0]))
    return spoilt(rng, made) if rng.random() < 0.5 else made


MAKERS: dict[str, Callable[[random.Random], bytes]] = {
    "archive": archive,
    "picture": picture,
    "body": body,
    "table": table,
    "drawing": drawing,
}


def hostile(count: int, seed: int = 15) -> Iterator[Hostile]:
    """So many, every kind in turn, the same ones for the same seed."""
    rng = random.Random(seed)
    kinds = list(MAKERS)
    for k in range(count):
        kind = kinds[k % len(kinds)]
        yield Hostile(kind, MAKERS[kind](rng))
