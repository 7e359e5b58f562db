"""What is kept: wearers, pieces, revisions, ticks, try-ons. Stands on ``core``."""
