-- IEEE 1076-1993 clause 8.1: the process goes on after it
entity t is end;
architecture a of t is
begin
  process begin
    wait for 5 ns;
    report integer'image(now / 1 ns);
    wait for 3 ns;
    report integer'image(now / 1 ns);
    wait;
  end process;
end;
--> note: 5
--> note: 8
