"""Files in and out: CSV, JSON, SVG and PDF."""
