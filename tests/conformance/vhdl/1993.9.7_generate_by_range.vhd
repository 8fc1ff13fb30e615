-- IEEE 1076-1993 clause 9.7: a copy for each value
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0) := "0110";
  signal w : bit_vector(3 downto 0);
begin
  g : for i in v'range generate
    w(i) <= not v(3 - i);
  end generate;
  process begin
    wait for 1 ns;
    report bit'image(w(3)) & bit'image(w(2)) & bit'image(w(1)) & bit'image(w(0));
    wait;
  end process;
end;
--> note: '1''0''0''1'
