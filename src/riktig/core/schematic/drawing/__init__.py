"""Sheets as display lists: symbols, wires and labels."""
