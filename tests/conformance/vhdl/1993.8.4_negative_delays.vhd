-- IEEE 1076-1993 clause 8.4: are errors
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1' after -1 ns; --! run
end;
