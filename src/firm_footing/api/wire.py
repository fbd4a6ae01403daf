"""What do all shapes on the wire have in common?"""

from pydantic import BaseModel, ConfigDict


class In(BaseModel):
    """Base of what comes in: unknown keys and NaN are errors."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class Out(BaseModel):
    """Base of what goes out."""

    model_config = ConfigDict(from_attributes=True)
