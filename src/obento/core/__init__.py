"""The computation: text and arrays in, values out. No interface, database, network, clock or global state."""
