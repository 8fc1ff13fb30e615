-- IEEE 1076-1993 clause 3.5: outside of processes
entity t is end;
architecture a of t is
  shared variable n : integer := 0;
begin
  process begin
    n := n + 1;
    wait for 1 ns;
    report integer'image(n);
    wait;
  end process;
  process begin
    n := n + 10;
    wait;
  end process;
end;
--> note: 11
