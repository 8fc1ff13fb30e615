-- IEEE 1076-1993 clause 8.4.1: passes every pulse
entity t is end;
architecture a of t is
  signal s, d : bit;
begin
  s <= '1' after 10 ns, '0' after 12 ns;
  d <= transport s after 5 ns;
  process (d) begin
    report integer'image(now / 1 ns);
  end process;
end;
--> note: 0
--> note: 15
--> note: 17
