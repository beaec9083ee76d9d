"""Which pins are at one potential, where its conductors end, and the ways from a source to a load."""
