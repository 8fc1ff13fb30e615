"""VHDL (IEEE 1076-1993 and the common part of -2008): text in, Design out."""
