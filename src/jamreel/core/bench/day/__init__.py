"""A day at the bench: the steps of several pieces in an order that ends soonest.

Every step takes hands (and perhaps the torch) for its minutes, and may then be left alone for a
while, in the pickle, the tumbler, a clamp or nothing. Due dates come first: least lateness, then
the earliest end, then the fewest changes between pieces.

``case`` is what is to be done and with what; ``placed`` lays an order of it out in time; ``model``
is the same as a problem for the solver; ``calm`` looks for orders with few changes; ``schedule`` is
the door.
"""
