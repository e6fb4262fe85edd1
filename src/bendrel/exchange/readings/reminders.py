"""What is due, as an iCalendar file: one entry a follow-up that has a date."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, date, datetime, timedelta
from hashlib import sha256

from icalendar import Alarm, Calendar, Event

from bendrel.core.work.follow_up import Due


def build_reminders(line_id: str, line: str, job: str, due: Sequence[Due], now: datetime) -> bytes:
    """RFC 5545 bytes; what has no date stands in the description of what has. The entries keep their names,
    so that a file brought in again changes them and adds none."""
    calendar = Calendar()
    calendar.add("prodid", "-//Bendrel//second looks//EN")
    calendar.add("version", "2.0")
    for one in due:
        if not one.day:
            continue
        day = date.fromisoformat(one.day)
        event = Event()
        event.add("uid", f"{sha256(f'{line_id} {one.id}'.encode()).hexdigest()[:24]}@bendrel.invalid")
        event.add("dtstamp", now.astimezone(UTC))
        event.add("dtstart", day)
        event.add("dtend", day + timedelta(days=1))
        event.add("summary", f"{one.what}: {line}")
        event.add("description", f"{job}. {one.text}.")
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", f"{one.what}: {line}")
        alarm.add("trigger", timedelta(hours=8))
        event.add_component(alarm)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
