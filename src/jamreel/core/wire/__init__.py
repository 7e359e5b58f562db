"""Gauges, sections and metals. Stands on ``units`` only."""
