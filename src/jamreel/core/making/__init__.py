"""The order of hands: what hangs in what, the order that follows, and a walker that proves it."""
