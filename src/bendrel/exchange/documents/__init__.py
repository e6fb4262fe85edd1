"""Line documents and job archives: read, checked, brought up to date."""
