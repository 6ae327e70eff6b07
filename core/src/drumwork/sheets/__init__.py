"""Sheets people bring: comma-separated values or a workbook, read row by row; and cells written so that no spreadsheet runs them."""

from drumwork.sheets.cells import harmless, plain
from drumwork.sheets.table import BadRow, BadSheet, Table, read_table

__all__ = ["BadRow", "BadSheet", "Table", "harmless", "plain", "read_table"]
