"""The whole plan of a line: a pure function of the document and the kit."""
