-- IEEE 1076-2008 clause 9.3.3.3: an element may be a part of several
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
begin
  v <= ("10", '1', '0');
  process begin
    wait for 1 ns;
    report bit'image(v(3)) & bit'image(v(2)) & bit'image(v(1)) & bit'image(v(0));
    wait;
  end process;
end;
--> note: '1''0''1''0'
