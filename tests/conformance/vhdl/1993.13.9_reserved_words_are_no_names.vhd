-- IEEE 1076-1993 clause 13.9: a word of the language cannot be declared
entity t is end;
architecture a of t is
  signal process : bit; --! reserved
begin
end;
