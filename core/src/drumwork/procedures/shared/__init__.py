"""Openings, slackening, tensioning and endings that several procedures share."""
