"""The order of work: steps, and the cautions that stand at them."""
