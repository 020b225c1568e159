"""The neutral shop case of the command line: bars, sheets, laydown, quantities and loading, as plain JSON."""

from nimble_shell.formats.cases import Cases
from nimble_shell.formats.neutral_shop import bars, laydown, loading, quantities, sheets

_CASES = Cases(
    {
        "bars": (bars.BarsCase, bars.compute),
        "sheets": (sheets.SheetsCase, sheets.compute),
        "laydown": (laydown.LaydownCase, laydown.compute),
        "loading": (loading.LoadingCase, loading.compute),
        "quantities": (quantities.QuantitiesCase, quantities.compute),
    }
)
KINDS, read, compute = _CASES.kinds, _CASES.read, _CASES.compute
