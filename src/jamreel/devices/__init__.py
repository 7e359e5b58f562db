"""Stand-ins for what stands on a bench: calliper, scale, label printer.

Each sends or takes what a real one would, in plain text or as a picture, so that nothing above
knows the difference. Imports the core's units only.
"""
