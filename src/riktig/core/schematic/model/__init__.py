"""What circuits are made of: devices, elements, rungs, and the notation of a path in words."""
