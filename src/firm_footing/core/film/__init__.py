"""What does a film show? Points that were touched become measures with their doubt, and answers."""

from firm_footing.core.film.measures import MeasureRead, read_film
from firm_footing.core.film.plane import FilmError, Plane, plane_of

__all__ = ["FilmError", "MeasureRead", "Plane", "plane_of", "read_film"]
