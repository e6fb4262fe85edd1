"""What a line carries and stands: fluid, flow, pressure, strength."""
