-- IEEE 1076-1993 clause 8.4: not at once
entity t is end;
architecture a of t is
  signal s : integer := 1;
begin
  process begin
    s <= 2;
    report integer'image(s);
    wait for 0 ns;
    report integer'image(s);
    wait;
  end process;
end;
--> note: 1
--> note: 2
