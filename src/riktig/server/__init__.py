"""The shop's server: one job on several benches at once, in PostgreSQL. Nothing here knows the interface."""
