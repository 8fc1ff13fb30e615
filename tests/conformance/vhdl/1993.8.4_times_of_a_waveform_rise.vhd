-- IEEE 1076-1993 clause 8.4: each is later than the one before
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1' after 4 ns, '0' after 2 ns; --! run
end;
