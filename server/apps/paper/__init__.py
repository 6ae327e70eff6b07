"""What goes on paper: a job to tick by hand, a drum's service card."""
