-- IEEE 1076-1993 clause 3.2.1: an index for each
entity t is end;
architecture a of t is
  type grid is array (0 to 1, 1 to 3) of integer;
  signal g : grid := ((1, 2, 3), (4, 5, 6));
begin
  process begin
    report integer'image(g(1, 3)) & integer'image(g(0, 2)) & " " & integer'image(g'length(2));
    wait;
  end process;
end;
--> note: 62 3
