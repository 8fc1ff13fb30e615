-- IEEE 1076-1993 clause 8.4.1: a pulse that is shorter than the delay is lost
entity t is end;
architecture a of t is
  signal s, d : bit;
begin
  s <= '1' after 10 ns, '0' after 12 ns, '1' after 30 ns;
  d <= s after 5 ns;
  process (d) begin
    report integer'image(now / 1 ns);
  end process;
end;
--> note: 0
--> note: 35
