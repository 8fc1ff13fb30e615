-- IEEE 1076-1993 clause 8.4: of several in one cycle
entity t is end;
architecture a of t is
  signal s : integer := 0;
begin
  process begin
    s <= 1;
    s <= 2;
    wait for 0 ns;
    report integer'image(s);
    wait;
  end process;
end;
--> note: 2
