"""Circuit templates: from what the builder asked for to devices and rungs, with his changes worked in."""
