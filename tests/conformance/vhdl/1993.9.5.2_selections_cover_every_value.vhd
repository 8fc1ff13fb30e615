-- IEEE 1076-1993 clause 9.5.2: like case
entity t is end;
architecture a of t is
  signal s : integer range 0 to 3 := 0;
  signal d : bit;
begin
  with s select d <= '0' when 0, '1' when 1; --! not-covered
end;
