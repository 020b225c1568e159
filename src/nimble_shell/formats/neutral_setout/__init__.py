"""The neutral set-out case of the command line: panels, courses and drift, as plain JSON."""

from nimble_shell.formats.cases import Cases
from nimble_shell.formats.neutral_setout import courses, drift, panels

_CASES = Cases(
    {
        "panels": (panels.PanelsCase, panels.compute),
        "courses": (courses.CoursesCase, courses.compute),
        "drift": (drift.DriftCase, drift.compute),
    }
)
KINDS, read, compute = _CASES.kinds, _CASES.read, _CASES.compute
