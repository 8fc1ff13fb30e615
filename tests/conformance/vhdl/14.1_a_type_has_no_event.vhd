-- IEEE 1076-1993 clause 14.1: events belong to signals
entity t is end;
architecture r of t is
  signal v : bit_vector(3 downto 1); signal s : bit;
begin
  process begin
    if bit'event then report "x"; end if; --! attribute
    wait;
  end process;
end;
