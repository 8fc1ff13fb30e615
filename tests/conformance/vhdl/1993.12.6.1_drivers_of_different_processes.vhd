-- IEEE 1076-1993 clause 12.6.1: meet only on resolved signals
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1';
  s <= '0'; --! two-drivers
end;
