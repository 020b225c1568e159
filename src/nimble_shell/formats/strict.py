"""What the neutral case files have in common: numbers are numbers, unknown keys are refused by name."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import BaseModel, BeforeValidator, ConfigDict
from pydantic_core import PydanticCustomError


def _number(value: Any) -> Any:
    if isinstance(value, bool | str):  # Pydantic would read "1" and true as numbers
        raise PydanticCustomError("float_type", "a number is expected")
    return value


Number = Annotated[float, BeforeValidator(_number)]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False, populate_by_name=True)
