-- IEEE 1076-1993 clause 8.1: goes on at whichever comes first
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1' after 10 ns;
  process begin
    wait on s for 4 ns;
    report integer'image(now / 1 ns);
    wait on s for 40 ns;
    report integer'image(now / 1 ns);
    wait;
  end process;
end;
--> note: 4
--> note: 10
