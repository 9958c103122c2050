"""The window: Qt 6 Widgets over the core."""
