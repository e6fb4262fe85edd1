"""Developed length and end point against OpenCASCADE, rotations against SciPy."""

import numpy as np
import pytest
from OCP.BRepAdaptor import BRepAdaptor_CompCurve
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge, BRepBuilderAPI_MakeWire
from OCP.GC import GC_MakeArcOfCircle, GC_MakeSegment
from OCP.GCPnts import GCPnts_AbscissaPoint
from OCP.gp import gp_Ax1, gp_Dir, gp_Pnt, gp_Trsf, gp_Vec
from scipy.spatial.transform import Rotation

from bendrel.core.geometry.bends import BendList
from bendrel.core.geometry.centreline import end_frame
from bendrel.core.geometry.corners import bends_from_corners, corners_from_bends
from tests.parts import random_part


def occ_wire(shape: BendList):
    """The centreline as segments and arcs built by OpenCASCADE's own geometry and transforms."""
    point, way, normal = gp_Pnt(0, 0, 0), gp_Vec(1, 0, 0), gp_Vec(0, 0, 1)
    wire = BRepBuilderAPI_MakeWire()

    def straight(length: float) -> gp_Pnt:
        end = point.Translated(way.Multiplied(length))
        if length > 1e-7:
            wire.Add(BRepBuilderAPI_MakeEdge(GC_MakeSegment(point, end).Value()).Edge())
        return end

    for bend in shape.bends:
        point = straight(bend.straight_mm)
        roll = gp_Trsf()
        roll.SetRotation(gp_Ax1(point, gp_Dir(way)), np.radians(bend.rotation_deg))
        normal = normal.Transformed(roll)
        centre = point.Translated(normal.Crossed(way).Multiplied(bend.radius_mm))
        half, full = gp_Trsf(), gp_Trsf()
        axis = gp_Ax1(centre, gp_Dir(normal))
        half.SetRotation(axis, np.radians(bend.angle_deg) / 2)
        full.SetRotation(axis, np.radians(bend.angle_deg))
        end = point.Transformed(full)
        arc = GC_MakeArcOfCircle(point, point.Transformed(half), end).Value()
        wire.Add(BRepBuilderAPI_MakeEdge(arc).Edge())
        point, way = end, way.Transformed(full)
    end = straight(shape.last_straight_mm)
    return wire.Wire(), end


@pytest.mark.parametrize("seed", range(24))
def test_length_and_end_agree_with_opencascade(seed):
    shape = random_part(seed + 900, bends=2 + seed % 9)
    wire, end = occ_wire(shape)
    developed = GCPnts_AbscissaPoint.Length_s(BRepAdaptor_CompCurve(wire))
    assert shape.developed_mm == pytest.approx(developed, abs=1e-6)
    assert end_frame(shape).point == pytest.approx((end.X(), end.Y(), end.Z()), abs=1e-6)


def test_rotations_agree_with_scipy():
    for seed in range(200):
        shape = random_part(seed, bends=6, hairpins=False)
        points = np.array(corners_from_bends(shape).points)
        ways = np.diff(points, axis=0)
        ways /= np.linalg.norm(ways, axis=1)[:, None]
        normals = np.cross(ways[:-1], ways[1:])
        normals /= np.linalg.norm(normals, axis=1)[:, None]
        read = bends_from_corners(corners_from_bends(shape))
        for k in range(1, len(normals)):
            turn = Rotation.from_rotvec(np.radians(read.bends[k].rotation_deg) * ways[k])
            assert turn.apply(normals[k - 1]) == pytest.approx(normals[k], abs=1e-9)
