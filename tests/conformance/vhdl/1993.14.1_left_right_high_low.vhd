-- IEEE 1076-1993 clause 14.1: of types and of arrays
entity t is end;
architecture a of t is
  subtype down is integer range 9 downto 2;
  signal v : bit_vector(6 to 8);
begin
  process begin
    report integer'image(down'left) & integer'image(down'low) & integer'image(v'right) & integer'image(v'high);
    wait;
  end process;
end;
--> note: 9288
