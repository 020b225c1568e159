"""The neutral lift case of the command line: lifts of panels, time on site and order of work, as plain JSON."""

from nimble_shell.formats.cases import Cases
from nimble_shell.formats.neutral_lift import lift, order, site_time

_CASES = Cases(
    {
        "lift": (lift.LiftCase, lift.compute),
        "site_time": (site_time.SiteTimeCase, site_time.compute),
        "order": (order.OrderCase, order.compute),
    }
)
KINDS, read, compute = _CASES.kinds, _CASES.read, _CASES.compute
