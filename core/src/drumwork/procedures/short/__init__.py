"""The short jobs that call-outs and repairs leave behind."""
