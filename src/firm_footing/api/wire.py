"""What do all shapes on the wire have in common?"""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

Truth = Annotated[bool, Field(strict=True)]
"""True or false, and not a number or word that would pass for one."""


class In(BaseModel):
    """Base of what comes in: unknown keys and NaN are errors."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Out(BaseModel):
    """Base of what goes out."""

    model_config = ConfigDict(from_attributes=True)
