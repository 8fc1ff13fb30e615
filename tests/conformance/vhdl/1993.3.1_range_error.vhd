-- IEEE 1076-1993 clause 3.1: a value outside of its subtype ends the run
entity range_error is end entity;
architecture test of range_error is
  signal n : integer range 0 to 3 := 0;
begin
  process begin
    for i in 1 to 5 loop
      n <= n + 1; --! outside
      wait for 1 ns;
      report integer'image(n);
    end loop;
    wait;
  end process;
end architecture;
--> note: 1
--> note: 2
--> note: 3
