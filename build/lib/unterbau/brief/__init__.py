"""What the machine is for, and what follows from it."""
