"""A wire as a path of moves: straight, bend on a pin, turn of the plane, mark."""
