"""The trade's rules and computation: pure functions on frozen data.

Lengths are millimetres and angles degrees at every boundary; radians exist only inside a
function. Nothing here reads a file, a database or a request.
"""
