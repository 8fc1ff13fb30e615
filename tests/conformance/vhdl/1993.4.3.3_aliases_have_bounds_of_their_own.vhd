-- IEEE 1076-1993 clause 4.3.3: the same elements under other indices
entity t is end;
architecture a of t is
  signal word : bit_vector(7 downto 0) := "10010001";
  alias high : bit_vector(1 to 4) is word(7 downto 4);
begin
  process begin
    report bit'image(high(1)) & bit'image(high(4)) & " " & integer'image(high'left);
    wait;
  end process;
end;
--> note: '1''1' 1
