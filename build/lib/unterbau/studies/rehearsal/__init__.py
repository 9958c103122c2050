"""A build rehearsed at the desk: a machine with hidden faults, and instruments that read it."""
