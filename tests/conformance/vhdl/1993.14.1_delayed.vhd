-- IEEE 1076-1993 clause 14.1: what it was some time ago
entity t is end;
architecture a of t is
  signal s : integer := 0;
begin
  s <= 7 after 5 ns;
  process begin
    wait for 6 ns;
    report integer'image(s) & integer'image(s'delayed(2 ns));
    wait;
  end process;
end;
--> note: 70
