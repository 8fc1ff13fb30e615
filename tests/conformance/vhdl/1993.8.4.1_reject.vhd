-- IEEE 1076-1993 clause 8.4.1: pulses shorter than the limit are lost, longer ones pass
entity t is end;
architecture a of t is
  signal s, d : bit;
begin
  s <= '1' after 10 ns, '0' after 12 ns, '1' after 20 ns, '0' after 24 ns;
  d <= reject 3 ns inertial s after 5 ns;
  process (d) begin
    report integer'image(now / 1 ns);
  end process;
end;
--> note: 0
--> note: 25
--> note: 29
