-- IEEE 1076-1993 clause 13.3: in a basic identifier
entity t is end;
architecture a of t is
  signal a__b : bit; --! bad-name
begin
end;
