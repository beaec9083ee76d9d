"""Where everything stands on the sheets: power sheets, control sheets, the earth tree, the frame."""
