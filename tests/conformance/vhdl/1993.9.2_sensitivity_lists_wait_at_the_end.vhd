-- IEEE 1076-1993 clause 9.2: every process runs once at the beginning
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= '1' after 3 ns;
  process (s) begin
    report integer'image(now / 1 ns) & bit'image(s);
  end process;
end;
--> note: 0'0'
--> note: 3'1'
