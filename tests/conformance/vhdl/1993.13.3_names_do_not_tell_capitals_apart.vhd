-- IEEE 1076-1993 clause 13.3: a basic identifier means the same in any case
entity t is end;
architecture a of t is
  signal Level : integer := 4;
begin
  process begin
    report integer'image(LEVEL);
    wait;
  end process;
end;
--> note: 4
