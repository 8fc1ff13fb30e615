"""The standard packages: what they declare as VHDL text, what their subprograms do as Python beside it."""
