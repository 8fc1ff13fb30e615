-- IEEE 1076-1993 clause 4.7: each has the same value
entity t is end;
architecture a of t is
  signal x, y : integer := 7;
begin
  process begin
    report integer'image(x + y);
    wait;
  end process;
end;
--> note: 14
