-- IEEE 1076-1993 clause 9.5.1: the first condition that holds decides
entity t is end;
architecture a of t is
  signal s, d : integer := 0;
begin
  s <= 3 after 1 ns, 8 after 2 ns;
  d <= 1 when s < 2 else 2 when s < 5 else 3;
  process (d) begin
    report integer'image(d);
  end process;
end;
--> note: 0
--> note: 1
--> note: 2
--> note: 3
