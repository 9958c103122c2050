"""Router with a gantry that moves on low rails over a fixed bed."""
