"""Sheets people bring: comma-separated values or a workbook, read row by row; and cells written so that no spreadsheet runs them."""

from drumwork.sheets.cells import harmless, line_of, plain, several, several_of
from drumwork.sheets.rows import BadRow, BadSheet, Table
from drumwork.sheets.table import read_table

__all__ = ["BadRow", "BadSheet", "Table", "harmless", "line_of", "plain", "read_table", "several", "several_of"]
