-- IEEE 1076-2008 clause 9.2.2: one operand, all of its elements
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0) := "0111";
begin
  process begin
    report bit'image(and v) & bit'image(or v) & bit'image(xor v);
    wait;
  end process;
end;
--> note: '0''1''1'
