-- IEEE 1076-1993 clause 7.2.1: element by element from the left, whatever the bounds
entity t is end;
architecture a of t is
  signal p : bit_vector(3 downto 0) := "1100";
  signal q : bit_vector(0 to 3) := "1010";
  signal r : bit_vector(3 downto 0);
begin
  r <= p xor q;
  process begin
    wait for 1 ns;
    report bit'image(r(3)) & bit'image(r(2)) & bit'image(r(1)) & bit'image(r(0));
    wait;
  end process;
end;
--> note: '0''1''1''0'
