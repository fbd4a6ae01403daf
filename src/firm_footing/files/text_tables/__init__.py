"""Tables as text, of whatever they hold: headings, units, rows, cells."""

from firm_footing.files.text_tables.table import Table, TableError, read_table

__all__ = ["Table", "TableError", "read_table"]
