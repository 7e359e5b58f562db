"""What a maker's own samples and pieces tell: how much wire their hand takes, and how long it."""
