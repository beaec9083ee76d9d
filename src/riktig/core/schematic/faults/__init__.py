"""What is wrong with the circuits as they are drawn."""
