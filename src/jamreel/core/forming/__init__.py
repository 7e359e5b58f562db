"""What wire is bent on, and what it springs to when let go."""
