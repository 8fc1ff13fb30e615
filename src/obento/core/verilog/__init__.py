"""Verilog (IEEE 1364-2005): lexer, preprocessor, parser and elaboration into a Design."""
