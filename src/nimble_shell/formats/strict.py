"""What the neutral case files have in common: numbers are numbers, unknown keys are refused by name."""

from __future__ import annotations

import math
from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict
from pydantic_core import PydanticCustomError

_LEAST, _MOST = 1e-30, 1e12  #: magnitudes that anything measured has, in any of the formats' units


def _number(value: Any) -> Any:
    if isinstance(value, bool | str):  # Pydantic would read "1" and true as numbers
        raise PydanticCustomError("float_type", "a number is expected")
    if isinstance(value, int | float) and value and abs(value) < math.inf and not _LEAST <= abs(value) <= _MOST:
        raise PydanticCustomError("number_size", ": {size} is the size of nothing", {"size": f"{value:g}"})
    return value


Number = Annotated[float, BeforeValidator(_number)]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, populate_by_name=True)
