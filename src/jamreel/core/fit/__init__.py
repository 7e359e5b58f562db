"""From girth to inside girth to the length that is cut. Stands on ``body``."""
