"""Checks of the job against things outside the project; each file names its source on top."""
