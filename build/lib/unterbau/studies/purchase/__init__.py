"""What will not do, before it is bought: drives, guides, feet, each with its working."""
