-- IEEE 1076-1993 clause 9.2: when the time step is over
entity t is end;
architecture a of t is
  signal s : integer := 0;
begin
  process begin
    s <= 1;
    wait for 0 ns;
    s <= 2;
    wait;
  end process;
  postponed process (s) begin
    report integer'image(s);
  end process;
end;
--> note: 0
--> note: 2
