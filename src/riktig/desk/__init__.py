"""The window: shows what the core derives, turns gestures into edits and records."""
