"""The service: thin HTTP routes over the core, the store and the exporters."""
