"""Make-ups: sequences of parts laid out to a length; imports parts, closures and fit."""
