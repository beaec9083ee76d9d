"""The computation of Riktig: no interface, no printing, usable from a script."""
