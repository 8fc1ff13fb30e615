-- IEEE 1076-1993 clause 14.1: arrays have a length
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1); signal s : bit;
begin
  process begin
    report integer'image(s'length); --! belongs to arrays
    wait;
  end process;
end;
