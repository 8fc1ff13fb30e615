-- IEEE 1076-1993 clause 14.1: an array has as many dimensions as it has
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1); signal s : bit;
begin
  process begin
    report integer'image(v'length(2)); --! dimension
    wait;
  end process;
end;
