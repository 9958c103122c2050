"""Materials: stiffness, density, damping, each with its source."""
