-- IEEE 1076-1993 clause 6.5: a range without values gives an array without elements
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
begin
  process begin
    report integer'image(v(0 downto 3)'length);
    wait;
  end process;
end;
--> note: 0
