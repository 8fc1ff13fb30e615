-- IEEE 1076-1993 clause 14.1: a range stands where a range may
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1); signal s : bit;
begin
  process begin
    report integer'image(v'range); --! range
    wait;
  end process;
end;
