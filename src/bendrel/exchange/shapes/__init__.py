"""Shapes in and out: CSV, DXF, STEP, meshes, SVG."""
