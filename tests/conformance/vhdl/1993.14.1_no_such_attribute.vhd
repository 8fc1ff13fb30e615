-- IEEE 1076-1993 clause 14.1: of a name that nobody declared
entity t is end;
architecture a of t is
  signal s : bit_vector(1 downto 0);
begin
  process begin
    report integer'image(s'size); --! attribute
    wait;
  end process;
end;
