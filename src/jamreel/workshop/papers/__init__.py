"""What is printed, true to scale."""
