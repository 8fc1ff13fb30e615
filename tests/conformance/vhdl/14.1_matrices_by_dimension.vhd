-- IEEE 1076-1993 clause 14.1: each dimension has its own range
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1); signal s : bit;
begin
  process
    type grid is array (0 to 1, 4 downto 2) of integer; variable m : grid;
  begin
    report integer'image(m'length) & integer'image(m'length(2)) & integer'image(m'left(2)) & integer'image(m'right(2));
    for i in m'range(1) loop for k in m'range(2) loop m(i, k) := i * 10 + k; end loop; end loop;
    report integer'image(m(1, 3));
    wait;
  end process;
end;
--> note: 2342
--> note: 13
