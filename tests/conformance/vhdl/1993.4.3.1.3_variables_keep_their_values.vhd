-- IEEE 1076-1993 clause 4.3.1.3: from one round of a process to the next
entity t is end;
architecture a of t is
  signal clk : bit;
begin
  clk <= not clk after 1 ns when now < 4 ns;
  process (clk)
    variable n : integer := 0;
  begin
    if clk = '1' then
      n := n + 1;
      report integer'image(n);
    end if;
  end process;
end;
--> note: 1
--> note: 2
