"""The tube as STEP, by way of OpenCASCADE where it is installed."""

from __future__ import annotations

import tempfile
from pathlib import Path

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import pieces
from bendrel.core.geometry.vectors import along, cross
from bendrel.exchange.errors import FileError

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
    for piece in pieces(shape):
        if piece.length_mm <= 1e-9:
            continue
        start, end = piece.start.point, piece.point(piece.length_mm)
        if piece.radius_mm is None:
            path.Add(BRepBuilderAPI_MakeEdge(gp_Pnt(*start), gp_Pnt(*end)).Edge())
            continue
        centre = along(start, cross(piece.start.normal, piece.start.way), piece.radius_mm)
        axes = gp_Ax2(gp_Pnt(*centre), gp_Dir(*piece.start.normal))
        arc = GC_MakeArcOfCircle(gp_Circ(axes, piece.radius_mm), gp_Pnt(*start), gp_Pnt(*end), True)
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
    pipe = BRepOffsetAPI_MakePipe(path.Wire(), face.Face())
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
