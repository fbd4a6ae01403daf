"""How are the thousands of numbers of a recorded swing held?

As they come in, rows of numbers; as they are kept, eight bytes each. Both are sequences of rows.
"""

from collections.abc import Iterator, Sequence
from typing import Annotated, Any, overload

import numpy as np
from numpy.typing import NDArray
from pydantic import (
    Field,
    PlainSerializer,
    ValidatorFunctionWrapHandler,
    WrapValidator,
)

from firm_footing.core.case.base import Number
from firm_footing.core.case.limits import SAMPLES

SampleRow = tuple[float | None, ...]


class PackedSamples(Sequence[SampleRow]):
    """Rows of numbers, None where nothing was recorded.

    array : (n, columns) float64, NaN where nothing was recorded; not to be written to
    """

    __slots__ = ("array",)

    def __init__(self, array: NDArray[np.float64]) -> None:
        self.array = array

    @classmethod
    def of(cls, rows: Sequence[Sequence[float | None]], columns: int) -> "PackedSamples":
        """Of rows that are all as long as there are columns."""
        kept = [[np.nan if v is None else v for v in row] for row in rows]
        return cls(np.array(kept, dtype=np.float64).reshape(len(rows), columns))

    def __len__(self) -> int:
        return len(self.array)

    @overload
    def __getitem__(self, at: int) -> SampleRow: ...
    @overload
    def __getitem__(self, at: slice) -> tuple[SampleRow, ...]: ...
    def __getitem__(self, at: int | slice) -> SampleRow | tuple[SampleRow, ...]:
        if isinstance(at, slice):
            return tuple(map(_row, self.array[at].tolist()))
        return _row(self.array[at].tolist())

    def __iter__(self) -> Iterator[SampleRow]:
        return map(_row, self.array.tolist())

    def __eq__(self, other: object) -> bool:
        if isinstance(other, PackedSamples):
            return np.array_equal(self.array, other.array, equal_nan=True)
        return tuple(self) == other

    def __hash__(self) -> int:
        return hash((len(self), self[:1], self[-1:]))


def as_array(samples: Sequence[Sequence[float | None]], columns: int) -> NDArray[np.float64]:
    """(n, columns) of the samples, NaN where nothing was recorded."""
    packed = samples if isinstance(samples, PackedSamples) else PackedSamples.of(samples, columns)
    return packed.array


def _row(values: list[float]) -> SampleRow:
    return tuple(None if v != v else v for v in values)


def _keep_packed(value: Any, validate: ValidatorFunctionWrapHandler) -> Any:
    return value if isinstance(value, PackedSamples) else validate(value)


def _as_rows(value: Any) -> Any:
    return tuple(value) if isinstance(value, PackedSamples) else value


_SampleRows = Annotated[tuple[tuple[Number | None, ...], ...], Field(max_length=SAMPLES)]
Samples = Annotated[
    _SampleRows, WrapValidator(_keep_packed), PlainSerializer(_as_rows, return_type=_SampleRows)
]
"""Of a trace, by its columns."""
