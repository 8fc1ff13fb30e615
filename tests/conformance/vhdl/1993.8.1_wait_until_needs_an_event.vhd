-- IEEE 1076-1993 clause 8.1: a condition that holds already is not enough
entity t is end;
architecture a of t is
  signal s : bit := '1';
begin
  s <= '0' after 2 ns, '1' after 4 ns;
  process begin
    wait until s = '1';
    report integer'image(now / 1 ns);
    wait;
  end process;
end;
--> note: 4
