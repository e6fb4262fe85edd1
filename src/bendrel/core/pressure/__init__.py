"""How much pressure tube, hose and joints stand."""
