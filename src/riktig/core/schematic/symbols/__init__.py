"""Circuit symbols of both rulebooks, and which one a unit has."""
