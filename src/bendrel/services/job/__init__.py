"""Jobs: their lines, bookings, strip-downs, circuits, kits, photographs."""
