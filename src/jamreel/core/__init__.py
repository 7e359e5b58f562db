"""The rules of the job, in pure Python: no Django, no I/O, no clock, no randomness.

Inside: mm, N, MPa, g, rad; what a maker types is converted once, at the edge (``units``).
Floors from the ground up: ``errors``, ``units``, ``words``, ``values``, then ``wire`` and
``body``, ``fit``, ``path``, then ``cutting``, ``forming`` and ``bench``, ``advice``, ``families``,
and on top ``plan``: the one door, ``plan(brief, shop) -> Plan``.
"""
