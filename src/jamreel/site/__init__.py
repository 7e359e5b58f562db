"""Settings, addresses and the demo server: the top floor."""
