-- IEEE 1076-2008 clause 16.2: an attribute asks of a dimension that the array has
entity t is end;
architecture r of t is
  type grid is array (0 to 1, 4 downto 2) of integer;
begin
  process
    variable m : grid;
  begin
    for k in m'range(3) loop m(0, k) := 1; end loop; --! attribute
    wait;
  end process;
end;
