-- IEEE 1076-1993 clause 8.4: several values at their times
entity t is end;
architecture a of t is
  signal s : integer := 0;
begin
  s <= 1 after 2 ns, 5 after 4 ns;
  process (s) begin
    report integer'image(now / 1 ns) & ":" & integer'image(s);
  end process;
end;
--> note: 0:0
--> note: 2:1
--> note: 4:5
