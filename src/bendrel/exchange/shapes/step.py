"""The tube as STEP, by way of OpenCASCADE where it is installed."""

from __future__ import annotations

import tempfile
from dataclasses import replace
from math import radians
from pathlib import Path

from bendrel.core.geometry.bends import Bend, BendList
from bendrel.core.geometry.centreline import pieces
from bendrel.core.geometry.vectors import along, cross
from bendrel.exchange.errors import FileError

TOUCHES_MM = 1e-7
"""Two points so near are one. Source: the tolerance of OpenCASCADE, Precision::Confusion."""
NO_BEND_DEG = 1e-3
"""A bend of less is none that a solid could show: it moves the end of ten metres by less than 0.2 mm."""
NOT_INSTALLED = (
    "STEP needs an optional part that is not installed here: run pip install 'bendrel[step]' beside "
    "Bendrel. DXF, STL and glTF need nothing more."
)


def write_step(shape: BendList, od_mm: float, bore_mm: float) -> bytes:
    """A solid tube swept along straights and arcs, in millimetres. Raises FileError where the
    optional part is missing or the sweep fails."""
    try:
        from OCP.BRepBuilderAPI import (
            BRepBuilderAPI_MakeEdge,
            BRepBuilderAPI_MakeFace,
            BRepBuilderAPI_MakeWire,
        )
        from OCP.BRepOffsetAPI import BRepOffsetAPI_MakePipe
        from OCP.GC import GC_MakeArcOfCircle
        from OCP.gp import gp_Ax2, gp_Circ, gp_Dir, gp_Pnt
        from OCP.IFSelect import IFSelect_RetDone
        from OCP.Interface import Interface_Static
        from OCP.Message import Message, Message_Printer
        from OCP.STEPControl import STEPControl_AsIs, STEPControl_Writer
    except ImportError as error:
        raise FileError(NOT_INSTALLED) from error

    path = BRepBuilderAPI_MakeWire()
    for piece in pieces(_without_traces(shape)):
        if piece.length_mm <= TOUCHES_MM:
            continue
        start, end = piece.start.point, piece.point(piece.length_mm)
        if piece.radius_mm is None:
            path.Add(BRepBuilderAPI_MakeEdge(gp_Pnt(*start), gp_Pnt(*end)).Edge())
            continue
        centre = along(start, cross(piece.start.normal, piece.start.way), piece.radius_mm)
        axes = gp_Ax2(gp_Pnt(*centre), gp_Dir(*piece.start.normal))
        circle = gp_Circ(axes, piece.radius_mm)
        # in halves: an arc all the way round ends where it starts, and would be none
        middle = piece.point(piece.length_mm / 2)
        for one, other in ((start, middle), (middle, end)):
            arc = GC_MakeArcOfCircle(circle, gp_Pnt(*one), gp_Pnt(*other), True)
            path.Add(BRepBuilderAPI_MakeEdge(arc.Value()).Edge())
    square = gp_Ax2(gp_Pnt(0, 0, 0), gp_Dir(1, 0, 0))

    def ring(diameter: float) -> object:
        edge = BRepBuilderAPI_MakeEdge(gp_Circ(square, diameter / 2)).Edge()
        return BRepBuilderAPI_MakeWire(edge).Wire()

    face = BRepBuilderAPI_MakeFace(ring(od_mm))
    hole = ring(bore_mm)
    hole.Reverse()  # type: ignore[attr-defined]
    face.Add(hole)
    if not path.IsDone() or not face.IsDone():
        raise FileError("The tube could not be made into a solid; its straights and bends do not join.")
    try:
        pipe = BRepOffsetAPI_MakePipe(path.Wire(), face.Face())
    except Exception as error:  # it raises what it likes of a path that it cannot follow
        raise FileError("The tube could not be made into a solid.") from error
    if not pipe.IsDone():
        raise FileError("The tube could not be made into a solid.")
    Message.DefaultMessenger_s().RemovePrinters(Message_Printer.get_type_descriptor_s())
    Interface_Static.SetCVal_s("write.step.unit", "MM")
    writer = STEPControl_Writer()
    writer.Transfer(pipe.Shape(), STEPControl_AsIs)
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "tube.step"
        if writer.Write(str(file)) != IFSelect_RetDone:
            raise FileError("The STEP file could not be written.")
        return file.read_bytes()


def _without_traces(shape: BendList) -> BendList:
    """The shape without bends that are hardly any; a solid cannot be swept along so short an arc."""
    bends: list[Bend] = []
    straight, turn = 0.0, 0.0
    for bend in shape.bends:
        straight, turn = straight + bend.straight_mm, turn + bend.rotation_deg
        if bend.angle_deg < NO_BEND_DEG:
            straight += radians(bend.angle_deg) * bend.radius_mm
            continue
        bends.append(replace(bend, straight_mm=straight, rotation_deg=turn))
        straight, turn = 0.0, 0.0
    return BendList(bends=tuple(bends), last_straight_mm=straight + shape.last_straight_mm)
